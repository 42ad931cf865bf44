package lane.history;

import java.util.Arrays;
import lane.base.LaneException;

/**
 * Values one after the other, along a time that only grows.
 *
 * @param along ascending times, or numbers of rows counted from 1
 * @param value as many
 * @param absent how many rows had no number
 * @param repeated how many rows were overwritten by later ones, where the time went back as after a restart
 */
public record Series(double[] along, double[] value, int absent, int repeated) {
    public int size() {
        return value.length;
    }

    /**
     * Rows that count, in the order of their times.
     *
     * @param timeless how many had no time
     * @param repeated how many were overwritten by later ones
     */
    public record Rows(int[] kept, int timeless, int repeated) {}

    /**
     * Which rows count. Where the time goes back, what was written last does: a run that was restarted goes over the same times
     * again. Where it only ever goes back, the rows stand the other way round.
     */
    public static Rows rows(double[] along) {
        boolean back = backwards(along);
        int[] kept = new int[along.length];
        int n = 0;
        int timeless = 0;
        int repeated = 0;
        for (int k = 0; k < along.length; k++) {
            int i = back ? along.length - 1 - k : k;
            if (!Double.isFinite(along[i])) {
                timeless++;
                continue;
            }
            while (n > 0 && along[kept[n - 1]] >= along[i]) {
                n--;
                repeated++;
            }
            kept[n++] = i;
        }
        return new Rows(Arrays.copyOf(kept, n), timeless, repeated);
    }

    /** By rows; those without a number are left out, the others keep their number. */
    public static Series ofRows(double[] value) {
        double[] rows = new double[value.length];
        Arrays.setAll(rows, i -> i + 1.0);
        return of(rows, value);
    }

    /**
     * Along times. Where the time goes back, what was written last counts: a run that was restarted goes over the same times again.
     * Where it only ever goes back, the rows stand the other way round.
     */
    public static Series of(double[] along, double[] value) {
        if (backwards(along)) {
            return of(reversed(along), reversed(value));
        }
        double[] t = new double[value.length];
        double[] v = new double[value.length];
        int n = 0;
        int absent = 0;
        int repeated = 0;
        for (int i = 0; i < value.length; i++) {
            if (!Double.isFinite(along[i]) || !Double.isFinite(value[i])) {
                absent++;
                continue;
            }
            while (n > 0 && t[n - 1] >= along[i]) {
                n--;
                repeated++;
            }
            t[n] = along[i];
            v[n] = value[i];
            n++;
        }
        return new Series(Arrays.copyOf(t, n), Arrays.copyOf(v, n), absent, repeated);
    }

    private static boolean backwards(double[] along) {
        double before = Double.NaN;
        boolean back = false;
        for (double t : along) {
            if (Double.isFinite(t)) {
                if (t >= before) {
                    return false;
                }
                back |= t < before;
                before = t;
            }
        }
        return back;
    }

    private static double[] reversed(double[] v) {
        double[] out = new double[v.length];
        Arrays.setAll(out, i -> v[v.length - 1 - i]);
        return out;
    }

    /**
     * The last part.
     *
     * @param share of what it reaches along, above 0 and at most 1
     */
    public Series last(double share) {
        if (!(share > 0 && share <= 1)) {
            throw new LaneException(
                    "A window is a share above 0 and at most 1, such as 0.2; it is " + share + " here.");
        }
        int n = size();
        if (n == 0) {
            return this;
        }
        // A time that is the window's beginning but for round-off is in it.
        double reach = along[n - 1] - along[0];
        double from = along[n - 1] - share * reach - 1e-9 * reach;
        int first = 0;
        while (along[first] < from) {
            first++;
        }
        return new Series(Arrays.copyOfRange(along, first, n), Arrays.copyOfRange(value, first, n), absent, repeated);
    }

    /** The part between two times, both in it. */
    public Series between(double from, double to) {
        int first = 0;
        while (first < size() && along[first] < from) {
            first++;
        }
        int end = size();
        while (end > first && along[end - 1] > to) {
            end--;
        }
        return new Series(
                Arrays.copyOfRange(along, first, end), Arrays.copyOfRange(value, first, end), absent, repeated);
    }

    /** How much of the time each value stands for: half of the way to its neighbours; at an end as far out as in. */
    public double[] weights() {
        int n = size();
        double[] w = new double[n];
        for (int i = 0; i < n; i++) {
            double before = i > 0 ? along[i] - along[i - 1] : Double.NaN;
            double after = i < n - 1 ? along[i + 1] - along[i] : Double.NaN;
            w[i] = n == 1 ? 1 : i == 0 ? after : i == n - 1 ? before : (before + after) / 2;
        }
        return w;
    }

    /** Whether steps differ by more than a tenth of the longest. */
    public boolean uneven() {
        double least = Double.POSITIVE_INFINITY;
        double greatest = 0;
        for (int i = 1; i < size(); i++) {
            least = Math.min(least, along[i] - along[i - 1]);
            greatest = Math.max(greatest, along[i] - along[i - 1]);
        }
        return least < 0.9 * greatest;
    }
}
