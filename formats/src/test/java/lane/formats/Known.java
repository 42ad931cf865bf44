package lane.formats;

import io.jhdf.api.WritableGroup;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.mesh.Cell;
import lane.mesh.Mesh;

/** What tests of readers ask of what was read, and the nodes that files of CGNS are made of. */
final class Known {
    private Known() {}

    static double[] values(Dataset d, String field) {
        Values v = d.fields().stream()
                .filter(f -> f.name().equals(field))
                .findFirst()
                .orElseThrow(() -> new AssertionError(field + " is not among " + d.fields()))
                .values();
        double[] out = new double[v.length()];
        Arrays.setAll(out, v::get);
        return out;
    }

    /** Lengths, areas and volumes of all cells together. */
    static double measure(Mesh mesh) {
        double sum = 0;
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            sum += cell.load(c).measure();
        }
        return sum;
    }

    /** A node of a CGNS file: a group with a label and, mostly, numbers or text. */
    static WritableGroup node(WritableGroup parent, String name, String label, Object data) {
        WritableGroup g = parent.putGroup(name);
        g.putAttribute("label", label);
        if (data instanceof String text) {
            g.putDataset(" data", text.getBytes(StandardCharsets.US_ASCII));
        } else if (data != null) {
            g.putDataset(" data", data);
        }
        return g;
    }
}
