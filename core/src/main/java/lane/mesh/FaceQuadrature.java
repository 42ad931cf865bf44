package lane.mesh;

/**
 * Quadrature over the faces of a surface mesh in space, one thread's own: after {@link #load} and {@link #at}, the
 * place, the area vector (weight times normal) and the weights of the face's nodes. Polygons are cut into triangles
 * about the mean of their nodes. Line cells of a plane mesh count as faces of unit depth along its normal.
 */
public final class FaceQuadrature {
    private final Cell cell;
    private final Quadrature triangle;
    private final Quadrature quad;
    private final Quadrature line;
    private final Quadrature curvedTriangle;
    private final Quadrature curvedQuad;
    private final Quadrature curvedLine;
    private final double[] d = new double[27];
    private final double[] n = new double[4];
    private final double[] j = new double[9];
    private double[] weights = new double[9];
    private final double[] p = new double[3];
    private final double[] normal = new double[3];
    private final double[] plane;

    public FaceQuadrature(Mesh surface, int degree) {
        this(surface, degree, new double[] {0, 0, 1});
    }

    /** @param plane unit normal of the plane mesh that line cells bound, as {@link CellMeasures#plane} tells it */
    public FaceQuadrature(Mesh surface, int degree, double[] plane) {
        this.plane = plane;
        cell = new Cell(surface);
        triangle = Quadrature.of(CellShape.TRIANGLE, degree);
        // On a bent or skew quad the area element adds up to a degree in each direction.
        quad = Quadrature.of(CellShape.QUAD, degree + 1);
        line = Quadrature.of(CellShape.LINE, degree);
        // The area vector of a quadratic map has degree 2 (triangle) and 3 in each direction (quad).
        curvedTriangle = Quadrature.of(CellShape.TRIANGLE, 2 * degree + 2);
        curvedQuad = Quadrature.of(CellShape.QUAD, 2 * degree + 3);
        curvedLine = Quadrature.of(CellShape.LINE, 2 * degree + 1);
    }

    public void load(int face) {
        cell.load(face);
        if (weights.length < cell.size()) {
            weights = new double[2 * cell.size()];
        }
    }

    /** Number of points on the loaded face. */
    public int size() {
        return switch (cell.shape()) {
            case VERTEX -> 0;
            case LINE -> line.size();
            case TRIANGLE -> triangle.size();
            case QUAD, PIXEL -> quad.size();
            case POLYGON -> cell.size() * triangle.size();
            case TRIANGLE6 -> curvedTriangle.size();
            case QUAD8, QUAD9 -> curvedQuad.size();
            case LINE3 -> curvedLine.size();
            default -> throw new lane.base.LaneException("A " + cell.shape().word() + " cannot be a face of a part.");
        };
    }

    /** Moves to a point of the loaded face. */
    public void at(int q) {
        switch (cell.shape()) {
            case QUAD, PIXEL -> mapped(quad, q);
            case TRIANGLE -> mapped(triangle, q);
            case LINE -> edge(q);
            case TRIANGLE6 -> mapped(curvedTriangle, q);
            case QUAD8, QUAD9 -> mapped(curvedQuad, q);
            case LINE3 -> curvedEdge(q);
            default -> fan(q);
        }
        p[0] = 0;
        p[1] = 0;
        p[2] = 0;
        for (int i = 0; i < cell.size(); i++) {
            for (int a = 0; a < 3; a++) {
                p[a] += weights[i] * cell.x()[3 * i + a];
            }
        }
    }

    private void mapped(Quadrature rule, int q) {
        double r = rule.points()[3 * q];
        double s = rule.points()[3 * q + 1];
        ShapeFunctions.values(cell.shape(), r, s, 0, weights);
        ShapeFunctions.derivatives(cell.shape(), r, s, 0, d);
        CellMeasures.jacobian(cell, d, j);
        double w = rule.weights()[q];
        normal[0] = w * (j[3] * j[7] - j[6] * j[4]);
        normal[1] = w * (j[6] * j[1] - j[0] * j[7]);
        normal[2] = w * (j[0] * j[4] - j[3] * j[1]);
    }

    private void edge(int q) {
        ShapeFunctions.values(CellShape.LINE, line.points()[3 * q], 0, 0, weights);
        double w = line.weights()[q];
        double[] x = cell.x();
        square(w * (x[3] - x[0]), w * (x[4] - x[1]), w * (x[5] - x[2]));
    }

    private void curvedEdge(int q) {
        double r = curvedLine.points()[3 * q];
        ShapeFunctions.values(CellShape.LINE3, r, 0, 0, weights);
        ShapeFunctions.derivatives(CellShape.LINE3, r, 0, 0, d);
        CellMeasures.jacobian(cell, d, j);
        double w = curvedLine.weights()[q];
        square(w * j[0], w * j[3], w * j[6]);
    }

    /** The tangent times the normal of the plane. */
    private void square(double tx, double ty, double tz) {
        normal[0] = ty * plane[2] - tz * plane[1];
        normal[1] = tz * plane[0] - tx * plane[2];
        normal[2] = tx * plane[1] - ty * plane[0];
        CellMeasures.asLong(normal, tx, ty, tz);
    }

    private void fan(int q) {
        int size = cell.size();
        int a = q / triangle.size();
        int b = (a + 1) % size;
        int k = q % triangle.size();
        ShapeFunctions.values(CellShape.TRIANGLE, triangle.points()[3 * k], triangle.points()[3 * k + 1], 0, n);
        java.util.Arrays.fill(weights, 0, size, n[0] / size);
        weights[a] += n[1];
        weights[b] += n[2];
        double[] c = new double[3];
        cell.centre(c);
        double[] x = cell.x();
        double[] corner = {c[0], c[1], c[2], x[3 * a], x[3 * a + 1], x[3 * a + 2], x[3 * b], x[3 * b + 1], x[3 * b + 2]
        };
        java.util.Arrays.fill(normal, 0);
        CellMeasures.addTriangle(corner, 0, 1, 2, normal);
        // The area vector of the triangle is spread by the rule, whose weights sum to one half.
        for (int i = 0; i < 3; i++) {
            normal[i] *= 2 * triangle.weights()[k];
        }
    }

    public double x() {
        return p[0];
    }

    public double y() {
        return p[1];
    }

    public double z() {
        return p[2];
    }

    public double nx() {
        return normal[0];
    }

    public double ny() {
        return normal[1];
    }

    public double nz() {
        return normal[2];
    }

    /** Weights of the face's nodes in its own order; valid until the next call. */
    public double[] weights() {
        return weights;
    }
}
