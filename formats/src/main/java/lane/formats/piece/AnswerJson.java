package lane.formats.piece;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.lang.reflect.Array;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Component;
import lane.reading.Outcome;
import lane.reading.Samples;
import lane.unit.Dimension;
import org.jspecify.annotations.Nullable;

/**
 * Answers as JSON and back, to the bit: records by their components, whatever kinds of answers are added later. Which record
 * stands where an answer of any kind may, is told by the name of its class; only answers of the program and of what is plugged
 * into it are made of it.
 */
final class AnswerJson {
    private static final JsonNodeFactory F = JsonNodeFactory.instance;
    private static final String CLASS = "is";
    private static final String NUMBER = "number";

    private AnswerJson() {}

    /** @throws IllegalArgumentException for what holds anything but records, numbers, texts, lists and maps */
    static JsonNode of(Object thing, Type declared) {
        return write(thing, declared);
    }

    /** @throws IllegalArgumentException for what was not written by {@link #of} for this type */
    @SuppressWarnings("unchecked")
    static <T> T read(JsonNode node, Class<T> type) {
        try {
            Object made = read(node, (Type) type);
            if (made == null) {
                throw new IllegalArgumentException("nothing stands where " + type + " is expected");
            }
            return (T) made;
        } catch (ReflectiveOperationException e) {
            throw new IllegalArgumentException("not what was written: " + e, e);
        }
    }

    private static JsonNode write(@Nullable Object thing, Type declared) {
        return switch (thing) {
            case null -> F.nullNode();
            case String s -> F.textNode(s);
            case Boolean b -> F.booleanNode(b);
            case Integer i -> F.numberNode(i);
            case Long l -> F.numberNode(l);
            case Double d -> number(d, declared == Object.class);
            case Enum<?> e -> F.textNode(e.name());
            case Dimension d -> write(d.sixtieths(), int[].class);
            case Samples s -> write(s.now(), double[].class);
            case Record r -> record(r, declared);
            case Map<?, ?> m -> {
                ObjectNode out = F.objectNode();
                Type value = argument(declared, 1);
                m.forEach((k, v) -> out.set(k instanceof Enum<?> e ? e.name() : String.valueOf(k), write(v, value)));
                yield out;
            }
            case Iterable<?> all -> {
                ArrayNode out = F.arrayNode();
                Type one = argument(declared, 0);
                all.forEach(x -> out.add(write(x, one)));
                yield out;
            }
            default -> {
                if (!thing.getClass().isArray()) {
                    throw new IllegalArgumentException(thing.getClass() + " cannot be kept");
                }
                ArrayNode out = F.arrayNode();
                int n = Array.getLength(thing);
                for (int i = 0; i < n; i++) {
                    out.add(write(Array.get(thing, i), thing.getClass().getComponentType()));
                }
                yield out;
            }
        };
    }

    /** JSON has no NaN; where a text may stand, too, one is told from the other. */
    private static JsonNode number(double d, boolean any) {
        return Double.isFinite(d)
                ? F.numberNode(d)
                : any ? F.objectNode().put(NUMBER, String.valueOf(d)) : F.textNode(String.valueOf(d));
    }

    private static ObjectNode record(Record r, Type declared) {
        ObjectNode out = F.objectNode();
        if (raw(declared) != r.getClass()) {
            out.put(CLASS, r.getClass().getName());
        }
        List<Component> components = Component.of(r.getClass());
        RecordComponent[] types = r.getClass().getRecordComponents();
        for (int i = 0; i < types.length; i++) {
            out.set(types[i].getName(), write(components.get(i).in(r), types[i].getGenericType()));
        }
        return out;
    }

    private static Class<?> raw(Type type) {
        return type instanceof Class<?> c
                ? c
                : type instanceof ParameterizedType p ? (Class<?>) p.getRawType() : Object.class;
    }

    private static Type argument(Type type, int which) {
        return type instanceof ParameterizedType p && p.getActualTypeArguments().length > which
                ? p.getActualTypeArguments()[which]
                : Object.class;
    }

