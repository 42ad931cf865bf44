package lane.formula;

import java.nio.DoubleBuffer;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.formula.Compiler.Val;
import lane.unit.Unit;

/** What the functions of the language do; {@link Functions} tells of them. */
final class Calls {
    /** Functions of a number without a unit, which give one. */
    private static final Map<String, Kernel> PLAIN = Map.ofEntries(
            Map.entry("exp", Kernels.one(Math::exp)),
            Map.entry("log", Kernels.one(Math::log)),
            Map.entry("ln", Kernels.one(Math::log)),
            Map.entry("log10", Kernels.one(Math::log10)),
            Map.entry("log2", Kernels.one(v -> Math.log(v) / Math.log(2))),
            Map.entry("sin", Kernels.one(Math::sin)),
            Map.entry("cos", Kernels.one(Math::cos)),
            Map.entry("tan", Kernels.one(Math::tan)),
            Map.entry("sinh", Kernels.one(Math::sinh)),
            Map.entry("cosh", Kernels.one(Math::cosh)),
            Map.entry("tanh", Kernels.one(Math::tanh)),
            Map.entry("erf", Kernels.one(Special::erf)),
            Map.entry("gamma", Kernels.one(Special::gamma)));
    /** Functions of a number without a unit, which give an angle. */
    private static final Map<String, Kernel> ANGLE =
            Map.of("asin", Kernels.one(Math::asin), "acos", Kernels.one(Math::acos), "atan", Kernels.one(Math::atan));
    /** Functions of a number that keep its unit, or count in the unit it is shown in. */
    private static final Map<String, Kernel> WHOLE = Map.of(
            "floor", Kernels.one(Math::floor), "ceil", Kernels.one(Math::ceil), "round", Kernels.one(Math::rint));

    private final Compiler to;
    private final Vectors vectors;

    Calls(Compiler to, Vectors vectors) {
        this.to = to;
        this.vectors = vectors;
    }

    private static FormulaException wrong(Span span, String sentence) {
        return Compiler.error(span, sentence);
    }

    Val call(Node.Call c, String frame) {
        return switch (c.function()) {
            case "table" -> table(c, frame);
            case "if" -> choice(c, frame);
            case "min", "max" -> extreme(c, frame);
            case "grad", "div", "curl" -> derivative(c, frame);
            case "jump" -> jump(c, frame);
            case "mean", "integral", "flow" ->
                throw wrong(
                        c.span(),
                        "\"" + c.function() + "\" is taken over a station: write " + c.function()
                                + "(… over station).");
            default -> plain(c, frame);
        };
    }

    private Val argument(Node.Call c, int i, String frame) {
        Node node = c.arguments().get(i);
        Val v = to.settled(to.value(node, frame), node);
        to.noTruth(v, node);
        return v;
    }

    private Val number(Node.Call c, int i, String frame) {
        Val v = argument(c, i, frame);
        if (!v.type().number()) {
            throw wrong(
                    c.arguments().get(i).span(),
                    "\"" + c.function() + "\" takes a number, not " + v.type().word()
                            + "; take a component or the norm.");
        }
        return v;
    }

    private Val shaped(Node.Call c, int i, int components, String frame) {
        Val v = argument(c, i, frame);
        if (v.type().components() != components) {
            throw wrong(
                    c.arguments().get(i).span(),
                    "\"" + c.function() + "\" takes " + Type.word(components) + ", not "
                            + v.type().word() + ".");
        }
        return v;
    }

    private static void count(Node.Call c, int n) {
        if (c.arguments().size() != n) {
            Functions.Function f = Objects.requireNonNull(Functions.of(c.function()));
            throw wrong(
                    c.span(),
                    "\"" + c.function() + "\" takes " + n + (n == 1 ? " argument" : " arguments") + ", not "
                            + c.arguments().size() + ": " + f.signature() + ".");
        }
    }

