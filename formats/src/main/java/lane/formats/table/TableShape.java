package lane.formats.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Which rows of a table are names, units, data, and what is none of them; numbers of rows, -1 for none.
 *
 * @param group a second row of names above the first, which parts columns of the same name
 * @param data the rows of data in order
 */
record TableShape(int group, int header, int units, int width, int[] data, List<Table.Dropped> dropped) {
    private static final Set<String> SUMS = Set.of(
            "total",
            "totals",
            "subtotal",
            "grand total",
            "sum",
            "mean",
            "average",
            "avg",
            "min",
            "max",
            "minimum",
            "maximum",
            "std",
            "std dev",
            "stdev",
            "standard deviation",
            "median",
            "count",
            "range",
            "\u03a3",
            "summe",
            "mittel",
            "gesamt",
            "mittelwert",
            "moyenne",
            "somme",
            "totaal",
            "rms");
    private static final Pattern BRACKETS = Pattern.compile("^[\\[(]\\s*|\\s*[\\])]$");

    /** Finds the rows of data among cells; there are none where no row has a number. */
    static TableShape of(Rows rows, Cells cells, Recipe recipe) {
        return new Search(rows, cells, recipe).shape();
    }

    int first() {
        return data.length == 0 ? -1 : data[0];
    }

    static String bare(String unit) {
        return BRACKETS.matcher(unit.strip()).replaceAll("");
    }

    static boolean readable(String unit) {
        try {
            Unit.of(unit);
            return true;
        } catch (LaneException e) {
            return false;
        }
    }

    private static final class Search {
        private final RowList rows;
        private final boolean padded;
        private final Cells cells;
        private final Recipe recipe;
        private final int width;
        private final boolean[] numeric;
        /** How many of the columns are. */
        private int numerics;

        private final int along;

        Search(Rows found, Cells cells, Recipe recipe) {
            rows = found.cells();
            padded = found.sheet().isBlank();
            this.cells = cells;
            this.recipe = recipe;
            width = width();
            numeric = numeric();
            for (boolean one : numeric) {
                numerics += one ? 1 : 0;
            }
            along = along();
        }

        private @Nullable PlainRow plain(List<String> row) {
            return PlainRow.of(row, cells);
        }

        /** The run that a part is, where its rows are of numbers to these cells; else null. */
        private @Nullable PlainRun run(RowList.Part part) {
            return part.run() != null && part.run().of(cells) ? part.run() : null;
        }

        private boolean number(String s) {
            return cells.isNumber(s);
        }

        private boolean any(int row) {
            return plain(rows.get(row)) != null || rows.get(row).stream().anyMatch(this::number);
        }

        /** Cells that most rows with a number have. */
        private int width() {
            Map<Integer, Integer> counts = new HashMap<>();
            for (RowList.Part part : rows.parts()) {
                PlainRun run = run(part);
                if (run != null) {
                    counts.merge(run.size(), run.rows(), Integer::sum);
                    continue;
                }
                for (int i = part.first(); i < part.end(); i++) {
                    if (any(i)) {
                        counts.merge(rows.get(i).size(), 1, Integer::sum);
                    }
                }
            }
            int best = 0;
            for (var e : counts.entrySet()) {
                int more = e.getValue() - counts.getOrDefault(best, 0);
                boolean named = named(e.getKey());
                boolean better = named == named(best) ? e.getKey() > best : named;
                best = more > 0 || more == 0 && better ? e.getKey() : best;
            }
            if (!padded) {
                // A sheet's rows end with their last cell, so a longer one is as good where the head is as long.
                for (int n : counts.keySet()) {
                    best = n > best && named(n) ? n : best;
                }
            }
            return best;
        }

        /** Whether a row of as many words stands in the file. */
        private boolean named(int cellCount) {
            return rows.parts().stream().filter(p -> run(p) == null).anyMatch(p -> {
                for (int i = p.first(); i < p.end(); i++) {
                    List<String> r = rows.get(i);
                    if (r.size() == cellCount && plain(r) == null && r.stream().allMatch(cells::word)) {
                        return true;
                    }
                }
                return false;
            });
        }

        private boolean[] numeric() {
            int[] balance = new int[width];
            int whole = 0;
            for (RowList.Part part : rows.parts()) {
                PlainRun run = run(part);
                if (run != null && run.whole() && run.size() >= width) {
                    whole += run.rows();
                    for (int c = 0; c < PlainRow.TIMES && c < width; c++) {
                        // Each counts as a word.
                        balance[c] -= (run.times() >> c & 1) * 2 * run.rows();
                    }
                    continue;
                }
                for (int i = part.first(); i < part.end(); i++) {
                    whole += numeric(i, balance);
                }
            }
            boolean[] out = new boolean[width];
            for (int c = 0; c < width; c++) {
                out[c] = balance[c] + whole > 0;
            }
            return out;
        }

