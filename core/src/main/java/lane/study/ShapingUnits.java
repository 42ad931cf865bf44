package lane.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lane.evaluation.BoundQuantity;
import lane.formula.Type;
import lane.quantity.Quantity;
import lane.station.Station;
import lane.unit.Unit;

/**
 * The unit of numbers that shape stations, such as the value of an isosurface: that of the quantity, or where it states none, that
 * of each run's own fields.
 */
public final class ShapingUnits {
    private ShapingUnits() {}

    /** By source key in lane order; nothing for lanes that do not know the quantity or its unit. */
    public static Map<String, Unit> of(Results results, String quantity) {
        var out = new LinkedHashMap<String, Unit>();
        Quantity q = results.study().quantity(quantity).orElse(null);
        if (q != null) {
            results.runs().forEach((lane, run) -> BoundQuantity.type(run, q, results.lens())
                    .map(Type::unit)
                    .filter(Unit::known)
                    .ifPresent(u -> out.put(lane, u)));
        }
        return out;
    }

    /** The one that all lanes take a number in; unknown where they do not agree, or nobody knows. */
    public static Unit common(Results results, String quantity) {
        List<Unit> all = of(results, quantity).values().stream().distinct().toList();
        return all.size() == 1 ? all.getFirst() : Unit.UNKNOWN;
    }

    /** What is wrong where the same number means another thing from lane to lane; empty where it does not. */
    public static Optional<String> doubt(Results results, String quantity) {
        Map<Unit, List<String>> lanes = new LinkedHashMap<>();
        of(results, quantity).forEach((lane, unit) -> lanes.computeIfAbsent(unit, u -> new ArrayList<>())
                .add(results.study().source(lane).map(Source::name).orElse(lane)));
        if (lanes.size() < 2) {
            return Optional.empty();
        }
        String each = lanes.entrySet().stream()
                .map(e -> e.getKey().label() + " for " + some(e.getValue()))
                .collect(Collectors.joining(" and in "));
        return Optional.of("The same number is taken in " + each + ": the quantity \""
                + results.study().quantity(quantity).map(Quantity::name).orElse(quantity)
                + "\" has no unit of its own; give it one at Quantities.");
    }

    private static String some(List<String> names) {
        return String.join(", ", names.subList(0, Math.min(3, names.size())))
                + (names.size() > 3 ? " and " + (names.size() - 3) + " more" : "");
    }

    /** Such sentences of all stations of the study, each with its station. */
    public static List<String> doubts(Results results) {
        List<String> out = new ArrayList<>();
        for (Station s : results.study().stations()) {
            String by = s.shape().shapedBy();
            if (!by.isBlank()) {
                doubt(results, by).ifPresent(d -> out.add("station \"" + s.name() + "\": " + d));
            }
        }
        return out;
    }
}
