package lane.study;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import lane.evaluation.EvaluationContext;
import lane.quantity.Definitions;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.station.Sheet;
import lane.station.Station;

/**
 * What of a study a reading rests on. Quantities and units that it does not use are left out, so that editing them costs it
 * nothing.
 *
 * @param asked quantities that it names, or its stations are made by
 * @param quantities those, and what they need
 * @param beyond whether a formula of theirs looks beyond the place
 */
record Needs(
        List<Station> stations,
        List<Quantity> asked,
        List<Quantity> quantities,
        List<FieldUnit> units,
        boolean beyond) {
    static Needs of(Study study, Reading reading, EvaluationContext lens, StudyBeyond beyond) {
        List<String> ids = reading.stations();
        List<Station> stations =
                study.stations().stream().filter(s -> ids.contains(s.id())).toList();
        Set<String> keys = new HashSet<>(reading.quantities());
        stations.stream()
                .map(s -> s.shape().shapedBy())
                .filter(k -> !k.isBlank())
                .forEach(keys::add);
        Definitions graph = lens.definitions();
        List<Quantity> asked =
                keys.stream().sorted().flatMap(k -> study.quantity(k).stream()).toList();
        List<Quantity> all =
                asked.stream().flatMap(q -> graph.needs(q).stream()).distinct().toList();
        Set<String> leaves = new HashSet<>();
        asked.forEach(q -> leaves.addAll(graph.leaves(q)));
        List<FieldUnit> units =
                study.units().stream().filter(u -> leaves.contains(u.field())).toList();
        return new Needs(
                stations, asked, all, units, asked.stream().anyMatch(graph::beyond) || beyond.namesReading(leaves));
    }

    /** Files that stations are made of. */
    List<String> sheets() {
        return stations.stream()
                .map(Station::shape)
                .filter(Sheet.class::isInstance)
                .map(s -> ((Sheet) s).file())
                .toList();
    }
}
