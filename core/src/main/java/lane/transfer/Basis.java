package lane.transfer;

import java.util.Arrays;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Quadrature;

/**
 * Integrals of a cell's shape functions over pieces of it: what a field at nodes is between them. Exact in tetrahedra, triangles, polygons
 * and polyhedra, and in boxes, wedges and quads whose opposite sides are parallel. In cells of bent faces it is linear in each tetrahedron
 * that the cell falls into; elsewhere a rule of degree {@value #DEGREE} in space is taken. One thread's own.
 */
final class Basis {
    private static final int DEGREE = 4;
    private static final double PARALLEL = 1e-12;

    private enum Way {
        /** Linear in each tetrahedron or triangle that the cell falls into. */
        PARTS,
        /** Products of linear functions of the place. */
        PRODUCTS,
        /** By quadrature and the inverse map. */
        POINTS
    }

    /** The integrals, one a node. */
    double[] integral = new double[27];

    private final CellBody body;
    private Way way = Way.POINTS;
    private final double[] inverse = new double[9];
    private final double[] at = new double[3];
    private final double[] origin = new double[3];
    /** Of 1, r, s, rs, t, rt, st, rst. */
    private final double[] moment = new double[8];

    private int corner;
    private final double[] rst = new double[12];
    private final Quadrature rule = Quadrature.of(CellShape.TETRAHEDRON, DEGREE);

    Basis(CellBody body) {
        this.body = body;
    }

    /** Whether the shape functions of such a cell are known in the tetrahedra that it falls into, and nowhere else. */
    static boolean inParts(CellShape shape) {
        return shape == CellShape.POLYHEDRON || shape == CellShape.POLYGON;
    }

    /** Whether the integrals over pieces add up to those of the cell's own rule. */
    boolean exact() {
        return way != Way.POINTS;
    }

    /** Looks at the loaded cell. */
    void load(double[] from) {
        Cell cell = body.cell;
        System.arraycopy(from, 0, origin, 0, 3);
        if (integral.length < cell.size()) {
            integral = new double[2 * cell.size()];
        }
        way = body.parts ? Way.PARTS : parallel(cell) ? Way.PRODUCTS : Way.POINTS;
    }

    private static final int[] NONE = {};
    private static final int[] SIMPLEX = {1, 2, 3};
    private static final int[] AROUND = {1, 3, 4};
    private static final int[] ROWS = {1, 2, 4};
    private static final int[] PLANE_ROWS = {1, 2, -1};
    private static final int[] PLANE_AROUND = {1, 3, -1};

    /** Number of the corners that r, s and t lead to from the first; -1 for none. */
    private static int[] frame(CellShape shape) {
        return switch (shape) {
            case TETRAHEDRON, WEDGE -> SIMPLEX;
            case HEXAHEDRON -> AROUND;
            case VOXEL -> ROWS;
            case TRIANGLE, PIXEL -> PLANE_ROWS;
            case QUAD -> PLANE_AROUND;
            default -> NONE;
        };
    }

    private static final int[] HEXAHEDRON = {0, 1, 3, 2, 4, 5, 7, 6};
    private static final int[] VOXEL = {0, 1, 2, 3, 4, 5, 6, 7};
    private static final int[] WEDGE = {0, 1, 2, 4, 5, 6};
    private static final int[] QUAD = {0, 1, 3, 2};
    private static final int[] PIXEL = {0, 1, 2, 3};
    private static final int[] TRIANGLE = {0, 1, 2};
    private static final int[] TETRAHEDRON = {0, 1, 2, 4};

    /** For corners beyond the frame's own: which of r, s and t lead to them, as bits. */
    private static int[] bits(CellShape shape) {
        return switch (shape) {
            case HEXAHEDRON -> HEXAHEDRON;
            case VOXEL -> VOXEL;
            case WEDGE -> WEDGE;
            case QUAD -> QUAD;
            case PIXEL -> PIXEL;
            case TRIANGLE -> TRIANGLE;
            default -> TETRAHEDRON;
        };
    }

