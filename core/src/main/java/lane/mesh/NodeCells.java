package lane.mesh;

/**
 * For each node the cells that have it, in their order, and its place in each of them.
 *
 * @param start where the entries of a node begin; one more than nodes
 * @param cell of each entry
 * @param place of the node among the cell's nodes
 */
public record NodeCells(int[] start, int[] cell, byte[] place) {
    /** Of the cells of the mesh's highest dimension. Cells of more than 127 nodes have their places counted modulo 256. */
    public static NodeCells of(Mesh mesh) {
        int dimension = mesh.dimension();
        int[] start = new int[mesh.nodeCount() + 1];
        int[] nodes = mesh.nodes();
        for (int c = 0; c < mesh.cellCount(); c++) {
            if (mesh.shape(c).dimension() == dimension) {
                for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                    start[nodes[k] + 1]++;
                }
            }
        }
        for (int i = 0; i < mesh.nodeCount(); i++) {
            start[i + 1] += start[i];
        }
        int[] next = start.clone();
        int[] cell = new int[start[mesh.nodeCount()]];
        byte[] place = new byte[cell.length];
        for (int c = 0; c < mesh.cellCount(); c++) {
            if (mesh.shape(c).dimension() == dimension) {
                int begin = mesh.begin(c);
                for (int k = 0; k < mesh.size(c); k++) {
                    int at = next[nodes[begin + k]]++;
                    cell[at] = c;
                    place[at] = (byte) k;
                }
            }
        }
        return new NodeCells(start, cell, place);
    }
}
