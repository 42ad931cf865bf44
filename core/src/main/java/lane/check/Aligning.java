package lane.check;

import java.util.Arrays;
import lane.base.Figures;
import lane.base.LaneException;
import lane.reading.Profile;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;

/** Changes the abscissa of a curve as an {@link Alignment} says, and tells what was done. */
final class Aligning {
    /** Shifts that are tried before the best one is looked for more closely. */
    private static final int TRIED = 200;
    /** A shift that leaves less than this share in common says nothing. */
    private static final double COMMON = 0.5;

    private Aligning() {}

    static Difference met(Profile curve, Profile datum, Meeting how) {
        Alignment a = how.align();
        double unit = curve.abscissaUnit().known() ? curve.abscissaUnit().factor() : 1;
        double[] x = curve.abscissa().clone();
        var said = new StringBuilder();
        Profile to = datum;
        if (a.reverse()) {
            double[] ends = ends(x);
            Arrays.setAll(x, i -> ends[0] + ends[1] - x[i]);
            said.append(", abscissa reversed");
        }
        if (a.normalise()) {
            normalise(x);
            double[] other = datum.abscissa().clone();
            normalise(other);
            to = over(datum, other);
            said.append(", both abscissas from 0 to 1");
            unit = 1;
        }
        Double factor = a.factor();
        if (factor != null && factor != 1) {
            Arrays.setAll(x, i -> factor * x[i]);
            said.append(", abscissa times ").append(number(factor));
        }
        double shift = a.shift() * unit;
        if (a.fit()) {
            double best = best(curve, to, x, shift, how);
            said.append(", abscissa shifted by ")
                    .append(number(best / unit))
                    .append(a.normalise() ? "" : " " + curve.abscissaUnit().label())
                    .append(", which fits best");
            shift = best;
        } else if (shift != 0) {
            said.append(", abscissa shifted by ")
                    .append(number(a.shift()))
                    .append(a.normalise() ? "" : " " + curve.abscissaUnit().label());
        }
        if (!a.reason().isBlank()) {
            said.append(" (").append(a.reason()).append(")");
        }
        return Difference.met(over(curve, moved(x, shift)), to, how, said.toString());
    }

    private static String number(double v) {
        return Figures.of(v, 6).whole(v);
    }

    private static double[] ends(double[] x) {
        double least = Arrays.stream(x).filter(Double::isFinite).min().orElse(0);
        double greatest = Arrays.stream(x).filter(Double::isFinite).max().orElse(0);
        return new double[] {least, greatest};
    }

    private static void normalise(double[] x) {
        double[] e = ends(x);
        if (!(e[1] > e[0])) {
            throw new LaneException("An abscissa without a length cannot be normalised.");
        }
        Arrays.setAll(x, i -> (x[i] - e[0]) / (e[1] - e[0]));
    }

    private static double[] moved(double[] x, double by) {
        return Arrays.stream(x).map(v -> v + by).toArray();
    }

    private static Profile over(Profile p, double[] x) {
        return new Profile(
                x,
                p.samples(),
                p.bands(),
                p.abscissaName(),
                p.abscissaUnit(),
                p.unit(),
                p.formula(),
                p.found(),
                p.note(),
                p.coverage(),
                p.places(),
                p.beside(),
                p.trail());
    }

    /** The shift with the least root mean square, of those that leave at least half of the points in common. */
    private static double best(Profile curve, Profile datum, double[] x, double about, Meeting how) {
        double[] own = ends(x);
        double[] its = ends(datum.abscissa());
        double reach = Math.max(own[1] - own[0], its[1] - its[0]) / 2;
        Meeting plain = how.aligned(Alignment.NONE);
        int most = 0;
        double[] off = new double[TRIED + 1];
        int[] common = new int[TRIED + 1];
        for (int k = 0; k <= TRIED; k++) {
            Difference d = tried(curve, datum, moved(x, about + reach * (2.0 * k / TRIED - 1)), plain);
            off[k] = d == null ? Double.POSITIVE_INFINITY : d.l2();
            common[k] = d == null ? 0 : d.value().length;
            most = Math.max(most, common[k]);
        }
        int best = -1;
        for (int k = 0; k <= TRIED; k++) {
            if (common[k] >= COMMON * most && (best < 0 || off[k] < off[best])) {
                best = k;
            }
        }
        if (best < 0) {
            throw new LaneException("No shift brings the two curves together; look at where each lies.");
        }
        double step = 2 * reach / TRIED;
        double at = about + reach * (2.0 * best / TRIED - 1);
        return new BrentOptimizer(1e-10, Math.max(1e-12 * reach, Double.MIN_NORMAL))
                .optimize(
                        new MaxEval(200),
                        GoalType.MINIMIZE,
                        new UnivariateObjectiveFunction(s -> {
                            Difference d = tried(curve, datum, moved(x, s), plain);
                            return d == null ? Double.MAX_VALUE : d.l2();
                        }),
                        new SearchInterval(at - step, at + step, at))
                .getPoint();
    }

    private static @org.jspecify.annotations.Nullable Difference tried(
            Profile curve, Profile datum, double[] x, Meeting how) {
        try {
            return Difference.met(over(curve, x), datum, how, "");
        } catch (LaneException e) {
            return null;
        }
    }
}
