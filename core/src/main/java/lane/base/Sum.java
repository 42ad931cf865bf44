package lane.base;

import java.util.Arrays;

/** A compensated sum (Neumaier 1974): the rounding error of each addition is kept and added at the end. */
public final class Sum {
    private double sum;
    private double lost;

    public void add(double value) {
        double t = sum + value;
        lost += Math.abs(sum) >= Math.abs(value) ? (sum - t) + value : (value - t) + sum;
        sum = t;
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

    public static double[] values(Sum[] sums) {
        return Arrays.stream(sums).mapToDouble(Sum::value).toArray();
    }
}
