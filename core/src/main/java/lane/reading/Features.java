package lane.reading;

import java.util.Arrays;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.fit.Fit;
import lane.fit.LeastSquares;
import lane.mesh.Finding;
import org.jspecify.annotations.Nullable;

/**
 * Numbers of a curve, in SI units. It is straight between its samples, and does not go on where one is absent; a peak is that of the
 * parabola through the greatest sample and its neighbours (third order in their distance), or the sample itself at an end.
 */
final class Features {
    /**
     * @param error standard error; 0 for none
     * @param freedom degrees of it
     */
    record Found(double number, double error, double freedom, String note) {
        Found(double number, String note) {
            this(number, 0, Double.POSITIVE_INFINITY, note);
        }
    }

    /** A peak: how high, and where. */
    record Peak(Found value, Found place) {}

    private final double[] x;
    private final double[] y;
    private final String along;

    /** @throws LaneException when nothing of the curve has a value there */
    Features(Profile p, @Nullable Double from, @Nullable Double to) {
        int[] kept = IntStream.range(0, p.size())
                .filter(i -> !(from != null && p.abscissa()[i] < from) && !(to != null && p.abscissa()[i] > to))
                .toArray();
        x = Arrays.stream(kept).mapToDouble(i -> p.abscissa()[i]).toArray();
        y = Arrays.stream(kept).mapToDouble(i -> p.value()[i]).toArray();
        along = p.abscissaName();
        if (Arrays.stream(y).noneMatch(Double::isFinite)) {
            throw new LaneException("The curve has no value "
                    + (from == null && to == null ? "anywhere" : "in the part that counts") + "; choose another part.");
        }
    }

    private boolean joined(int i) {
        return Double.isFinite(x[i]) && Double.isFinite(y[i]) && Double.isFinite(x[i + 1]) && Double.isFinite(y[i + 1]);
    }

    private static String number(double v) {
        return Finding.number(v, 6);
    }

    Found value(double at) {
        for (int i = 0; i < x.length; i++) {
            if (x[i] == at && Double.isFinite(y[i])) {
                return new Found(y[i], "at a sample");
            }
            if (i + 1 < x.length && joined(i) && (x[i] - at) * (x[i + 1] - at) < 0) {
                double f = (at - x[i]) / (x[i + 1] - x[i]);
                return new Found((1 - f) * y[i] + f * y[i + 1], "straight between two samples");
            }
        }
        throw new LaneException(
                "The curve has no value at " + number(at) + " of its " + along + "; give a place that it passes.");
    }

    /** Nothing between samples: a value is that of one. */
    Found sample(double at) {
        double reach = Math.abs(x[x.length - 1] - x[0]);
        int near = nearest(at);
        if (Math.abs(x[near] - at) > 1e-9 * Math.max(reach, Math.abs(at))) {
            throw new LaneException("There is no sample at " + number(at) + " of its " + along + "; the nearest is at "
                    + number(x[near]) + ". Take that, or the value between samples.");
        }
        if (!Double.isFinite(y[near])) {
            throw new LaneException("The sample at " + number(at) + " of its " + along + " has no value.");
        }
        return new Found(y[near], "at a sample");
    }

    private int nearest(double at) {
        int near = 0;
        for (int i = 1; i < x.length; i++) {
            near = Math.abs(x[i] - at) < Math.abs(x[near] - at) || Double.isNaN(x[near]) ? i : near;
        }
        return near;
    }

