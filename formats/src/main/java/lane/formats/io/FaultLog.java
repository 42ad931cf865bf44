package lane.formats.io;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;

/**
 * Faults of the program itself: the user reads one sentence, whoever mends it the trace in a file. The file lies in the
 * user's folder for the state of programs and starts anew at one megabyte.
 */
public final class FaultLog {
    private static final long LARGEST = 1 << 20;

    private FaultLog() {}

    /**
     * Notes a fault.
     *
     * @param doing what the program was about, to complete "… failed"
     * @return one sentence for the user, with the place of the file
     */
    public static String note(String doing, Throwable fault) {
        return note(file(), doing, fault);
    }

    static String note(Path file, String doing, Throwable fault) {
        var text = new StringWriter();
        fault.printStackTrace(new PrintWriter(text, true));
        try {
            Files.createDirectories(file.getParent());
            boolean full = Files.exists(file) && Files.size(file) > LARGEST;
            Files.writeString(
                    file,
                    Instant.now() + " " + doing + "\n" + text + "\n",
                    StandardOpenOption.CREATE,
                    StandardOpenOption.WRITE,
                    full ? StandardOpenOption.TRUNCATE_EXISTING : StandardOpenOption.APPEND);
            return doing + " failed by a fault of the program; please report it with " + file + ".";
        } catch (IOException e) {
            return doing + " failed by a fault of the program ("
                    + fault.getClass().getSimpleName() + "), which could not be noted in " + file
                    + "; please report it.";
        }
    }

    /** Where faults are noted. */
    public static Path file() {
        return UserFolders.state().resolve("faults.log");
    }
}
