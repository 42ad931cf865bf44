package lane.formats.io;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.util.Arrays;
import lane.base.Parallel;

/** The bytes of a file, taken by all cores where there are many. */
public final class FileBytes {
    private static final int SLICE = 1 << 23;

    private FileBytes() {}

    /**
     * All bytes as they are there when they are read; of a file that is cut short meanwhile those before the cut.
     *
     * @param file of at most 2 GB
     */
    public static byte[] of(Path file) throws IOException {
        try (FileChannel in = FileChannel.open(file)) {
            byte[] all = new byte[Math.toIntExact(in.size())];
            int[] end = new int[Math.max(1, Parallel.blocks(all.length, SLICE))];
            Parallel.forBlocks(all.length, SLICE, (b, from, to) -> end[b] = fill(in, all, from, to));
            // The first slice that is not full is the last of the file.
            for (int b = 0; b < end.length; b++) {
                if (end[b] < Math.min(all.length, (b + 1L) * SLICE)) {
                    return Arrays.copyOf(all, end[b]);
                }
            }
            return all;
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private static int fill(FileChannel in, byte[] all, int from, int to) {
        var part = ByteBuffer.wrap(all, from, to - from);
        try {
            while (part.hasRemaining() && in.read(part, part.position()) >= 0) {
                // It may give less than there is room for.
            }
            return part.position();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
