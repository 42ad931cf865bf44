package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FaultLogTest {
    @TempDir
    Path folder;

    @Test
    void theUserReadsASentenceAndTheFileHoldsTheTrace() throws Exception {
        Path file = folder.resolve("state/faults.log");
        String said = FaultLog.note(file, "Reading a file", new IllegalStateException("tank 7"));
        assertThat(said)
                .contains("Reading a file failed")
                .contains(file.toString())
                .doesNotContain("\n");
        FaultLog.note(file, "Drawing", new ArithmeticException("pump 3"));
        assertThat(Files.readString(file)).contains("tank 7", "FaultLogTest", "pump 3");
    }

    @Test
    void theFileStartsAnewWhenItIsLarge() throws Exception {
        Path file = folder.resolve("faults.log");
        Files.writeString(file, "x".repeat(2 << 20));
        FaultLog.note(file, "Drawing", new ArithmeticException("pump 3"));
        assertThat(Files.size(file)).isLessThan(100_000);
    }

    @Test
    void whereNothingCanBeWrittenTheSentenceNamesTheFault() throws Exception {
        Path blocked = folder.resolve("no folder");
        Files.writeString(blocked, "a file");
        assertThat(FaultLog.note(blocked.resolve("faults.log"), "Drawing", new ArithmeticException("pump 3")))
                .contains("ArithmeticException")
                .contains("could not be noted");
    }

    @Test
    void everyPlatformHasItsPlace() {
        Path home = Path.of("/home/kim");
        assertThat(UserFolders.state("Linux", n -> null, home)).isEqualTo(home.resolve(".local/state/crosscheck-lane"));
        assertThat(UserFolders.state("Linux", Map.of("XDG_STATE_HOME", "/var/kim")::get, home))
                .isEqualTo(Path.of("/var/kim/crosscheck-lane"));
        assertThat(UserFolders.state("Linux", Map.of("XDG_STATE_HOME", "relative")::get, home))
                .isEqualTo(home.resolve(".local/state/crosscheck-lane"));
        assertThat(UserFolders.state("Mac OS X", n -> null, home))
                .isEqualTo(home.resolve("Library/Logs/crosscheck-lane"));
        assertThat(UserFolders.state("Windows 11", n -> null, home))
                .isEqualTo(home.resolve("AppData/Local/crosscheck-lane"));
    }
}
