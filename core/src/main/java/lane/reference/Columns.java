package lane.reference;

import java.util.AbstractList;
import java.util.List;
import java.util.RandomAccess;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.IntFunction;
import lane.base.Sized;
import lane.reading.Samples;

/**
 * Columns of a table whose numbers are looked up when somebody asks for them, as of a log with a thousand columns mostly nobody
 * does; how many numbers each has and which is the least is known before. Thread-safe.
 */
public final class Columns extends AbstractList<double[]> implements RandomAccess, Sized {
    private final int rows;
    private final List<Samples.Ends> ends;
    private final IntFunction<double[]> read;
    private final AtomicReferenceArray<double[]> held;

    /**
     * @param rows of each
     * @param ends one a column
     * @param read gives a column, the same numbers each time
     */
    public Columns(int rows, List<Samples.Ends> ends, IntFunction<double[]> read) {
        this.rows = rows;
        this.ends = List.copyOf(ends);
        this.read = read;
        held = new AtomicReferenceArray<>(ends.size());
    }

    @Override
    public double[] get(int i) {
        double[] there = held.get(i);
        if (there == null) {
            // By the array itself it is known what was found about it: who comes second takes that of the first.
            held.compareAndSet(i, null, read.apply(i));
            there = held.get(i);
        }
        return there;
    }

    @Override
    public int size() {
        return ends.size();
    }

    int rows() {
        return rows;
    }

    Samples.Ends ends(int i) {
        return ends.get(i);
    }

    /** What they take when all of them were looked at. */
    @Override
    public long bytes() {
        return (long) Double.BYTES * rows * ends.size();
    }
}
