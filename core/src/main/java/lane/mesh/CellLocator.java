package lane.mesh;

import java.util.Arrays;
import java.util.function.IntConsumer;
import lane.base.Parallel;
import lane.base.Work;

/**
 * Finds the cells at a point or along a segment: a hierarchy of boxes over the cells in the order of a space-filling
 * curve (Morton), split where the curve enters another octant, packed once in flat arrays and read by any number of threads. Only cells of the mesh's highest
 * dimension take part. Boxes are floats rounded outwards, so no cell is lost by rounding; cells with non-finite
 * coordinates are left out and counted.
 *
 * <p>Building costs one sort of one number a cell; a query visits a few boxes a level.
 */
public final class CellLocator {
    /** At most so many cells end a branch. */
    private static final int FEW = 6;

    private static final int BLOCK = 1 << 14;

    private final Mesh mesh;
    /** Cells in the order of the curve, and their boxes. */
    private final int[] order;

    private final float[] cellBoxes;
    /** Nodes of the hierarchy, parents before children: first child and number of children, or first cell and -number. */
    private int[] first = new int[1024];

    private int[] count = new int[1024];
    private final float[] nodeBoxes;
    private final int lost;

    public CellLocator(Mesh mesh) {
        this(mesh, Work.QUIET);
    }

    /** @throws java.util.concurrent.CancellationException when cancelled */
    public CellLocator(Mesh mesh, Work work) {
        this.mesh = mesh;
        long[] keys = sorted(keys(mesh, mesh.dimension()), work);
        int kept = 0;
        int taking = 0;
        for (long key : keys) {
            kept += key >= 0 ? 1 : 0;
            taking += key != -1 ? 1 : 0;
        }
        work.progress("Ordering cells", 0.5);
        order = new int[kept];
        int[] codes = new int[kept];
        int skip = keys.length - kept;
        for (int i = 0; i < kept; i++) {
            order[i] = (int) keys[skip + i];
            codes[i] = (int) (keys[skip + i] >>> 32);
        }
        lost = taking - kept;
        cellBoxes = new float[6 * kept];
        boxCells();
        work.poll();
        int nodes = split(codes);
        work.poll();
        first = Arrays.copyOf(first, nodes);
        count = Arrays.copyOf(count, nodes);
        nodeBoxes = new float[6 * nodes];
        boxNodes();
    }

    /** Makes the nodes level by level; a node's children follow each other. */
    private int split(int[] codes) {
        int[] from = new int[1024];
        int[] to = new int[1024];
        byte[] shift = new byte[1024];
        int made = codes.length == 0 ? 0 : 1;
        if (made == 1) {
            to[0] = codes.length;
            shift[0] = 27;
        }
        for (int node = 0; node < made; node++) {
            int a = from[node];
            int b = to[node];
            int s = shift[node];
            // Octants that hold everything are passed over.
            while (s >= 0 && (codes[a] >>> s & 7) == (codes[b - 1] >>> s & 7)) {
                s -= 3;
            }
            if (b - a <= FEW || s < 0) {
                first[node] = a;
                count[node] = -(b - a);
                continue;
            }
            first[node] = made;
            int start = a;
            for (int k = a + 1; k <= b; k++) {
                if (k == b || (codes[k] >>> s & 7) != (codes[start] >>> s & 7)) {
                    if (made == from.length) {
                        from = Arrays.copyOf(from, 2 * made);
                        to = Arrays.copyOf(to, 2 * made);
                        shift = Arrays.copyOf(shift, 2 * made);
                        first = Arrays.copyOf(first, 2 * made);
                        count = Arrays.copyOf(count, 2 * made);
                    }
                    from[made] = start;
                    to[made] = k;
                    shift[made++] = (byte) (s - 3);
                    start = k;
                }
            }
            count[node] = made - first[node];
        }
        return made;
    }

    /** Number of cells left out because a coordinate is not finite. */
    public int lost() {
        return lost;
    }

    public Mesh mesh() {
        return mesh;
    }

    /** Morton code of the box centre in the upper half, cell number in the lower; -1 other dimension, -2 not finite. */
    private static long[] keys(Mesh mesh, int dimension) {
        double[] b = mesh.bounds();
        long[] keys = new long[mesh.cellCount()];
        int[] nodes = mesh.nodes();
        double[] xyz = mesh.xyz();
        Parallel.forBlocks(keys.length, BLOCK, (block, from, to) -> {
            for (int c = from; c < to; c++) {
                if (mesh.shape(c).dimension() != dimension) {
                    keys[c] = -1;
                    continue;
                }
                int begin = mesh.begin(c);
                int size = mesh.size(c);
                double x = 0;
                double y = 0;
                double z = 0;
                for (int i = begin; i < begin + size; i++) {
                    x += xyz[3 * nodes[i]];
                    y += xyz[3 * nodes[i] + 1];
                    z += xyz[3 * nodes[i] + 2];
                }
                if (!Double.isFinite(x + y + z)) {
                    keys[c] = -2;
                    continue;
                }
                long code = curve(b, x / size, y / size, z / size);
                keys[c] = code << 32 | c;
            }
        });
        return keys;
    }

