package lane.unit;

import java.util.Arrays;

/**
 * A physical dimension: exponents of metre, kilogram, second, ampere, kelvin, mole and candela. Exponents are rational
 * and kept as whole numbers of sixtieths, which holds every root from the second to the sixth exactly.
 */
public final class Dimension {
    private static final int PART = 60;
    private static final String[] SYMBOL = {"m", "kg", "s", "A", "K", "mol", "cd"};
    public static final Dimension NONE = new Dimension(new int[7]);
    /** Of what has no known unit; it equals itself and combines with nothing. */
    static final Dimension UNKNOWN = new Dimension(new int[0]);

    private final int[] sixtieths;

    private Dimension(int[] sixtieths) {
        this.sixtieths = sixtieths;
    }

    /** The dimension of base unit {@code index} in the order metre, kilogram, second, ampere, kelvin, mole, candela. */
    static Dimension base(int index) {
        int[] e = new int[7];
        e[index] = PART;
        return new Dimension(e);
    }

    /** One by its exponents as {@link #sixtieths} tells them. */
    public static Dimension of(int[] sixtieths) {
        return sixtieths.length == 0 ? UNKNOWN : new Dimension(Arrays.copyOf(sixtieths, 7));
    }

    /** The exponents in sixtieths, in the order metre, kilogram, second, ampere, kelvin, mole, candela; none where unknown. */
    public int[] sixtieths() {
        return sixtieths.clone();
    }

    public Dimension times(Dimension other) {
        return combine(other, 1);
    }

    public Dimension over(Dimension other) {
        return combine(other, -1);
    }

    private Dimension combine(Dimension other, int sign) {
        int[] e = new int[7];
        for (int i = 0; i < 7; i++) {
            e[i] = Math.addExact(sixtieths[i], Math.multiplyExact(sign, other.sixtieths[i]));
        }
        return new Dimension(e);
    }

    /** @throws ArithmeticException when an exponent is no whole number of sixtieths */
    public Dimension power(int numerator, int denominator) {
        int[] e = new int[7];
        for (int i = 0; i < 7; i++) {
            int scaled = Math.multiplyExact(sixtieths[i], numerator);
            if (scaled % denominator != 0) {
                throw new ArithmeticException("exponent " + numerator + "/" + denominator + " is too fine");
            }
            e[i] = scaled / denominator;
        }
        return new Dimension(e);
    }

    /** Exponent of a base unit, in the order metre, kilogram, second, ampere, kelvin, mole, candela. */
    double exponent(int index) {
        return (double) sixtieths[index] / PART;
    }

    /** The exponent's size as it stands behind a symbol; nothing for one. */
    String exponentText(int index) {
        int e = Math.abs(sixtieths[index]);
        if (e % PART == 0) {
            return e == PART ? "" : String.valueOf(e / PART);
        }
        int g = gcd(e, PART);
        return "^(" + e / g + "/" + PART / g + ")";
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Dimension d && Arrays.equals(sixtieths, d.sixtieths);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(sixtieths);
    }

    /** For example {@code kg m-1 s-2}, or {@code 1}. */
    @Override
    public String toString() {
        var text = new StringBuilder();
        for (int i = 0; i < sixtieths.length; i++) {
            if (sixtieths[i] != 0) {
                text.append(text.isEmpty() ? "" : " ").append(SYMBOL[i]);
                if (sixtieths[i] % PART == 0) {
                    text.append(sixtieths[i] == PART ? "" : String.valueOf(sixtieths[i] / PART));
                } else {
                    int g = gcd(Math.abs(sixtieths[i]), PART);
                    text.append('^').append(sixtieths[i] / g).append('/').append(PART / g);
                }
            }
        }
        return equals(UNKNOWN) ? "?" : text.isEmpty() ? "1" : text.toString();
    }

    private static int gcd(int a, int b) {
        return b == 0 ? a : gcd(b, a % b);
    }
}
