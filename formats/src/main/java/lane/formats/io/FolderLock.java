package lane.formats.io;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/** Keeps a folder to one writer. The system lets go of it when the process ends, however it ends. */
public final class FolderLock implements AutoCloseable {
    private static final String NAME = ".lane-lock";
    private final Path file;
    private final FileChannel channel;

    private FolderLock(Path file, FileChannel channel) {
        this.file = file;
        this.channel = channel;
    }

    /**
     * @param folder that is there
     * @throws LaneException when somebody else writes there
     */
    public static FolderLock of(Path folder) {
        Path file = folder.resolve(NAME);
        while (true) {
            try {
                var channel = FileChannel.open(file, StandardOpenOption.WRITE, StandardOpenOption.CREATE);
                FileLock lock = tried(channel);
                if (lock == null) {
                    channel.close();
                    throw new LaneException("Somebody else is writing into " + folder
                            + " at the moment; wait for them, or write into another folder.");
                }
                // Who had it may have removed the file between opening and locking; then it locks nothing.
                if (Files.exists(file) && Files.size(file) == channel.size() && same(file, channel)) {
                    return new FolderLock(file, channel);
                }
                channel.close();
            } catch (IOException e) {
                throw new LaneException(
                        "Nothing could be written into " + folder + ": " + AtomicFile.reason(e) + ".", e);
            }
        }
    }

    /** A mark in the file tells whether the name still leads to what is open. */
    private static boolean same(Path file, FileChannel channel) throws IOException {
        String mark = ProcessHandle.current().pid() + " " + System.nanoTime();
        channel.truncate(0);
        channel.write(java.nio.ByteBuffer.wrap(mark.getBytes(java.nio.charset.StandardCharsets.UTF_8)), 0);
        try {
            return Files.readString(file).equals(mark);
        } catch (java.nio.file.NoSuchFileException e) {
            return false;
        }
    }

    private static @Nullable FileLock tried(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    @Override
    public void close() {
        file.toFile().delete();
        try {
            channel.close();
        } catch (IOException e) {
            // Its process ends some time, and the lock with it.
        }
    }
}
