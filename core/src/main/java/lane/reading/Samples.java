package lane.reading;

import java.util.function.Supplier;
import lane.base.Sized;
import org.jspecify.annotations.Nullable;

/**
 * The values of a curve in SI units: there, or made when somebody looks at them, as of a log with a thousand columns mostly
 * nobody does. How many there are and which is the least is known in any case. Thread-safe.
 */
public final class Samples implements Sized {
    private final int size;
    private final @Nullable Ends ends;
    private final Supplier<double[]> make;
    private volatile double @Nullable [] held;

    /**
     * Where the least and the greatest of them stand, and what they are.
     *
     * @param least NaN where there is none
     */
    public record Ends(Extremes places, double least, double greatest) {
        public static Ends of(double[] values) {
            Extremes at = Extremes.of(values);
            return new Ends(
                    at,
                    at.least() < 0 ? Double.NaN : values[at.least()],
                    at.least() < 0 ? Double.NaN : values[at.greatest()]);
        }
    }

    private Samples(int size, @Nullable Ends ends, double @Nullable [] held, Supplier<double[]> make) {
        this.size = size;
        this.ends = ends;
        this.held = held;
        this.make = make;
    }

    /** @param values NaN where absent; shared, must not change */
    public static Samples of(double[] values) {
        return new Samples(values.length, null, values, () -> values);
    }

    /**
     * @param ends as they would be found
     * @param make gives them, the same each time
     */
    public static Samples later(int size, Ends ends, Supplier<double[]> make) {
        return new Samples(size, ends, null, make);
    }

    public double[] now() {
        double[] known = held;
        if (known == null) {
            synchronized (this) {
                known = held;
                if (known == null) {
                    known = make.get();
                    held = known;
                }
            }
        }
        return known;
    }

    public int size() {
        return size;
    }

    public Ends ends() {
        return ends == null ? Ends.of(now()) : ends;
    }

    /** What they take when they are there. */
    @Override
    public long bytes() {
        return (long) Double.BYTES * size;
    }
}
