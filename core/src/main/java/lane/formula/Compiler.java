package lane.formula;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Near;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Dimension;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a formula means in a scope: its units and shapes are checked, and the steps of its program are made, in one walk,
 * so that what is checked is what is computed. Values are in SI units inside.
 *
 * <p>Temperatures: a formula counts the temperature points in it. A difference has none, a sum of two has two, and a half
 * of that one again; a result must have one or none. In products, powers and functions the absolute temperature counts.
 */
public final class Compiler {
    /** A value while it is compiled: its components among the program's values. */
    record Val(Type type, int[] at) {}

    /**
     * A formula ready to be computed.
     *
     * @param notes what should be known about its units, in sentences
     */
    public record Compiled(Type type, Program program, List<String> notes) {}

    private static final Dimension METRE = Unit.of("m").dimension();
    private static final Dimension SECOND = Unit.of("s").dimension();

    final Program.Builder program = new Program.Builder();
    Scope scope;
    private final Set<String> notes = new LinkedHashSet<>();
    private Deque<String> inside = new ArrayDeque<>();
    private Map<String, Val> defined = new HashMap<>();
    private final Vectors vectors = new Vectors(this);
    private final Operators operators = new Operators(this);
    private final Calls calls = new Calls(this, vectors);
    /** Where a sum came to hold more or fewer temperature points than a temperature. */
    private @Nullable Span odd;

    private Compiler(Scope scope) {
        this.scope = scope;
    }

    /** @throws FormulaException with the wrong token */
    public static Compiled compile(Node node, Scope scope) {
        return compile(node, scope, "", "");
    }

    /**
     * The same of a definition.
     *
     * @param self its name, which within it means a field of that name; blank for none
     * @param frame that it stands in; blank for none
     */
    public static Compiled compile(Node node, Scope scope, String self, String frame) {
        return compile(node, scope, self, frame, true);
    }

    /** @param result whether it is a result, that is a temperature or a difference, or a piece that may be anything */
    public static Compiled compile(Node node, Scope scope, String self, String frame, boolean result) {
        var compiler = new Compiler(scope);
        if (!self.isEmpty()) {
            compiler.inside.push(self);
        }
        Val v = compiler.value(node, frame);
        if (result) {
            compiler.settled(v, node);
        }
        Type type = Rules.either(v.type()) ? v.type().in(v.type().unit(), 1) : v.type();
        return new Compiled(type, compiler.program.build(v.at()), List.copyOf(compiler.notes));
    }

    /** @throws FormulaException with the wrong token; a text that cannot be parsed too */
    public static Compiled compile(String text, Scope scope) {
        return compile(Parser.parse(text), scope);
    }

    static FormulaException error(Span span, String sentence) {
        return error(span, sentence, Fault.FORMULA);
    }

    static FormulaException error(Span span, String sentence, Fault fault) {
        return new FormulaException(span, sentence, false, fault);
    }

    void note(String sentence) {
        notes.add(sentence);
    }

    /** A value whose temperature points must be those of a temperature or of a difference. */
    Val settled(Val v, Node node) {
        double p = v.type().points();
        if (v.type().temperature() && !Double.isNaN(p) && Math.abs(p) > 1e-9 && Math.abs(p - 1) > 1e-9) {
            throw error(
                    odd == null ? node.span() : odd,
                    "Temperatures are added or scaled here so that the result is neither a temperature nor a difference;"
                            + " subtract one from the other, or divide their sum by how many there are.");
        }
        return v;
    }

    Val value(Node node, String frame) {
        return switch (node) {
            case Node.Num n -> number(n);
            case Node.Name n -> name(n, frame);
            case Node.Member m ->
                vectors.member(settled(value(m.of(), frame), m.of()), m, axis(frame, m), !frame.isEmpty());
            case Node.Unary u -> operators.unary(u, frame);
            case Node.Binary b -> operators.binary(b, frame);
            case Node.Call c -> calls.call(c, frame);
            case Node.Reduction r -> reduction(r, frame);
            case Node.Vector v -> vector(v, frame);
            case Node.OfLane o -> ofLane(o, frame);
            case Node.AtTime a -> {
                Val body = settled(value(a.body(), frame), a.body());
                Val time = value(a.time(), frame);
                boolean seconds = !time.type().known()
                        || time.type().plain()
                        || time.type().dimension().equals(SECOND);
                if (!time.type().number() || !seconds || !program.constantIs(time.at()[0])) {
                    throw error(
                            a.time().span(),
                            "A time stands behind \"at\": a number, in seconds or with a unit of time.");
                }
                Scope then = then(program.constantOf(time.at()[0]), a.span());
                if (then != null) {
                    yield inPlace(a.body(), then, frame);
                }
                yield step(
                        new Scope.Step.AtTime(a.body(), body.type(), frame, program.constantOf(time.at()[0])),
                        body.type(),
                        a.span());
            }
            case Node.InFrame f -> {
                if (scope.frame(f.frame()) == null || f.frame().isEmpty()) {
                    throw error(f.frameSpan(), "There is no frame \"" + f.frame() + "\"; add it at Stations.");
                }
                boolean seen = f.body() instanceof Node.Call c && c.function().equals(SEEN);
                Val v = value(seen ? ((Node.Call) f.body()).arguments().getFirst() : f.body(), f.frame());
                // Numbers in brackets are the frame's components already: they make a vector of space.
                yield seen || f.body() instanceof Node.Vector ? v : vectors.turned(v, axis(f.frame(), f));
            }
        };
    }

