package lane.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.extension.AnnotatedElementContext;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.io.TempDirFactory;

/** Folders in memory where the system has such: a disk would be half of what thousands of small files cost. */
final class InMemory implements TempDirFactory {
    @Override
    public Path createTempDirectory(AnnotatedElementContext element, ExtensionContext test) throws IOException {
        Path memory = Path.of("/dev/shm");
        return Files.isWritable(memory) ? Files.createTempDirectory(memory, "lane") : Files.createTempDirectory("lane");
    }
}
