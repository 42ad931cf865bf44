package lane.cut;

import java.util.Arrays;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.Point;

/**
 * Where a segment crosses cell faces. Faces are cut into triangles about the mean of their nodes, the same for both
 * cells of a face. The test takes crossings up to 1e-9 beside a triangle, so that none is lost at an edge: a cut too many
 * changes no integral, a cut too few would.
 */
public final class LineCuts {
    private static final double SAME = 1e-12;

    private double[] cuts = new double[64];
    private int count;
    private final double[] a;
    private final double[] u;

    private LineCuts(Point a, Point b) {
        this.a = new double[] {a.x(), a.y(), a.z()};
        this.u = new double[] {b.x() - a.x(), b.y() - a.y(), b.z() - a.z()};
    }

    /** Sorted fractions of the segment, from 0 to 1, with every crossing once. */
    public static double[] of(CellLocator locator, Point a, Point b) {
        var made = new LineCuts(a, b);
        made.add(0);
        made.add(1);
        var cell = new Cell(locator.mesh());
        // Short pieces of the segment keep the boxes that are asked for slim on a slanted line.
        int pieces = 64;
        var candidates = new java.util.HashSet<Integer>();
        double margin = 1e-9 * locator.mesh().modelSize();
        for (int i = 0; i < pieces; i++) {
            Point p = a.plus(b.minus(a).times((double) i / pieces));
            Point q = a.plus(b.minus(a).times((i + 1.0) / pieces));
            locator.near(
                    new double[] {
                        Math.min(p.x(), q.x()) - margin, Math.max(p.x(), q.x()) + margin,
                        Math.min(p.y(), q.y()) - margin, Math.max(p.y(), q.y()) + margin,
                        Math.min(p.z(), q.z()) - margin, Math.max(p.z(), q.z()) + margin
                    },
                    candidates::add);
        }
        for (int c : candidates) {
            made.cell(cell.load(c));
        }
        Arrays.sort(made.cuts, 0, made.count);
        int kept = 1;
        for (int i = 1; i < made.count; i++) {
            if (made.cuts[i] - made.cuts[kept - 1] > SAME) {
                made.cuts[kept++] = made.cuts[i];
            }
        }
        made.cuts[kept - 1] = 1;
        return Arrays.copyOf(made.cuts, kept);
    }

    private void add(double f) {
        if (count == cuts.length) {
            cuts = Arrays.copyOf(cuts, 2 * count);
        }
        cuts[count++] = f;
    }

    private void cell(Cell cell) {
        double[] x = cell.x();
        if (cell.shape().dimension() == 3) {
            double[] m = new double[3];
            for (int[] face : cell.faces()) {
                Arrays.fill(m, 0);
                for (int node : face) {
                    for (int d = 0; d < 3; d++) {
                        m[d] += x[3 * node + d] / face.length;
                    }
                }
                for (int i = 0; i < face.length; i++) {
                    triangle(m, 0, x, 3 * face[i], x, 3 * face[(i + 1) % face.length]);
                }
            }
        } else {
            int n = cell.shape().rim(cell.size());
            for (int i = 0; i < n; i++) {
                edge(x, 3 * cell.shape().around(i), 3 * cell.shape().around((i + 1) % n));
            }
        }
    }

    /** Moeller and Trumbore's test with slack; a parallel triangle gives no cut. */
    private void triangle(double[] p, int ip, double[] q, int iq, double[] r, int ir) {
        double e1x = q[iq] - p[ip];
        double e1y = q[iq + 1] - p[ip + 1];
        double e1z = q[iq + 2] - p[ip + 2];
        double e2x = r[ir] - p[ip];
        double e2y = r[ir + 1] - p[ip + 1];
        double e2z = r[ir + 2] - p[ip + 2];
        double hx = u[1] * e2z - u[2] * e2y;
        double hy = u[2] * e2x - u[0] * e2z;
        double hz = u[0] * e2y - u[1] * e2x;
        double det = e1x * hx + e1y * hy + e1z * hz;
        double size = Math.sqrt((e1x * e1x + e1y * e1y + e1z * e1z) * (hx * hx + hy * hy + hz * hz));
        if (Math.abs(det) <= 1e-12 * size) {
            return;
        }
        double sx = a[0] - p[ip];
        double sy = a[1] - p[ip + 1];
        double sz = a[2] - p[ip + 2];
        double v = (sx * hx + sy * hy + sz * hz) / det;
        double qx = sy * e1z - sz * e1y;
        double qy = sz * e1x - sx * e1z;
        double qz = sx * e1y - sy * e1x;
        double w = (u[0] * qx + u[1] * qy + u[2] * qz) / det;
        double f = (e2x * qx + e2y * qy + e2z * qz) / det;
        if (v >= -1e-9 && w >= -1e-9 && v + w <= 1 + 1e-9 && f > 0 && f < 1) {
            add(f);
        }
    }

    /** Nearest approach of the segment and an edge of a surface cell. */
    private void edge(double[] x, int p, int q) {
        double ex = x[q] - x[p];
        double ey = x[q + 1] - x[p + 1];
        double ez = x[q + 2] - x[p + 2];
        double wx = a[0] - x[p];
        double wy = a[1] - x[p + 1];
        double wz = a[2] - x[p + 2];
        double uu = u[0] * u[0] + u[1] * u[1] + u[2] * u[2];
        double ue = u[0] * ex + u[1] * ey + u[2] * ez;
        double ee = ex * ex + ey * ey + ez * ez;
        double det = uu * ee - ue * ue;
        if (det <= 1e-14 * uu * ee) {
            return;
        }
        double uw = u[0] * wx + u[1] * wy + u[2] * wz;
        double ew = ex * wx + ey * wy + ez * wz;
        double f = (ue * ew - ee * uw) / det;
        double g = (uu * ew - ue * uw) / det;
        double dx = wx + f * u[0] - g * ex;
        double dy = wy + f * u[1] - g * ey;
        double dz = wz + f * u[2] - g * ez;
        if (g >= -1e-9 && g <= 1 + 1e-9 && f > 0 && f < 1 && dx * dx + dy * dy + dz * dz <= 1e-14 * ee) {
            add(f);
        }
    }
}
