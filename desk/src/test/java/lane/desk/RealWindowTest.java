package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.demo.DemoFiles;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One path in a real window: a process of its own under a virtual X display opens the demo and shows its numbers. */
class RealWindowTest {
    @Test
    void theDemoOpensInARealWindowAndItsNumbersArrive(@TempDir Path folder) throws Exception {
        if (!Path.of("/usr/bin/xvfb-run").toFile().canExecute()) {
            System.out.println(
                    "Skipped: there is no xvfb-run here; install xvfb and libgtk-3-0 to run the real window.");
            Assumptions.abort("no xvfb-run");
        }
        Path study = DemoFiles.make(folder, DemoFiles.SMALL);
        List<String> command = new ArrayList<>(List.of(
                "xvfb-run",
                "-a",
                "-s",
                "-screen 0 1280x800x24",
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Djava.awt.headless=true",
                "-Dprism.order=sw",
                "-Dlane.timing=true",
                "-Dlane.data=" + folder.resolve("data"),
                "-Dlane.exit=true",
                "-Dlane.edits=4",
                "--enable-native-access=ALL-UNNAMED",
                "-cp",
                System.getProperty("java.class.path"),
                "lane.desk.app.Main",
                "open",
                study.toString()));
        Path log = folder.resolve("log.txt");
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(log.toFile())
                .start();
        // What hangs is ended; how long it takes is not asserted.
        boolean ended = process.waitFor(600, TimeUnit.SECONDS);
        if (!ended) {
            process.descendants().forEach(ProcessHandle::destroy);
            process.destroy();
        }
        String text = java.nio.file.Files.readString(log);
        assertThat(ended).as(text).isTrue();
        assertThat(text).contains("window stands").contains("numbers after").doesNotContain("Exception");
        assertThat(text.lines().filter(l -> l.contains("answered after")))
                .as("seven edits and an undo at one of six stops")
                .hasSize(8);
    }
}
