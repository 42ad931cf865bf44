package lane.check;

import java.util.Arrays;
import java.util.List;
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
 * @param datum the datum at each
 * @param weight the share of the overlap that each point stands for; their sum is 1
 * @param l1 mean magnitude
 * @param l2 root mean square
 * @param linf largest magnitude, {@code linfAt} its abscissa
 * @param bias mean
 * @param datumRange greatest minus least of the datum, {@code datumLargest} its largest magnitude and {@code datumMean}
 *     the mean of its magnitude, at the comparison points
 * @param overlapFrom and {@code overlapTo}: where both curves are known; neither is extrapolated
 * @param correlation of curve and datum; NaN where one of them does not vary
 * @param inside share of the points whose difference lies inside the datum's own uncertainty; NaN where none is stated
 * @param method how the curves met, for people
 */
public record Difference(
        double[] abscissa,
        double[] value,
        double[] uncertainty,
        double[] datum,
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
        double correlation,
        double inside,
        String method) {

    /** More turns than this are scatter of the abscissa, not branches. */
    private static final int BRANCHES = 8;

    /** Compares two profiles as is usual: see {@link Meeting#USUAL}. */
    public static Difference of(Profile curve, Profile datum) {
        return of(curve, datum, Meeting.USUAL);
    }

    /**
     * Compares two profiles. Points where either side is absent are left out; neither is extrapolated. Curves that turn back are compared
     * branch by branch: each of one with that of the other that lies next to it.
     *
     * @throws LaneException when units differ in dimension, a curve goes back and forth too often, or there is no overlap
     */
    public static Difference of(Profile curve, Profile datum, Meeting how) {
        curve.unit().requireAlike(datum.unit(), "The comparison");
        if (!how.align().normalise()
                && (!curve.abscissaUnit().comparable(datum.abscissaUnit())
                        || !curve.abscissaName().equals(datum.abscissaName()))) {
            throw new LaneException("One curve runs over " + curve.abscissaName() + ", the other over "
                    + datum.abscissaName() + "; give both one abscissa, or normalise both.");
        }
        if (how.align().none()) {
            return met(curve, datum, how, "");
        }
        return Aligning.met(curve, datum, how);
    }

    /** @param aligned what was done to the abscissa, for people */
    static Difference met(Profile curve, Profile datum, Meeting how, String aligned) {
        boolean atCurve = how.at() == Meeting.At.CURVE || how.at() == Meeting.At.DATUM && datum.formula();
        Profile points = atCurve ? curve : datum;
        // At the same places value meets value, whichever way the abscissa goes there.
        Profile met = atCurve ? datum : curve;
        var found = new Found(atCurve);
        int[] branches = {1};
        if (how.at() == Meeting.At.EVEN) {
            even(curve, datum, how, found);
        } else if (Arrays.equals(points.abscissa(), met.abscissa())) {
            var same = new Branch.Met(met.value(), met.uncertainty(), met.upwards());
            found.add(points, 0, points.size(), same);
        } else {
            List<Branch> own = branches(points);
            List<Branch> others = branches(met);
            branches[0] = Math.max(own.size(), others.size());
            for (Branch b : own) {
                nearest(points, b, others, how).ifPresent(m -> found.add(points, b.from(), b.to(), m));
            }
        }
        if (found.m == 0) {
            throw new LaneException(
                    "The two curves have no abscissa in common, so they cannot be compared; look at where each lies.");
        }
        String other = how.resampling().word();
        String method = how.at() == Meeting.At.EVEN
                ? "at " + how.samples() + " even points of what is common, both resampled " + other
                : atCurve
                        ? datum.formula()
                                ? "at the curve's points, datum is a formula"
                                : "at the curve's points, datum resampled " + other
                        : "at the datum's points, curve resampled " + other;
        method +=
                (branches[0] > 1 ? ", " + branches[0] + " branches" : "") + aligned + ", " + found.m + " of " + found.n;
        boolean length = how.weighting() == Meeting.Weighting.LENGTH
                && !points.abscissaName().equals(CurveAxis.NUMBER);
        return found.measure(
                length, how.weighting() == Meeting.Weighting.SAMPLES ? method + ", each counting the same" : method);
    }

    private static void even(Profile curve, Profile datum, Meeting how, Found found) {
        List<Branch> one = branches(curve);
        List<Branch> two = branches(datum);
        if (one.size() > 1 || two.size() > 1) {
            throw new LaneException(
                    "Even points are those of curves that do not turn back; compare at the datum's points.");
        }
        if (one.isEmpty() || two.isEmpty()) {
            return;
        }
        double[] x = one.getFirst().x();
        double[] y = two.getFirst().x();
        double from = Math.max(x[0], y[0]);
        double to = Math.min(x[x.length - 1], y[y.length - 1]);
        if (!(from <= to)) {
            return;
        }
        double[] at = new double[how.samples()];
        for (int i = 0; i < at.length; i++) {
            double f = i / (at.length - 1.0);
            at[i] = (1 - f) * from + f * to;
        }
        Branch.Met own = two.getFirst().at(at, how.resampling());
        found.add(at, own, one.getFirst().at(at, how.resampling()));
    }

    private static List<Branch> branches(Profile p) {
        List<Branch> all = Branch.of(p);
        if (all.size() > BRANCHES) {
            throw new LaneException("A curve goes back and forth along its " + p.abscissaName() + " " + (all.size() - 1)
                    + " times, so it has several values at one place; draw it against the distance along the line.");
        }
        return all;
    }

    /** What lies next to a branch: of the other's branches that with the least mean square of the difference. */
    private static java.util.Optional<Branch.Met> nearest(Profile points, Branch b, List<Branch> others, Meeting how) {
        double[] at = Arrays.copyOfRange(points.abscissa(), b.from(), b.to());
        Branch.Met best = null;
        double least = Double.POSITIVE_INFINITY;
        for (Branch o : others) {
            Branch.Met met = o.at(at, how.resampling());
            double sum = 0;
            int n = 0;
            for (int i = 0; i < at.length; i++) {
                double d = met.value()[i] - points.value()[b.from() + i];
                if (Double.isFinite(d)) {
                    sum += d * d;
                    n++;
                }
            }
            // A branch that shares but the place where it turns is not the one.
            double mean = n == 0 ? Double.POSITIVE_INFINITY : sum / n * at.length / n;
            if (mean < least) {
                least = mean;
                best = met;
            }
        }
        return java.util.Optional.ofNullable(best);
    }

    /** Points that have values on both sides, while they are collected. */
    private static final class Found {
        private final boolean atCurve;
        private double[] at = new double[64];
        private double[] diff = new double[64];
        private double[] half = new double[64];
        private double[] datum = new double[64];
        private double[] datumHalf = new double[64];
        private int[] from = new int[64];
        private int m;
        private int n;

        Found(boolean atCurve) {
            this.atCurve = atCurve;
        }

        /** The points of a curve with what the other is there. */
        void add(Profile points, int first, int end, Branch.Met other) {
            for (int i = first; i < end; i++) {
                int k = i - first;
                add(
                        i,
                        points.abscissa()[i],
                        points.value()[i],
                        Branch.half(points.uncertainty(), i),
                        Branch.half(points.upwards(), i),
                        other.value()[k],
                        Branch.half(other.down(), k),
                        Branch.half(other.up(), k));
            }
            n = points.size();
        }

        /** Points with the datum and the curve there. */
        void add(double[] places, Branch.Met datum, Branch.Met curve) {
            for (int i = 0; i < places.length; i++) {
                add(
                        i,
                        places[i],
                        datum.value()[i],
                        datum.down()[i],
                        datum.up()[i],
                        curve.value()[i],
                        curve.down()[i],
                        curve.up()[i]);
            }
            n = places.length;
        }

        private void add(
                int number,
                double x,
                double own,
                double down,
                double up,
                double there,
                double otherDown,
                double otherUp) {
            if (!Double.isFinite(own) || !Double.isFinite(there)) {
                return;
            }
            // The sample where a curve turns is one of both branches; it counts once, with the one next to it.
            if (m > 0 && from[m - 1] == number) {
                if (Math.abs(own - there) >= Math.abs(diff[m - 1])) {
                    return;
                }
                m--;
            }
            if (m == at.length) {
                at = Arrays.copyOf(at, 2 * m);
                diff = Arrays.copyOf(diff, 2 * m);
                half = Arrays.copyOf(half, 2 * m);
                datum = Arrays.copyOf(datum, 2 * m);
                datumHalf = Arrays.copyOf(datumHalf, 2 * m);
                from = Arrays.copyOf(from, 2 * m);
            }
            at[m] = x;
            from[m] = number;
            diff[m] = atCurve ? own - there : there - own;
            datum[m] = atCurve ? there : own;
            // The half-widths on the sides where the other one lies.
            double mine = there > own ? up : down;
            double its = own > there ? otherUp : otherDown;
            half[m] = Math.hypot(mine, its);
            datumHalf[m++] = atCurve ? its : mine;
        }

        Difference measure(boolean length, String method) {
            double[] x = Arrays.copyOf(at, m);
            return Difference.measure(
                    x,
                    Arrays.copyOf(diff, m),
                    Arrays.copyOf(half, m),
                    Arrays.copyOf(datum, m),
                    Arrays.copyOf(datumHalf, m),
                    weights(x, from, length),
                    method);
        }
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
            double[] at,
            double[] diff,
            double[] half,
            double[] base,
            double[] baseHalf,
            double[] weight,
            String method) {
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
        int inside = 0;
        int stated = 0;
        for (int i = 0; i < at.length; i++) {
            stated += baseHalf[i] > 0 ? 1 : 0;
            inside += baseHalf[i] > 0 && Math.abs(diff[i]) <= baseHalf[i] ? 1 : 0;
        }
        return new Difference(
                at,
                diff,
                half,
                base,
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
                correlation(diff, base, weight),
                stated == 0 ? Double.NaN : (double) inside / stated,
                method);
    }

    /** Pearson's, of the curve and the datum; NaN where one of them does not vary. */
    private static double correlation(double[] diff, double[] base, double[] weight) {
        double mx = 0;
        double my = 0;
        for (int i = 0; i < base.length; i++) {
            mx += weight[i] * base[i];
            my += weight[i] * (base[i] + diff[i]);
        }
        double xx = 0;
        double yy = 0;
        double xy = 0;
        for (int i = 0; i < base.length; i++) {
            double x = base[i] - mx;
            double y = base[i] + diff[i] - my;
            xx += weight[i] * x * x;
            yy += weight[i] * y * y;
            xy += weight[i] * x * y;
        }
        return xx > 0 && yy > 0 ? Math.clamp(xy / Math.sqrt(xx * yy), -1, 1) : Double.NaN;
    }

    public double norm(Norm norm) {
        return switch (norm) {
            case L1 -> l1;
            case L2 -> l2;
            case LINF -> linf;
            case BIAS -> bias;
            case CORRELATION -> 1 - correlation;
            case INSIDE -> 1 - inside;
        };
    }

    /** The SI magnitude that relative differences refer to; 1 for absolute ones. */
    public double scale(Scale scale) {
        return switch (scale) {
            case ABSOLUTE -> 1;
            case RANGE -> datumRange;
            case LARGEST -> datumLargest;
            case MEAN, LOCAL -> datumMean;
            case UNCERTAINTY -> Double.NaN;
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
            case L1, BIAS -> sum;
            case L2 -> Math.sqrt(sum);
            case LINF -> largest;
            case CORRELATION, INSIDE -> 0;
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

    /**
     * The point that decides whether all points keep a tolerance, each with its own uncertainty; see {@link Verdict#deciding}.
     *
     * @param allowed at each point
     */
    public int deciding(double[] allowed) {
        double[] size = new double[value.length];
        double[] half = new double[value.length];
        for (int i = 0; i < size.length; i++) {
            // What nothing is allowed of is out by any difference.
            double unit = allowed[i] > 0 ? allowed[i] : Double.MIN_NORMAL;
            size[i] = Math.abs(value[i]) / unit;
            half[i] = uncertainty[i] / unit;
        }
        return Verdict.deciding(size, half, 1);
    }

    /** The same with one tolerance for all. */
    public int deciding(double allowed) {
        double[] all = new double[value.length];
        Arrays.fill(all, allowed);
        return deciding(all);
    }
}
