package lane.quantity;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.field.Treatment;
import lane.formula.FormulaException;
import lane.formula.Node;
import lane.formula.Parser;
import lane.formula.Printer;

/**
 * What stands in files is a quantity without being defined: a field, a component of it, or its magnitude. Its key is how it is
 * written in a formula: {@code pressure}, {@code velocity.x}, {@code norm(velocity)}, {@code stress.xy}.
 */
public final class FieldQuantity {
    private static final Set<String> COMPONENTS = Stream.concat(
                    Stream.of("radial", "swirl", "axial", "hoop"),
                    Stream.of(3, 6, 9).flatMap(n -> Treatment.components(n).stream()))
            .collect(Collectors.toSet());

    private FieldQuantity() {}

    /** What a key takes: a field, and of it a component, the magnitude or, where blank, all of it. */
    private record Taken(String field, String of, boolean magnitude) {
        String formula() {
            String name = Printer.name(field);
            return magnitude ? "norm(" + name + ")" : of.isEmpty() ? name : name + "." + of;
        }

        String word() {
            return field + (magnitude ? " magnitude" : of.isEmpty() ? "" : " " + of);
        }
    }

    /** The quantity of a key that nobody defined. A key that is no formula of the kind is the name of a field as it stands. */
    public static Quantity of(String key) {
        Taken taken = taken(key);
        return new Quantity(key, taken.word(), taken.formula(), "", "");
    }

    /** The name of the field that a key takes something of. */
    public static String field(String key) {
        return taken(key).field;
    }

    /**
     * A vector's component along an axis of space, as a quantity of its own.
     *
     * @param defined whether the study defines the vector; else it is a field
     * @param axis 0, 1 or 2 for x, y or z
     */
    public static Quantity component(Quantity vector, boolean defined, int axis) {
        String of = "." + "xyz".charAt(axis);
        return defined
                ? new Quantity(
                        vector.id() + " along" + of,
                        vector.name() + of,
                        Printer.name(vector.name()) + of,
                        vector.unit(),
                        "")
                : of(vector.formula() + of);
    }

    private static Taken taken(String key) {
        try {
            switch (Parser.parse(key)) {
                case Node.Name n -> {
                    return new Taken(n.name(), "", false);
                }
                case Node.Member m
                when m.of() instanceof Node.Name n && COMPONENTS.contains(m.member()) -> {
                    return new Taken(n.name(), m.member(), false);
                }
                case Node.Call c
                when c.function().equals("norm")
                        && c.arguments().size() == 1
                        && c.arguments().getFirst() instanceof Node.Name n -> {
                    return new Taken(n.name(), "", true);
                }
                default -> {}
            }
        } catch (FormulaException e) {
            // A name with spaces or signs in it, written as it stands.
        }
        int dot = key.lastIndexOf('.');
        return dot > 0 && COMPONENTS.contains(key.substring(dot + 1))
                ? new Taken(key.substring(0, dot), key.substring(dot + 1), false)
                : new Taken(key, "", false);
    }

    /**
     * All that can be taken of a field.
     *
     * @param defined keys that mean something else, which the field's own name must not be taken for
     */
    public static List<Quantity> choices(String field, int components, Set<String> defined) {
        List<Taken> out = new ArrayList<>();
        out.add(new Taken(field, "", false));
        List<String> names = Treatment.components(components);
        names.forEach(n -> out.add(new Taken(field, n, false)));
        if (!names.isEmpty()) {
            out.add(new Taken(field, "", true));
        }
        return out.stream()
                .map(t -> defined.contains(t.formula())
                        ? new Quantity(quoted(field), field + ", as stored", t.formula(), "", "")
                        : of(t.formula()))
                .toList();
    }

    private static String quoted(String name) {
        return "\"" + name.replace("\"", "\"\"") + "\"";
    }
}
