package lane.reference;

import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lane.history.Series;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** What the columns of logs stand along, found once for all columns of a log. */
public final class Clocks {
    /**
     * Times in the order in which they count.
     *
     * @param times of the rows that count, in SI units; shared, must not change
     * @param rows none of them named where these are all rows, as they stand
     * @param whole whether they are
     */
    record Clock(double[] times, Series.Rows rows, boolean whole) {
        /** The values of the rows that count; the same array where these are all of them. */
        double[] of(double[] all) {
            if (whole) {
                return all;
            }
            int[] kept = rows.kept();
            double[] out = new double[kept.length];
            for (int i = 0; i < kept.length; i++) {
                out[i] = all[kept[i]];
            }
            return out;
        }
    }

    private final Map<Times, double[]> alike = new ConcurrentHashMap<>();
    private final IdentityHashMap<double[], Map<Unit, Clock>> known = new IdentityHashMap<>();

    /** @param column of a table, by which it is known: it must not change */
    Clock of(double[] column, Unit unit) {
        Map<Unit, Clock> in;
        synchronized (known) {
            in = known.computeIfAbsent(column, c -> new ConcurrentHashMap<>());
        }
        return in.computeIfAbsent(unit, u -> clock(u.toSi(column)));
    }

    private Clock clock(double[] along) {
        Series.Rows rows = Series.rows(along);
        int[] kept = rows.kept();
        boolean whole = kept.length == along.length;
        for (int i = 0; whole && i < kept.length; i++) {
            whole = kept[i] == i;
        }
        if (whole) {
            return new Clock(shared(along), new Series.Rows(new int[0], rows.timeless(), rows.repeated()), true);
        }
        return new Clock(shared(new Clock(along, rows, false).of(along)), rows, false);
    }

    /** Logs of many runs mostly have the same times: these are held once, and known to be the same at a glance. */
    private double[] shared(double[] times) {
        return alike.computeIfAbsent(new Times(times, Arrays.hashCode(times)), k -> times);
    }

    private record Times(double[] times, int hash) {
        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Times t && t.hash == hash && Arrays.equals(t.times, times);
        }

        @Override
        public int hashCode() {
            return hash;
        }
    }
}
