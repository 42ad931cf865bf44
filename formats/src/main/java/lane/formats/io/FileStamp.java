package lane.formats.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Optional;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;

/**
 * How a file looked: its size, when it was changed, and which file of the disk it is. As long as that is the same, its content
 * is taken to be.
 *
 * @param changed nanoseconds, as fine as the disk tells
 * @param disk the file's identity on its disk; empty where there is none
 */
public record FileStamp(Path file, long size, long changed, Optional<Object> disk) {
    /** @throws LaneException when the file is not there */
    public static FileStamp of(Path file) {
        try {
            var a = Files.readAttributes(file, BasicFileAttributes.class);
            if (a.isOther()) {
                throw new FileException(
                        file,
                        Fault.NOT_READ,
                        "The file " + file
                                + " cannot be read: it is a pipe or a device; write its content into a file and"
                                + " give that.",
                        new IOException("no regular file"));
            }
            return new FileStamp(
                    file,
                    a.size(),
                    a.lastModifiedTime().to(java.util.concurrent.TimeUnit.NANOSECONDS),
                    Optional.ofNullable(a.fileKey()));
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    /** Whether the file looks otherwise now, or is gone. */
    public boolean differs() {
        try {
            return !of(file).equals(this);
        } catch (LaneException e) {
            return true;
        }
    }

    /**
     * Reads from the file as it was when it was stamped.
     *
     * @throws LaneException when it is another one by now, or became one while it was read: nothing of it is taken then
     */
    public <T> T reading(Supplier<T> read) {
        requireSame();
        T out = read.get();
        requireSame();
        return out;
    }

    /** @throws LaneException when the file is another one by now */
    public void requireSame() {
        if (differs()) {
            throw new LaneException(
                    Fault.NOT_READ,
                    "The file " + file.getFileName() + " was changed after it was opened; read the run again"
                            + " (\"Read again\" at Intake) to take what it holds now.");
        }
    }
}
