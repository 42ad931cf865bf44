package lane.cut;

import java.util.Arrays;
import java.util.Objects;
import lane.base.Parallel;
import lane.base.Work;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Cuts the cells of a mesh where a level is zero, edge by edge. A node at zero counts as above, so a surface that runs
 * exactly through nodes, edges or faces meets each place once: a face in the surface belongs to the cell below it, or at
 * the rim of the mesh to the only cell there is. On a face whose corners go above and below twice, both its cells join
 * the crossings alike, by the sign of the corners' mean, so that no gap opens.
 *
 * <p>Exact for planes through planar-faced convex cells. Edges of quadratic cells are cut as two straight pieces. Faces
 * look towards where the level is positive. The order is that of the cells, for any number of threads. Cost: one
 * pass over nodes and cells; memory nine bytes a node.
 */
public final class Slicer {
    private static final int BLOCK = 1 << 14;
    private static final byte BELOW = 1;
    private static final byte ABOVE = 2;
    private static final byte ZERO = 4;
    private static final byte NONE = 8;

    private final Mesh mesh;
    private final Level level;
    private final Work work;
    private final double[] at;
    private final byte[] sign;

    /** The cells to look at, ascending; null for all. */
    private final int @Nullable [] among;

    private Slicer(Mesh mesh, Level level, int @Nullable [] among, Work work) {
        this.mesh = mesh;
        this.among = among;
        this.level = level;
        this.work = work;
        at = new double[mesh.nodeCount()];
        sign = new byte[at.length];
    }

    /**
     * The zero of a level in the cells of the highest dimension; cells with a node that has no finite level are left out.
     *
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public static Cut cut(Mesh mesh, Level level, Work work) {
        return new Slicer(mesh, level, null, work).run();
    }

    /**
     * The same where it is known which cells can meet it.
     *
     * @param among cells, ascending
     */
    public static Cut cut(Mesh mesh, Level level, int[] among, Work work) {
        return new Slicer(mesh, level, among, work).run();
    }

    private Cut run() {
        if (among == null) {
            Parallel.forBlocks(at.length, BLOCK, (block, from, to) -> {
                level.at(from, to, at);
                for (int i = from; i < to; i++) {
                    sign[i] = sign(at[i]);
                }
            });
            work.poll();
        }
        int n = among == null ? mesh.cellCount() : among.length;
        int size = among == null ? BLOCK : BLOCK / 8;
        var pieces = new Piece[Parallel.blocks(n, size)];
        int dimension = mesh.dimension();
        Parallel.forBlocks(n, size, (block, from, to) -> {
            work.poll();
            pieces[block] = cells(from, to, dimension);
        });
        work.poll();
        return join(pieces);
    }

    /** What some consecutive cells give: loops of edges, and whole faces at zero of cells that lie above. */
    private static final class Piece {
        private long[] edges = new long[64];
        private int[] ends = new int[16];
        private int[] owner = new int[16];
        private boolean[] touching = new boolean[16];
        private int count;
        private int used;

        void begin() {
            used = count == 0 ? 0 : ends[count - 1];
        }

        void add(long edge) {
            if (used == edges.length) {
                edges = Arrays.copyOf(edges, 2 * used);
            }
            edges[used++] = edge;
        }

        /** Ends a loop; crossings that fell on one node are one, and what is left of less than a face is dropped. */
        void end(int cell, int least, boolean touch) {
            int from = count == 0 ? 0 : ends[count - 1];
            int to = from;
            for (int i = from; i < used; i++) {
                if (to == from || edges[to - 1] != edges[i]) {
                    edges[to++] = edges[i];
                }
            }
            while (to - from > 1 && edges[to - 1] == edges[from]) {
                to--;
            }
            if (to - from < least) {
                return;
            }
            if (count == ends.length) {
                ends = Arrays.copyOf(ends, 2 * count);
                owner = Arrays.copyOf(owner, 2 * count);
                touching = Arrays.copyOf(touching, 2 * count);
            }
            ends[count] = to;
            touching[count] = touch;
            owner[count++] = cell;
        }
    }