    private static @Nullable Object read(JsonNode node, Type type) throws ReflectiveOperationException {
        Class<?> raw = raw(type);
        if (node.isNull()) {
            return null;
        }
        if (raw == Object.class) {
            return any(node);
        }
        if (raw == String.class) {
            return node.textValue();
        }
        if (raw == double.class || raw == Double.class) {
            return node.isTextual() ? Double.valueOf(node.textValue()) : (Object) node.doubleValue();
        }
        if (raw == int.class || raw == Integer.class) {
            return node.intValue();
        }
        if (raw == long.class || raw == Long.class) {
            return node.longValue();
        }
        if (raw == boolean.class || raw == Boolean.class) {
            return node.booleanValue();
        }
        if (raw == Dimension.class) {
            int[] sixtieths = new int[node.size()];
            java.util.Arrays.setAll(sixtieths, i -> node.get(i).intValue());
            return Dimension.of(sixtieths);
        }
        if (raw == Samples.class && read(node, double[].class) instanceof double[] values) {
            return Samples.of(values);
        }
        if (raw.isEnum()) {
            return constant(raw, node.textValue());
        }
        if (raw.isArray()) {
            Object out = Array.newInstance(raw.getComponentType(), node.size());
            for (int i = 0; i < node.size(); i++) {
                Array.set(out, i, read(node.get(i), raw.getComponentType()));
            }
            return out;
        }
        if (List.class.isAssignableFrom(raw)) {
            List<@Nullable Object> out = new ArrayList<>(node.size());
            for (JsonNode one : node) {
                out.add(read(one, argument(type, 0)));
            }
            return out;
        }
        if (Map.class.isAssignableFrom(raw)) {
            var out = new LinkedHashMap<Object, @Nullable Object>();
            Class<?> key = raw(argument(type, 0));
            for (var e : node.properties()) {
                Object k = key.isEnum() ? constant(key, e.getKey()) : e.getKey();
                out.put(k, read(e.getValue(), argument(type, 1)));
            }
            return out;
        }
        return record(node, raw);
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    private static Object constant(Class<?> type, String name) {
        return Enum.valueOf((Class) type, name);
    }

    private static Object record(JsonNode node, Class<?> declared) throws ReflectiveOperationException {
        Class<?> type = declared;
        if (node.has(CLASS)) {
            // Nothing is loaded that is no answer: its static parts are not run before that is known.
            type = Class.forName(node.get(CLASS).textValue(), false, AnswerJson.class.getClassLoader());
        }
        if (!type.isRecord() || !declared.isAssignableFrom(type)) {
            throw new IllegalArgumentException(type + " is no " + declared.getSimpleName());
        }
        RecordComponent[] components = type.getRecordComponents();
        Object[] values = new Object[components.length];
        Class<?>[] types = new Class<?>[components.length];
        for (int i = 0; i < components.length; i++) {
            types[i] = components[i].getType();
            JsonNode value = node.get(components[i].getName());
            if (value == null) {
                throw new IllegalArgumentException("no " + components[i].getName() + " of a " + type.getSimpleName());
            }
            values[i] = read(value, components[i].getGenericType());
        }
        var made = type.getDeclaredConstructor(types);
        made.setAccessible(true);
        return made.newInstance(values);
    }

    /** Settings of a trail: texts, numbers, truth values, lists and maps. */
    private static @Nullable Object any(JsonNode node) {
        if (node.isObject()) {
            if (node.size() == 1 && node.has(NUMBER) && node.get(NUMBER).isTextual()) {
                return Double.valueOf(node.get(NUMBER).textValue());
            }
            var out = new LinkedHashMap<String, @Nullable Object>();
            node.properties().forEach(e -> out.put(e.getKey(), any(e.getValue())));
            return Collections.unmodifiableSequencedMap(out);
        }
        if (node.isArray()) {
            List<@Nullable Object> out = new ArrayList<>();
            node.forEach(x -> out.add(any(x)));
            return Collections.unmodifiableList(out);
        }
        return node.isTextual()
                ? node.textValue()
                : node.isInt()
                        ? (Object) node.intValue()
                        : node.isNumber() && node.isIntegralNumber()
                                ? (Object) node.longValue()
                                : node.isNumber()
                                        ? (Object) node.doubleValue()
                                        : node.isBoolean() ? (Object) node.booleanValue() : null;
    }

    /** An answer of any kind. */
    static JsonNode of(Outcome made) {
        return write(made, Outcome.class);
    }
}
