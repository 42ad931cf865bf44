package lane.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.check.Meeting.Resampling;
import lane.reading.Profile;

/**
 * A stretch of a curve along which its abscissa only grows or only falls, ordered for lookup; a curve that turns back has several.
 *
 * @param from number of its first sample in the curve, {@code to} that behind its last
 */
record Branch(int from, int to, double[] x, double[] y, double[] down, double[] up) {
    /** At places: the value and its half-widths downwards and upwards. */
    record Met(double[] value, double[] down, double[] up) {}

    /** The branches of a curve in its order; samples without an abscissa part them. */
    static List<Branch> of(Profile p) {
        List<Branch> out = new ArrayList<>();
        double[] x = p.abscissa();
        int n = x.length;
        int from = 0;
        while (from < n) {
            if (Double.isNaN(x[from])) {
                from++;
                continue;
            }
            int to = from + 1;
            int way = 0;
            while (to < n && !Double.isNaN(x[to])) {
                int step = Double.compare(x[to], x[to - 1]);
                if (step != 0 && way != 0 && Integer.signum(step) != way) {
                    break;
                }
                way = step == 0 ? way : Integer.signum(step);
                to++;
            }
            boolean turns = to < n && !Double.isNaN(x[to]);
            // Two samples at the place where it turns belong to one side each; one alone belongs to both.
            boolean jump = turns && to - from > 2 && x[to - 1] == x[to - 2];
            out.add(branch(p, from, jump ? to - 1 : to, way < 0));
            from = turns ? to - 1 : to;
        }
        return out;
    }

    private static Branch branch(Profile p, int from, int to, boolean falls) {
        int n = to - from;
        double[] x = new double[n];
        double[] y = new double[n];
        double[] down = new double[n];
        double[] up = new double[n];
        for (int i = 0; i < n; i++) {
            int k = falls ? to - 1 - i : from + i;
            x[i] = p.abscissa()[k];
            y[i] = p.value()[k];
            down[i] = half(p.uncertainty(), k);
            up[i] = half(p.upwards(), k);
        }
        return new Branch(from, to, x, y, down, up);
    }

    static double half(double[] half, int i) {
        return half.length == 0 || Double.isNaN(half[i]) ? 0 : half[i];
    }

    Met at(double[] places, Resampling how) {
        double[] slopes = how == Resampling.CUBIC ? slopes(x, y) : new double[0];
        return new Met(
                lookup(places, y, slopes), lookup(places, down, new double[0]), lookup(places, up, new double[0]));
    }

    private double[] lookup(double[] places, double[] values, double[] slopes) {
        return Arrays.stream(places).map(v -> lookup(v, values, slopes)).toArray();
    }

    private double lookup(double v, double[] values, double[] slopes) {
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
        double h = x[k] - x[k - 1];
        double f = (v - x[k - 1]) / h;
        if (slopes.length == 0) {
            return (1 - f) * values[k - 1] + f * values[k];
        }
        double g = 1 - f;
        return g * g * (1 + 2 * f) * values[k - 1]
                + f * f * (3 - 2 * f) * values[k]
                + h * f * g * (g * slopes[k - 1] - f * slopes[k]);
    }

    /**
     * Slopes at samples that keep a curve of cubics monotone where its samples are: weighted harmonic means of the secants to both sides,
     * zero where they differ in sign; at the ends the three-point formula, limited (Fritsch and Butland 1984).
     */
    static double[] slopes(double[] x, double[] y) {
        int n = x.length;
        double[] m = new double[n];
        if (n < 2) {
            return m;
        }
        double[] d = new double[n - 1];
        for (int i = 0; i + 1 < n; i++) {
            d[i] = x[i + 1] > x[i] ? (y[i + 1] - y[i]) / (x[i + 1] - x[i]) : 0;
        }
        if (n == 2) {
            Arrays.fill(m, d[0]);
            return m;
        }
        for (int i = 1; i + 1 < n; i++) {
            double left = Double.isNaN(d[i - 1]) ? d[i] : d[i - 1];
            double right = Double.isNaN(d[i]) ? d[i - 1] : d[i];
            if (left * right > 0) {
                double a = x[i] - x[i - 1];
                double b = x[i + 1] - x[i];
                m[i] = 3 * (a + b) / ((2 * b + a) / left + (b + 2 * a) / right);
            }
        }
        m[0] = end(x[1] - x[0], x[2] - x[1], d[0], d[1]);
        m[n - 1] = end(x[n - 1] - x[n - 2], x[n - 2] - x[n - 3], d[n - 2], d[n - 3]);
        return m;
    }

    private static double end(double near, double far, double d, double next) {
        if (Double.isNaN(next) || near + far == 0) {
            return d;
        }
        double m = ((2 * near + far) * d - near * next) / (near + far);
        return m * d <= 0 ? 0 : d * next <= 0 && Math.abs(m) > 3 * Math.abs(d) ? 3 * d : m;
    }
}
