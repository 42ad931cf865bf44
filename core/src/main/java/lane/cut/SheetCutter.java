package lane.cut;

import java.util.Arrays;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/** Cuts faces of a sheet into the pieces that lie in single cells of a run; one a thread. */
final class SheetCutter {
    /** Takes a piece: its cell, its corners (three numbers each) and the cell ready for looking up. */
    interface Taker {
        void take(int cell, double[] polygon, int count, Cell view);
    }

    private final CellLocator locator;
    private final CellLocator.Finder finder;
    private final Cell cell;
    private final double size;
    private double[] polygon = new double[192];
    private double[] other = new double[192];
    private int[] candidates = new int[64];
    private int found;
    private double[] planes = new double[4 * 16];
    private final double[] triangle = new double[9];
    private final double[] centre = new double[3];
    /** Middles of pieces of the current triangle and cell that lay in a side of a tetrahedron. */
    private double[] flat = new double[12];

    private int flats;
    private int current;

    SheetCutter(CellLocator locator) {
        this.locator = locator;
        finder = locator.finder();
        cell = new Cell(locator.mesh());
        size = locator.mesh().modelSize();
    }

    /** The face that is being cut. */
    int current() {
        return current;
    }

    /** Cuts a face as the fan of triangles about its first node; returns the area of all pieces. */
    double face(Mesh sheet, int f, Taker taker) {
        current = f;
        CellShape shape = sheet.shape(f);
        int begin = sheet.begin(f);
        int rim = shape.rim(sheet.size(f));
        double sum = 0;
        for (int k = 1; k + 1 < rim; k++) {
            int[] corner = {shape.around(0), shape.around(k), shape.around(k + 1)};
            for (int i = 0; i < 3; i++) {
                System.arraycopy(sheet.xyz(), 3 * sheet.nodes()[begin + corner[i]], triangle, 3 * i, 3);
            }
            sum += triangle(taker);
        }
        return sum;
    }

    private double triangle(Taker taker) {
        double[] box = new double[6];
        double margin = 1e-9 * size;
        for (int d = 0; d < 3; d++) {
            box[2 * d] = Math.min(triangle[d], Math.min(triangle[3 + d], triangle[6 + d])) - margin;
            box[2 * d + 1] = Math.max(triangle[d], Math.max(triangle[3 + d], triangle[6 + d])) + margin;
        }
        found = 0;
        locator.near(box, c -> {
            if (found == candidates.length) {
                candidates = Arrays.copyOf(candidates, 2 * found);
            }
            candidates[found++] = c;
        });
        Arrays.sort(candidates, 0, found);
        double sum = 0;
        for (int i = 0; i < found; i++) {
            cell.load(candidates[i]);
            if (cell.shape().dimension() == 3) {
                flats = 0;
                sum += planes() ? piece(taker, facePlanes) : tetrahedra(taker);
            }
        }
        return sum;
    }

    private int facePlanes;

