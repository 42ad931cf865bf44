package lane.convergence;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;

/**
 * More than three meshes: a power of the size is fitted by least squares, with all meshes alike and with the finer ones weighing
 * more, and the better fit is taken; its standard deviation is part of the uncertainty (Eca and Hoekstra (2014), J. Comput. Phys. 262,
 * 104).
 */
final class ManyMeshes {
    private static final double LEAST = 0.5;
    private static final double STEP = 0.05;
    private static final double LOWEST = -4;
    private static final double HIGHEST = 20;
    /** A fit whose deviation is such a share of the values' spacing is exact: its order is known, whatever it is. */
    private static final double EXACT = 1e-6;

    /**
     * A fitted curve of the size.
     *
     * @param order NaN for several powers together
     * @param limit value at a size of zero
     * @param there value at the smallest size
     * @param deviation standard deviation of the residuals
     */
    private record Fitted(double order, double limit, double there, double deviation) {}

    private final double[] h;
    private final double[] v;

    private ManyMeshes(double[] h, double[] v) {
        this.h = h;
        this.v = v;
    }

    /** @param h finest first */
    static Convergence of(double[] h, double[] v, Refinement.Stated stated) {
        return new ManyMeshes(h, v).judge(stated);
    }

    private Convergence judge(Refinement.Stated stated) {
        double spread =
                Arrays.stream(v).max().orElseThrow() - Arrays.stream(v).min().orElseThrow();
        double round = Refinement.ROUND_OFF * Refinement.size(v);
        var notes = new ArrayList<String>();
        if (Math.abs(v[1] - v[0]) <= round) {
            return Refinement.irregular(Kind.TOO_CLOSE, v, stated, Double.NaN, notes);
        }
        Optional<Fitted> power = best(Stream.of(power(false), power(true)).filter(f -> f.order > 0));
        if (power.isEmpty()) {
            return Refinement.irregular(Kind.DIVERGENT, v, stated, Double.NaN, notes);
        }
        Fitted observed = power.get();
        double spacing = spread / (v.length - 1);
        double top = Double.isNaN(stated.order()) ? Refinement.USUAL_ORDER : stated.order();
        boolean exact = observed.deviation <= EXACT * spacing && Double.isNaN(stated.order());
        boolean usable = observed.order >= LEAST && observed.order <= top + 0.1;
        Fitted taken = exact || usable ? observed : instead(observed, top, notes);
        double error = Math.abs(v[0] - taken.limit);
        double off = Math.abs(v[0] - taken.there);
        boolean quiet = taken.deviation < spacing;
        double safety = stated.safety(quiet && (exact || usable) ? Refinement.USUAL_SAFETY : Refinement.LARGE_SAFETY);
        double half = quiet
                ? safety * error + taken.deviation + off
                : Refinement.LARGE_SAFETY * taken.deviation / spacing * (error + taken.deviation + off);
        if (!quiet) {
            notes.add("The values scatter about the fit by more than they are apart, so the uncertainty is large.");
        }
        return new Convergence(
                sameSign() ? Kind.MONOTONE : Kind.OSCILLATORY,
                observed.order,
                taken.limit,
                half,
                safety,
                asymptotic(observed.order),
                taken.deviation,
                v[0],
                v[1],
                notes);
    }

    /** With the orders of usual schemes, where the observed one is out of bounds. */
    private Fitted instead(Fitted observed, double top, List<String> notes) {
        boolean low = observed.order < LEAST;
        var powers = new ArrayList<Fitted>();
        for (boolean finer : new boolean[] {false, true}) {
            powers.add(fixed(1, finer));
            powers.add(fixed(top, finer));
            if (low) {
                powers.add(both(top, finer));
            }
        }
        Fitted taken = best(powers.stream()).orElse(observed);
        notes.add("The observed order is " + (low ? "below 0.5" : "above that of the scheme")
                + ", so the uncertainty rests on a fit of "
                + (Double.isNaN(taken.order)
                        ? "two orders together"
                        : "order " + lane.base.Figures.of(taken.order, 3).whole(taken.order))
                + ".");
        return taken;
    }

    private static Optional<Fitted> best(Stream<Fitted> of) {
        return of.min(Comparator.comparingDouble(Fitted::deviation));
    }