    /** In rising order; many keys are first parted by their leading bits, so that sorting can be given up in between. */
    static long[] sorted(long[] keys, Work work) {
        work.poll();
        if (keys.length < 1 << 19) {
            Arrays.parallelSort(keys);
            return keys;
        }
        int[] end = new int[66];
        for (long key : keys) {
            end[group(key) + 1]++;
        }
        for (int g = 0; g < 65; g++) {
            end[g + 1] += end[g];
        }
        int[] at = end.clone();
        long[] out = new long[keys.length];
        for (long key : keys) {
            out[at[group(key)]++] = key;
        }
        for (int g = 0; g < 65; g++) {
            work.poll();
            work.progress("Ordering cells", 0.1 + 0.4 * g / 65);
            Arrays.parallelSort(out, end[g], end[g + 1]);
        }
        return out;
    }

    /** Cells that take no part come first, then the six leading of the 30 bits of the curve. */
    private static int group(long key) {
        return key < 0 ? 0 : 1 + (int) (key >>> 56);
    }

    /** The place's number (30 bits) on the space-filling curve through the bounds; outside, that of the nearest place. */
    public static long curve(double[] bounds, double x, double y, double z) {
        return spread(tenBits(x, bounds[0], bounds[1]))
                | spread(tenBits(y, bounds[2], bounds[3])) << 1
                | spread(tenBits(z, bounds[4], bounds[5])) << 2;
    }

    private static int tenBits(double v, double least, double greatest) {
        double f = greatest > least ? (v - least) / (greatest - least) * 1023.999 : 0;
        return (int) Math.min(1023, Math.max(0, f));
    }

    /** Spreads ten bits to every third place. */
    static long spread(int v) {
        long x = v & 0x3ff;
        x = (x | x << 16) & 0x30000ff;
        x = (x | x << 8) & 0x300f00f;
        x = (x | x << 4) & 0x30c30c3;
        return (x | x << 2) & 0x9249249;
    }

    /** Boxes of the cells in curve order, widened by the slack of the inside test. */
    private void boxCells() {
        int[] nodes = mesh.nodes();
        double[] xyz = mesh.xyz();
        Parallel.forBlocks(order.length, BLOCK, (block, from, to) -> {
            for (int k = from; k < to; k++) {
                int begin = mesh.begin(order[k]);
                int end = begin + mesh.size(order[k]);
                double bulge = mesh.shape(order[k]).quadratic() ? Cell.BULGE : 2 * Cell.SLACK;
                for (int d = 0; d < 3; d++) {
                    double least = Double.POSITIVE_INFINITY;
                    double greatest = Double.NEGATIVE_INFINITY;
                    for (int i = begin; i < end; i++) {
                        double v = xyz[3 * nodes[i] + d];
                        least = v < least ? v : least;
                        greatest = v > greatest ? v : greatest;
                    }
                    double slack = bulge * (greatest - least);
                    cellBoxes[6 * k + 2 * d] = Math.nextDown((float) (least - slack));
                    cellBoxes[6 * k + 2 * d + 1] = Math.nextUp((float) (greatest + slack));
                }
            }
        });
    }

    private void boxNodes() {
        for (int node = first.length - 1; node >= 0; node--) {
            boolean leaf = count[node] < 0;
            float[] from = leaf ? cellBoxes : nodeBoxes;
            for (int d = 0; d < 3; d++) {
                float least = Float.POSITIVE_INFINITY;
                float greatest = Float.NEGATIVE_INFINITY;
                for (int k = first[node]; k < first[node] + Math.abs(count[node]); k++) {
                    least = Math.min(least, from[6 * k + 2 * d]);
                    greatest = Math.max(greatest, from[6 * k + 2 * d + 1]);
                }
                nodeBoxes[6 * node + 2 * d] = least;
                nodeBoxes[6 * node + 2 * d + 1] = greatest;
            }
        }
    }

    /** Calls back every cell whose box meets the given box. */
    public void near(double[] box, IntConsumer found) {
        if (first.length > 0) {
            near(0, box, found);
        }
    }

    private void near(int node, double[] box, IntConsumer found) {
        boolean leaf = count[node] < 0;
        float[] boxes = leaf ? cellBoxes : nodeBoxes;
        for (int k = first[node]; k < first[node] + Math.abs(count[node]); k++) {
            int at = 6 * k;
            if (box[0] <= boxes[at + 1]
                    && box[1] >= boxes[at]
                    && box[2] <= boxes[at + 3]
                    && box[3] >= boxes[at + 2]
                    && box[4] <= boxes[at + 5]
                    && box[5] >= boxes[at + 4]) {
                if (leaf) {
                    found.accept(order[k]);
                } else {
                    near(k, box, found);
                }
            }
        }
    }

    /**
     * Cells whose boxes meet a plane, ascending.
     *
     * @param normal of length 1
     * @param offset of the plane along it
     */
    public int[] meeting(Point normal, double offset) {
        double[] n = {normal.x(), normal.y(), normal.z()};
        var out = new Found();
        if (first.length > 0) {
            meeting(0, n, offset, 1e-9 * mesh.modelSize(), out);
        }
        int[] cells = Arrays.copyOf(out.cells, out.count);
        Arrays.parallelSort(cells);
        return cells;
    }

