package lane.formats.io;

import java.nio.file.Path;
import lane.base.Fault;
import lane.base.LaneException;

/** A file that cannot be used; its sentence names the file. */
public final class FileException extends LaneException {
    private static final long serialVersionUID = 1L;

    private final String file;

    FileException(Path file, Fault fault, String sentence, Throwable cause) {
        super(fault, sentence, cause);
        this.file = file.toString();
    }

    /** Whether the sentence is about this file. */
    boolean about(Path other) {
        return other.toString().equals(file);
    }
}
