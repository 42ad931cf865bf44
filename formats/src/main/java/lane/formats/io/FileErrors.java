package lane.formats.io;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;

/** Turns what goes wrong inside a file into the one sentence that names it and says what to do. */
public final class FileErrors {
    private FileErrors() {}

    public static <T> T of(Path file, Supplier<T> read) {
        String name = String.valueOf(file.getFileName());
        try {
            if (Files.isDirectory(file)) {
                throw FileHash.unreadable(file, new java.io.IOException("it is a folder"));
            }
            return read.get();
        } catch (FormatError e) {
            String advice = e.fault() == Fault.DAMAGED ? "write it again or give another file" : "give another file";
            throw new FileException(
                    file,
                    e.fault(),
                    "The file " + name + " cannot be used: " + e.getMessage() + "; " + advice + ".",
                    e);
        } catch (IndexOutOfBoundsException | ArithmeticException | NegativeArraySizeException e) {
            throw new FileException(
                    file,
                    Fault.DAMAGED,
                    "The file " + name
                            + " cannot be used: its numbers contradict each other; write it again or give another file.",
                    e);
        } catch (OutOfMemoryError e) {
            throw new FileException(
                    file,
                    Fault.TOO_LARGE,
                    "There is not enough memory for the file " + name
                            + "; close other runs or give the program more with LANE_MEMORY.",
                    e);
        } catch (FileException e) {
            // One that this file refers to: both are named.
            throw e.about(file)
                    ? e
                    : new FileException(file, e.fault(), "The file " + name + " cannot be used: " + e.getMessage(), e);
        } catch (LaneException e) {
            Fault fault = e.fault() == Fault.REFUSED ? Fault.DAMAGED : e.fault();
            // A sentence that names the file needs no other about it.
            String sentence = String.valueOf(e.getMessage());
            throw new FileException(
                    file,
                    fault,
                    sentence.contains(name) ? sentence : "The file " + name + " cannot be used: " + sentence,
                    e);
        }
    }
}
