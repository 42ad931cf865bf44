package lane.ledger;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A table of a ledger, whatever it will be written as.
 *
 * @param name for files and sheets, in plain letters
 * @param title for people
 * @param note what holds for all of it, in a sentence; blank for nothing
 * @param columns typed
 * @param rows one cell a column
 */
public record LedgerTable(String name, String title, String note, List<Column> columns, List<Row> rows) {
    public LedgerTable {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
    }

    /** The place of a column among the others; -1 for none of this name. */
    public int column(String column) {
        return IntStream.range(0, columns.size())
                .filter(i -> columns.get(i).name().equals(column))
                .findFirst()
                .orElse(-1);
    }

    /** What is said beneath: the note, and what marks mean. */
    public List<String> notes() {
        Stream<String> marks = Arrays.stream(Mark.values())
                .filter(m -> !m.sign().isEmpty() && has(m))
                .map(m -> m.sign() + " " + m.meaning());
        return Stream.concat(Stream.of(note).filter(n -> !n.isBlank()), marks).toList();
    }

    /** Whether any cell stands out so. */
    public boolean has(Mark mark) {
        return rows.stream().flatMap(r -> r.cells().stream()).anyMatch(c -> c.mark() == mark);
    }

    /**
     * A column.
     *
     * @param name for programs
     * @param title for people
     * @param meaning in a sentence
     * @param number whether its cells are numbers
     * @param less the two columns that it is the difference of; null for others
     */
    public record Column(
            String name,
            String title,
            String meaning,
            boolean number,
            @Nullable Less less) {
        public Column(String name, String title, String meaning, boolean number) {
            this(name, title, meaning, number, null);
        }

        public Column titled(String other) {
            return new Column(name, other, meaning, number, less);
        }
    }

    /** Names of the columns that a difference is made of. */
    public record Less(String value, String from) {}

    /** A row. */
    public record Row(List<Cell> cells) {
        public Row {
            cells = List.copyOf(cells);
        }
    }

    /** What stands out, whatever it is written as. */
    public enum Mark {
        NONE("", ""),
        /** A number that somebody typed, or that rests on one. */
        TYPED("†", "typed by hand, or resting on a number that was"),
        /** A deviation that somebody accepted. */
        ACCEPTED("", "");

        private final String sign;
        private final String meaning;

        Mark(String sign, String meaning) {
            this.sign = sign;
            this.meaning = meaning;
        }

        /** What stands behind a number on paper; blank for nothing. */
        public String sign() {
            return sign;
        }

        public String meaning() {
            return meaning;
        }
    }

    /** What stands in a row under a column. */
    public sealed interface Cell {
        /** For people. */
        String text();

        Mark mark();

        /** The text with its mark behind it. */
        default String marked() {
            return text().isBlank() || mark().sign().isEmpty() ? text() : text() + " " + mark().sign();
        }
    }

    public record Text(String text, Mark mark) implements Cell {
        public Text(String text) {
            this(text, Mark.NONE);
        }
    }

    /**
     * A number.
     *
     * @param value with all its digits; NaN where there is none
     * @param text as it is told beside those that it is compared with
     */
    public record Num(double value, String text, Mark mark) implements Cell {
        public static final Num NONE = new Num(Double.NaN, "");

        public Num(double value, String text) {
            this(value, text, Mark.NONE);
        }
    }
}