    /** A number without a unit; an unknown unit passes and makes the result's unknown. */
    private Val unitless(Node.Call c, int i, String frame) {
        Val v = number(c, i, frame);
        if (v.type().known() && !v.type().plain()) {
            throw wrong(
                    c.arguments().get(i).span(),
                    "\"" + c.function() + "\" takes a number without a unit, but this is in " + Compiler.unit(v)
                            + "; divide it by a reference such as 1 \""
                            + v.type().unit().difference().symbol() + "\".");
        }
        return v;
    }

    private static Type plainType(Val of, Unit unit) {
        return new Type(1, false, of.type().known() ? unit : Unit.UNKNOWN, 0);
    }

    private Val plain(Node.Call c, String frame) {
        String f = c.function();
        if (PLAIN.containsKey(f) || ANGLE.containsKey(f)) {
            count(c, 1);
            Val v = unitless(c, 0, frame);
            Kernel k = Objects.requireNonNull(PLAIN.getOrDefault(f, ANGLE.get(f)));
            Unit unit = ANGLE.containsKey(f) ? Unit.of("rad") : Unit.ONE;
            return new Val(plainType(v, unit), new int[] {to.step(k, f, v.at()[0])});
        }
        if (WHOLE.containsKey(f)) {
            count(c, 1);
            Val v = unitless(c, 0, frame);
            return new Val(plainType(v, Unit.ONE), new int[] {to.step(WHOLE.get(f), f, v.at()[0])});
        }
        return switch (f) {
            case "sqrt", "cbrt" -> {
                count(c, 1);
                Val v = number(c, 0, frame);
                int root = f.equals("sqrt") ? 2 : 3;
                Unit unit = !v.type().known()
                        ? Unit.UNKNOWN
                        : v.type().plain() ? Unit.ONE : to.raised(v.type().dimension(), 1.0 / root, c.span());
                Kernel k = root == 2 ? Kernels.SQRT : CBRT;
                yield new Val(new Type(1, false, unit, 0), new int[] {to.step(k, f, v.at()[0])});
            }
            case "abs" -> {
                count(c, 1);
                Val v = number(c, 0, frame);
                yield new Val(v.type(), new int[] {to.step(Kernels.ABS, f, v.at()[0])});
            }
            case "sign" -> {
                count(c, 1);
                yield new Val(
                        Type.NUMBER,
                        new int[] {to.step(SIGN, f, number(c, 0, frame).at()[0])});
            }
            case "atan2", "hypot", "mod" -> two(c, frame);
            case "component" -> component(c, frame);
            default -> ofVectors(c, frame);
        };
    }

    private static final Kernel CBRT = Kernels.one(Math::cbrt);
    private static final Kernel SIGN = Kernels.one(Math::signum);

    private Val two(Node.Call c, String frame) {
        count(c, 2);
        Val a = number(c, 0, frame);
        Val b = number(c, 1, frame);
        Node left = c.arguments().get(0);
        Node right = c.arguments().get(1);
        to.alike("taken together in " + c.function(), right.span(), left, a, right, b);
        to.sameKind(right.span(), a, b, "taken together");
        boolean known = a.type().known() && b.type().known();
        return switch (c.function()) {
            case "atan2" ->
                new Val(
                        new Type(1, false, known ? Unit.of("rad") : Unit.UNKNOWN, 0),
                        new int[] {to.step(Kernels.ATAN2, "atan2", a.at()[0], b.at()[0])});
            case "hypot" -> new Val(a.type(), new int[] {to.step(Kernels.HYPOT, "hypot", a.at()[0], b.at()[0])});
            default -> new Val(a.type(), new int[] {to.step(Kernels.MODULO, "mod", a.at()[0], b.at()[0])});
        };
    }

