package lane.provenance;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SequencedMap;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import lane.base.Component;
import lane.base.Plain;
import org.jspecify.annotations.Nullable;

/**
 * Definitions as plain data, as JSON has them: texts, numbers, truth values, lists and maps. A record becomes a map of its
 * components with its kind first, so whatever a definition holds stands in the trail, also of kinds that are added later.
 * The order is that of the record, of a list, or of the alphabet: the same in every run.
 */
public final class Data {
    private static final Set<String> PLACE = Set.of("kind", "x", "y", "z");

    private Data() {}

    /** A definition as data. What is no record, list, map, number, text or truth value stands as its text. */
    public static @Nullable Object of(@Nullable Object thing) {
        return switch (thing) {
            case null -> null;
            case String s -> s;
            case Number n -> n;
            case Boolean b -> b;
            case Enum<?> e -> e.name().toLowerCase(Locale.ROOT).replace('_', ' ');
            case Map<?, ?> m -> map(m);
            case Iterable<?> i -> {
                List<Object> out = new ArrayList<>();
                i.forEach(x -> out.add(of(x)));
                yield Collections.unmodifiableList(out);
            }
            case Record r -> record(r);
            default -> String.valueOf(thing);
        };
    }

    /** A map of settings in a stable order: its own, or that of the alphabet where it has none. */
    static Map<String, Object> map(Map<?, ?> settings) {
        SequencedMap<String, Object> out = settings instanceof SequencedMap ? new LinkedHashMap<>() : new TreeMap<>();
        settings.forEach((k, v) -> out.put(String.valueOf(k), of(v)));
        return Collections.unmodifiableSequencedMap(out);
    }

    private static Object record(Record r) {
        SequencedMap<String, Object> out = new LinkedHashMap<>();
        out.put("kind", KIND.get(r.getClass()));
        Component.of(r.getClass()).forEach(c -> out.put(c.name(), of(c.in(r))));
        return Collections.unmodifiableSequencedMap(out);
    }

    /** {@code CutCurve} is a cut curve. */
    private static final ClassValue<String> KIND = new ClassValue<>() {
        @Override
        protected String computeValue(Class<?> type) {
            return Plain.words(type);
        }
    };

    /** Data in one line, for people. */
    public static String text(@Nullable Object data) {
        return switch (data) {
            case null -> "none";
            case Map<?, ?> m
            when PLACE.equals(m.keySet()) ->
                "(" + text(m.get("x")) + ", " + text(m.get("y")) + ", " + text(m.get("z")) + ")";
            case Map<?, ?> m -> {
                String rest = m.entrySet().stream()
                        .filter(e -> !e.getKey().equals("kind"))
                        .map(e -> e.getKey() + " " + text(e.getValue()))
                        .collect(Collectors.joining(", "));
                String kind = m.containsKey("kind") ? text(m.get("kind")) : "";
                yield rest.isEmpty() ? kind : (kind + " (" + rest + ")").strip();
            }
            case List<?> l -> l.stream().map(Data::text).collect(Collectors.joining("; "));
            case Double d when d == Math.rint(d) && Math.abs(d) < 1e15 -> String.valueOf(d.longValue());
            default -> String.valueOf(data);
        };
    }
}