    private Piece cells(int from, int to, int dimension) {
        var piece = new Piece();
        var cell = new Cell(mesh);
        var loops = new Loops();
        int[] nodes = mesh.nodes();
        for (int i0 = from; i0 < to; i0++) {
            int c = among == null ? i0 : among[i0];
            int begin = mesh.begin(c);
            int end = begin + mesh.size(c);
            int seen = 0;
            for (int i = begin; i < end; i++) {
                seen |= among == null ? sign[nodes[i]] : look(nodes[i]);
            }
            // Most cells lie on one side.
            if (seen == BELOW || seen == ABOVE || (seen & NONE) != 0) {
                continue;
            }
            if (mesh.shape(c).dimension() != dimension) {
                continue;
            }
            if ((seen & BELOW) == 0) {
                touching(cell.load(c), piece);
            } else if (dimension == 3) {
                solid(cell.load(c), loops, piece);
            } else {
                flat(cell.load(c), loops, piece);
            }
        }
        return piece;
    }

    private static byte sign(double v) {
        return v < 0 ? BELOW : v > 0 ? ABOVE : v == 0 ? ZERO : NONE;
    }

    /** Computes a node's level for the cell that asks; threads that meet at a node write the same. */
    private byte look(int node) {
        level.at(node, node + 1, at);
        byte s = sign(at[node]);
        sign[node] = s;
        return s;
    }

    private boolean above(int node) {
        return (sign[node] & BELOW) == 0;
    }

    /** The crossing between two nodes of different sign: both nodes, the smaller first, or one of them twice if it is zero. */
    private long edge(int a, int b) {
        if (sign[a] == ZERO) {
            return (long) a << 32 | a;
        }
        if (sign[b] == ZERO) {
            return (long) b << 32 | b;
        }
        return a < b ? (long) a << 32 | b : (long) b << 32 | a;
    }

    private static final class Loops {
        /** Directed pieces of a cell: from the crossing {@code start[i]} to {@code end[i]}, both as directed edges. */
        private long[] start = new long[16];

        private long[] end = new long[16];
        private int count;
        /** Crossings around one face: the directed edge, and whether it leads up. */
        private long[] crossing = new long[16];

        private boolean[] up = new boolean[16];
        private int crossings;

        void cross(long edge, boolean leadsUp) {
            if (crossings == crossing.length) {
                crossing = Arrays.copyOf(crossing, 2 * crossings);
                up = Arrays.copyOf(up, 2 * crossings);
            }
            crossing[crossings] = edge;
            up[crossings++] = leadsUp;
        }

        /** Joins each crossing that leads up with the next one down, or with the one before where the middle is above. */
        void face(boolean middleAbove) {
            int step = crossings > 2 && middleAbove ? crossings - 1 : 1;
            for (int i = 0; i < crossings; i++) {
                if (up[i]) {
                    if (count == start.length) {
                        start = Arrays.copyOf(start, 2 * count);
                        end = Arrays.copyOf(end, 2 * count);
                    }
                    start[count] = crossing[i];
                    end[count++] = crossing[(i + step) % crossings];
                }
            }
            crossings = 0;
        }
    }

    private static long pair(int a, int b) {
        return (long) Math.min(a, b) << 32 | Math.max(a, b);
    }

    private void solid(Cell cell, Loops loops, Piece piece) {
        loops.count = 0;
        for (int[] face : cell.faces()) {
            gather(cell, face, face.length, loops);
        }
        // Each crossing is the end of a piece on one face and the start of one on its neighbour.
        int left = loops.count;
        while (left > 0) {
            int at = 0;
            while (loops.start[at] < 0) {
                at++;
            }
            long first = loops.start[at];
            piece.begin();
            while (at >= 0) {
                long here = loops.start[at];
                piece.add(edge((int) (here >>> 32), (int) here));
                long next = loops.end[at];
                loops.start[at] = -1;
                left--;
                at = next == first ? -1 : find(loops, next);
            }
            piece.end(cell.index(), 3, false);
        }
    }

    private static int find(Loops loops, long start) {
        for (int i = 0; i < loops.count; i++) {
            if (loops.start[i] == start) {
                return i;
            }
        }
        return -1;
    }

    private void gather(Cell cell, int @Nullable [] loop, int n, Loops loops) {
        double sum = 0;
        for (int k = 0; k < n; k++) {
            int a = cell.node(loop == null ? cell.shape().around(k) : loop[k]);
            int b = cell.node(loop == null ? cell.shape().around((k + 1) % n) : loop[(k + 1) % n]);
            sum += this.at[a];
            boolean from = above(a);
            if (from != above(b)) {
                loops.cross(pair(a, b), !from);
            }
        }
        if (loops.crossings > 0) {
            loops.face(sum >= 0);
        }
    }

