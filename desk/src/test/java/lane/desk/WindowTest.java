package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import lane.check.Verdict;
import lane.desk.app.LaneApp;
import lane.desk.intake.FileDrop;
import lane.formats.study.StudyJson;
import lane.reading.Profile;
import lane.station.Line;
import lane.station.Station;
import org.junit.jupiter.api.Test;

/** The real interface on the headless platform, by mouse and keyboard, on the demo study. */
class WindowTest extends InWindow {
    private long verdicts(Verdict verdict) {
        return session.results().checks().values().stream()
                .filter(c -> c.verdict() == verdict)
                .count();
    }

    @Test
    void keysWalkThroughTheSixStops() throws Exception {
        robot.clickOn("#stop-1");
        String[] words = {
            "Boundary parts",
            "Coverage",
            "what is looked at",
            "Difference from the datum",
            verdicts(Verdict.WITHIN) + " within",
            "How the number came about"
        };
        KeyCode[] keys = {KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5, KeyCode.DIGIT6
        };
        for (int i = 0; i < 6; i++) {
            press(keys[i]);
            assertThat(session.stop()).isEqualTo(i + 1);
            see(words[i]);
        }
    }

    private double firstSwirl() {
        return ((Profile) session.results().outcome("swirl-gap", "fine")).value()[100];
    }

    @Test
    void movingTheLineByNumbersMovesEverythingAndUndoBringsItBack() throws Exception {
        press(KeyCode.DIGIT2);
        double before = firstSwirl();
        TextField z = node("end-Az");
        robot.doubleClickOn(z).eraseText(6).write("8").type(KeyCode.ENTER);
        settled();
        robot.doubleClickOn("#end-Bz").eraseText(6).write("8").type(KeyCode.ENTER);
        await(() -> session.results().study() == session.study() && firstSwirl() < 0.9 * before);
        assertThat(((Line) session.study().station("gap-mid").orElseThrow().shape())
                        .b()
                        .z())
                .isEqualTo(0.008);
        assertThat(session.results().checks().get("swirl-l2").verdict()).isEqualTo(Verdict.OUT);
        robot.clickOn("#stop-2");
        press(KeyCode.CONTROL, KeyCode.Z);
        press(KeyCode.CONTROL, KeyCode.Z);
        await(() -> session.results().study() == session.study() && firstSwirl() == before);
        press(KeyCode.CONTROL, KeyCode.Y);
        await(() -> session.results().study() == session.study() && firstSwirl() != before);
    }

    @Test
    void aNumberThatIsNoneIsMarkedAndChangesNothing() throws Exception {
        press(KeyCode.DIGIT2);
        settled();
        var before = session.study();
        type("end-Ax", "twelve");
        assertThat(session.study()).isSameAs(before);
        assertThat(Tip.of(node("end-Ax"))).contains("no number");
        // Typed into what stands there once the window is at rest: on a slow machine a sheet may be built anew in
        // between.
        settled();
        type("samples", "1");
        await(() -> shown("2 to 1 000 000"));
        assertThat(session.study()).isSameAs(before);
    }

    @Test
    void draggingAnEndInThePictureMovesItAndIsOneStepBack() throws Exception {
        press(KeyCode.DIGIT2);
        Node field = node("field");
        Thread.sleep(800);
        var method = field.getClass().getDeclaredMethod("pixel", lane.mesh.Point.class);
        method.setAccessible(true);
        Station gap = session.study().station("gap-mid").orElseThrow();
        Line line = (Line) gap.shape();
        double[] at = (double[]) onFx(() -> method.invoke(field, line.b()));
        Bounds bounds = onFx(() -> field.localToScreen(field.getBoundsInLocal()));
        robot.moveTo(bounds.getMinX() + at[0], bounds.getMinY() + at[1])
                .press(MouseButton.PRIMARY)
                .moveBy(30, 0)
                .moveBy(30, 10)
                .release(MouseButton.PRIMARY);
        await(() -> !session.study().station("gap-mid").orElseThrow().equals(gap)
                && session.results().study() == session.study());
        Line moved = (Line) session.study().station("gap-mid").orElseThrow().shape();
        assertThat(moved.a()).isEqualTo(line.a());
        assertThat(moved.length()).isGreaterThan(1.5 * line.length());
        onFx(() -> {
            session.undo();
            return null;
        });
        assertThat(session.study().station("gap-mid")).contains(gap);
    }

