package lane.desk.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is asked for by the words that the program is started with. */
class MainTest {
    @Test
    void filesAloneAreOpenedAsByADoubleClick(@TempDir Path folder) throws Exception {
        String study = Files.writeString(folder.resolve("a b.lane.json"), "{}").toString();
        String run = Files.writeString(folder.resolve("run.vtu"), "").toString();
        assertThat(Main.asked()).containsExactly("open");
        assertThat(Main.asked(study)).containsExactly("open", study);
        assertThat(Main.asked(study, run)).containsExactly("open", study, run);
        assertThat(Main.asked("open", study)).containsExactly("open", study);
        assertThat(Main.asked("describe", run)).containsExactly("describe", run);
        assertThat(Main.asked("--version")).containsExactly("--version");
        assertThat(Main.asked(folder.resolve("none").toString())).hasSize(1);
    }
}
