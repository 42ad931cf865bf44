package lane.formats.table;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import lane.base.Parallel;
import org.jspecify.annotations.Nullable;

/**
 * The rows of plain numbers in a text, found on all cores.
 *
 * @param rows in order
 * @param lines of each, counted from 1
 * @param rest the text with blank lines in their places
 */
record PlainRows(List<PlainRow> rows, List<Long> lines, String rest) {
    private static final int LOOKED_AT = 200;
    private static final int CELLS = 5000;

    /** Where no row is looked for. */
    static PlainRows none(TableText text) {
        return new PlainRows(List.of(), List.of(), text.text());
    }

    /**
     * @param head the first lines, with no comment that does not begin with a #
     * @param missing numbers that stand for a missing value
     */
    static PlainRows of(TableText text, char separator, String head, double[] missing) {
        int[] begin = text.chunks();
        int n = begin.length - 1;
        var quoted = new boolean[n];
        var line = new int[n + 1];
        Parallel.forBlocks(n, 1, (c, a, b) -> {
            quoted[c] = text.quotedOver(begin[c], begin[c + 1]);
            line[c + 1] = text.lineFeeds(begin[c], begin[c + 1]);
        });
        boolean over = separator == '|';
        for (int c = 0; c < n; c++) {
            over |= quoted[c];
            line[c + 1] += line[c];
        }
        // Within quotation marks a line may end, and rows between bars have rules of their own.
        if (over) {
            return none(text);
        }
        char mark = separator != ',' && commas(head.lines(), separator) > 0 ? ',' : '.';
        Room room = room(text, begin, line, separator, mark, missing);
        var found = new Chunk[n];
        Parallel.forBlocks(n, 1, (c, a, b) -> {
            found[c] = new Chunk(text.bytes(), begin[c], begin[c + 1], separator, mark, missing);
            found[c].lines(line[c], room);
        });
        List<PlainRow> rows = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        var rest = new ByteArrayOutputStream();
        for (Chunk chunk : found) {
            rows.addAll(chunk.rows);
            for (int at : chunk.places) {
                lines.add((long) text.before() + at + 1);
            }
            rest.writeBytes(chunk.rest.toByteArray());
        }
        return new PlainRows(rows, lines, "\n".repeat(text.before()) + rest.toString(text.set()));
    }

    /** Puts the rows among others in the order of their lines. */
    void into(List<List<String>> others, List<Long> theirs) {
        if (rows.isEmpty()) {
            return;
        }
        var all = new ArrayList<List<String>>(rows.size() + others.size());
        var places = new ArrayList<Long>(rows.size() + others.size());
        int r = 0;
        for (int o = 0; o <= others.size(); o++) {
            long until = o < others.size() ? theirs.get(o) : Long.MAX_VALUE;
            while (r < rows.size() && lines.get(r) < until) {
                all.add(rows.get(r));
                places.add(lines.get(r++));
            }
            if (o < others.size()) {
                all.add(others.get(o));
                places.add(theirs.get(o));
            }
        }
        others.clear();
        others.addAll(all);
        theirs.clear();
        theirs.addAll(places);
    }

    private static int commas(Stream<String> lines, char separator) {
        return lines.filter(l -> !l.isBlank() && !l.startsWith("#"))
                .limit(LOOKED_AT)
                .flatMap(l -> Marks.split(l, separator).stream())
                .limit(CELLS)
                .mapToInt(s -> switch (Cells.mark(s.strip())) {
                    case COMMA -> 1;
                    case POINT -> -1;
                    case NONE, EITHER -> 0;
                })
                .sum();
    }

    /**
     * Columns in which the numbers of a line find their place, whoever reads it.
     *
     * @param first the line that stands first in them
     */
    private record Room(double[][] columns, int first) {}

    /** From the first row on, as wide as the first ones; null where these tell nothing of the others. */
    private static @Nullable Room room(
            TableText text, int[] begin, int[] line, char separator, char mark, double[] missing) {
        byte[] bytes = text.bytes();
        for (int c = 0; c < begin.length - 1; c++) {
            var some = new Chunk(bytes, begin[c], begin[c + 1], separator, mark, missing);
            some.lines(line[c], null);
            if (!some.rows.isEmpty()) {
                int width = some.rows.stream().mapToInt(PlainRow::size).max().orElse(0);
                int all = line[line.length - 1] + (bytes[bytes.length - 1] == '\n' ? 0 : 1);
                int first = some.places.getFirst();
                // Each cell but the first of a line takes a byte at least.
                boolean fits = (long) width * (all - first) <= (long) bytes.length + all;
                return fits ? new Room(columns(width, all - first), first) : null;
            }
        }
        return null;
    }

    private static double[][] columns(int width, int rows) {
        double[][] columns = new double[width][];
        Parallel.forBlocks(width, 1, (b, c, end) -> columns[c] = new double[rows]);
        return columns;
    }

    /** What is found in some lines by one thread. */
    private static final class Chunk {
        private static final int HELD = 16;
        /** Digits that are a double however they are put together. */
        private static final int FEW = 15;

        private final byte[] bytes;
        private final int begin;
        private final int stop;
        private final char separator;
        private final char mark;
        private final double[] missing;
        private final Digits digits = new Digits();
        final List<PlainRow> rows = new ArrayList<>();
        /** The line of each. */
        final List<Integer> places = new ArrayList<>();

        final ByteArrayOutputStream rest = new ByteArrayOutputStream();

        private double[] values = new double[64];
        /** Rows on their way into the columns, one after the other; how many, and the line of the first. */
        private double[] held = {};