    private static final class Found {
        private int[] cells = new int[1024];
        private int count;
    }

    private void meeting(int node, double[] n, double offset, double slack, Found out) {
        boolean leaf = count[node] < 0;
        float[] boxes = leaf ? cellBoxes : nodeBoxes;
        for (int k = first[node]; k < first[node] + Math.abs(count[node]); k++) {
            double middle = -offset;
            double reach = slack;
            for (int d = 0; d < 3; d++) {
                double low = boxes[6 * k + 2 * d];
                double high = boxes[6 * k + 2 * d + 1];
                middle += n[d] * (low + high) / 2;
                reach += Math.abs(n[d]) * (high - low) / 2;
            }
            if (Math.abs(middle) <= reach) {
                if (leaf) {
                    if (out.count == out.cells.length) {
                        out.cells = Arrays.copyOf(out.cells, 2 * out.count);
                    }
                    out.cells[out.count++] = order[k];
                } else {
                    meeting(k, n, offset, slack, out);
                }
            }
        }
    }

    /** A finder for one thread. */
    public Finder finder() {
        return new Finder();
    }

    /** Finds cells for points, one thread's own. Remembers the last cell, since points often come in order. */
    public final class Finder {
        private final Cell cell = new Cell(mesh);
        private int last = -1;
        private int nearest;
        private double miss;
        private boolean exact;
        /** Whether the point is clear of the faces of the nearest, so that no other cell is asked. */
        private boolean sure;
        /** Where the last cell stands in the tree: the next point is often in a cell beside it. */
        private int leaf = -1;

        private int above;

        /** The cell that {@link #find} found, loaded, with its weights. */
        public Cell cell() {
            return cell;
        }

        /** How far the last found point lies from its cell, in metres; 0 when inside. */
        public double miss() {
            return miss;
        }

        /**
         * Finds the cell of a point; on a shared face the one with the smallest number, whatever was asked before.
         * With a tolerance, a point outside all cells takes the nearest cell if that is no further away.
         *
         * @param tolerance in metres
         * @return the cell number, or -1 when there is none
         */
        public int find(double x, double y, double z, double tolerance) {
            if (!Double.isFinite(x + y + z) || order.length == 0) {
                return -1;
            }
            if (last >= 0 && insideDeep(x, y, z)) {
                miss = 0;
                return last;
            }
            nearest = -1;
            miss = Double.POSITIVE_INFINITY;
            exact = false;
            sure = false;
            if (leaf >= 0) {
                int over = above;
                search(leaf, over, x, y, z, 0);
                if (!sure) {
                    search(over, 0, x, y, z, 0);
                }
            }
            if (!sure) {
                search(0, 0, x, y, z, 0);
            }
            if (nearest < 0 && tolerance > 0) {
                search(0, 0, x, y, z, tolerance);
            }
            if (nearest < 0 || miss > tolerance && miss > 0) {
                last = -1;
                return -1;
            }
            last = nearest;
            if (cell.index() != nearest) {
                cell.load(nearest).locate(x, y, z);
            }
            return nearest;
        }

        /** Whether the point is in the last cell and clear of its faces, so that no other cell can claim it. */
        private boolean insideDeep(double x, double y, double z) {
            return cell.nearBox(x, y, z, 0) && cell.locate(x, y, z) == 0 && clear();
        }

        private boolean clear() {
            double[] w = cell.weights();
            for (int i = 0; i < cell.size(); i++) {
                if (w[i] < 1e-6) {
                    return false;
                }
            }
            return cell.shape().hasReference();
        }

        /** Walks through a node; the boxes of its children are tested here, without a call. */
        private void search(int node, int over, double x, double y, double z, double margin) {
            boolean last = count[node] < 0;
            float[] boxes = last ? cellBoxes : nodeBoxes;
            int end = first[node] + Math.abs(count[node]);
            for (int k = first[node]; k < end && !sure; k++) {
                int at = 6 * k;
                if (x >= boxes[at] - margin
                        && x <= boxes[at + 1] + margin
                        && y >= boxes[at + 2] - margin
                        && y <= boxes[at + 3] + margin
                        && z >= boxes[at + 4] - margin
                        && z <= boxes[at + 5] + margin) {
                    if (last) {
                        test(order[k], x, y, z, margin);
                        if (sure) {
                            leaf = node;
                            above = over;
                        }
                    } else {
                        search(k, node, x, y, z, margin);
                    }
                }
            }
        }

        private void test(int candidate, double x, double y, double z, double margin) {
            if (exact && candidate > nearest) {
                return;
            }
            double d = cell.load(candidate).locate(x, y, z);
            boolean better = d == 0 ? !exact || candidate < nearest : margin > 0 && !exact && d < miss;
            if (better && (d == 0 || d <= margin)) {
                nearest = candidate;
                miss = d;
                exact = d == 0;
                sure = exact && clear();
            }
        }
    }
}
