package lane.formats.table;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import lane.base.Parallel;
import org.jspecify.annotations.Nullable;

/**
 * The rows of plain numbers in a text, found on all cores.
 *
 * @param rows in order
 * @param rest the other lines, with a blank one where rows stood between them
 * @param places in the file of these lines, counted from 1; empty where they stand as they are
 */
record PlainRows(RowList rows, String rest, int[] places) {
    private static final int LOOKED_AT = 200;
    private static final int CELLS = 5000;
    /** Bytes of the first rows that tell how wide all are. */
    private static final int SOME = 1 << 15;

    /** Where no row is looked for. */
    static PlainRows none(TableText text) {
        return new PlainRows(new RowList(), text.text(), new int[0]);
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
            found[c] = new Chunk(text, begin[c], begin[c + 1], separator, mark, missing);
            found[c].lines(line[c], room);
        });
        var rows = new RowList();
        var rest = new Rest();
        for (Chunk chunk : found) {
            rows.addAll(chunk.rows);
            rest.addAll(chunk.rest);
        }
        int[] places = Arrays.stream(rest.lines, 0, rest.n)
                .map(at -> text.before() + at + 1)
                .toArray();
        return new PlainRows(rows, rest.bytes.toString(text.set()), places);
    }

    /** Where a line of the rest stands in the file; both counted from 1. */
    long place(long line) {
        return places.length == 0 ? line : places[(int) line - 1];
    }

    /** Lines that are no rows of plain numbers, and which they are. */
    private static final class Rest {
        final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        int[] lines = new int[16];
        int n;

        void add(byte[] text, int from, int to, int line) {
            apart(line);
            bytes.write(text, from, to - from);
            end(line);
        }

        /** A blank line stands for those between the last one and this one. */
        private void apart(int line) {
            if (line > 0 && (n == 0 || lines[n - 1] != line - 1)) {
                end(line - 1);
            }
        }

        private void end(int line) {
            bytes.write('\n');
            lines = n == lines.length ? Arrays.copyOf(lines, 2 * n) : lines;
            lines[n++] = line;
        }

        void addAll(Rest others) {
            // What it begins with, it knows nothing before.
            boolean follows = others.n > 0 && n > 0 && lines[n - 1] == others.lines[0];
            byte[] all = others.bytes.toByteArray();
            int from = follows ? 1 : 0;
            bytes.write(all, from, all.length - from);
            for (int i = from; i < others.n; i++) {
                lines = n == lines.length ? Arrays.copyOf(lines, 2 * n) : lines;
                lines[n++] = others.lines[i];
            }
        }
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
            int first = line[c];
            for (int at = begin[c]; at < begin[c + 1]; ) {
                // Some of them tell as much as all.
                int stop = Math.min(begin[c + 1], at + SOME);
                stop = Math.min(begin[c + 1], TableText.next(bytes, stop, begin[c + 1], '\n') + 1);
                var some = new Chunk(text, at, stop, separator, mark, missing);
                some.lines(first, null);
                if (!some.rows.isEmpty()) {
                    int width = some.rows.stream().mapToInt(List::size).max().orElse(0);
                    int all = line[line.length - 1] + (bytes[bytes.length - 1] == '\n' ? 0 : 1);
                    first = (int) some.rows.line(0) - 1 - text.before();
                    // Each cell but the first of a line takes a byte at least.
                    boolean fits = (long) width * (all - first) <= (long) bytes.length + all;
                    return fits ? new Room(columns(width, all - first), first) : null;
                }
                first += text.lineFeeds(at, stop);
                at = stop;
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
        /** How many lines were left out before all of them. */
        private final int before;

        private final int begin;
        private final int stop;
        private final char separator;
        private final char mark;
        private final double[] missing;
        private final Digits digits = new Digits();
        final RowList rows = new RowList();
        /** The run that the last line belongs to, with the line of its first row; null where it belongs to none. */
        private @Nullable PlainRun run;

        private int runs;
        private final PlainRun.Found places = new PlainRun.Found();
        final Rest rest = new Rest();

        private double[] values = new double[64];
        /** Rows on their way into the columns, one after the other; how many, and the line of the first. */
        private double[] held = {};

        private int holding;
        private int from;
        private int n;
        /** Cells up to the last in which something stands, and how many of all hold a number. */
        private int filled;

        private int numbers;
        /** Of the first cells those that hold a date or a time, a bit each. */
        private int times;

        private int sure;
        private int unsure;

        Chunk(TableText text, int begin, int stop, char separator, char mark, double[] missing) {
            bytes = text.bytes();
            before = text.before();
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
                    row(at, end, room, line);
                } else {
                    rest.add(bytes, at, end, line);
                }
                at = feed + 1;
            }
            finish();
            if (room != null) {
                put(room);
            }
        }

        private void row(int from, int to, @Nullable Room room, int line) {
            if (room != null && n <= room.columns.length) {
                hold(room, line);
                if (numbers + Integer.bitCount(times) == filled) {
                    PlainRun longer = run;
                    if (longer == null || line != runs + longer.rows() || !longer.takes(n, filled, times)) {
                        finish();
                        longer = new PlainRun(
                                bytes,
                                separator,
                                mark,
                                room.columns,
                                line - room.first,
                                n,
                                filled,
                                times,
                                places,
                                places.rows());
                        run = longer;
                        runs = line;
                    }
                    // Most likely the other lines are as long.
                    places.add(from, to, sure, unsure, (stop - from) / (to + 1 - from) + 8);
                    longer.add(sure, unsure);
                    return;
                }
            }
            finish();
            var as = new PlainRow.Written(bytes, from, to, separator, mark, numbers, times, sure, unsure);
            rows.add(single(as, room, line), before + line + 1L);
        }

        /** No more rows belong to the run of the last ones. */
        private void finish() {
            if (run != null) {
                rows.add(run, before + runs + 1L);
                run = null;
            }
        }

        private PlainRow single(PlainRow.Written as, @Nullable Room room, int line) {
            if (room != null && n <= room.columns.length) {
                return new PlainRow(as, room.columns, line - room.first, n);
            }
            double[][] own = new double[n][1];
            for (int c = 0; c < n; c++) {
                own[c][0] = values[c];
            }
            return new PlainRow(as, own, 0, n);
        }

        /** The numbers of a row are on their way into the columns. */
        private void hold(Room room, int line) {
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

        /** Reads a line; false where it is no row of plain numbers and blanks, before which dates and times may stand. */
        private boolean plain(int from, int to) {
            n = 0;
            filled = 0;
            sure = 0;
            unsure = 0;
            numbers = 0;
            times = 0;
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
                        end = other(end, to);
                        if (end < 0) {
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

        /** Takes a number of another kind, or a date or a time. Returns where the cell ends; -1 where it is neither. */
        private int other(int from, int to) {
            int surely = sure;
            int unsurely = unsure;
            int end = number(from, to);
            end = end < 0 ? end : blanks(end, to);
            if (end >= 0 && (end == to || bytes[end] == separator)) {
                put(digits.value());
                return end;
            }
            sure = surely;
            unsure = unsurely;
            end = from;
            while (end < to && bytes[end] != separator) {
                end++;
            }
            if (n >= PlainRow.TIMES
                    || end - from > TimeColumn.LONGEST
                    || !TimeColumn.is(new String(bytes, from, end - from, StandardCharsets.ISO_8859_1).strip())) {
                return -1;
            }
            times |= 1 << n;
            values[n++] = Double.NaN;
            filled = n;
            return end;
        }

        /** A number stands in the next cell, unless it stands for none. */
        private void put(double value) {
            for (double none : missing) {
                if (value == none) {
                    values[n++] = Double.NaN;
                    filled = n;
                    return;
                }
            }
            values[n++] = value;
            filled = n;
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
