package lane.mesh;

import java.util.concurrent.ConcurrentHashMap;

/**
 * Quadrature rules on the reference domains. A rule of degree {@code p} integrates every polynomial of total degree
 * {@code p} in the reference coordinates exactly; on a smooth integrand the error of cells of size h falls as
 * h^(p+1) or faster. Simplices and the pyramid take products of Gauss-Legendre rules drawn together to a point or an
 * edge (conical products): all weights are positive and all points inside.
 *
 * @param points reference coordinates, three to a point
 * @param weights sum to the measure of the reference domain
 */
public record Quadrature(double[] points, double[] weights) {
    private static final ConcurrentHashMap<Integer, Quadrature> MADE = new ConcurrentHashMap<>();

    /** The rule of at least the given degree (0 to 20) on a shape that has a reference domain. */
    public static Quadrature of(CellShape whole, int degree) {
        CellShape shape = whole.corners();
        if (degree < 0 || degree > 20 || !shape.hasReference()) {
            throw new IllegalArgumentException("no rule of degree " + degree + " on " + shape);
        }
        return MADE.computeIfAbsent(shape.ordinal() * 32 + degree, key -> make(shape, degree));
    }

    public int size() {
        return weights.length;
    }

    // Points of a tetrahedron's rule of degree 2 (P. C. Hammer and A. H. Stroud, 1956).
    private static final double NEAR = (5 - Math.sqrt(5)) / 20;
    private static final double FAR = 1 - 3 * NEAR;

    private static Quadrature make(CellShape shape, int degree) {
        // On simplices the low degrees have rules of the fewest points (G. Strang and G. J. Fix, 1973).
        if (shape == CellShape.TRIANGLE && degree <= 2) {
            return degree <= 1
                    ? new Quadrature(new double[] {1.0 / 3, 1.0 / 3, 0}, new double[] {0.5})
                    : new Quadrature(
                            new double[] {1.0 / 6, 1.0 / 6, 0, 2.0 / 3, 1.0 / 6, 0, 1.0 / 6, 2.0 / 3, 0},
                            new double[] {1.0 / 6, 1.0 / 6, 1.0 / 6});
        }
        if (shape == CellShape.TETRAHEDRON && degree <= 2) {
            return degree <= 1
                    ? new Quadrature(new double[] {0.25, 0.25, 0.25}, new double[] {1.0 / 6})
                    : new Quadrature(
                            new double[] {NEAR, NEAR, NEAR, FAR, NEAR, NEAR, NEAR, FAR, NEAR, NEAR, NEAR, FAR},
                            new double[] {1.0 / 24, 1.0 / 24, 1.0 / 24, 1.0 / 24});
        }
        // Drawing a cube together to a simplex puts (1-s) or (1-t)^2 into the weight: one or two degrees more there.
        double[][] r = gauss(degree);
        double[][] s = gauss(degree + 1);
        double[][] t = gauss(degree + 2);
        return switch (shape) {
            case VERTEX -> new Quadrature(new double[3], new double[] {1});
            case LINE -> product(r, ONE, ONE, CellShape.LINE);
            case QUAD, PIXEL -> product(r, r, ONE, CellShape.QUAD);
            case HEXAHEDRON, VOXEL -> product(r, r, r, CellShape.HEXAHEDRON);
            case TRIANGLE -> product(r, s, ONE, CellShape.TRIANGLE);
            case WEDGE -> product(r, s, r, CellShape.WEDGE);
            case TETRAHEDRON -> product(r, s, t, CellShape.TETRAHEDRON);
            case PYRAMID -> product(r, r, t, CellShape.PYRAMID);
            default -> throw new IllegalArgumentException("no rule on " + shape);
        };
    }

    private static final double[][] ONE = {{0}, {1}};

    private static Quadrature product(double[][] r, double[][] s, double[][] t, CellShape shape) {
        int n = r[0].length * s[0].length * t[0].length;
        double[] points = new double[3 * n];
        double[] weights = new double[n];
        int at = 0;
        for (int k = 0; k < t[0].length; k++) {
            for (int j = 0; j < s[0].length; j++) {
                for (int i = 0; i < r[0].length; i++) {
                    double a = r[0][i];
                    double b = s[0][j];
                    double c = t[0][k];
                    double w = r[1][i] * s[1][j] * t[1][k];
                    switch (shape) {
                        case TRIANGLE, WEDGE -> {
                            a *= 1 - b;
                            w *= 1 - b;
                        }
                        case TETRAHEDRON -> {
                            w *= (1 - b) * (1 - c) * (1 - c);
                            a *= (1 - b) * (1 - c);
                            b *= 1 - c;
                        }
                        case PYRAMID -> {
                            a *= 1 - c;
                            b *= 1 - c;
                            w *= (1 - c) * (1 - c);
                        }
                        default -> {}
                    }
                    points[3 * at] = a;
                    points[3 * at + 1] = b;
                    points[3 * at + 2] = c;
                    weights[at++] = w;
                }
            }
        }
        return new Quadrature(points, weights);
    }

    /** Gauss-Legendre points and weights on [0,1], exact to the given degree; the roots by Newton's method. */
    static double[][] gauss(int degree) {
        int n = degree / 2 + 1;
        double[][] rule = new double[2][n];
        for (int i = 0; i < n; i++) {
            double x = Math.cos(Math.PI * (i + 0.75) / (n + 0.5));
            double slope = 1;
            for (int step = 0; step < 100; step++) {
                double p0 = 1;
                double p1 = x;
                for (int k = 2; k <= n; k++) {
                    double p2 = ((2 * k - 1) * x * p1 - (k - 1) * p0) / k;
                    p0 = p1;
                    p1 = p2;
                }
                slope = n * (x * p1 - p0) / (x * x - 1);
                double move = p1 / slope;
                x -= move;
                if (Math.abs(move) < 1e-16) {
                    break;
                }
            }
            rule[0][i] = (1 - x) / 2;
            rule[1][i] = 1 / ((1 - x * x) * slope * slope);
        }
        return rule;
    }
}
