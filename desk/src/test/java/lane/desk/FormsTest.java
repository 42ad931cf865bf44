package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import lane.check.Verdict;
import lane.desk.app.LaneApp;
import lane.measure.Force;
import lane.quantity.Quantity;
import lane.reading.Balance;
import lane.reading.BalanceOf;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.study.Source;
import org.junit.jupiter.api.Test;

/** The forms of intake, quantities and readings: what they change, what they refuse, and what follows from it. */
class FormsTest extends InWindow {
    private void tick(String menu, String item) throws Exception {
        MenuButton button = node(menu);
        onFx(() -> {
            button.getItems().stream()
                    .filter(i -> i.getText().equals(item))
                    .findFirst()
                    .orElseThrow()
                    .fire();
            return null;
        });
        settled();
    }

    private void press(String button) throws Exception {
        Button found = robot.lookup(n -> n instanceof Button b && b.getText().equals(button) && b.isVisible())
                .queryAs(Button.class);
        onFx(() -> {
            found.fire();
            return null;
        });
        settled();
    }

    private void segment(String word) throws Exception {
        var found = robot.lookup(n -> n instanceof javafx.scene.control.ToggleButton t
                        && t.getText().equals(word))
                .queryAs(javafx.scene.control.ToggleButton.class);
        onFx(() -> {
            found.fire();
            return null;
        });
        settled();
    }

    private void select(Chosen what, String id, int stop) throws Exception {
        onFx(() -> {
            session.select(what, id);
            session.go(stop);
            return null;
        });
        settled();
    }

    private double tally(String reading, String lane) {
        return ((Tally) session.results().outcome(reading, lane)).value();
    }

    @Test
    void aTheoryIsMadeFromNothingWithConstantsAFormulaAndAValue() throws Exception {
        select(Chosen.SOURCE, "fine", 1);
        press("+ Theory");
        Source.Reference made = (Source.Reference) session.study().sources().getLast();
        assertThat(made.kind()).isEqualTo(Source.Kind.THEORY);
        enter("constant-name", "2nd");
        enter("constant-value", "1.5");
        assertThat(session.message()).contains("begins with a letter");
        enter("constant-name", "U");
        enter("constant-value", "1,5");
        settled();
        onFx(() -> {
            ComboBox<Reading> box = node("answer-reading");
            box.setValue(box.getItems().stream()
                    .filter(r -> r.id().equals("swirl-gap"))
                    .findFirst()
                    .orElseThrow());
            return null;
        });
        enter("answer-formula", "U*(1 - s/0.006");
        enter("answer-unit", "m/s");
        press("Add formula");
        assertThat(session.message()).isNotBlank();
        enter("answer-formula", "U*(1 - s/0.006)");
        press("Add formula");
        Profile p = (Profile) session.results().outcome("swirl-gap", made.id());
        assertThat(p.value()[0]).isEqualTo(1.5);
        assertThat(p.value()[100]).isCloseTo(0.75, org.assertj.core.data.Offset.offset(1e-12));
        enter("formula-swirl-gap", "2*U");
        settled();
        assertThat(((Profile) session.results().outcome("swirl-gap", made.id())).value()[7])
                .isEqualTo(3.0);
        segment("value");
        onFx(() -> {
            ComboBox<Reading> box = node("answer-reading");
            box.setValue(box.getItems().stream()
                    .filter(r -> r.id().equals("mass-flow"))
                    .findFirst()
                    .orElseThrow());
            return null;
        });
        enter("answer-value", "150");
        enter("answer-unit", "g/s");
        enter("answer-uncertainty", "2");
        press("Add value");
        Tally t = (Tally) session.results().outcome("mass-flow", made.id());
        assertThat(t.value()).isCloseTo(0.15, org.assertj.core.data.Offset.offset(1e-15));
        assertThat(t.uncertainty()).isCloseTo(0.002, org.assertj.core.data.Offset.offset(1e-15));
        look("theory");
    }

