package lane.formats.grid;

import java.nio.file.Path;
import lane.base.Work;

/** Reads a file that another one refers to, of whatever format it is. */
@FunctionalInterface
public interface Nested {
    Dataset read(Path file, Opening opening, Work work);
}
