package lane.mesh;

import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;

/**
 * Shape functions of the quadratic shapes. Each shape is a table: the places of its nodes in the reference domain and the
 * functions that span its space, products {@code r^i s^j t^k / (1-t)^d}. The shape function of a node is the
 * combination that is one there and zero at all others: the inverse of the table of functions at nodes, computed once.
 * The spaces are the usual ones of serendipity and Lagrange elements; that of the 13-node pyramid is G. Bedrosian's (Int.
 * J. Numer. Meth. Engng 35, 1992). Every space holds all quadratics, so quadratic fields are reproduced exactly on straight
 * cells and linear ones on all.
 */
final class QuadraticShapes {
    /** Below this distance from a pyramid's apex its rational functions take their limit. */
    private static final double APEX = 1e-13;

    /** Shape functions as coefficients of the spanning functions: {@code by[k * nodes + i]}. */
    private record Table(int nodes, byte[][] powers, double[] by) {}

    private static final Map<CellShape, double[][]> CORNERS = Map.of(
            CellShape.LINE,
            new double[][] {{0, 0, 0}, {1, 0, 0}},
            CellShape.TRIANGLE,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}},
            CellShape.QUAD,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}},
            CellShape.TETRAHEDRON,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}},
            CellShape.HEXAHEDRON,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {1, 1, 1}, {0, 1, 1}},
            CellShape.WEDGE,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {0, 1, 1}},
            CellShape.PYRAMID,
            new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}});

    private static final Map<CellShape, Table> TABLES = new EnumMap<>(CellShape.class);

    private QuadraticShapes() {}

    static {
        byte[][] line = powers("0 r rr");
        byte[][] triangle = powers("0 r s rr rs ss");
        byte[][] quad8 = powers("0 r s rr rs ss rrs rss");
        byte[][] quad9 = product(line, 'r', 's');
        byte[][] tetra = powers("0 r s t rr ss tt rs rt st");
        byte[][] hexa20 = powers("0 r s t rr ss tt rs rt st rrs rss rrt rtt sst stt rst rrst rsst rstt");
        byte[][] hexa27 = times(quad9, line, 't');
        byte[][] wedge18 = times(triangle, line, 't');
        byte[][] wedge15 = powers("0 r s rr rs ss t rt st rrt rst sst tt rtt stt");
        byte[][] pyramid = powers("0 r s t rr ss tt rs rt st rs/ rrs/ rss/");
        add(CellShape.LINE3, line);
        add(CellShape.TRIANGLE6, triangle);
        add(CellShape.QUAD8, quad8);
        add(CellShape.QUAD9, quad9);
        add(CellShape.TETRAHEDRON10, tetra);
        add(CellShape.HEXAHEDRON20, hexa20);
        add(CellShape.HEXAHEDRON27, hexa27);
        add(CellShape.WEDGE15, wedge15);
        add(CellShape.WEDGE18, wedge18);
        add(CellShape.PYRAMID13, pyramid);
    }

    private static byte[][] powers(String words) {
        String[] all = words.split(" ");
        byte[][] out = new byte[all.length][4];
        for (int f = 0; f < all.length; f++) {
            for (char c : all[f].toCharArray()) {
                if (c != '0') {
                    out[f]["rst/".indexOf(c)]++;
                }
            }
        }
        return out;
    }

    private static byte[][] product(byte[][] line, char first, char second) {
        return times(shift(line, first), line, second);
    }

    private static byte[][] shift(byte[][] line, char to) {
        byte[][] out = new byte[line.length][4];
        for (int f = 0; f < line.length; f++) {
            out[f]["rst".indexOf(to)] = line[f][0];
        }
        return out;
    }

    private static byte[][] times(byte[][] a, byte[][] line, char along) {
        byte[][] b = shift(line, along);
        byte[][] out = new byte[a.length * b.length][4];
        for (int i = 0; i < a.length; i++) {
            for (int k = 0; k < b.length; k++) {
                for (int d = 0; d < 4; d++) {
                    out[i * b.length + k][d] = (byte) (a[i][d] + b[k][d]);
                }
            }
        }
        return out;
    }

    private static void add(CellShape shape, byte[][] powers) {
        int n = shape.nodes();
        double[][] places = places(shape);
        // At nodes: rows are nodes, columns are functions; its inverse has the shape functions as columns.
        double[][] m = new double[n][2 * n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            functions(powers, places[i][0], places[i][1], places[i][2], v);
            System.arraycopy(v, 0, m[i], 0, n);
            m[i][n + i] = 1;
        }
        invert(m, n);
        double[] by = new double[n * n];
        for (int k = 0; k < n; k++) {
            for (int i = 0; i < n; i++) {
                // The entries are small whole numbers of quarters; round-off is taken off them.
                by[k * n + i] = Math.rint(m[k][n + i] * 64) / 64;
            }
        }
        TABLES.put(shape, new Table(n, powers, by));
    }

    /** Where the nodes are in the reference domain: corners, then the middles of edges, faces and the cell. */
    static double[][] places(CellShape shape) {
        double[][] corner = Objects.requireNonNull(CORNERS.get(shape.corners()));
        int[][] mids = shape.middles();
        double[][] out = new double[shape.nodes()][3];
        for (int i = 0; i < corner.length; i++) {
            out[i] = corner[i];
        }
        for (int i = 0; i < mids.length; i++) {
            for (int c : mids[i]) {
                for (int d = 0; d < 3; d++) {
                    out[corner.length + i][d] += corner[c][d] / mids[i].length;
                }
            }
        }
        return out;
    }

    private static void functions(byte[][] powers, double r, double s, double t, double[] out) {
        double h = 1 - t;
        for (int f = 0; f < powers.length; f++) {
            byte[] p = powers[f];
            double v = power(r, p[0]) * power(s, p[1]) * power(t, p[2]);
            out[f] = p[3] == 0 ? v : Math.abs(h) < APEX ? 0 : v / h;
        }
    }

    private static double power(double x, int n) {
        return switch (n) {
            case 0 -> 1;
            case 1 -> x;
            case 2 -> x * x;
            default -> Math.pow(x, n);
        };
    }

    private static double slope(double x, int n) {
        return switch (n) {
            case 0 -> 0;
            case 1 -> 1;
            case 2 -> 2 * x;
            default -> n * Math.pow(x, n - 1);
        };
    }

    /** Gauss and Jordan with pivots, on the left half; the right half becomes the inverse. */
    private static void invert(double[][] m, int n) {
        for (int c = 0; c < n; c++) {
            int pivot = c;
            for (int r = c + 1; r < n; r++) {
                pivot = Math.abs(m[r][c]) > Math.abs(m[pivot][c]) ? r : pivot;
            }
            double[] keep = m[c];
            m[c] = m[pivot];
            m[pivot] = keep;
            double by = m[c][c];
            for (int k = 0; k < 2 * n; k++) {
                m[c][k] /= by;
            }
            for (int r = 0; r < n; r++) {
                double f = m[r][c];
                if (r != c && f != 0) {
                    for (int k = 0; k < 2 * n; k++) {
                        m[r][k] -= f * m[c][k];
                    }
                }
            }
        }
    }

    static void values(CellShape shape, double r, double s, double t, double[] out) {
        Table table = Objects.requireNonNull(TABLES.get(shape));
        int n = table.nodes;
        java.util.Arrays.fill(out, 0, n, 0);
        double h = 1 - t;
        for (int k = 0; k < n; k++) {
            byte[] p = table.powers[k];
            double v = power(r, p[0]) * power(s, p[1]) * power(t, p[2]);
            if (p[3] != 0) {
                v = Math.abs(h) < APEX ? 0 : v / h;
            }
            for (int i = 0; i < n; i++) {
                out[i] += v * table.by[k * n + i];
            }
        }
    }

    static void derivatives(CellShape shape, double r, double s, double t, double[] d) {
        Table table = Objects.requireNonNull(TABLES.get(shape));
        int n = table.nodes;
        java.util.Arrays.fill(d, 0, 3 * n, 0);
        double h = Math.abs(1 - t) < APEX ? APEX : 1 - t;
        for (int k = 0; k < n; k++) {
            byte[] p = table.powers[k];
            double pr = power(r, p[0]);
            double ps = power(s, p[1]);
            double pt = power(t, p[2]);
            double over = p[3] == 0 ? 1 : 1 / h;
            double dr = slope(r, p[0]) * ps * pt * over;
            double ds = pr * slope(s, p[1]) * pt * over;
            double dt = pr * ps * slope(t, p[2]) * over + (p[3] == 0 ? 0 : pr * ps * pt / (h * h));
            for (int i = 0; i < n; i++) {
                double c = table.by[k * n + i];
                d[3 * i] += c * dr;
                d[3 * i + 1] += c * ds;
                d[3 * i + 2] += c * dt;
            }
        }
    }
}