    /**
     * Volume or area of a cell that is straight and whose map from the reference cell is affine, from its edges; NaN for any other.
     */
    static double straight(Cell cell) {
        if (frame(cell.shape()).length == 0) {
            return Double.NaN;
        }
        double[] e = edges(cell);
        if (!affine(cell, e)) {
            return Double.NaN;
        }
        double det = Math.abs(e[0] * (e[4] * e[8] - e[5] * e[7])
                - e[1] * (e[3] * e[8] - e[5] * e[6])
                + e[2] * (e[3] * e[7] - e[4] * e[6]));
        return switch (cell.shape()) {
            case TETRAHEDRON -> det / 6;
            case WEDGE -> det / 2;
            // The third edge of a plane cell is as long as its area is large.
            case TRIANGLE -> Math.sqrt(det) / 2;
            case QUAD, PIXEL -> Math.sqrt(det);
            default -> det;
        };
    }

    private static boolean affine(Cell cell, double[] e) {
        if (cell.size() <= 4 && cell.shape() != CellShape.QUAD && cell.shape() != CellShape.PIXEL) {
            return true;
        }
        double size = 0;
        for (double v : e) {
            size = Math.max(size, Math.abs(v));
        }
        double[] x = cell.x();
        int[] bits = bits(cell.shape());
        for (int v = 0; v < cell.size(); v++) {
            for (int i = 0; i < 3; i++) {
                double there = x[i];
                for (int k = 0; k < 3; k++) {
                    there += (bits[v] >> k & 1) == 1 ? e[3 * k + i] : 0;
                }
                if (Math.abs(there - x[3 * v + i]) > PARALLEL * size) {
                    return false;
                }
            }
        }
        return true;
    }

    /** The edges from the first corner along r, s and t; of a plane cell the third is across it. */
    private static double[] edges(Cell cell) {
        int[] to = frame(cell.shape());
        double[] x = cell.x();
        double[] e = new double[9];
        for (int k = 0; k < 3; k++) {
            if (to[k] >= 0) {
                for (int i = 0; i < 3; i++) {
                    e[3 * k + i] = x[3 * to[k] + i] - x[i];
                }
            }
        }
        if (to[2] < 0) {
            e[6] = e[1] * e[5] - e[2] * e[4];
            e[7] = e[2] * e[3] - e[0] * e[5];
            e[8] = e[0] * e[4] - e[1] * e[3];
        }
        return e;
    }

    /** Whether the map from the reference cell is affine; finds its inverse. */
    private boolean parallel(Cell cell) {
        if (frame(cell.shape()).length == 0) {
            return false;
        }
        double[] x = cell.x();
        double[] e = edges(cell);
        if (!affine(cell, e)) {
            return false;
        }
        double det = e[0] * (e[4] * e[8] - e[5] * e[7])
                - e[1] * (e[3] * e[8] - e[5] * e[6])
                + e[2] * (e[3] * e[7] - e[4] * e[6]);
        if (det == 0) {
            return false;
        }
        inverse[0] = (e[4] * e[8] - e[5] * e[7]) / det;
        inverse[1] = (e[5] * e[6] - e[3] * e[8]) / det;
        inverse[2] = (e[3] * e[7] - e[4] * e[6]) / det;
        inverse[3] = (e[7] * e[2] - e[8] * e[1]) / det;
        inverse[4] = (e[8] * e[0] - e[6] * e[2]) / det;
        inverse[5] = (e[6] * e[1] - e[7] * e[0]) / det;
        inverse[6] = (e[1] * e[5] - e[2] * e[4]) / det;
        inverse[7] = (e[2] * e[3] - e[0] * e[5]) / det;
        inverse[8] = (e[0] * e[4] - e[1] * e[3]) / det;
        for (int i = 0; i < 3; i++) {
            at[i] = x[i] - origin[i];
        }
        return true;
    }

    /**
     * Integrals over a piece of one of the cell's bodies.
     *
     * @param number of the body
     * @param piece whose moments are known, with a volume
     */
    void over(int number, Piece piece) {
        int n = body.cell.size();
        Arrays.fill(integral, 0, n, 0);
        switch (way) {
            case PARTS -> parts(number, piece);
            case PRODUCTS -> products(piece);
            case POINTS -> points(piece);
        }
    }

    /** Linear: the value at the centroid, times the volume. */
    private void parts(int number, Piece piece) {
        double v = piece.volume;
        body.weights(number, piece.mx / v, piece.my / v, piece.mz / v, integral);
        for (int k = 0; k < body.cell.size(); k++) {
            integral[k] *= v;
        }
    }