    @Test
    void aTableAnswersByColumnsAndByAMeanOverAWindow() throws Exception {
        onFx(() -> {
            session.edit(
                    "Fresh rig",
                    s -> s.with(new Source.Reference(
                            "rig",
                            "rig",
                            Source.Kind.MEASUREMENT,
                            java.util.List.of("rake.csv", "torque-logger.csv"),
                            java.util.Map.of(),
                            java.util.List.of())));
            return null;
        });
        select(Chosen.SOURCE, "rig", 1);
        onFx(() -> {
            ComboBox<Reading> box = node("answer-reading");
            box.setValue(box.getItems().stream()
                    .filter(r -> r.id().equals("temperature-outlet"))
                    .findFirst()
                    .orElseThrow());
            return null;
        });
        press("Add columns");
        Profile p = (Profile) session.results().outcome("temperature-outlet", "rig");
        assertThat(p.value()).hasSize(12);
        assertThat(p.uncertainty()[3]).isEqualTo(0.25);
        segment("mean of a column");
        onFx(() -> {
            ComboBox<Reading> box = node("answer-reading");
            box.setValue(box.getItems().stream()
                    .filter(r -> r.id().equals("rotor-torque"))
                    .findFirst()
                    .orElseThrow());
            ComboBox<String> file = node("answer-file");
            file.setValue("torque-logger.csv");
            file.getOnAction().handle(null);
            return null;
        });
        enter("mean-from", "20");
        enter("mean-to", "soon");
        press("Add mean");
        assertThat(session.message()).contains("\"soon\" is no number");
        enter("mean-to", "60");
        press("Add mean");
        assertThat(tally("rotor-torque", "rig")).isCloseTo(0.0241, org.assertj.core.data.Percentage.withPercentage(2));
        look("rig");
    }

    @Test
    void aUnitStatedAtIntakeChangesTheNumbers() throws Exception {
        select(Chosen.SOURCE, "fine", 1);
        // The sheet is built anew once the run was looked over, and would take what is typed with it.
        await(() -> session.health(session.results().runs().get("fine")) != null);
        events();
        double before = tally("mass-flow", "fine");
        enter("unit-velocity", "mm/s");
        settled();
        assertThat(tally("mass-flow", "fine"))
                .isCloseTo(before / 1000, org.assertj.core.data.Percentage.withPercentage(1e-9));
        enter("unit-velocity", "mm/sec2x");
        assertThat(session.message()).contains("mm/sec2x");
        assertThat(session.study().units().stream()
                        .filter(u -> u.field().equals("velocity"))
                        .findFirst()
                        .orElseThrow()
                        .unit())
                .isEqualTo("mm/s");
        look("intake-unit");
    }

    @Test
    void formulasAreTypedCheckedRenamedInTheirUsersAndDeletedOnlyWhenAsked() throws Exception {
        onFx(() -> {
            session.go(3);
            return null;
        });
        settled();
        int before = session.study().quantities().size();
        press("+ Formula");
        assertThat(session.study().quantities()).hasSize(before + 1);
        String id = session.study().quantities().getLast().id();
        // A wrong unit is told while typing, and the formula is kept all the same.
        enter("quantity-formula-" + id, "pressure + rho");
        settled();
        assertThat(lane.formula.Lexer.tokens(
                        session.study().quantity(id).orElseThrow().formula()))
                .hasSize(4);
        assertThat(robot.lookup(n -> n instanceof javafx.scene.control.Label l
                                && l.getText().contains("cannot be added"))
                        .queryAll())
                .isNotEmpty();
        enter("quantity-formula-" + id, "velocity.radial");
        enter("quantity-name-" + id, "radial speed");
        enter("quantity-unit-" + id, "mm/s");
        settled();
        var made = session.study().quantity(id).orElseThrow();
        assertThat(made.name()).isEqualTo("radial speed");
        assertThat(made.formula()).isEqualTo("velocity.radial");
        assertThat(made.unit()).isEqualTo("mm/s");
        look("quantities");
        press("+ Formula");
        String user = session.study().quantities().getLast().id();
        enter("quantity-formula-" + user, "2 * \"radial speed\"");
        settled();
        onFx(() -> {
            session.select(Chosen.QUANTITY, id);
            return null;
        });
        settled();
        enter("quantity-name-" + id, "outward");
        settled();
        assertThat(session.study().quantity(user).orElseThrow().formula()).isEqualTo("2 * outward");
        Button delete = node("quantity-delete-" + id);
        robot.interact(delete::fire);
        settled();
        assertThat(session.study().quantities().find(id))
                .as("used, so it is asked")
                .isPresent();
        Button anyway = node("quantity-delete-anyway");
        robot.interact(anyway::fire);
        settled();
        assertThat(session.study().quantities().find(id)).isEmpty();
    }

