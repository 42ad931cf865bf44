package lane.formats.grid;

import java.util.Arrays;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/** Meshes whose nodes stand in rows: hexahedra, or where one direction has a single row quads, and lines. */
public final class Structured {
    private Structured() {}

    /** Number of nodes of a grid with so many along i, j and k, checked against what is really there. */
    public static int nodes(long[] dims) {
        long n = 1;
        for (long d : dims) {
            if (d < 0 || d > Integer.MAX_VALUE) {
                throw new FormatError("its size along a direction is " + d);
            }
            n = Math.multiplyExact(n, Math.max(1, d));
        }
        if (n > Integer.MAX_VALUE / 3 - 8) {
            throw FormatError.tooLarge("it has " + n + " nodes, which is more than this program holds");
        }
        return (int) n;
    }

    /** @param dims nodes along i (fastest), j and k */
    public static Mesh mesh(double[] xyz, int[] dims) {
        int[] n = {Math.max(1, dims[0]), Math.max(1, dims[1]), Math.max(1, dims[2])};
        int[] cells = {Math.max(1, n[0] - 1), Math.max(1, n[1] - 1), Math.max(1, n[2] - 1)};
        int[] step = {1, n[0], n[0] * n[1]};
        int[] wide = new int[3];
        int dimension = 0;
        for (int d = 0; d < 3; d++) {
            if (n[d] > 1) {
                wide[dimension++] = step[d];
            }
        }
        CellShape shape =
                new CellShape[] {CellShape.VERTEX, CellShape.LINE, CellShape.QUAD, CellShape.HEXAHEDRON}[dimension];
        int size = shape.nodes();
        int count = Math.multiplyExact(Math.multiplyExact(cells[0], cells[1]), cells[2]);
        int[] nodes = new int[Math.multiplyExact(count, size)];
        int[] corner = new int[size];
        for (int c = 0; c < size; c++) {
            int r = c == 1 || c == 2 || c == 5 || c == 6 ? 1 : 0;
            int s = c == 2 || c == 3 || c == 6 || c == 7 ? 1 : 0;
            int t = c >= 4 ? 1 : 0;
            corner[c] = r * wide[0] + s * wide[1] + t * wide[2];
        }
        int at = 0;
        for (int k = 0; k < cells[2]; k++) {
            for (int j = 0; j < cells[1]; j++) {
                for (int i = 0; i < cells[0]; i++) {
                    int base = i + j * step[1] + k * step[2];
                    for (int c : corner) {
                        nodes[at++] = base + c;
                    }
                }
            }
        }
        byte[] shapes = new byte[count];
        Arrays.fill(shapes, (byte) shape.ordinal());
        int[] offsets = new int[count + 1];
        Arrays.setAll(offsets, i -> i * size);
        return new Mesh(xyz, shapes, offsets, nodes);
    }

    /** Nodes of a grid with coordinates along each axis. */
    public static double[] product(double[] x, double[] y, double[] z) {
        int n = nodes(new long[] {x.length, y.length, z.length});
        double[] xyz = new double[3 * n];
        int at = 0;
        for (double c : z) {
            for (double b : y) {
                for (double a : x) {
                    xyz[at++] = a;
                    xyz[at++] = b;
                    xyz[at++] = c;
                }
            }
        }
        return xyz;
    }

    /**
     * Nodes of an image: equal steps from an origin along three directions.
     *
     * @param from first index along each direction
     * @param direction row by row: column d is where index d points to
     */
    public static double[] image(int[] from, int[] dims, double[] origin, double[] spacing, double[] direction) {
        int n = nodes(new long[] {dims[0], dims[1], dims[2]});
        double[] xyz = new double[3 * n];
        int at = 0;
        for (int k = 0; k < Math.max(1, dims[2]); k++) {
            for (int j = 0; j < Math.max(1, dims[1]); j++) {
                for (int i = 0; i < Math.max(1, dims[0]); i++) {
                    double a = (from[0] + i) * spacing[0];
                    double b = (from[1] + j) * spacing[1];
                    double c = (from[2] + k) * spacing[2];
                    for (int d = 0; d < 3; d++) {
                        xyz[at++] =
                                origin[d] + direction[3 * d] * a + direction[3 * d + 1] * b + direction[3 * d + 2] * c;
                    }
                }
            }
        }
        return xyz;
    }
}
