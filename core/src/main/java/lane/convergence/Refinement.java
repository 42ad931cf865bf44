package lane.convergence;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;

/**
 * The same number from meshes or time steps of several sizes, and what their change says.
 *
 * <p>Three: observed order for unequal ratios, extrapolation and grid convergence index after Roache (1994), J. Fluids Eng. 116,
 * 405, and Celik et al. (2008), J. Fluids Eng. 130, 078001. Two: an assumed order with the larger safety factor. More than three:
 * {@link ManyMeshes}.
 */
public final class Refinement {
    /** The factor where an order was observed. */
    public static final double USUAL_SAFETY = 1.25;
    /** The factor of two meshes, and where nothing shrinks as an order says. */
    public static final double LARGE_SAFETY = 3;
    /** The order that two meshes assume unless another is stated: that of most schemes in use. */
    public static final double USUAL_ORDER = 2;
    /** Changes below this share of the values are their round-off. */
    static final double ROUND_OFF = 1e-12;

    private static final double HIGHEST = 60;

    private Refinement() {}

    /**
     * What is stated beforehand.
     *
     * @param order of the scheme; NaN for not stated: two meshes assume {@value Refinement#USUAL_ORDER}; an observed order above a
     *     stated one is not counted upon
     * @param safety factor in place of the usual ones; NaN for these
     */
    public record Stated(double order, double safety) {
        public static final Stated NOTHING = new Stated(Double.NaN, Double.NaN);

        public Stated {
            if (order <= 0 || Double.isInfinite(order)) {
                throw new LaneException("The order of a scheme is a positive number; got " + number(order) + ".");
            }
            if (safety < 1 || Double.isInfinite(safety)) {
                throw new LaneException("A safety factor is 1 or more; got " + number(safety) + ".");
            }
        }

        double safety(double usual) {
            return Double.isNaN(safety) ? usual : safety;
        }

        /** The order that an uncertainty may count upon. */
        double counted(double observed) {
            return order < observed ? order : observed;
        }

        /** Says so where the observed order is not counted upon, or looks too good. */
        void note(double observed, List<String> notes) {
            // Not by its round-off.
            if (1.01 * order < observed) {
                notes.add("The observed order lies above the scheme's, " + number(order)
                        + ", which the uncertainty counts upon.");
            } else if (Double.isNaN(order) && observed > 2.5) {
                notes.add(
                        "The observed order lies above 2: state that of the scheme, or look whether the meshes are alike.");
            } else if (observed < 0.5) {
                notes.add("The observed order is very low: the extrapolated value lies far off and is hardly known.");
            }
        }
    }

    /**
     * @param h sizes, in any order and unit, all different
     * @param values of the same length
     * @throws LaneException where there are fewer than two, or a size is not positive, or occurs twice
     */
    public static Convergence of(double[] h, double[] values, Stated stated) {
        require(h, values);
        int[] order = finestFirst(h);
        double[] size = Arrays.stream(order).mapToDouble(i -> h[i]).toArray();
        double[] v = Arrays.stream(order).mapToDouble(i -> values[i]).toArray();
        return switch (v.length) {
            case 2 -> two(size, v, stated);
            case 3 -> three(size, v, stated);
            default -> ManyMeshes.of(size, v, stated);
        };
    }

