package lane.evaluation;

import java.util.Arrays;
import lane.cut.Stencil;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Values of node fields at the nodes of a part: its own, those of the run's nodes at the same places, or, at the nodes of what was
 * cut out of the run, interpolated in a cell behind them. So what is made of fields, such as a gradient, is known on a cut as well.
 */
final class PartNodes {
    private final Run run;
    private final Part part;
    private final boolean cut;
    private @Nullable Stencil within;

    PartNodes(Run run, Part part) {
        this.run = run;
        this.part = part;
        cut = part.cut() && Arrays.stream(part.owner()).allMatch(c -> c >= 0);
    }

    /** NaN where it is not known. */
    double at(Field f, int component, int local) {
        int c = f.components();
        if (part.fields().contains(f)) {
            return f.values().get(local * c + component);
        }
        if (!cut) {
            int at = part.node()[local];
            return at < 0 ? Double.NaN : f.values().get(at * c + component);
        }
        Stencil s = within();
        double sum = s.start()[local] == s.start()[local + 1] ? Double.NaN : 0;
        for (int k = s.start()[local]; k < s.start()[local + 1]; k++) {
            sum += s.share()[k] * f.values().get(s.node()[k] * c + component);
        }
        return sum;
    }

    private synchronized Stencil within() {
        if (within == null) {
            within = interpolated();
        }
        return within;
    }

    /** Each node in the cell behind the first face that has it; a node that no face has lies in none. */
    private Stencil interpolated() {
        Mesh surface = part.surface();
        int[] face = new int[surface.nodeCount()];
        Arrays.fill(face, -1);
        for (int f = surface.cellCount() - 1; f >= 0; f--) {
            for (int k = surface.begin(f); k < surface.begin(f) + surface.size(f); k++) {
                face[surface.nodes()[k]] = f;
            }
        }
        int[] start = new int[face.length + 1];
        int[] node = new int[8 * face.length];
        double[] share = new double[node.length];
        var cell = new Cell(run.mesh());
        double[] x = surface.xyz();
        int n = 0;
        for (int i = 0; i < face.length; i++) {
            if (face[i] >= 0) {
                int owner = part.owner()[face[i]];
                if (cell.index() != owner) {
                    cell.load(owner);
                }
                cell.locate(x[3 * i], x[3 * i + 1], x[3 * i + 2]);
                if (n + cell.size() > node.length) {
                    node = Arrays.copyOf(node, 2 * (n + cell.size()));
                    share = Arrays.copyOf(share, node.length);
                }
                for (int k = 0; k < cell.size(); k++) {
                    node[n] = cell.node(k);
                    share[n++] = cell.weights()[k];
                }
            }
            start[i + 1] = n;
        }
        return new Stencil(start, Arrays.copyOf(node, n), Arrays.copyOf(share, n));
    }
}
