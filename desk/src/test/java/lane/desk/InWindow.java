package lane.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import lane.demo.DemoFiles;
import lane.formats.study.Recents;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** The demo study in a window. */
abstract class InWindow extends Windowed {
    @TempDir
    static Path folder;

    static Path study;

    @BeforeAll
    static void start() throws Exception {
        study = demo(folder);
    }

    private static Path made;

    /** The demo's files in a folder; they are made once for all classes of a program. */
    private static synchronized Path demo(Path into) throws IOException {
        if (made == null) {
            made = DemoFiles.make(
                    Path.of("target", "demo-" + ProcessHandle.current().pid()), DemoFiles.SMALL);
        }
        try (var files = Files.walk(made.getParent())) {
            for (Path from : files.filter(Files::isRegularFile).toList()) {
                Path to = into.resolve(made.getParent().relativize(from));
                Files.createDirectories(to.getParent());
                Files.copy(from, to);
            }
        }
        return into.resolve(made.getFileName());
    }

    @BeforeEach
    void open() throws Exception {
        Files.deleteIfExists(study.resolveSibling("spindle.lane.json.autosave"));
        // Each begins at Intake, not where the one before ended.
        Recents.forget(study);
        show(() -> Session.open(study));
        await(() ->
                session.results().checks().size() == session.study().checks().size()
                        && session.results().checks().size() > 0);
    }
}
