package lane.field;

import java.util.HashMap;
import java.util.Map;
import lane.mesh.Mesh;

/** Finds a mesh node at a place: nodes in a grid of cells a few tolerances wide, looked up with their neighbours. */
final class NodeGrid {
    private final Mesh mesh;
    private final double tolerance;
    private final double width;
    private final Map<Long, int[]> buckets = new HashMap<>();

    /** @param nodes the nodes that can be found; a node may come several times */
    NodeGrid(Mesh mesh, int[] nodes, double tolerance) {
        this.mesh = mesh;
        this.tolerance = tolerance;
        this.width = Math.max(4 * tolerance, Double.MIN_NORMAL);
        boolean[] seen = new boolean[mesh.nodeCount()];
        for (int node : nodes) {
            if (!seen[node]) {
                seen[node] = true;
                buckets.merge(code(node), new int[] {node}, NodeGrid::join);
            }
        }
    }

    private static int[] join(int[] a, int[] b) {
        int[] both = java.util.Arrays.copyOf(a, a.length + 1);
        both[a.length] = b[0];
        return both;
    }

    private long code(int node) {
        double[] x = mesh.xyz();
        return code(cell(x[3 * node]), cell(x[3 * node + 1]), cell(x[3 * node + 2]));
    }

    private long cell(double v) {
        return (long) Math.floor(v / width);
    }

    private static long code(long i, long j, long k) {
        return (i * 73856093L) ^ (j * 19349663L << 20) ^ (k * 83492791L << 40);
    }

    /** The nearest node within the tolerance, or -1. */
    int nearest(double x, double y, double z) {
        int best = -1;
        double least = tolerance * tolerance;
        // A place closer to a wall of its grid cell than the tolerance also asks the neighbour behind that wall.
        for (long i = cell(x - tolerance); i <= cell(x + tolerance); i++) {
            for (long j = cell(y - tolerance); j <= cell(y + tolerance); j++) {
                for (long k = cell(z - tolerance); k <= cell(z + tolerance); k++) {
                    for (int node : buckets.getOrDefault(code(i, j, k), new int[0])) {
                        double dx = mesh.xyz()[3 * node] - x;
                        double dy = mesh.xyz()[3 * node + 1] - y;
                        double dz = mesh.xyz()[3 * node + 2] - z;
                        double d2 = dx * dx + dy * dy + dz * dz;
                        if (d2 <= least) {
                            least = d2;
                            best = node;
                        }
                    }
                }
            }
        }
        return best;
    }
}
