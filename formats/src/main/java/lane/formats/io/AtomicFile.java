package lane.formats.io;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Objects;
import lane.base.LaneException;

/** Writes a file whole or not at all: into a temporary file beside it, forced to disk, then renamed. */
public final class AtomicFile {
    private AtomicFile() {}

    /** Writes the content. */
    @FunctionalInterface
    public interface Body {
        void write(OutputStream out) throws IOException;
    }

    /** @throws LaneException with the reason; the old file, if any, is then as it was */
    public static void write(Path file, Body body) {
        Path absolute = file.toAbsolutePath();
        Path folder = Objects.requireNonNullElse(absolute.getParent(), absolute);
        Path temporary = null;
        try {
            Files.createDirectories(folder);
            temporary = folder.resolve(
                    "." + absolute.getFileName() + "." + ProcessHandle.current().pid() + "-"
                            + Thread.currentThread().threadId() + ".part");
            try (FileChannel channel = FileChannel.open(
                            temporary,
                            StandardOpenOption.WRITE,
                            StandardOpenOption.CREATE,
                            StandardOpenOption.TRUNCATE_EXISTING);
                    OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16)) {
                body.write(out);
                out.flush();
                channel.force(true);
            }
            try {
                Files.move(temporary, absolute, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(temporary, absolute, StandardCopyOption.REPLACE_EXISTING);
            }
            temporary = null;
        } catch (IOException e) {
            throw new LaneException(
                    "The file " + file + " could not be written: " + e.getMessage()
                            + "; what stood there before is unchanged.",
                    e);
        } finally {
            if (temporary != null) {
                temporary.toFile().delete();
            }
        }
    }

    public static void write(Path file, String text) {
        write(file, out -> out.write(text.getBytes(StandardCharsets.UTF_8)));
    }
}
