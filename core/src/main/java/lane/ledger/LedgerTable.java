package lane.ledger;

import java.util.List;

/**
 * A table of a ledger, whatever it will be written as.
 *
 * @param name for files and sheets, in plain letters
 * @param title for people
 * @param columns typed
 * @param rows one cell a column
 */
public record LedgerTable(String name, String title, List<Column> columns, List<Row> rows) {
    public LedgerTable {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
    }

    /**
     * A column.
     *
     * @param name for programs
     * @param title for people
     * @param meaning in a sentence
     * @param number whether its cells are numbers
     */
    public record Column(String name, String title, String meaning, boolean number) {}

    /** A row: numbers as {@link Num}, else text. */
    public record Row(List<Cell> cells) {
        public Row {
            cells = List.copyOf(cells);
        }
    }

    /** What stands in a row under a column. */
    public sealed interface Cell {
        /** For people. */
        String text();
    }

    public record Text(String text) implements Cell {}

    /**
     * A number.
     *
     * @param value with all its digits; NaN where there is none
     * @param text as it is told beside those that it is compared with
     */
    public record Num(double value, String text) implements Cell {}
}
