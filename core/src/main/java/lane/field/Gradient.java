package lane.field;

import lane.base.LaneException;
import lane.base.Parallel;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.CornerEdges;
import lane.mesh.Mesh;
import lane.mesh.NodeCells;

/**
 * Gradients of fields, {@code d(component)/d(direction)} row by row.
 *
 * <p>At nodes: in each cell that of its shape functions at the node, which follows from the edges that leave it; then the
 * mean of the cells around, weighted by their volumes (those that the edges span). At the middles of quadratic cells it is
 * the mean of the corners' between which they stand. Exact for linear fields on every shape; second order inside even
 * meshes, first at the boundary and on irregular ones.
 *
 * <p>In cells: least squares over all cells that share a node, weighted by one over the squared distance, with values on the
 * boundary where they are known. Exact for linear fields where the neighbours span space; first order, second inside even
 * meshes.
 */
public final class Gradient {
    private static final int BLOCK = 1 << 12;

    private Gradient() {}

    private static int dimension(Mesh mesh) {
        int dimension = mesh.dimension();
        if (dimension < 2) {
            throw new LaneException("A gradient needs a run with cells of two or three dimensions.");
        }
        return dimension;
    }

    /**
     * Of values at nodes.
     *
     * @param values {@code components} a node
     * @return {@code 3 * components} a node; NaN at nodes that no cell of the mesh's highest dimension uses
     */
    public static double[] atNodes(Mesh mesh, double[] values, int components) {
        boolean plane = dimension(mesh) == 2;
        int n = 3 * components;
        NodeCells around = NodeCells.of(mesh);
        double[] out = new double[Math.multiplyExact(mesh.nodeCount(), n)];
        Parallel.forBlocks(mesh.nodeCount(), BLOCK, (block, from, to) -> {
            var corner = new Corner(mesh, values, components, plane);
            double[] sum = new double[n];
            for (int i = from; i < to; i++) {
                java.util.Arrays.fill(sum, 0);
                double weights = 0;
                for (int e = around.start()[i]; e < around.start()[i + 1]; e++) {
                    double w = corner.at(around.cell()[e], around.place()[e] & 255);
                    weights += w;
                    for (int d = 0; d < n; d++) {
                        sum[d] += w * corner.gradient[d];
                    }
                }
                for (int d = 0; d < n; d++) {
                    out[n * i + d] = weights > 0 ? sum[d] / weights : Double.NaN;
                }
            }
        });
        return out;
    }

    /** The gradient at a node of a cell, for one thread. */
    private static final class Corner {
        private final Mesh mesh;
        private final double[] x;
        private final double[] values;
        private final int components;
        private final boolean plane;
        private final Cell cell;
        /** Edge vectors of the corner and the differences along them. */
        private double[] e = new double[3 * 8];

        private double[] df;
        private final double[] part;
        final double[] gradient;

        Corner(Mesh mesh, double[] values, int components, boolean plane) {
            this.mesh = mesh;
            this.x = mesh.xyz();
            this.values = values;
            this.components = components;
            this.plane = plane;
            cell = new Cell(mesh);
            df = new double[8 * components];
            gradient = new double[3 * components];
            part = new double[3 * components];
        }

        /** Writes {@code gradient}; returns its weight, 0 where the edges span no space. */
        double at(int c, int k) {
            CellShape shape = mesh.shape(c);
            if (!CornerEdges.tabled(shape)) {
                return corner(c, k, CornerEdges.of(cell.load(c), k), 1);
            }
            double share = CornerEdges.share(shape);
            if (k < shape.corners().nodes()) {
                return corner(c, k, CornerEdges.of(shape, k), share);
            }
            int[] between = CornerEdges.between(shape, k);
            java.util.Arrays.fill(part, 0);
            double weights = 0;
            for (int b : between) {
                double w = corner(c, b, CornerEdges.of(shape, b), share);
                weights += w;
                for (int d = 0; d < part.length; d++) {
                    part[d] += gradient[d] / between.length;
                }
            }
            System.arraycopy(part, 0, gradient, 0, part.length);
            return weights / between.length;
        }