    private @Nullable Scope then(double time, Span span) {
        try {
            Scope found = scope.at(time);
            return found != null && found.anywhere() ? found : null;
        } catch (Scope.Trouble e) {
            throw error(span, e.getMessage(), e.fault());
        }
    }

    /**
     * Around a body in a frame that is handed over to be computed elsewhere: names in it are seen from the frame, but what comes
     * back stands in space, as all that is computed does.
     */
    public static final String SEEN = "seen_from_frame";

    /** A theory's numbers are computed in place, as those of a run on the same mesh are; those of another come from its own. */
    private Val ofLane(Node.OfLane o, String frame) {
        Scope here = scope;
        Scope lane = here.lane(o.lane());
        if (lane == null) {
            Val body = settled(value(o.body(), frame), o.body());
            return step(new Scope.Step.OfLane(o.body(), body.type(), frame, o.lane()), body.type(), o.laneSpan());
        }
        if (!lane.anywhere()) {
            Type type = compile(o.body(), lane, "", frame, true).type();
            return step(new Scope.Step.OfLane(o.body(), type, frame, o.lane()), type, o.laneSpan());
        }
        return inPlace(o.body(), lane, frame);
    }

    /** A formula in another scope whose names have values where this one is computed. */
    private Val inPlace(Node body, Scope lane, String frame) {
        Scope here = scope;
        Deque<String> outer = inside;
        Map<String, Val> known = defined;
        scope = lane;
        inside = new ArrayDeque<>();
        defined = new HashMap<>();
        try {
            return settled(value(body, frame), body);
        } finally {
            scope = here;
            inside = outer;
            defined = known;
        }
    }

    Val step(Scope.Step step, Type type, Span span) {
        try {
            Val made = stored(scope.step(step), "");
            return new Val(type, made.at());
        } catch (Scope.Trouble e) {
            throw error(span, e.getMessage(), e.fault());
        }
    }

    Axis axis(String frame, Node node) {
        Axis axis = scope.frame(frame);
        if (axis == null) {
            throw error(node.span(), "There is no frame \"" + frame + "\"; add it at Stations.");
        }
        return axis;
    }

    private Val number(Node.Num n) {
        if (n.unit().isEmpty()) {
            return new Val(Type.NUMBER, new int[] {program.constant(n.value())});
        }
        Unit unit;
        try {
            unit = Unit.of(n.unit());
        } catch (LaneException e) {
            throw error(
                    n.unitSpan(),
                    "\"" + n.unit() + "\" is no unit; write one like kg/(m3 s) in the quotes, or * before a name.");
        }
        Type type = Type.of(1, unit);
        if (type.temperature() && unit.offset() == 0 && type.points() == 1) {
            type = type.in(unit, Rules.EITHER);
        }
        return new Val(type, new int[] {program.constant(unit.toSi(n.value()))});
    }

    private Val name(Node.Name n, String frame) {
        Meaning meaning;
        try {
            meaning = scope.meaning(n.name());
        } catch (Scope.Trouble e) {
            throw error(n.span(), e.getMessage(), e.fault());
        }
        // Within its own definition a name means the field that it was made from.
        if (meaning instanceof Meaning.Defined d && d.name().equals(inside.peek())) {
            meaning = scope.stored(n.name());
            if (meaning == null && !builtIn(n.name())) {
                throw error(n.span(), scope.lacks(n.name()), Fault.MISSING_FIELD);
            }
        }
        return switch (meaning) {
            case null -> builtIn(n.name(), frame, n.span());
            case Meaning.Defined d -> definition(d, n);
            case Meaning.Stored s -> stored(s, n.name());
            case Meaning.Known k ->
                new Val(
                        k.type(),
                        Arrays.stream(k.values()).mapToInt(program::constant).toArray());
        };
    }

