package lane.evaluation;

import lane.base.Sum;

/**
 * How large a number or vector is wherever it points.
 *
 * @param factor times which its components are counted
 * @param shift added to each
 */
record SizeIntegrand(double factor, double shift) implements SurfaceIntegral.Integrand {
    @Override
    public boolean placed() {
        return false;
    }

    @Override
    public void add(SurfacePoints at, Sum[] sums) {
        double[] size = at.term;
        java.util.Arrays.fill(size, 0, at.n, 0);
        for (double[] component : at.value[0]) {
            addSquares(component, size, at.n);
        }
        roots(size, at.n);
        at.addTimesArea(size, sums[0]);
    }

    /** Adds the square of a component to each of what was added of the others. */
    void addSquares(double[] component, double[] to, int n) {
        for (int i = 0; i < n; i++) {
            double v = factor * component[i] + shift;
            to[i] += v * v;
        }
    }

    static void roots(double[] of, int n) {
        for (int i = 0; i < n; i++) {
            of[i] = Math.sqrt(of[i]);
        }
    }
}
