package lane.evaluation;

import java.util.LinkedHashMap;
import java.util.Map;
import lane.field.Field;
import lane.provenance.Provenance;
import lane.quantity.Quantity;

/** How a number's fields and formulas are told in its trail. */
public final class QuantityTrail {
    private QuantityTrail() {}

    public static Provenance of(Provenance trail, BoundQuantity ready, EvaluationContext lens) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (Field f : ready.fields()) {
            fields.put(f.name(), f.at().word() + ", " + f.unit().label());
        }
        Map<String, Object> formulas = new LinkedHashMap<>();
        for (Quantity q : lens.definitions().needs(ready.quantity())) {
            formulas.put(q.name(), q.formula() + (q.unit().isBlank() ? "" : ", in " + q.unit()));
        }
        formulas.put("axis", lens.axis());
        for (int i = 0; i < ready.notes().size(); i++) {
            formulas.put("note " + (i + 1), ready.notes().get(i));
        }
        return trail.with(new Provenance(ready.inputs(), java.util.List.of()))
                .then("source", ready.made(), fields)
                .then("quantity", ready.quantity().name(), formulas);
    }
}