        /** Counts in each column whether a row has a number there; 1 for one that has numbers everywhere, which is not counted. */
        private int numeric(int i, int[] balance) {
            List<String> row = rows.get(i);
            PlainRow plain = plain(row);
            if (plain != null && plain.whole() && row.size() >= width) {
                return 1;
            }
            boolean counts = row.size() * 2 >= width && (plain != null || any(i));
            for (int c = 0; counts && c < Math.min(width, row.size()); c++) {
                balance[c] += plain != null
                        ? plain.isNumber(c) ? 1 : plain.isTime(c) ? -1 : 0
                        : number(row.get(c)) ? 1 : cells.word(row.get(c)) ? -1 : 0;
            }
            return 0;
        }

        private int along() {
            for (int c = 0; c < width; c++) {
                if (numeric[c]) {
                    return c;
                }
            }
            return -1;
        }

        private int words(List<String> row) {
            PlainRow plain = plain(row);
            if (plain != null && plain.times() == 0) {
                return 0;
            }
            int n = 0;
            for (int c = 0; c < Math.min(width, row.size()); c++) {
                n += numeric[c] && word(row, plain, c) ? 1 : 0;
            }
            return n;
        }

        private boolean word(List<String> row, @Nullable PlainRow plain, int c) {
            return plain == null ? cells.word(row.get(c)) : plain.isTime(c);
        }

        private int numbers(List<String> row) {
            PlainRow plain = plain(row);
            if (plain != null && plain.whole() && row.size() >= width) {
                return numerics;
            }
            int n = 0;
            for (int c = 0; c < Math.min(width, row.size()); c++) {
                n += numeric[c] && (plain == null ? number(row.get(c)) : plain.isNumber(c)) ? 1 : 0;
            }
            return n;
        }

        private boolean tooLong(List<String> row) {
            return row.size() > width && row.subList(width, row.size()).stream().anyMatch(s -> !s.isEmpty());
        }

        /** Why a row is no data; blank where it is. */
        private String why(List<String> row) {
            int n = numbers(row);
            int w = words(row);
            if (n == 0) {
                return "no numbers: " + brief(row);
            }
            if (tooLong(row)) {
                return row.size() + " cells, where the others have " + width;
            }
            if (along >= 0 && along < row.size() && word(row, plain(row), along)) {
                return "\"" + cut(row.get(along)) + "\" where a number belongs";
            }
            return w > n ? "more words than numbers: " + brief(row) : "";
        }

        private static String cut(String s) {
            return s.length() <= 40 ? s : s.substring(0, 40) + "\u2026";
        }

        private static String brief(List<String> row) {
            return "\""
                    + cut(String.join(
                            " ", row.stream().filter(s -> !s.isEmpty()).toList()))
                    + "\"";
        }

        private int first() {
            if (recipe.lines().data() > 0) {
                for (int i = 0; i < rows.size(); i++) {
                    if (rows.line(i) >= recipe.lines().data()) {
                        return i;
                    }
                }
                return -1;
            }
            int from = Math.max(0, recipe.headers());
            int named = Math.max(recipe.lines().header(), recipe.lines().units());
            for (int i = 0; i < rows.size() && rows.line(i) <= named; i++) {
                from = i + 1;
            }
            boolean said = recipe.headers() >= 0
                    || recipe.lines().header() != 0
                    || recipe.lines().units() > 0;
            for (int i = from; i < rows.size() && !said; i++) {
                List<String> row = rows.get(i);
                if ((!padded || row.size() >= width) && words(row) == 0 && why(row).isEmpty() && leads(i)) {
                    return i;
                }
            }
            for (int i = from; i < rows.size(); i++) {
                if (any(i) && (said || why(rows.get(i)).isEmpty())) {
                    return i;
                }
            }
            return -1;
        }

        /** Whether more data follow, as far as there are more rows: numbers in what stands above a table do not last. */
        private boolean leads(int i) {
            int good = 0;
            int seen = 0;
            for (int k = i; k < Math.min(rows.size(), i + 5); k++) {
                seen++;
                good += why(rows.get(k)).isEmpty() ? 1 : 0;
            }
            return good * 2 > seen;
        }

        private int filled(int row) {
            return (int) rows.get(row).stream().filter(s -> !s.isEmpty()).count();
        }

        private boolean units(int row) {
            int good = 0;
            int bad = 0;
            for (String s : rows.get(row)) {
                if (!s.isEmpty()) {
                    boolean unit = s.equals("-") || s.equals("--") || readable(bare(s));
                    good += unit ? 1 : 0;
                    bad += unit ? 0 : 1;
                }
            }
            return good > 0 && bad * 2 <= good && rows.get(row).size() <= Math.max(width, filled(row));
        }

        /** Whether a row can be names: enough words, and no numbers but as names of some columns. */
        private boolean names(int row) {
            List<String> r = rows.get(row);
            long words = r.stream().filter(s -> !s.isEmpty() && !number(s)).count();
            return words > 0 && (width == 1 || filled(row) > 1) && (words * 2 >= filled(row) || !number(r.getFirst()));
        }

