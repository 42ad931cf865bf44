package lane.mesh;

/**
 * Shape functions and their derivatives on the reference domains of {@link CellShape}. They sum to one and reproduce
 * linear fields exactly on every shape; the quadratic ones are in {@link QuadraticShapes}. Kernels: no checks, no allocation.
 */
final class ShapeFunctions {
    /** Below this distance from a pyramid's apex its rational functions take their limit. */
    private static final double APEX = 1e-13;

    private ShapeFunctions() {}

    /** Writes the shape functions at {@code (r,s,t)} into {@code n}. */
    static void values(CellShape shape, double r, double s, double t, double[] n) {
        switch (shape) {
            case VERTEX -> n[0] = 1;
            case LINE -> {
                n[0] = 1 - r;
                n[1] = r;
            }
            case TRIANGLE -> {
                n[0] = 1 - r - s;
                n[1] = r;
                n[2] = s;
            }
            case QUAD -> quad(r, s, n, 2, 3);
            case PIXEL -> quad(r, s, n, 3, 2);
            case TETRAHEDRON -> {
                n[0] = 1 - r - s - t;
                n[1] = r;
                n[2] = s;
                n[3] = t;
            }
            case HEXAHEDRON -> hexa(r, s, t, n, 2, 3);
            case VOXEL -> hexa(r, s, t, n, 3, 2);
            case WEDGE -> {
                double q = 1 - r - s;
                n[0] = q * (1 - t);
                n[1] = r * (1 - t);
                n[2] = s * (1 - t);
                n[3] = q * t;
                n[4] = r * t;
                n[5] = s * t;
            }
            case PYRAMID -> {
                double h = 1 - t;
                double ab = Math.abs(h) < APEX ? 0 : r * s / h;
                n[0] = h - r - s + ab;
                n[1] = r - ab;
                n[2] = ab;
                n[3] = s - ab;
                n[4] = t;
            }
            default -> QuadraticShapes.values(shape, r, s, t, n);
        }
    }

    private static void quad(double r, double s, double[] n, int i2, int i3) {
        n[0] = (1 - r) * (1 - s);
        n[1] = r * (1 - s);
        n[i2] = r * s;
        n[i3] = (1 - r) * s;
    }

    private static void hexa(double r, double s, double t, double[] n, int i2, int i3) {
        double r0 = 1 - r;
        double s0 = 1 - s;
        double t0 = 1 - t;
        n[0] = r0 * s0 * t0;
        n[1] = r * s0 * t0;
        n[i2] = r * s * t0;
        n[i3] = r0 * s * t0;
        n[4] = r0 * s0 * t;
        n[5] = r * s0 * t;
        n[4 + i2] = r * s * t;
        n[4 + i3] = r0 * s * t;
    }

    /** Writes the derivatives by r, s and t at {@code (r,s,t)} into {@code d}, three to a node. */
    static void derivatives(CellShape shape, double r, double s, double t, double[] d) {
        switch (shape) {
            case LINE -> {
                set(d, 0, -1, 0, 0);
                set(d, 1, 1, 0, 0);
            }
            case TRIANGLE -> {
                set(d, 0, -1, -1, 0);
                set(d, 1, 1, 0, 0);
                set(d, 2, 0, 1, 0);
            }
            case QUAD -> quadDerivatives(r, s, d, 2, 3);
            case PIXEL -> quadDerivatives(r, s, d, 3, 2);
            case TETRAHEDRON -> {
                set(d, 0, -1, -1, -1);
                set(d, 1, 1, 0, 0);
                set(d, 2, 0, 1, 0);
                set(d, 3, 0, 0, 1);
            }
            case HEXAHEDRON -> hexaDerivatives(r, s, t, d, 2, 3);
            case VOXEL -> hexaDerivatives(r, s, t, d, 3, 2);
            case WEDGE -> {
                double q = 1 - r - s;
                double h = 1 - t;
                set(d, 0, -h, -h, -q);
                set(d, 1, h, 0, -r);
                set(d, 2, 0, h, -s);
                set(d, 3, -t, -t, q);
                set(d, 4, t, 0, r);
                set(d, 5, 0, t, s);
            }
            case PYRAMID -> {
                double h = 1 - t;
                if (Math.abs(h) < APEX) {
                    h = APEX;
                }
                double a = r / h;
                double b = s / h;
                set(d, 0, -1 + b, -1 + a, -1 + a * b);
                set(d, 1, 1 - b, -a, -a * b);
                set(d, 2, b, a, a * b);
                set(d, 3, -b, 1 - a, -a * b);
                set(d, 4, 0, 0, 1);
            }
            default -> QuadraticShapes.derivatives(shape, r, s, t, d);
        }
    }

    private static void quadDerivatives(double r, double s, double[] d, int i2, int i3) {
        set(d, 0, s - 1, r - 1, 0);
        set(d, 1, 1 - s, -r, 0);
        set(d, i2, s, r, 0);
        set(d, i3, -s, 1 - r, 0);
    }

    private static void hexaDerivatives(double r, double s, double t, double[] d, int i2, int i3) {
        double r0 = 1 - r;
        double s0 = 1 - s;
        double t0 = 1 - t;
        set(d, 0, -s0 * t0, -r0 * t0, -r0 * s0);
        set(d, 1, s0 * t0, -r * t0, -r * s0);
        set(d, i2, s * t0, r * t0, -r * s);
        set(d, i3, -s * t0, r0 * t0, -r0 * s);
        set(d, 4, -s0 * t, -r0 * t, r0 * s0);
        set(d, 5, s0 * t, -r * t, r * s0);
        set(d, 4 + i2, s * t, r * t, r * s);
        set(d, 4 + i3, -s * t, r0 * t, r0 * s);
    }

    private static void set(double[] d, int node, double dr, double ds, double dt) {
        d[3 * node] = dr;
        d[3 * node + 1] = ds;
        d[3 * node + 2] = dt;
    }
}
