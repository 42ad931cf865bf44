package lane.reference;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Corrections to how a kind of table is read. It is kept with the study and holds for every table of the kind; what it
 * leaves blank is found out from the file.
 *
 * @param kind what tables of the kind have in common: the line of their header, runs of blanks taken as one
 * @param file name of the file that it holds for, with {@code *} for anything; blank to go by the kind
 * @param encoding {@code UTF-8}, {@code UTF-16}, {@code Latin-1}; blank to find out
 * @param separator {@code comma}, {@code semicolon}, {@code tab}, {@code bar}, {@code space}; blank to find out
 * @param decimal {@code point} or {@code comma}; blank to find out
 * @param sheet name of the sheet of a workbook; blank for the first with numbers
 * @param skip lines before the header; -1 to find out
 * @param headers rows of names and units above the numbers: 0 none, 1 names, 2 names and units; -1 to find out
 * @param lines where header, units and data stand in the file
 * @param missing words or numbers that stand for a missing value, besides the usual ones
 * @param columns what is said about columns, by their names in the file
 */
public record Recipe(
        String kind,
        String file,
        String encoding,
        String separator,
        String decimal,
        String sheet,
        int skip,
        int headers,
        Lines lines,
        List<String> missing,
        List<Column> columns) {
    /**
     * Lines of the file, counted from 1.
     *
     * @param header of the names; 0 to find out, -1 for none
     * @param units 0 to find out, -1 for none
     * @param data the first; 0 to find out
     */
    public record Lines(int header, int units, int data) {
        public static final Lines FOUND = new Lines(0, 0, 0);

        /** From a study file, where each may be left out. */
        public static Lines read(@Nullable Integer header, @Nullable Integer units, @Nullable Integer data) {
            return new Lines(header == null ? 0 : header, units == null ? 0 : units, data == null ? 0 : data);
        }

        public Lines withHeader(int line) {
            return new Lines(line, units, data);
        }

        public Lines withUnits(int line) {
            return new Lines(header, line, data);
        }

        public Lines withData(int line) {
            return new Lines(header, units, line);
        }
    }

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
        kind = kind == null ? "" : kind;
        file = file == null ? "" : file;
        encoding = encoding == null ? "" : encoding;
        separator = separator == null ? "" : separator;
        decimal = decimal == null ? "" : decimal;
        sheet = sheet == null ? "" : sheet;
        lines = lines == null ? Lines.FOUND : lines;
        missing = missing == null ? List.of() : List.copyOf(missing);
        columns = columns == null ? List.of() : List.copyOf(columns);
    }

    public static Recipe of(String kind) {
        return new Recipe(kind, "", "", "", "", "", -1, -1, Lines.FOUND, List.of(), List.of());
    }

    /** From a study file, where everything but the kind or the file may be left out. */
    public static Recipe read(
            String kind,
            String file,
            String encoding,
            String separator,
            String decimal,
            String sheet,
            @Nullable Integer skip,
            @Nullable Integer headers,
            Lines lines,
            List<String> missing,
            List<Column> columns) {
        return new Recipe(
                kind,
                file,
                encoding,
                separator,
                decimal,
                sheet,
                skip == null ? -1 : skip,
                headers == null ? -1 : headers,
                lines,
                missing,
                columns);
    }

    /**
     * Whether it holds for a table.
     *
     * @param name of the table's file, without its folder
     * @param kinds lines that tell its kind
     */
    public boolean holdsFor(String name, List<String> kinds) {
        if (!file.isBlank()) {
            String pattern = java.util.Arrays.stream(file.split("\\*", -1))
                    .map(java.util.regex.Pattern::quote)
                    .collect(java.util.stream.Collectors.joining(".*"));
            return name.matches(pattern);
        }
        return kinds.contains(kind.strip().replaceAll("\\s+", " "));
    }

    /** The first of several that holds for a table; one that says nothing where none does. */
    public static Recipe among(List<Recipe> recipes, String name, List<String> kinds) {
        return recipes.stream().filter(r -> r.holdsFor(name, kinds)).findFirst().orElse(of(kinds.getFirst()));
    }

    public Recipe withLayout(String encoding, String separator, String decimal, String sheet, int skip, int headers) {
        return new Recipe(kind, file, encoding, separator, decimal, sheet, skip, headers, lines, missing, columns);
    }

    /** With the decimal mark that was found out. */
    public Recipe decided(String mark) {
        return withLayout(encoding, separator, mark, sheet, skip, headers);
    }

    public Recipe with(Lines other) {
        return new Recipe(kind, file, encoding, separator, decimal, sheet, skip, headers, other, missing, columns);
    }

    public Recipe withMissing(List<String> other) {
        return new Recipe(kind, file, encoding, separator, decimal, sheet, skip, headers, lines, other, columns);
    }

    /** For the file of this name alone. */
    public Recipe forFile(String name) {
        return new Recipe(kind, name, encoding, separator, decimal, sheet, skip, headers, lines, missing, columns);
    }

    /** For every table with this header. */
    public Recipe forHeader(String line) {
        return new Recipe(line, "", encoding, separator, decimal, sheet, skip, headers, lines, missing, columns);
    }

    public Recipe with(Column column) {
        var all = new java.util.ArrayList<>(columns);
        all.removeIf(c -> c.header().equals(column.header()));
        all.add(column);
        return new Recipe(kind, file, encoding, separator, decimal, sheet, skip, headers, lines, missing, all);
    }

    /** What is said about a column; nothing, where nothing is. */
    public Column column(String header) {
        return columns.stream()
                .filter(c -> c.header().equals(header))
                .findFirst()
                .orElse(new Column(header, "", null));
    }
}
