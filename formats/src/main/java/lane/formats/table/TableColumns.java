package lane.formats.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lane.base.Parallel;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The numbers of a table's columns, and what was found while they were read. */
final class TableColumns {
    private static final int TOP = 40;
    /** What loggers and digitisers write where they have no value. */
    private static final double[] MARKS = {
        -1e30, -1e20, -99999, -9999, -999.9, -999.25, -999, -99.99, -99.9, -99, 9999, 99999, 999999, 1e20, 1e30
    };

    private static final double LEAST_MARK = 99;
    private static final double LEAST_POSITIVE = 9999;

    private final Rows rows;
    private final TableShape shape;
    private final TableHead head;
    private final Cells cells;
    private final List<RowList.Span> data;
    /** How many rows of data there are. */
    private final int count;

    private final List<String> findings;
    /** How many numbers stand in each column. */
    private int[] numbers = {};

    TableColumns(
            Rows rows, TableShape shape, TableHead head, Cells cells, List<RowList.Span> data, List<String> findings) {
        this.rows = rows;
        this.shape = shape;
        this.head = head;
        this.cells = cells;
        this.data = data;
        count = shape.data().length;
        this.findings = findings;
    }

    /** @param alongOne whether the first column of numbers is taken for what the others stand along, where nobody says otherwise */
    Table table(Recipe recipe, boolean alongOne, boolean comma, Provenance.Input input, String kind) {
        int width = head.names.size();
        int[] counts = new int[width];
        int[] firstWord = new int[width];
        double[][] together = together(width);
        List<double[]> columns =
                together != null ? new ArrayList<>(Arrays.asList(together)) : columns(width, counts, firstWord);
        numbers = new int[width];
        Parallel.forBlocks(width, 1, (b, c, end) -> numbers[c] = numbers(columns.get(c)));
        int before = findings.size();
        times(counts, firstWord);
        String[] clocks = clocks(recipe, columns, counts, firstWord);
        List<String> origins = findings.subList(before, findings.size()).stream()
                .filter(f -> f.contains(TimeColumn.COUNTED))
                .toList();
        List<Integer> words = Arrays.stream(counts).boxed().toList();
        List<Recipe.Role> roles = roles(recipe, alongOne, columns, words);
        List<List<String>> marks = new ArrayList<>(java.util.Collections.nCopies(width, List.of()));
        Parallel.forBlocks(width, 1, (b, c, end) -> {
            if (roles.get(c) != Recipe.Role.IGNORE) {
                marks.set(c, marks(head.names.get(c), columns.get(c)));
            }
        });
        for (int c = 0; c < columns.size(); c++) {
            if (words.get(c) > 0 && roles.get(c) != Recipe.Role.IGNORE) {
                int r = firstWord[c];
                findings.add("\"" + TableReader.brief(row(r).get(c), 40) + "\" in line " + line(r)
                        + (words.get(c) > 1 ? " and " + (words.get(c) - 1) + " more" : "") + " of \""
                        + head.names.get(c) + "\" is no number and counts as missing");
            }
            findings.addAll(marks.get(c));
        }
        turns(roles, columns);
        List<String> units = new ArrayList<>(head.units);
        for (int c = 0; c < units.size(); c++) {
            // A dash over words is no unit of theirs.
            if (words.get(c) > numbers[c]
                    && recipe.column(head.names.get(c)).unit().isBlank()) {
                units.set(c, "");
            }
            units.set(c, clocks[c] == null ? units.get(c) : clocks[c]);
        }
        List<Table.Dropped> dropped = shape.dropped();
        boolean unitRow = shape.units() >= 0;
        String said = (rows.sheet().isBlank()
                        ? rows.separator() + " between columns, decimal " + (comma ? "comma" : "point") + ", "
                                + rows.encoding()
                        : "sheet \"" + rows.sheet() + "\"")
                + ", " + (head.line > 0 ? "header in line " + head.line : "no header")
                + (unitRow ? ", units in line " + rows.cells().line(shape.units()) : "") + ", " + count + " rows"
                + (dropped.isEmpty()
                        ? ""
                        : ", " + dropped.size() + (dropped.size() == 1 ? " line" : " lines") + " left out")
                + origins.stream().map(o -> "; " + o).collect(Collectors.joining());
        var places = new Table.Places(
                head.line, unitRow ? rows.cells().line(shape.units()) : 0, count == 0 ? 0 : line(0), top());
        var layout = new Table.Layout(
                recipe.kind().isBlank() ? kind : recipe.kind(),
                rows.encoding(),
                rows.separator(),
                comma ? "comma" : "point",
                rows.sheet(),
                rows.sheets(),
                Math.max(0, recipe.skip()),
                head.line <= 0 ? 0 : unitRow ? 2 : 1,
                places,
                said);
        return new Table(head.names, units, roles, columns, layout, new Table.Found(words, dropped, findings), input);
    }

