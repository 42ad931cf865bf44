package lane.ledger;

import java.util.ArrayList;
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
        // Of points there may be more than memory has room for as rows.
        rows = rows instanceof PointRows ? rows : List.copyOf(rows);
    }

    /** The place of a column among the others; -1 for none of this name. */
    public int column(String column) {
        return IntStream.range(0, columns.size())
                .filter(i -> columns.get(i).name().equals(column))
                .findFirst()
                .orElse(-1);
    }

    /**
     * This table in parts of no more columns each, where a page has no room for more: each begins with the columns of words that the
     * table begins with, and a column stays beside its uncertainty.
     *
     * @param most columns; more only where words and one number need them
     */
    public List<LedgerTable> within(int most) {
        if (columns.size() <= most) {
            return List.of(this);
        }
        int lead = 0;
        while (lead < columns.size() && !columns.get(lead).number()) {
            lead++;
        }
        int room = Math.max(2, most - lead);
        List<int[]> parts = new ArrayList<>();
        for (int from = lead; from < columns.size(); ) {
            int to = Math.min(columns.size(), from + room);
            if (to < columns.size() && to - from > 1 && columns.get(to).title().startsWith("±")) {
                to--;
            }
            parts.add(new int[] {from, to});
            from = to;
        }
        List<LedgerTable> out = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            int words = lead;
            int[] part = parts.get(i);
            List<Row> cut = rows.stream()
                    .map(r -> new Row(taken(r.cells(), words, part)))
                    .toList();
            out.add(new LedgerTable(
                    i == 0 ? name : name + "-" + (i + 1),
                    title + ", part " + (i + 1) + " of " + parts.size(),
                    note,
                    taken(columns, lead, part),
                    cut));
        }
        return out;
    }

    private static <T> List<T> taken(List<T> of, int lead, int[] part) {
        return Stream.concat(of.subList(0, lead).stream(), of.subList(part[0], part[1]).stream())
                .toList();
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
