package lane.mesh;

import java.util.Arrays;
import java.util.List;
import lane.base.Parallel;
import lane.base.Work;

/**
 * The outer boundary of a mesh: faces that belong to one cell only (edges, for a mesh of surface cells). Two faces are
 * the same when they have the same nodes, told by a sum of mixed node numbers, so that a chance match is a matter of
 * 2^-64. Faces are put in buckets by their smallest node, so the cost grows linearly with the number of cells; eight bytes
 * a face are needed. The result does not depend on the number of threads.
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
        return mesh.dimension() < 2 || mesh.cellCount() == 0
                ? new Boundary(new int[1], new int[0], new byte[0], new int[0], 0)
                : new Finder(mesh, work).find();
    }

    /** Order-free key of a face: a sum of mixed node numbers, and apart from it the smallest. */
    private static long mixed(int node) {
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
            // A few equal parts: each counts and fills its own stretch of every bucket, in the order of the cells.
            int parts = Math.clamp(Runtime.getRuntime().availableProcessors(), 1, 8);
            int size = Math.max(1, (n + parts - 1) / parts);
            int blocks = Parallel.blocks(n, size);
            int[][] begin = new int[blocks][];
            Parallel.forBlocks(n, size, (b, from, to) -> {
                int[] count = new int[mesh.nodeCount()];
                over(from, to, (cell, face, smallest, key) -> count[smallest]++);
                begin[b] = count;
            });
            work.progress("Finding the boundary", 0.3);
            int[] bucket = new int[mesh.nodeCount() + 1];
            int sum = 0;
            for (int node = 0; node < mesh.nodeCount(); node++) {
                bucket[node] = sum;
                for (int[] count : begin) {
                    int c = count[node];
                    count[node] = sum;
                    sum = Math.addExact(sum, c);
                }
            }
            bucket[mesh.nodeCount()] = sum;
            long[] keys = new long[sum];
            Parallel.forBlocks(n, size, (b, from, to) -> {
                int[] at = begin[b];
                over(from, to, (cell, face, smallest, key) -> keys[at[smallest]++] = key);
            });
            Arrays.fill(begin, null);
            work.progress("Finding the boundary", 0.6);
            single(bucket, keys);
            work.progress("Finding the boundary", 0.75);
            return collect(bucket, keys);
        }

        private int shared;

        /** Leaves in each bucket the keys of faces that only one cell has; the others become 0. */
        private void single(int[] bucket, long[] keys) {
            int nodes = mesh.nodeCount();
            int[] found = new int[Parallel.blocks(nodes, BLOCK)];
            Parallel.forBlocks(nodes, BLOCK, (b, from, to) -> {
                work.poll();
                int folded = 0;
                for (int node = from; node < to; node++) {
                    int end = bucket[node + 1];
                    for (int i = bucket[node]; i < end; i++) {
                        long key = keys[i];
                        int same = 1;
                        for (int k = i + 1; key != 0 && k < end; k++) {
                            if (keys[k] == key) {
                                keys[k] = 0;
                                same++;
                            }
                        }
                        if (same > 1) {
                            keys[i] = 0;
                            folded += same > 2 ? 1 : 0;
                        }
                    }
                }
                found[b] = folded;
            });
            shared = Arrays.stream(found).sum();
        }

        /** A second walk over the cells keeps the faces whose key is left in its bucket. */
        private Boundary collect(int[] bucket, long[] keys) {
            int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
            Piece[] pieces = new Piece[blocks];
            double[] plane = dimension == 2 ? Measures.plane(mesh) : null;
            Parallel.forBlocks(mesh.cellCount(), BLOCK, (b, from, to) -> {
                var piece = new Piece(mesh, plane);
                over(from, to, (cell, face, smallest, key) -> {
                    for (int i = bucket[smallest]; i < bucket[smallest + 1]; i++) {
                        if (keys[i] == key) {
                            piece.add(cell, nodesOf(cell, face));
                            return;
                        }
                    }
                });
                pieces[b] = piece;
            });
            return Piece.join(List.of(pieces), shared);
        }

        private void over(int from, int to, Taker taker) {
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
                    for (int f = 0; f < own.length; f++) {
                        int least = Integer.MAX_VALUE;
                        long key = 0;
                        for (int local : own[f]) {
                            int node = all[begin + local];
                            least = Math.min(least, node);
                            key += mixed(node);
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

    /** Boundary faces of some consecutive cells. */
    private static final class Piece {
        private final Cell cell;
        /** Normal of a plane mesh, for edges; null for solids. */
        private final double[] plane;

        private int count;
        private int[] ends = new int[16];
        private int[] owner = new int[16];
        private byte[] shape = new byte[16];
        private int[] nodes = new int[64];

        Piece(Mesh mesh, double[] plane) {
            cell = new Cell(mesh);
            this.plane = plane;
        }

        private static boolean against(Cell cell, double[] plane) {
            double[] n = Measures.areaVector(cell);
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