    /** Of the parabola through the nearest sample and its neighbours; at an end of the straight line to the neighbour. */
    Found rate(double at) {
        value(at);
        int i = nearest(at);
        boolean left = i > 0 && joined(i - 1);
        boolean right = i + 1 < x.length && joined(i);
        if (!left && !right) {
            throw new LaneException("A rate needs two samples with values side by side, which there are none of at "
                    + number(at) + ".");
        }
        if (!left || !right) {
            int k = left ? i - 1 : i;
            return new Found((y[k + 1] - y[k]) / (x[k + 1] - x[k]), "between two samples at an end, of first order");
        }
        double h = x[i] - x[i - 1];
        double g = x[i + 1] - x[i];
        double before = (y[i] - y[i - 1]) / h;
        double after = (y[i + 1] - y[i]) / g;
        double second = (after - before) / (h + g);
        double here = (before * g + after * h) / (h + g);
        return new Found(here + 2 * second * (at - x[i]), "of the parabola through three samples, of second order");
    }

    private double pieces(boolean length) {
        var sum = new lane.base.Sum();
        for (int i = 0; i + 1 < x.length; i++) {
            if (joined(i)) {
                sum.add(length ? Math.abs(x[i + 1] - x[i]) : (y[i] + y[i + 1]) / 2 * (x[i + 1] - x[i]));
            }
        }
        return sum.value();
    }

    private String covered() {
        double all = Math.abs(x[x.length - 1] - x[0]);
        double part = pieces(true);
        return "by trapezoids, straight between samples"
                + (part < 0.999999 * all ? ", over the " + number(100 * part / all) + " % that has values" : "");
    }

    Found integral() {
        if (pieces(true) == 0) {
            throw new LaneException("An integral needs two samples with values side by side, and there are none.");
        }
        return new Found(pieces(false), covered());
    }

    Found mean() {
        double length = pieces(true);
        if (length == 0) {
            int only = 0;
            while (!Double.isFinite(y[only])) {
                only++;
            }
            return new Found(y[only], "of a sample that stands alone");
        }
        double sign = x[x.length - 1] < x[0] ? -1 : 1;
        return new Found(sign * pieces(false) / length, covered());
    }

    Found last(boolean valid) {
        int i = y.length - 1;
        while (valid && !Double.isFinite(y[i])) {
            i--;
        }
        if (!Double.isFinite(y[i])) {
            throw new LaneException("The last of " + y.length + " samples, at " + number(x[i]) + " of its " + along
                    + ", has no value; take the last value that is one.");
        }
        return new Found(
                y[i],
                "at " + number(x[i]) + " in SI units"
                        + (i == y.length - 1 ? "" : ", " + (y.length - 1 - i) + " before the end"));
    }

    Found count(boolean values) {
        int n = (int) Arrays.stream(y).filter(v -> Double.isFinite(v) == values).count();
        return new Found(n, "of " + y.length);
    }

    /** Where it passes a level, in the order of the curve. */
    private double[] places(double level) {
        var out = new java.util.ArrayList<Double>();
        for (int i = 0; i < x.length; i++) {
            // A sample on the level counts once, unless the curve only touches it there.
            if (Double.isFinite(y[i]) && y[i] == level && side(i, -1, level) * side(i, 1, level) < 0) {
                int last = i;
                while (last + 1 < x.length && y[last + 1] == level) {
                    last++;
                }
                out.add(x[i]);
                i = last;
            } else if (i + 1 < x.length && joined(i) && (y[i] - level) * (y[i + 1] - level) < 0) {
                double f = (level - y[i]) / (y[i + 1] - y[i]);
                out.add((1 - f) * x[i] + f * x[i + 1]);
            }
        }
        return out.stream().mapToDouble(v -> v).toArray();
    }

    /** On which side of the level the curve comes from, or goes to: -1 or 1; 0 where it ends. */
    private int side(int i, int step, double level) {
        int k = i + step;
        while (k >= 0 && k < x.length && y[k] == level) {
            k += step;
        }
        return k < 0 || k >= x.length || Double.isNaN(y[k]) ? 0 : y[k] < level ? -1 : 1;
    }

