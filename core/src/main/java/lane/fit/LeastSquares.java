package lane.fit;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Arrays;
import lane.base.LaneException;

/**
 * Least squares by the normal equations in 120 decimal digits: what is lost of them to the condition of a polynomial of degree ten,
 * or of abscissas far from zero, is then no part of a double. Sums go in the order of the samples, so the result is the same to the
 * bit everywhere. Formulas: docs/METHODS.md.
 */
public final class LeastSquares {
    /** Polynomials of a higher degree say nothing about measured numbers. */
    public static final int HIGHEST = 20;

    private static final MathContext DIGITS = new MathContext(120);
    /** Powers of centred abscissas are rounded here; half of the digits remain after the equations are solved. */
    private static final MathContext POWERS = new MathContext(80);

    private LeastSquares() {}

    /**
     * A polynomial.
     *
     * @throws LaneException when there are fewer samples or different abscissas than coefficients, or a number is not finite
     */
    public static Fit polynomial(double[] x, double[] y, int degree) {
        if (degree < 0 || degree > HIGHEST) {
            throw new LaneException(
                    "A polynomial of degree " + degree + " is not fitted; give a degree from 0 to " + HIGHEST + ".");
        }
        long different = Arrays.stream(x).distinct().count();
        if (different <= degree) {
            throw new LaneException("A polynomial of degree " + degree + " has " + (degree + 1)
                    + " coefficients, but the samples have " + different
                    + (different == 1 ? " abscissa" : " different abscissas")
                    + "; give more of them, or a lower degree.");
        }
        // About a middle and in units of the extent the equations are well conditioned; both are exact numbers.
        double least = Arrays.stream(x).min().orElseThrow();
        double greatest = Arrays.stream(x).max().orElseThrow();
        BigDecimal middle = new BigDecimal(least / 2 + greatest / 2);
        BigDecimal extent = new BigDecimal(degree == 0 ? 1 : Math.scalb(1.0, Math.getExponent(greatest - least)));
        int p = degree + 1;
        int n = x.length;
        BigDecimal[] powers = zeros(2 * degree + 1);
        BigDecimal[] right = zeros(p);
        var total = BigDecimal.ZERO;
        var square = BigDecimal.ZERO;
        BigDecimal[] t = new BigDecimal[n];
        for (int i = 0; i < n; i++) {
            BigDecimal value = exact(y[i]);
            t[i] = exact(x[i]).subtract(middle).divide(extent, POWERS);
            var power = BigDecimal.ONE;
            for (int k = 0; k <= 2 * degree; k++) {
                powers[k] = powers[k].add(power, DIGITS);
                if (k < p) {
                    right[k] = right[k].add(power.multiply(value, POWERS), DIGITS);
                }
                power = power.multiply(t[i], POWERS);
            }
            total = total.add(value);
            square = square.add(value.multiply(value));
        }
        BigDecimal[][] normal = new BigDecimal[p][p];
        for (int j = 0; j < p; j++) {
            for (int k = 0; k < p; k++) {
                normal[j][k] = powers[j + k];
            }
        }
        BigDecimal[][] inverse = inverse(normal);
        BigDecimal[] own = times(inverse, right);
        double[] residuals = new double[n];
        for (int i = 0; i < n; i++) {
            var fit = BigDecimal.ZERO;
            for (int k = degree; k >= 0; k--) {
                fit = fit.multiply(t[i], DIGITS).add(own[k], DIGITS);
            }
            residuals[i] = exact(y[i]).subtract(fit, DIGITS).doubleValue();
        }
        BigDecimal[][] back = powersOf(middle, extent, p);
        return fit(own, inverse, back, square, dot(own, right), total, residuals);
    }

    /**
     * A sum of given columns with coefficients; a constant is a column of ones.
     *
     * @param columns one number a sample each
     * @throws LaneException when there are too few samples, a column follows from the others, or a number is not finite
     */
    public static Fit of(double[][] columns, double[] y) {
        int p = columns.length;
        int n = y.length;
        if (n < p) {
            throw new LaneException(
                    "A fit of " + p + " coefficients needs at least as many samples; there are " + n + ".");
        }
        BigDecimal[][] normal = new BigDecimal[p][];
        for (int j = 0; j < p; j++) {
            normal[j] = zeros(p);
        }
        BigDecimal[] right = zeros(p);
        var total = BigDecimal.ZERO;
        var square = BigDecimal.ZERO;
        BigDecimal[] row = new BigDecimal[p];
        for (int i = 0; i < n; i++) {
            BigDecimal value = exact(y[i]);
            for (int j = 0; j < p; j++) {
                row[j] = exact(columns[j][i]);
                right[j] = right[j].add(row[j].multiply(value), DIGITS);
                for (int k = 0; k <= j; k++) {
                    normal[j][k] = normal[j][k].add(row[j].multiply(row[k]), DIGITS);
                    normal[k][j] = normal[j][k];
                }
            }
            total = total.add(value);
            square = square.add(value.multiply(value));
        }
        BigDecimal[][] inverse = inverse(normal);
        BigDecimal[] own = times(inverse, right);
        double[] residuals = new double[n];
        for (int i = 0; i < n; i++) {
            var fit = BigDecimal.ZERO;
            for (int k = 0; k < p; k++) {
                fit = fit.add(own[k].multiply(exact(columns[k][i]), DIGITS), DIGITS);
            }
            residuals[i] = exact(y[i]).subtract(fit, DIGITS).doubleValue();
        }
        BigDecimal[][] same = new BigDecimal[p][];
        for (int j = 0; j < p; j++) {
            same[j] = zeros(p);
            same[j][j] = BigDecimal.ONE;
        }
        return fit(own, inverse, same, square, dot(own, right), total, residuals);
    }

