package lane.mesh;

import java.util.Arrays;
import java.util.List;
import lane.base.Parallel;
import lane.base.Work;
import org.jspecify.annotations.Nullable;

/**
 * The outer boundary of a mesh: faces that belong to one cell only (edges, for a mesh of surface cells). Two faces are
 * the same when they have the same nodes, told by a sum of mixed node numbers, so that a chance match is a matter of
 * 2^-64. The numbers of all faces with the same smallest node are folded into one by exclusive or: where each face met its
 * like, nothing is left, and only the faces at other nodes are looked at one by one. The cost grows linearly with the number
 * of cells; eight bytes a node and thread are needed. The result does not depend on the number of threads. Faces that four
 * cells claim are only seen at nodes that have a free face too, or one of three cells.
 */
public final class Topology {
    private static final int BLOCK = 1 << 14;

    private Topology() {}

    /**
     * Boundary faces, wound so that they point out of their cell, in the order of the cells.
     *
     * @param offsets where each face's nodes begin in {@code nodes}; one more entry than faces
     * @param nodes node numbers of the mesh
     * @param shape ordinal of each face's {@link CellShape}
     * @param owner the cell each face belongs to
     * @param shared number of faces that more than two cells claim, which a sound mesh has not
     */
    public record Boundary(int[] offsets, int[] nodes, byte[] shape, int[] owner, int shared) {
        public CellShape shape(int face) {
            return CellShape.ofOrdinal(shape[face]);
        }

        public int size() {
            return owner.length;
        }
    }

    /** The boundary of the cells of the highest dimension; in a mesh of lines or points it is empty. */
    public static Boundary boundary(Mesh mesh) {
        return boundary(mesh, Work.QUIET);
    }

    /** @throws java.util.concurrent.CancellationException when cancelled */
    public static Boundary boundary(Mesh mesh, Work work) {
        if (mesh.dimension() < 2 || mesh.cellCount() == 0) {
            return new Boundary(new int[1], new int[0], new byte[0], new int[0], 0);
        }
        Boundary rim = new Finder(mesh, work).find();
        Joints joints = mesh.joints();
        return joints == null ? rim : without(rim, mesh, joints);
    }

    /** A boundary without the faces where a piece meets others. */
    private static Boundary without(Boundary rim, Mesh mesh, Joints joints) {
        int[] offsets = new int[rim.size() + 1];
        int[] nodes = new int[rim.nodes.length];
        byte[] shape = new byte[rim.size()];
        int[] owner = new int[rim.size()];
        int n = 0;
        int at = 0;
        for (int f = 0; f < rim.size(); f++) {
            int from = rim.offsets[f];
            int to = rim.offsets[f + 1];
            if (!joints.face(mesh, rim.nodes, from, to)) {
                System.arraycopy(rim.nodes, from, nodes, at, to - from);
                at += to - from;
                shape[n] = rim.shape[f];
                owner[n++] = rim.owner[f];
                offsets[n] = at;
            }
        }
        return new Boundary(
                Arrays.copyOf(offsets, n + 1),
                Arrays.copyOf(nodes, at),
                Arrays.copyOf(shape, n),
                Arrays.copyOf(owner, n),
                rim.shared);
    }

    /** Order-free key of a face: a sum of mixed node numbers, and apart from it the smallest. */
    static long mixed(int node) {
        long h = (node + 0x9e3779b97f4a7c15L) * 0xbf58476d1ce4e5b9L;
        h = (h ^ h >>> 31) * 0x94d049bb133111ebL;
        return h ^ h >>> 29;
    }

    /** Takes the faces of a cell one after the other. */
    @FunctionalInterface
    private interface Taker {
        /** @param face number within its cell */
        void take(int cell, int face, int smallest, long key);
    }

    private static final class Finder {
        private final Mesh mesh;
        private final Work work;
        private final int dimension;
        private final int[] all;
        private final int[][][] faces = new int[CellShape.values().length][][];

        Finder(Mesh mesh, Work work) {
            this.mesh = mesh;
            this.work = work;
            dimension = mesh.dimension();
            all = mesh.nodes();
            for (CellShape s : CellShape.values()) {
                faces[s.ordinal()] = s.dimension() == 3 ? s.faces() : new int[0][];
            }
        }

