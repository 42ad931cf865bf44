package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileBytesTest {
    @TempDir
    Path folder;

    /** None, few, and as many as fit in slices, and one more or less. */
    @Test
    void allOfThem() throws IOException {
        byte[] all = new byte[2 * (1 << 23) + 1];
        new Random(3).nextBytes(all);
        Path file = folder.resolve("silo.txt");
        for (int n : new int[] {0, 1, 1000, (1 << 23) - 1, 1 << 23, (1 << 23) + 1, all.length - 1, all.length}) {
            Files.write(file, Arrays.copyOf(all, n));
            byte[] read = FileBytes.of(file);
            assertThat(read.length).isEqualTo(n);
            assertThat(Arrays.mismatch(read, 0, n, all, 0, n)).as("%d bytes", n).isEqualTo(-1);
        }
    }
}
