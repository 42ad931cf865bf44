package lane.evaluation;

/**
 * Numbers that are known at places of space without a mesh, such as those of a theory. Two that are equal give equal
 * numbers.
 */
public interface Anywhere {
    /** For people: where its numbers come from. */
    String word();

    /**
     * Writes one number a place in SI units, NaN where there is none. Called by several threads.
     *
     * @param x coordinates of {@code n} places in metres, with {@code y} and {@code z}
     */
    void at(double[] x, double[] y, double[] z, int n, double[] into);

    /** The same of one of several components; what has one only writes that. */
    default void at(int component, double[] x, double[] y, double[] z, int n, double[] into) {
        at(x, y, z, n, into);
    }
}
