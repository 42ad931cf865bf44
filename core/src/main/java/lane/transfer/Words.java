package lane.transfer;

import java.util.Arrays;
import java.util.stream.Collectors;
import lane.base.Figures;
import lane.base.Plain;
import lane.field.Field;
import lane.mesh.Mesh;

/** What a transfer brought, in words. */
final class Words {
    private Words() {}

    static String of(MeshTransfer.Result made, Mesh to) {
        var out = new StringBuilder();
        Common c = made.common();
        if (c != null) {
            String size = to.dimension() == 2 ? "area" : "volume";
            out.append("common ").append(size).append(' ').append(number(c.overlap()));
            out.append(", of the target uncovered ")
                    .append(number(c.uncovered()))
                    .append('\n');
        }
        for (Numbers n : made.fields()) {
            int targets = n.values().length / n.field().components();
            out.append(n.field().name())
                    .append(": ")
                    .append(Plain.count(targets, n.at() == Field.At.NODE ? "node" : "cell"));
            out.append(
                    n.outside() == 0
                            ? ", all with values"
                            : ", " + n.outside() + " of them ("
                                    + Figures.of(100.0 * n.outside() / targets, 3)
                                            .plain(100.0 * n.outside() / targets)
                                    + " %) without a value");
            out.append('\n');
            out.append("  integral over the source ").append(numbers(n.source()));
            if (n.overlap().length > 0) {
                out.append(", over what is common ").append(numbers(n.overlap()));
            }
            out.append(", over the target ").append(numbers(n.target())).append('\n');
            if (!Double.isNaN(n.largestChange())) {
                out.append("  largest change by imposed values ")
                        .append(number(n.largestChange()))
                        .append('\n');
            }
        }
        made.notes().forEach(note -> out.append("  ").append(note).append('\n'));
        return out.toString();
    }

    private static String numbers(double[] v) {
        return Arrays.stream(v).mapToObj(Words::number).collect(Collectors.joining(", "));
    }

    private static String number(double v) {
        return Figures.of(v, 9).plain(v);
    }
}