    /** Numbers of the sizes, the smallest first. */
    static int[] finestFirst(double[] h) {
        return IntStream.range(0, h.length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> h[i]))
                .mapToInt(Integer::intValue)
                .toArray();
    }

    static void require(double[] h, double[] values) {
        if (h.length != values.length) {
            throw new LaneException("There are " + Plain.count(h.length, "size") + " and "
                    + Plain.count(values.length, "value") + "; give as many of one as of the other.");
        }
        if (h.length < 2) {
            throw new LaneException("One mesh says nothing about convergence; give two, better three or more.");
        }
        for (int i = 0; i < h.length; i++) {
            if (!(h[i] > 0) || Double.isInfinite(h[i])) {
                throw new LaneException("A mesh size is a positive number; got " + number(h[i]) + ".");
            }
            if (!Double.isFinite(values[i])) {
                throw new LaneException("The value of size " + number(h[i]) + " is no number; leave that mesh out.");
            }
        }
        double[] sorted = h.clone();
        Arrays.sort(sorted);
        for (int i = 1; i < sorted.length; i++) {
            if (sorted[i] - sorted[i - 1] <= 1e-9 * sorted[i]) {
                throw new LaneException("Two meshes have the size " + number(sorted[i])
                        + "; without a refinement between them nothing can be said.");
            }
        }
    }

    private static Convergence two(double[] h, double[] v, Stated stated) {
        boolean given = !Double.isNaN(stated.order());
        double p = given ? stated.order() : USUAL_ORDER;
        double grown = Math.pow(h[1] / h[0], p);
        double safety = stated.safety(LARGE_SAFETY);
        double error = (v[0] - v[1]) / (grown - 1);
        return new Convergence(
                Kind.TWO,
                p,
                v[0] + error,
                safety * Math.abs(error),
                safety,
                Double.NaN,
                Double.NaN,
                v[0],
                v[1],
                List.of("Two meshes show no order: " + number(p) + (given ? " was stated" : " is assumed")
                        + ", and the safety factor is " + number(safety) + "."));
    }

    private static Convergence three(double[] h, double[] v, Stated stated) {
        double fine = v[1] - v[0];
        double coarse = v[2] - v[1];
        double r21 = h[1] / h[0];
        double r32 = h[2] / h[1];
        var notes = new ArrayList<String>();
        Kind kind = kind(fine, coarse, r21, r32, size(v));
        if (kind == Kind.TOO_CLOSE || kind == Kind.DIVERGENT) {
            return irregular(kind, v, stated, Double.NaN, notes);
        }
        double p = order(fine, coarse, r21, r32);
        double grown = Math.pow(r21, p);
        stated.note(p, notes);
        if (kind == Kind.OSCILLATORY) {
            notes.add("The values alternate: look at a fourth mesh before trusting the extrapolated one.");
        }
        double safety = stated.safety(USUAL_SAFETY);
        double counted = stated.counted(p);
        double half = safety * Math.abs(fine) / (Math.pow(r21, counted) - 1);
        double before = safety * Math.abs(coarse) / (Math.pow(r32, counted) - 1);
        double ratio = (before / Math.abs(v[1])) / (Math.pow(r21, counted) * half / Math.abs(v[0]));
        return new Convergence(
                kind,
                p,
                v[0] - fine / (grown - 1),
                half,
                safety,
                v[0] == 0 || v[1] == 0 ? Double.NaN : ratio,
                Double.NaN,
                v[0],
                v[1],
                notes);
    }

    /**
     * With a size to the power p the changes have the ratio (h3^p - h2^p) / (h2^p - h1^p), which grows with p; at p = 0 it is that of
     * the logarithms. A smaller one has no order above zero.
     */
    static Kind kind(double fine, double coarse, double r21, double r32, double size) {
        if (Math.abs(fine) <= ROUND_OFF * size) {
            return Kind.TOO_CLOSE;
        }
        double ratio = coarse / fine;
        if (ratio < 0) {
            return ratio < -1 ? Kind.OSCILLATORY : Kind.DIVERGENT;
        }
        return ratio > Math.log(r32) / Math.log(r21) * (1 + 1e-9) ? Kind.MONOTONE : Kind.DIVERGENT;
    }

    /**
     * The observed order p of p ln r21 = ln |coarse / fine| + ln((r21^p - s) / (r32^p - s)), s being the sign of the ratio of the changes
     * (Celik et al., equation 3), found between bounds, so that it is found whenever there is one.
     */
    static double order(double fine, double coarse, double r21, double r32) {
        double s = Math.signum(coarse / fine);
        double log = Math.log(Math.abs(coarse / fine));
        UnivariateFunction off = p -> log + Math.log(part(r21, p, s) / part(r32, p, s)) - p * Math.log(r21);
        if (off.value(HIGHEST) > 0) {
            return HIGHEST;
        }
        return new BracketingNthOrderBrentSolver(1e-15, 1e-14, 1e-300, 5).solve(500, off, 1e-9, HIGHEST);
    }

    /** r^p - s, without loss where p is small. */
    private static double part(double r, double p, double s) {
        return s > 0 ? Math.expm1(p * Math.log(r)) : Math.pow(r, p) + 1;
    }

    /** Nothing to extrapolate: the uncertainty is the largest difference of two values, times the large factor. */
    static Convergence irregular(Kind kind, double[] v, Stated stated, double deviation, List<String> notes) {
        double safety = stated.safety(LARGE_SAFETY);
        double spread =
                Arrays.stream(v).max().orElseThrow() - Arrays.stream(v).min().orElseThrow();
        notes.add(
                kind == Kind.TOO_CLOSE
                        ? "The two finest values are the same but for their round-off, so no order can be told; the"
                                + " uncertainty is " + number(safety) + " times the largest difference."
                        : "The changes do not shrink, so nothing is extrapolated; the uncertainty is " + number(safety)
                                + " times the largest difference.");
        return new Convergence(
                kind, Double.NaN, Double.NaN, safety * spread, safety, Double.NaN, deviation, v[0], v[1], notes);
    }

    /** For sentences. */
    private static String number(double v) {
        return Figures.of(v, 6).whole(v);
    }

    /** The greatest magnitude. */
    static double size(double[] v) {
        return Arrays.stream(v).map(Math::abs).max().orElse(0);
    }
}
