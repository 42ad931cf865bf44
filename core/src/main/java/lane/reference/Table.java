package lane.reference;

import java.util.List;
import lane.base.LaneException;
import lane.base.Plain;
import lane.provenance.Provenance;
import lane.reading.Samples;

/**
 * Measured or digitised columns.
 *
 * @param headers column names
 * @param units one a column as the file or its recipe says, blank where neither does
 * @param roles one a column, as the recipe says or as its name tells
 * @param columns numbers, NaN where missing; all of one length
 * @param layout how the file was read
 * @param found what was left out and what is doubtful
 */
public record Table(
        List<String> headers,
        List<String> units,
        List<Recipe.Role> roles,
        List<double[]> columns,
        Layout layout,
        Found found,
        Provenance.Input input) {
    /**
     * A line among the data that is none.
     *
     * @param line in the file, counted from 1
     * @param why in words
     */
    public record Dropped(long line, String why) {}

    /**
     * What is to be known besides the numbers.
     *
     * @param words cells of each column that hold words and count as missing
     * @param findings what was assumed or looks wrong, a sentence each
     */
    public record Found(List<Integer> words, List<Dropped> dropped, List<String> findings) {
        public static final Found NOTHING = new Found(List.of(), List.of(), List.of());

        public Found {
            words = List.copyOf(words);
            dropped = List.copyOf(dropped);
            findings = List.copyOf(findings);
        }
    }

    /** What a line of the file was taken for. */
    public enum Use {
        TITLE("title"),
        COMMENT("comment"),
        BLANK("blank"),
        HEADER("header"),
        UNITS("units"),
        DATA("data"),
        OUT("left out");

        private final String word;

        Use(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** A line as it stands in the file, cut where it is very long. */
    public record Line(long number, Use use, String text) {}

    /**
     * Where things stand in the file: lines counted from 1, 0 for none.
     *
     * @param top the first lines as they are
     */
    public record Places(long header, long units, long firstData, List<Line> top) {
        public static final Places NONE = new Places(0, 0, 0, List.of());

        public Places {
            top = List.copyOf(top);
        }
    }

    /**
     * How a file was read; everything was found out unless a recipe says it.
     *
     * @param kind what tables of this kind have in common
     * @param sheets of a workbook; empty for text
     * @param headers rows of names and units: 0, 1 or 2
     * @param places where they stand
     * @param words the same for people
     */
    public record Layout(
            String kind,
            String encoding,
            String separator,
            String decimal,
            String sheet,
            List<String> sheets,
            int skip,
            int headers,
            Places places,
            String words) {
        public Layout {
            sheets = List.copyOf(sheets);
        }
    }

    public Table {
        headers = List.copyOf(headers);
        units = List.copyOf(units);
        roles = List.copyOf(roles);
        columns = columns instanceof Columns ? columns : List.copyOf(columns);
    }

    /** The same, known to be of a file. */
    public Table from(Provenance.Input file) {
        return new Table(headers, units, roles, columns, layout, found, file);
    }

    /** A table made by the program itself. */
    public Table(
            List<String> headers, List<String> units, List<double[]> columns, String words, Provenance.Input input) {
        this(
                headers,
                units,
                headers.stream().map(h -> role(h, headers)).toList(),
                columns,
                new Layout("", "", "", "", "", List.of(), 0, 1, Places.NONE, words),
                Found.NOTHING,
                input);
    }

    /**
     * By the trade's usual names: an uncertainty, or else a value. A bare {@code u} is an uncertainty behind a value, but a speed
     * where it stands among components or alone.
     *
     * @param headers of all columns
     */
    public static Recipe.Role role(String header, List<String> headers) {
        String h = header.toLowerCase(java.util.Locale.ROOT);
        boolean component = headers.stream().anyMatch(o -> o.equalsIgnoreCase("v") || o.equalsIgnoreCase("w"))
                || headers.size() < 3
                || headers.indexOf(header) < 2;
        boolean unsure = h.contains("uncert")
                || h.contains("error")
                || h.contains("±")
                || h.contains("+-")
                || h.contains("sigma")
                || h.contains("std")
                || header.equals("u") && !component
                || h.matches("(u_.*|u95|du|err.*|sd|s\\.d\\.|sem)(\\W.*)?");
        return unsure ? Recipe.Role.UNCERTAINTY : Recipe.Role.VALUE;
    }

    public int rows() {
        return columns instanceof Columns c ? c.rows() : columns.isEmpty() ? 0 : columns.getFirst().length;
    }

    /** What was found out about the file, for people: separator, decimal mark, header lines. */
    public String recipe() {
        return layout.words();
    }

    /** @throws LaneException naming the columns there are */
    public double[] column(String header) {
        return columns.get(place(header));
    }

    /** Where the least and the greatest number of a column stand, and how many numbers there are. */
    public Samples.Ends ends(String header) {
        return ends(place(header));
    }

    /** The same of a column by its place. */
    public Samples.Ends ends(int i) {
        return columns instanceof Columns c ? c.ends(i) : Samples.Ends.of(columns.get(i));
    }

    private int place(String header) {
        int i = headers.indexOf(header);
        if (i < 0) {
            throw new LaneException("The table " + input.path() + " has no column \"" + header + "\"; its columns are "
                    + Plain.names(headers) + ".");
        }
        return i;
    }

    /** The unit of a column: as the file says, or the given one if that is not blank. */
    public String unit(String header, String stated) {
        int i = place(header);
        return stated.isBlank() ? units.get(i) : stated;
    }

    /** Names of the columns with a role, in their order. */
    public List<String> with(Recipe.Role role) {
        return headers.stream()
                .filter(h -> roles.get(headers.indexOf(h)) == role)
                .toList();
    }
}
