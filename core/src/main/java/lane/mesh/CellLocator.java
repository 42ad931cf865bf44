package lane.mesh;

import java.util.Arrays;
import java.util.function.IntConsumer;
import lane.base.Parallel;

/**
 * Finds the cells at a point or along a segment: a hierarchy of boxes over the cells in the order of a space-filling
 * curve (Morton), packed once in flat arrays and read by any number of threads. Only cells of the mesh's highest
 * dimension take part. Boxes are floats rounded outwards, so no cell is lost by rounding; cells with non-finite
 * coordinates are left out and counted.
 *
 * <p>Building costs one sort of one number a cell; a query visits a few boxes a level.
 */
public final class CellLocator {
    private static final int LEAF = 4;
    private static final int FAN = 8;
    private static final int BLOCK = 1 << 14;

    private final Mesh mesh;
    private final int[] order;
    private final int[] levelBegin;
    private final float[] boxes;
    private final int lost;

    public CellLocator(Mesh mesh) {
        this.mesh = mesh;
        int dimension = mesh.dimension();
        long[] keys = keys(mesh, dimension);
        int kept = 0;
        int taking = 0;
        for (long key : keys) {
            kept += key >= 0 ? 1 : 0;
            taking += key != -1 ? 1 : 0;
        }
        Arrays.parallelSort(keys);
        order = new int[kept];
        int skip = keys.length - kept;
        for (int i = 0; i < kept; i++) {
            order[i] = (int) keys[skip + i];
        }
        lost = taking - kept;
        int[] begins = new int[16];
        int levels = 0;
        int count = (kept + LEAF - 1) / LEAF;
        int total = 0;
        while (true) {
            begins[levels++] = total;
            total += count;
            if (count <= 1) {
                break;
            }
            count = (count + FAN - 1) / FAN;
        }
        begins[levels] = total;
        levelBegin = Arrays.copyOf(begins, levels + 1);
        boxes = new float[6 * total];
        fillLeaves();
        for (int level = 1; level < levels; level++) {
            fillLevel(level);
        }
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

    private void fillLeaves() {
        int leaves = levelBegin[1];
        int[] nodes = mesh.nodes();
        double[] xyz = mesh.xyz();
        Parallel.forBlocks(leaves, BLOCK / LEAF, (block, from, to) -> {
            double[] b = new double[6];
            for (int leaf = from; leaf < to; leaf++) {
                for (int d = 0; d < 3; d++) {
                    b[2 * d] = Double.POSITIVE_INFINITY;
                    b[2 * d + 1] = Double.NEGATIVE_INFINITY;
                }
                for (int k = leaf * LEAF; k < Math.min(order.length, (leaf + 1) * LEAF); k++) {
                    int begin = mesh.begin(order[k]);
                    int end = begin + mesh.size(order[k]);
                    for (int i = begin; i < end; i++) {
                        int n = 3 * nodes[i];
                        for (int d = 0; d < 3; d++) {
                            double v = xyz[n + d];
                            b[2 * d] = v < b[2 * d] ? v : b[2 * d];
                            b[2 * d + 1] = v > b[2 * d + 1] ? v : b[2 * d + 1];
                        }
                    }
                }
                for (int d = 0; d < 3; d++) {
                    boxes[6 * leaf + 2 * d] = Math.nextDown((float) b[2 * d]);
                    boxes[6 * leaf + 2 * d + 1] = Math.nextUp((float) b[2 * d + 1]);
                }
            }
        });
    }

    private void fillLevel(int level) {
        int below = levelBegin[level - 1];
        int belowCount = levelBegin[level] - below;
        for (int i = 0; i < levelBegin[level + 1] - levelBegin[level]; i++) {
            int out = 6 * (levelBegin[level] + i);
            for (int d = 0; d < 3; d++) {
                float least = Float.POSITIVE_INFINITY;
                float greatest = Float.NEGATIVE_INFINITY;
                for (int k = i * FAN; k < Math.min(belowCount, (i + 1) * FAN); k++) {
                    least = Math.min(least, boxes[6 * (below + k) + 2 * d]);
                    greatest = Math.max(greatest, boxes[6 * (below + k) + 2 * d + 1]);
                }
                boxes[out + 2 * d] = least;
                boxes[out + 2 * d + 1] = greatest;
            }
        }
    }

    /** Calls back every cell whose group of cells has a box that meets the given box; some lie beside it. */
    public void near(double[] box, IntConsumer found) {
        if (order.length > 0) {
            near(levelBegin.length - 2, 0, box, found);
        }
    }

    private void near(int level, int index, double[] box, IntConsumer found) {
        int at = 6 * (levelBegin[level] + index);
        for (int d = 0; d < 3; d++) {
            if (box[2 * d] > boxes[at + 2 * d + 1] || box[2 * d + 1] < boxes[at + 2 * d]) {
                return;
            }
        }
        if (level == 0) {
            for (int k = index * LEAF; k < Math.min(order.length, (index + 1) * LEAF); k++) {
                found.accept(order[k]);
            }
            return;
        }
        int count = levelBegin[level] - levelBegin[level - 1];
        for (int k = index * FAN; k < Math.min(count, (index + 1) * FAN); k++) {
            near(level - 1, k, box, found);
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
            search(levelBegin.length - 2, 0, x, y, z, 0);
            if (nearest < 0 && tolerance > 0) {
                search(levelBegin.length - 2, 0, x, y, z, tolerance);
            }
            if (nearest < 0 || miss > tolerance && miss > 0) {
                last = -1;
                return -1;
            }
            last = nearest;
            cell.load(nearest).locate(x, y, z);
            return nearest;
        }

        /** Whether the point is in the last cell and clear of its faces, so that no other cell can claim it. */
        private boolean insideDeep(double x, double y, double z) {
            if (!cell.nearBox(x, y, z, 0) || cell.locate(x, y, z) != 0) {
                return false;
            }
            double[] w = cell.weights();
            for (int i = 0; i < cell.size(); i++) {
                if (w[i] < 1e-6) {
                    return false;
                }
            }
            return cell.shape().hasReference();
        }

        private void search(int level, int index, double x, double y, double z, double margin) {
            int at = 6 * (levelBegin[level] + index);
            if (x < boxes[at] - margin
                    || x > boxes[at + 1] + margin
                    || y < boxes[at + 2] - margin
                    || y > boxes[at + 3] + margin
                    || z < boxes[at + 4] - margin
                    || z > boxes[at + 5] + margin) {
                return;
            }
            if (level > 0) {
                int count = levelBegin[level] - levelBegin[level - 1];
                int end = Math.min(count, (index + 1) * FAN);
                for (int k = index * FAN; k < end; k++) {
                    search(level - 1, k, x, y, z, margin);
                }
                return;
            }
            for (int k = index * LEAF; k < Math.min(order.length, (index + 1) * LEAF); k++) {
                int candidate = order[k];
                if (exact && candidate > nearest) {
                    continue;
                }
                cell.load(candidate);
                if (!cell.nearBox(x, y, z, Math.max(margin, 1e-9 * span(level, index)))) {
                    continue;
                }
                double d = cell.locate(x, y, z);
                boolean better = d == 0 ? !exact || candidate < nearest : margin > 0 && !exact && d < miss;
                if (better && (d == 0 || d <= margin)) {
                    nearest = candidate;
                    miss = d;
                    exact = d == 0;
                }
            }
        }

        private double span(int level, int index) {
            int at = 6 * (levelBegin[level] + index);
            return Math.max(
                    boxes[at + 1] - boxes[at], Math.max(boxes[at + 3] - boxes[at + 2], boxes[at + 5] - boxes[at + 4]));
        }
    }
}
