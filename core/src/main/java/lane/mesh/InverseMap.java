package lane.mesh;

/**
 * From a point to the weights of a cell's nodes. Simplices in closed form; quads, hexahedra, wedges and pyramids by
 * Newton's method on the shape functions, started again from other places when it fails; polygons and polyhedra, and
 * cells too distorted for Newton, by simplices about the centre. Surfaces take the foot of the point's perpendicular.
 *
 * <p>Newton converges quadratically; a cell with parallel opposite faces takes one step. The answer is accepted only
 * when the mapped point agrees with the wanted one to 1e-11 of the cell's size.
 */
final class InverseMap {
    private static final double[][] STARTS = {
        {.5, .5, .5}, {.1, .1, .1}, {.9, .1, .1}, {.1, .9, .1}, {.1, .1, .9}, {.9, .9, .1}, {.9, .1, .9}, {.1, .9, .9}
    };

    private double[] d = new double[81];
    private final double[] j = new double[9];
    private final double[] rst = new double[3];
    private final double[] bary = new double[4];
    private final double[] centre = new double[3];
    private final double[] middle = new double[3];
    private final double[] point = new double[3];
    private double[] best = new double[27];

    double locate(Cell cell, double px, double py, double pz) {
        return switch (cell.shape()) {
            case VERTEX -> {
                cell.weights()[0] = 1;
                yield miss(cell, px, py, pz);
            }
            case LINE, POLYLINE -> polyline(cell, px, py, pz);
            case TRIANGLE -> {
                boolean in = triangle(cell.x(), 0, cell.x(), 3, cell.x(), 6, px, py, pz);
                System.arraycopy(bary, 0, cell.weights(), 0, 3);
                double miss = miss(cell, px, py, pz);
                yield in && miss <= SURFACE * size(cell) ? 0 : miss;
            }
            case TETRAHEDRON -> {
                boolean in = tetra(cell.x(), 0, cell.x(), 3, cell.x(), 6, cell.x(), 9, px, py, pz);
                System.arraycopy(bary, 0, cell.weights(), 0, 4);
                yield in ? 0 : miss(cell, px, py, pz);
            }
            case LINE3 -> curve(cell, px, py, pz);
            case QUAD,
                    PIXEL,
                    HEXAHEDRON,
                    VOXEL,
                    WEDGE,
                    PYRAMID,
                    TRIANGLE6,
                    QUAD8,
                    QUAD9,
                    TETRAHEDRON10,
                    PYRAMID13,
                    WEDGE15,
                    WEDGE18,
                    HEXAHEDRON20,
                    HEXAHEDRON27 -> mapped(cell, px, py, pz);
            case POLYGON -> polygon(cell, px, py, pz);
            case POLYHEDRON -> polyhedron(cell, px, py, pz);
        };
    }

    /** A point this far off a surface, as part of the cell's size, still lies in it. */
    private static final double SURFACE = 1e-9;

    private double mapped(Cell cell, double px, double py, double pz) {
        if (d.length < 3 * cell.size()) {
            d = new double[6 * cell.size()];
        }
        double scale = size(cell);
        for (double[] start : STARTS) {
            double[] from = start;
            switch (cell.shape().corners()) {
                case WEDGE, PYRAMID -> from = new double[] {start[0] * .6, start[1] * .6, start[2] * .6};
                case TRIANGLE, TETRAHEDRON -> from = new double[] {start[0] * .5, start[1] * .5, start[2] * .5};
                default -> {}
            }
            if (newton(cell, px, py, pz, from, scale)) {
                boolean in = clamp(cell.shape().corners());
                ShapeFunctions.values(cell.shape(), rst[0], rst[1], rst[2], cell.weights());
                double miss = miss(cell, px, py, pz);
                return in && (cell.shape().dimension() == 3 || miss <= SURFACE * scale) ? 0 : miss;
            }
        }
        return cell.shape().dimension() == 2 ? polygon(cell, px, py, pz) : polyhedron(cell, px, py, pz);
    }

