package lane.mesh;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Where the pieces of a mesh meet: faces that two of them have, which are no boundary of the whole, and nodes that several have,
 * which count once. Pieces store the same numbers but for their last digits, so places are told apart by three grids that are
 * shifted against each other by a third of a step: what one grid parts another does not. A face that stands twice in one piece is
 * meant to: a wall without thickness.
 */
public final class Joints {
    /** A thousand-millionth of the size of a piece: what is nearer counts as one place. */
    public static final double STEP = 1e-9;

    /** How many grids there are. */
    public static final int GRIDS = 3;

    private final double step;
    /** Keys of faces that two pieces have, ascending, by grid. */
    private final long[][] faces;
    /** Keys of the nodes of pieces' boundaries, ascending, by piece and grid. */
    private final List<long[][]> nodes;

    private final int piece;

    private Joints(double step, long[][] faces, List<long[][]> nodes, int piece) {
        this.step = step;
        this.faces = faces;
        this.nodes = nodes;
        this.piece = piece;
    }

    /** Whether a face is one where two pieces meet, by its nodes. */
    public boolean face(Mesh mesh, int[] of, int from, int to) {
        for (int grid = 0; grid < GRIDS; grid++) {
            long key = 0;
            for (int i = from; i < to; i++) {
                key += node(mesh.xyz(), of[i], step, grid);
            }
            if (Arrays.binarySearch(faces[grid], key) >= 0) {
                return true;
            }
        }
        return false;
    }

    /** Number of this piece, the first being 0. */
    public int piece() {
        return piece;
    }

    /** Of some nodes those that other pieces have as well, as keys in one of the grids, ascending. */
    public long[] shared(Mesh mesh, int[] some, int grid) {
        return Arrays.stream(some)
                .filter(n -> others(mesh, n))
                .mapToLong(n -> node(mesh.xyz(), n, step, grid))
                .sorted()
                .toArray();
    }

    private boolean others(Mesh mesh, int of) {
        for (int grid = 0; grid < GRIDS; grid++) {
            long key = node(mesh.xyz(), of, step, grid);
            for (int k = 0; k < nodes.size(); k++) {
                if (k != piece && Arrays.binarySearch(nodes.get(k)[grid], key) >= 0) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Whether a node is among those with some keys, which {@link #shared} gave. */
    public boolean among(Mesh mesh, int of, long[] keys, int grid) {
        return Arrays.binarySearch(keys, node(mesh.xyz(), of, step, grid)) >= 0;
    }

    /** What an edge is known by in one of the grids, whichever end comes first. */
    public long edge(Point a, Point b, int grid) {
        double[] xyz = {a.x(), a.y(), a.z(), b.x(), b.y(), b.z()};
        return node(xyz, 0, step, grid) + node(xyz, 1, step, grid);
    }

    /** Bytes that all pieces' joints take together. */
    public long bytes() {
        long all = 0;
        for (long[][] of : nodes) {
            all += 8L * GRIDS * of[0].length;
        }
        return all + 8L * GRIDS * faces[0].length;
    }

    private static long node(double[] xyz, int i, double step, int grid) {
        long key = 0;
        for (int d = 0; d < 3; d++) {
            key = mixed(key + Math.round(xyz[3 * i + d] / step + (double) grid / GRIDS));
        }
        return key;
    }

    private static long mixed(long v) {
        long h = (v + 0x9e3779b97f4a7c15L) * 0xbf58476d1ce4e5b9L;
        h = (h ^ h >>> 31) * 0x94d049bb133111ebL;
        return h ^ h >>> 29;
    }

    /** Looks at the pieces of a mesh one after the other, and holds of each its boundary alone. */
    public static final class Finder {
        private double step;
        private final List<long[][]> faces = new ArrayList<>();
        private final List<long[][]> nodes = new ArrayList<>();

        /** The next piece. */
        public void add(Mesh mesh) {
            if (step == 0) {
                step = Math.max(STEP * mesh.modelSize(), Double.MIN_NORMAL);
            }
            Topology.Boundary rim = Topology.boundary(mesh);
            boolean[] on = new boolean[mesh.nodeCount()];
            for (int n : rim.nodes()) {
                on[n] = true;
            }
            long[][] own = new long[GRIDS][rim.size()];
            long[][] places = new long[GRIDS][];
            for (int grid = 0; grid < GRIDS; grid++) {
                int n = 0;
                long[] at = new long[on.length];
                for (int i = 0; i < on.length; i++) {
                    if (on[i]) {
                        at[n++] = node(mesh.xyz(), i, step, grid);
                    }
                }
                places[grid] = Arrays.copyOf(at, n);
                Arrays.sort(places[grid]);
                for (int f = 0; f < rim.size(); f++) {
                    long key = 0;
                    for (int k = rim.offsets()[f]; k < rim.offsets()[f + 1]; k++) {
                        key += node(mesh.xyz(), rim.nodes()[k], step, grid);
                    }
                    own[grid][f] = key;
                }
                Arrays.sort(own[grid]);
                own[grid] = once(own[grid]);
            }
            faces.add(own);
            nodes.add(places);
        }

        /** Keys that stand once among sorted ones. */
        private static long[] once(long[] sorted) {
            int n = 0;
            for (int i = 0; i < sorted.length; i++) {
                boolean twice =
                        i > 0 && sorted[i - 1] == sorted[i] || i + 1 < sorted.length && sorted[i + 1] == sorted[i];
                if (!twice) {
                    sorted[n++] = sorted[i];
                }
            }
            return Arrays.copyOf(sorted, n);
        }

        /** For each piece where it meets others. */
        public List<Joints> found() {
            long[][] shared = new long[GRIDS][];
            for (int grid = 0; grid < GRIDS; grid++) {
                int g = grid;
                long[] all =
                        faces.stream().flatMapToLong(f -> Arrays.stream(f[g])).toArray();
                Arrays.parallelSort(all);
                int n = 0;
                for (int i = 1; i < all.length; i++) {
                    if (all[i] == all[i - 1] && (n == 0 || all[n - 1] != all[i])) {
                        all[n++] = all[i];
                    }
                }
                shared[grid] = Arrays.copyOf(all, n);
            }
            List<Joints> out = new ArrayList<>();
            for (int k = 0; k < faces.size(); k++) {
                out.add(new Joints(step, shared, nodes, k));
            }
            return out;
        }
    }
}