        TableShape shape() {
            int first = first();
            if (first < 0) {
                return new TableShape(-1, -1, -1, Math.max(1, width), new int[0], List.of());
            }
            int units = unitsRow(first);
            int header = headerRow(first, units);
            int group = header > 0 && grouped(header - 1, header) ? header - 1 : -1;
            var data = new Chosen();
            List<Table.Dropped> dropped = new ArrayList<>();
            int end = sumsFrom(first);
            boolean again = numbers(header) || numbers(units);
            for (RowList.Part part : rows.parts()) {
                int from = Math.max(first, part.first());
                if (!again && whole(part)) {
                    data.add(from, part.end());
                } else {
                    sort(part, from, header, units, end, data, dropped);
                }
            }
            return new TableShape(group, header, units, width, data.rows(), dropped);
        }

        /** Whether a row is one of numbers alone, so that other rows of numbers may be the same. */
        private boolean numbers(int row) {
            return row >= 0 && rows.get(row).stream().allMatch(s -> s.isEmpty() || Cells.loose(s));
        }

        /** Whether all rows of a part are data and are no other thing. */
        private boolean whole(RowList.Part part) {
            PlainRun run = run(part);
            return run != null && run.whole() && run.size() == width && numerics > 0 && !misplaced(run);
        }

        /** Whether its dates or times stand in a column of numbers. */
        private boolean misplaced(PlainRun run) {
            for (int c = 0; c < PlainRow.TIMES && c < width; c++) {
                if (numeric[c] && (run.times() >> c & 1) != 0) {
                    return true;
                }
            }
            return false;
        }

        /** Rows that are chosen, in their order. */
        private static final class Chosen {
            private int[] all = new int[16];
            private int n;

            void add(int from, int end) {
                int more = Math.max(0, end - from);
                if (all.length - n < more) {
                    all = Arrays.copyOf(all, Math.max(2 * all.length, n + more));
                }
                for (int i = from; i < end; i++) {
                    all[n++] = i;
                }
            }

            int[] rows() {
                return Arrays.copyOf(all, n);
            }
        }

        /** Tells the data among the rows of a part from what is none. */
        private void sort(
                RowList.Part part, int from, int header, int units, int end, Chosen data, List<Table.Dropped> dropped) {
            for (int i = from; i < part.end(); i++) {
                List<String> row = rows.get(i);
                String why = i >= end && sum(row)
                        ? "a sum at the end: " + brief(row)
                        : header >= 0 && row.equals(rows.get(header))
                                ? "the header again"
                                : units >= 0 && row.equals(rows.get(units)) ? "the units again" : why(row);
                if (why.isEmpty()) {
                    data.add(i, i + 1);
                } else {
                    dropped.add(new Table.Dropped(rows.line(i), why));
                }
            }
        }

        private int at(int line) {
            return line <= 0 ? -1 : rows.at(line);
        }

        private int unitsRow(int first) {
            if (recipe.lines().units() != 0) {
                return at(recipe.lines().units());
            }
            if (recipe.headers() >= 0) {
                return recipe.headers() == 2 && first >= 2 ? first - 1 : -1;
            }
            int header = at(recipe.lines().header());
            return first >= 2
                            && first - 1 != header
                            && units(first - 1)
                            && (header >= 0 || names(first - 2) && filled(first - 2) + 1 >= filled(first - 1))
                    ? first - 1
                    : -1;
        }

        private int headerRow(int first, int units) {
            if (recipe.lines().header() != 0) {
                return at(recipe.lines().header());
            }
            if (recipe.headers() >= 0) {
                return recipe.headers() == 0 || first == 0 ? -1 : first - (units >= 0 ? 2 : 1);
            }
            int above = units >= 0 && units < first ? units - 1 : first - 1;
            return above >= 0 && names(above) ? above : -1;
        }

        /** Whether two rows of names are one above the other: the upper tells apart what the lower leaves blank or repeats. */
        private boolean grouped(int upper, int lower) {
            if (rows.line(lower) - rows.line(upper) != 1 || recipe.headers() >= 0) {
                return false;
            }
            List<String> low = rows.get(lower);
            List<String> up = rows.get(upper);
            if (up.stream().anyMatch(this::number) || filled(upper) < 2 || up.size() > Math.max(width, low.size())) {
                return false;
            }
            boolean helps = low.size() < width && up.size() == width;
            for (int c = 0; c < low.size(); c++) {
                boolean blank =
                        low.get(c).isEmpty() && c < up.size() && !up.get(c).isEmpty();
                helps |= blank || !low.get(c).isEmpty() && low.indexOf(low.get(c)) != c;
            }
            return helps;
        }

        /** The row from which on there are only sums and what is no data. */
        private int sumsFrom(int first) {
            int end = rows.size();
            for (int i = rows.size() - 1; i > first + 1; i--) {
                List<String> row = rows.get(i);
                if (sum(row)) {
                    end = i;
                } else if (why(row).isEmpty()) {
                    break;
                }
            }
            return end;
        }

        private boolean sum(List<String> row) {
            String word = row.stream().filter(s -> !s.isEmpty()).findFirst().orElse("");
            String plain =
                    word.toLowerCase(Locale.ROOT).replaceAll("[:.=]+$", "").strip();
            return SUMS.contains(plain) && numbers(row) > 0;
        }
    }
}
