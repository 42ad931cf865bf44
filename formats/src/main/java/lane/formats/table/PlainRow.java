package lane.formats.table;

import java.nio.charset.StandardCharsets;
import java.util.AbstractList;
import java.util.List;
import java.util.Objects;
import java.util.RandomAccess;
import org.jspecify.annotations.Nullable;

/**
 * A row of plain numbers, marks for missing values that are such, blanks, and dates or times before them, whose numbers stand in columns already and whose words are made when somebody asks for them:
 * what nearly all rows of long tables are.
 */
final class PlainRow extends AbstractList<String> implements RandomAccess {
    /**
     * A row as it is written.
     *
     * @param bytes of which it is the line from {@code from} to before {@code to}
     * @param mark the decimal one
     * @param numbers how many cells hold one, at least one of them
     * @param times of the first cells those that hold a date or a time, a bit each
     * @param sure how many have a mark that can only be the decimal one
     * @param unsure how many others have a mark
     */
    record Written(
            byte[] bytes, int from, int to, char separator, char mark, int numbers, int times, int sure, int unsure) {}

    /** Dates and times stand within so many cells, if at all. */
    static final int TIMES = 4;

    private final Written as;
    /** The numbers of many rows, column by column; NaN where none stands. */
    private final double[][] columns;
    /** Its place in these. */
    private final int place;

    private final int size;
    private String @Nullable [] words;

    PlainRow(Written as, double[][] columns, int place, int size) {
        this.as = as;
        this.columns = columns;
        this.place = place;
        this.size = size;
    }

    /** The row where it is one and its numbers are numbers to these cells, which miss what it was read to miss; else null. */
    static @Nullable PlainRow of(List<String> row, Cells cells) {
        return row instanceof PlainRow p && (p.as.sure + p.as.unsure == 0 || cells.comma() == (p.as.mark == ','))
                ? p
                : null;
    }

    double[][] columns() {
        return columns;
    }

    int place() {
        return place;
    }

    @Override
    public int size() {
        return size;
    }

    /** The words of a cell, without blanks around them. */
    @Override
    public String get(int cell) {
        Objects.checkIndex(cell, size);
        // Rows are compared by their first cells, and few are asked for more.
        if (cell < TIMES) {
            int at = begin(as.from);
            for (int i = 0; i < cell; i++) {
                at = begin(end(at) + 1);
            }
            return word(at);
        }
        String[] known = words;
        if (known == null) {
            known = new String[size];
            int at = begin(as.from);
            for (int i = 0; i < known.length; i++) {
                known[i] = word(at);
                at = begin(end(at) + 1);
            }
            words = known;
        }
        return known[cell];
    }

    private String word(int at) {
        return at >= as.to ? "" : new String(as.bytes, at, end(at) - at, StandardCharsets.ISO_8859_1).strip();
    }

    private int begin(int at) {
        return as.separator == ' ' ? skip(at) : at;
    }

    private int skip(int at) {
        int i = at;
        while (i < as.to && as.bytes[i] == ' ') {
            i++;
        }
        return i;
    }

    private int end(int at) {
        int end = Math.min(at, as.to);
        while (end < as.to && as.bytes[end] != as.separator) {
            end++;
        }
        return end;
    }

    /** The number of a cell; NaN where nothing stands. */
    double value(int cell) {
        return columns[cell][place];
    }

    /** Whether a cell holds a date or a time, for which no number stands yet. */
    boolean isTime(int cell) {
        return cell < TIMES && (as.times >> cell & 1) != 0;
    }

    int times() {
        return as.times;
    }

    boolean isNumber(int cell) {
        return !Double.isNaN(value(cell));
    }

    /** Whether each cell holds a number. */
    boolean whole() {
        return as.numbers == size;
    }

    /** How many cells there are up to the last in which something stands. */
    int filled() {
        int n = size;
        while (n > 0 && !isNumber(n - 1) && get(n - 1).isEmpty()) {
            n--;
        }
        return n;
    }

    /** Without what stands behind so many cells, which is nothing. */
    PlainRow first(int cells) {
        return new PlainRow(as, columns, place, cells);
    }

    /** How many cells tell that the comma is the decimal mark, less those that tell that the point is. */
    int commas() {
        return as.mark == ',' ? as.sure : -as.sure;
    }

    /** Whether a cell has a comma that may be the decimal mark or one between thousands. */
    boolean either() {
        return as.mark == ',' && unsure();
    }

    /** Whether a cell has a mark that need not be the decimal one. */
    boolean unsure() {
        return as.unsure > 0;
    }
}