    /** Newton (Gauss-Newton on a surface); true when the residual, or on a surface the step, vanished. */
    private boolean newton(Cell cell, double px, double py, double pz, double[] from, double scale) {
        double[] n = cell.weights();
        double[] x = cell.x();
        boolean solid = cell.shape().dimension() == 3;
        double r = from[0];
        double s = from[1];
        double t = solid ? from[2] : 0;
        for (int step = 0; step < 40; step++) {
            ShapeFunctions.values(cell.shape(), r, s, t, n);
            double ex = px;
            double ey = py;
            double ez = pz;
            for (int i = 0; i < cell.size(); i++) {
                ex -= n[i] * x[3 * i];
                ey -= n[i] * x[3 * i + 1];
                ez -= n[i] * x[3 * i + 2];
            }
            if (solid && Math.abs(ex) + Math.abs(ey) + Math.abs(ez) <= 1e-13 * scale) {
                return keep(r, s, t);
            }
            ShapeFunctions.derivatives(cell.shape(), r, s, t, d);
            CellMeasures.jacobian(cell, d, j);
            if (!solid) {
                double nx = j[3] * j[7] - j[6] * j[4];
                double ny = j[6] * j[1] - j[0] * j[7];
                double nz = j[0] * j[4] - j[3] * j[1];
                double size = Math.sqrt(Math.sqrt(nx * nx + ny * ny + nz * nz));
                if (size == 0) {
                    return false;
                }
                j[2] = nx / size;
                j[5] = ny / size;
                j[8] = nz / size;
            }
            double det = CellMeasures.determinant(j);
            if (!(Math.abs(det) > 1e-14 * scale * scale * scale * 1e-6)) {
                return false;
            }
            double dr =
                    (ex * (j[4] * j[8] - j[5] * j[7]) - j[1] * (ey * j[8] - j[5] * ez) + j[2] * (ey * j[7] - j[4] * ez))
                            / det;
            double ds =
                    (j[0] * (ey * j[8] - j[5] * ez) - ex * (j[3] * j[8] - j[5] * j[6]) + j[2] * (j[3] * ez - ey * j[6]))
                            / det;
            double dt = solid
                    ? (j[0] * (j[4] * ez - ey * j[7])
                                    - j[1] * (j[3] * ez - ey * j[6])
                                    + ex * (j[3] * j[7] - j[4] * j[6]))
                            / det
                    : 0;
            double move = Math.abs(dr) + Math.abs(ds) + Math.abs(dt);
            double damp = move > 2 ? 2 / move : 1;
            r += damp * dr;
            s += damp * ds;
            t += damp * dt;
            if (move < 1e-12) {
                return keep(r, s, t);
            }
            if (step > 2 && (Math.abs(r) > 20 || Math.abs(s) > 20 || Math.abs(t) > 20)) {
                return false;
            }
        }
        return false;
    }

    private boolean keep(double r, double s, double t) {
        rst[0] = r;
        rst[1] = s;
        rst[2] = t;
        return true;
    }

    /** Draws {@code rst} into the reference domain; true if it was inside within the slack already. */
    private boolean clamp(CellShape shape) {
        double e = Cell.SLACK;
        double r = rst[0];
        double s = rst[1];
        double t = rst[2];
        boolean in = r >= -e && s >= -e && t >= -e;
        in &= switch (shape) {
            case TRIANGLE -> r + s <= 1 + e;
            case TETRAHEDRON -> r + s + t <= 1 + e;
            case WEDGE -> r + s <= 1 + e && t <= 1 + e;
            case PYRAMID -> t <= 1 + e && r <= 1 - t + e && s <= 1 - t + e;
            default -> r <= 1 + e && s <= 1 + e && t <= 1 + e;
        };
        if (in) {
            return true;
        }
        if (shape == CellShape.TRIANGLE || shape == CellShape.TETRAHEDRON) {
            bary[0] = 1 - r - s - t;
            bary[1] = r;
            bary[2] = s;
            bary[3] = t;
            drawIn(4);
            keep(bary[1], bary[2], bary[3]);
            return false;
        }
        t = unit(t);
        double top = shape == CellShape.PYRAMID ? 1 - t : 1;
        r = Math.min(top, Math.max(0, r));
        s = Math.min(top, Math.max(0, s));
        if (shape == CellShape.WEDGE && r + s > 1) {
            double over = (r + s - 1) / 2;
            r = unit(r - over);
            s = unit(Math.min(s - over, 1 - r));
        }
        keep(r, s, t);
        return false;
    }

    private static double unit(double v) {
        return Math.min(1, Math.max(0, v));
    }