    @Test
    void aNameIsProposedAndTaken() throws Exception {
        onFx(() -> {
            session.go(3);
            session.select(Chosen.QUANTITY, "speed");
            return null;
        });
        settled();
        javafx.scene.control.TextInputControl field = node("quantity-formula-speed");
        robot.interact(() -> {
            field.requestFocus();
            field.clear();
        });
        robot.write("2 * tempe").type(javafx.scene.input.KeyCode.TAB);
        settled();
        String text = onFx(field::getText);
        assertThat(text).isEqualTo("2 * temperature");
        robot.interact(() -> field.setText("norm(velocity)"));
    }

    @Test
    void aTallyChangesItsPartsItsMeasureAndItsUnit() throws Exception {
        select(Chosen.READING, "rotor-torque", 4);
        double onFluid = tally("rotor-torque", "fine");
        segment("on the wall");
        // Whom the stored stress acts on was said at Intake; this turns what is reported.
        see("on the fluid, as said at Intake");
        assertThat(tally("rotor-torque", "fine")).isEqualTo(-onFluid);
        tick("tally-parts", "shell");
        assertThat(session.study().reading("rotor-torque").orElseThrow().stations())
                .containsExactly("rotor", "shell");
        assertThat(tally("rotor-torque", "fine"))
                .isCloseTo(
                        -onFluid - tally("shell-torque", "fine"),
                        org.assertj.core.data.Percentage.withPercentage(1e-6));
        look("tally");
        tick("tally-parts", "shell");
        choose("tally-kind", "area");
        enter("tally-unit", "cm2");
        settled();
        Tally area = (Tally) session.results().outcome("rotor-torque", "fine");
        // A polygon of 42 sides about a circle of 30 mm, 120 mm long, in square metres.
        assertThat(area.value())
                .isCloseTo(
                        42 * 2 * 0.03 * Math.sin(Math.PI / 42) * 0.12,
                        org.assertj.core.data.Percentage.withPercentage(1e-4));
        assertThat(area.unit().symbol()).isEqualTo("cm2");
        enter("tally-unit", "kg");
        settled();
        assertThat(session.results().outcome("rotor-torque", "fine")).isInstanceOf(Outcome.Absent.class);
    }

    @Test
    void theLastPartOfATallyCannotBeTakenAway() throws Exception {
        select(Chosen.READING, "mass-flow", 4);
        tick("tally-parts", "outlet");
        assertThat(session.study().reading("mass-flow").orElseThrow().stations())
                .containsExactly("outlet");
        assertThat(session.message()).contains("At least one part");
    }

    @Test
    void aBalanceGetsTermsAndLosesItsClosureWithAPart() throws Exception {
        select(Chosen.READING, "mass", 4);
        Balance before = (Balance) session.results().outcome("mass", "fine");
        assertThat(Math.abs(before.relative())).isLessThan(1e-6);
        robot.interact(() -> ((Button) node("term-0")).fire());
        settled();
        look("balance");
        segment("counts +");
        Balance turned = (Balance) session.results().outcome("mass", "fine");
        assertThat(turned.terms().getFirst().value())
                .isEqualTo(-before.terms().getFirst().value());
        tick("balance-closed-by", "shell");
        assertThat(((Outcome.Absent) session.results().outcome("mass", "fine")).reason())
                .contains("is open")
                .contains("it lacks shell");
        tick("balance-closed-by", "shell");
        press("+ Term");
        assertThat(((BalanceOf) session.study().reading("mass").orElseThrow().ask()).terms())
                .hasSize(3);
        choose("term-kind", "area");
        assertThat(session.results().outcome("mass", "fine")).isInstanceOf(Outcome.Absent.class);
        press("Delete term");
        assertThat(((BalanceOf) session.study().reading("mass").orElseThrow().ask()).terms())
                .hasSize(2);
    }