        private int holding;
        private int from;
        private int n;
        private int numbers;
        private int sure;
        private int unsure;

        Chunk(byte[] bytes, int begin, int stop, char separator, char mark, double[] missing) {
            this.bytes = bytes;
            this.begin = begin;
            this.stop = stop;
            this.separator = separator;
            this.mark = mark;
            this.missing = missing;
        }

        /** @param first how many lines stand before */
        void lines(int first, @Nullable Room room) {
            int line = first;
            for (int at = begin; at < stop; line++) {
                int feed = TableText.next(bytes, at, stop, '\n');
                int end = feed > at && bytes[feed - 1] == '\r' ? feed - 1 : feed;
                if (plain(at, end)) {
                    var as = new PlainRow.Written(bytes, at, end, separator, mark, numbers, sure, unsure);
                    rows.add(row(as, room, line));
                    places.add(line);
                } else {
                    rest.write(bytes, at, end - at);
                }
                if (feed < stop) {
                    rest.write('\n');
                }
                at = feed + 1;
            }
            if (room != null) {
                put(room);
            }
        }

        private PlainRow row(PlainRow.Written as, @Nullable Room room, int line) {
            if (room == null || n > room.columns.length) {
                double[][] own = new double[n][1];
                for (int c = 0; c < n; c++) {
                    own[c][0] = values[c];
                }
                return new PlainRow(as, own, 0, n);
            }
            int width = room.columns.length;
            if (held.length == 0) {
                held = new double[HELD * width];
            }
            if (holding == HELD || holding > 0 && from + holding != line) {
                put(room);
            }
            from = holding == 0 ? line : from;
            int to = holding++ * width;
            System.arraycopy(values, 0, held, to, n);
            Arrays.fill(held, to + n, to + width, Double.NaN);
            return new PlainRow(as, room.columns, line - room.first, n);
        }

        /** Puts the rows that are held into the columns: in each some that stand side by side, so that memory is gone through once. */
        private void put(Room room) {
            int width = room.columns.length;
            for (int c = 0; c < width; c++) {
                double[] column = room.columns[c];
                for (int k = 0; k < holding; k++) {
                    column[from - room.first + k] = held[k * width + c];
                }
            }
            holding = 0;
        }

        /** Reads a line; false where it is no row of plain numbers and blanks. */
        private boolean plain(int from, int to) {
            n = 0;
            sure = 0;
            unsure = 0;
            numbers = 0;
            int at = separator == ' ' ? skip(from, to) : from;
            while (at <= to) {
                if (n == values.length) {
                    values = Arrays.copyOf(values, 2 * n);
                }
                int end = simple(at, to);
                if (end < 0) {
                    end = blanks(at, to);
                    if (end == to || bytes[end] == separator) {
                        values[n++] = Double.NaN;
                    } else {
                        end = number(end, to);
                        if (end < 0) {
                            return false;
                        }
                        put(digits.value());
                        end = blanks(end, to);
                        if (end < to && bytes[end] != separator) {
                            return false;
                        }
                    }
                }
                at = separator == ' ' && end < to ? skip(end, to) : end + 1;
            }
            return numbers > 0;
        }

        /**
         * Takes the next number where it is one of few digits without an exponent, up to a separator or the end of the line: most
         * are. Returns where it ends; -1 for another, of which nothing was taken.
         */
        private int simple(int from, int to) {
            byte[] s = bytes;
            int first = from < to && s[from] == '-' ? from + 1 : from;
            long all = 0;
            int i = first;
            int d;
            while (i < to && (d = s[i] - '0') >= 0 && d <= 9) {
                all = 10 * all + d;
                i++;
            }
            int whole = i - first;
            int part = 0;
            boolean zeros = all == 0;
            if (whole > 0 && i < to && s[i] == mark) {
                int behind = ++i;
                while (i < to && (d = s[i] - '0') >= 0 && d <= 9) {
                    all = 10 * all + d;
                    i++;
                }
                part = i - behind;
                if (part == 0) {
                    return -1;
                }
            }
            if (whole == 0 || whole + part > FEW || i < to && s[i] != separator) {
                return -1;
            }
            // A quotient of two numbers that are doubles is rounded once.
            double value = part == 0 ? all : all / Digits.ten(part);
            put(first > from ? -value : value);
            boolean group = part == 3 && whole < 4 && !zeros;
            sure += part > 0 && !group ? 1 : 0;
            unsure += group ? 1 : 0;
            return i;
        }

        /** A number stands in the next cell, unless it stands for none. */
        private void put(double value) {
            for (double none : missing) {
                if (value == none) {
                    values[n++] = Double.NaN;
                    return;
                }
            }
            values[n++] = value;
            numbers++;
        }

        /**
         * Of commas those are plain that are the decimal mark or may part thousands, which is found out later. Returns where it
         * ends; -1 where it is none.
         */
        private int number(int from, int to) {
            int end = digits.take(bytes, from, to, mark);
            if (end < 0) {
                return -1;
            }
            boolean surely = digits.surelyDecimal();
            sure += surely ? 1 : 0;
            unsure += !surely && digits.marked() ? 1 : 0;
            return surely || !digits.marked() || mark == '.' || digits.group() ? end : -1;
        }

        /** Behind blanks that part nothing. */
        private int blanks(int from, int to) {
            int i = from;
            while (i < to && (bytes[i] == ' ' || bytes[i] == '\t') && bytes[i] != separator) {
                i++;
            }
            return i;
        }

        private int skip(int from, int to) {
            int i = from;
            while (i < to && bytes[i] == ' ') {
                i++;
            }
            return i;
        }
    }
}