    private double polyline(Cell cell, double px, double py, double pz) {
        double[] x = cell.x();
        double least = Double.POSITIVE_INFINITY;
        int at = 0;
        double share = 0;
        for (int i = 0; i + 1 < cell.size(); i++) {
            double ux = x[3 * i + 3] - x[3 * i];
            double uy = x[3 * i + 4] - x[3 * i + 1];
            double uz = x[3 * i + 5] - x[3 * i + 2];
            double length2 = ux * ux + uy * uy + uz * uz;
            double f = length2 == 0
                    ? 0
                    : unit(((px - x[3 * i]) * ux + (py - x[3 * i + 1]) * uy + (pz - x[3 * i + 2]) * uz) / length2);
            double dx = px - x[3 * i] - f * ux;
            double dy = py - x[3 * i + 1] - f * uy;
            double dz = pz - x[3 * i + 2] - f * uz;
            double miss = Math.sqrt(dx * dx + dy * dy + dz * dz);
            if (miss < least) {
                least = miss;
                at = i;
                share = f;
            }
        }
        java.util.Arrays.fill(cell.weights(), 0, cell.size(), 0);
        cell.weights()[at] = 1 - share;
        cell.weights()[at + 1] = share;
        return least <= SURFACE * size(cell) ? 0 : least;
    }