    @Test
    void hoveringTheRotorReadsItsSpeed() throws Exception {
        press(KeyCode.DIGIT2);
        Thread.sleep(800);
        Bounds b = onFx(() -> node("field").localToScreen(node("field").getBoundsInLocal()));
        robot.moveTo(b.getMinX() + b.getWidth() / 2 - 60, b.getMinY() + b.getHeight() / 2 + 60);
        await(() -> shown("part rotor"));
        assertThat(robot.lookup(n -> n instanceof Label l && l.getText().startsWith("1.5 m/s"))
                        .tryQuery())
                .isPresent();
    }

    @Test
    void linesAreAddedNamedDuplicatedAndOnlyUnusedOnesDeleted() throws Exception {
        press(KeyCode.DIGIT2);
        javafx.scene.control.MenuButton add = node("add-station");
        onFx(() -> {
            add.getItems().getFirst().fire();
            return null;
        });
        await(() -> session.study().stations().size() == 12);
        robot.doubleClickOn("#station-name").eraseText(10).write("across").type(KeyCode.ENTER);
        assertThat(session.study().stations().getLast().name()).isEqualTo("across");
        await(() -> session.results().study() == session.study());
        robot.clickOn("Duplicate");
        await(() -> session.study().stations().size() == 13);
        robot.clickOn("Delete");
        await(() -> session.study().stations().size() == 12);
        robot.clickOn("#item-gap-mid");
        robot.clickOn("Delete");
        assertThat(session.study().stations()).hasSize(12);
        see("is used by Swirl across the gap");
    }

    @Test
    void aChipSwitchesItsLaneAndTheMenuChoosesTheDatum() throws Exception {
        press(KeyCode.DIGIT5);
        robot.clickOn("#chip-coarse");
        assertThat(session.study().off()).containsExactly("coarse");
        onFx(() -> {
            node("chip-fine").requestFocus();
            return null;
        });
        press(KeyCode.F);
        assertThat(session.study().datum()).isEqualTo("fine");
        await(() -> session.results().study() == session.study());
        assertThat(session.results().checks().get("swirl-l2").verdict()).isEqualTo(Verdict.NO_DATA);
    }

    @Test
    void aTighterToleranceTurnsAVerdict() throws Exception {
        press(KeyCode.DIGIT5);
        robot.clickOn("#check-flow");
        await(() -> robot.lookup("#check-tolerance").tryQuery().isPresent());
        robot.doubleClickOn("#check-tolerance").eraseText(5).write("0.1").type(KeyCode.ENTER);
        // What three meshes leave open is as much as the difference itself.
        await(() -> session.results().checks().get("flow").verdict() == Verdict.UNDECIDED
                && session.results().study() == session.study());
        onFx(() -> {
            ((javafx.scene.control.CheckBox) node("doubt-family")).fire();
            return null;
        });
        await(() -> session.results().checks().get("flow").verdict() == Verdict.OUT);
        see(verdicts(Verdict.OUT) + " out");
    }

    @Test
    void theSearchFindsAReadingAndDoesThings() throws Exception {
        press(KeyCode.CONTROL, KeyCode.K);
        robot.write("angular").type(KeyCode.ENTER);
        events();
        assertThat(session.stop()).isEqualTo(4);
        see("Does it close?");
        press(KeyCode.CONTROL, KeyCode.K);
        robot.write("light or").type(KeyCode.ENTER);
        events();
        assertThat(session.palette().dark()).isTrue();
    }

    @Test
    void theLedgerIsWrittenBesideTheStudyAndSavingIsWhole() throws Exception {
        press(KeyCode.DIGIT6);
        robot.clickOn("#write-ledger");
        await(() -> shown("Wrote"));
        assertThat(Files.readString(folder.resolve("ledger/ledger.csv"))).contains("Rotor torque");
        onFx(() -> {
            session.edit("Rename", s -> s.withName("renamed"));
            session.save();
            return null;
        });
        assertThat(Files.readString(study)).contains("\"renamed\"");
        onFx(() -> {
            session.undo();
            session.save();
            return null;
        });
    }

