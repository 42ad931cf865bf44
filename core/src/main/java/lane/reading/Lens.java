package lane.reading;

import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.unit.Unit;

/**
 * How quantities are seen on a run: which field, in which unit, about which axis. Two equal lenses give equal numbers.
 *
 * @param quantities by key
 * @param units stated or guessed, by field name
 * @param axis that radial and swirl components refer to
 */
public record Lens(Map<String, Quantity> quantities, Map<String, FieldUnit> units, Axis axis) {
    public static Lens of(List<Quantity> quantities, List<FieldUnit> units, Axis axis) {
        return new Lens(
                quantities.stream().collect(Collectors.toMap(Quantity::id, UnaryOperator.identity(), (a, b) -> a)),
                units.stream().collect(Collectors.toMap(FieldUnit::field, UnaryOperator.identity(), (a, b) -> a)),
                axis);
    }

    public Quantity quantity(String id) {
        Quantity q = quantities.get(id);
        if (q == null) {
            throw new LaneException("There is no quantity \"" + id + "\" in this study; choose one of "
                    + String.join(", ", new java.util.TreeSet<>(quantities.keySet())) + ".");
        }
        return q;
    }

    /**
     * The unit a run stores a field in. In this order: as stated for the run alone; in the run's system of units, where
     * the kind of quantity is known; as stated for the study; as the file says; as guessed; else unknown.
     */
    public Unit unit(Run run, Field field) {
        Unit own = run.stated().units().get(field.name());
        if (own != null) {
            return own;
        }
        FieldUnit said = units.get(field.name());
        Unit unit = said != null && (said.stated() || !field.unit().known()) ? Unit.of(said.unit()) : field.unit();
        var system = run.stated().system();
        return system != null && unit.known() ? system.of(unit.dimension()) : unit;
    }

    /** The field behind a quantity on a run's own mesh. */
    public Field onMesh(Run run, Quantity quantity) {
        return run.field(quantity.field()).map(f -> fit(f, quantity)).orElseThrow(() -> missing(run, quantity));
    }

    /** The field behind a quantity on a part: the part's own, else the run's. */
    public Field onPart(Run run, Part part, Quantity quantity) {
        return part.field(quantity.field())
                .or(() -> run.field(quantity.field()))
                .map(f -> fit(f, quantity))
                .orElseThrow(() -> missing(run, quantity));
    }

    private static LaneException missing(Run run, Quantity quantity) {
        return new LaneException("There is no field \"" + quantity.field() + "\" here; the run has "
                + run.fields().stream().map(Field::name).collect(Collectors.joining(", ")) + ".");
    }

    private static Field fit(Field field, Quantity quantity) {
        boolean whole = quantity.take() == Take.ALL;
        if (quantity.take().needsVector() && field.components() != 3) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" takes the "
                    + quantity.take().word()
                    + " of field \"" + field.name() + "\", which has " + field.components()
                    + " component(s) and not 3; take it as stored or take its magnitude.");
        }
        return whole || field.components() >= 1 ? field : null;
    }

    /** The single number of a quantity; a vector taken whole has none. */
    public void requireNumber(Quantity quantity, Field field) {
        if (quantity.take() == Take.ALL && field.components() > 1) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" has " + field.components()
                    + " components; take one of them or the magnitude.");
        }
    }
}
