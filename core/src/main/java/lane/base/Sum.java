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
            double x = weights == null ? values[i] : weights[from + i] * values[i];
            double t = a + x;
            double z = t - a;
            lostA += (a - (t - z)) + (x - z);
            a = t;
            x = weights == null ? values[i + 1] : weights[from + i + 1] * values[i + 1];
            t = b + x;
            z = t - b;
            lostB += (b - (t - z)) + (x - z);
            b = t;
            x = weights == null ? values[i + 2] : weights[from + i + 2] * values[i + 2];
            t = c + x;
            z = t - c;
            lostC += (c - (t - z)) + (x - z);
            c = t;
            x = weights == null ? values[i + 3] : weights[from + i + 3] * values[i + 3];
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
            add(weights == null ? values[i] : weights[from + i] * values[i]);
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
