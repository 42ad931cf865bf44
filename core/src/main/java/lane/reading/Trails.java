package lane.reading;

import java.util.LinkedHashMap;
import java.util.Map;
import lane.field.Field;
import lane.quantity.Quantity;
import lane.trail.Trail;

/** How a number's fields and formulas are told in its trail. */
final class Trails {
    private Trails() {}

    static Trail of(Trail trail, Ready ready, Lens lens) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (Field f : ready.fields()) {
            fields.put(f.name(), f.at().word() + ", " + f.unit().label());
        }
        Map<String, String> formulas = new LinkedHashMap<>();
        for (Quantity q : lens.definitions().needs(ready.quantity())) {
            formulas.put(q.name(), q.formula() + (q.unit().isBlank() ? "" : ", in " + q.unit()));
        }
        formulas.put("axis", String.valueOf(lens.axis()));
        for (int i = 0; i < ready.notes().size(); i++) {
            formulas.put("note " + (i + 1), ready.notes().get(i));
        }
        return trail.then("source", ready.made(), fields)
                .then("quantity", ready.quantity().name(), formulas);
    }
}
