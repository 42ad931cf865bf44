package lane.formats.table;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.List;
import java.util.RandomAccess;
import org.jspecify.annotations.Nullable;

/**
 * A row of plain numbers and blanks, whose numbers are known and whose words are made when somebody asks for them: what nearly
 * all rows of long tables are.
 */
final class PlainRow extends AbstractList<String> implements RandomAccess {
    private final String text;
    private final int from;
    private final int to;
    private final char separator;
    private final char mark;
    private final double[] values;
    private final int sure;
    private final int unsure;
    private String @Nullable [] words;

    /**
     * @param text of which it is the line from {@code from} to before {@code to}
     * @param mark the decimal one
     * @param values NaN where nothing stands; at least one number
     * @param sure how many have a mark that can only be the decimal one
     * @param unsure how many others have a mark
     */
    PlainRow(String text, int from, int to, char separator, char mark, double[] values, int sure, int unsure) {
        this.text = text;
        this.from = from;
        this.to = to;
        this.separator = separator;
        this.mark = mark;
        this.values = values;
        this.sure = sure;
        this.unsure = unsure;
    }

    /** The row where it is one and its numbers are numbers to these cells; else null. */
    static @Nullable PlainRow of(List<String> row, Cells cells) {
        return row instanceof PlainRow p
                        && cells.named().isEmpty()
                        && (p.sure + p.unsure == 0 || cells.comma() == (p.mark == ','))
                ? p
                : null;
    }

    @Override
    public int size() {
        return values.length;
    }

    /** The words of a cell, without blanks around them. */
    @Override
    public String get(int cell) {
        java.util.Objects.checkIndex(cell, values.length);
        // Rows are compared by their first cells, and few are asked for more.
        if (cell == 0) {
            return word(begin(from));
        }
        String[] known = words;
        if (known == null) {
            known = new String[values.length];
            int at = begin(from);
            for (int i = 0; i < known.length; i++) {
                known[i] = word(at);
                at = begin(end(at) + 1);
            }
            words = known;
        }
        return known[cell];
    }

    private String word(int at) {
        return at >= to ? "" : text.substring(at, end(at)).strip();
    }

    private int begin(int at) {
        return separator == ' ' ? skip(at) : at;
    }

    private int skip(int at) {
        int i = at;
        while (i < to && text.charAt(i) == ' ') {
            i++;
        }
        return i;
    }

    private int end(int at) {
        int end = text.indexOf(separator, Math.min(at, to), to);
        return end < 0 ? to : end;
    }

    /** The number of a cell; NaN where nothing stands. */
    double value(int cell) {
        return values[cell];
    }

    boolean isNumber(int cell) {
        return !Double.isNaN(values[cell]);
    }

    /** How many cells there are up to the last in which something stands. */
    int filled() {
        int n = values.length;
        while (n > 0 && Double.isNaN(values[n - 1])) {
            n--;
        }
        return n;
    }

    /** Without what stands behind so many cells, which is nothing. */
    PlainRow first(int cells) {
        return new PlainRow(text, from, to, separator, mark, Arrays.copyOf(values, cells), sure, unsure);
    }

    /** How many cells tell that the comma is the decimal mark, less those that tell that the point is. */
    int commas() {
        return mark == ',' ? sure : -sure;
    }

    /** Whether a cell has a mark that need not be the decimal one. */
    boolean unsure() {
        return unsure > 0;
    }
}