    Found crossing(double level, int count) {
        double[] all = places(level);
        if (all.length < count) {
            throw new LaneException("The curve passes this level " + (all.length == 1 ? "once" : all.length + " times")
                    + ", so there is no crossing " + count + "; its values go from "
                    + number(Arrays.stream(y).filter(Double::isFinite).min().orElseThrow()) + " to "
                    + number(Arrays.stream(y).filter(Double::isFinite).max().orElseThrow()) + " in SI units.");
        }
        return new Found(all[count - 1], "crossing " + count + " of " + all.length);
    }

    Found crossings(double level) {
        return new Found(places(level).length, "counted along the curve");
    }

    Peak peak(boolean greatest) {
        int best = -1;
        for (int i = 0; i < y.length; i++) {
            if (Double.isFinite(y[i]) && (best < 0 || (greatest ? y[i] > y[best] : y[i] < y[best]))) {
                best = i;
            }
        }
        boolean inner = best > 0 && best + 1 < y.length && joined(best - 1) && joined(best);
        double left = inner ? x[best - 1] - x[best] : 0;
        double right = inner ? x[best + 1] - x[best] : 0;
        if (!inner || left * right >= 0) {
            String note = "at the end of what counts, as the sample stands";
            return new Peak(new Found(y[best], note), new Found(x[best], note));
        }
        // y = y0 + b t + c t^2 through both neighbours.
        double c = ((y[best + 1] - y[best]) / right - (y[best - 1] - y[best]) / left) / (right - left);
        double b = (y[best + 1] - y[best]) / right - c * right;
        double t = c == 0 ? 0 : Math.clamp(-b / (2 * c), Math.min(left, right), Math.max(left, right));
        String note = "of the parabola through three samples";
        return new Peak(new Found(y[best] + b * t + c * t * t, note), new Found(x[best] + t, note));
    }

    /** Between the places on either side of the peak where the curve has fallen to a share of it. */
    Found width(double share) {
        Peak top = peak(true);
        double level = share * top.value().number();
        double middle = top.place().number();
        double[] all = places(level);
        double before = Double.NaN;
        double after = Double.NaN;
        for (double v : all) {
            if (v <= middle && !(v < before)) {
                before = v;
            }
            if (v >= middle && !(v > after)) {
                after = v;
            }
        }
        if (Double.isNaN(before) || Double.isNaN(after)) {
            throw new LaneException(
                    "The curve does not fall to that share of its peak on both sides; take a larger share or a longer curve.");
        }
        return new Found(Math.abs(after - before), "on both sides of the peak");
    }

    /** Of the straight line by least squares: its constant, or its slope. */
    Found line(int coefficient) {
        int[] kept = IntStream.range(0, x.length)
                .filter(i -> Double.isFinite(x[i]) && Double.isFinite(y[i]))
                .toArray();
        Fit fit = LeastSquares.polynomial(
                Arrays.stream(kept).mapToDouble(i -> x[i]).toArray(),
                Arrays.stream(kept).mapToDouble(i -> y[i]).toArray(),
                1);
        double error = fit.standardErrors()[coefficient];
        return new Found(
                fit.coefficients()[coefficient],
                Double.isNaN(error) ? 0 : error,
                Math.max(1, fit.freedom()),
                "least squares through " + fit.samples() + " samples, R2 " + number(fit.r2()));
    }

    /** The first place from which all that follows stays within a distance of the last value. */
    Found settled(double distance) {
        int last = y.length - 1;
        while (!Double.isFinite(y[last])) {
            last--;
        }
        int i = last;
        while (i > 0 && !(Math.abs(y[i - 1] - y[last]) > distance)) {
            i--;
        }
        while (!Double.isFinite(y[i])) {
            i++;
        }
        if (i == 0 || !joined(i - 1)) {
            return new Found(x[i], "from the first sample on");
        }
        // Where the straight piece before it comes near enough.
        double edge = y[last] + Math.copySign(distance, y[i - 1] - y[last]);
        double f = (edge - y[i - 1]) / (y[i] - y[i - 1]);
        return new Found((1 - f) * x[i - 1] + f * x[i], "to the end of what counts");
    }
}