    /** Dates and times in plain rows are words as long as nothing is made of them. */
    private void times(int[] counts, int[] firstWord) {
        for (RowList.Span span : data) {
            PlainRun run = run(span);
            PlainRow one = run == null ? PlainRow.of(span.row(0), cells) : null;
            int times = run != null ? run.times() : one != null ? one.times() : 0;
            for (int c = 0; times >> c != 0; c++) {
                if ((times >> c & 1) != 0) {
                    firstWord[c] = counts[c] == 0 ? span.at() : Math.min(firstWord[c], span.at());
                    counts[c] += span.rows();
                }
            }
        }
    }

    /** Columns of dates and times become numbers. @return the unit that each is counted in; null for what is none */
    private @Nullable String[] clocks(Recipe recipe, List<double[]> columns, int[] counts, int[] firstWord) {
        var out = new @Nullable String[columns.size()];
        TimeColumn.Stamps dates = null;
        for (int c = 0; c < columns.size(); c++) {
            if (counts[c] == 0 || numbers[c] > 0) {
                dates = null;
                continue;
            }
            TimeColumn.Stamps stamps = TimeColumn.Stamps.of(cells(c));
            String name = TableReader.brief(head.names.get(c), 40);
            TimeColumn.Stamps both = dates != null && stamps.timesAlone() ? dates.with(stamps) : null;
            Optional<TimeColumn> found = TimeColumn.of(name, both == null ? stamps : both, cells);
            dates = found.isPresent() && stamps.datesAlone() ? stamps : null;
            if (found.isEmpty() && stamps.unclear()) {
                findings.add(
                        "\"" + name + "\" holds dates of which day and month cannot be told apart, and is not used;"
                                + " write the year first, then month and day");
            }
            if (found.isEmpty()) {
                continue;
            }
            if (both != null) {
                // The days are in it.
                out[c - 1] = null;
                columns.set(c - 1, none(count));
                numbers[c - 1] = 0;
                counts[c - 1] = count;
                findings.removeLast();
            }
            findings.add(found.get().said());
            Unit unit = Unit.of(recipe.column(head.names.get(c)).unit());
            boolean stated = unit.comparable(Unit.of("s"));
            columns.set(
                    c,
                    stated
                            ? Arrays.stream(found.get().seconds())
                                    .map(unit::fromSi)
                                    .toArray()
                            : found.get().seconds());
            numbers[c] = numbers(columns.get(c));
            counts[c] = found.get().others();
            firstWord[c] = Math.max(0, found.get().firstOther());
            out[c] = stated ? recipe.column(head.names.get(c)).unit() : "s";
        }
        return out;
    }

    private static double[] none(int count) {
        double[] out = new double[count];
        Arrays.fill(out, Double.NaN);
        return out;
    }

    /** A column as it stands in the file. */
    private List<String> cells(int c) {
        List<String> out = new ArrayList<>(count);
        for (RowList.Span span : data) {
            for (int k = 0; k < span.rows(); k++) {
                List<String> row = span.row(k);
                out.add(c < row.size() ? row.get(c) : "");
            }
        }
        return out;
    }

    private List<String> row(int r) {
        return rows.cells().get(shape.data()[r]);
    }

    private long line(int r) {
        return rows.cells().line(shape.data()[r]);
    }

