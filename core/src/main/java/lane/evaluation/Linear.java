package lane.evaluation;

import org.jspecify.annotations.Nullable;

/**
 * An integrand over faces that is linear in the components of one quantity, such as a pressure times the normal. What it counts
 * at a place depends on the place and the area vector alone, so that on a mesh that does not change it can be found once.
 * Equal for equal integrands.
 */
public interface Linear {
    /** How many integrals it has. */
    int sums();

    /** The degree of the integrand as a polynomial within a face, from that of the quantity. */
    int degree(int quantity);

    /** Whether it looks at where points are. */
    boolean placed();

    /** Whether one of its integrals does. */
    default boolean placed(int sum) {
        return placed();
    }

    /**
     * What one component counts in one of the integrals, at each point, the area included; null where it never does. The array is
     * the points' own, or {@link SurfacePoints#term}.
     */
    double @Nullable [] counts(SurfacePoints at, int sum, int component);

    /** The quantity times the area: its integral. */
    record Area() implements Linear {
        @Override
        public int sums() {
            return 1;
        }

        /** On a bent quad the area itself is no polynomial. */
        @Override
        public int degree(int quantity) {
            return lane.formula.Program.NO_POLYNOMIAL;
        }

        @Override
        public boolean placed() {
            return false;
        }

        @Override
        public double[] counts(SurfacePoints at, int sum, int component) {
            return at.area();
        }
    }

    /** A vector times the area vector: what flows through. */
    record Through() implements Linear {
        @Override
        public int sums() {
            return 1;
        }

        @Override
        public int degree(int quantity) {
            return quantity;
        }

        @Override
        public boolean placed() {
            return false;
        }

        @Override
        public double[] counts(SurfacePoints at, int sum, int component) {
            return at.along(component);
        }
    }
}