        Boundary find() {
            int n = mesh.cellCount();
            // A few equal parts: each folds its faces into numbers of its own, in the order of the cells.
            int parts = Math.clamp(Runtime.getRuntime().availableProcessors(), 1, 8);
            int size = Math.max(1, (n + parts - 1) / parts);
            long[][] folded = new long[Parallel.blocks(n, size)][];
            Parallel.forBlocks(n, size, (b, from, to) -> {
                long[] own = new long[mesh.nodeCount()];
                over(from, to, (cell, face, smallest, key) -> own[smallest] ^= key);
                folded[b] = own;
            });
            work.progress("Finding the boundary", 0.5);
            long[] odd = folded[0];
            Parallel.forBlocks(odd.length, BLOCK, (b, from, to) -> {
                for (int k = 1; k < folded.length; k++) {
                    for (int i = from; i < to; i++) {
                        odd[i] ^= folded[k][i];
                    }
                }
            });
            Boundary boundary = collect(odd);
            if (boundary.size() == 0) {
                // A closed surface, or cells that stand twice and hide each other: look at every face.
                Arrays.fill(odd, 1);
                boundary = collect(odd);
            }
            return boundary;
        }

        /** Faces at nodes where not all faces met their like; those that stand alone are the boundary. */
        private Boundary collect(long[] odd) {
            int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
            Single[] found = new Single[blocks];
            Parallel.forBlocks(mesh.cellCount(), BLOCK, (b, from, to) -> {
                var own = new Single();
                over(from, to, (cell, face, smallest, key) -> {
                    if (odd[smallest] != 0) {
                        own.add(cell, face, key);
                    }
                });
                found[b] = own;
            });
            work.progress("Finding the boundary", 0.8);
            var counts = new Counts(Arrays.stream(found).mapToInt(s -> s.count).sum());
            for (Single s : found) {
                for (int i = 0; i < s.count; i++) {
                    counts.add(s.key[i]);
                }
            }
            work.poll();
            Piece[] pieces = new Piece[blocks];
            double[] plane = dimension == 2 ? CellMeasures.plane(mesh) : null;
            Parallel.forBlocks(blocks, 1, (b, from, to) -> {
                var piece = new Piece(mesh, plane);
                Single s = found[b];
                for (int i = 0; i < s.count; i++) {
                    if (counts.of(s.key[i]) == 1) {
                        piece.add(s.cell[i], nodesOf(s.cell[i], s.face[i]));
                    }
                }
                pieces[b] = piece;
            });
            return Piece.join(List.of(pieces), counts.beyondTwo());
        }

        private void over(int from, int to, Taker taker) {
            long[] mixed = new long[27];
            for (int c = from; c < to; c++) {
                if ((c & 0xffff) == 0) {
                    work.poll();
                }
                CellShape shape = mesh.shape(c);
                if (shape.dimension() != dimension) {
                    continue;
                }
                int begin = mesh.begin(c);
                if (dimension == 2) {
                    edges(c, shape, begin, taker);
                } else if (shape == CellShape.POLYHEDRON) {
                    polyhedron(c, taker);
                } else {
                    int[][] own = faces[shape.ordinal()];
                    int n = shape.nodes();
                    for (int i = 0; i < n; i++) {
                        mixed[i] = mixed(all[begin + i]);
                    }
                    for (int f = 0; f < own.length; f++) {
                        int least = Integer.MAX_VALUE;
                        long key = 0;
                        for (int local : own[f]) {
                            least = Math.min(least, all[begin + local]);
                            key += mixed[local];
                        }
                        taker.take(c, f, least, key == 0 ? 1 : key);
                    }
                }
            }
        }

        private void edges(int c, CellShape shape, int begin, Taker taker) {
            int edges = edges(shape, mesh.size(c));
            int step = shape.quadratic() ? 2 : 1;
            for (int i = 0; i < edges; i++) {
                int a = all[begin + shape.around(step * i)];
                int b = all[begin + shape.around(step * (i + 1) % (step * edges))];
                long key = mixed(a) + mixed(b);
                int least = Math.min(a, b);
                if (step == 2) {
                    int middle = all[begin + shape.around(2 * i + 1)];
                    key += mixed(middle);
                    least = Math.min(least, middle);
                }
                taker.take(c, i, least, key == 0 ? 1 : key);
            }
        }

        private void polyhedron(int c, Taker taker) {
            int[] stream = mesh.faceStream();
            int at = mesh.faceBegin(c);
            int count = stream[at++];
            for (int f = 0; f < count; f++) {
                int end = at + 1 + stream[at];
                int least = Integer.MAX_VALUE;
                long key = 0;
                for (at++; at < end; at++) {
                    least = Math.min(least, stream[at]);
                    key += mixed(stream[at]);
                }
                taker.take(c, f, least, key == 0 ? 1 : key);
            }
        }

        private static int edges(CellShape shape, int size) {
            return shape.quadratic() ? shape.corners().nodes() : size;
        }

