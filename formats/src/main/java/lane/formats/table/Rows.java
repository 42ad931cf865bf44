package lane.formats.table;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Cells of a table as words, before anything is known about them.
 *
 * @param cells of each row, without blanks around them
 * @param lines of each row in the file, counted from 1
 * @param encoding and {@code separator}: as found or as said; blank for a workbook
 * @param sheet that was read, of {@code sheets}; blank and empty for text
 * @param above the words of the last comment before the numbers; null for none
 */
record Rows(
        List<List<String>> cells,
        List<Long> lines,
        String encoding,
        String separator,
        String sheet,
        List<String> sheets,
        @Nullable List<String> above) {}
