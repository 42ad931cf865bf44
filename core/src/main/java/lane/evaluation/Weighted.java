package lane.evaluation;

import lane.base.Sum;
import lane.unit.Unit;

/**
 * The values of a quantity over something, each with the size that it stands for: quadrature points of faces or cells, samples of a
 * path, points. Sums over them are made in one order, whatever the number of threads.
 */
public interface Weighted {
    /** What one value adds to the sums. */
    @FunctionalInterface
    interface Each {
        /** @param value in SI units */
        void add(double value, double weight, Sum[] sums);
    }

    /**
     * @param what tells this from all other sums over the same values, by value
     * @param n number of sums
     */
    double[] sums(Object what, int n, Each each);

    /** Of the quantity. */
    BoundQuantity bound();

    default Unit unit() {
        return bound().unit();
    }
}
