package lane.transfer;

import java.util.Arrays;
import lane.base.Parallel;
import lane.base.Work;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * A cell as convex bodies with flat faces; one thread's own. A convex cell of flat faces is one body; any other, or one that is asked
 * for in parts, falls into tetrahedra about the means of its faces and of its corners, as everywhere in the program. A plane cell is
 * a slice of its plane. Curved cells are the facets through their nodes.
 */
final class CellBody {
    /** Faces are flat, and corners behind them, to this share of the cell's size. */
    private static final double FLAT = 1e-13;

    final Cell cell;
    private final double[] normal;
    private final boolean plane;
    /** The bodies, of which {@link #count} are in use. */
    Piece[] pieces = {new Piece()};

    int count;
    /** 1, or -1 where a tetrahedron of a cell that is not convex is to be taken off. */
    double[] sign = {1};
    /** For bodies that are parts: the corners of each by weights of the cell's nodes; a row of three or four corners' nodes. */
    double[][] rows = {};

    boolean parts;
    /** Whether the faces of the one body looked inwards. */
    boolean turned;
    /** The longest side of the box around the cell. */
    double size;
    /** Thickness of the slice of a plane cell, by which volumes are to be divided; 1 for solids. */
    final double thickness;

    /** Least and greatest x, y and z of each body, where there are several. */
    double[] boxes = new double[6];

    private final double[] barycentric = new double[4];
    private final double[] middle = new double[3];
    private double[] planes = new double[4 * 32];
    private double[] local = new double[81];

    /**
     * @param normal of the plane of a mesh of plane cells
     * @param thickness of the slices that plane cells are
     */
    CellBody(Mesh mesh, double[] normal, double thickness) {
        cell = new Cell(mesh);
        plane = mesh.dimension() == 2;
        this.normal = normal;
        this.thickness = plane ? thickness : 1;
    }

    /** How a cell stands, found once for a mesh. */
    static final byte OUTWARDS = 1;

    static final byte INWARDS = 2;
    static final byte IN_PARTS = 3;

    /** How each cell of a mesh stands, so that it need not be looked at again for each that it meets. */
    static byte[] standing(Mesh mesh, double[] normal, double thickness, Work work) {
        byte[] out = new byte[mesh.cellCount()];
        int dimension = mesh.dimension();
        Parallel.forBlocks(out.length, 1 << 12, (block, from, to) -> {
            work.poll();
            var body = new CellBody(mesh, normal, thickness);
            double[] origin = new double[3];
            for (int c = from; c < to; c++) {
                if (mesh.shape(c).dimension() == dimension) {
                    System.arraycopy(body.cell.load(c).x(), 0, origin, 0, 3);
                    body.load(c, origin, false);
                    out[c] = body.parts ? IN_PARTS : body.turned ? INWARDS : OUTWARDS;
                }
            }
        });
        return out;
    }

    /**
     * Loads a cell whose standing is known.
     *
     * @param origin that coordinates are told from
     * @param inParts whether the tetrahedra are wanted even of a convex cell
     */
    void load(int c, double[] origin, boolean inParts, byte standing) {
        local(c, origin);
        if (inParts || standing == IN_PARTS) {
            inParts();
            return;
        }
        whole();
        if (standing == INWARDS) {
            pieces[0].turn();
        }
    }

    /** Whether all corners of the cell that is loaded next lie before one of the planes, which saves loading it. */
    static boolean before(Cell cell, double[] origin, double[] planes, int count, double zero) {
        double[] x = cell.x();
        for (int f = 0; f < count; f++) {
            double a = planes[4 * f];
            double b = planes[4 * f + 1];
            double c = planes[4 * f + 2];
            double offset = planes[4 * f + 3] + a * origin[0] + b * origin[1] + c * origin[2];
            boolean all = a != 0 || b != 0 || c != 0;
            for (int v = 0; all && v < cell.size(); v++) {
                all = a * x[3 * v] + b * x[3 * v + 1] + c * x[3 * v + 2] - offset >= -zero;
            }
            if (all) {
                return true;
            }
        }
        return false;
    }

    /**
     * @param origin that coordinates are told from
     * @param inParts whether the tetrahedra are wanted even of a convex cell
     */
    void load(int c, double[] origin, boolean inParts) {
        local(c, origin);
        if (!inParts) {
            whole();
            if (convex(pieces[0])) {
                return;
            }
        }
        inParts();
    }

