package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
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

    @Test
    void aBatteryPackAgainstItsTestBench() throws Exception {
        BatteryPack.make(folder);
        show(Session::fresh);
        look("pack-0-fresh");
        press(KeyCode.DIGIT2);
        look("pack-0-stations");
        press(KeyCode.DIGIT3);
        look("pack-0-quantities");
        press(KeyCode.DIGIT4);
        look("pack-0-readings");
        press(KeyCode.DIGIT5);
        look("pack-0-checks");
        press(KeyCode.DIGIT6);
        look("pack-0-ledger");
        robot.interact(() -> FileDrop.add(
                session,
                List.of(
                        folder.resolve("pack_A.vtu"),
                        folder.resolve("pack_B.vtu"),
                        folder.resolve("pack_C.vtu"),
                        folder.resolve("bench.txt"))));
        await(() -> session.results().runs().size() == 3);
        settled();
        look("pack-1-intake");
        robot.interact(() ->
                session.select(Chosen.SOURCE, session.study().sources().get(2).id()));
        events();
        look("pack-2-run");
        press(KeyCode.DIGIT2);
        events();
        look("pack-3-stations");
        click("step-add-a-line");
        settled();
        look("pack-4-line");
        press(KeyCode.DIGIT3);
        look("pack-5-quantities");
        press(KeyCode.DIGIT4);
        look("pack-6-readings");
        click("step-profile-along-a-line");
        settled();
        look("pack-7-profile");
        assertThat(session.study().readings()).hasSize(1);
        click("against-bench-0");
        settled();
        look("pack-8-against");
        press(KeyCode.DIGIT5);
        look("pack-9-checks");
    }
}