    /** The run of a span, where its numbers are numbers to these cells; else null. */
    private @Nullable PlainRun run(RowList.Span span) {
        PlainRun run = span.part().run();
        return run != null && run.of(cells) ? run : null;
    }

    /**
     * The columns that the rows stand in one after the other; null where the rows are others.
     *
     * @param width how many columns; where the rows have fewer, nothing stands in the others
     */
    private double @Nullable [][] together(int width) {
        PlainRow first = data.isEmpty() ? null : PlainRow.of(data.getFirst().row(0), cells);
        if (first == null) {
            return null;
        }
        double[][] all = first.columns();
        int begin = first.place();
        for (RowList.Span span : data) {
            PlainRow row = PlainRow.of(span.row(0), cells);
            boolean others = span.part().run() != null && run(span) == null;
            if (others || row == null || row.columns() != all || row.place() != begin + span.at()) {
                return null;
            }
        }
        double[][] out = new double[width][];
        Parallel.forBlocks(width, 1, (b, c, end) -> {
            if (c >= all.length) {
                out[c] = new double[count];
                Arrays.fill(out[c], Double.NaN);
            } else {
                out[c] = count == all[c].length ? all[c] : Arrays.copyOfRange(all[c], begin, begin + count);
            }
        });
        return out;
    }

