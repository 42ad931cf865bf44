package lane.field;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Sum;
import lane.mesh.Axis;
import lane.mesh.CellMeasures;
import lane.mesh.CellQuality;
import lane.mesh.Finding;
import lane.mesh.Finding.Severity;
import lane.mesh.Mesh;
import lane.mesh.MeshHealth;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** What looks wrong in a run: its mesh, its fields, its parts. */
public final class RunHealth {
    private RunHealth() {}

    /**
     * A run looked over.
     *
     * @param findings the gravest first
     * @param parts size and direction of the parts, in their order
     * @param stress for each stored wall stress how much it points along the flow; see {@link WallStress}
     * @param fields of the mesh and, where the mesh has none of the name, of the parts, by name
     */
    public record Report(
            @Nullable CellQuality quality,
            List<Finding> findings,
            List<PartSize> parts,
            Map<String, Double> stress,
            Map<String, FieldRange> fields) {}

    /**
     * What a field's numbers are like.
     *
     * @param least and {@code greatest}: of the magnitude where it has several components; NaN if none is finite
     * @param nonFinite number of values that are not finite
     * @param whole whether they are stored as whole numbers
     */
    public record FieldRange(double least, double greatest, int nonFinite, boolean whole) {
        static FieldRange of(Field f) {
            double[] r = f.range(f.components() == 1 ? 0 : -1);
            return new FieldRange(r[0], r[2], f.nonFinite(), f.values() instanceof Values.Ints);
        }
    }

    /**
     * Size of a part by the corners of its faces.
     *
     * @param area in square metres
     * @param mean its mean normal out of the run, as long as the part is flat: 1 for a plane, 0 for a closed surface
     */
    public record PartSize(double area, Point mean) {}

    private static PartSize size(Run run, Axis axis, Part part) {
        double[] n = new double[3];
        double[] plane = CellMeasures.plane(run.mesh());
        var area = new Sum();
        Sum[] sum = {new Sum(), new Sum(), new Sum()};
        for (int f = 0; f < part.surface().cellCount(); f++) {
            PartPieces.normal(part.surface(), f, plane, n);
            double weight = weight(run, axis, part.surface(), f);
            for (int d = 0; d < 3; d++) {
                n[d] *= weight;
            }
            area.add(Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]));
            for (int d = 0; d < 3; d++) {
                sum[d].add(n[d]);
            }
        }
        double a = Math.max(area.value(), Double.MIN_NORMAL);
        return new PartSize(area.value(), new Point(sum[0].value() / a, sum[1].value() / a, sum[2].value() / a));
    }

    /** What an edge of a plane run stands for: the depth, or in an axisymmetric one the way around at its middle. */
    static double weight(Run run, Axis axis, Mesh m, int face) {
        if (run.mesh().dimension() != 2) {
            return 1;
        }
        if (run.stated().turn() == null) {
            return run.stated().depth();
        }
        double sum = 0;
        for (int k = 0; k < m.size(face); k++) {
            int at = 3 * m.nodes()[m.begin(face) + k];
            sum += axis.radius(m.xyz()[at], m.xyz()[at + 1], m.xyz()[at + 2]);
        }
        return 2 * Math.PI * sum / m.size(face);
    }

    public static Report of(Run run) {
        return of(run, Axis.Z);
    }

    /** @param axis that an axisymmetric run stands around */
    public static Report of(Run run, Axis axis) {
        MeshHealth.Report mesh = MeshHealth.of(run.mesh());
        List<Finding> out = new ArrayList<>(mesh.findings());
        run.parts().forEach(p -> part(p, out));
        Run sound = readable(run, out);
        var ranges = new LinkedHashMap<String, FieldRange>();
        Stream.concat(sound.fields().stream(), sound.parts().stream().flatMap(p -> p.fields().stream()))
                .forEach(f -> {
                    field(f, out);
                    ranges.computeIfAbsent(f.name(), n -> FieldRange.of(f));
                });
        length(run, out);
        FlowHealth.look(sound, axis, out);
        FieldJumps.look(sound, out);
        out.sort(java.util.Comparator.comparing(Finding::severity).reversed());
        var stress = new LinkedHashMap<String, Double>();
        Stream.concat(sound.fields().stream(), sound.parts().stream().flatMap(p -> p.fields().stream()))
                .filter(WallStress::is)
                .forEach(f -> stress.computeIfAbsent(f.name(), name -> WallStress.alongFlow(sound, name)));
        return new Report(
                mesh.quality(),
                List.copyOf(out),
                run.parts().stream().map(p -> size(run, axis, p)).toList(),
                stress,
                ranges);
    }

    /** An unknown unit of length makes every length, area and gradient a guess. */
    private static void length(Run run, List<Finding> out) {
        length(run.mesh(), run.stated().length(), out);
    }

    /** @param said whether the unit of the coordinates is known */
    public static void length(Mesh mesh, boolean said, List<Finding> out) {
        double across = mesh.modelSize();
        if (said || mesh.nodeCount() == 0) {
            return;
        }
        boolean odd = across > 50 || across < 1e-5;
        out.add(new Finding(
                odd ? Severity.WARNING : Severity.NOTE,
                "unit of length is not said by the file: metres are assumed, so that the mesh is "
                        + Finding.number(across, 3) + " m across"
                        + (odd
                                ? "; is that right? State the unit of its coordinates at Intake, or as its treatment"
                                : ""),
                1,
                null));
    }

    /** The run without the fields whose numbers cannot be read, each of which is told. */
    private static Run readable(Run run, List<Finding> out) {
        List<Field> fields = readable(run.fields(), out);
        List<Part> parts =
                run.parts().stream().map(p -> p.with(readable(p.fields(), out))).toList();
        return run.with(fields, parts, run.remarks(), run.stated());
    }

    private static List<Field> readable(List<Field> fields, List<Finding> out) {
        return fields.stream()
                .filter(f -> {
                    try {
                        f.values();
                        return true;
                    } catch (LaneException e) {
                        out.add(new Finding(
                                Severity.ERROR,
                                "values of \"" + f.name() + "\" cannot be read: " + e.getMessage(),
                                f.size(),
                                null));
                        return false;
                    }
                })
                .toList();
    }

    /** Values that are no numbers, and fields that are the same everywhere. */
    public static void field(Field f, List<Finding> out) {
        int bad = f.nonFinite();
        if (bad > 0) {
            out.add(new Finding(Severity.ERROR, "values of \"" + f.name() + "\" are not finite", bad, null));
        }
        boolean constant = f.size() > 1;
        Values values = f.values();
        for (int i = f.components(); constant && i < values.length(); i++) {
            constant = values.get(i) == values.get(i % f.components());
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
                    "faces of part \"" + p.name() + "\" do not belong to the boundary of the mesh",
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
