package lane.evaluation;

import java.util.LinkedHashMap;
import java.util.Map;
import lane.field.Field;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;

/** How a number's fields and formulas are told in its trail. */
public final class QuantityTrail {
    private static final Method STORED = new Method("fields as stored", 1);
    private static final Method FORMULA = new Method("formula", 1);

    private QuantityTrail() {}

    /** Whether nobody says a field's unit, and its name alone stands for it. */
    private static boolean assumed(BoundQuantity ready, Field f, EvaluationContext lens) {
        FieldUnit said = lens.units().get(f.name());
        var stated = ready.run().stated();
        return FieldUnit.byName(f.name())
                && f.unit().equals(lane.unit.Unit.of(FieldUnit.guess(f.name())))
                && (said == null || !said.stated())
                && stated.system() == null
                && !stated.units().containsKey(f.name());
    }

    public static Provenance of(Provenance trail, BoundQuantity ready, EvaluationContext lens) {
        Provenance whole = trail.with(new Provenance(ready.inputs(), java.util.List.of()));
        if (!whole.told()) {
            return whole;
        }
        Map<String, String> fields = new LinkedHashMap<>();
        for (Field f : ready.fields()) {
            fields.put(
                    f.name(),
                    f.at().word() + ", " + f.unit().label()
                            + (assumed(ready, f, lens) ? ", as its name is usual for" : ""));
        }
        Map<String, String> formulas = new LinkedHashMap<>();
        for (Quantity q : lens.definitions().needs(ready.quantity())) {
            formulas.put(q.name(), q.formula() + (q.unit().isBlank() ? "" : ", in " + q.unit()));
        }
        Map<String, Object> stored = new LinkedHashMap<>();
        stored.put("made of", ready.made());
        stored.put("fields", fields);
        Map<String, Object> defined = new LinkedHashMap<>();
        defined.put("quantity", ready.quantity().name());
        defined.put("formulas", formulas);
        defined.put("axis", lens.axis());
        if (!ready.reached().isEmpty()) {
            defined.put("reached", ready.reached());
        }
        if (!ready.notes().isEmpty()) {
            defined.put("notes", ready.notes());
        }
        return whole.then("source", STORED, "{made of}", stored).then("quantity", FORMULA, "{quantity}", defined);
    }
}
