package lane.field;

import java.util.ArrayList;
import java.util.List;
import lane.mesh.CellQuality;
import lane.mesh.Finding;
import lane.mesh.Finding.Severity;
import lane.mesh.MeshHealth;

/** What looks wrong in a run: its mesh, its fields, its parts. */
public final class RunHealth {
    private RunHealth() {}

    /**
     * A run looked over.
     *
     * @param findings the gravest first
     */
    public record Sheet(CellQuality quality, List<Finding> findings) {}

    public static Sheet of(Run run) {
        MeshHealth.Sheet mesh = MeshHealth.of(run.mesh());
        List<Finding> out = new ArrayList<>(mesh.findings());
        run.parts().forEach(p -> part(p, out));
        run.fields().forEach(f -> field(f, out));
        run.parts().forEach(p -> p.fields().forEach(f -> field(f, out)));
        FlowHealth.look(run, out);
        FieldJumps.look(run, out);
        out.sort(java.util.Comparator.comparing(Finding::severity).reversed());
        return new Sheet(mesh.quality(), List.copyOf(out));
    }

    /** Values that are no numbers, and fields that are the same everywhere. */
    public static void field(Field f, List<Finding> out) {
        int bad = f.nonFinite();
        if (bad > 0) {
            out.add(new Finding(Severity.ERROR, "values of \"" + f.name() + "\" are not finite", bad, null));
        }
        boolean constant = f.size() > 1;
        for (int i = f.components(); constant && i < f.values().length(); i++) {
            constant = f.values().get(i) == f.values().get(i % f.components());
        }
        if (constant) {
            out.add(new Finding(
                    Severity.NOTE,
                    "values of \"" + f.name() + "\" are all the same: is it what it should be?",
                    f.size(),
                    null));
        }
    }

    /** Faces that are none of the run's boundary, and faces wound both ways. */
    public static void part(Part p, List<Finding> out) {
        if (p.unmatched() > 0) {
            out.add(new Finding(
                    Severity.WARNING,
                    "faces of part \"" + p.name() + "\" are no boundary faces of the mesh",
                    p.unmatched(),
                    null));
        }
        int faces = p.surface().cellCount() - p.unmatched();
        if (p.turned() > 0 && p.turned() < faces) {
            out.add(new Finding(
                    Severity.WARNING,
                    "faces of part \"" + p.name()
                            + "\" are wound the other way than the rest; integrals use the run's outward side",
                    p.turned(),
                    null));
        }
    }
}
