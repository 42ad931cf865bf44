package lane.cut;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.Work;
import lane.mesh.Mesh;
import lane.mesh.Point;

/** Where a plane meets a surface: ordered curves, one a connected piece. */
public final class CurveBranches {
    private CurveBranches() {}

    /**
     * A curve through the nodes of a cut, in order.
     *
     * @param closed whether it comes back to the first, which stands at both ends
     */
    public record Branch(int[] nodes, boolean closed) {}

    /** Lines on a surface mesh; the stencil is from the surface's nodes, the owners are its faces. */
    public static Cut of(Mesh surface, Point point, Point normal, Work work) {
        return Slicer.cut(surface, Level.plane(surface, point, normal), work);
    }

    /** Chains the lines of a cut: open curves first, then closed ones, each from its first line. */
    public static List<Branch> branches(Cut cut) {
        Mesh m = cut.surface();
        int lines = cut.owner().length;
        int[][] at = new int[m.nodeCount()][];
        int[] degree = new int[m.nodeCount()];
        for (int f = 0; f < lines; f++) {
            for (int k = 0; k < 2; k++) {
                int v = m.nodes()[m.begin(f) + k];
                at[v] = at[v] == null ? new int[2] : at[v];
                if (degree[v] == at[v].length) {
                    at[v] = Arrays.copyOf(at[v], 2 * degree[v]);
                }
                at[v][degree[v]++] = f;
            }
        }
        boolean[] used = new boolean[lines];
        List<Branch> out = new ArrayList<>();
        // Curves end where nothing goes on, or where several meet.
        for (int v = 0; v < degree.length; v++) {
            for (int i = 0; degree[v] != 2 && i < degree[v]; i++) {
                if (!used[at[v][i]]) {
                    out.add(walk(m, at, degree, used, v, at[v][i]));
                }
            }
        }
        for (int f = 0; f < lines; f++) {
            if (!used[f]) {
                out.add(walk(m, at, degree, used, m.nodes()[m.begin(f)], f));
            }
        }
        return out;
    }

    private static Branch walk(Mesh m, int[][] at, int[] degree, boolean[] used, int from, int first) {
        List<Integer> nodes = new ArrayList<>();
        nodes.add(from);
        int line = first;
        int node = from;
        while (line >= 0) {
            used[line] = true;
            int begin = m.begin(line);
            node = m.nodes()[begin] == node ? m.nodes()[begin + 1] : m.nodes()[begin];
            nodes.add(node);
            line = -1;
            if (degree[node] == 2) {
                for (int f : at[node]) {
                    line = used[f] ? line : f;
                }
            }
        }
        return new Branch(nodes.stream().mapToInt(i -> i).toArray(), node == from && nodes.size() > 2);
    }
}