    /** Whether a name is that of something built in. */
    public static boolean builtIn(String name) {
        return List.of("x", "y", "z", "radius", "angle", "axial", "time", "position", "pi")
                        .contains(name)
                || Arrays.stream(Spot.values()).anyMatch(s -> s.word().equals(name));
    }

    /** What every place has; null for nothing of this name. */
    Val builtIn(String name, String frame, Span span) {
        Axis axis = Objects.requireNonNull(scope.frame(frame));
        switch (name) {
            case "x", "y", "z" -> {
                Val p = vectors.place(axis, !frame.isEmpty());
                int d = "xyz".indexOf(name);
                int at = frame.isEmpty()
                        ? p.at()[d]
                        : vectors.along(
                                p.at(),
                                List.of(axis.zero(), axis.quarter(), axis.direction())
                                        .get(d));
                return new Val(p.type().shaped(1), new int[] {at});
            }
            case "position" -> {
                return vectors.place(axis, !frame.isEmpty());
            }
            case "radius", "angle", "axial" -> {
                return vectors.cylindrical(name, axis);
            }
            case "pi" -> {
                return new Val(Type.NUMBER, new int[] {program.constant(Math.PI)});
            }
            case "time" -> {
                double t = scope.time();
                if (Double.isNaN(t)) {
                    throw error(span, "The run has no time here; state a time at the lanes.");
                }
                return new Val(Type.of(1, Unit.of("s")), new int[] {program.constant(t)});
            }
            default -> {
                for (Spot s : Spot.values()) {
                    if (s.word().equals(name)) {
                        return stored(s.stored(), name);
                    }
                }
            }
        }
        String near = near(name);
        throw error(
                span,
                "There is no quantity, field or reading \"" + name + "\"; "
                        + (near.isEmpty()
                                ? "choose another name, or add it at Quantities."
                                : "is \"" + near + "\" meant?"));
    }

    private String near(String name) {
        return Near.of(name, scope.names()).orElse("");
    }

    private Val definition(Meaning.Defined d, Node.Name n) {
        if (inside.contains(d.name())) {
            List<String> loop = new ArrayList<>(inside);
            java.util.Collections.reverse(loop);
            loop = loop.subList(loop.indexOf(d.name()), loop.size());
            throw error(
                    n.span(),
                    "\"" + d.name() + "\" is defined by itself: " + String.join(" > ", loop) + " > " + d.name()
                            + "; break the loop.",
                    Fault.LOOP);
        }
        Val have = defined.get(d.name());
        if (have != null) {
            return have;
        }
        if (inside.size() > 50) {
            throw error(n.span(), "More than 50 quantities refer to one another; define some of them together.");
        }
        inside.push(d.name());
        try {
            Val v = settled(value(d.body(), ""), d.body());
            Val shown = stated(v, d.stated());
            if (shown == null) {
                throw error(
                        n.span(),
                        "\"" + d.name() + "\" is in " + v.type().unit().label() + " and cannot be shown in "
                                + d.stated().symbol() + "; correct its unit.");
            }
            defined.put(d.name(), shown);
            return shown;
        } catch (FormulaException e) {
            throw e.fault() == Fault.LOOP ? error(n.span(), e.getMessage(), Fault.LOOP) : e.within(d.name(), n.span());
        } finally {
            inside.pop();
        }
    }

    /** A value in the unit that was given to it; null if it cannot be. */
    private @Nullable Val stated(Val v, Unit unit) {
        if (!unit.known()) {
            return v;
        }
        if (!v.type().known()) {
            int[] at = Arrays.stream(v.at())
                    .map(i -> affine(i, unit, v.at().length == 1))
                    .toArray();
            Type type = Type.of(v.type().components(), unit);
            return new Val(new Type(type.components(), v.type().truth(), unit, type.points()), at);
        }
        if (!v.type().unit().comparable(unit)) {
            return null;
        }
        return new Val(
                v.type()
                        .in(
                                v.type().points() == 0 ? unit.difference() : unit,
                                v.type().points()),
                v.at());
    }

    private int affine(int at, Unit unit, boolean whole) {
        int scaled = unit.factor() == 1 ? at : step(Kernels.MULTIPLY, "*", at, program.constant(unit.factor()));
        return unit.offset() == 0 || !whole ? scaled : step(Kernels.ADD, "+", scaled, program.constant(unit.offset()));
    }