    /** Writes the planes of the cell's faces, normals inwards; false when a face is bent. */
    private boolean planes() {
        int[][] faces = cell.faces();
        if (planes.length < 4 * faces.length) {
            planes = new double[4 * faces.length];
        }
        double[] x = cell.x();
        cell.centre(centre);
        facePlanes = faces.length;
        for (int f = 0; f < faces.length; f++) {
            int[] face = faces[f];
            double nx = 0;
            double ny = 0;
            double nz = 0;
            int o = 3 * face[0];
            double wide = 0;
            for (int k = 1; k + 1 < face.length; k++) {
                int a = 3 * face[k];
                int b = 3 * face[k + 1];
                double ux = x[a] - x[o];
                double uy = x[a + 1] - x[o + 1];
                double uz = x[a + 2] - x[o + 2];
                double vx = x[b] - x[o];
                double vy = x[b + 1] - x[o + 1];
                double vz = x[b + 2] - x[o + 2];
                nx += uy * vz - uz * vy;
                ny += uz * vx - ux * vz;
                nz += ux * vy - uy * vx;
                wide = Math.max(wide, Math.max(ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz));
            }
            double n = Math.sqrt(nx * nx + ny * ny + nz * nz);
            if (n == 0) {
                return false;
            }
            double d = (nx * x[o] + ny * x[o + 1] + nz * x[o + 2]) / n;
            double side = (nx * centre[0] + ny * centre[1] + nz * centre[2]) / n - d;
            double sign = side < 0 ? -1 : 1;
            for (int v : face) {
                double off = (nx * x[3 * v] + ny * x[3 * v + 1] + nz * x[3 * v + 2]) / n - d;
                if (off * off > 1e-22 * wide) {
                    return false;
                }
            }
            set(f, sign * nx / n, sign * ny / n, sign * nz / n, sign * d);
        }
        // A cell that is not convex has a corner behind one of its own faces.
        for (int f = 0; f < faces.length; f++) {
            for (int v = 0; v < cell.size(); v++) {
                double off = planes[4 * f] * x[3 * v]
                        + planes[4 * f + 1] * x[3 * v + 1]
                        + planes[4 * f + 2] * x[3 * v + 2]
                        - planes[4 * f + 3];
                if (off < -1e-11 * size) {
                    return false;
                }
            }
        }
        return true;
    }

    private void set(int f, double nx, double ny, double nz, double d) {
        planes[4 * f] = nx;
        planes[4 * f + 1] = ny;
        planes[4 * f + 2] = nz;
        planes[4 * f + 3] = d;
    }

    private double tetrahedra(Taker taker) {
        double[] x = cell.x();
        double[] c = new double[3];
        cell.centre(c);
        double[] m = new double[3];
        double sum = 0;
        for (int[] face : cell.faces()) {
            Arrays.fill(m, 0);
            for (int v : face) {
                for (int d = 0; d < 3; d++) {
                    m[d] += x[3 * v + d] / face.length;
                }
            }
            boolean triangle = face.length == 3;
            for (int k = 0; k < (triangle ? 1 : face.length); k++) {
                double[] p = {x[3 * face[k]], x[3 * face[k] + 1], x[3 * face[k] + 2]};
                int next = face[(k + 1) % face.length];
                double[] q = {x[3 * next], x[3 * next + 1], x[3 * next + 2]};
                double[] r = triangle ? new double[] {x[3 * face[2]], x[3 * face[2] + 1], x[3 * face[2] + 2]} : m;
                double[][] t = {p, q, r, c};
                for (int i = 0; i < 4; i++) {
                    plane(i, t[(i + 1) % 4], t[(i + 2) % 4], t[(i + 3) % 4], t[i]);
                }
                sum += piece(taker, 4);
            }
        }
        return sum;
    }

    private void plane(int f, double[] a, double[] b, double[] c, double[] inside) {
        double ux = b[0] - a[0];
        double uy = b[1] - a[1];
        double uz = b[2] - a[2];
        double vx = c[0] - a[0];
        double vy = c[1] - a[1];
        double vz = c[2] - a[2];
        double nx = uy * vz - uz * vy;
        double ny = uz * vx - ux * vz;
        double nz = ux * vy - uy * vx;
        double n = Math.sqrt(nx * nx + ny * ny + nz * nz);
        n = n == 0 ? 1 : n;
        double d = (nx * a[0] + ny * a[1] + nz * a[2]) / n;
        double sign = (nx * inside[0] + ny * inside[1] + nz * inside[2]) / n - d < 0 ? -1 : 1;
        set(f, sign * nx / n, sign * ny / n, sign * nz / n, sign * d);
    }