    private void products(Piece piece) {
        CellShape shape = body.cell.shape();
        Arrays.fill(moment, 0);
        if (shape == CellShape.TETRAHEDRON || shape == CellShape.TRIANGLE) {
            double v = piece.volume;
            moment[0] = v;
            for (int k = 0; k < 3; k++) {
                moment[1 << k] = inverse[3 * k] * (piece.mx - at[0] * v)
                        + inverse[3 * k + 1] * (piece.my - at[1] * v)
                        + inverse[3 * k + 2] * (piece.mz - at[2] * v);
            }
        } else {
            piece.tetrahedra(this::products);
        }
        double[] m = moment;
        switch (shape) {
            case TETRAHEDRON, TRIANGLE -> {
                integral[1] = m[1];
                integral[2] = m[2];
                integral[0] = m[0] - m[1] - m[2];
                if (shape == CellShape.TETRAHEDRON) {
                    integral[3] = m[4];
                    integral[0] -= m[4];
                }
            }
            case WEDGE -> {
                integral[0] = m[0] - m[1] - m[2] - (m[4] - m[5] - m[6]);
                integral[1] = m[1] - m[5];
                integral[2] = m[2] - m[6];
                integral[3] = m[4] - m[5] - m[6];
                integral[4] = m[5];
                integral[5] = m[6];
            }
            default -> {
                boolean plane = shape.dimension() == 2;
                // r or 1 - r, s or 1 - s, t or 1 - t.
                for (int k = 0; k < (plane ? 2 : 3); k++) {
                    for (int b = 0; b < (plane ? 4 : 8); b++) {
                        if ((b >> k & 1) == 0) {
                            m[b] -= m[b | 1 << k];
                        }
                    }
                }
                int[] bits = bits(shape);
                for (int v = 0; v < bits.length; v++) {
                    integral[v] = m[bits[v]];
                }
            }
        }
    }

    /**
     * Products of up to three linear functions over a tetrahedron, from their values at its corners: the integral of a product of
     * barycentric coordinates of powers a, b, c, d is 6 V a! b! c! d! / (3 + a + b + c + d)!.
     */
    private void products(double[] x, int a, int b, int c, int e, double volume) {
        corner = 0;
        reference(x, a);
        reference(x, b);
        reference(x, c);
        reference(x, e);
        double[] q = rst;
        double r = q[0] + q[3] + q[6] + q[9];
        double s = q[1] + q[4] + q[7] + q[10];
        double t = q[2] + q[5] + q[8] + q[11];
        double rs = 0;
        double rt = 0;
        double st = 0;
        double all = 0;
        for (int k = 0; k < 12; k += 3) {
            rs += q[k] * q[k + 1];
            rt += q[k] * q[k + 2];
            st += q[k + 1] * q[k + 2];
            all += q[k] * q[k + 1] * q[k + 2];
        }
        double[] m = moment;
        m[0] += volume;
        m[1] += volume / 4 * r;
        m[2] += volume / 4 * s;
        m[4] += volume / 4 * t;
        m[3] += volume / 20 * (r * s + rs);
        m[5] += volume / 20 * (r * t + rt);
        m[6] += volume / 20 * (s * t + st);
        m[7] += volume / 120 * (r * s * t + rs * t + rt * s + st * r + 2 * all);
    }

    private void reference(double[] x, int v) {
        double px = x[3 * v] - at[0];
        double py = x[3 * v + 1] - at[1];
        double pz = x[3 * v + 2] - at[2];
        for (int k = 0; k < 3; k++) {
            rst[corner++] = inverse[3 * k] * px + inverse[3 * k + 1] * py + inverse[3 * k + 2] * pz;
        }
    }

    private void points(Piece piece) {
        piece.tetrahedra(this::points);
    }

    private void points(double[] x, int a, int b, int c, int e, double volume) {
        Cell cell = body.cell;
        double[] p = rule.points();
        double[] w = rule.weights();
        for (int q = 0; q < w.length; q++) {
            double r = p[3 * q];
            double s = p[3 * q + 1];
            double t = p[3 * q + 2];
            double o = 1 - r - s - t;
            double px = o * x[3 * a] + r * x[3 * b] + s * x[3 * c] + t * x[3 * e];
            double py = o * x[3 * a + 1] + r * x[3 * b + 1] + s * x[3 * c + 1] + t * x[3 * e + 1];
            double pz = o * x[3 * a + 2] + r * x[3 * b + 2] + s * x[3 * c + 2] + t * x[3 * e + 2];
            cell.locate(px + origin[0], py + origin[1], pz + origin[2]);
            double[] n = cell.weights();
            for (int v = 0; v < cell.size(); v++) {
                integral[v] += 6 * volume * w[q] * n[v];
            }
        }
    }
}
