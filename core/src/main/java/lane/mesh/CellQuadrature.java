package lane.mesh;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Quadrature over the cells of a mesh, one thread's own: after {@link #load} and {@link #at}, the place, its share of the
 * volume (of a surface cell, of the area) and the weights of the cell's nodes. Rules are exact to the degree on cells with
 * an affine map; polyhedra fall into tetrahedra about the means of faces and cell, where the rule holds.
 */
public final class CellQuadrature {
    private final Cell cell;
    private final int degree;
    private final int linear;
    private final FaceQuadrature faces;
    private double[] determinants = new double[8];
    private double[] weights = new double[27];
    private final double[] p = new double[3];
    private final double[] centre = new double[3];
    private final double[] four = new double[4];
    private @Nullable Quadrature rule;
    private @Nullable ShapeTable table;
    private double weight;
    private boolean flat;
    /** Corners of the tetrahedra of a polyhedron: number of the face and of its edge. */
    private int[] sides = new int[2 * 24];

    private int pieces;

    public CellQuadrature(Mesh mesh, int degree) {
        this(mesh, degree, degree);
    }

    /** @param linear degree that is enough in cells whose shape functions are linear in each direction */
    public CellQuadrature(Mesh mesh, int degree, int linear) {
        cell = new Cell(mesh);
        faces = new FaceQuadrature(mesh, degree, linear, new double[] {0, 0, 1});
        this.degree = degree;
        this.linear = linear;
    }

    public CellQuadrature load(int c) {
        cell.load(c);
        flat = cell.shape().dimension() == 2;
        if (weights.length < cell.size()) {
            weights = new double[2 * cell.size()];
        }
        if (flat) {
            faces.load(c);
        } else if (cell.shape() == CellShape.POLYHEDRON) {
            rule = Quadrature.of(CellShape.TETRAHEDRON, linear);
            cell.centre(centre);
            pieces = 0;
            int[][] all = cell.faces();
            for (int f = 0; f < all.length; f++) {
                for (int k = 0; k < all[f].length; k++) {
                    if (2 * pieces + 2 > sides.length) {
                        sides = java.util.Arrays.copyOf(sides, 2 * sides.length);
                    }
                    sides[2 * pieces] = f;
                    sides[2 * pieces++ + 1] = k;
                }
            }
        } else if (cell.shape().dimension() == 3) {
            if (table == null || table.shape() != cell.shape()) {
                boolean low = !cell.shape().quadratic() && cell.shape() != CellShape.PYRAMID;
                table = ShapeTable.of(cell.shape(), (low ? linear : degree) + bent(cell.shape()));
                if (determinants.length < table.rule().size()) {
                    determinants = new double[table.rule().size()];
                }
            }
            rule = table.rule();
        } else {
            rule = null;
        }
        return this;
    }

    /** Degrees that the determinant of the map adds in each direction. */
    private static int bent(CellShape shape) {
        return shape == CellShape.TETRAHEDRON ? 0 : shape.quadratic() ? 5 : 2;
    }

    public int size() {
        return flat
                ? faces.size()
                : rule == null ? 0 : cell.shape() == CellShape.POLYHEDRON ? pieces * rule.size() : rule.size();
    }

    /** The volumes that the points of the loaded cell stand for, all at once; null where {@link #at} alone knows. */
    public double @Nullable [] measures() {
        ShapeTable mapped = table;
        if (flat || rule == null || mapped == null || cell.shape() != mapped.shape()) {
            return null;
        }
        mapped.determinants(cell.x(), p, weights, determinants);
        double[] w = rule.weights();
        for (int q = 0; q < w.length; q++) {
            determinants[q] = Math.abs(determinants[q]) * w[q];
        }
        return determinants;
    }

    /**
     * Writes what values at the nodes are at the points of the loaded cell; only where {@link #measures} are known.
     *
     * @param from where the first goes
     */
    public void interpolate(double[] nodes, double[] to, int from) {
        Objects.requireNonNull(table).interpolate(nodes, to, from);
    }

    /**
     * Writes how much of the volume each node of the loaded cell counts for, and what each point stands for.
     *
     * @param nodes and {@code points}: long enough for the cell and its rule
     */
    public void spread(double[] nodes, double[] points) {
        int corners = cell.size();
        java.util.Arrays.fill(nodes, 0, corners, 0);
        double[] all = measures();
        if (all != null) {
            System.arraycopy(all, 0, points, 0, size());
            Objects.requireNonNull(table).spread(points, nodes);
            return;
        }
        for (int q = 0; q < size(); q++) {
            at(q);
            points[q] = weight;
            for (int k = 0; k < corners; k++) {
                nodes[k] += weight * weights[k];
            }
        }
    }

    public void at(int q) {
        if (flat) {
            faces.at(q);
            System.arraycopy(faces.weights(), 0, weights, 0, cell.size());
            weight = Math.sqrt(faces.nx() * faces.nx() + faces.ny() * faces.ny() + faces.nz() * faces.nz());
        } else if (cell.shape() == CellShape.POLYHEDRON) {
            inPiece(q / rule().size(), q % rule().size());
        } else {
            weight = Math.abs(Objects.requireNonNull(table).at(q, cell.x(), p, weights)) * rule().weights()[q];
            return;
        }
        java.util.Arrays.fill(p, 0);
        for (int i = 0; i < cell.size(); i++) {
            for (int a = 0; a < 3; a++) {
                p[a] += weights[i] * cell.x()[3 * i + a];
            }
        }
    }

    /** Of a cell that has points at all. */
    private Quadrature rule() {
        return Objects.requireNonNull(rule);
    }

    private void inPiece(int piece, int q) {
        int[] face = cell.faces()[sides[2 * piece]];
        int a = face[sides[2 * piece + 1]];
        int b = face[(sides[2 * piece + 1] + 1) % face.length];
        double[] m = new double[12];
        CellMeasures.faceCentre(cell.x(), face, m);
        System.arraycopy(cell.x(), 3 * a, m, 3, 3);
        System.arraycopy(cell.x(), 3 * b, m, 6, 3);
        System.arraycopy(centre, 0, m, 9, 3);
        double[] r = rule().points();
        ShapeFunctions.values(CellShape.TETRAHEDRON, r[3 * q], r[3 * q + 1], r[3 * q + 2], four);
        java.util.Arrays.fill(weights, 0, cell.size(), four[3] / cell.size());
        for (int v : face) {
            weights[v] += four[0] / face.length;
        }
        weights[a] += four[1];
        weights[b] += four[2];
        // The rule's weights sum to one sixth.
        weight = 6 * Math.abs(CellMeasures.tetra(m, 0, m, 3, m, 6, m, 9)) * rule().weights()[q];
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

    /** Volume, or area, that the point stands for. */
    public double weight() {
        return weight;
    }

    /** Weights of the cell's nodes in its own order; valid until the next call. */
    public double[] weights() {
        return weights;
    }

    public Cell cell() {
        return cell;
    }
}