    /** Clips the triangle with the first planes and hands on what is left; returns its area. */
    private double piece(Taker taker, int sides) {
        System.arraycopy(triangle, 0, polygon, 0, 9);
        int n = 3;
        for (int f = 0; f < sides && n >= 3; f++) {
            n = clip(n, f);
        }
        if (n < 3) {
            return 0;
        }
        double area = areaOf(n);
        if (!(area > 1e-24 * size * size)) {
            return 0;
        }
        if (inSide(n, sides) && !mine(n)) {
            return 0;
        }
        taker.take(cell.index(), polygon, n, cell);
        return area;
    }

    private int clip(int n, int f) {
        if (other.length < 3 * (n + 2)) {
            other = Arrays.copyOf(other, 6 * (n + 2));
        }
        double nx = planes[4 * f];
        double ny = planes[4 * f + 1];
        double nz = planes[4 * f + 2];
        double d = planes[4 * f + 3];
        double zero = 1e-14 * size;
        int made = 0;
        for (int k = 0; k < n; k++) {
            int a = 3 * k;
            int b = 3 * ((k + 1) % n);
            double da = nx * polygon[a] + ny * polygon[a + 1] + nz * polygon[a + 2] - d;
            double db = nx * polygon[b] + ny * polygon[b + 1] + nz * polygon[b + 2] - d;
            if (da >= -zero) {
                System.arraycopy(polygon, a, other, 3 * made++, 3);
            }
            if (da > zero && db < -zero || da < -zero && db > zero) {
                double t = da / (da - db);
                for (int i = 0; i < 3; i++) {
                    other[3 * made + i] = (1 - t) * polygon[a + i] + t * polygon[b + i];
                }
                made++;
            }
        }
        double[] swap = polygon;
        polygon = other;
        other = swap;
        return made;
    }

    private double areaOf(int n) {
        double nx = 0;
        double ny = 0;
        double nz = 0;
        for (int k = 1; k + 1 < n; k++) {
            int a = 3 * k;
            int b = 3 * k + 3;
            double ux = polygon[a] - polygon[0];
            double uy = polygon[a + 1] - polygon[1];
            double uz = polygon[a + 2] - polygon[2];
            double vx = polygon[b] - polygon[0];
            double vy = polygon[b + 1] - polygon[1];
            double vz = polygon[b + 2] - polygon[2];
            nx += uy * vz - uz * vy;
            ny += uz * vx - ux * vz;
            nz += ux * vy - uy * vx;
        }
        return Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    }

    /** Whether the piece lies in one of the planes, where another cell can claim it too. */
    private boolean inSide(int n, int sides) {
        for (int f = 0; f < sides; f++) {
            boolean all = true;
            for (int k = 0; k < n && all; k++) {
                double d = planes[4 * f] * polygon[3 * k]
                        + planes[4 * f + 1] * polygon[3 * k + 1]
                        + planes[4 * f + 2] * polygon[3 * k + 2]
                        - planes[4 * f + 3];
                all = Math.abs(d) <= 1e-12 * size;
            }
            if (all) {
                return true;
            }
        }
        return false;
    }

    private boolean mine(int n) {
        double x = 0;
        double y = 0;
        double z = 0;
        for (int k = 0; k < n; k++) {
            x += polygon[3 * k] / n;
            y += polygon[3 * k + 1] / n;
            z += polygon[3 * k + 2] / n;
        }
        int who = finder.find(x, y, z, 1e-9 * size);
        if (who >= 0 && who != cell.index()) {
            return false;
        }
        for (int i = 0; i < flats; i++) {
            double dx = flat[3 * i] - x;
            double dy = flat[3 * i + 1] - y;
            double dz = flat[3 * i + 2] - z;
            if (dx * dx + dy * dy + dz * dz < 1e-18 * size * size) {
                return false;
            }
        }
        if (3 * flats + 3 > flat.length) {
            flat = Arrays.copyOf(flat, 2 * flat.length);
        }
        flat[3 * flats] = x;
        flat[3 * flats + 1] = y;
        flat[3 * flats++ + 2] = z;
        return true;
    }
}
