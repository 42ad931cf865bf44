package lane.formats.table;

import java.util.Arrays;

/**
 * Rows of plain numbers in consecutive lines, each with as many numbers from its first cell on, or behind dates and times, and
 * nothing behind them: what nearly all rows of long logs are. A row of its own is made of one only when somebody looks at it.
 */
final class PlainRun {
    /** Where rows stand that were found one after the other, and what their marks tell. */
    static final class Found {
        private static final int EACH = 4;

        /** Of each row where it begins and ends, how many cells have a mark that can only be the decimal one, and how many another. */
        private int[] each = {};

        private int n;

        int rows() {
            return n;
        }

        /** @param likely how many there are going to be, for the first */
        void add(int from, int to, int surely, int unsurely, int likely) {
            if (EACH * n == each.length) {
                each = Arrays.copyOf(each, n == 0 ? EACH * Math.max(1, likely) : 2 * each.length);
            }
            int at = EACH * n++;
            each[at] = from;
            each[at + 1] = to;
            each[at + 2] = surely;
            each[at + 3] = unsurely;
        }
    }

    private final byte[] bytes;
    private final char separator;
    private final char mark;
    /** The numbers of many rows, column by column. */
    private final double[][] columns;
    /** The place of the first row in these. */
    private final int place;
    /** Cells of each row, how many of them hold something, and which of the first hold a date or a time. */
    private final int size;

    private final int filled;
    private final int times;
    private final Found found;
    /** The place of the first row among these. */
    private final int start;

    private int rows;
    private long sure;
    private long unsure;

    /**
     * @param found where rows stand
     * @param start the place of its first one among these
     */
    PlainRun(
            byte[] bytes,
            char separator,
            char mark,
            double[][] columns,
            int place,
            int size,
            int filled,
            int times,
            Found found,
            int start) {
        this.bytes = bytes;
        this.separator = separator;
        this.mark = mark;
        this.columns = columns;
        this.place = place;
        this.size = size;
        this.filled = filled;
        this.times = times;
        this.found = found;
        this.start = start;
    }

    /** The row that was found last is its next one. */
    void add(int surely, int unsurely) {
        rows++;
        sure += surely;
        unsure += unsurely;
    }

    /** Whether a row belongs to it that stands in the next line. */
    boolean takes(int cells, int held, int asTimes) {
        return cells == size && held == filled && asTimes == times;
    }

    int rows() {
        return rows;
    }

    int size() {
        return size;
    }

    int filled() {
        return filled;
    }

    /** Of the first cells those that hold a date or a time, a bit each. */
    int times() {
        return times;
    }

    /** Whether each cell holds a number, a date or a time. */
    boolean whole() {
        return filled == size;
    }

    /** Without what stands behind so many cells, which is nothing. */
    PlainRun first(int cells) {
        if (size <= cells) {
            return this;
        }
        var out = new PlainRun(bytes, separator, mark, columns, place, cells, filled, times, found, start);
        out.rows = rows;
        out.sure = sure;
        out.unsure = unsure;
        return out;
    }

    PlainRow row(int k) {
        int[] each = found.each;
        int at = Found.EACH * (start + k);
        var as = new PlainRow.Written(
                bytes,
                each[at],
                each[at + 1],
                separator,
                mark,
                filled - Integer.bitCount(times),
                times,
                each[at + 2],
                each[at + 3]);
        return new PlainRow(as, columns, place + k, size);
    }

    /** Whether its numbers are numbers to these cells, which miss what it was read to miss. */
    boolean of(Cells cells) {
        return sure + unsure == 0 || cells.comma() == (mark == ',');
    }

    /** How many cells tell that the comma is the decimal mark, less those that tell that the point is. */
    long commas() {
        return mark == ',' ? sure : -sure;
    }

    /** Whether a cell has a comma that may be the decimal mark or one between thousands. */
    boolean either() {
        return mark == ',' && unsure();
    }

    /** Whether a cell has a mark that need not be the decimal one. */
    boolean unsure() {
        return unsure > 0;
    }

    /** The columns its numbers stand in. */
    double[][] columns() {
        return columns;
    }

    /** The place of a row in these. */
    int place(int k) {
        return place + k;
    }
}
