package lane.mesh;

import java.util.Arrays;

/**
 * The outer boundary of a mesh: faces that belong to one cell only (edges, for a mesh of surface cells). Two faces are
 * the same when they have the same nodes. Faces are put in buckets by their smallest node, so the cost grows linearly
 * with the number of cells.
 */
public final class Topology {
    private Topology() {}

    /**
     * Boundary faces, wound so that they point out of their cell.
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
        int dimension = mesh.dimension();
        if (dimension < 2) {
            return new Boundary(new int[1], new int[0], new byte[0], new int[0], 0);
        }
        var faces = new FaceList(mesh, dimension);
        int n = faces.count;
        // Bucket the faces by smallest node (counting sort).
        int[] begin = new int[mesh.nodeCount() + 1];
        int[] smallest = new int[n];
        for (int f = 0; f < n; f++) {
            int least = Integer.MAX_VALUE;
            for (int i = faces.offsets[f]; i < faces.offsets[f + 1]; i++) {
                least = Math.min(least, faces.nodes[i]);
            }
            smallest[f] = least;
            begin[least + 1]++;
        }
        for (int i = 0; i < mesh.nodeCount(); i++) {
            begin[i + 1] += begin[i];
        }
        int[] fill = Arrays.copyOf(begin, mesh.nodeCount());
        int[] bucket = new int[n];
        for (int f = 0; f < n; f++) {
            bucket[fill[smallest[f]]++] = f;
        }
        byte[] claims = new byte[n];
        int shared = 0;
        for (int node = 0; node < mesh.nodeCount(); node++) {
            for (int i = begin[node]; i < begin[node + 1]; i++) {
                int f = bucket[i];
                if (claims[f] != 0) {
                    continue;
                }
                int same = 1;
                for (int k = i + 1; k < begin[node + 1]; k++) {
                    int g = bucket[k];
                    if (claims[g] == 0 && faces.same(f, g)) {
                        claims[g] = 2;
                        same++;
                    }
                }
                claims[f] = (byte) Math.min(same, 3);
                shared += same > 2 ? 1 : 0;
            }
        }
        return collect(mesh, faces, claims, shared);
    }

    private static Boundary collect(Mesh mesh, FaceList faces, byte[] claims, int shared) {
        int count = 0;
        int size = 0;
        for (int f = 0; f < faces.count; f++) {
            if (claims[f] == 1) {
                count++;
                size += faces.offsets[f + 1] - faces.offsets[f];
            }
        }
        int[] offsets = new int[count + 1];
        int[] nodes = new int[size];
        byte[] shape = new byte[count];
        int[] owner = new int[count];
        var cell = new Cell(mesh);
        int at = 0;
        int out = 0;
        for (int f = 0; f < faces.count; f++) {
            if (claims[f] != 1) {
                continue;
            }
            owner[out] = faces.owner[f];
            cell.load(owner[out]);
            boolean flip = cell.shape().dimension() == 3 && cell.measure() < 0;
            int from = faces.offsets[f];
            int to = faces.offsets[f + 1];
            CellShape face = cell.shape().face(to - from);
            shape[out] = (byte) face.ordinal();
            int[] turned = flip ? face.turned() : null;
            for (int i = from; i < to; i++) {
                nodes[at++] = faces.nodes[turned != null ? from + turned[i - from] : flip ? from + to - 1 - i : i];
            }
            offsets[++out] = at;
        }
        return new Boundary(offsets, nodes, shape, owner, shared);
    }

    /** All faces of all cells of one dimension, one cell after the other. */
    private static final class FaceList {
        final int count;
        final int[] offsets;
        final int[] nodes;
        final int[] owner;

        FaceList(Mesh mesh, int dimension) {
            var cell = new Cell(mesh);
            int n = 0;
            long size = 0;
            for (int c = 0; c < mesh.cellCount(); c++) {
                CellShape shape = mesh.shape(c);
                if (shape.dimension() != dimension) {
                    continue;
                }
                if (dimension == 2) {
                    int edges = edges(shape, mesh.size(c));
                    n += edges;
                    size += (shape.quadratic() ? 3L : 2L) * edges;
                } else if (shape == CellShape.POLYHEDRON) {
                    int faces = mesh.faceStream()[mesh.faceBegin(c)];
                    n += faces;
                    size += mesh.faceEnd(c) - mesh.faceBegin(c) - 1 - faces;
                } else {
                    for (int[] face : shape.faces()) {
                        n++;
                        size += face.length;
                    }
                }
            }
            count = n;
            offsets = new int[n + 1];
            nodes = new int[Math.toIntExact(size)];
            owner = new int[n];
            int f = 0;
            int at = 0;
            for (int c = 0; c < mesh.cellCount(); c++) {
                CellShape shape = mesh.shape(c);
                if (shape.dimension() != dimension) {
                    continue;
                }
                int begin = mesh.begin(c);
                int[] all = mesh.nodes();
                if (dimension == 2) {
                    int edges = edges(shape, mesh.size(c));
                    int step = shape.quadratic() ? 2 : 1;
                    for (int i = 0; i < edges; i++) {
                        nodes[at++] = all[begin + shape.around(step * i)];
                        nodes[at++] = all[begin + shape.around(step * (i + 1) % (step * edges))];
                        if (step == 2) {
                            nodes[at++] = all[begin + shape.around(2 * i + 1)];
                        }
                        owner[f] = c;
                        offsets[++f] = at;
                    }
                } else if (shape == CellShape.POLYHEDRON) {
                    cell.load(c);
                    for (int[] face : cell.faces()) {
                        for (int local : face) {
                            nodes[at++] = cell.node(local);
                        }
                        owner[f] = c;
                        offsets[++f] = at;
                    }
                } else {
                    for (int[] face : shape.faces()) {
                        for (int local : face) {
                            nodes[at++] = all[begin + local];
                        }
                        owner[f] = c;
                        offsets[++f] = at;
                    }
                }
            }
        }

        private static int edges(CellShape shape, int size) {
            return shape.quadratic() ? shape.corners().nodes() : size;
        }

        /** Whether two faces have the same nodes, in any order. */
        boolean same(int f, int g) {
            int size = offsets[f + 1] - offsets[f];
            if (offsets[g + 1] - offsets[g] != size) {
                return false;
            }
            for (int i = offsets[f]; i < offsets[f + 1]; i++) {
                boolean found = false;
                for (int k = offsets[g]; k < offsets[g + 1] && !found; k++) {
                    found = nodes[i] == nodes[k];
                }
                if (!found) {
                    return false;
                }
            }
            return true;
        }
    }
}
