package lane.study;

import java.util.List;
import java.util.Optional;
import lane.base.LaneException;
import lane.unit.Unit;

/**
 * A table of the ledger as somebody set it up: what it holds, which columns in which order under which names, in which units and
 * to how many digits. It changes no number.
 *
 * @param title for people; blank for that of its content
 * @param of what it holds
 * @param readings keys of the readings that it tells of; empty for all that belong to its content
 * @param columns in their order; empty for the usual ones
 * @param units that numbers are told in where these suit them; of others each keeps its own
 * @param digits significant ones of each number; 0 so that what is compared can be told apart
 * @param order of the lines
 * @param rows places along a curve, evenly from its first to its last; for tables of curves alone
 */
public record TableTemplate(
        String title,
        Content of,
        List<String> readings,
        List<Column> columns,
        List<String> units,
        int digits,
        Order order,
        int rows) {
    /** What a table holds. */
    public enum Content {
        NUMBERS("all numbers", "Comparison", false),
        TALLIES("numbers of readings without balances", "Comparison", false),
        BALANCES("terms and residuals of balances", "Balances", false),
        CHECKS("checks", "Checks", false),
        PROFILES("values along profiles", "Profiles", true),
        HISTORIES("values over time", "Histories", true);

        private final String word;
        private final String title;
        private final boolean curves;

        Content(String word, String title, boolean curves) {
            this.word = word;
            this.title = title;
            this.curves = curves;
        }

        /** For people. */
        public String word() {
            return word;
        }

        public String title() {
            return title;
        }

        /** Whether there is a table for each reading with a curve. */
        public boolean curves() {
            return curves;
        }
    }

    /**
     * A column.
     *
     * @param name as programs know it
     * @param title blank for the usual one
     * @param digits significant ones; 0 as those of the table
     */
    public record Column(String name, String title, int digits) {
        public Column {
            title = title == null ? "" : title;
            named(name);
            several(digits);
        }
    }

    /**
     * In which order lines stand.
     *
     * @param column that decides; blank for that of the study
     */
    public record Order(String column, boolean descending) {
        public static final Order OF_STUDY = new Order("", false);

        public Order {
            column = column == null ? "" : column;
        }
    }

    /** A double holds no more. */
    public static final int MOST_DIGITS = 17;

    public static final int USUAL_ROWS = 11;
    public static final int MOST_ROWS = 10_000;

    public TableTemplate {
        title = title == null ? "" : title;
        if (of == null) {
            throw new LaneException("A table of the ledger needs what it is of, such as NUMBERS or CHECKS.");
        }
        readings = readings == null ? List.of() : List.copyOf(readings);
        columns = columns == null ? List.of() : List.copyOf(columns);
        units = units == null ? List.of() : List.copyOf(units);
        order = order == null ? Order.OF_STUDY : order;
        several(digits);
        units.forEach(Unit::of);
        if (rows < 0 || rows > MOST_ROWS || rows == 1) {
            throw new LaneException("A table along a curve has from 2 to " + MOST_ROWS + " lines; got " + rows + ".");
        }
        if (columns.stream().map(Column::name).distinct().count() < columns.size()) {
            throw new LaneException("A column stands twice in the table \"" + title + "\"; name each once.");
        }
    }

    private static void named(String name) {
        if (name == null || name.isBlank()) {
            throw new LaneException("A column of a table needs its name.");
        }
    }

    private static void several(int digits) {
        if (digits < 0 || digits > MOST_DIGITS) {
            throw new LaneException("A number is told with up to " + MOST_DIGITS
                    + " digits, or 0 for as many as it takes; got " + digits + ".");
        }
    }

    /** As usual. */
    public static TableTemplate of(Content content) {
        return new TableTemplate("", content, List.of(), List.of(), List.of(), 0, Order.OF_STUDY, 0);
    }

    /** What it is called. */
    public String name() {
        return title.isBlank() ? of.title() : title;
    }

    /** Lines along a curve. */
    public int places() {
        return rows == 0 ? USUAL_ROWS : rows;
    }

    /** The unit that a number in this one is told in. */
    public Unit told(Unit own) {
        return units.stream()
                .map(Unit::of)
                // A difference of temperatures is no point on a scale, and is never told as one.
                .filter(u -> own.known() && u.comparable(own) && !(own.interval() && u.offset() != 0))
                .findFirst()
                .orElse(own);
    }

    /** How it was chosen that a column is shown; empty for one that nobody chose. */
    public Optional<Column> column(String name) {
        return columns.stream().filter(c -> c.name().equals(name)).findFirst();
    }

    public TableTemplate titled(String other) {
        return new TableTemplate(other, of, readings, columns, units, digits, order, rows);
    }

    /** What is of other things has other columns. */
    public TableTemplate of(Content other, List<String> keys) {
        return new TableTemplate(
                title,
                other,
                keys,
                other == of ? columns : List.of(),
                units,
                digits,
                other == of ? order : Order.OF_STUDY,
                rows);
    }

    public TableTemplate with(List<Column> others) {
        return new TableTemplate(title, of, readings, others, units, digits, order, rows);
    }

    public TableTemplate in(List<String> others) {
        return new TableTemplate(title, of, readings, columns, others, digits, order, rows);
    }

    public TableTemplate to(int significant) {
        return new TableTemplate(title, of, readings, columns, units, significant, order, rows);
    }

    public TableTemplate by(Order other) {
        return new TableTemplate(title, of, readings, columns, units, digits, other, rows);
    }

    public TableTemplate along(int lines) {
        return new TableTemplate(title, of, readings, columns, units, digits, order, lines);
    }
}