    Val stored(Meaning.Stored s, String name) {
        int[] source =
                switch (s.components()) {
                    case 2 -> new int[] {0, 1, -1};
                    case 6 -> new int[] {0, 3, 5, 3, 1, 4, 5, 4, 2};
                    default ->
                        java.util.stream.IntStream.range(0, s.components()).toArray();
                };
        int[] at = new int[source.length];
        for (int c = 0; c < at.length; c++) {
            at[c] = source[c] < 0
                    ? program.constant(0)
                    : affine(program.leaf(s.key(), source[c]), s.unit(), s.components() == 1);
        }
        if (!s.unit().known() && !name.isEmpty()) {
            note("The unit of \"" + name + "\" is not known: its numbers are taken as they stand, and the result has no"
                    + " unit.");
        }
        return new Val(Type.of(at.length, s.unit()), at);
    }

    int step(Kernel kernel, Object what, int... in) {
        return program.step(what, kernel, in);
    }

    /** A sum came to hold more or fewer temperature points than a temperature. */
    void odd(Span span) {
        odd = span;
    }

    void condition(Val v, Node node) {
        if (!v.type().truth()) {
            throw error(
                    node.span(),
                    "A condition is needed here, not " + v.type().word() + "; write a comparison such as a > b.");
        }
    }

    void noTruth(Val v, Node node) {
        if (v.type().truth()) {
            throw error(node.span(), "A condition is no number; choose between two values with if(condition, a, b).");
        }
    }

    /** Whether a value is the number 0 without a unit, which is zero of anything but a temperature. */
    boolean zero(Val v) {
        return v.type().number()
                && v.type().equals(Type.NUMBER)
                && program.constantIs(v.at()[0])
                && program.constantOf(v.at()[0]) == 0;
    }

    /** Whether a value is a point on a scale of temperatures; what may as well be a difference is none. */
    private static boolean point(Val v) {
        return v.type().temperature() && !Rules.either(v.type()) && v.type().points() != 0;
    }

    /** An operand as it stands in the formula; one that is long by its beginning. */
    static String named(Node node) {
        String text = Printer.text(node);
        return "\"" + (text.length() > 48 ? text.substring(0, 47) + "…" : text).replaceAll("^\"|\"$", "") + "\"";
    }

    /** Both in one unit, or zero, or a unit is unknown, which is noted. */
    void alike(String doing, Span at, Node leftNode, Val left, Node rightNode, Val right) {
        if (left.type().components() != right.type().components()) {
            throw error(
                    at,
                    left.type().word().substring(0, 1).toUpperCase(java.util.Locale.ROOT)
                            + left.type().word().substring(1) + " and "
                            + right.type().word() + " cannot be " + doing
                            + "; take components or a magnitude.");
        }
        // Zero is zero of anything but a temperature, where nobody says of which scale.
        if (zero(left) && !point(right) || zero(right) && !point(left)) {
            return;
        }
        if (!left.type().known() || !right.type().known()) {
            if (left.type().known() != right.type().known()) {
                note("A value without a known unit is " + doing + " with one in "
                        + (left.type().known() ? left : right).type().unit().label() + " as it stands.");
            }
            return;
        }
        if (!left.type().dimension().equals(right.type().dimension())) {
            throw error(
                    at,
                    named(leftNode) + " is in " + unit(left) + " and " + named(rightNode) + " in " + unit(right)
                            + ", which cannot be " + doing + "; " + Rules.mend(left.type(), right.type()) + ".");
        }
        if (left.type().unit().cycles() && right.type().unit().angular()
                || left.type().unit().angular() && right.type().unit().cycles()) {
            throw error(
                    at,
                    "Cycles ("
                            + (left.type().unit().cycles() ? left : right)
                                    .type()
                                    .unit()
                                    .symbol()
                            + ") and angles per time ("
                            + (left.type().unit().cycles() ? right : left)
                                    .type()
                                    .unit()
                                    .symbol() + ") cannot be " + doing
                            + "; multiply the cycles by 2 * pi.");
        }
    }

    static String unit(Val v) {
        return v.type().plain() ? "no unit" : v.type().unit().symbol();
    }

