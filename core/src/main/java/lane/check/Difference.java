package lane.check;

import java.util.Arrays;
import lane.base.LaneException;
import lane.base.Sum;
import lane.reading.Profile;
import lane.station.CurveAxis;

/**
 * The difference of two curves, in SI units: value minus datum at the comparison points.
 *
 * @param abscissa comparison points: the datum's own, or the curve's where the datum is a formula
 * @param value difference at each
 * @param uncertainty of the datum or the curve at each, half-width, combined by root of squares; 0 where none is stated
 * @param weight the share of the overlap that each point stands for; their sum is 1
 * @param l1 mean magnitude
 * @param l2 root mean square
 * @param linf largest magnitude, {@code linfAt} its abscissa
 * @param bias mean
 * @param datumRange greatest minus least of the datum, {@code datumLargest} its largest magnitude and {@code datumMean}
 *     the mean of its magnitude, at the comparison points
 * @param overlapFrom and {@code overlapTo}: where both curves are known; neither is extrapolated
 * @param method how the curves met, for people
 */
public record Difference(
        double[] abscissa,
        double[] value,
        double[] uncertainty,
        double[] weight,
        double l1,
        double l2,
        double linf,
        double linfAt,
        double bias,
        double datumRange,
        double datumLargest,
        double datumMean,
        double overlapFrom,
        double overlapTo,
        String method) {

    /**
     * Compares two profiles. Resampling is piecewise linear (second order in the spacing); points where either side is
     * absent are left out.
     *
     * @throws LaneException when units differ in dimension, a curve goes back and forth, or there is no overlap
     */
    public static Difference of(Profile curve, Profile datum) {
        curve.unit().requireAlike(datum.unit(), "The comparison");
        if (!curve.abscissaUnit().comparable(datum.abscissaUnit())
                || !curve.abscissaName().equals(datum.abscissaName())) {
            throw new LaneException("One curve runs over " + curve.abscissaName() + ", the other over "
                    + datum.abscissaName() + "; give both one abscissa.");
        }
        boolean atCurve = datum.formula();
        Profile points = atCurve ? curve : datum;
        // At the same places value meets value, whichever way the abscissa goes there.
        Profile met = atCurve ? datum : curve;
        boolean paired = Arrays.equals(points.abscissa(), met.abscissa());
        Met other = paired
                ? new Met(met.value(), met.uncertainty(), met.upwards())
                : Sorted.of(met).at(points.abscissa());
        int n = points.size();
        double[] at = new double[n];
        double[] diff = new double[n];
        double[] half = new double[n];
        double[] base = new double[n];
        int[] from = new int[n];
        double[] down = points.uncertainty();
        double[] up = points.upwards();
        int m = 0;
        for (int i = 0; i < n; i++) {
            double x = points.abscissa()[i];
            double own = points.value()[i];
            double there = other.value[i];
            if (Double.isFinite(own) && Double.isFinite(there)) {
                at[m] = x;
                from[m] = i;
                diff[m] = atCurve ? own - there : there - own;
                base[m] = atCurve ? there : own;
                half[m] = Math.hypot(
                        uncertainty(there > own ? up : down, i), uncertainty(own > there ? other.up : other.down, i));
                m++;
            }
        }
        if (m == 0) {
            throw new LaneException(
                    "The two curves have no abscissa in common, so they cannot be compared; look at where each lies.");
        }
        String method = (atCurve
                ? "at the curve's points, datum is a formula"
                : "at the datum's points, curve resampled linearly");
        double[] weight =
                weights(Arrays.copyOf(at, m), from, !points.abscissaName().equals(CurveAxis.NUMBER));
        return measure(
                Arrays.copyOf(at, m),
                Arrays.copyOf(diff, m),
                Arrays.copyOf(half, m),
                Arrays.copyOf(base, m),
                weight,
                method + ", " + m + " of " + n);
    }

    /** The half-width on the side where the other curve lies. */
    private static double uncertainty(double[] half, int i) {
        return half.length == 0 || Double.isNaN(half[i]) ? 0 : half[i];
    }

    /**
     * The share of the overlap that each point stands for: half the way to either neighbour, so that a norm of a curve does
     * not depend on where it was sampled more closely (the trapezoidal rule, second order in the spacing). What lies between
     * two points that were left out, and points that only have numbers, weighs the same.
     *
     * @param from number of each point in the curve that it belongs to
     */
    static double[] weights(double[] at, int[] from, boolean length) {
        int n = at.length;
        double[] w = new double[n];
        double sum = 0;
        for (int i = 0; length && i + 1 < n; i++) {
            if (from[i + 1] == from[i] + 1) {
                double way = Math.abs(at[i + 1] - at[i]);
                w[i] += way / 2;
                w[i + 1] += way / 2;
                sum += way;
            }
        }
        for (int i = 0; i < n; i++) {
            w[i] = sum > 0 ? w[i] / sum : 1.0 / n;
        }
        return w;
    }

    private static Difference measure(
            double[] at, double[] diff, double[] half, double[] base, double[] weight, String method) {
        var l1 = new Sum();
        var l2 = new Sum();
        var bias = new Sum();
        var mean = new Sum();
        double linf = 0;
        double linfAt = at[0];
        double least = base[0];
        double greatest = base[0];
        double from = at[0];
        double to = at[0];
        for (int i = 0; i < at.length; i++) {
            double d = Math.abs(diff[i]);
            l1.add(weight[i] * d);
            l2.add(weight[i] * d * d);
            bias.add(weight[i] * diff[i]);
            mean.add(weight[i] * Math.abs(base[i]));
            if (d > linf) {
                linf = d;
                linfAt = at[i];
            }
            least = Math.min(least, base[i]);
            greatest = Math.max(greatest, base[i]);
            from = Math.min(from, at[i]);
            to = Math.max(to, at[i]);
        }
        return new Difference(
                at,
                diff,
                half,
                weight,
                l1.value(),
                Math.sqrt(l2.value()),
                linf,
                linfAt,
                bias.value(),
                greatest - least,
                Math.max(Math.abs(least), Math.abs(greatest)),
                mean.value(),
                from,
                to,
                method);
    }

    public double norm(Norm norm) {
        return switch (norm) {
            case L1 -> l1;
            case L2 -> l2;
            case LINF -> linf;
        };
    }

    /** The SI magnitude that relative differences refer to; 1 for absolute ones. */
    public double scale(Scale scale) {
        return switch (scale) {
            case ABSOLUTE -> 1;
            case RANGE -> datumRange;
            case LARGEST -> datumLargest;
            case MEAN -> datumMean;
        };
    }

    /**
     * The same norm of the pointwise uncertainty: what that uncertainty can add to the norm of the difference at most
     * (the triangle inequality holds for all three norms). Of the largest difference the place itself tells more: see
     * {@link #deciding}.
     */
    public double uncertaintyNorm(Norm norm) {
        double sum = 0;
        double largest = 0;
        for (int i = 0; i < uncertainty.length; i++) {
            double u = uncertainty[i];
            sum += weight[i] * (norm == Norm.L2 ? u * u : u);
            largest = Math.max(largest, u);
        }
        return switch (norm) {
            case L1 -> sum;
            case L2 -> Math.sqrt(sum);
            case LINF -> largest;
        };
    }

    /** The largest difference with its sign: positive where the curve is greater than the datum. */
    public double signed() {
        return value[largest()];
    }

    /** Where the largest difference is. */
    public int largest() {
        int at = 0;
        for (int i = 1; i < value.length; i++) {
            at = Math.abs(value[i]) > Math.abs(value[at]) ? i : at;
        }
        return at;
    }

    /** The point that decides whether all points keep a tolerance, each with its own uncertainty; see {@link Verdict#deciding}. */
    public int deciding(double allowed) {
        double[] size = new double[value.length];
        for (int i = 0; i < size.length; i++) {
            size[i] = Math.abs(value[i]);
        }
        return Verdict.deciding(size, uncertainty, allowed);
    }

    /** The other curve at each point: its value and its half-widths downwards and upwards. */
    private record Met(double[] value, double[] down, double[] up) {}

    /** A curve ordered by abscissa for piecewise linear lookup. */
    private record Sorted(double[] x, double[] y, double[] u, double[] above) {
        static Sorted of(Profile p) {
            int n = p.size();
            double[] x = p.abscissa();
            boolean up = true;
            boolean down = true;
            for (int i = 1; i < n; i++) {
                up &= x[i] >= x[i - 1];
                down &= x[i] <= x[i - 1];
            }
            if (!up && !down) {
                throw new LaneException("A curve goes back and forth along its " + p.abscissaName()
                        + ", so it has several values at one place; draw it against the distance along the line.");
            }
            double[] below = p.uncertainty();
            double[] above = p.upwards();
            double[] sx = new double[n];
            double[] sy = new double[n];
            double[] su = new double[n];
            double[] sv = new double[n];
            for (int i = 0; i < n; i++) {
                int k = up ? i : n - 1 - i;
                sx[i] = x[k];
                sy[i] = p.value()[k];
                su[i] = uncertainty(below, k);
                sv[i] = uncertainty(above, k);
            }
            return new Sorted(sx, sy, su, sv);
        }

        Met at(double[] places) {
            return new Met(lookup(places, y), lookup(places, u), lookup(places, above));
        }

        private double[] lookup(double[] places, double[] values) {
            return Arrays.stream(places).map(v -> lookup(v, values)).toArray();
        }

        private double lookup(double v, double[] values) {
            int n = x.length;
            // A point that misses the end by rounding only is at the end.
            double slack = n == 0 ? 0 : 1e-12 * Math.max(Math.abs(x[0]), Math.abs(x[n - 1]));
            if (n == 0 || !(v >= x[0] - slack && v <= x[n - 1] + slack)) {
                return Double.NaN;
            }
            int k = Arrays.binarySearch(x, v);
            if (k >= 0) {
                return values[k];
            }
            k = -k - 1;
            if (k == 0 || k == n) {
                return values[k == 0 ? 0 : n - 1];
            }
            double f = (v - x[k - 1]) / (x[k] - x[k - 1]);
            return (1 - f) * values[k - 1] + f * values[k];
        }
    }
}
