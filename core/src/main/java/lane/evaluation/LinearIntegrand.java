package lane.evaluation;

import lane.base.Sum;

/**
 * What is linear in one quantity, as an integrand.
 *
 * @param ones whether the same integrals of one in place of its first component follow
 */
record LinearIntegrand(Linear what, boolean ones) implements SurfaceIntegral.Integrand {
    int sums() {
        return ones ? 2 * what.sums() : what.sums();
    }

    @Override
    public boolean placed() {
        return what.placed();
    }

    @Override
    public void add(SurfacePoints at, Sum[] to) {
        for (int k = 0; k < what.sums(); k++) {
            for (int c = 0; c < at.value[0].length; c++) {
                double[] counts = what.counts(at, k, c);
                if (counts != null) {
                    to[k].addProducts(at.value[0][c], counts, at.n);
                }
                if (counts != null && ones && c == 0) {
                    to[what.sums() + k].add(counts, at.n);
                }
            }
        }
    }

    /**
     * Adds a component whose first moments stand in place of places.
     *
     * @param mean of it, over each face
     * @param first the sum that the first integral belongs to
     */
    void addMoments(SurfacePoints at, double[] mean, int component, Sum[] to, int first) {
        for (int k = 0; k < what.sums(); k++) {
            double[] counts = what.counts(at, k, component);
            if (counts == null) {
                continue;
            }
            if (what.placed(k)) {
                to[first + k].add(counts, at.n);
            } else {
                to[first + k].addProducts(mean, counts, at.n);
            }
        }
    }
}
