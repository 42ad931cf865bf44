package lane.picture;

import java.util.Locale;

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

    /** A tick with as many digits as the range asks for. */
    public static String text(double v, double least, double greatest) {
        double span = greatest - least;
        double large = Math.max(Math.abs(least), Math.abs(greatest));
        if (large >= 1e6 || large > 0 && large < 1e-3) {
            if (Math.abs(v) < 1e-9 * large) {
                return "0";
            }
            // Ticks are round numbers, so most of the digits are zeros.
            String text = String.format(Locale.ROOT, "%.2e", v);
            return minus(text.replaceAll("\\.?0+e", "e")
                    .replaceAll("e([+-])0*", "e$1")
                    .replace("e+", "e"));
        }
        int digits = span > 0 ? (int) Math.max(0, Math.min(6, Math.ceil(-Math.log10(span / 8)) + 0)) : 3;
        return minus(String.format(Locale.ROOT, "%." + digits + "f", v == 0 ? 0.0 : v));
    }

    /** Six significant digits, or as many as the uncertainty bears (two of it); a true minus sign; a dash for NaN. */
    public static String number(double v, double uncertainty) {
        if (Double.isNaN(v)) {
            return "–";
        }
        if (Double.isInfinite(v)) {
            return v > 0 ? "∞" : "−∞";
        }
        if (v == 0) {
            return "0";
        }
        int decimals;
        if (uncertainty > 0 && !Double.isInfinite(uncertainty)) {
            decimals = 1 - (int) Math.floor(Math.log10(uncertainty));
        } else {
            decimals = 5 - (int) Math.floor(Math.log10(Math.abs(v)));
        }
        if (Math.abs(v) >= 1e7 || Math.abs(v) < 1e-4) {
            return minus(String.format(Locale.ROOT, "%.4e", v));
        }
        return minus(String.format(Locale.ROOT, "%." + Math.max(0, Math.min(9, decimals)) + "f", v));
    }

    /** Three significant digits: for differences and shares. */
    public static String brief(double v) {
        if (Double.isNaN(v)) {
            return "–";
        }
        if (v == 0) {
            return "0";
        }
        double a = Math.abs(v);
        if (a >= 1e5 || a < 1e-3) {
            return minus(String.format(Locale.ROOT, "%.1e", v));
        }
        int decimals = Math.max(0, 2 - (int) Math.floor(Math.log10(a)));
        return minus(String.format(Locale.ROOT, "%." + Math.min(5, decimals) + "f", v));
    }

    /** The same with a sign on both sides of zero. */
    public static String signed(double v) {
        String text = brief(v);
        return v > 0 ? "+" + text : text;
    }

    /** Five significant digits with a sign on both sides of zero: for terms that are added up. */
    public static String signed6(double v) {
        return (v > 0 ? "+" : "")
                + number(v, v == 0 ? Double.NaN : Math.pow(10, Math.floor(Math.log10(Math.abs(v))) - 3));
    }

    private static String minus(String text) {
        return text.replace('-', '−');
    }
}
