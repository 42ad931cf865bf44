package lane.convergence;

import lane.base.LaneException;

/**
 * Order of accuracy against an exact value: the slope of the logarithm of the error over that of the size.
 *
 * @param order by least squares over all sizes
 * @param standardError of it; NaN for two sizes
 * @param between the orders from each size to the next, finest first
 * @param errors value minus exact, finest first
 */
public record AgainstExact(double order, double standardError, double[] between, double[] errors) {
    /**
     * @param h sizes, in any order
     * @throws LaneException where there are fewer than two, or a value is the exact one
     */
    public static AgainstExact of(double[] h, double[] values, double exact) {
        Refinement.require(h, values);
        int[] order = Refinement.finestFirst(h);
        int n = order.length;
        double[] x = new double[n];
        double[] y = new double[n];
        double[] errors = new double[n];
        double mx = 0;
        double my = 0;
        for (int i = 0; i < n; i++) {
            errors[i] = values[order[i]] - exact;
            if (errors[i] == 0) {
                throw new LaneException("A value is the exact one to the last digit, so its error has no order;"
                        + " leave that mesh out.");
            }
            x[i] = Math.log(h[order[i]]);
            y[i] = Math.log(Math.abs(errors[i]));
            mx += x[i] / n;
            my += y[i] / n;
        }
        double xx = 0;
        double xy = 0;
        double[] between = new double[n - 1];
        for (int i = 0; i < n; i++) {
            xx += (x[i] - mx) * (x[i] - mx);
            xy += (x[i] - mx) * (y[i] - my);
            if (i > 0) {
                between[i - 1] = (y[i] - y[i - 1]) / (x[i] - x[i - 1]);
            }
        }
        double slope = xy / xx;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double off = y[i] - my - slope * (x[i] - mx);
            squares += off * off;
        }
        double error = n < 3 ? Double.NaN : Math.sqrt(squares / (n - 2) / xx);
        return new AgainstExact(slope, error, between, errors);
    }
}
