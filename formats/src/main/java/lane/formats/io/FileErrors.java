package lane.formats.io;

import java.nio.file.Path;
import java.util.function.Supplier;
import lane.base.LaneException;

/** Turns what goes wrong inside a file into the one sentence that names it and says what to do. */
public final class FileErrors {
    private FileErrors() {}

    public static <T> T of(Path file, Supplier<T> read) {
        String name = String.valueOf(file.getFileName());
        try {
            if (java.nio.file.Files.isDirectory(file)) {
                throw new LaneException("The file " + file + " cannot be read: it is a folder; give a file.");
            }
            return read.get();
        } catch (FormatError e) {
            throw new LaneException(
                    "The file " + name + " cannot be used: " + e.getMessage()
                            + "; write it again or give another file.",
                    e);
        } catch (IndexOutOfBoundsException | ArithmeticException | NegativeArraySizeException e) {
            throw new LaneException(
                    "The file " + name
                            + " cannot be used: its numbers contradict each other; write it again or give another file.",
                    e);
        } catch (OutOfMemoryError e) {
            throw new LaneException(
                    "There is not enough memory for the file " + name
                            + "; close other runs or give the program more with LANE_MEMORY.",
                    e);
        } catch (LaneException e) {
            throw e.getMessage().contains(name)
                    ? e
                    : new LaneException("The file " + name + " cannot be used: " + e.getMessage(), e);
        }
    }
}
