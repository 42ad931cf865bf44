package lane.evaluation;

import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import lane.base.Fault;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Printer;
import lane.mesh.Axis;
import lane.quantity.Definitions;
import lane.quantity.FieldQuantity;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * How quantities are seen on a run: by which formulas, in which units, about which axis. Two equal lenses give equal
 * numbers.
 *
 * @param quantities by key
 * @param units stated or guessed, by field name
 * @param axis that radial and swirl components refer to
 * @param beyond what formulas see beyond the place
 */
public record EvaluationContext(
        Map<String, Quantity> quantities, Map<String, FieldUnit> units, Axis axis, Beyond beyond) {
    public static EvaluationContext of(List<Quantity> quantities, List<FieldUnit> units, Axis axis) {
        return of(quantities, units, axis, Beyond.NONE);
    }

    public static EvaluationContext of(List<Quantity> quantities, List<FieldUnit> units, Axis axis, Beyond beyond) {
        var byKey = new java.util.LinkedHashMap<String, Quantity>();
        quantities.forEach(q -> byKey.putIfAbsent(q.id(), q));
        return new EvaluationContext(
                byKey,
                units.stream().collect(Collectors.toMap(FieldUnit::field, UnaryOperator.identity(), (a, b) -> a)),
                axis,
                beyond);
    }

    /** The quantities as a graph. */
    public Definitions definitions() {
        return Graphs.of(this);
    }

    /** This lens with one quantity more. */
    public EvaluationContext with(Quantity quantity) {
        var byKey = new java.util.LinkedHashMap<>(quantities);
        byKey.put(quantity.id(), quantity);
        return new EvaluationContext(byKey, units, axis, beyond);
    }

    public EvaluationContext with(Beyond other) {
        return new EvaluationContext(quantities, units, axis, other);
    }

    /**
     * The quantity of a key: what the study defines, or else a field of that name or what is taken of one.
     *
     * @throws LaneException for a blank key
     */
    public Quantity quantity(String id) {
        Quantity q = quantities.get(id);
        if (q != null) {
            return q;
        }
        if (id.isBlank()) {
            throw new LaneException(Fault.MISSING, "No quantity is chosen here; choose a field or a definition.");
        }
        return FieldQuantity.of(id);
    }

    /** The quantity of a key as another formula may name it. */
    public String named(String id) {
        Quantity q = quantity(id);
        return quantities.containsKey(id) ? Printer.name(q.name()) : "(" + q.formula() + ")";
    }

    /** Names of stored fields that a quantity is made of. */
    public java.util.Set<String> fields(Quantity quantity) {
        return definitions().leaves(quantity);
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

    /** The graphs of the lenses last asked for, by thread: they are asked for many times in a row, and by turns. */
    private static final class Graphs {
        private record Made(Map<String, Quantity> of, Definitions graph) {}

        private static final int SO_MANY = 4;
        private static final ThreadLocal<java.util.ArrayDeque<Made>> LAST =
                ThreadLocal.withInitial(java.util.ArrayDeque::new);

        // The very map comes first: equal ones take a look at each quantity.
        @SuppressWarnings("ReferenceEquality")
        static Definitions of(EvaluationContext lens) {
            var last = LAST.get();
            Made first = last.peekFirst();
            if (first != null && first.of == lens.quantities) {
                return first.graph;
            }
            Made found = last.stream()
                    .filter(m -> m.of.equals(lens.quantities))
                    .findFirst()
                    .orElse(null);
            if (found != null) {
                last.remove(found);
            } else if (last.size() == SO_MANY) {
                last.removeLast();
            }
            Definitions graph = found != null ? found.graph : new Definitions(List.copyOf(lens.quantities.values()));
            last.addFirst(new Made(lens.quantities, graph));
            return graph;
        }
    }
}
