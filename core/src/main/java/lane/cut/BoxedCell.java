package lane.cut;

import java.util.Arrays;
import lane.mesh.Axis;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Point;
import lane.mesh.Quadrature;

/**
 * The part of a cell that lies in a box, as points with the volume that each stands for; one thread's own. A cell falls into
 * tetrahedra (of flat faces from one of its corners, else about the means of its faces and its own middle), and each is cut by
 * the sides of the box into others. A rule of quadrature then stands in each.
 */
public final class BoxedCell {
    /** Where a cell lies. */
    public enum Side {
        INSIDE,
        OUTSIDE,
        ACROSS
    }

    /** Takes a point and its volume. */
    @FunctionalInterface
    public interface Taker {
        void take(double x, double y, double z, double volume);
    }

    private final double[] bounds;
    private final Point origin;
    private final Point[] along;
    private final double[] least = new double[3];
    private final double[] greatest = new double[3];

    /** @param bounds least and greatest x, y and z in a frame, in metres; infinite for sides that there are not */
    public BoxedCell(double[] bounds, Axis frame) {
        this.bounds = bounds;
        origin = frame.origin();
        along = new Point[] {frame.zero(), frame.quarter(), frame.direction()};
    }

    private double in(int d, double x, double y, double z) {
        return (x - origin.x()) * along[d].x() + (y - origin.y()) * along[d].y() + (z - origin.z()) * along[d].z();
    }

    /** By its nodes: what reaches over a side counts as across it, also where it misses the box by a corner. */
    public Side side(Cell cell) {
        double[] x = cell.x();
        for (int d = 0; d < 3; d++) {
            least[d] = Double.POSITIVE_INFINITY;
            greatest[d] = Double.NEGATIVE_INFINITY;
            for (int k = 0; k < cell.size(); k++) {
                double v = in(d, x[3 * k], x[3 * k + 1], x[3 * k + 2]);
                least[d] = Math.min(least[d], v);
                greatest[d] = Math.max(greatest[d], v);
            }
        }
        boolean inside = true;
        for (int d = 0; d < 3; d++) {
            double slack = 1e-12 * (greatest[d] - least[d]);
            if (greatest[d] <= bounds[2 * d] + slack || least[d] >= bounds[2 * d + 1] - slack) {
                return Side.OUTSIDE;
            }
            inside &= least[d] >= bounds[2 * d] - slack && greatest[d] <= bounds[2 * d + 1] + slack;
        }
        return inside ? Side.INSIDE : Side.ACROSS;
    }

    /** @param degree in space of the polynomial that the points are to integrate exactly */
    public void points(Cell cell, int degree, Taker taker) {
        double[] x = cell.x();
        Quadrature rule = Quadrature.of(CellShape.TETRAHEDRON, degree);
        if (cell.shape() == CellShape.TETRAHEDRON) {
            clip(Arrays.copyOf(x, 12), 0, rule, taker);
            return;
        }
        if (plane(cell)) {
            // From its first corner to the triangles of the faces that do not have it: a quarter of the tetrahedra.
            for (int[] face : cell.faces()) {
                if (Arrays.stream(face).noneMatch(v -> v == 0)) {
                    for (int k = 1; k < face.length - 1; k++) {
                        double[] t = new double[12];
                        System.arraycopy(x, 3 * face[0], t, 0, 3);
                        System.arraycopy(x, 3 * face[k], t, 3, 3);
                        System.arraycopy(x, 3 * face[k + 1], t, 6, 3);
                        System.arraycopy(x, 0, t, 9, 3);
                        clip(t, 0, rule, taker);
                    }
                }
            }
            return;
        }
        double[] c = new double[3];
        cell.centre(c);
        double[] m = new double[3];
        for (int[] face : cell.faces()) {
            Arrays.fill(m, 0);
            for (int v : face) {
                for (int d = 0; d < 3; d++) {
                    m[d] += x[3 * v + d] / face.length;
                }
            }
            boolean triangle = face.length == 3;
            for (int k = 0; k < (triangle ? 1 : face.length); k++) {
                double[] t = new double[12];
                System.arraycopy(x, 3 * face[k], t, 0, 3);
                System.arraycopy(x, 3 * face[(k + 1) % face.length], t, 3, 3);
                if (triangle) {
                    System.arraycopy(x, 3 * face[2], t, 6, 3);
                } else {
                    System.arraycopy(m, 0, t, 6, 3);
                }
                System.arraycopy(c, 0, t, 9, 3);
                clip(t, 0, rule, taker);
            }
        }
    }