    /** Of rows that are not all plain, or lie apart. */
    private List<double[]> columns(int width, int[] counts, int[] firstWord) {
        List<double[]> columns = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            columns.add(new double[count]);
        }
        for (RowList.Span span : data) {
            for (int k = 0; run(span) == null && k < span.rows(); k++) {
                put(span.at() + k, span.row(k), columns, counts, firstWord);
            }
        }
        Parallel.forBlocks(width, 1, (b, c, end) -> {
            for (RowList.Span span : data) {
                PlainRun run = run(span);
                if (run != null && c < run.columns().length) {
                    System.arraycopy(run.columns()[c], run.place(span.from()), columns.get(c), span.at(), span.rows());
                } else if (run != null) {
                    Arrays.fill(columns.get(c), span.at(), span.end(), Double.NaN);
                }
            }
        });
        return columns;
    }

    private void put(int r, List<String> row, List<double[]> columns, int[] counts, int[] firstWord) {
        PlainRow plain = PlainRow.of(row, cells);
        for (int c = 0; c < columns.size(); c++) {
            if (plain != null) {
                columns.get(c)[r] = c < plain.size() ? plain.value(c) : Double.NaN;
                continue;
            }
            String cell = c < row.size() ? row.get(c) : "";
            Double v = cells.number(cell);
            columns.get(c)[r] = v == null ? Double.NaN : v;
            if (v == null && cells.word(cell)) {
                firstWord[c] = counts[c]++ == 0 ? r : firstWord[c];
            }
        }
    }

    private List<Recipe.Role> roles(Recipe recipe, boolean alongOne, List<double[]> columns, List<Integer> words) {
        List<Recipe.Role> out = new ArrayList<>();
        int along = -1;
        int numeric = 0;
        boolean said = false;
        for (int c = 0; c < columns.size(); c++) {
            boolean any = numbers[c] >= words.get(c);
            numeric += any ? 1 : 0;
            along = along < 0 && any && numbers[c] > 0 ? c : along;
            said |= recipe.column(head.names.get(c)).role() == Recipe.Role.ABSCISSA;
        }
        for (int c = 0; c < columns.size(); c++) {
            Recipe.Role by = recipe.column(head.names.get(c)).role();
            boolean any = numbers[c] >= words.get(c);
            // Who says which column the others stand along takes it from the one that was only guessed.
            out.add(
                    by != null
                            ? by
                            : !any
                                    ? Recipe.Role.IGNORE
                                    : c == along && numeric > 1 && !said
                                            ? alongOne ? Recipe.Role.ABSCISSA : Recipe.Role.VALUE
                                            : Table.role(head.names.get(c), head.names));
        }
        return out;
    }

    private static int numbers(double[] column) {
        int n = 0;
        for (double v : column) {
            n += Double.isNaN(v) ? 0 : 1;
        }
        return n;
    }

    /** A value that loggers write for none, far from all the others, is told. */
    private static List<String> marks(String name, double[] column) {
        List<String> told = new ArrayList<>();
        Map<Double, Integer> counts = new HashMap<>();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : column) {
            if ((v <= -LEAST_MARK || v >= LEAST_POSITIVE) && Arrays.binarySearch(MARKS, v) >= 0) {
                counts.merge(v, 1, Integer::sum);
            } else if (!Double.isNaN(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
        }
        for (var e : new java.util.TreeMap<>(counts).entrySet()) {
            double v = e.getKey();
            double range = greatest - least;
            if (least <= greatest && (v < least - range || v > greatest + range)) {
                String text = v == Math.rint(v) && Math.abs(v) < 1e7 ? String.valueOf((long) v) : String.valueOf(v);
                told.add(text + " stands " + (e.getValue() == 1 ? "once" : e.getValue() + " times") + " in \"" + name
                        + "\", far from its other values; if it marks a missing value, say so");
            }
        }
        return told;
    }

    /** Where what the others stand along turns back is told: two sets of data in one file, or rows out of order. */
    private void turns(List<Recipe.Role> roles, List<double[]> columns) {
        int c = roles.indexOf(Recipe.Role.ABSCISSA);
        if (c < 0) {
            return;
        }
        double[] x = columns.get(c);
        int up = 0;
        int down = 0;
        int[] turn = {-1, -1};
        int last = -1;
        for (int r = 0; r < x.length; r++) {
            if (Double.isNaN(x[r])) {
                continue;
            }
            if (last >= 0 && x[r] > x[last]) {
                up++;
                turn[1] = turn[1] < 0 ? r : turn[1];
            } else if (last >= 0 && x[r] < x[last]) {
                down++;
                turn[0] = turn[0] < 0 ? r : turn[0];
            }
            last = r;
        }
        if (Math.min(up, down) > 0) {
            int back = Math.min(up, down);
            int r = up >= down ? turn[0] : turn[1];
            findings.add("\"" + head.names.get(c) + "\" turns back at line " + line(r)
                    + (back == 1 ? "" : " and at " + (back - 1) + " more")
                    + String.format(Locale.ROOT, " (to %s); a curve along it has branches", row(r).get(c)));
        }
    }

    private List<Table.Line> top() {
        Map<Long, Table.Use> uses = new HashMap<>();
        RowList all = rows.cells();
        // Of a sheet the first rows are shown, wherever they stand; of a text the first lines.
        int shown = 0;
        while (shown < all.size() && (rows.file().isEmpty() ? shown < TOP : all.line(shown) <= TOP)) {
            uses.put(all.line(shown), shown < shape.first() ? Table.Use.TITLE : Table.Use.OUT);
            shown++;
        }
        for (int k = 0; k < count && shape.data()[k] < shown; k++) {
            uses.replace(all.line(shape.data()[k]), Table.Use.DATA);
        }
        for (int i : new int[] {shape.group(), shape.header()}) {
            if (i >= 0) {
                uses.replace(all.line(i), Table.Use.HEADER);
            }
        }
        if (shape.units() >= 0) {
            uses.replace(rows.cells().line(shape.units()), Table.Use.UNITS);
        }
        List<Table.Line> out = new ArrayList<>();
        if (rows.file().isEmpty()) {
            for (int i = 0; i < Math.min(TOP, all.size()); i++) {
                long n = all.line(i);
                out.add(new Table.Line(n, uses.getOrDefault(n, Table.Use.OUT), TableReader.brief(rows.text(i), 200)));
            }
            return out;
        }
        for (int n = 1; n <= Math.min(TOP, rows.file().size()); n++) {
            String text = rows.file().get(n - 1);
            Table.Use use = n == head.line && head.commented
                    ? Table.Use.HEADER
                    : uses.getOrDefault(
                            (long) n,
                            text.isBlank() || text.strip().matches("[;,\\t ]*")
                                    ? Table.Use.BLANK
                                    : text.strip().matches("(?:%|//|#).*") ? Table.Use.COMMENT : Table.Use.TITLE);
            out.add(new Table.Line(n, use, TableReader.brief(text, 200)));
        }
        return out;
    }
}
