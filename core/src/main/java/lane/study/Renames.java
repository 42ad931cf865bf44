package lane.study;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import lane.formula.FormulaException;
import lane.formula.Uses;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.station.Frame;
import lane.station.Station;

/** Formulas follow when a station, a lane, a frame or a reading is renamed. */
public final class Renames {
    private Renames() {}

    /** The study after an edit, with new names in its formulas; the study itself where nothing was renamed. */
    public static Study follow(Study before, Study after) {
        Map<Uses.Kind, Map<String, String>> renamed = new LinkedHashMap<>();
        renamed.put(Uses.Kind.STATION, changed(before.stations(), after.stations(), Station::id, Station::name));
        renamed.put(Uses.Kind.LANE, changed(before.sources(), after.sources(), Source::id, Source::name));
        renamed.put(Uses.Kind.FRAME, changed(before.frames(), after.frames(), Frame::id, Frame::name));
        renamed.put(Uses.Kind.VALUE, values(before.readings(), after.readings()));
        if (renamed.values().stream().allMatch(Map::isEmpty)) {
            return after;
        }
        return after.withQuantities(
                list -> list.stream().map(q -> by(q, renamed)).toList());
    }

    private static Quantity by(Quantity q, Map<Uses.Kind, Map<String, String>> renamed) {
        String[] text = {q.formula()};
        try {
            renamed.forEach(
                    (kind, names) -> names.forEach((from, to) -> text[0] = Uses.renamed(text[0], kind, from, to)));
        } catch (FormulaException e) {
            // What cannot be read is left as it is typed.
            return q;
        }
        return text[0].equals(q.formula()) ? q : q.by(text[0]);
    }

    /** Old names to new ones; a name that something else goes on to have still means that. */
    private static <T> Map<String, String> changed(
            List<T> before, List<T> after, Function<T, String> id, Function<T, String> name) {
        Map<String, String> out = new LinkedHashMap<>();
        if (before.equals(after)) {
            return out;
        }
        Map<String, String> now = new LinkedHashMap<>();
        after.forEach(t -> now.put(id.apply(t), name.apply(t)));
        for (T t : before) {
            String to = now.get(id.apply(t));
            if (to != null && !to.equals(name.apply(t)) && !now.containsValue(name.apply(t))) {
                out.put(name.apply(t), to);
            }
        }
        return out;
    }

    /** Names that readings give to numbers: their own and, of balances, those of terms. */
    private static Map<String, String> values(List<Reading> before, List<Reading> after) {
        Map<String, String> out = changed(before, after, Reading::id, Reading::name);
        if (before.equals(after)) {
            return out;
        }
        Set<String> still = new HashSet<>();
        after.forEach(r -> still.addAll(r.numbers()));
        for (Reading was : before) {
            Reading is = after.stream()
                    .filter(r -> r.id().equals(was.id()))
                    .findFirst()
                    .orElse(was);
            List<String> from = was.numbers();
            List<String> to = is.numbers();
            for (int i = 0; i < from.size() && from.size() == to.size(); i++) {
                if (!from.get(i).equals(to.get(i)) && !still.contains(from.get(i))) {
                    out.put(from.get(i), to.get(i));
                }
            }
        }
        return out;
    }
}
