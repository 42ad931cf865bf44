package lane.formats.table;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Cells of a table as words, before anything is known about them.
 *
 * @param cells of each row, without blanks around them, and their lines
 * @param encoding and {@code separator}: as found or as said; blank for a workbook
 * @param sheet that was read, of {@code sheets}; blank and empty for text
 * @param above the words of the last comment before the numbers, in the line {@code aboveLine}; null for none
 * @param file the first lines as they are, at most {@link #KEPT}; empty for a workbook
 */
record Rows(
        RowList cells,
        String encoding,
        String separator,
        String sheet,
        List<String> sheets,
        @Nullable List<String> above,
        long aboveLine,
        List<String> file) {
    /** More than anybody writes above a table. */
    static final int KEPT = 2000;

    /** A row as it stands in the file; the cells of a sheet, or of a line far down, with bars between them. */
    String text(int row) {
        long line = cells.line(row);
        return line > file.size() ? String.join(" | ", cells.get(row)) : file.get((int) (line - 1));
    }

    /** The line of the last comment before the numbers. */
    String aboveText() {
        return aboveLine <= 0 ? "" : file.get((int) aboveLine - 1).strip().replaceAll("\\s+", " ");
    }
}