    @Test
    void newReadingsOfEveryKindAnswerAtOnce() throws Exception {
        onFx(() -> {
            // The demo has no tensor of its own.
            session.edit(
                    "Tensor",
                    s -> s.withQuantities(l -> {
                        l.add(new Quantity("shearing", "shearing", "grad(velocity)", "", ""));
                        return l;
                    }));
            session.go(4);
            return null;
        });
        settled();
        MenuButton add = node("add-reading");
        int before = session.study().readings().size();
        add.getItems().removeIf(javafx.scene.control.MenuItem::isDisable);
        for (int i = 0; i < add.getItems().size(); i++) {
            int n = i;
            onFx(() -> {
                add.getItems().get(n).fire();
                return null;
            });
            settled();
        }
        var all = session.study().readings();
        // A log makes one for each of its columns.
        assertThat(all).hasSizeGreaterThanOrEqualTo(before + add.getItems().size());
        for (Reading r : all.subList(before, all.size())) {
            // Over time only runs of several times answer, and logs.
            boolean timed = r.ask().overTime()
                    || r.ask().clock().isPresent()
                    || r.ask().curve().flatMap(lane.reading.Ask::clock).isPresent();
            assertThat(session.study().sources().stream()
                            .filter(s -> timed || s.id().equals("fine"))
                            .map(s -> session.results().outcome(r.id(), s.id())))
                    .as(r.name())
                    .anySatisfy(o -> assertThat(o).isNotInstanceOf(Outcome.Absent.class));
        }
        Reading balance =
                all.stream().filter(r -> r.ask() instanceof BalanceOf).toList().getLast();
        assertThat(((Balance) session.results().outcome(balance.id(), "fine")).relative())
                .isLessThan(1e-6);
        Reading force = all.stream()
                .filter(r -> r.ask() instanceof TallyOf t && t.measure() instanceof Force)
                .toList()
                .getLast();
        select(Chosen.READING, force.id(), 4);
        enter("tally-along-x", "0");
        assertThat(session.message()).contains("cannot be 0, 0, 0");
    }

    @Test
    void aCheckIsMadeOnAReadingThatHasNone() throws Exception {
        select(Chosen.READING, "axial-force", 4);
        press("Add a check");
        assertThat(session.stop()).isEqualTo(5);
        assertThat(session.study().checks()).hasSize(12);
        assertThat(session.results().checks().get("check-axial-force").verdict())
                .isEqualTo(Verdict.NO_DATA);
        choose("check-datum", "fine");
        choose("check-scale", "absolute");
        enter("check-tolerance", "1000");
        settled();
        look("check-new");
        press("Delete");
        assertThat(session.study().checks()).hasSize(11);
    }

    @Test
    void columnsOfLanesMoveTogetherWhenThereAreMoreThanFit() throws Exception {
        onFx(() -> {
            session.edit(
                    "Many",
                    s -> s.withSources(l -> {
                        for (int i = 0; i < 20; i++) {
                            l.add(new Source.Reference(
                                    "h" + i,
                                    "hand " + i,
                                    Source.Kind.MEASUREMENT,
                                    java.util.List.of(),
                                    java.util.Map.of(),
                                    java.util.List.of(
                                            new Curve.HandValue("mass-flow", 0.15 + 0.001 * i, "kg/s", 0, ""))));
                        }
                        return l;
                    }));
            session.select(Chosen.READING, "mass-flow");
            session.go(4);
            return null;
        });
        settled();
        onFx(() -> {
            node("chip-h19").requestFocus();
            return null;
        });
        settled();
        assertThat(session.lanesAt().get()).isGreaterThan(15 * Ui.PITCH);
        look("many-lanes");
        onFx(() -> {
            LaneColumns.move(session, -50);
            return null;
        });
        assertThat(session.lanesAt().get()).isZero();
    }