        private double corner(int c, int k, int[] edges, double share) {
            int m = edges.length / 2;
            if (e.length < 3 * (m + 1)) {
                e = new double[6 * m];
                df = new double[2 * m * components];
            }
            int begin = mesh.begin(c);
            int[] nodes = mesh.nodes();
            int a = nodes[begin + k];
            for (int i = 0; i < m; i++) {
                int b = nodes[begin + edges[i]];
                int middle = edges[m + i];
                if (middle < 0) {
                    for (int d = 0; d < 3; d++) {
                        e[3 * i + d] = x[3 * b + d] - x[3 * a + d];
                    }
                    for (int d = 0; d < components; d++) {
                        df[i * components + d] = values[b * components + d] - values[a * components + d];
                    }
                } else {
                    int mid = nodes[begin + middle];
                    for (int d = 0; d < 3; d++) {
                        e[3 * i + d] = 4 * x[3 * mid + d] - 3 * x[3 * a + d] - x[3 * b + d];
                    }
                    for (int d = 0; d < components; d++) {
                        df[i * components + d] = 4 * values[mid * components + d]
                                - 3 * values[a * components + d]
                                - values[b * components + d];
                    }
                }
            }
            if (plane) {
                // The third direction is across the plane, where nothing changes.
                e[6] = e[1] * e[5] - e[2] * e[4];
                e[7] = e[2] * e[3] - e[0] * e[5];
                e[8] = e[0] * e[4] - e[1] * e[3];
                double area = Math.sqrt(e[6] * e[6] + e[7] * e[7] + e[8] * e[8]);
                for (int d = 0; d < components; d++) {
                    df[2 * components + d] = 0;
                }
                if (!(area > 0)) {
                    return 0;
                }
                return solve(1) == 0 ? 0 : area * share;
            }
            return m == 3 ? solve(share) : squares(m, share);
        }

        /** From three edges, by their reciprocal basis; returns the volume they span times the share. */
        private double solve(double share) {
            double ax = e[4] * e[8] - e[5] * e[7];
            double ay = e[5] * e[6] - e[3] * e[8];
            double az = e[3] * e[7] - e[4] * e[6];
            double det = e[0] * ax + e[1] * ay + e[2] * az;
            if (det == 0 || Double.isNaN(det)) {
                java.util.Arrays.fill(gradient, 0);
                return 0;
            }
            double bx = e[7] * e[2] - e[8] * e[1];
            double by = e[8] * e[0] - e[6] * e[2];
            double bz = e[6] * e[1] - e[7] * e[0];
            double cx = e[1] * e[5] - e[2] * e[4];
            double cy = e[2] * e[3] - e[0] * e[5];
            double cz = e[0] * e[4] - e[1] * e[3];
            double over = 1 / det;
            for (int d = 0; d < components; d++) {
                double u = df[d] * over;
                double v = df[components + d] * over;
                double w = df[2 * components + d] * over;
                gradient[3 * d] = u * ax + v * bx + w * cx;
                gradient[3 * d + 1] = u * ay + v * by + w * cy;
                gradient[3 * d + 2] = u * az + v * bz + w * cz;
            }
            return Math.abs(det) * share;
        }

        /** From more edges, by least squares of the differences over the lengths. */
        private double squares(int m, double share) {
            var fit = new Fit(components);
            double size = 0;
            for (int i = 0; i < m; i++) {
                double l = e[3 * i] * e[3 * i] + e[3 * i + 1] * e[3 * i + 1] + e[3 * i + 2] * e[3 * i + 2];
                size = Math.max(size, l);
                fit.add(e[3 * i], e[3 * i + 1], e[3 * i + 2], 1 / l, df, i * components);
            }
            return fit.solve(gradient) ? Math.pow(size, 1.5) * share : 0;
        }
    }

    /** Normal equations of a least-squares gradient, in up to three dimensions. */
    private static final class Fit {
        private final int components;
        private final double[] a = new double[6];
        private final double[] b;

        Fit(int components) {
            this.components = components;
            b = new double[3 * components];
        }

        void clear() {
            java.util.Arrays.fill(a, 0);
            java.util.Arrays.fill(b, 0);
        }

        void add(double x, double y, double z, double w, double[] df, int at) {
            a[0] += w * x * x;
            a[1] += w * y * y;
            a[2] += w * z * z;
            a[3] += w * x * y;
            a[4] += w * y * z;
            a[5] += w * x * z;
            for (int d = 0; d < components; d++) {
                b[3 * d] += w * x * df[at + d];
                b[3 * d + 1] += w * y * df[at + d];
                b[3 * d + 2] += w * z * df[at + d];
            }
        }

