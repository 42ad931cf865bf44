package lane.picture;

import java.math.BigDecimal;
import java.math.MathContext;
import lane.base.Figures;

/** Round numbers for axes and scales, and numbers as text. */
public final class Ticks {
    private Ticks() {}

    /** Multiples of 1, 2 or 5 times a power of ten inside the range, at most {@code most} of them. */
    public static double[] of(double least, double greatest, int most) {
        double span = greatest - least;
        if (!(span > 0) || Double.isInfinite(span)) {
            return new double[] {least};
        }
        double power = Math.pow(10, Math.floor(Math.log10(span / most)));
        double step = power;
        for (double f : new double[] {1, 2, 5, 10}) {
            step = f * power;
            if (span / step <= most) {
                break;
            }
        }
        long first = (long) Math.ceil(least / step - 1e-9);
        long last = (long) Math.floor(greatest / step + 1e-9);
        double[] ticks = new double[(int) Math.max(0, last - first + 1)];
        for (int i = 0; i < ticks.length; i++) {
            ticks[i] = (first + i) * step;
        }
        return ticks;
    }

    /** A tick with as many digits as the range asks for; where there is a power of ten it stands with each. */
    public static String text(double v, double least, double greatest) {
        double most = Math.max(Math.abs(least), Math.abs(greatest));
        double[] all = of(least, greatest, 12);
        Figures f = figures(all.length > 1 ? all[1] - all[0] : most, most);
        // A tick beside zero is zero.
        return f.whole(Math.abs(v) < 1e-9 * most ? 0 : v);
    }

    /**
     * How the ticks of an axis are written, all alike: they are whole multiples of their step, so its digits are the last
     * that any of them has.
     *
     * @param most the greatest of them without its sign
     */
    public static Figures figures(double step, double most) {
        double round = new BigDecimal(step).round(new MathContext(6)).doubleValue();
        double last = new BigDecimal(round * Math.max(1, Math.floor(most / round + 1e-9)))
                .round(new MathContext(12))
                .doubleValue();
        return Figures.of(new double[] {0, round, last}, 0);
    }

    /** Six significant digits, or as many as the uncertainty bears (two of it). */
    public static String number(double v, double uncertainty) {
        return Figures.within(v, uncertainty).whole(v);
    }

    /** Three significant digits: for differences and shares. */
    public static String brief(double v) {
        return Figures.of(v, 3).whole(v);
    }

    /** The same with a sign on both sides of zero. */
    public static String signed(double v) {
        return (v > 0 ? "+" : "") + brief(v);
    }

    /** Five significant digits with a sign on both sides of zero: for terms that are added up. */
    public static String signed6(double v) {
        return (v > 0 ? "+" : "") + Figures.of(v, 5).whole(v);
    }
}
