package lane.base;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** A compensated sum (Neumaier 1974): the rounding error of each addition is kept and added at the end. */
public final class Sum {
    private double sum;
    private double lost;

    public void add(double value) {
        double t = sum + value;
        lost += Math.abs(sum) >= Math.abs(value) ? (sum - t) + value : (value - t) + sum;
        sum = t;
    }

    /**
     * Adds the first n of them: four sums side by side, each with its rounding error without a branch (Knuth 1969), which is
     * several times quicker than one after the other and the same on every machine.
     */
    public void add(double[] values, int n) {
        addProducts(values, null, n);
    }

    /**
     * Adds the products of the first n of them.
     *
     * @param weights null for one each
     */
    public void addProducts(double[] values, double @Nullable [] weights, int n) {
        addProducts(values, weights, 0, n);
    }

    /**
     * Adds the products of the first n of them with weights that begin elsewhere.
     *
     * @param from where the first weight stands
     */
    public void addProducts(double[] values, double @Nullable [] weights, int from, int n) {
        if (weights == null) {
            few(values, 0, null, from, n);
        } else {
            addProducts(values, 0, weights, from, n);
        }
    }

    /** Sums side by side of many products, as many as the nearest cache holds. */
    private static final int SIDE = 256;

    private static final int MANY = 16 * SIDE;

    /**
     * Adds the products of n values and weights that each begin somewhere. Of many there are {@value #SIDE} sums side by side, of
     * which a processor does several at once; each has its rounding error as above.
     */
    public void addProducts(double[] values, int first, double[] weights, int from, int n) {
        int many = n < MANY ? 0 : n / SIDE * SIDE;
        if (many > 0) {
            double[] x = new double[SIDE];
            double[] sums = new double[SIDE];
            double[] errors = new double[SIDE];
            for (int i = 0; i < many; i += SIDE) {
                multiply(values, first + i, weights, from + i, x);
                add(x, sums, errors);
            }
            few(sums, 0, null, 0, SIDE);
            for (double error : errors) {
                lost += error;
            }
        }
        few(values, first + many, weights, from + many, n - many);
    }

    private static void multiply(double[] a, int from, double[] b, int at, double[] into) {
        for (int k = 0; k < SIDE; k++) {
            into[k] = a[from + k] * b[at + k];
        }
    }

    private static void add(double[] x, double[] sums, double[] errors) {
        for (int k = 0; k < SIDE; k++) {
            double a = sums[k];
            double t = a + x[k];
            double z = t - a;
            errors[k] += (a - (t - z)) + (x[k] - z);
            sums[k] = t;
        }
    }

    private void few(double[] values, int first, double @Nullable [] weights, int from, int n) {
        double a = 0;
        double b = 0;
        double c = 0;
        double d = 0;
        double lostA = 0;
        double lostB = 0;
        double lostC = 0;
        double lostD = 0;
        int i = 0;
        for (; i + 3 < n; i += 4) {
            double x = weights == null ? values[first + i] : weights[from + i] * values[first + i];
            double t = a + x;
            double z = t - a;
            lostA += (a - (t - z)) + (x - z);
            a = t;
            x = weights == null ? values[first + i + 1] : weights[from + i + 1] * values[first + i + 1];
            t = b + x;
            z = t - b;
            lostB += (b - (t - z)) + (x - z);
            b = t;
            x = weights == null ? values[first + i + 2] : weights[from + i + 2] * values[first + i + 2];
            t = c + x;
            z = t - c;
            lostC += (c - (t - z)) + (x - z);
            c = t;
            x = weights == null ? values[first + i + 3] : weights[from + i + 3] * values[first + i + 3];
            t = d + x;
            z = t - d;
            lostD += (d - (t - z)) + (x - z);
            d = t;
        }
        add(a);
        add(b);
        add(c);
        add(d);
        for (; i < n; i++) {
            add(weights == null ? values[first + i] : weights[from + i] * values[first + i]);
        }
        lost += lostA + lostB + (lostC + lostD);
    }

    public double value() {
        // An infinite sum has a NaN in the lost part; the sum itself is then the honest answer.
        return Double.isFinite(sum) ? sum + lost : sum;
    }

    /** So many sums of nothing. */
    public static Sum[] fresh(int n) {
        Sum[] out = new Sum[n];
        Arrays.setAll(out, i -> new Sum());
        return out;
    }

    /** All of them together. */
    public static double of(double[] values) {
        var all = new Sum();
        all.add(values, values.length);
        return all.value();
    }

    public static double[] values(Sum[] sums) {
        return Arrays.stream(sums).mapToDouble(Sum::value).toArray();
    }
}
