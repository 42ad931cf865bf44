package lane.formats.table;

import org.jspecify.annotations.Nullable;

/**
 * A number of digits alone, with a decimal mark and an exponent where it has them: what nearly all cells of tables are.
 *
 * @param whole digits before the mark
 * @param part digits behind it; -1 where there is no mark
 */
record Digits(String text, char mark, int whole, int part, boolean exponent) {
    private static final int MOST = 60;

    /** @return null for what is written otherwise, such as with groups of digits, or is no number */
    static @Nullable Digits of(String s, char mark) {
        int n = s.length();
        if (n == 0 || n > MOST) {
            return null;
        }
        int i = s.charAt(0) == '-' || s.charAt(0) == '+' ? 1 : 0;
        int from = i;
        while (i < n && digit(s.charAt(i))) {
            i++;
        }
        int whole = i - from;
        int part = -1;
        if (i < n && s.charAt(i) == mark) {
            from = ++i;
            while (i < n && digit(s.charAt(i))) {
                i++;
            }
            part = i - from;
        }
        if (whole == 0 && part <= 0) {
            return null;
        }
        boolean exponent = i < n;
        if (exponent) {
            char e = s.charAt(i++);
            if (e != 'e' && e != 'E' && e != 'd' && e != 'D') {
                return null;
            }
            if (i < n && (s.charAt(i) == '-' || s.charAt(i) == '+')) {
                i++;
            }
            from = i;
            while (i < n && digit(s.charAt(i))) {
                i++;
            }
            if (i < n || i == from) {
                return null;
            }
        }
        return new Digits(s, mark, whole, part, exponent);
    }

    private static boolean digit(char c) {
        return c >= '0' && c <= '9';
    }

    private static final double[] TENS = {
        1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18
    };

    /**
     * The nearest double of so few digits that they and the power of ten beneath them are doubles themselves: a quotient of two
     * such is rounded once (W. D. Clinger, 1990). NaN where there are more.
     */
    private double quick() {
        int digits = whole + Math.max(0, part);
        if (digits > 18) {
            return Double.NaN;
        }
        long all = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            all = digit(c) ? 10 * all + (c - '0') : all;
        }
        if (all > 1L << 53) {
            return Double.NaN;
        }
        double v = all / TENS[Math.max(0, part)];
        return text.charAt(0) == '-' ? -v : v;
    }

    /** Whether a mark in it can only be the decimal one: three digits behind it might be a group. */
    boolean surelyDecimal() {
        return part > 0 && (part != 3 || exponent || whole >= 4 || whole > 0 && zeros());
    }

    private boolean zeros() {
        int from = text.charAt(0) == '-' || text.charAt(0) == '+' ? 1 : 0;
        for (int i = from; i < from + whole; i++) {
            if (text.charAt(i) != '0') {
                return false;
            }
        }
        return true;
    }

    double value() {
        double quick = exponent ? Double.NaN : quick();
        if (!Double.isNaN(quick)) {
            return quick;
        }
        // Some programs write the exponent of double precision with a D.
        String plain = mark == '.' ? text : text.replace(mark, '.');
        return Double.parseDouble(exponent ? plain.replace('d', 'e').replace('D', 'e') : plain);
    }
}
