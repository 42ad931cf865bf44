package lane.mesh;

/**
 * Lengths, areas, volumes and area vectors. Volumes of shapes with shape functions are exact for their mapping (Gauss
 * rules of sufficient degree); volumes of polyhedra follow from the divergence theorem over faces cut about the mean of
 * their nodes.
 */
public final class CellMeasures {
    private CellMeasures() {}

    /**
     * The unit normal of a mesh of plane cells: that of its first cell with an area, counterclockwise seen against it;
     * along z where there is none.
     */
    public static double[] plane(Mesh mesh) {
        if (mesh.dimension() == 2) {
            var cell = new Cell(mesh);
            for (int c = 0; c < mesh.cellCount(); c++) {
                if (mesh.shape(c).dimension() == 2) {
                    double[] n = areaVector(cell.load(c));
                    double size = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
                    if (size > 0 && Double.isFinite(size)) {
                        return new double[] {n[0] / size, n[1] / size, n[2] / size};
                    }
                }
            }
        }
        return new double[] {0, 0, 1};
    }

    /** Whether all nodes of a mesh lie in the plane of its first cell, to a billionth of its size. */
    public static boolean flat(Mesh mesh) {
        if (mesh.dimension() != 2 || mesh.nodeCount() == 0) {
            return false;
        }
        double[] n = plane(mesh);
        double[] x = mesh.xyz();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < x.length; i += 3) {
            double h = n[0] * x[i] + n[1] * x[i + 1] + n[2] * x[i + 2];
            least = Math.min(least, h);
            greatest = Math.max(greatest, h);
        }
        return greatest - least <= 1e-9 * mesh.modelSize();
    }

    /**
     * Makes a vector as long as another, unless it is so but for round-off: an edge on a surface that bends is no shorter for
     * leaving the plane that its surface has elsewhere. One without a direction gets one across.
     */
    public static void asLong(double[] v, double tx, double ty, double tz) {
        double wanted = Math.sqrt(tx * tx + ty * ty + tz * tz);
        double is = Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
        if (Math.abs(is - wanted) <= 1e-9 * wanted) {
            return;
        }
        if (is <= 1e-9 * wanted) {
            boolean alongX = Math.abs(tx) > 0.9 * wanted;
            v[0] = alongX ? 0 : wanted;
            v[1] = alongX ? wanted : 0;
            v[2] = 0;
            return;
        }
        for (int d = 0; d < 3; d++) {
            v[d] *= wanted / is;
        }
    }

    /** Area times normal of the polygon through the corners of a surface cell. */
    public static double[] areaVector(Cell cell) {
        double[] n = new double[3];
        int size = cell.shape().rim(cell.size());
        for (int i = 1; i + 1 < size; i++) {
            addTriangle(
                    cell.x(),
                    cell.shape().around(0),
                    cell.shape().around(i),
                    cell.shape().around(i + 1),
                    n);
        }
        return n;
    }

    static double of(Cell cell) {
        double[] x = cell.x();
        return switch (cell.shape()) {
            case VERTEX -> 0;
            case LINE, POLYLINE -> {
                double length = 0;
                for (int i = 1; i < cell.size(); i++) {
                    length += distance(x, 3 * i - 3, x, 3 * i);
                }
                yield length;
            }
            case TRIANGLE -> {
                double[] n = new double[3];
                addTriangle(x, 0, 1, 2, n);
                yield Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            }
            case QUAD, PIXEL -> quadArea(cell);
            case POLYGON -> polygonArea(cell);
            case TETRAHEDRON -> tetra(x, 0, x, 3, x, 6, x, 9);
            case HEXAHEDRON, VOXEL, WEDGE, PYRAMID -> {
                // The wedge's order in the format has its first triangle wound outwards: its map is left-handed.
                double v = mapped(cell);
                yield cell.shape() == CellShape.WEDGE ? -v : v;
            }
            case TETRAHEDRON10, HEXAHEDRON20, HEXAHEDRON27, PYRAMID13 -> mapped(cell);
            case WEDGE15, WEDGE18 -> -mapped(cell);
            case LINE3, TRIANGLE6, QUAD8, QUAD9 -> curved(cell);
            case POLYHEDRON -> polyhedron(cell);
        };
    }

    private static double mapped(Cell cell) {
        // The determinant of a quadratic map has degree five in each direction; a pyramid's is rational.
        Quadrature rule = Quadrature.of(cell.shape(), cell.shape().quadratic() ? 9 : 3);
        double[] d = new double[3 * cell.size()];
        double[] j = new double[9];
        double sum = 0;
        for (int q = 0; q < rule.size(); q++) {
            double[] p = rule.points();
            ShapeFunctions.derivatives(cell.shape(), p[3 * q], p[3 * q + 1], p[3 * q + 2], d);
            jacobian(cell, d, j);
            sum += rule.weights()[q] * determinant(j);
        }
        return sum;
    }

    /** Length or area of a curved line or surface; degree 15 leaves little even on strong bends. */
    private static double curved(Cell cell) {
        Quadrature rule = Quadrature.of(cell.shape(), 15);
        boolean line = cell.shape().dimension() == 1;
        double[] d = new double[3 * cell.size()];
        double[] j = new double[9];
        double sum = 0;
        for (int q = 0; q < rule.size(); q++) {
            double[] p = rule.points();
            ShapeFunctions.derivatives(cell.shape(), p[3 * q], p[3 * q + 1], 0, d);
            jacobian(cell, d, j);
            double nx = line ? j[0] : j[3] * j[7] - j[6] * j[4];
            double ny = line ? j[3] : j[6] * j[1] - j[0] * j[7];
            double nz = line ? j[6] : j[0] * j[4] - j[3] * j[1];
            sum += rule.weights()[q] * Math.sqrt(nx * nx + ny * ny + nz * nz);
        }
        return sum;
    }

    /** Columns of dx/d(r,s,t), row by row: {@code j[3*i+k] = d x_i / d r_k}. */
    static void jacobian(Cell cell, double[] d, double[] j) {
        double[] x = cell.x();
        java.util.Arrays.fill(j, 0);
        for (int i = 0; i < cell.size(); i++) {
            for (int a = 0; a < 3; a++) {
                double xa = x[3 * i + a];
                j[3 * a] += xa * d[3 * i];
                j[3 * a + 1] += xa * d[3 * i + 1];
                j[3 * a + 2] += xa * d[3 * i + 2];
            }
        }
    }

    static double determinant(double[] j) {
        return j[0] * (j[4] * j[8] - j[5] * j[7])
                - j[1] * (j[3] * j[8] - j[5] * j[6])
                + j[2] * (j[3] * j[7] - j[4] * j[6]);
    }

    private static double quadArea(Cell cell) {
        // The area of a bilinear patch is no polynomial; degree 7 leaves less than 1e-6 on strongly bent patches and
        // nothing on flat ones, where the area element is bilinear.
        Quadrature rule = Quadrature.of(CellShape.QUAD, 7);
        double[] d = new double[12];
        double[] j = new double[9];
        double sum = 0;
        for (int q = 0; q < rule.size(); q++) {
            double[] p = rule.points();
            ShapeFunctions.derivatives(cell.shape(), p[3 * q], p[3 * q + 1], 0, d);
            jacobian(cell, d, j);
            double nx = j[3] * j[7] - j[6] * j[4];
            double ny = j[6] * j[1] - j[0] * j[7];
            double nz = j[0] * j[4] - j[3] * j[1];
            sum += rule.weights()[q] * Math.sqrt(nx * nx + ny * ny + nz * nz);
        }
        return sum;
    }

    /** Flat polygons, convex or not, exactly; bent ones as the fan of triangles about the mean of their nodes. */
    private static double polygonArea(Cell cell) {
        double[] x = cell.x();
        double[] total = new double[3];
        for (int i = 1; i + 1 < cell.size(); i++) {
            addTriangle(x, 0, i, i + 1, total);
        }
        double size = Math.sqrt(total[0] * total[0] + total[1] * total[1] + total[2] * total[2]);
        double[] centre = new double[3];
        cell.centre(centre);
        double bent = 0;
        for (int i = 0; i < cell.size(); i++) {
            double h = total[0] * (x[3 * i] - centre[0])
                    + total[1] * (x[3 * i + 1] - centre[1])
                    + total[2] * (x[3 * i + 2] - centre[2]);
            bent = Math.max(bent, Math.abs(h));
        }
        if (bent <= 1e-9 * size * Math.sqrt(size)) {
            return size;
        }
        double sum = 0;
        for (int i = 0; i < cell.size(); i++) {
            int k = (i + 1) % cell.size();
            double[] n = new double[3];
            addTriangle(
                    new double[] {
                        centre[0],
                        centre[1],
                        centre[2],
                        x[3 * i],
                        x[3 * i + 1],
                        x[3 * i + 2],
                        x[3 * k],
                        x[3 * k + 1],
                        x[3 * k + 2]
                    },
                    0,
                    1,
                    2,
                    n);
            sum += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        }
        return sum;
    }

    private static double polyhedron(Cell cell) {
        double[] x = cell.x();
        double[] c = new double[3];
        double[] m = new double[3];
        cell.centre(c);
        double sum = 0;
        for (int[] face : cell.faces()) {
            faceCentre(x, face, m);
            for (int i = 0; i < face.length; i++) {
                sum += tetra(c, 0, m, 0, x, 3 * face[i], x, 3 * face[(i + 1) % face.length]);
            }
        }
        return sum;
    }

    /** The mean of a face's nodes. */
    static void faceCentre(double[] x, int[] face, double[] out) {
        out[0] = 0;
        out[1] = 0;
        out[2] = 0;
        for (int node : face) {
            out[0] += x[3 * node];
            out[1] += x[3 * node + 1];
            out[2] += x[3 * node + 2];
        }
        for (int d = 0; d < 3; d++) {
            out[d] /= face.length;
        }
    }

    /** Signed volume of a tetrahedron whose corners begin at the given places of the arrays. */
    static double tetra(double[] a, int ia, double[] b, int ib, double[] c, int ic, double[] d, int id) {
        double ax = b[ib] - a[ia];
        double ay = b[ib + 1] - a[ia + 1];
        double az = b[ib + 2] - a[ia + 2];
        double bx = c[ic] - a[ia];
        double by = c[ic + 1] - a[ia + 1];
        double bz = c[ic + 2] - a[ia + 2];
        double cx = d[id] - a[ia];
        double cy = d[id + 1] - a[ia + 1];
        double cz = d[id + 2] - a[ia + 2];
        return (ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx)) / 6;
    }

    /** Adds half the cross product of two edges of the triangle: its area vector. */
    static void addTriangle(double[] x, int a, int b, int c, double[] n) {
        double ux = x[3 * b] - x[3 * a];
        double uy = x[3 * b + 1] - x[3 * a + 1];
        double uz = x[3 * b + 2] - x[3 * a + 2];
        double vx = x[3 * c] - x[3 * a];
        double vy = x[3 * c + 1] - x[3 * a + 1];
        double vz = x[3 * c + 2] - x[3 * a + 2];
        n[0] += (uy * vz - uz * vy) / 2;
        n[1] += (uz * vx - ux * vz) / 2;
        n[2] += (ux * vy - uy * vx) / 2;
    }

    static double distance(double[] a, int ia, double[] b, int ib) {
        double dx = a[ia] - b[ib];
        double dy = a[ia + 1] - b[ib + 1];
        double dz = a[ia + 2] - b[ib + 2];
        return Math.sqrt(dx * dx + dy * dy + dz * dz);
    }
}