        private int[] nodesOf(int c, int face) {
            CellShape shape = mesh.shape(c);
            int begin = mesh.begin(c);
            if (dimension == 2) {
                int edges = edges(shape, mesh.size(c));
                int step = shape.quadratic() ? 2 : 1;
                int a = all[begin + shape.around(step * face)];
                int b = all[begin + shape.around(step * (face + 1) % (step * edges))];
                return step == 2 ? new int[] {a, b, all[begin + shape.around(2 * face + 1)]} : new int[] {a, b};
            }
            if (shape == CellShape.POLYHEDRON) {
                int[] stream = mesh.faceStream();
                int at = mesh.faceBegin(c) + 1;
                for (int f = 0; f < face; f++) {
                    at += 1 + stream[at];
                }
                return Arrays.copyOfRange(stream, at + 1, at + 1 + stream[at]);
            }
            int[] own = faces[shape.ordinal()][face];
            int[] out = new int[own.length];
            for (int k = 0; k < out.length; k++) {
                out[k] = all[begin + own[k]];
            }
            return out;
        }
    }

    /** Faces of some consecutive cells that may be of the boundary. */
    private static final class Single {
        private int count;
        private int[] cell = new int[64];
        private int[] face = new int[64];
        private long[] key = new long[64];

        void add(int c, int f, long k) {
            if (count == cell.length) {
                cell = Arrays.copyOf(cell, 2 * count);
                face = Arrays.copyOf(face, 2 * count);
                key = Arrays.copyOf(key, 2 * count);
            }
            cell[count] = c;
            face[count] = f;
            key[count++] = k;
        }
    }

    /** How often each key was met: a hash table of open addresses; no key is 0. */
    private static final class Counts {
        private final long[] keys;
        private final byte[] times;

        Counts(int most) {
            keys = new long[Integer.highestOneBit(Math.max(8, most)) << 2];
            times = new byte[keys.length];
        }

        private int slot(long key) {
            int mask = keys.length - 1;
            int at = (int) (key ^ key >>> 32) & mask;
            while (keys[at] != 0 && keys[at] != key) {
                at = at + 1 & mask;
            }
            return at;
        }

        void add(long key) {
            int at = slot(key);
            keys[at] = key;
            times[at] = (byte) Math.min(100, times[at] + 1);
        }

        int of(long key) {
            return times[slot(key)];
        }

        int beyondTwo() {
            int n = 0;
            for (byte t : times) {
                n += t > 2 ? 1 : 0;
            }
            return n;
        }
    }

    /** Boundary faces of some consecutive cells. */
    private static final class Piece {
        private final Cell cell;
        /** Normal of a plane mesh, for edges; null for solids. */
        private final double @Nullable [] plane;

        private int count;
        private int[] ends = new int[16];
        private int[] owner = new int[16];
        private byte[] shape = new byte[16];
        private int[] nodes = new int[64];

        Piece(Mesh mesh, double @Nullable [] plane) {
            cell = new Cell(mesh);
            this.plane = plane;
        }

        private static boolean against(Cell cell, double[] plane) {
            double[] n = CellMeasures.areaVector(cell);
            return n[0] * plane[0] + n[1] * plane[1] + n[2] * plane[2] < 0;
        }

        void add(int c, int[] face) {
            cell.load(c);
            boolean flip = cell.shape().dimension() == 3 ? cell.measure() < 0 : plane != null && against(cell, plane);
            CellShape kind = cell.shape().face(face.length);
            int[] turned = flip ? kind.turned() : null;
            int at = count == 0 ? 0 : ends[count - 1];
            if (count == ends.length) {
                ends = Arrays.copyOf(ends, 2 * count);
                owner = Arrays.copyOf(owner, 2 * count);
                shape = Arrays.copyOf(shape, 2 * count);
            }
            while (at + face.length > nodes.length) {
                nodes = Arrays.copyOf(nodes, 2 * nodes.length);
            }
            for (int k = 0; k < face.length; k++) {
                nodes[at + k] = face[turned != null ? turned[k] : flip ? face.length - 1 - k : k];
            }
            ends[count] = at + face.length;
            owner[count] = c;
            shape[count] = (byte) kind.ordinal();
            count++;
        }

        static Boundary join(List<Piece> pieces, int shared) {
            int faces = 0;
            int size = 0;
            for (Piece p : pieces) {
                faces += p.count;
                size += p.count == 0 ? 0 : p.ends[p.count - 1];
            }
            int[] offsets = new int[faces + 1];
            int[] nodes = new int[size];
            int[] owner = new int[faces];
            byte[] shape = new byte[faces];
            int f = 0;
            int at = 0;
            for (Piece p : pieces) {
                System.arraycopy(p.owner, 0, owner, f, p.count);
                System.arraycopy(p.shape, 0, shape, f, p.count);
                for (int i = 0; i < p.count; i++) {
                    offsets[f + i + 1] = at + p.ends[i];
                }
                int own = p.count == 0 ? 0 : p.ends[p.count - 1];
                System.arraycopy(p.nodes, 0, nodes, at, own);
                f += p.count;
                at += own;
            }
            return new Boundary(offsets, nodes, shape, owner, shared);
        }
    }
}