    /** The nearest place of a curved line, by Newton's method on the distance from the best of some places. */
    private double curve(Cell cell, double px, double py, double pz) {
        double[] n = cell.weights();
        double r = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i <= 16; i++) {
            ShapeFunctions.values(cell.shape(), i / 16.0, 0, 0, n);
            double miss = miss(cell, px, py, pz);
            if (miss < least) {
                least = miss;
                r = i / 16.0;
            }
        }
        double[] x = cell.x();
        for (int step = 0; step < 20; step++) {
            ShapeFunctions.values(cell.shape(), r, 0, 0, n);
            ShapeFunctions.derivatives(cell.shape(), r, 0, 0, d);
            double slope = 0;
            double bend = 0;
            for (int k = 0; k < 3; k++) {
                double e = k == 0 ? px : k == 1 ? py : pz;
                double tangent = 0;
                for (int i = 0; i < 3; i++) {
                    e -= n[i] * x[3 * i + k];
                    tangent += d[3 * i] * x[3 * i + k];
                }
                slope += e * tangent;
                bend += tangent * tangent;
            }
            double move = bend > 0 ? slope / bend : 0;
            r = unit(r + move);
            if (Math.abs(move) < 1e-14) {
                break;
            }
        }
        ShapeFunctions.values(cell.shape(), r, 0, 0, n);
        double miss = miss(cell, px, py, pz);
        return miss <= SURFACE * size(cell) ? 0 : miss;
    }

    private double polygon(Cell cell, double px, double py, double pz) {
        int n = cell.size();
        int rim = cell.shape().rim(n);
        double[] x = cell.x();
        cell.centre(centre);
        double least = Double.POSITIVE_INFINITY;
        ensureBest(n);
        double accept = SURFACE * size(cell);
        for (int e = 0; e < rim; e++) {
            int a = cell.shape().around(e);
            int b = cell.shape().around((e + 1) % rim);
            triangle(centre, 0, x, 3 * a, x, 3 * b, px, py, pz);
            double[] w = cell.weights();
            java.util.Arrays.fill(w, 0, n, bary[0] / n);
            w[a] += bary[1];
            w[b] += bary[2];
            double miss = miss(cell, px, py, pz);
            if (miss < least) {
                least = miss;
                System.arraycopy(w, 0, best, 0, n);
                if (miss <= accept) {
                    break;
                }
            }
        }
        System.arraycopy(best, 0, cell.weights(), 0, n);
        return least <= accept ? 0 : least;
    }

    /** Simplices of the cell's centre, a face's centre and a face's edge; each centre is the mean of its nodes. */
    private double polyhedron(Cell cell, double px, double py, double pz) {
        int n = cell.size();
        double[] x = cell.x();
        cell.centre(centre);
        double least = Double.POSITIVE_INFINITY;
        ensureBest(n);
        for (int[] face : cell.faces()) {
            CellMeasures.faceCentre(x, face, middle);
            for (int e = 0; e < face.length; e++) {
                int a = face[e];
                int b = face[(e + 1) % face.length];
                boolean in = tetra(centre, 0, middle, 0, x, 3 * a, x, 3 * b, px, py, pz);
                double[] w = cell.weights();
                java.util.Arrays.fill(w, 0, n, bary[0] / n);
                for (int node : face) {
                    w[node] += bary[1] / face.length;
                }
                w[a] += bary[2];
                w[b] += bary[3];
                if (in) {
                    return 0;
                }
                double miss = miss(cell, px, py, pz);
                if (miss < least) {
                    least = miss;
                    System.arraycopy(w, 0, best, 0, n);
                }
            }
        }
        System.arraycopy(best, 0, cell.weights(), 0, n);
        return least;
    }

    private void ensureBest(int n) {
        if (best.length < n) {
            best = new double[2 * n];
        }
    }

    /** Barycentric coordinates drawn into the tetrahedron; true if inside before. A flat one holds nothing. */
    private boolean tetra(
            double[] a,
            int ia,
            double[] b,
            int ib,
            double[] c,
            int ic,
            double[] e,
            int ie,
            double px,
            double py,
            double pz) {
        double[] p = point;
        p[0] = px;
        p[1] = py;
        p[2] = pz;
        double v = CellMeasures.tetra(a, ia, b, ib, c, ic, e, ie);
        if (v == 0) {
            bary[0] = 1;
            bary[1] = 0;
            bary[2] = 0;
            bary[3] = 0;
            return false;
        }
        bary[0] = CellMeasures.tetra(p, 0, b, ib, c, ic, e, ie) / v;
        bary[1] = CellMeasures.tetra(a, ia, p, 0, c, ic, e, ie) / v;
        bary[2] = CellMeasures.tetra(a, ia, b, ib, p, 0, e, ie) / v;
        bary[3] = CellMeasures.tetra(a, ia, b, ib, c, ic, p, 0) / v;
        return drawIn(4);
    }

    /** The same for the foot of the perpendicular on a triangle. */
    private boolean triangle(
            double[] a, int ia, double[] b, int ib, double[] c, int ic, double px, double py, double pz) {
        double ux = b[ib] - a[ia];
        double uy = b[ib + 1] - a[ia + 1];
        double uz = b[ib + 2] - a[ia + 2];
        double vx = c[ic] - a[ia];
        double vy = c[ic + 1] - a[ia + 1];
        double vz = c[ic + 2] - a[ia + 2];
        double wx = px - a[ia];
        double wy = py - a[ia + 1];
        double wz = pz - a[ia + 2];
        double uu = ux * ux + uy * uy + uz * uz;
        double uv = ux * vx + uy * vy + uz * vz;
        double vv = vx * vx + vy * vy + vz * vz;
        double wu = wx * ux + wy * uy + wz * uz;
        double wv = wx * vx + wy * vy + wz * vz;
        double det = uu * vv - uv * uv;
        if (det == 0) {
            bary[0] = 1;
            bary[1] = 0;
            bary[2] = 0;
            return false;
        }
        bary[1] = (wu * vv - wv * uv) / det;
        bary[2] = (wv * uu - wu * uv) / det;
        bary[0] = 1 - bary[1] - bary[2];
        return drawIn(3);
    }

    private boolean drawIn(int n) {
        boolean in = true;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            in &= bary[i] >= -Cell.SLACK;
        }
        if (in) {
            return true;
        }
        for (int i = 0; i < n; i++) {
            bary[i] = Math.max(0, bary[i]);
            sum += bary[i];
        }
        for (int i = 0; i < n; i++) {
            bary[i] /= sum;
        }
        return false;
    }

    /** Distance from the point to the point that the weights describe. */
    private static double miss(Cell cell, double px, double py, double pz) {
        double[] n = cell.weights();
        double[] x = cell.x();
        for (int i = 0; i < cell.size(); i++) {
            px -= n[i] * x[3 * i];
            py -= n[i] * x[3 * i + 1];
            pz -= n[i] * x[3 * i + 2];
        }
        return Math.sqrt(px * px + py * py + pz * pz);
    }

    /** The largest extent of the cell along an axis. */
    private static double size(Cell cell) {
        double[] x = cell.x();
        double size = 0;
        for (int k = 0; k < 3; k++) {
            double least = x[k];
            double greatest = x[k];
            for (int i = 1; i < cell.size(); i++) {
                least = Math.min(least, x[3 * i + k]);
                greatest = Math.max(greatest, x[3 * i + k]);
            }
            size = Math.max(size, greatest - least);
        }
        return size;
    }
}
