package lane.transfer;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Mesh;

/**
 * Which fields are brought onto another mesh, how, and what is imposed on parts of it afterwards.
 *
 * @param fields by name; all where there are none
 * @param conservative by the overlap of cells, so that integrals are kept; else by interpolation
 * @param to where values are wanted
 * @param outside what places outside of the source get
 * @param mean of a transfer that keeps integrals, whether cells that are covered in part take the mean of that part
 * @param common what both meshes have in common: always found for a transfer that keeps integrals; of an interpolation where it is
 *     wanted, and else where it takes no time worth a question
 * @param imposed values by the target's part, whose nodes get them afterwards
 * @param linear of an interpolation, whether what is stored in cells is linear within each, and not constant
 */
public record Bringing(
        List<String> fields,
        boolean conservative,
        MeshTransfer.To to,
        Outside outside,
        boolean mean,
        boolean common,
        Map<String, Double> imposed,
        boolean linear) {
    /** Below so many bodies it takes no time worth a question to find what both meshes have in common. */
    private static final int FEW = 100_000;

    private static final int LOOKED_AT = 500;

    public Bringing {
        fields = List.copyOf(fields);
        imposed = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(imposed));
    }

    /**
     * @param target with its parts
     * @throws LaneException naming a field or part that is missing, or why the meshes cannot be brought together
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public MeshTransfer.Result of(Run source, Run target, Work work) {
        List<Part> parts =
                imposed.keySet().stream().map(name -> part(target, name)).toList();
        List<Field> wanted = fields.isEmpty()
                ? source.fields()
                : fields.stream().map(name -> field(source, name)).toList();
        if (wanted.isEmpty()) {
            throw new LaneException("The source has no field to be transferred.");
        }
        MeshTransfer.Result made = plane(source, target, brought(source, target.mesh(), wanted, work));
        if (parts.isEmpty()) {
            return made;
        }
        List<Numbers> numbers = new ArrayList<>();
        List<String> notes = new ArrayList<>(made.notes());
        boolean nodal = made.fields().stream().anyMatch(n -> n.at() == Field.At.NODE);
        for (Numbers n : made.fields()) {
            Numbers now = n;
            // Of cells alone it is refused; beside fields at nodes it is told.
            if (n.at() == Field.At.CELL && nodal) {
                notes.add("\"" + n.field().name() + "\" has its values in cells, so nothing was imposed on it.");
            } else {
                for (Part part : parts) {
                    now = MeshTransfer.imposed(
                            now,
                            target.mesh(),
                            List.of(part),
                            java.util.Objects.requireNonNull(imposed.get(part.name())),
                            work);
                }
            }
            numbers.add(now);
        }
        return new MeshTransfer.Result(numbers, made.common(), made.masks(), notes);
    }

    /** What is plane is integrated over its plane, whatever it stands for, and that is said. */
    private static MeshTransfer.Result plane(Run source, Run target, MeshTransfer.Result made) {
        if (source.mesh().dimension() != 2 && target.mesh().dimension() != 2) {
            return made;
        }
        List<String> notes = new ArrayList<>(made.notes());
        notes.add(
                source.stated().turn() != null || target.stated().turn() != null
                        ? "A run that stands for a turn is transferred in its plane: overlap and integrals are over areas, without the"
                                + " weight of the radius."
                        : "Overlap and integrals are over areas of the surface; a plane run that stands for a turn has no weight of the"
                                + " radius in them.");
        return new MeshTransfer.Result(made.fields(), made.common(), made.masks(), notes);
    }

    private MeshTransfer.Result brought(Run source, Mesh target, List<Field> wanted, Work work) {
        Mesh mesh = source.mesh();
        boolean few = bodies(mesh) <= FEW && bodies(target) <= FEW;
        boolean alike = mesh.dimension() == target.dimension() && mesh.dimension() > 1;
        boolean unasked = !conservative && !common && few && alike;
        var how = new MeshTransfer.Wanted(conservative, to, outside, mean, conservative || common || unasked, linear);
        try {
            return MeshTransfer.of(source, target, wanted, how, work);
        } catch (LaneException e) {
            if (!unasked) {
                throw e;
            }
            // Nobody asked for what surfaces that bend have in common.
            return MeshTransfer.of(
                    source, target, wanted, new MeshTransfer.Wanted(false, to, outside, mean, false, linear), work);
        }
    }

    /** About how many convex bodies the cells of a mesh are: a bent hexahedron is two dozen. */
    private static double bodies(Mesh mesh) {
        int cells = mesh.cellCount();
        if (cells > FEW || mesh.dimension() < 3) {
            return cells;
        }
        var body = new CellBody(mesh, new double[] {0, 0, 1}, 1);
        int step = Math.max(1, cells / LOOKED_AT);
        long bodies = 0;
        int looked = 0;
        for (int c = 0; c < cells; c += step) {
            looked++;
            if (mesh.shape(c).dimension() == 3) {
                double[] x = body.cell.load(c).x();
                body.load(c, new double[] {x[0], x[1], x[2]}, false);
                bodies += body.count;
            }
        }
        return looked == 0 ? 0 : (double) bodies / looked * cells;
    }

    private static Field field(Run run, String name) {
        return run.field(name.strip())
                .orElseThrow(() -> new LaneException("There is no field \"" + name.strip() + "\" in the source; it has "
                        + (run.fields().isEmpty()
                                ? "none."
                                : Plain.names(run.fields().stream()
                                                .map(Field::name)
                                                .toList()) + ".")));
    }

    private static Part part(Run target, String name) {
        return target.parts().stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new LaneException("The target has no part \"" + name + "\"; "
                        + (target.parts().isEmpty()
                                ? "it has none."
                                : "its parts are "
                                        + Plain.names(target.parts().stream()
                                                .map(Part::name)
                                                .toList())
                                        + ".")));
    }
}
