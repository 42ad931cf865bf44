package lane.reference;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Corrections to how a kind of table is read. It is kept with the study and holds for every table of the kind; what it
 * leaves blank is found out from the file.
 *
 * @param kind what tables of the kind have in common: the line above the first numbers
 * @param encoding {@code UTF-8}, {@code UTF-16}, {@code Latin-1}; blank to find out
 * @param separator {@code comma}, {@code semicolon}, {@code tab}, {@code space}; blank to find out
 * @param decimal {@code point} or {@code comma}; blank to find out
 * @param sheet name of the sheet of a workbook; blank for the first with numbers
 * @param skip lines before the header; -1 to find out
 * @param headers rows of names and units above the numbers: 0 none, 1 names, 2 names and units; -1 to find out
 * @param columns what is said about columns, by their names in the file
 */
public record Recipe(
        String kind,
        String encoding,
        String separator,
        String decimal,
        String sheet,
        int skip,
        int headers,
        List<Column> columns) {
    /** What a column is for. */
    public enum Role {
        ABSCISSA("along"),
        VALUE("value"),
        UNCERTAINTY("uncertainty"),
        IGNORE("ignore");

        private final String word;

        Role(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /**
     * @param header name in the file
     * @param unit blank follows the file
     * @param role null to find out
     */
    public record Column(
            String header, String unit, @Nullable Role role) {
        public Column {
            unit = unit == null ? "" : unit;
            lane.unit.Unit.of(unit);
        }
    }

    public Recipe {
        encoding = encoding == null ? "" : encoding;
        separator = separator == null ? "" : separator;
        decimal = decimal == null ? "" : decimal;
        sheet = sheet == null ? "" : sheet;
        columns = columns == null ? List.of() : List.copyOf(columns);
    }

    public static Recipe of(String kind) {
        return new Recipe(kind, "", "", "", "", -1, -1, List.of());
    }

    public Recipe withLayout(String encoding, String separator, String decimal, String sheet, int skip, int headers) {
        return new Recipe(kind, encoding, separator, decimal, sheet, skip, headers, columns);
    }

    public Recipe with(Column column) {
        var all = new java.util.ArrayList<>(columns);
        all.removeIf(c -> c.header().equals(column.header()));
        all.add(column);
        return new Recipe(kind, encoding, separator, decimal, sheet, skip, headers, all);
    }

    /** What is said about a column; nothing, where nothing is. */
    public Column column(String header) {
        return columns.stream()
                .filter(c -> c.header().equals(header))
                .findFirst()
                .orElse(new Column(header, "", null));
    }
}
