package lane.formats.table;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * A number of digits alone, with a decimal mark and an exponent where it has them: what nearly all cells of tables are. One
 * reader reads many, one after the other.
 */
final class Digits {
    private static final int MOST = 60;

    private static final double[] TENS = {
        1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19,
        1e20, 1e21, 1e22
    };

    /** A power of ten that is a double, up to 22. */
    static double ten(int power) {
        return TENS[power];
    }

    private byte[] text = {};
    private int from;
    private int to;
    private char mark;
    /** All digits before the exponent as one number, of so few that it is one. */
    private long all;

    private int whole;
    /** Digits behind the mark; -1 where there is no mark. */
    private int part;

    private boolean zeros;
    private boolean exponent;
    private int power;

    /** @return null for what is written otherwise, such as with groups of digits, or is no number */
    static @Nullable Digits of(String s, char mark) {
        var out = new Digits();
        // A letter of more bits becomes a question mark, which is in no number either.
        byte[] letters = s.getBytes(StandardCharsets.ISO_8859_1);
        return out.take(letters, 0, letters.length, mark) == letters.length ? out : null;
    }

    /** Reads what begins at a place, up to what belongs to no number; returns where that stands, or -1 where there is no number. */
    int take(byte[] s, int begin, int end, char decimal) {
        if (begin >= end) {
            return -1;
        }
        text = s;
        from = begin;
        to = end;
        mark = decimal;
        all = 0;
        int i = begin;
        byte first = s[i];
        i += first == '-' || first == '+' ? 1 : 0;
        int at = digits(i);
        whole = at - i;
        zeros = all == 0;
        part = -1;
        if (at < end && s[at] == mark) {
            i = at + 1;
            at = digits(i);
            part = at - i;
        }
        if (whole == 0 && part <= 0) {
            return -1;
        }
        exponent = at < end && letter(s[at]);
        power = 0;
        at = exponent ? power(at + 1) : at;
        to = at;
        return at - begin > MOST ? -1 : at;
    }

    /** Some programs write the exponent of double precision with a D. */
    private static boolean letter(byte e) {
        return e == 'e' || e == 'E' || e == 'd' || e == 'D';
    }

    /** Goes on over digits. */
    private int digits(int begin) {
        byte[] s = text;
        int end = to;
        long sum = all;
        int i = begin;
        while (i < end) {
            int d = s[i] - '0';
            if (d < 0 || d > 9) {
                break;
            }
            sum = 10 * sum + d;
            i++;
        }
        all = sum;
        return i;
    }

    private int power(int begin) {
        int i = begin;
        boolean negative = i < to && text[i] == '-';
        i += negative || i < to && text[i] == '+' ? 1 : 0;
        int first = i;
        while (i < to) {
            int d = text[i] - '0';
            if (d < 0 || d > 9) {
                break;
            }
            power = Math.min(10 * power + d, 100_000);
            i++;
        }
        power = negative ? -power : power;
        return i > first ? i : -1;
    }

    /** Whether it has a decimal mark. */
    boolean marked() {
        return part >= 0;
    }

    /** Whether a mark in it can only be the decimal one: three digits behind it might be a group. */
    boolean surelyDecimal() {
        return part > 0 && (part != 3 || exponent || whole >= 4 || whole > 0 && zeros);
    }

    /** Whether its mark may part thousands as well. */
    boolean group() {
        return part == 3 && whole > 0 && whole < 4 && !zeros && !exponent;
    }

    /**
     * The nearest double. Of so few digits that they and the power of ten are doubles themselves it is their product or quotient,
     * which is rounded once (W. D. Clinger, 1990).
     */
    double value() {
        int scale = power - Math.max(0, part);
        if (whole + Math.max(0, part) <= 18 && all <= 1L << 53 && Math.abs(scale) < TENS.length) {
            double v = scale < 0 ? all / TENS[-scale] : all * TENS[scale];
            return text[from] == '-' ? -v : v;
        }
        String plain = new String(text, from, to - from, StandardCharsets.ISO_8859_1).replace(mark, '.');
        return Double.parseDouble(exponent ? plain.replace('d', 'e').replace('D', 'e') : plain);
    }
}