    @Test
    void ownFilesAreDroppedAndReadWithTheirParts() throws Exception {
        Path own = Files.createDirectories(folder.resolve("own files ü"));
        for (String name : List.of("medium.vtu", "rake.csv")) {
            Files.copy(folder.resolve(name), own.resolve(name), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        }
        Files.writeString(own.resolve("broken.vtu"), "not a mesh");
        onFx(() -> {
            FileDrop.add(
                    session, List.of(own.resolve("medium.vtu"), own.resolve("rake.csv"), own.resolve("broken.vtu")));
            return null;
        });
        await(() -> session.results().study() == session.study());
        assertThat(session.study().sources()).hasSize(9);
        assertThat(session.results().runs().get("medium-2").parts()).hasSize(1);
        assertThat(session.results().failures().get("broken"))
                .contains("broken.vtu")
                .contains("XML");
        assertThat(((Profile) session.results().outcome("swirl-gap", "medium-2")).found())
                .isEqualTo(193);
        onFx(() -> {
            FileDrop.add(session, List.of(own.resolve("picture.jpg")));
            return null;
        });
        assertThat(session.message()).contains("picture.jpg");
        // Forty more come at once and one by one beyond them; every stop shows them all.
        onFx(() -> {
            many(0, 40);
            return null;
        });
        for (int i = 0; i < 6; i++) {
            int n = i;
            onFx(() -> {
                many(40 + n, 41 + n);
                session.go(1 + n);
                return null;
            });
        }
        assertThat(session.study().sources()).hasSize(9 + 46);
        await(() -> session.results().study() == session.study());
    }

    private void many(int from, int to) {
        session.edit(
                "Many",
                s -> s.withSources(l -> {
                    for (int n = from; n < to; n++) {
                        l.add(new lane.study.Source.Reference(
                                "many" + n,
                                "a very long name of a source " + n,
                                lane.study.Source.Kind.MEASUREMENT,
                                List.of(),
                                java.util.Map.of(),
                                List.of()));
                    }
                    return l;
                }));
    }

    @Test
    void unsavedWorkOfASessionThatEndedBadlyIsTakenUpAgain() throws Exception {
        var kept = session.study().withName("kept");
        Path ended = study.resolveSibling("ended.lane.json");
        StudyJson.save(session.study(), ended);
        StudyJson.save(kept, study.resolveSibling("ended.lane.json.autosave"));
        Session again = onFx(() -> Session.open(ended));
        assertThat(again.study().name()).isEqualTo("kept");
        assertThat(again.message()).contains("taken up again");
        onFx(() -> {
            again.undo();
            return null;
        });
        assertThat(again.study().name()).isEqualTo("Spindle jacket");
        onFx(() -> {
            again.close();
            return null;
        });
    }

    @Test
    void theStyleSheetHasTheColoursOfThePictures() throws Exception {
        String css = new String(
                LaneApp.class.getResourceAsStream("lane.css").readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        String light = css.substring(css.indexOf(".root {"), css.indexOf(".root.dark {"));
        String dark = css.substring(css.indexOf(".root.dark {"), css.indexOf(".label {"));
        for (var p : List.of(lane.picture.Palette.LIGHT, lane.picture.Palette.DARK)) {
            String block = p.dark() ? dark : light;
            assertThat(block)
                    .contains("-paper: " + lane.picture.Palette.css(p.paper()))
                    .contains("-sheet: " + lane.picture.Palette.css(p.sheet()))
                    .contains("-ink: " + lane.picture.Palette.css(p.ink()))
                    .contains("-teal: " + lane.picture.Palette.css(p.teal()))
                    .contains("-pine-wash: " + lane.picture.Palette.css(p.pineWash()))
                    .contains("-brick: " + lane.picture.Palette.css(p.brick()))
                    .contains("-muted: " + lane.picture.Palette.css(p.muted()))
                    .contains("-ground: " + lane.picture.Palette.css(p.ground()));
        }
        Platform.runLater(() -> {});
    }

    @Test
    void whatSomebodyElseDidToTheStudyIsAskedAboutBeforeItIsSavedOver() throws Exception {
        lane.study.Study start = session.study();
        try {
            onFx(() -> {
                session.edit("Other", s -> s.withName("Mine"));
                return null;
            });
            StudyJson.save(start.withName("Theirs"), study);
            press(KeyCode.CONTROL, KeyCode.S);
            assertThat(StudyJson.load(study).name()).isEqualTo("Theirs");
            see("was changed by somebody else since it was opened here: name \"Theirs\".");
            look("question");
            // "Not now" leaves it, the second time it is saved over.
            robot.interact(() -> ((javafx.scene.control.Button) node("answer-3")).fire());
            assertThat(robot.lookup("#answer-0").tryQuery()).isEmpty();
            press(KeyCode.CONTROL, KeyCode.S);
            robot.interact(() -> ((javafx.scene.control.Button) node("answer-1")).fire());
            assertThat(StudyJson.load(study).name()).isEqualTo("Mine");
            assertThat(session.saved()).startsWith("saved");
        } finally {
            StudyJson.save(start, study);
        }
    }
}
