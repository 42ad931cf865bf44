package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import lane.check.Verdict;
import lane.cli.Lane;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.desk.ledger.LedgerView;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From files to a verdict, as somebody does it who has never seen the program. */
class BatteryPackTest extends Windowed {
    @TempDir
    Path folder;

    private void click(String id) throws Exception {
        Button button = node(id);
        robot.interact(button::fire);
        events();
    }

    private void fire(String word) throws Exception {
        Button button = robot.lookup(n -> n instanceof Button b && b.getText().equals(word))
                .queryAs(Button.class);
        robot.interact(button::fire);
        events();
    }

    @Test
    void aBatteryPackAgainstItsTestBench() throws Exception {
        BatteryPack.make(folder);
        show(Session::fresh);
        // Nothing is there, and each stop says what belongs there and leads on.
        for (int stop : List.of(2, 3, 5, 4)) {
            robot.interact(() -> session.go(stop));
            // What scrolls has its content with the next frame.
            await(() -> robot.lookup(n -> n instanceof Button b && b.getText().startsWith("Go to "))
                    .tryQuery()
                    .isPresent());
        }
        assertThat(((Button) node("step-profile-along-a-line")).isDisabled()).isTrue();
        see("No run has been read; add one at Intake.");
        robot.interact(() -> FileDrop.add(
                session,
                List.of(
                        folder.resolve("pack_A.vtu"),
                        folder.resolve("pack_B.vtu"),
                        folder.resolve("pack_C.vtu"),
                        folder.resolve("bench.txt"))));
        await(() -> session.results().runs().size() == 3);
        settled();
        String bench = session.study().sources().getLast().id();
        assertThat(session.study().datum())
                .as("the first reference is the datum")
                .isEqualTo(bench);
        look("pack-1-intake");
        see("This source waits");
        // Nobody said in which unit the meshes are: it is told, and stated.
        String fine = session.study().sources().get(2).id();
        robot.interact(() -> session.select(Chosen.SOURCE, fine));
        await(() -> session.health(session.results().runs().get(fine)) != null);
        see("unit of length is not said by the file");
        look("pack-2-run");
        for (int i = 0; i < 3; i++) {
            String id = session.study().sources().get(i).id();
            robot.interact(() -> session.select(Chosen.SOURCE, id));
            events();
            choose("length", "mm");
        }
        assertThat(session.results().length().symbol()).isEqualTo("mm");
        press(KeyCode.DIGIT2);
        look("pack-3-stations");
        click("step-add-a-line");
        settled();
        see("1140 mm long");
        look("pack-4-line");
        press(KeyCode.DIGIT3);
        see("Chosen everywhere as they stand");
        look("pack-5-quantities");
        press(KeyCode.DIGIT4);
        look("pack-6-readings");
        click("step-profile-along-a-line");
        settled();
        look("pack-7-profile");
        assertThat(session.study().readings()).hasSize(1);
        assertThat(session.study().quantities()).as("a field is a quantity").isEmpty();
        click("against-" + bench + "-0");
        settled();
        see("bench answers");
        look("pack-8-against");
        fire("Add a check");
        settled();
        // The bench states 0.3 K, some 4 % of the range: within a tenth, but not within a twentieth.
        enter("check-tolerance", "5");
        settled();
        assertThat(session.results().checks().values())
                .extracting(r -> r.verdict())
                .containsExactly(Verdict.UNDECIDED);
        enter("check-tolerance", "10");
        settled();
        String check = session.study().checks().getFirst().id();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        look("pack-9-checks");
        Path study = folder.resolve("pack.lane.json");
        robot.interact(() -> session.saveAs(study));
        press(KeyCode.DIGIT6);
        look("pack-10-ledger");
        robot.interact(() -> LedgerView.write(session));
        await(() -> session.message().startsWith("Wrote"));
        assertThat(folder.resolve("ledger/ledger.json")).exists();
        // The bench reads 0.2 K more than nature, which the finest mesh is, cell by cell.
        String ledger = Files.readString(folder.resolve("ledger/ledger.json"));
        assertThat(ledger).contains("\"coordinates in\" : \"mm\"").contains("bench.txt");
        assertThat(Lane.run(
                        "evaluate",
                        study.toString(),
                        "--out",
                        folder.resolve("again").toString()))
                .isZero();

        // The same by a study that is written from the documentation alone.
        Path byHand = Files.writeString(folder.resolve("byhand.lane.json"), """
                {"version": 2, "name": "Pack by hand",
                 "settings": {"datum": "bench", "length": "cm"},
                 "sources": [
                  {"kind": "run", "id": "a", "name": "A", "family": "pack", "file": "pack_A.vtu", "treatment": {"length": "mm"}},
                  {"kind": "run", "id": "b", "name": "B", "family": "pack", "file": "pack_B.vtu", "treatment": {"length": "mm"}},
                  {"kind": "run", "id": "c", "name": "C", "family": "pack", "file": "pack_C.vtu", "treatment": {"length": "mm"}},
                  {"kind": "reference", "id": "bench", "name": "bench", "drawn": "MEASUREMENT", "files": ["bench.txt"],
                   "answers": [{"kind": "columns", "reading": "along", "file": "bench.txt", "abscissa": "Position", "value": "Temperatur",
                     "uncertainty": "u"}]}],
                 "quantities": [{"id": "hot", "name": "hot", "formula": "\\"Cell temp [degC]\\" > 35 \\"degC\\""},
                  {"id": "spread", "name": "spread", "formula": "max(\\"Cell temp [degC]\\" over all) - min(\\"Cell temp [degC]\\" over all)"}],
                 "stations": [
                  {"kind": "line", "id": "mid", "name": "mid", "a": {"x": 0, "y": 0.19, "z": 0.0475}, "b": {"x": 1.14, "y": 0.19, "z": 0.0475},
                   "sampling": {"kind": "cell-exact"}, "abscissa": "x [cm]"},
                  {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [
                  {"kind": "profile", "id": "along", "name": "along", "station": "mid", "quantity": "Cell temp [degC]"},
                  {"kind": "tally", "id": "cells", "name": "cells", "stations": ["all"],
                   "measure": {"kind": "stored", "take": "COUNT", "at": "CELLS"}},
                  {"kind": "tally", "id": "spread", "name": "spread", "unit": "degC", "measure": {"kind": "value", "quantity": "spread"}}],
                 "checks": [{"kind": "datum", "id": "c", "reading": "along", "tolerance": 0.1, "norm": "L2", "scale": "RANGE"}]}
                """);
        Path out = folder.resolve("byhand");
        // Three meshes whose cells are taken as stored leave a numerical uncertainty at each place that decides it,
        // unless it is left out.
        assertThat(Lane.run("evaluate", byHand.toString(), "--out", out.toString()))
                .isEqualTo(2);
        String left = Files.readString(byHand)
                .replace("\"scale\": \"RANGE\"}", "\"scale\": \"RANGE\", \"uncertainty\": {\"family\": false}}");
        Files.writeString(byHand, left);
        assertThat(Lane.run("evaluate", byHand.toString(), "--out", out.toString()))
                .isZero();
        var numbers = new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(out.resolve("ledger.json").toFile())
                .path("numbers");
        var found = new java.util.HashMap<String, Double>();
        numbers.forEach(n -> found.put(
                n.path("item").asText() + " " + n.path("lane").asText() + " "
                        + n.path("what").asText(),
                n.path("value").asDouble()));
        assertThat(found).containsEntry("cells A tally", 12.0 * 6 * 3).containsEntry("cells C tally", 48.0 * 24 * 12);
        assertThat(found.get("spread C tally")).isBetween(1.0, 40.0);
        assertThat(Files.readAllLines(out.resolve("profile-along.csv")).get(1)).contains(",cm,");
    }
}