    private boolean sameSign() {
        for (int i = 2; i < v.length; i++) {
            if ((v[i] - v[i - 1]) * (v[1] - v[0]) < 0) {
                return false;
            }
        }
        return true;
    }

    private double asymptotic(double p) {
        double fine = Math.abs(v[1] - v[0]) / (Math.pow(h[1] / h[0], p) - 1);
        double coarse = Math.abs(v[2] - v[1]) / (Math.pow(h[2] / h[1], p) - 1);
        double ratio = (coarse / Math.abs(v[1])) / (Math.pow(h[1] / h[0], p) * fine / Math.abs(v[0]));
        return Double.isFinite(ratio) ? ratio : Double.NaN;
    }

    /** Weights whose sum is the number of meshes. */
    private double[] weights(boolean finer) {
        double sum = 0;
        for (double size : h) {
            sum += 1 / size;
        }
        double[] w = new double[h.length];
        for (int i = 0; i < w.length; i++) {
            w[i] = finer ? h.length / (h[i] * sum) : 1;
        }
        return w;
    }

    /** The power that fits best. */
    private Fitted power(boolean finer) {
        double[] w = weights(finer);
        double at = LOWEST;
        double least = Double.POSITIVE_INFINITY;
        for (int k = 0; k <= Math.round((HIGHEST - LOWEST) / STEP); k++) {
            double p = LOWEST + k * STEP;
            double squares = squares(p, w);
            at = squares < least ? p : at;
            least = Math.min(least, squares);
        }
        var optimum = new BrentOptimizer(1e-14, 1e-15)
                .optimize(
                        new MaxEval(400),
                        GoalType.MINIMIZE,
                        new UnivariateObjectiveFunction(p -> squares(p, w)),
                        new SearchInterval(at - STEP, at + STEP, at));
        return fit(optimum.getPoint(), w, h.length - 3);
    }

    private double squares(double p, double[] w) {
        double d = fit(p, w, 1).deviation;
        return d * d;
    }

    private Fitted fixed(double p, boolean finer) {
        return fit(p, weights(finer), h.length - 2);
    }

    /** A straight line over (h^p - h1^p) / p, which goes over into the logarithm where p is zero. */
    private Fitted fit(double p, double[] w, int freedom) {
        int n = h.length;
        double[] g = new double[n];
        double middle = 0;
        double mean = 0;
        for (int i = 0; i < n; i++) {
            double log = Math.log(h[i] / h[0]);
            g[i] = Math.abs(p) < 1e-12 ? log : Math.expm1(p * log) / p;
            middle += w[i] * g[i] / n;
            mean += w[i] * v[i] / n;
        }
        double across = 0;
        double along = 0;
        for (int i = 0; i < n; i++) {
            across += w[i] * (g[i] - middle) * (v[i] - mean);
            along += w[i] * (g[i] - middle) * (g[i] - middle);
        }
        double slope = across / along;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double off = v[i] - mean - slope * (g[i] - middle);
            squares += w[i] * off * off;
        }
        double there = mean - slope * middle;
        return new Fitted(p, there - slope / p, there, Math.sqrt(squares / freedom));
    }

    /** The first and the highest order together. */
    private Fitted both(double top, boolean finer) {
        int n = h.length;
        double[] w = weights(finer);
        double[][] rows = new double[n][];
        double[] right = new double[n];
        for (int i = 0; i < n; i++) {
            double root = Math.sqrt(w[i]);
            double size = h[i] / h[0];
            rows[i] = new double[] {root, root * size, root * Math.pow(size, top)};
            right[i] = root * v[i];
        }
        var matrix = MatrixUtils.createRealMatrix(rows);
        var b = MatrixUtils.createRealVector(right);
        double[] c;
        try {
            c = new QRDecomposition(matrix).getSolver().solve(b).toArray();
        } catch (org.hipparchus.exception.MathIllegalArgumentException e) {
            // The scheme's order is one: both powers are the same.
            return fixed(1, finer);
        }
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double size = h[i] / h[0];
            double off = v[i] - c[0] - c[1] * size - c[2] * Math.pow(size, top);
            squares += w[i] * off * off;
        }
        return new Fitted(Double.NaN, c[0], c[0] + c[1] + c[2], Math.sqrt(squares / (n - 3)));
    }
}