    private int index(Node.Call c, int i, int most, String frame) {
        Val v = number(c, i, frame);
        double k = to.program.constantIs(v.at()[0]) ? to.program.constantOf(v.at()[0]) : Double.NaN;
        if (!(k >= 1 && k <= most && k == Math.rint(k))) {
            throw wrong(
                    c.arguments().get(i).span(),
                    "The second argument of \"" + c.function() + "\" is a whole number from 1 to " + most + ".");
        }
        return (int) k;
    }

    private Val component(Node.Call c, String frame) {
        count(c, 2);
        Val v = argument(c, 0, frame);
        int k = index(c, 1, v.at().length, frame);
        return new Val(v.type().shaped(1), new int[] {v.at()[k - 1]});
    }

    private Val ofVectors(Node.Call c, String frame) {
        int[] none = {};
        switch (c.function()) {
            case "norm" -> {
                count(c, 1);
                Val v = argument(c, 0, frame);
                if (v.type().components() == 1) {
                    return new Val(v.type(), new int[] {to.step(Kernels.ABS, "abs", v.at()[0])});
                }
                return new Val(v.type().shaped(1), new int[] {vectors.norm(v.at())});
            }
            case "unit" -> {
                count(c, 1);
                Val v = shaped(c, 0, 3, frame);
                int n = vectors.norm(v.at());
                int[] at = java.util.Arrays.stream(v.at())
                        .map(i -> to.step(Kernels.DIVIDE, "/", i, n))
                        .toArray();
                return new Val(new Type(3, false, v.type().known() ? Unit.ONE : Unit.UNKNOWN, 0), at);
            }
            case "dot" -> {
                count(c, 2);
                Val a = argument(c, 0, frame);
                Val b = argument(c, 1, frame);
                Unit unit = Rules.product(a.type(), b.type());
                if (a.type().vector() && b.type().vector()) {
                    return new Val(new Type(1, false, unit, 0), new int[] {vectors.dot(a.at(), b.at())});
                }
                if (a.type().tensor() && b.type().vector()) {
                    return new Val(new Type(3, false, unit, 0), vectors.apply(a.at(), b.at()));
                }
                if (a.type().vector() && b.type().tensor()) {
                    return new Val(new Type(3, false, unit, 0), vectors.apply(vectors.transposed(b.at()), a.at()));
                }
                if (a.type().tensor() && b.type().tensor()) {
                    return new Val(new Type(9, false, unit, 0), vectors.times(a.at(), b.at(), true));
                }
                throw wrong(
                        c.span(),
                        "\"dot\" takes vectors and tensors, not " + a.type().word() + " and "
                                + b.type().word() + "; multiply numbers with *.");
            }
            case "cross", "outer" -> {
                count(c, 2);
                Val a = shaped(c, 0, 3, frame);
                Val b = shaped(c, 1, 3, frame);
                Unit unit = Rules.product(a.type(), b.type());
                return c.function().equals("cross")
                        ? new Val(new Type(3, false, unit, 0), vectors.cross(a.at(), b.at()))
                        : new Val(new Type(9, false, unit, 0), vectors.outer(a.at(), b.at()));
            }
            case "double" -> {
                count(c, 2);
                Val a = shaped(c, 0, 9, frame);
                Val b = shaped(c, 1, 9, frame);
                return new Val(
                        new Type(1, false, Rules.product(a.type(), b.type()), 0),
                        new int[] {vectors.dot(a.at(), b.at())});
            }
            case "identity" -> {
                count(c, 0);
                int one = vectors.constant(1);
                int zero = vectors.constant(0);
                return new Val(
                        new Type(9, false, Unit.ONE, 0), new int[] {one, zero, zero, zero, one, zero, zero, zero, one});
            }
            default -> none = new int[1];
        }
        return ofTensor(c, frame, none);
    }

