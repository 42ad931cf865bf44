package lane.formats;

import java.nio.file.Files;
import java.nio.file.Path;
import lane.formats.io.FileNames;
import lane.formats.table.TableReader;

/** What a file is taken for. */
public final class FileKinds {
    /** Rows of numbers that make a table of a file whose ending tells nothing. */
    private static final int FEWEST = 3;

    private FileKinds() {}

    /** Whether a file holds a table: by its ending, or where that is none of a run or a study, by rows of numbers at its beginning. */
    public static boolean table(Path file) {
        String ending = FileNames.ending(file);
        if (TableReader.ENDINGS.contains(ending)) {
            return true;
        }
        if (DatasetReader.knows(file) || ending.equals("json") || !Files.isRegularFile(file)) {
            return false;
        }
        return TableReader.rowsAtStart(file) >= FEWEST;
    }
}