    private void flat(Cell cell, Loops loops, Piece piece) {
        loops.count = 0;
        gather(cell, null, cell.shape().rim(cell.size()), loops);
        for (int i = 0; i < loops.count; i++) {
            piece.begin();
            piece.add(edge((int) (loops.start[i] >>> 32), (int) loops.start[i]));
            piece.add(edge((int) (loops.end[i] >>> 32), (int) loops.end[i]));
            piece.end(cell.index(), 2, false);
        }
    }

    /** Faces (of a plane mesh, edges) that lie at zero in a cell that is nowhere below. */
    private void touching(Cell cell, Piece piece) {
        if (cell.shape().dimension() == 3) {
            for (int[] face : cell.faces()) {
                touching(cell, face, face.length, piece);
            }
        } else {
            int n = cell.shape().rim(cell.size());
            for (int k = 0; k < n; k++) {
                touching(cell, new int[] {cell.shape().around(k), cell.shape().around((k + 1) % n)}, 2, piece);
            }
        }
    }

    private void touching(Cell cell, int[] face, int n, Piece piece) {
        for (int k = 0; k < n; k++) {
            if (sign[cell.node(face[k])] != ZERO) {
                return;
            }
        }
        piece.begin();
        for (int k = 0; k < n; k++) {
            int v = cell.node(face[k]);
            piece.add((long) v << 32 | v);
        }
        piece.end(cell.index(), n == 2 ? 2 : 3, true);
    }

    private Cut join(Piece[] pieces) {
        int faces = 0;
        int corners = 0;
        boolean touch = false;
        for (Piece p : pieces) {
            faces += p.count;
            corners += p.count == 0 ? 0 : p.ends[p.count - 1];
            for (int i = 0; i < p.count && !touch; i++) {
                touch = p.touching[i];
            }
        }
        boolean[][] keep = touch
                ? Touching.keep(
                        mesh, pieces.length, i -> pieces[i].count, (i, f) -> corners(pieces[i], f), (i, f) -> pieces[i]
                                .touching[f])
                : null;
        int[] offsets = new int[faces + 1];
        int[] nodes = new int[corners];
        int[] owner = new int[faces];
        var numbers = new EdgeNumbers(Math.max(16, corners / 3));
        int made = 0;
        int at = 0;
        for (int b = 0; b < pieces.length; b++) {
            Piece p = pieces[b];
            int from = 0;
            for (int f = 0; f < p.count; f++) {
                if (keep == null || keep[b][f]) {
                    for (int k = from; k < p.ends[f]; k++) {
                        nodes[at++] = numbers.of(p.edges[k]);
                    }
                    owner[made++] = p.owner[f];
                    offsets[made] = at;
                }
                from = p.ends[f];
            }
        }
        return finish(Arrays.copyOf(offsets, made + 1), Arrays.copyOf(nodes, at), Arrays.copyOf(owner, made), numbers);
    }

    private static long[] corners(Piece p, int f) {
        return Arrays.copyOfRange(p.edges, f == 0 ? 0 : p.ends[f - 1], p.ends[f]);
    }

