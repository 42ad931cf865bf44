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
            events();
            assertThat(robot.lookup(n -> n instanceof Button b && b.getText().startsWith("Go to "))
                            .tryQuery())
                    .as("stop " + stop)
                    .isPresent();
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
    }
}