        /** Whether the directions span space. */
        boolean solve(double[] g) {
            double cx = a[1] * a[2] - a[4] * a[4];
            double cy = a[4] * a[5] - a[3] * a[2];
            double cz = a[3] * a[4] - a[1] * a[5];
            double det = a[0] * cx + a[3] * cy + a[5] * cz;
            double trace = a[0] + a[1] + a[2];
            if (!(det > 1e-12 * trace * trace * trace)) {
                java.util.Arrays.fill(g, Double.NaN);
                return false;
            }
            double cyy = a[0] * a[2] - a[5] * a[5];
            double cyz = a[3] * a[5] - a[0] * a[4];
            double czz = a[0] * a[1] - a[3] * a[3];
            for (int d = 0; d < components; d++) {
                double p = b[3 * d] / det;
                double q = b[3 * d + 1] / det;
                double r = b[3 * d + 2] / det;
                g[3 * d] = cx * p + cy * q + cz * r;
                g[3 * d + 1] = cy * p + cyy * q + cyz * r;
                g[3 * d + 2] = cz * p + cyz * q + czz * r;
            }
            return true;
        }
    }

    /**
     * Values known on the boundary.
     *
     * @param owner cell behind each place
     * @param xyz places
     * @param value {@code components} a place
     */
    public record OnBoundary(int[] owner, double[] xyz, double[] value) {
        public static final OnBoundary NONE = new OnBoundary(new int[0], new double[0], new double[0]);
    }

    /**
     * Of values in cells.
     *
     * @param values {@code components} a cell
     * @return {@code 3 * components} a cell; NaN where the neighbours do not span space
     */
    public static double[] inCells(Mesh mesh, double[] values, int components, OnBoundary boundary) {
        boolean plane = dimension(mesh) == 2;
        int dimension = mesh.dimension();
        int n = 3 * components;
        int cells = mesh.cellCount();
        NodeCells around = NodeCells.of(mesh);
        double[] centre = new double[3 * cells];
        Parallel.forBlocks(cells, BLOCK, (block, from, to) -> {
            var cell = new Cell(mesh);
            double[] c = new double[3];
            for (int i = from; i < to; i++) {
                cell.load(i).centre(c);
                System.arraycopy(c, 0, centre, 3 * i, 3);
            }
        });
        int[] first = new int[cells];
        int[] next = new int[boundary.owner().length];
        java.util.Arrays.fill(first, -1);
        for (int f = 0; f < next.length; f++) {
            int c = boundary.owner()[f];
            if (c >= 0) {
                next[f] = first[c];
                first[c] = f;
            }
        }
        double[] normal = plane ? lane.mesh.CellMeasures.plane(mesh) : new double[3];
        double[] out = new double[Math.multiplyExact(cells, n)];
        Parallel.forBlocks(cells, BLOCK, (block, from, to) -> {
            var fit = new Fit(components);
            double[] df = new double[components];
            double[] g = new double[n];
            int[] seen = new int[64];
            for (int c = from; c < to; c++) {
                if (mesh.shape(c).dimension() != dimension) {
                    java.util.Arrays.fill(out, n * c, n * c + n, Double.NaN);
                    continue;
                }
                fit.clear();
                int met = 0;
                for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                    int node = mesh.nodes()[k];
                    for (int e = around.start()[node]; e < around.start()[node + 1]; e++) {
                        int o = around.cell()[e];
                        boolean known = o == c;
                        for (int s = 0; s < met && !known; s++) {
                            known = seen[s] == o;
                        }
                        if (known) {
                            continue;
                        }
                        if (met == seen.length) {
                            seen = java.util.Arrays.copyOf(seen, 2 * met);
                        }
                        seen[met++] = o;
                        for (int d = 0; d < components; d++) {
                            df[d] = values[o * components + d] - values[c * components + d];
                        }
                        add(fit, centre, c, centre, o, df);
                    }
                }
                for (int f = first[c]; f >= 0; f = next[f]) {
                    for (int d = 0; d < components; d++) {
                        df[d] = boundary.value()[f * components + d] - values[c * components + d];
                    }
                    add(fit, centre, c, boundary.xyz(), f, df);
                }
                if (plane) {
                    java.util.Arrays.fill(df, 0);
                    fit.add(normal[0], normal[1], normal[2], 1, df, 0);
                }
                fit.solve(g);
                System.arraycopy(g, 0, out, n * c, n);
            }
        });
        return out;
    }

    private static void add(Fit fit, double[] from, int c, double[] to, int o, double[] df) {
        double x = to[3 * o] - from[3 * c];
        double y = to[3 * o + 1] - from[3 * c + 1];
        double z = to[3 * o + 2] - from[3 * c + 2];
        double l = x * x + y * y + z * z;
        if (l > 0) {
            fit.add(x, y, z, 1 / l, df, 0);
        }
    }
}