    private Cut finish(int[] offsets, int[] nodes, int[] owner, EdgeNumbers numbers) {
        int points = numbers.size();
        double[] xyz = new double[3 * points];
        int[] start = new int[points + 1];
        for (int i = 0; i < points; i++) {
            long e = numbers.edge(i);
            start[i + 1] = start[i] + ((int) (e >>> 32) == (int) e ? 1 : 2);
        }
        int[] node = new int[start[points]];
        double[] share = new double[node.length];
        double[] x = mesh.xyz();
        Parallel.forBlocks(points, BLOCK, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                long e = numbers.edge(i);
                int a = (int) (e >>> 32);
                int b = (int) e;
                int k = start[i];
                node[k] = a;
                share[k] = 1;
                double t = 0;
                if (a != b) {
                    t = Math.clamp(level.root(a, b, at[a], at[b]), 0, 1);
                    share[k] = 1 - t;
                    node[k + 1] = b;
                    share[k + 1] = t;
                }
                for (int d = 0; d < 3; d++) {
                    xyz[3 * i + d] = a == b ? x[3 * a + d] : (1 - t) * x[3 * a + d] + t * x[3 * b + d];
                }
            }
        });
        byte[] shapes = new byte[owner.length];
        // Lines in a plane mesh look along the level too: their normal is the tangent times that of the plane.
        double[] flat = mesh.dimension() == 2 ? CellMeasures.plane(mesh) : null;
        Parallel.forBlocks(owner.length, BLOCK, (block, from, to) -> {
            double[] up = new double[3];
            double[] normal = new double[3];
            for (int f = from; f < to; f++) {
                int n = offsets[f + 1] - offsets[f];
                CellShape shape = n == 2
                        ? CellShape.LINE
                        : n == 3 ? CellShape.TRIANGLE : n == 4 ? CellShape.QUAD : CellShape.POLYGON;
                shapes[f] = (byte) shape.ordinal();
                if (n > 2 || flat != null) {
                    upwards(owner[f], up);
                    if (n > 2) {
                        normal(xyz, nodes, offsets[f], offsets[f + 1], normal);
                    } else {
                        across(xyz, nodes, offsets[f], flat, normal);
                    }
                    if (up[0] * normal[0] + up[1] * normal[1] + up[2] * normal[2] < 0) {
                        for (int i = offsets[f], k = offsets[f + 1] - 1; i < k; i++, k--) {
                            int swap = nodes[i];
                            nodes[i] = nodes[k];
                            nodes[k] = swap;
                        }
                    }
                }
            }
        });
        return new Cut(new Mesh(xyz, shapes, offsets, nodes), owner, new Stencil(start, node, share));
    }

    /** From the mean of a cell's lower nodes to that of its upper ones; nodes at zero are of the side that is missing. */
    private void upwards(int cell, double[] out) {
        double[] sum = new double[6];
        int below = 0;
        int above = 0;
        boolean noneBelow = true;
        boolean noneAbove = true;
        for (int i = mesh.begin(cell); i < mesh.begin(cell) + mesh.size(cell); i++) {
            noneBelow &= sign[mesh.nodes()[i]] != BELOW;
            noneAbove &= sign[mesh.nodes()[i]] != ABOVE;
        }
        for (int i = mesh.begin(cell); i < mesh.begin(cell) + mesh.size(cell); i++) {
            int v = mesh.nodes()[i];
            boolean low = sign[v] == BELOW || noneBelow && sign[v] == ZERO;
            boolean high = sign[v] == ABOVE || noneAbove && sign[v] == ZERO;
            for (int d = 0; d < 3; d++) {
                sum[d] += low ? mesh.xyz()[3 * v + d] : 0;
                sum[3 + d] += high ? mesh.xyz()[3 * v + d] : 0;
            }
            below += low ? 1 : 0;
            above += high ? 1 : 0;
        }
        for (int d = 0; d < 3; d++) {
            out[d] = sum[3 + d] / Math.max(1, above) - sum[d] / Math.max(1, below);
        }
    }

    private static void across(double[] xyz, int[] nodes, int from, double @Nullable [] normal, double[] out) {
        double[] plane = Objects.requireNonNull(normal, "lines look square to the plane of their run");
        int a = 3 * nodes[from];
        int b = 3 * nodes[from + 1];
        for (int d = 0; d < 3; d++) {
            int e = (d + 1) % 3;
            int g = (d + 2) % 3;
            out[d] = (xyz[b + e] - xyz[a + e]) * plane[g] - (xyz[b + g] - xyz[a + g]) * plane[e];
        }
    }

    static void normal(double[] xyz, int[] nodes, int from, int to, double[] out) {
        Arrays.fill(out, 0);
        int o = 3 * nodes[from];
        for (int k = from + 1; k + 1 < to; k++) {
            int a = 3 * nodes[k];
            int b = 3 * nodes[k + 1];
            double ux = xyz[a] - xyz[o];
            double uy = xyz[a + 1] - xyz[o + 1];
            double uz = xyz[a + 2] - xyz[o + 2];
            double vx = xyz[b] - xyz[o];
            double vy = xyz[b + 1] - xyz[o + 1];
            double vz = xyz[b + 2] - xyz[o + 2];
            out[0] += uy * vz - uz * vy;
            out[1] += uz * vx - ux * vz;
            out[2] += ux * vy - uy * vx;
        }
    }
}