    private Val ofTensor(Node.Call c, String frame, int[] one) {
        String f = c.function();
        boolean two = f.equals("invariant") || f.equals("principal");
        if (!List.of("transpose", "symmetric", "trace", "deviator", "det", "invariant", "principal", "equivalent")
                .contains(f)) {
            return place(c, frame);
        }
        count(c, two ? 2 : 1);
        Val t = shaped(c, 0, 9, frame);
        int k = two ? index(c, 1, 3, frame) : 0;
        int[] whole =
                switch (f) {
                    case "transpose" -> vectors.transposed(t.at());
                    case "symmetric" -> vectors.symmetric(t.at());
                    case "deviator" -> vectors.deviator(t.at());
                    default -> null;
                };
        if (whole != null) {
            return new Val(t.type(), whole);
        }
        int order = f.equals("det") ? 3 : f.equals("invariant") ? k : 1;
        Unit unit = order == 1 || !t.type().known() || t.type().plain()
                ? t.type().unit()
                : to.raised(t.type().dimension(), order, c.span());
        one[0] = switch (f) {
            case "trace" -> vectors.trace(t.at());
            case "det" -> vectors.determinant(t.at());
            case "equivalent" -> vectors.equivalent(t.at());
            case "principal" -> vectors.principal(t.at(), k - 1);
            default -> k == 1 ? vectors.trace(t.at()) : k == 2 ? vectors.second(t.at()) : vectors.determinant(t.at());
        };
        return new Val(new Type(1, false, unit, 0), one);
    }

    /** What is built in, called by its name so that a field of the same name does not stand before it. */
    private Val place(Node.Call c, String frame) {
        boolean spot = List.of("x", "y", "z", "radius", "angle", "axial", "time", "position", "pi")
                        .contains(c.function())
                || java.util.Arrays.stream(Spot.values()).anyMatch(s -> s.word().equals(c.function()));
        if (!spot) {
            throw wrong(
                    c.nameSpan(),
                    "There is no function \"" + c.function() + "\"" + near(c.function())
                            + "; to multiply put * before the bracket.");
        }
        if (!c.arguments().isEmpty()) {
            throw wrong(c.span(), "\"" + c.function() + "\" takes no argument; to multiply put * before the bracket.");
        }
        return to.builtIn(c.function(), frame, c.nameSpan());
    }

    private static String near(String name) {
        for (Functions.Function f : Functions.all()) {
            if (f.name().equalsIgnoreCase(name) || f.name().startsWith(name.toLowerCase(java.util.Locale.ROOT))) {
                return ", only \"" + f.name() + "\"";
            }
        }
        return "";
    }

    private Val choice(Node.Call c, String frame) {
        count(c, 3);
        Node[] n = c.arguments().toArray(Node[]::new);
        Val condition = to.value(n[0], frame);
        to.condition(condition, n[0]);
        Val a = to.settled(to.value(n[1], frame), n[1]);
        Val b = to.settled(to.value(n[2], frame), n[2]);
        if (a.type().truth() != b.type().truth()) {
            throw wrong(c.span(), "Both values of \"if\" are numbers or both are conditions.");
        }
        to.alike("two values of one \"if\"", n[2].span(), n[1], a, n[2], b);
        to.sameKind(n[2].span(), a, b, "two values of one \"if\"");
        int[] at = new int[a.at().length];
        for (int k = 0; k < at.length; k++) {
            at[k] = to.step(Kernels.CHOOSE, "if", condition.at()[0], a.at()[k], b.at()[k]);
        }
        return new Val(first(a, b), at);
    }

    /** The type of two that are alike: zero without a unit takes the other's. */
    private static Type first(Val a, Val b) {
        if (!a.type().known() || !b.type().known()) {
            return a.type().in(Unit.UNKNOWN, 0);
        }
        Type t = a.type().plain() && !b.type().plain() ? b.type() : a.type();
        return Rules.either(t) && !Rules.either(b.type()) ? b.type() : t;
    }

