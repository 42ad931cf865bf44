package lane.mesh;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Quadrature over the faces of a surface mesh in space, one thread's own: after {@link #load} and {@link #at}, the
 * place, the area vector (weight times normal) and the weights of the face's nodes. Polygons are cut into triangles
 * about the mean of their nodes. Line cells of a plane mesh count as faces of unit depth along its normal.
 */
public final class FaceQuadrature {
    private final Cell cell;
    private final ShapeTable triangle;
    private final ShapeTable quad;
    private final ShapeTable pixel;
    private final Quadrature line;
    private final int degree;
    private final Quadrature curvedLine;
    private final double[] d = new double[27];
    private final double[] n = new double[4];
    private final double[] j = new double[9];
    private @Nullable ShapeTable table;
    private double[] weights = new double[9];
    private final double[] p = new double[3];
    private final double[] normal = new double[3];
    private final double[] plane;

    public FaceQuadrature(Mesh surface, int degree) {
        this(surface, degree, new double[] {0, 0, 1});
    }

    /** @param plane unit normal of the plane mesh that line cells bound, as {@link CellMeasures#plane} tells it */
    public FaceQuadrature(Mesh surface, int degree, double[] plane) {
        this(surface, degree, degree, plane);
    }

    /** @param linear degree that is enough on faces whose shape functions are linear */
    public FaceQuadrature(Mesh surface, int degree, int linear, double[] plane) {
        this.plane = plane;
        this.degree = degree;
        cell = new Cell(surface);
        triangle = ShapeTable.of(CellShape.TRIANGLE, linear);
        // On a bent or skew quad the area element adds up to a degree in each direction.
        quad = ShapeTable.of(CellShape.QUAD, linear + 1);
        pixel = ShapeTable.of(CellShape.PIXEL, linear + 1);
        line = Quadrature.of(CellShape.LINE, linear);
        curvedLine = Quadrature.of(CellShape.LINE, 2 * degree + 1);
    }

    public void load(int face) {
        cell.load(face);
        if (weights.length < cell.size()) {
            weights = new double[2 * cell.size()];
        }
        table = switch (cell.shape()) {
            case TRIANGLE -> triangle;
            case QUAD -> quad;
            case PIXEL -> pixel;
            // The area vector of a quadratic map has degree 2 (triangle) and 3 in each direction (quad).
            case TRIANGLE6 -> curved(2 * degree + 2);
            case QUAD8, QUAD9 -> curved(2 * degree + 3);
            default -> null;
        };
    }

    private ShapeTable curved(int of) {
        return table != null && table.shape() == cell.shape() ? table : ShapeTable.of(cell.shape(), of);
    }

    /** Number of points on the loaded face. */
    public int size() {
        return switch (cell.shape()) {
            case VERTEX -> 0;
            case LINE -> line.size();
            case TRIANGLE, QUAD, PIXEL, TRIANGLE6, QUAD8, QUAD9 ->
                Objects.requireNonNull(table).rule().size();
            case POLYGON -> cell.size() * triangle.rule().size();
            case LINE3 -> curvedLine.size();
            default -> throw new lane.base.LaneException("A " + cell.shape().word() + " cannot be a face of a part.");
        };
    }

    /** Moves to a point of the loaded face. */
    public void at(int q) {
        ShapeTable mapped = table;
        if (mapped != null) {
            mapped.facing(q, cell.x(), p, weights, normal);
            double w = mapped.rule().weights()[q];
            normal[0] *= w;
            normal[1] *= w;
            normal[2] *= w;
            return;
        }
        switch (cell.shape()) {
            case LINE -> edge(q);
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

    /** Shape functions of a triangle at the points of its rule, three a point. */
    public double[] triangle() {
        return triangle.values();
    }

    /** Weights of the points of a triangle's rule; they sum to one half. */
    public double[] triangleWeights() {
        return triangle.rule().weights();
    }

    /** Global number of a node of the loaded face, in the surface. */
    public int node(int i) {
        return cell.node(i);
    }

    /** How many nodes the loaded face has. */
    public int nodes() {
        return cell.size();
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
        Quadrature rule = triangle.rule();
        int a = q / rule.size();
        int b = (a + 1) % size;
        int k = q % rule.size();
        ShapeFunctions.values(CellShape.TRIANGLE, rule.points()[3 * k], rule.points()[3 * k + 1], 0, n);
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
            normal[i] *= 2 * rule.weights()[k];
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