    /** @param back takes the coefficients that were solved for to those that are asked for */
    private static Fit fit(
            BigDecimal[] own,
            BigDecimal[][] inverse,
            BigDecimal[][] back,
            BigDecimal square,
            BigDecimal explained,
            BigDecimal total,
            double[] residuals) {
        int n = residuals.length;
        int p = own.length;
        BigDecimal left = square.subtract(explained, DIGITS);
        // What is fitted exactly leaves the round-off of the digits.
        boolean none = left.signum() <= 0 || left.compareTo(square.scaleByPowerOfTen(-40)) < 0;
        double ssr = none ? 0 : left.doubleValue();
        var many = new BigDecimal(n);
        BigDecimal scatter = square.subtract(total.multiply(total, DIGITS).divide(many, DIGITS), DIGITS);
        boolean flat = scatter.signum() <= 0 || scatter.compareTo(square.scaleByPowerOfTen(-40)) < 0;
        double deviation = n > p ? Math.sqrt(ssr / (n - p)) : Double.NaN;
        BigDecimal[] asked = times(back, own);
        double[] errors = new double[p];
        for (int j = 0; j < p; j++) {
            var sum = BigDecimal.ZERO;
            for (int k = 0; k < p; k++) {
                for (int l = 0; l < p; l++) {
                    sum = sum.add(back[j][k].multiply(inverse[k][l], DIGITS).multiply(back[j][l], DIGITS), DIGITS);
                }
            }
            errors[j] = deviation * Math.sqrt(Math.max(0, sum.doubleValue()));
        }
        double[] coefficients =
                Arrays.stream(asked).mapToDouble(BigDecimal::doubleValue).toArray();
        double r2 = flat ? Double.NaN : 1 - ssr / scatter.doubleValue();
        return new Fit(coefficients, errors, deviation, r2, none ? new double[n] : residuals);
    }

    /** Coefficients of powers of x from those of powers of {@code (x - middle) / extent}: row j, column k. */
    private static BigDecimal[][] powersOf(BigDecimal middle, BigDecimal extent, int p) {
        BigDecimal[][] out = new BigDecimal[p][];
        for (int j = 0; j < p; j++) {
            out[j] = zeros(p);
        }
        var scale = BigDecimal.ONE;
        for (int k = 0; k < p; k++) {
            // (x - m)^k by the binomial theorem.
            var choose = BigDecimal.ONE;
            var shift = BigDecimal.ONE;
            for (int j = k; j >= 0; j--) {
                out[j][k] = choose.multiply(shift, DIGITS).multiply(scale, DIGITS);
                choose = choose.multiply(new BigDecimal(j)).divide(new BigDecimal(k - j + 1), DIGITS);
                shift = shift.multiply(middle.negate(), DIGITS);
            }
            scale = scale.divide(extent, DIGITS);
        }
        return out;
    }

    private static BigDecimal exact(double v) {
        if (!Double.isFinite(v)) {
            throw new LaneException("A fit needs finite numbers; leave out the samples that have none.");
        }
        return new BigDecimal(v);
    }

    private static BigDecimal[] zeros(int n) {
        BigDecimal[] out = new BigDecimal[n];
        Arrays.fill(out, BigDecimal.ZERO);
        return out;
    }

    private static BigDecimal dot(BigDecimal[] a, BigDecimal[] b) {
        var sum = BigDecimal.ZERO;
        for (int i = 0; i < a.length; i++) {
            sum = sum.add(a[i].multiply(b[i], DIGITS), DIGITS);
        }
        return sum;
    }

    private static BigDecimal[] times(BigDecimal[][] m, BigDecimal[] v) {
        return Arrays.stream(m).map(row -> dot(row, v)).toArray(BigDecimal[]::new);
    }

    /** Gauss and Jordan with the largest element of a column as its pivot. */
    private static BigDecimal[][] inverse(BigDecimal[][] of) {
        int n = of.length;
        BigDecimal[][] a = new BigDecimal[n][];
        for (int i = 0; i < n; i++) {
            a[i] = Arrays.copyOf(of[i], 2 * n);
            Arrays.fill(a[i], n, 2 * n, BigDecimal.ZERO);
            a[i][n + i] = BigDecimal.ONE;
        }
        for (int c = 0; c < n; c++) {
            int pivot = c;
            for (int r = c + 1; r < n; r++) {
                pivot = a[r][c].abs().compareTo(a[pivot][c].abs()) > 0 ? r : pivot;
            }
            BigDecimal[] row = a[pivot];
            a[pivot] = a[c];
            a[c] = row;
            // What is left of a column that follows from the others is the round-off of its digits.
            if (row[c].abs().compareTo(of[c][c].abs().scaleByPowerOfTen(-60)) <= 0) {
                throw new LaneException(
                        "The coefficients of a fit cannot be told apart: one of its columns follows from the"
                                + " others; leave it out.");
            }
            BigDecimal by = BigDecimal.ONE.divide(row[c], DIGITS);
            for (int k = c; k < 2 * n; k++) {
                row[k] = row[k].multiply(by, DIGITS);
            }
            for (int r = 0; r < n; r++) {
                BigDecimal f = a[r][c];
                if (r != c && f.signum() != 0) {
                    for (int k = c; k < 2 * n; k++) {
                        a[r][k] = a[r][k].subtract(f.multiply(row[k], DIGITS), DIGITS);
                    }
                }
            }
        }
        BigDecimal[][] out = new BigDecimal[n][];
        for (int i = 0; i < n; i++) {
            out[i] = Arrays.copyOfRange(a[i], n, 2 * n);
        }
        return out;
    }
}