    private Val extreme(Node.Call c, String frame) {
        if (c.arguments().size() < 2) {
            throw wrong(
                    c.span(),
                    "\"" + c.function() + "\" takes at least two values, or one over a station: " + c.function()
                            + "(… over station).");
        }
        boolean least = c.function().equals("min");
        Val best = number(c, 0, frame);
        for (int i = 1; i < c.arguments().size(); i++) {
            Val v = number(c, i, frame);
            Node node = c.arguments().get(i);
            to.alike("compared", node.span(), c.arguments().getFirst(), best, node, v);
            to.sameKind(node.span(), best, v, "compared");
            int at = to.step(least ? Kernels.LEAST : Kernels.GREATEST, c.function(), best.at()[0], v.at()[0]);
            best = new Val(first(best, v), new int[] {at});
        }
        return best;
    }

    private Val table(Node.Call c, String frame) {
        int n = c.arguments().size();
        boolean names =
                n >= 2 && n <= 3 && c.arguments().subList(0, n - 1).stream().allMatch(Node.Name.class::isInstance);
        if (!names) {
            throw wrong(c.span(), "A table is read as table(\"name\", x) or table(\"name\", \"column\", x).");
        }
        String name = ((Node.Name) c.arguments().getFirst()).name();
        String column = n == 3 ? ((Node.Name) c.arguments().get(1)).name() : "";
        Val x = number(c, n - 1, frame);
        Scope.Table table;
        try {
            table = to.scope.table(name, column);
        } catch (Scope.Trouble e) {
            throw Compiler.error(c.arguments().getFirst().span(), e.getMessage(), e.fault());
        }
        Node at = c.arguments().get(n - 1);
        to.alike("looked up in the table", at.span(), at, x, c.arguments().getFirst(), new Val(table.xType(), x.at()));
        Kernel kernel = Kernels.table(table.x(), table.y());
        // Buffers are equal where their numbers are.
        Object what = List.of("table", DoubleBuffer.wrap(table.x()), DoubleBuffer.wrap(table.y()));
        return new Val(table.yType(), new int[] {to.step(kernel, what, x.at()[0])});
    }

    private Val jump(Node.Call c, String frame) {
        count(c, 1);
        Node body = c.arguments().getFirst();
        Val v = to.value(body, frame);
        to.noTruth(v, body);
        if (v.type().components() != 1) {
            throw wrong(body.span(), "\"jump\" takes a number, not " + v.type().word() + ".");
        }
        // A difference of temperatures is no temperature.
        Type apart = v.type().known() ? Rules.sum(v.type(), v.type(), -1) : v.type();
        return to.step(new Scope.Step.Jump(body, v.type(), frame), apart, c.span());
    }

    private Val derivative(Node.Call c, String frame) {
        count(c, 1);
        Node body = c.arguments().getFirst();
        // However many temperature points it holds: only differences count here.
        Val v = to.value(body, frame);
        to.noTruth(v, body);
        boolean vector = v.type().vector();
        if (!vector && (!c.function().equals("grad") || v.type().components() != 1)) {
            throw wrong(
                    body.span(),
                    "\"" + c.function() + "\" takes "
                            + (c.function().equals("grad") ? "a number or a vector" : "a vector") + ", not "
                            + v.type().word() + ".");
        }
        Type per = new Type(
                v.type().components() * 3,
                false,
                Rules.quotient(v.type().in(v.type().unit(), 0), Type.of(1, Unit.of("m"))),
                0);
        Val g = to.step(new Scope.Step.Gradient(body, v.type(), frame), per, c.span());
        if (c.function().equals("grad")) {
            return g;
        }
        if (c.function().equals("div")) {
            return new Val(per.shaped(1), new int[] {vectors.trace(g.at())});
        }
        int[] t = g.at();
        int[] curl = {
            to.step(Kernels.SUBTRACT, "-", t[7], t[5]),
            to.step(Kernels.SUBTRACT, "-", t[2], t[6]),
            to.step(Kernels.SUBTRACT, "-", t[3], t[1])
        };
        return new Val(per.shaped(3), curl);
    }
}