    /** The unit of a power with a rational exponent. */
    Unit raised(Dimension d, double e, Span span) {
        for (int q = 1; q <= 60; q++) {
            double p = e * q;
            if (Math.abs(p - Math.rint(p)) < 1e-12 * Math.max(1, Math.abs(p)) && Math.abs(p) <= 1000) {
                try {
                    return Rules.si(d.power((int) Math.rint(p), q));
                } catch (ArithmeticException x) {
                    break;
                }
            }
        }
        throw error(span, "A unit cannot be raised to the power " + e + "; use a whole number or a simple fraction.");
    }

    void sameKind(Span at, Val left, Val right, String doing) {
        if (left.type().known() && right.type().known() && !Rules.alike(left.type(), right.type())) {
            throw error(
                    at,
                    "A temperature and a difference of temperatures cannot be " + doing
                            + "; write a difference as 5 \"delta degC\" and a temperature as 5 \"degC\".");
        }
    }

    /** Components along the frame's own directions. */
    private Val vector(Node.Vector v, String frame) {
        Val[] parts = new Val[3];
        for (int c = 0; c < 3; c++) {
            parts[c] = settled(value(v.parts().get(c), frame), v.parts().get(c));
            noTruth(parts[c], v.parts().get(c));
            if (parts[c].type().components() != 1) {
                throw error(
                        v.parts().get(c).span(),
                        "A component is a number, not " + parts[c].type().word() + ".");
            }
            int first = zero(parts[0]) ? 1 : 0;
            if (c > 0) {
                alike(
                        "in one vector",
                        v.parts().get(c).span(),
                        v.parts().get(Math.min(first, c - 1)),
                        parts[Math.min(first, c - 1)],
                        v.parts().get(c),
                        parts[c]);
            }
        }
        Val lead = Arrays.stream(parts).filter(p -> !zero(p)).findFirst().orElse(parts[0]);
        int[] at = {parts[0].at()[0], parts[1].at()[0], parts[2].at()[0]};
        if (!frame.isEmpty()) {
            at = vectors.fromFrame(at, axis(frame, v));
        }
        return new Val(new Type(3, false, lead.type().unit(), 0), at);
    }

    private Val reduction(Node.Reduction r, String frame) {
        Val body = settled(value(r.body(), frame), r.body());
        noTruth(body, r.body());
        int extent = -1;
        for (Node.Place place : r.over()) {
            int e = scope.extent(place.name());
            if (e < 0) {
                throw error(place.span(), "There is no station \"" + place.name() + "\"; add it at Stations.");
            }
            if (extent >= 0 && e != extent) {
                throw error(
                        place.span(),
                        "Curves, surfaces and regions cannot be taken together; \"" + place.name()
                                + "\" is of another kind.");
            }
            extent = e;
        }
        boolean extreme = r.kind().equals("min") || r.kind().equals("max");
        if (extreme && body.type().components() > 1) {
            throw error(
                    r.body().span(),
                    "The " + r.kind() + " is taken of numbers, not of "
                            + body.type().word() + "; take a component or the norm.");
        }
        if (r.kind().equals("flow") && (!body.type().vector() || extent != 2)) {
            throw error(
                    extent != 2 ? r.over().getFirst().span() : r.body().span(),
                    "A flow is that of a vector through a surface, not of "
                            + body.type().word() + (extent != 2 ? " over a station that is none." : "."));
        }
        Unit weight = Unit.ONE;
        if (r.weight() != null) {
            Val w = value(r.weight(), frame);
            if (!w.type().number()) {
                throw error(
                        r.weight().span(),
                        "A weight is a number, not " + w.type().word() + ".");
            }
            if (extreme) {
                throw error(r.weight().span(), "The least and the greatest value have no weight; leave it out.");
            }
            weight = w.type().unit();
        }
        Type type;
        if (extreme || r.kind().equals("mean")) {
            type = body.type();
        } else {
            Unit measure = extent == 0 ? Unit.ONE : Rules.si(METRE.power(extent, 1));
            Type whole = body.type().in(Rules.product(body.type(), Type.of(1, weight)), 0);
            type = new Type(
                    r.kind().equals("flow") ? 1 : body.type().components(),
                    false,
                    Rules.product(whole, Type.of(1, measure)),
                    0);
        }
        try {
            double[] values = scope.reduce(r, body.type(), frame);
            return new Val(
                    type, Arrays.stream(values).mapToInt(program::constant).toArray());
        } catch (Scope.Trouble e) {
            throw error(r.span(), e.getMessage(), e.fault());
        }
    }

    /** A point as three constants. */
    int[] constants(Point p) {
        return new int[] {program.constant(p.x()), program.constant(p.y()), program.constant(p.z())};
    }
}
