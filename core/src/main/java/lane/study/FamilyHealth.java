package lane.study;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import lane.base.Plain;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Finding;
import lane.mesh.Finding.Severity;
import lane.quantity.FieldUnit;

/** Whether the runs of a family are meshes of one problem: same bounds, parts, fields and units, and how they refine. */
public final class FamilyHealth {
    private FamilyHealth() {}

    /**
     * @param runs of one family by name, coarse to fine as they stand in the study
     * @param units of the study
     * @return what differs, and the refinement ratio of each step
     */
    public static List<Finding> of(Map<String, Run> runs, List<FieldUnit> units) {
        List<Finding> out = new ArrayList<>();
        List<String> names = List.copyOf(runs.keySet());
        for (int i = 1; i < names.size(); i++) {
            Run a = Objects.requireNonNull(runs.get(names.get(i - 1)));
            Run b = Objects.requireNonNull(runs.get(names.get(i)));
            String pair = names.get(i - 1) + " and " + names.get(i);
            bounds(a, b, pair, out);
            sets(
                    "parts",
                    names(a.parts().stream().map(Part::name)),
                    names(b.parts().stream().map(Part::name)),
                    pair,
                    out);
            sets("fields", fields(a), fields(b), pair, out);
            units(a, b, units, pair, out);
            ratio(a, b, pair, out);
        }
        return out;
    }

    private static Set<String> names(java.util.stream.Stream<String> all) {
        return new TreeSet<>(all.toList());
    }

    private static Set<String> fields(Run run) {
        var all = new TreeSet<String>();
        run.fields().forEach(f -> all.add(f.name() + " at " + f.at().word()));
        run.parts().forEach(p -> p.fields().forEach(f -> all.add(f.name() + " on parts")));
        return all;
    }

    private static void bounds(Run a, Run b, String pair, List<Finding> out) {
        double[] x = a.mesh().bounds();
        double[] y = b.mesh().bounds();
        double most = 0;
        for (int d = 0; d < 6; d++) {
            most = Math.max(most, Math.abs(x[d] - y[d]));
        }
        double size = Math.max(a.mesh().modelSize(), b.mesh().modelSize());
        // Facets of a curved wall move inwards as they grow, so the bounds of coarse meshes are a little smaller.
        if (most > 0.02 * size) {
            out.add(new Finding(
                    Severity.WARNING,
                    "bounds of " + pair + " differ by " + Finding.number(most, 3) + " m of " + Finding.number(size, 3)
                            + " m: other geometry, or another unit of length",
                    1,
                    null));
        }
    }

    private static void sets(String what, Set<String> a, Set<String> b, String pair, List<Finding> out) {
        var only = new LinkedHashSet<String>();
        a.stream().filter(n -> !b.contains(n)).forEach(only::add);
        b.stream().filter(n -> !a.contains(n)).forEach(only::add);
        if (!only.isEmpty()) {
            out.add(new Finding(
                    Severity.WARNING,
                    what + " that only one of " + pair + " has: " + Plain.names(only),
                    only.size(),
                    null));
        }
    }

    private static void units(Run a, Run b, List<FieldUnit> units, String pair, List<Finding> out) {
        EvaluationContext lens = EvaluationContext.of(List.of(), units, lane.mesh.Axis.Z);
        for (Field f : a.fields()) {
            Field g = b.field(f.name()).orElse(null);
            if (g != null && !lens.unit(a, f).label().equals(lens.unit(b, g).label())) {
                out.add(new Finding(
                        Severity.NOTE,
                        "field \"" + f.name() + "\" is in other units in " + pair + ": "
                                + lens.unit(a, f).label() + " and "
                                + lens.unit(b, g).label()
                                + "; they are converted",
                        1,
                        null));
            }
        }
    }

    private static void ratio(Run a, Run b, String pair, List<Finding> out) {
        double r = Math.pow(
                (double) b.mesh().cellCount() / Math.max(1, a.mesh().cellCount()),
                1.0 / Math.max(1, b.mesh().dimension()));
        String text = "refinement ratio of " + pair + " is " + Finding.number(r, 3);
        if (r < 1) {
            out.add(new Finding(
                    Severity.WARNING,
                    text + ": the second is the coarser one; order the lanes coarse to fine",
                    1,
                    null));
        } else {
            out.add(new Finding(
                    r < 1.3 ? Severity.WARNING : Severity.NOTE,
                    r < 1.3 ? text + ", under 1.3: too alike to tell a mesh error by" : text,
                    1,
                    null));
        }
    }
}
