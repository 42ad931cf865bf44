package lane.formats.io;

/**
 * Numbers as people and programs write them, to the nearest double. Up to 15 digits and powers of ten up to 22 are exact
 * doubles, so that one multiplication or division rounds once and rightly (W. D. Clinger, "How to read floating point numbers
 * accurately", 1990); all else is left to the platform, which takes several times as long.
 */
public final class Decimal {
    private static final double[] TEN = new double[23];

    static {
        double ten = 1;
        for (int i = 0; i < TEN.length; i++) {
            TEN[i] = ten;
            ten *= 10;
        }
    }

    private Decimal() {}

    /**
     * @param text holds the number in its first characters
     * @param n how many they are
     * @throws NumberFormatException if that is no number
     */
    public static double of(char[] text, int n) {
        int at = n > 0 && (text[0] == '-' || text[0] == '+') ? 1 : 0;
        long whole = 0;
        int seen = 0;
        int digits = 0;
        int point = -1;
        for (; at < n; at++) {
            int c = text[at] - '0';
            if (c >= 0 && c <= 9) {
                whole = 10 * whole + c;
                seen++;
                // Zeros in front count for nothing.
                digits += whole == 0 ? 0 : 1;
                if (digits > 15) {
                    return platform(text, n);
                }
                point += point < 0 ? 0 : 1;
            } else if (text[at] == '.' && point < 0) {
                point = 0;
            } else {
                break;
            }
        }
        int exponent = -Math.max(0, point);
        boolean sound = seen > 0;
        if (sound && at < n && (text[at] == 'e' || text[at] == 'E')) {
            boolean signed = at + 1 < n && (text[at + 1] == '-' || text[at + 1] == '+');
            int from = signed ? at + 2 : at + 1;
            int power = 0;
            for (at = from; at < n && at < from + 4 && text[at] >= '0' && text[at] <= '9'; at++) {
                power = 10 * power + text[at] - '0';
            }
            sound = at > from;
            exponent += signed && text[from - 1] == '-' ? -power : power;
        }
        if (!sound || at < n || exponent < -22 || exponent > 22) {
            return platform(text, n);
        }
        double size = exponent < 0 ? whole / TEN[-exponent] : whole * TEN[exponent];
        return text[0] == '-' ? -size : size;
    }

    private static double platform(char[] text, int n) {
        var all = new String(text, 0, n);
        // The platform takes letters of its own language behind a number, which are damage here.
        if (n == 0 || "dDfF".indexOf(text[n - 1]) >= 0) {
            throw new NumberFormatException(all);
        }
        return Double.parseDouble(all);
    }
}
