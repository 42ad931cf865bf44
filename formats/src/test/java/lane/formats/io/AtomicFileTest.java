package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import lane.base.LaneException;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AtomicFileTest {
    @TempDir
    Path folder;

    private long files() throws IOException {
        try (var all = Files.list(folder)) {
            return all.count();
        }
    }

    @Test
    void theModeStaysAndALinkIsFollowed() throws IOException {
        Assumptions.assumeTrue(
                folder.getFileSystem().supportedFileAttributeViews().contains("posix"));
        Path file = Files.writeString(folder.resolve("real.json"), "1");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw----"));
        Path link = Files.createSymbolicLink(folder.resolve("link.json"), Path.of("real.json"));
        Path second = Files.createSymbolicLink(folder.resolve("second.json"), link);
        AtomicFile.write(second, "2");
        assertThat(file).hasContent("2");
        assertThat(link).isSymbolicLink();
        assertThat(second).isSymbolicLink();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-rw----");
        // A link to what is not there yet makes it there.
        Path dangling = Files.createSymbolicLink(folder.resolve("dangling.json"), Path.of("sub/new.json"));
        AtomicFile.write(dangling, "3");
        assertThat(folder.resolve("sub/new.json")).hasContent("3");
        Path circle = Files.createSymbolicLink(folder.resolve("circle"), Path.of("circle"));
        assertThatThrownBy(() -> AtomicFile.write(circle, "4")).hasMessageContaining("circle");
    }

    @Test
    void aNameAsLongAsTheFileSystemAllowsIsWritten() throws IOException {
        Path file = folder.resolve("n".repeat(245) + ".json");
        AtomicFile.write(file, "1");
        AtomicFile.write(file, "2");
        assertThat(file).hasContent("2");
        assertThat(files()).isEqualTo(1);
    }

    @Test
    void whatFailsLeavesWhatStoodThereAndNothingBeside() throws IOException {
        Path file = Files.writeString(folder.resolve("a"), "old");
        assertThatThrownBy(() -> AtomicFile.write(file, out -> {
                    out.write(new byte[100_000]);
                    throw new IOException("No space left on device");
                }))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("the disk is full; what stood there before is unchanged");
        assertThat(file).hasContent("old");
        Path taken = Files.createDirectory(folder.resolve("taken"));
        Files.writeString(taken.resolve("x"), "");
        assertThatThrownBy(() -> AtomicFile.write(taken, "1")).isInstanceOf(LaneException.class);
        assertThat(files()).isEqualTo(2);
        Path left = Files.writeString(folder.resolve(".lane-" + Machine.name() + "-999999999-7.part"), "half");
        AtomicFile.write(file, "new");
        assertThat(left).doesNotExist();
    }
}
