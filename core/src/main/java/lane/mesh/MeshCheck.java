package lane.mesh;

import lane.base.LaneException;

/** What must hold for the arrays of a mesh before anything walks over them. */
final class MeshCheck {
    private MeshCheck() {}

    static void check(Mesh mesh) {
        int cells = mesh.cellCount();
        int nodeCount = mesh.nodeCount();
        int[] offsets = mesh.offsets();
        int[] nodes = mesh.nodes();
        if (mesh.xyz().length % 3 != 0) {
            throw new LaneException(
                    "Node coordinates must come in threes; there are " + mesh.xyz().length + " numbers.");
        }
        if (offsets.length != cells + 1 || offsets[0] != 0 || offsets[cells] != nodes.length) {
            throw new LaneException("The cells' offsets do not fit their node list: " + cells + " cells, "
                    + offsets.length + " offsets, " + nodes.length + " node numbers; write the file again.");
        }
        for (int c = 0; c < cells; c++) {
            int size = offsets[c + 1] - offsets[c];
            CellShape shape = mesh.shape(c);
            int least = shape.nodes() > 0 ? shape.nodes() : shape == CellShape.POLYLINE ? 2 : shape.dimension() + 1;
            if (size < least || shape.nodes() > 0 && size != least) {
                throw new LaneException("Cell " + c + " is a " + shape.word() + " with " + size + " nodes; it needs "
                        + (shape.nodes() > 0 ? "" : "at least ") + least + ".");
            }
        }
        for (int i = 0; i < nodes.length; i++) {
            if (nodes[i] < 0 || nodes[i] >= nodeCount) {
                throw new LaneException("Cell " + cellOf(offsets, i) + " refers to node " + nodes[i]
                        + ", but nodes go from 0 to " + (nodeCount - 1) + "; write the file again.");
            }
        }
        for (int c = 0; c < cells; c++) {
            if (mesh.shape(c) == CellShape.POLYHEDRON) {
                checkFaces(mesh, c, nodeCount);
            }
        }
    }

    private static void checkFaces(Mesh mesh, int cell, int nodeCount) {
        int[] stream = mesh.faceStream();
        int[] offsets = mesh.faceOffsets();
        if (!mesh.hasPolyhedra() || offsets == null || offsets.length != mesh.cellCount() + 1) {
            throw new LaneException("Cell " + cell + " is a polyhedron without faces; write its face list.");
        }
        int at = offsets[cell];
        int end = offsets[cell + 1];
        boolean sound = at >= 0 && at < end && end <= stream.length && stream[at] >= 4;
        int faces = sound ? stream[at++] : 0;
        for (int f = 0; f < faces && sound; f++) {
            int n = at < end ? stream[at++] : 0;
            sound = n >= 3 && n <= end - at;
            for (int k = 0; k < n && sound; k++) {
                int node = stream[at++];
                sound = node >= 0 && node < nodeCount && contains(mesh, cell, node);
            }
        }
        if (!sound || at != end) {
            throw new LaneException("The face list of polyhedron " + cell
                    + " is damaged: counts or node numbers do not fit; write the file again.");
        }
    }

    private static boolean contains(Mesh mesh, int cell, int node) {
        int begin = mesh.begin(cell);
        for (int i = begin; i < begin + mesh.size(cell); i++) {
            if (mesh.nodes()[i] == node) {
                return true;
            }
        }
        return false;
    }

    private static int cellOf(int[] offsets, int position) {
        int found = java.util.Arrays.binarySearch(offsets, position);
        return found >= 0 ? found : -found - 2;
    }
}