    private void local(int c, double[] origin) {
        cell.load(c);
        int n = cell.size();
        if (local.length < 3 * n) {
            local = new double[6 * n];
        }
        size = 0;
        for (int i = 0; i < 3; i++) {
            double least = Double.POSITIVE_INFINITY;
            double greatest = Double.NEGATIVE_INFINITY;
            for (int k = 0; k < n; k++) {
                double v = cell.x()[3 * k + i] - origin[i];
                local[3 * k + i] = v;
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
            size = Math.max(size, greatest - least);
        }
    }

    /** The cell as one body. */
    private void whole() {
        count = 0;
        parts = false;
        turned = false;
        Piece whole = piece();
        sign[0] = 1;
        if (plane) {
            slice(whole);
            return;
        }
        for (int k = 0; k < cell.size(); k++) {
            whole.corner(local[3 * k], local[3 * k + 1], local[3 * k + 2]);
        }
        for (int[] face : cell.faces()) {
            whole.face(face, face.length, false);
        }
    }

    private void inParts() {
        count = 0;
        parts = true;
        if (plane) {
            triangles();
        } else {
            tetrahedra();
        }
        orient();
        bound();
    }

    private void bound() {
        if (boxes.length < 6 * count) {
            boxes = new double[12 * count];
        }
        for (int k = 0; k < count; k++) {
            double[] x = pieces[k].x();
            for (int i = 0; i < 3; i++) {
                double least = x[i];
                double greatest = x[i];
                for (int v = 1; v < pieces[k].corners(); v++) {
                    least = Math.min(least, x[3 * v + i]);
                    greatest = Math.max(greatest, x[3 * v + i]);
                }
                boxes[6 * k + 2 * i] = least;
                boxes[6 * k + 2 * i + 1] = greatest;
            }
        }
    }

    /** Whether a body may meet one of another cell. */
    boolean meets(int own, CellBody other, int body) {
        if (count == 1 || other.count == 1) {
            return true;
        }
        double[] a = boxes;
        double[] b = other.boxes;
        int i = 6 * own;
        int j = 6 * body;
        return a[i] <= b[j + 1]
                && a[i + 1] >= b[j]
                && a[i + 2] <= b[j + 3]
                && a[i + 3] >= b[j + 2]
                && a[i + 4] <= b[j + 5]
                && a[i + 5] >= b[j + 4];
    }

    private Piece piece() {
        if (count == pieces.length) {
            pieces = Arrays.copyOf(pieces, 2 * count);
            sign = Arrays.copyOf(sign, 2 * count);
            for (int i = count; i < pieces.length; i++) {
                pieces[i] = new Piece();
            }
        }
        if (count >= rows.length) {
            rows = Arrays.copyOf(rows, pieces.length);
        }
        Piece p = pieces[count++];
        p.clear();
        return p;
    }

    private void slice(Piece out) {
        CellShape shape = cell.shape();
        int m = shape.rim(cell.size());
        int[] loop = new int[m];
        for (int level = 0; level < 2; level++) {
            for (int k = 0; k < m; k++) {
                int v = 3 * shape.around(k);
                loop[k] = level(out, local[v], local[v + 1], local[v + 2], level);
            }
            out.face(loop, m, level == 0);
        }
        for (int k = 0; k < m; k++) {
            int next = (k + 1) % m;
            out.face(k, next, m + next, m + k);
        }
    }

    private int level(Piece out, double px, double py, double pz, int level) {
        double h = level * thickness;
        return out.corner(px + h * normal[0], py + h * normal[1], pz + h * normal[2]);
    }

    /** Whether a body is convex with flat faces; one whose faces look inwards is turned. */
    private boolean convex(Piece body) {
        if (planes.length < 4 * body.faces()) {
            planes = new double[8 * body.faces()];
        }
        body.planes(planes);
        int m = body.faces();
        double[] x = body.x();
        boolean outwards = true;
        boolean inwards = true;
        // A corner of a face lies in its plane; any other behind it, or before it where the cell is wound the wrong way
        // round.
        for (int f = 0; f < m; f++) {
            for (int k = 0; k < body.corners(); k++) {
                double h = planes[4 * f] * x[3 * k]
                        + planes[4 * f + 1] * x[3 * k + 1]
                        + planes[4 * f + 2] * x[3 * k + 2]
                        - planes[4 * f + 3];
                outwards &= h <= FLAT * size;
                inwards &= h >= -FLAT * size;
            }
            if (!outwards && !inwards) {
                return false;
            }
        }
        if (!body.flat(planes, FLAT * size)) {
            return false;
        }
        turned = !outwards;
        if (turned) {
            body.turn();
        }
        return true;
    }

    private void tetrahedra() {
        int n = cell.size();
        double[] centre = new double[3];
        mean(null, n, centre);
        for (int[] face : cell.faces()) {
            mean(face, face.length, middle);
            for (int k = 0; k < face.length; k++) {
                int a = face[k];
                int b = face[(k + 1) % face.length];
                Piece p = piece();
                p.corner(centre[0], centre[1], centre[2]);
                p.corner(middle[0], middle[1], middle[2]);
                p.corner(local[3 * a], local[3 * a + 1], local[3 * a + 2]);
                p.corner(local[3 * b], local[3 * b + 1], local[3 * b + 2]);
                p.face(1, 2, 3);
                p.face(0, 2, 1);
                p.face(0, 3, 2);
                p.face(0, 1, 3);
                double[] row = row(4 * n);
                Arrays.fill(row, 0, n, 1.0 / n);
                Arrays.fill(row, n, 4 * n, 0);
                for (int v : face) {
                    row[n + v] = 1.0 / face.length;
                }
                row[2 * n + a] = 1;
                row[3 * n + b] = 1;
            }
        }
    }

    private void triangles() {
        CellShape shape = cell.shape();
        int n = cell.size();
        int m = shape.rim(n);
        int[] rim = new int[m];
        for (int k = 0; k < m; k++) {
            rim[k] = shape.around(k);
        }
        mean(rim, m, middle);
        for (int k = 0; k < m; k++) {
            int a = rim[k];
            int b = rim[(k + 1) % m];
            Piece p = piece();
            for (int level = 0; level < 2; level++) {
                level(p, middle[0], middle[1], middle[2], level);
                level(p, local[3 * a], local[3 * a + 1], local[3 * a + 2], level);
                level(p, local[3 * b], local[3 * b + 1], local[3 * b + 2], level);
            }
            p.face(0, 2, 1);
            p.face(3, 4, 5);
            p.face(0, 1, 4, 3);
            p.face(1, 2, 5, 4);
            p.face(2, 0, 3, 5);
            double[] row = row(3 * n);
            Arrays.fill(row, 0, 3 * n, 0);
            for (int v : rim) {
                row[v] = 1.0 / m;
            }
            row[n + a] = 1;
            row[2 * n + b] = 1;
        }
    }

    private double[] row(int length) {
        double[] row = rows[count - 1];
        if (row == null || row.length < length) {
            row = new double[length];
            rows[count - 1] = row;
        }
        return row;
    }

    private void mean(int @Nullable [] of, int n, double[] out) {
        Arrays.fill(out, 0);
        for (int k = 0; k < n; k++) {
            int v = of == null ? k : of[k];
            for (int i = 0; i < 3; i++) {
                out[i] += local[3 * v + i] / n;
            }
        }
    }

    /** Every body stands the right way round; those against the sense of the whole count negative. */
    private void orient() {
        double all = 0;
        for (int k = 0; k < count; k++) {
            pieces[k].moments();
            all += pieces[k].volume;
            sign[k] = pieces[k].volume;
        }
        for (int k = 0; k < count; k++) {
            boolean turned = sign[k] < 0;
            if (turned) {
                pieces[k].turn();
            }
            sign[k] = turned == all < 0 ? 1 : -1;
        }
    }

    /** Weights of the cell's nodes at a place of one of its parts, where what is at the nodes is linear. */
    void weights(int part, double px, double py, double pz, double[] out) {
        double[] x = pieces[part].x();
        int n = cell.size();
        int corners = plane ? 3 : 4;
        double ax = x[3] - x[0];
        double ay = x[4] - x[1];
        double az = x[5] - x[2];
        double bx = x[6] - x[0];
        double by = x[7] - x[1];
        double bz = x[8] - x[2];
        double cx = x[9] - x[0];
        double cy = x[10] - x[1];
        double cz = x[11] - x[2];
        double dx = px - x[0];
        double dy = py - x[1];
        double dz = pz - x[2];
        double ux = by * cz - bz * cy;
        double uy = bz * cx - bx * cz;
        double uz = bx * cy - by * cx;
        double det = ax * ux + ay * uy + az * uz;
        barycentric[1] = (dx * ux + dy * uy + dz * uz) / det;
        barycentric[2] = (dx * (cy * az - cz * ay) + dy * (cz * ax - cx * az) + dz * (cx * ay - cy * ax)) / det;
        barycentric[3] = (dx * (ay * bz - az * by) + dy * (az * bx - ax * bz) + dz * (ax * by - ay * bx)) / det;
        barycentric[0] = 1 - barycentric[1] - barycentric[2] - (plane ? 0 : barycentric[3]);
        double[] row = rows[part];
        for (int v = 0; v < n; v++) {
            double w = 0;
            for (int k = 0; k < corners; k++) {
                w += barycentric[k] * row[k * n + v];
            }
            out[v] = w;
        }
    }

    /** The volume of the bodies, or the area of a plane cell. */
    double measure() {
        double sum = 0;
        for (int k = 0; k < count; k++) {
            pieces[k].moments();
            sum += sign[k] * pieces[k].volume;
        }
        return sum / thickness;
    }
}
