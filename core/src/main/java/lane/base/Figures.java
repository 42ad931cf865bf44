package lane.base;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.Locale;

/**
 * How numbers that are read together are written: one number of decimals and one power of ten for a column, so that their
 * differences can be seen. There is a power only where the greatest is a million or more, or below a ten thousandth. Thousands
 * are parted by thin spaces, never by a comma.
 *
 * @param decimals behind the point, 0 to 15
 * @param power of ten that all are divided by; 0 for none
 */
public record Figures(int decimals, int power) {
    private static final int MOST = 15;
    private static final String RAISED = "⁰¹²³⁴⁵⁶⁷⁸⁹";
    /** Narrow, and no line breaks there; the fonts have it, which they do not of every thin space. */
    private static final char THIN = '\u202f';

    /**
     * Six significant digits of the spread of the values, or more where the last of those would hide what has to be seen.
     * Decimals that are zero in all of them are left out.
     *
     * @param needed the least that must be told apart, such as a tenth of a tolerance; 0 or NaN for none
     */
    public static Figures of(double[] values, double needed) {
        return of(values, needed, 6);
    }

    /** @param digits of the spread, where there is little room */
    public static Figures of(double[] values, double needed, int digits) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : values) {
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
        }
        if (least > greatest) {
            return new Figures(0, 0);
        }
        double size = Math.max(Math.abs(least), Math.abs(greatest));
        int power = power(size);
        double unit = Math.pow(10, power);
        // Values that are the same but for their round-off have no spread to show.
        double spread = greatest - least > 1e-12 * size ? greatest - least : size;
        int decimals = decimals(spread / unit, digits);
        if (needed > 0 && Double.isFinite(needed)) {
            decimals = Math.max(decimals, decimals(needed / unit, 1));
        }
        // A double holds no more than fifteen digits.
        decimals = Math.clamp(decimals, 0, Math.max(0, 14 - magnitude(size / unit)));
        return new Figures(decimals, power).shortened(values, needed > 0 ? decimals(needed / unit, 1) : 0);
    }

    /** One number alone, to so many significant digits, without zeros at its end. */
    public static Figures of(double v, int digits) {
        if (v == 0 || !Double.isFinite(v)) {
            return new Figures(0, 0);
        }
        int power = power(Math.abs(v));
        int decimals = Math.clamp(decimals(v / Math.pow(10, power), digits), 0, MOST);
        return new Figures(decimals, power).shortened(new double[] {v}, 0);
    }

    /** One number whose last digit is the second of its uncertainty. */
    public static Figures within(double v, double uncertainty) {
        if (!(uncertainty > 0) || !Double.isFinite(uncertainty)) {
            return of(v, 6);
        }
        int power = power(Math.max(Math.abs(v), uncertainty));
        return new Figures(Math.clamp(decimals(uncertainty / Math.pow(10, power), 2), 0, MOST), power);
    }

    private static int power(double size) {
        return size >= 1e6 || size > 0 && size < 1e-4 ? magnitude(size) : 0;
    }

    private static int magnitude(double size) {
        return size == 0 ? 0 : (int) Math.floor(Math.log10(Math.abs(size)) + 1e-12);
    }

    private static int decimals(double v, int digits) {
        return v == 0 ? 0 : digits - 1 - magnitude(v);
    }

    private Figures shortened(double[] values, int keep) {
        int longest = Arrays.stream(values)
                .filter(Double::isFinite)
                .mapToInt(v -> Math.max(0, decimal(v).stripTrailingZeros().scale()))
                .max()
                .orElse(0);
        return new Figures(Math.min(decimals, Math.max(longest, Math.max(0, keep))), power);
    }

    private BigDecimal decimal(double v) {
        return BigDecimal.valueOf(v).scaleByPowerOfTen(-power).setScale(decimals, RoundingMode.HALF_EVEN);
    }

    /** A number for the window: a true minus, thin spaces, a dash for what is absent; the column's power stands in its head. */
    public String text(double v) {
        if (Double.isNaN(v)) {
            return "–";
        }
        if (Double.isInfinite(v)) {
            return v > 0 ? "∞" : "−∞";
        }
        BigDecimal d = decimal(v);
        String plain = d.abs().toPlainString();
        int point = plain.indexOf('.') < 0 ? plain.length() : plain.indexOf('.');
        var out = new StringBuilder(plain);
        if (point > 4) {
            for (int i = point - 3; i > 0; i -= 3) {
                out.insert(i, THIN);
            }
        }
        return (d.signum() < 0 ? "−" : "") + out;
    }

    /** The same with a sign on both sides of zero. */
    public String signed(double v) {
        String text = text(v);
        return v > 0 && text.chars().anyMatch(c -> c >= '1' && c <= '9') ? "+" + text : text;
    }

    /** The number with its power of ten behind it, where it stands alone. */
    public String whole(double v) {
        String text = text(v);
        return power == 0 || !Double.isFinite(v) || v == 0 ? text : text + "·10" + raised(power);
    }

    /** What stands in the head of a column: {@code 10⁶}, or blank where there is no power. */
    public String head() {
        return power == 0 ? "" : "10" + raised(power);
    }

    /** For a terminal, to be copied from: a point, a plain minus and {@code e-07}. */
    public String plain(double v) {
        if (!Double.isFinite(v)) {
            return Double.isNaN(v) ? "-" : String.valueOf(v);
        }
        String text = decimal(v).toPlainString();
        return power == 0 || v == 0 ? text : text + String.format(Locale.ROOT, "e%+03d", power);
    }

    /** The same with zeros at its end up to so many significant digits, as a table wants them that states its digits. */
    public String padded(double v, int digits) {
        return v == 0 || !Double.isFinite(v)
                ? plain(v)
                : new Figures(Math.clamp(decimals(v / Math.pow(10, power), digits), 0, MOST), power).plain(v);
    }

    private static String raised(int n) {
        var out = new StringBuilder(n < 0 ? "⁻" : "");
        for (char c : String.valueOf(Math.abs(n)).toCharArray()) {
            out.append(RAISED.charAt(c - '0'));
        }
        return out.toString();
    }
}
