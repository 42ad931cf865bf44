package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.measure.Measure;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.FieldQuantity;
import lane.quantity.Quantity;

/**
 * A force, a moment, or a mean or integral of a vector, in one reading: its components in space, its magnitude and its direction.
 *
 * @param stations keys of the stations, taken together
 * @param measure one that has components; a direction in it plays no part
 * @param number which of them formulas and checks take
 */
public record VectorOf(List<String> stations, Measure measure, Which number) implements Ask {
    private static final Method COMPONENTS = new Method("components along x, y and z, each by itself", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "vector";
        }

        @Override
        public Class<VectorOf> type() {
            return VectorOf.class;
        }
    }

    /** One of the numbers of a vector. */
    public enum Which {
        MAGNITUDE,
        X,
        Y,
        Z;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public VectorOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        number = number == null ? Which.MAGNITUDE : number;
        if (measure != null && !measure.directed()) {
            throw new LaneException("A " + measure.word()
                    + " has no components; take a force, a moment, or a mean or integral of a vector.");
        }
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return measure.quantities();
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (Which n : Which.values()) {
            out.add(name + " " + n.word());
        }
        return out;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        EvaluationContext lens = on.lens();
        List<Tally> parts = new ArrayList<>();
        for (int d = 0; d < 3; d++) {
            EvaluationContext[] seen = {lens};
            int axis = d;
            Measure part = measure.component(d, key -> {
                Quantity q = FieldQuantity.component(
                        lens.quantity(key), lens.quantities().containsKey(key), axis);
                seen[0] = seen[0].with(q);
                return q.id();
            });
            Outcome one = new TallyOf(stations, part).read(reading, on.through(seen[0]));
            if (!(one instanceof Tally t)) {
                return one;
            }
            parts.add(t);
        }
        Provenance trail = parts.get(0)
                .trail()
                .with(parts.get(1).trail())
                .with(parts.get(2).trail())
                .then(
                        "reading",
                        COMPONENTS,
                        "components of {word}, {number}",
                        java.util.Map.of("word", measure.word(), "measure", measure, "number", number.word()));
        return new Vector(parts, number, trail);
    }
}