    /** Whether a cell is one of the straight shapes, and its faces are flat to round-off. */
    private static boolean plane(Cell cell) {
        CellShape shape = cell.shape();
        if (shape != CellShape.HEXAHEDRON
                && shape != CellShape.VOXEL
                && shape != CellShape.WEDGE
                && shape != CellShape.PYRAMID) {
            return false;
        }
        double[] x = cell.x();
        for (int[] face : cell.faces()) {
            if (face.length == 4) {
                double[] e = new double[9];
                double size = 0;
                for (int k = 0; k < 3; k++) {
                    for (int d = 0; d < 3; d++) {
                        e[3 * k + d] = x[3 * face[k + 1] + d] - x[3 * face[0] + d];
                        size = Math.max(size, Math.abs(e[3 * k + d]));
                    }
                }
                double off = e[0] * (e[4] * e[8] - e[5] * e[7])
                        + e[1] * (e[5] * e[6] - e[3] * e[8])
                        + e[2] * (e[3] * e[7] - e[4] * e[6]);
                if (Math.abs(off) > 1e-14 * size * size * size) {
                    return false;
                }
            }
        }
        return true;
    }

    /** Cuts a tetrahedron by the sides from one on, and hands on the points of what is left. */
    private void clip(double[] t, int from, Quadrature rule, Taker taker) {
        for (int s = from; s < 6; s++) {
            if (Double.isInfinite(bounds[s])) {
                continue;
            }
            double[] off = new double[4];
            int[] order = new int[4];
            int in = 0;
            int out = 3;
            for (int k = 0; k < 4; k++) {
                double v = in(s / 2, t[3 * k], t[3 * k + 1], t[3 * k + 2]) - bounds[s];
                off[k] = s % 2 == 0 ? v : -v;
                order[off[k] >= 0 ? in++ : out--] = k;
            }
            if (in == 4) {
                continue;
            }
            if (in == 0) {
                return;
            }
            int a = order[0];
            int b = order[1];
            int c = order[2];
            int d = order[3];
            if (in == 1) {
                clip(of(t, a, a, off, a, b, a, c, a, d), s + 1, rule, taker);
            } else if (in == 2) {
                // A wedge between the triangles a, ac, ad and b, bc, bd.
                clip(of(t, a, a, off, a, c, a, d, b, d), s + 1, rule, taker);
                clip(of(t, a, a, off, a, c, b, c, b, d), s + 1, rule, taker);
                clip(of(t, a, b, off, b, c, b, d, -1, -1), s + 1, rule, taker);
            } else {
                // One between a, b, c and ad, bd, cd.
                clip(of(t, a, a, off, b, b, c, c, c, d), s + 1, rule, taker);
                clip(of(t, a, a, off, b, b, b, d, c, d), s + 1, rule, taker);
                clip(of(t, a, a, off, a, d, b, d, c, d), s + 1, rule, taker);
            }
            return;
        }
        add(t, rule, taker);
    }

    /**
     * A tetrahedron of corners and of places where edges pass the side: a first pair of corners, then three pairs; a pair of
     * one corner is the corner. A last pair of -1 says that the first pair are two corners.
     */
    private static double[] of(double[] t, int a, int b, double[] off, int c, int d, int e, int f, int g, int h) {
        double[] made = new double[12];
        if (g < 0) {
            System.arraycopy(t, 3 * a, made, 0, 3);
            System.arraycopy(t, 3 * b, made, 3, 3);
            pass(t, c, d, off, made, 6);
            pass(t, e, f, off, made, 9);
        } else {
            pass(t, a, b, off, made, 0);
            pass(t, c, d, off, made, 3);
            pass(t, e, f, off, made, 6);
            pass(t, g, h, off, made, 9);
        }
        return made;
    }

    private static void pass(double[] t, int a, int b, double[] off, double[] to, int at) {
        double share = a == b ? 0 : off[a] / (off[a] - off[b]);
        for (int i = 0; i < 3; i++) {
            to[at + i] = (1 - share) * t[3 * a + i] + share * t[3 * b + i];
        }
    }

    private static void add(double[] t, Quadrature rule, Taker taker) {
        double ux = t[3] - t[0];
        double uy = t[4] - t[1];
        double uz = t[5] - t[2];
        double vx = t[6] - t[0];
        double vy = t[7] - t[1];
        double vz = t[8] - t[2];
        double wx = t[9] - t[0];
        double wy = t[10] - t[1];
        double wz = t[11] - t[2];
        double six = Math.abs(ux * (vy * wz - vz * wy) + uy * (vz * wx - vx * wz) + uz * (vx * wy - vy * wx));
        if (six == 0) {
            return;
        }
        double[] p = rule.points();
        double[] w = rule.weights();
        for (int q = 0; q < w.length; q++) {
            double r = p[3 * q];
            double s = p[3 * q + 1];
            double u = p[3 * q + 2];
            taker.take(
                    t[0] + r * ux + s * vx + u * wx,
                    t[1] + r * uy + s * vy + u * wy,
                    t[2] + r * uz + s * vz + u * wz,
                    six * w[q]);
        }
    }
}
