package lane.formats.table;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.RandomAccess;
import org.jspecify.annotations.Nullable;

/**
 * Rows of cells and the lines they stand in: runs of plain ones, of which a log has millions and which are looked at together,
 * and single ones between them. Must not be changed while it is gone through.
 */
final class RowList extends AbstractList<List<String>> implements RandomAccess {
    /**
     * Some rows one after the other.
     *
     * @param first the row it begins with
     * @param rows how many
     * @param run they are; null for a single row
     * @param one the single row; empty for a run
     * @param line of the first, counted from 1
     */
    record Part(int first, int rows, @Nullable PlainRun run, List<String> one, long line) {
        int end() {
            return first + rows;
        }

        List<String> row(int i) {
            return run == null ? one : run.row(i - first);
        }
    }

    /**
     * Chosen rows that stand one after the other in a part.
     *
     * @param at the place of the first among the chosen ones
     * @param from the place of the first within the part
     */
    record Span(Part part, int at, int from, int rows) {
        int end() {
            return at + rows;
        }

        /** The line of a row by its place in the span. */
        long line(int r) {
            return part.line + from + r;
        }

        List<String> row(int r) {
            return part.row(part.first + from + r);
        }
    }

    private final List<Part> parts = new ArrayList<>();
    private int size;
    /** The part that was asked for last, where the next question most likely leads. */
    private int near;

    static RowList of(List<List<String>> rows, List<Long> lines) {
        var out = new RowList();
        for (int i = 0; i < rows.size(); i++) {
            out.add(rows.get(i), lines.get(i));
        }
        return out;
    }

    void add(List<String> row, long line) {
        parts.add(new Part(size, 1, null, row, line));
        size++;
    }

    /** @param line of its first row */
    void add(PlainRun run, long line) {
        parts.add(new Part(size, run.rows(), run, List.of(), line));
        size += run.rows();
    }

    void addAll(RowList others) {
        for (Part p : others.parts) {
            parts.add(new Part(size + p.first, p.rows, p.run, p.one, p.line));
        }
        size += others.size;
    }

    List<Part> parts() {
        return parts;
    }

    @Override
    public int size() {
        return size;
    }

    @Override
    public List<String> get(int i) {
        return part(i).row(i);
    }

    /** The line of a row. */
    long line(int i) {
        Part p = part(i);
        return p.line + i - p.first;
    }

    /** The row that stands in a line; -1 where none does. */
    int at(long line) {
        for (Part p : parts) {
            if (line >= p.line && line < p.line + p.rows) {
                return p.first + (int) (line - p.line);
            }
        }
        return -1;
    }

    private Part part(int i) {
        Objects.checkIndex(i, size);
        int k = near;
        if (k >= parts.size() || i < parts.get(k).first || i >= parts.get(k).end()) {
            k = ++k < parts.size()
                            && i >= parts.get(k).first
                            && i < parts.get(k).end()
                    ? k
                    : place(i);
            near = k;
        }
        return parts.get(k);
    }

    private int place(int i) {
        int low = 0;
        int high = parts.size() - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            if (parts.get(middle).first <= i) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** The rows of two lists, each in the order of its lines, in the order of all lines. */
    static RowList merged(RowList some, RowList others) {
        var out = new RowList();
        int s = 0;
        for (Part o : others.parts) {
            while (s < some.parts.size() && some.parts.get(s).line < o.line) {
                out.take(some.parts.get(s++));
            }
            out.take(o);
        }
        while (s < some.parts.size()) {
            out.take(some.parts.get(s++));
        }
        return out;
    }

    private void take(Part p) {
        parts.add(new Part(size, p.rows, p.run, p.one, p.line));
        size += p.rows;
    }

    /** Chosen rows, in their order, by what they are parts of. */
    List<Span> spans(int[] chosen) {
        List<Span> out = new ArrayList<>();
        for (int at = 0; at < chosen.length; ) {
            Part p = part(chosen[at]);
            int from = chosen[at];
            int n = 1;
            while (at + n < chosen.length && chosen[at + n] == from + n && from + n < p.end()) {
                n++;
            }
            out.add(new Span(p, at, from - p.first, n));
            at += n;
        }
        return out;
    }

    /** Without columns at the end that nothing stands in: many programs end each line with a separator. */
    RowList edged() {
        int width = 0;
        for (Part p : parts) {
            width = Math.max(width, p.run != null ? p.run.filled() : filled(p.one));
        }
        var out = new RowList();
        for (Part p : parts) {
            PlainRun run = p.run == null ? null : p.run.first(width);
            List<String> one = p.one.size() <= width
                    ? p.one
                    : p.one instanceof PlainRow plain ? plain.first(width) : p.one.subList(0, width);
            out.take(new Part(0, p.rows, run, one, p.line));
        }
        return out;
    }

    private static int filled(List<String> row) {
        if (row instanceof PlainRow p) {
            return p.filled();
        }
        int n = row.size();
        while (n > 0 && row.get(n - 1).isEmpty()) {
            n--;
        }
        return n;
    }
}