    @Test
    void thePictureIsExportedAsItIsShown() throws Exception {
        select(Chosen.STATION, "gap-mid", 2);
        Thread.sleep(800);
        var other = new javafx.stage.Stage[1];
        Object view = onFx(() -> {
            var made = new lane.desk.stations.StationsView(session);
            var scene = new javafx.scene.Scene(new javafx.scene.layout.StackPane(made.node()), 1000, 700);
            var stage = new javafx.stage.Stage();
            stage.setScene(scene);
            stage.show();
            made.refresh();
            other[0] = stage;
            return made;
        });
        var method = view.getClass().getDeclaredMethod("export", java.nio.file.Path.class);
        method.setAccessible(true);
        for (String name : java.util.List.of("field.PNG", "field.svg")) {
            onFx(() -> method.invoke(view, folder.resolve(name)));
        }
        var image = javax.imageio.ImageIO.read(folder.resolve("field.PNG").toFile());
        assertThat(image.getWidth()).isGreaterThan(1200);
        String svg = Files.readString(folder.resolve("field.svg"));
        assertThat(svg)
                .contains("swirl speed")
                .contains("data:image/png;base64")
                .contains("Gap at mid-length");
        onFx(() -> {
            other[0].close();
            return null;
        });
    }

    @Test
    void aRunThatChangedIsMarkedUntilItIsReadAgainAndALogIsFollowed() throws Exception {
        select(Chosen.SOURCE, "coarse", 1);
        double before = tally("mass-flow", "coarse");
        Files.copy(
                folder.resolve("medium.vtu"),
                folder.resolve("kept.vtu"),
                java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        byte[] sound = Files.readAllBytes(folder.resolve("coarse.vtu"));
        try {
            // The same mesh with the speeds doubled: the fields begin the appended data, three floats a node.
            lane.formats.grid.Dataset old =
                    lane.formats.DatasetReader.read(folder.resolve("coarse.vtu"), lane.base.Work.QUIET);
            var doubled = old.fields().stream()
                    .map(f -> {
                        double[] v = new double[f.values().length()];
                        for (int i = 0; i < v.length; i++) {
                            v[i] = 2 * f.values().get(i);
                        }
                        return new lane.field.Field(
                                f.name(), f.at(), f.components(), f.unit(), lane.field.Values.of(v));
                    })
                    .toList();
            lane.formats.vtk.VtkXmlWriter.writeGrid(
                    folder.resolve("coarse.vtu"), old.mesh(), doubled, lane.formats.vtk.VtkXmlWriter.Options.DEFAULT);
            await(() -> session.changedOnDisk().contains("coarse"));
            settled();
            see("changed on disk");
            look("changed");
            onFx(() -> {
                session.edit("Rename", s -> s.withName("other"));
                return null;
            });
            settled();
            assertThat(tally("mass-flow", "coarse"))
                    .as("an edit does not mix old and new files")
                    .isEqualTo(before);
            press("Read again");
            await(() -> Math.abs(tally("mass-flow", "coarse") - 2 * before) < 1e-6 * before);
        } finally {
            Files.write(folder.resolve("coarse.vtu"), sound);
        }
        Path log = folder.resolve("torque-logger.csv");
        String text = Files.readString(log);
        double torque = tally("rotor-torque", "rig");
        try {
            Files.writeString(log, "60,0;9999,0\n".repeat(3), java.nio.file.StandardOpenOption.APPEND);
            await(() -> tally("rotor-torque", "rig") > 1.5 * torque);
        } finally {
            Files.writeString(log, text);
        }
    }

    @Test
    void theHealthOfABadRunIsToldWithItsPlaces() throws Exception {
        Files.writeString(
                folder.resolve("sick.vtk"),
                "# vtk DataFile Version 3.0\nx\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS 9 double\n"
                        + "0 0 0 1 0 0 0 1 0 0 0 1 5 5 5 6 5 5 5 6 5 5 5 6 9 9 9\nCELLS 2 10\n4 0 1 2 3\n4 4 6 5 7\n"
                        + "CELL_TYPES 2\n10 10\nPOINT_DATA 9\nSCALARS p double\nLOOKUP_TABLE default\n1 2 3 nan 5 5 6 7 8\n");
        onFx(() -> {
            lane.desk.intake.FileDrop.add(session, java.util.List.of(folder.resolve("sick.vtk")));
            return null;
        });
        settled();
        await(() -> shown("cells have a negative volume"));
        see("at 5.25, 5.25, 5.25 m");
        see("are not finite");
        look("health");
        // Found and clicked in one go: the sheet is built anew when more is found out.
        onFx(() -> {
            robot.lookup(n -> n.getAccessibleText() != null
                            && n.getAccessibleText().startsWith("1 cell has a negative volume,"))
                    .query()
                    .getOnMouseClicked()
                    .handle(null);
            return null;
        });
        assertThat(session.stop()).isEqualTo(2);
        assertThat(session.mark().place()).isEqualTo(new lane.mesh.Point(5.25, 5.25, 5.25));
        look("health-place");
        select(Chosen.SOURCE, "medium", 1);
        // The inlet's edge is a jump on every mesh; nothing else is wrong there.
        await(() -> shown("2 findings") && shown("\"velocity\" changes by more than"));
    }

    /** What has more to say than fits moves within its place. */
    private void headerStands() throws Exception {
        assertThat(onFx(() -> {
                    var header = stage.getScene().lookup("#stop-1");
                    return header.localToScene(header.getBoundsInLocal()).getMinY();
                }))
                .isNotNegative();
    }

    @Test
    void anEmptyStudyInASmallWindowBecomesAComparisonOfOwnFiles() throws Exception {
        Path own = Files.createDirectories(folder.resolve("mine"));
        Files.copy(
                folder.resolve("coarse.vtu"),
                own.resolve("coarse.vtu"),
                java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        Files.copy(
                folder.resolve("medium.vtu"),
                own.resolve("medium.vtu"),
                java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        onFx(() -> {
            session.close();
            session = new Session(lane.study.Study.empty("New study"), own.resolve("new.lane.json"));
            stage.setScene(LaneApp.scene(session, 1100, 700));
            stage.setWidth(1100);
            stage.setHeight(700);
            session.evaluate();
            return null;
        });
        settled();
        for (int stop = 1; stop <= 6; stop++) {
            int to = stop;
            onFx(() -> {
                session.go(to);
                return null;
            });
            settled();
            look("empty-" + stop);
            headerStands();
        }
        onFx(() -> {
            lane.desk.intake.FileDrop.add(
                    session, java.util.List.of(own.resolve("coarse.vtu"), own.resolve("medium.vtu")));
            return null;
        });
        settled();
        assertThat(session.study().sources()).hasSize(2);
        onFx(() -> {
            session.go(4);
            return null;
        });
        settled();
        headerStands();
        onFx(() -> {
            session.go(3);
            return null;
        });
        settled();
        press("+ Formula");
        String made1 = session.study().quantities().getFirst().id();
        enter("quantity-formula-" + made1, "norm(velocity)");
        settled();
        onFx(() -> {
            session.go(2);
            return null;
        });
        settled();
        onFx(() -> {
            lane.desk.stations.ShapeForm.ALL.all().stream()
                    .filter(f -> f.word().equals("line"))
                    .forEach(f -> f.maker().accept(session));
            return null;
        });
        settled();
        press("Read a profile");
        assertThat(session.stop()).isEqualTo(4);
        Reading made = session.study().readings().getFirst();
        for (String lane : java.util.List.of("coarse", "medium")) {
            assertThat(((Profile) session.results().outcome(made.id(), lane)).found())
                    .isPositive();
        }
        look("own");
        press("Add a check");
        onFx(() -> {
            session.edit("Datum", s -> s.withDatum("medium"));
            session.save();
            return null;
        });
        settled();
        assertThat(session.results().checks().values().iterator().next().lanes())
                .containsKey("coarse");
        assertThat(own.resolve("new.lane.json")).exists();
        look("own-check");
    }
}
