package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.control.MenuButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import lane.desk.intake.FileDrop;
import lane.field.Field;
import lane.field.Part;
import lane.field.Role;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formats.vtk.VtkXmlWriter;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.reference.Curve;
import lane.study.Source;
import org.junit.jupiter.api.Test;

/** How files are understood, as the window lets it be said: units, time, parts, stresses, tables. */
class IntakeTest extends InWindow {
    private void select(String id) throws Exception {
        onFx(() -> {
            session.select(Chosen.SOURCE, id);
            session.go(1);
            return null;
        });
        settled();
        await(() -> {
            Run run = session.results().runs().get(id);
            return run == null || session.health(run) != null;
        });
        events();
    }

    private void fire(String id, String item) throws Exception {
        MenuButton menu = node(id);
        onFx(() -> {
            menu.getItems().stream()
                    .filter(i -> i.getText() != null && i.getText().startsWith(item))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("no \"" + item + "\" in the menu"))
                    .fire();
            return null;
        });
        settled();
    }

    private void button(String word) throws Exception {
        onFx(() -> {
            robot.lookup(n -> n instanceof javafx.scene.control.Button b
                            && b.getText().equals(word))
                    .queryAs(javafx.scene.control.Button.class)
                    .fire();
            return null;
        });
        settled();
    }

    private Run run(String id) {
        return session.results().runs().get(id);
    }

    private double tally(String reading, String lane) {
        return ((Tally) session.results().outcome(reading, lane)).value();
    }

    @Test
    void aRunInMillimetresAndItsUnitsAreStatedForThatRunAlone() throws Exception {
        select("coarse");
        double before = tally("mass-flow", "coarse");
        double other = tally("mass-flow", "medium");
        choose("length", "mm");
        assertThat(run("coarse").mesh().bounds()[5]).isCloseTo(0.12e-3, within(1e-12));
        assertThat(run("medium").mesh().bounds()[5]).isEqualTo(0.12);
        // Area a millionth, speed as it was.
        assertThat(tally("mass-flow", "coarse")).isCloseTo(1e-6 * before, within(1e-15));
        assertThat(tally("mass-flow", "medium")).isEqualTo(other);
        await(() -> session.health(run("coarse")) != null);
        look("intake-mm");
        choose("length", "as the file");
        fire("system", "mm-N-tonne");
        assertThat(run("coarse").mesh().bounds()[5]).isCloseTo(0.12e-3, within(1e-12));
        // Speeds are in mm/s too now: a thousandth more.
        assertThat(tally("mass-flow", "coarse")).isCloseTo(1e-9 * before, within(1e-18));
        see("mm-N-tonne");
        enter("unit-velocity", "m/s");
        settled();
        assertThat(tally("mass-flow", "coarse")).isCloseTo(1e-6 * before, within(1e-15));
        assertThat(((MenuButton) node("unit-of-velocity")).getText()).isEqualTo("this run");
        fire("unit-of-velocity", "As in the other runs");
        assertThat(tally("mass-flow", "coarse")).isCloseTo(1e-9 * before, within(1e-18));
        fire("system", "field by field");
        assertThat(tally("mass-flow", "coarse")).isCloseTo(before, within(1e-15));
    }

    @Test
    void whomTheWallStressActsOnIsSaidOnceAndTurnsTheTorque() throws Exception {
        select("coarse");
        double before = tally("rotor-torque", "coarse");
        see("it points against the flow");
        look("intake-stress");
        onFx(() -> {
            javafx.scene.layout.HBox choice = node("acts-wallShear");
            choice.getChildren().stream()
                    .map(javafx.scene.control.ToggleButton.class::cast)
                    .filter(t -> t.getText().equals("the wall"))
                    .findFirst()
                    .orElseThrow()
                    .fire();
            return null;
        });
        settled();
        assertThat(tally("rotor-torque", "coarse")).isCloseTo(-before, within(1e-12));
    }

    @Test
    void partsAreRenamedGivenARoleJoinedAndSplit() throws Exception {
        select("coarse");
        enter("part-rotor", "drum");
        settled();
        assertThat(run("coarse").parts())
                .extracting(Part::name)
                .contains("drum")
                .doesNotContain("rotor");
        enter("part-drum", "rotor");
        settled();
        choose("role-shell", "wall");
        assertThat(run("coarse").part("shell").role()).isEqualTo(Role.WALL);
        onFx(() -> {
            ((CheckBox) node("choose-rotor")).setSelected(true);
            ((CheckBox) node("choose-shell")).setSelected(true);
            return null;
        });
        int faces = run("coarse").part("rotor").surface().cellCount()
                + run("coarse").part("shell").surface().cellCount();
        button("Join");
        assertThat(run("coarse").part("rotor").surface().cellCount()).isEqualTo(faces);
        onFx(() -> {
            ((CheckBox) node("choose-rotor")).setSelected(true);
            return null;
        });
        button("Split");
        // The two cylinders are smooth but do not touch.
        assertThat(run("coarse").parts()).extracting(Part::name).contains("rotor 1", "rotor 2");
        look("intake-parts");
        button("As read");
        assertThat(run("coarse").parts())
                .extracting(Part::name)
                .containsExactlyInAnyOrder("inlet", "outlet", "rotor", "shell");
    }

    @Test
    void aSeriesOfFilesBecomesOneRunWhoseTimeIsChosen() throws Exception {
        Run fine = run("coarse");
        Path folder = Files.createDirectories(study.resolveSibling("steps"));
        for (int t = 1; t <= 6; t++) {
            double[] v = new double[fine.mesh().nodeCount()];
            java.util.Arrays.fill(v, t);
            VtkXmlWriter.writeGrid(
                    folder.resolve("step_" + t + ".vtu"),
                    fine.mesh(),
                    List.of(new Field("level", Field.At.NODE, 1, lane.unit.Unit.ONE, lane.field.Values.of(v))),
                    VtkXmlWriter.Options.DEFAULT);
        }
        List<Path> files = java.util.stream.IntStream.rangeClosed(1, 6)
                .mapToObj(t -> folder.resolve("step_" + t + ".vtu"))
                .toList();
        onFx(() -> {
            FileDrop.add(session, files);
            return null;
        });
        settled();
        assertThat(session.study().sources()).hasSize(7);
        Source.Simulation made = (Source.Simulation) session.study().sources().getLast();
        assertThat(made.file()).isEqualTo("steps/step_*.vtu");
        assertThat(run(made.id()).times()).containsExactly(1., 2., 3., 4., 5., 6.);
        assertThat(run(made.id()).time()).isEqualTo(6);
        select(made.id());
        look("intake-series");
        fire("time", "t = 3");
        assertThat(run(made.id()).time()).isEqualTo(3);
        assertThat(run(made.id()).field("level").orElseThrow().values().get(0)).isEqualTo(3);
        fire("time", "as the study");
        fire("study-time", "first");
        assertThat(session.study().time()).isEqualTo(new TimeSelector.First());
        assertThat(run(made.id()).time()).isEqualTo(1);
        // Runs without times answer at any.
        assertThat(session.results().failures()).isEmpty();
        onFx(() -> {
            session.edit("Choose time", s -> s.withTime(new TimeSelector.At(2.4, 0.1)));
            return null;
        });
        settled();
        assertThat(session.results().failures().get(made.id())).contains("no time 2.4 within 0.1");
        see("no time 2.4");
        // All that lies in a folder: what an index names is read with it, at the index's times.
        Path index = Files.writeString(
                folder.resolve("vat.vtu.series"),
                "{\"files\": ["
                        + java.util.stream.IntStream.rangeClosed(1, 6)
                                .mapToObj(t -> "{\"name\": \"step_" + t + ".vtu\", \"time\": " + 0.25 * t + "}")
                                .collect(java.util.stream.Collectors.joining(", "))
                        + "]}");
        List<Path> all = new java.util.ArrayList<>(files);
        all.add(index);
        onFx(() -> {
            session.edit("Choose time", s -> s.withTime(new TimeSelector.Last()));
            FileDrop.add(session, all);
            return null;
        });
        settled();
        assertThat(session.study().sources()).hasSize(8);
        Source.Simulation named = (Source.Simulation) session.study().sources().getLast();
        assertThat(named.name()).isEqualTo("vat");
        assertThat(run(named.id()).times()).containsExactly(0.25, 0.5, 0.75, 1., 1.25, 1.5);
    }

    @Test
    void severalTablesOfAKindAreCorrectedAndAnswerTogether() throws Exception {
        List<Path> files = new java.util.ArrayList<>();
        for (String angle : List.of("000", "090", "180")) {
            files.add(Files.writeString(
                    study.resolveSibling("rake_" + angle + "_deg.csv"),
                    "Rake at " + angle + " degrees\nr;T;du\n31,0;40," + angle.charAt(0)
                            + ";5\n33,0;41,5;5\n35,0;45,0;5\n",
                    StandardCharsets.ISO_8859_1));
        }
        onFx(() -> {
            FileDrop.add(session, files);
            return null;
        });
        settled();
        List<Source> made = session.study().sources().subList(6, 9);
        assertThat(made).extracting(Source::name).containsExactly("000", "090", "180");
        select(made.get(0).id());
        enter("unit-of-r", "mm");
        enter("unit-of-T", "K");
        enter("unit-of-du", "%");
        settled();
        assertThat(session.study().recipes()).singleElement().satisfies(r -> assertThat(r.kind())
                .isEqualTo("r;T;du"));
        see("for this and 2 other tables");
        onFx(() -> {
            javafx.scene.control.ComboBox<lane.reading.Reading> box = node("answer-reading");
            box.setValue(box.getItems().stream()
                    .filter(r -> r.id().equals("temperature-outlet"))
                    .findFirst()
                    .orElseThrow());
            return null;
        });
        look("intake-tables");
        choose("columns-kind", "of the value");
        onFx(() -> {
            ((javafx.scene.control.TextField) node("columns-k")).setText("1");
            ((CheckBox) node("answer-like")).setSelected(false);
            // What is found out about runs meanwhile builds the sheet anew; what is said so far stays.
            session.reload(java.util.Set.of("fine"));
            return null;
        });
        settled();
        assertThat(this.<CheckBox>node("answer-like").isSelected()).isFalse();
        onFx(() -> {
            ((CheckBox) node("answer-like")).setSelected(true);
            return null;
        });
        button("Add columns");
        for (Source s : made) {
            Profile p = (Profile) session.results().outcome("temperature-outlet", s.id());
            assertThat(p.value()[1]).as(s.name()).isCloseTo(41.5, within(1e-9));
            // Five percent, k = 1, shown with k = 2.
            assertThat(p.uncertainty()[1]).isCloseTo(0.1 * 41.5, within(1e-9));
        }
        // A mean that is half said, too.
        onFx(() -> {
            ((javafx.scene.control.ToggleButton) node("answer-by-MEAN")).fire();
            javafx.scene.control.ComboBox<String> value = node("mean-value");
            value.setValue("du");
            ((javafx.scene.control.TextField) node("mean-from")).setText("31");
            session.reload(java.util.Set.of("fine"));
            return null;
        });
        settled();
        assertThat(this.<javafx.scene.control.ComboBox<String>>node("mean-value")
                        .getValue())
                .isEqualTo("du");
        assertThat(this.<javafx.scene.control.TextField>node("mean-from").getText())
                .isEqualTo("31");
        // The next one of the kind needs no clicks at all.
        Path next = Files.writeString(
                study.resolveSibling("rake_270_deg.csv"), "Rake at 270 degrees\nr;T;du\n31,0;50,0;5\n35,0;52,0;5\n");
        onFx(() -> {
            FileDrop.add(session, List.of(next));
            return null;
        });
        settled();
        Source last = session.study().sources().getLast();
        Profile p = (Profile) session.results().outcome("temperature-outlet", last.id());
        assertThat(p.value()).containsExactly(new double[] {50, 52}, within(1e-9));
    }

    @Test
    void theFirstLinesOfAFileSayWhatTheyWereTakenForAndMayBeToldOtherwise() throws Exception {
        Path file = Files.writeString(
                study.resolveSibling("kiln log 7.csv"),
                "Kiln 7, firing of 3 March;;;\n;;;\n\"Way; from door\";Tile;Setter;State\nm;degC;degC;\n0,5;812,5;--;warm\n"
                        + "1,5;948,25;930;hot\n2,5;961,0;k.A.;hot\nMean;907,25;930;\n");
        onFx(() -> {
            FileDrop.add(session, List.of(file));
            return null;
        });
        settled();
        Source.Reference made = (Source.Reference) session.study().sources().getLast();
        select(made.id());
        see("header in line 3, units in line 4");
        see("Line 8 is left out: a sum at the end");
        see("\"k.A.\" in line 7 of \"Setter\" is no number");
        look("table-lines");
        enter("table-missing", "k.a.");
        settled();
        await(() -> !shown("is no number"));
        line(6, "line-is-data");
        assertThat(session.study().recipes().getFirst().lines()).isEqualTo(new lane.reference.Recipe.Lines(0, 0, 6));
        see("2 rows");
        button("For this file alone");
        assertThat(session.study().recipes()).singleElement().satisfies(r -> assertThat(r.file())
                .isEqualTo("kiln log 7.csv"));
        see("Corrected for the file kiln log 7.csv.");
        line(4, "line-is-header");
        see("header in line 4");
        button("As found");
        assertThat(session.study().recipes()).isEmpty();
        see("3 rows");
    }

    /** Takes an item of the menu of a line of the file, which a key opens. */
    private void line(int number, String item) throws Exception {
        node("table-line-" + number);
        onFx(() -> {
            robot.lookup("#table-line-" + number).query().requestFocus();
            return null;
        });
        press(javafx.scene.input.KeyCode.ENTER);
        node(item);
        robot.clickOn("#" + item);
        settled();
    }

    @Test
    void aTableIsPastedAndCorrectedBeforeItCanBeRead() throws Exception {
        onFx(() -> {
            var content = new ClipboardContent();
            content.putString("place\tvalve\tp\nm\t-\tbar\n0.5\topen\t1.5\n1.0\tshut\t2.5\n");
            Clipboard.getSystemClipboard().setContent(content);
            session.go(1);
            return null;
        });
        button("Paste");
        Source.Reference made = (Source.Reference) session.study().sources().getLast();
        assertThat(made.files()).singleElement().asString().startsWith("pasted-");
        select(made.id());
        // The column of words is left out by itself; a dash over words is no unit.
        look("intake-pasted");
        assertThat(session.library().table(made.files().getFirst(), List.of()).column("p"))
                .containsExactly(1.5, 2.5);
        choose("table-header", "names");
        assertThat(session.study().recipes().getFirst().headers()).isEqualTo(1);
        choose("table-header", "names and units");
        choose("role-of-valve", "value");
        see("\"open\" in line 3");
        onFx(() -> {
            session.undo();
            return null;
        });
        settled();
        assertThat(session.library()
                        .table(made.files().getFirst(), session.study().recipes())
                        .units())
                .containsExactly("m", "", "bar");
        onFx(() -> {
            var content = new ClipboardContent();
            content.putString("nothing");
            Clipboard.getSystemClipboard().setContent(content);
            return null;
        });
        button("Paste");
        assertThat(session.message()).contains("holds no table");
    }

    @Test
    void aHandValueIsComputedFromItsInputs() throws Exception {
        onFx(() -> {
            FileDrop.add(session, List.of());
            session.edit(
                    "Hand",
                    s -> s.withSources(l -> {
                        l.add(new Source.Reference(
                                "hand",
                                "hand",
                                Source.Kind.MEASUREMENT,
                                List.of(),
                                java.util.Map.of(),
                                List.of(new Curve.HandValue(
                                        "mass-flow",
                                        0,
                                        "kg/s",
                                        0,
                                        "",
                                        "rho*Q",
                                        List.of(
                                                new Curve.Given("rho", 0.85, "kg/L", ""),
                                                new Curve.Given("Q", 10, "L/min", "gauge"))))));
                        return l;
                    }));
            return null;
        });
        settled();
        assertThat(tally("mass-flow", "hand")).isCloseTo(8.5 / 60, within(1e-12));
        select("hand");
        see("Q = 10 L/min (gauge)");
    }

    @Test
    void aHandValueAndItsInputsAreTyped() throws Exception {
        onFx(() -> {
            session.edit(
                    "Hand",
                    s -> s.withSources(l -> {
                        l.add(new Source.Reference(
                                "typed", "typed", Source.Kind.MEASUREMENT, List.of(), java.util.Map.of(), List.of()));
                        return l;
                    }));
            return null;
        });
        settled();
        select("typed");
        onFx(() -> {
            robot.lookup(n -> n instanceof javafx.scene.control.ToggleButton b
                            && b.getText().contains("value"))
                    .queryAs(javafx.scene.control.ToggleButton.class)
                    .fire();
            return null;
        });
        choose("answer-reading", "Mass flow");
        put("answer-unit", "kg/s");
        put("answer-uncertainty", "0,002");
        put("answer-hand-formula", "rho*Q");
        put("answer-inputs", "rho = 0,85 kg/L data sheet; Q = 10 L/min");
        button("Add value");
        assertThat(tally("mass-flow", "typed")).isCloseTo(8.5 / 60, within(1e-12));
        assertThat(((Tally) session.results().outcome("mass-flow", "typed")).uncertainty())
                .isCloseTo(0.002, within(1e-15));
        see("rho = 0.85 kg/L (data sheet)");
    }

    private void put(String id, String text) throws Exception {
        javafx.scene.control.TextField field = node(id);
        onFx(() -> {
            field.setText(text);
            return null;
        });
    }
}
