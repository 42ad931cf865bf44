package lane.reference;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleBinaryOperator;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;
import lane.base.LaneException;

/**
 * A formula of coordinates and named constants in SI units: numbers, {@code + - * / ^}, parentheses and the elementary
 * functions. Names are looked up when it is computed.
 */
public final class Formula {
    private static final Map<String, DoubleUnaryOperator> ONE = Map.ofEntries(
            Map.entry("sqrt", Math::sqrt),
            Map.entry("ln", Math::log),
            Map.entry("exp", Math::exp),
            Map.entry("log10", Math::log10),
            Map.entry("sin", Math::sin),
            Map.entry("cos", Math::cos),
            Map.entry("tan", Math::tan),
            Map.entry("asin", Math::asin),
            Map.entry("acos", Math::acos),
            Map.entry("atan", Math::atan),
            Map.entry("sinh", Math::sinh),
            Map.entry("cosh", Math::cosh),
            Map.entry("tanh", Math::tanh),
            Map.entry("abs", Math::abs));
    private static final Map<String, DoubleBinaryOperator> TWO =
            Map.of("min", Math::min, "max", Math::max, "atan2", Math::atan2);
    private static final int DEEPEST = 100;

    private final String text;
    private final Set<String> names = new LinkedHashSet<>();
    private final ToDoubleFunction<Map<String, Double>> value;
    private int at;

    private Formula(String text) {
        this.text = text;
        value = sum(0);
        skip();
        if (at < text.length()) {
            throw error("\"" + text.charAt(at) + "\" does not belong here");
        }
    }

    /** @throws LaneException with the place and what is wrong there */
    public static Formula of(String text) {
        if (text.length() > 2000) {
            throw new LaneException("A formula of " + text.length() + " characters is too long; keep it under 2000.");
        }
        return new Formula(text);
    }

    /** The names it uses, functions and {@code pi} left out. */
    public Set<String> names() {
        return Set.copyOf(names);
    }

    public String text() {
        return text;
    }

    /** @throws LaneException when a name has no value */
    public double value(Map<String, Double> values) {
        return value.applyAsDouble(values);
    }

    private LaneException error(String what) {
        return new LaneException(
                "The formula \"" + text + "\" cannot be read at character " + (at + 1) + ": " + what + ".");
    }

    private ToDoubleFunction<Map<String, Double>> sum(int depth) {
        if (depth > DEEPEST) {
            throw error("parentheses are nested more than " + DEEPEST + " deep");
        }
        ToDoubleFunction<Map<String, Double>> left = product(depth);
        while (true) {
            char c = next();
            if (c != '+' && c != '-') {
                return left;
            }
            at++;
            var a = left;
            var b = product(depth);
            left = c == '+'
                    ? v -> a.applyAsDouble(v) + b.applyAsDouble(v)
                    : v -> a.applyAsDouble(v) - b.applyAsDouble(v);
        }
    }

    private ToDoubleFunction<Map<String, Double>> product(int depth) {
        ToDoubleFunction<Map<String, Double>> left = signed(depth);
        while (true) {
            char c = next();
            if (c != '*' && c != '/') {
                return left;
            }
            at++;
            var a = left;
            var b = signed(depth);
            left = c == '*'
                    ? v -> a.applyAsDouble(v) * b.applyAsDouble(v)
                    : v -> a.applyAsDouble(v) / b.applyAsDouble(v);
        }
    }

    private ToDoubleFunction<Map<String, Double>> signed(int depth) {
        if (depth > DEEPEST) {
            throw error("signs and powers are nested more than " + DEEPEST + " deep");
        }
        char c = next();
        if (c == '-' || c == '+') {
            at++;
            var a = signed(depth + 1);
            return c == '-' ? v -> -a.applyAsDouble(v) : a;
        }
        var base = atom(depth);
        if (next() != '^') {
            return base;
        }
        at++;
        var exponent = signed(depth + 1);
        return v -> Math.pow(base.applyAsDouble(v), exponent.applyAsDouble(v));
    }

    private ToDoubleFunction<Map<String, Double>> atom(int depth) {
        char c = next();
        if (c == '(') {
            at++;
            var inner = sum(depth + 1);
            expect(')');
            return inner;
        }
        if (Character.isDigit(c) || c == '.') {
            return number();
        }
        if (!Character.isLetter(c)) {
            throw error(c == 0 ? "it ends too early" : "\"" + c + "\" does not belong here");
        }
        int start = at;
        while (at < text.length() && (Character.isLetterOrDigit(text.charAt(at)) || text.charAt(at) == '_')) {
            at++;
        }
        String name = text.substring(start, at);
        if (next() == '(' && (ONE.containsKey(name) || TWO.containsKey(name))) {
            at++;
            var first = sum(depth + 1);
            DoubleUnaryOperator one = ONE.get(name);
            if (one != null) {
                expect(')');
                return v -> one.applyAsDouble(first.applyAsDouble(v));
            }
            expect(',');
            var second = sum(depth + 1);
            expect(')');
            DoubleBinaryOperator two = TWO.get(name);
            return v -> two.applyAsDouble(first.applyAsDouble(v), second.applyAsDouble(v));
        }
        if (name.equals("pi")) {
            return _ -> Math.PI;
        }
        names.add(name);
        return v -> {
            Double found = v.get(name);
            if (found == null) {
                throw new LaneException("The formula \"" + text + "\" uses \"" + name
                        + "\", which has no value here; add it to the constants.");
            }
            return found;
        };
    }

    private ToDoubleFunction<Map<String, Double>> number() {
        int start = at;
        while (at < text.length() && (Character.isDigit(text.charAt(at)) || text.charAt(at) == '.')) {
            at++;
        }
        if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
            int mark = at++;
            if (at < text.length() && (text.charAt(at) == '-' || text.charAt(at) == '+')) {
                at++;
            }
            int digits = at;
            while (at < text.length() && Character.isDigit(text.charAt(at))) {
                at++;
            }
            at = at == digits ? mark : at;
        }
        try {
            double number = Double.parseDouble(text.substring(start, at));
            return _ -> number;
        } catch (NumberFormatException e) {
            throw error("\"" + text.substring(start, at) + "\" is no number");
        }
    }

    private char next() {
        skip();
        return at < text.length() ? text.charAt(at) : 0;
    }

    private void expect(char c) {
        if (next() != c) {
            throw error("a \"" + c + "\" is missing");
        }
        at++;
    }

    private void skip() {
        while (at < text.length() && text.charAt(at) == ' ') {
            at++;
        }
    }
}
