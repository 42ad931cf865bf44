package lane.unit;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/** Reads units: products by space, dot or star, quotients by slash, powers such as m2, m^2, m-1, m^(1/2), parentheses. */
final class UnitParser {
    private static final Map<String, Unit> NAMED = new HashMap<>();
    private static final Map<String, Double> PREFIX = Map.ofEntries(
            Map.entry("G", 1e9),
            Map.entry("M", 1e6),
            Map.entry("k", 1e3),
            Map.entry("h", 1e2),
            Map.entry("d", 1e-1),
            Map.entry("c", 1e-2),
            Map.entry("m", 1e-3),
            Map.entry("u", 1e-6),
            Map.entry("µ", 1e-6),
            Map.entry("μ", 1e-6),
            Map.entry("n", 1e-9),
            Map.entry("p", 1e-12),
            Map.entry("T", 1e12));
    private static final java.util.Set<String> UNPREFIXED = java.util.Set.of(
            "kg", "degC", "°C", "degF", "°F", "min", "h", "d", "wk", "yr", "a", "deg", "°", "%", "in", "ft", "lb",
            "lbf", "psi", "rpm", "yd", "mi", "nmi", "mph", "kn", "ha", "acre", "gal", "oz", "slug", "kgf", "kp", "at",
            "mmHg", "inHg", "ksi", "Btu", "hp", "PS", "rev", "grad", "ppm", "week", "1", "C_");

    static {
        String[] base = {"m", "kg", "s", "A", "K", "mol", "cd"};
        for (int i = 0; i < base.length; i++) {
            put(base[i], Dimension.base(i), 1);
        }
        Dimension m = Dimension.base(0);
        Dimension kg = Dimension.base(1);
        Dimension s = Dimension.base(2);
        Dimension a = Dimension.base(3);
        Dimension newton = kg.times(m).over(s.power(2, 1));
        Dimension joule = newton.times(m);
        Dimension pascal = newton.over(m.power(2, 1));
        put("1", Dimension.NONE, 1);
        put("rad", Dimension.NONE, 1);
        put("sr", Dimension.NONE, 1);
        put("%", Dimension.NONE, 0.01);
        put("deg", Dimension.NONE, Math.PI / 180);
        put("°", Dimension.NONE, Math.PI / 180);
        put("g", kg, 1e-3);
        put("t", kg, 1e3);
        put("N", newton, 1);
        put("Pa", pascal, 1);
        put("bar", pascal, 1e5);
        put("atm", pascal, 101325);
        put("psi", pascal, 4.4482216152605 / (0.0254 * 0.0254));
        put("J", joule, 1);
        put("W", joule.over(s), 1);
        put("Hz", Dimension.NONE.over(s), 1);
        put("rpm", Dimension.NONE.over(s), Math.PI / 30);
        put("C", a.times(s), 1);
        put("V", joule.over(s).over(a), 1);
        put("Ohm", joule.over(s).over(a.power(2, 1)), 1);
        put("T", newton.over(a).over(m), 1);
        put("P", pascal.times(s), 0.1);
        put("St", m.power(2, 1).over(s), 1e-4);
        put("L", m.power(3, 1), 1e-3);
        put("l", m.power(3, 1), 1e-3);
        put("min", s, 60);
        put("h", s, 3600);
        put("d", s, 86400);
        put("wk", s, 7 * 86400);
        // The Julian year, as astronomers and geologists count.
        put("yr", s, 365.25 * 86400);
        put("a", s, 365.25 * 86400);
        put("dyn", newton, 1e-5);
        put("erg", joule, 1e-7);
        put("in", m, 0.0254);
        put("ft", m, 0.3048);
        put("lb", kg, 0.45359237);
        put("lbf", newton, 4.4482216152605);
        put("yd", m, 0.9144);
        put("mi", m, 1609.344);
        put("nmi", m, 1852);
        put("mph", m.over(s), 1609.344 / 3600);
        put("kn", m.over(s), 1852.0 / 3600);
        put("ha", m.power(2, 1), 1e4);
        put("acre", m.power(2, 1), 4046.8564224);
        put("gal", m.power(3, 1), 231 * 0.0254 * 0.0254 * 0.0254);
        put("oz", kg, 0.45359237 / 16);
        put("slug", kg, 4.4482216152605 / 0.3048);
        put("kgf", newton, 9.80665);
        put("kp", newton, 9.80665);
        put("at", pascal, 98066.5);
        put("Torr", pascal, 101325 / 760.0);
        put("mmHg", pascal, 133.322387415);
        put("inHg", pascal, 3386.388640341);
        put("ksi", pascal, 1000 * 4.4482216152605 / (0.0254 * 0.0254));
        put("cal", joule, 4.184);
        put("Btu", joule, 1055.05585262);
        put("eV", joule, 1.602176634e-19);
        put("Wh", joule, 3600);
        put("hp", joule.over(s), 0.3048 * 4.4482216152605 * 550);
        put("PS", joule.over(s), 735.49875);
        put("rev", Dimension.NONE, 2 * Math.PI);
        put("grad", Dimension.NONE, Math.PI / 200);
        put("ppm", Dimension.NONE, 1e-6);
        put("S", a.power(2, 1).times(s).over(joule), 1);
        put("F", a.power(2, 1).times(s).times(s).over(joule), 1);
        put("H", joule.over(a.power(2, 1)), 1);
        put("Wb", joule.over(a), 1);
        put("lm", Dimension.base(6), 1);
        put("lx", Dimension.base(6).over(m.power(2, 1)), 1);
        put("Bq", Dimension.NONE.over(s), 1);
        put("Gy", joule.over(kg), 1);
        put("kat", Dimension.base(5).over(s), 1);
        put("week", s, 604800);
        put("dyn", newton, 1e-5);
        put("erg", joule, 1e-7);
        Dimension kelvin = Dimension.base(4);
        for (String c : new String[] {"degC", "°C"}) {
            NAMED.put(c, new Unit(c, kelvin, 1, 273.15));
            difference(c, 1);
        }
        difference("K", 1);
        for (String f : new String[] {"degF", "°F"}) {
            NAMED.put(f, new Unit(f, kelvin, 5 / 9.0, 459.67 * 5 / 9));
            difference(f, 5 / 9.0);
        }
    }

    private final String text;
    private int at;

    private UnitParser(String text) {
        this.text = text;
    }

    /** A difference of temperatures is no point on the scale: {@code delta degC}. */
    private static void difference(String scale, double factor) {
        for (String symbol : new String[] {"delta " + scale, "Δ" + scale}) {
            NAMED.put(symbol, new Unit(symbol, Dimension.base(4), factor, 0, true));
        }
    }

    private static void put(String symbol, Dimension dimension, double factor) {
        NAMED.put(symbol, new Unit(symbol, dimension, factor, 0));
    }

    static Unit parse(String raw) {
        String text = raw == null ? "" : raw.strip();
        if (text.isEmpty()) {
            return Unit.UNKNOWN;
        }
        if (text.length() > 100) {
            throw new LaneException(
                    "A unit of " + text.length() + " characters is too long; write it with at most 100.");
        }
        Unit whole = NAMED.get(text);
        if (whole != null) {
            return whole;
        }
        var parser = new UnitParser(text);
        Unit value = parser.product(0);
        if (parser.at < text.length()) {
            throw parser.error();
        }
        if (COUNT.matcher(text).matches() && !text.equals("1")) {
            throw new LaneException(
                    "The number \"" + text + "\" alone is no unit; write 1, %, or a factor such as 10^-6.");
        }
        if (!(value.factor() > 0) || Double.isInfinite(value.factor())) {
            throw new LaneException(
                    "The unit \"" + text + "\" is larger or smaller than numbers can hold; look at its powers.");
        }
        return new Unit(text, value.dimension(), value.factor(), 0);
    }

    private static final Pattern COUNT = Pattern.compile("[\\d.]+");

    private static final Pattern QUOTIENT = Pattern.compile("/\\s*([^/()]+?)\\s*(?=[/)]|$)");
    private static final Pattern FACTOR = Pattern.compile("[\\p{L}°%µ]+(\\^?[-+−]?\\d+|[²³]|\\^\\([^)]*\\))?");

    /**
     * How a unit is read that some write for another: by {@code J/kg K} one means J/(kg K), another J K/kg. Products and
     * quotients are taken from left to right here.
     *
     * @return one sentence that proposes the other; empty where there is nothing to confuse
     */
    static Optional<String> doubt(String text) {
        Matcher quotient = QUOTIENT.matcher(text);
        while (quotient.find()) {
            String below = quotient.group(1).strip();
            Matcher first = FACTOR.matcher(below);
            if (!first.lookingAt() || first.end() == below.length()) {
                continue;
            }
            String rest = below.substring(first.end()).replaceFirst("^[\\s·*.⋅]+", "");
            String before = text.substring(0, quotient.start()).strip();
            String after = text.substring(quotient.end()).strip();
            return Optional.of("The unit " + text + " is read from left to right, as " + before + " " + rest + "/"
                    + first.group() + after + "; if all of it divides, write " + before + "/(" + first.group() + " "
                    + rest + ")" + after + ".");
        }
        return Optional.empty();
    }

    private LaneException error() {
        String rest = at < text.length() ? "\"" + text.substring(at) + "\" is not understood" : "it ends too early";
        return new LaneException(
                "The unit \"" + text + "\" cannot be read: " + rest + "; write it like kg/(m3 s), mN m or degC.");
    }

    private Unit product(int depth) {
        if (depth > 20) {
            throw error();
        }
        Unit value = factor(depth);
        while (at < text.length() && text.charAt(at) != ')') {
            char c = text.charAt(at);
            boolean divide = c == '/';
            if (divide || c == '·' || c == '*' || c == '.' || c == '⋅') {
                at++;
            } else if (c == ' ') {
                skip();
                continue;
            }
            skip();
            Unit next = factor(depth);
            value = divide
                    ? new Unit("", value.dimension().over(next.dimension()), value.factor() / next.factor(), 0)
                    : new Unit("", value.dimension().times(next.dimension()), value.factor() * next.factor(), 0);
        }
        return value;
    }

    private Unit factor(int depth) {
        skip();
        boolean number = false;
        Unit value;
        if (at < text.length() && text.charAt(at) == '(') {
            at++;
            value = product(depth + 1);
            skip();
            if (at >= text.length() || text.charAt(at) != ')') {
                throw error();
            }
            at++;
        } else {
            number = at < text.length() && Character.isDigit(text.charAt(at));
            value = symbol();
        }
        return exponent(value, number);
    }

    private Unit symbol() {
        int start = at;
        if (at < text.length() && Character.isDigit(text.charAt(at))) {
            return number();
        }
        while (at < text.length() && (Character.isLetter(text.charAt(at)) || "°%µ".indexOf(text.charAt(at)) >= 0)) {
            at++;
        }
        String name = text.substring(start, at);
        Unit named = NAMED.get(name);
        if (named != null) {
            return named.difference();
        }
        for (int n = 1; n <= 1 && n < name.length(); n++) {
            Double prefix = PREFIX.get(name.substring(0, n));
            Unit stem = NAMED.get(name.substring(n));
            if (prefix != null && stem != null && !UNPREFIXED.contains(name.substring(n))) {
                return new Unit(name, stem.dimension(), prefix * stem.factor(), 0);
            }
        }
        at = start;
        throw error();
    }

    private static final Pattern NUMBER = Pattern.compile("\\d{1,15}(\\.\\d{1,15})?([eE][-+−]?\\d{1,3})?");

    /** A factor such as that of {@code 100 Pa} or {@code 1e-3 m}; digits behind a number are its own, never a power. */
    private Unit number() {
        Matcher found = NUMBER.matcher(text).region(at, text.length());
        boolean apart = at == 0 || " /*·⋅(".indexOf(text.charAt(at - 1)) >= 0;
        if (!apart || !found.lookingAt()) {
            throw error();
        }
        double value = Double.parseDouble(found.group().replace('−', '-'));
        if (!(value > 0) || Double.isInfinite(value)) {
            throw error();
        }
        at = found.end();
        return value == 1 ? Unit.ONE : new Unit(found.group(), Dimension.NONE, value, 0);
    }

    private Unit exponent(Unit value, boolean number) {
        int start = at;
        if (number && (at >= text.length() || text.charAt(at) != '^')) {
            return value;
        }
        boolean caret = at < text.length() && text.charAt(at) == '^';
        if (caret) {
            at++;
        }
        int super2 = at < text.length() ? "²³".indexOf(text.charAt(at)) : -1;
        if (super2 >= 0) {
            at++;
            return raise(value, super2 + 2, 1);
        }
        boolean open = caret && at < text.length() && text.charAt(at) == '(';
        if (open) {
            at++;
        }
        int[] whole = integer();
        if (whole == null) {
            if (caret) {
                throw error();
            }
            at = start;
            return value;
        }
        int denominator = 1;
        if (open) {
            if (at < text.length() && text.charAt(at) == '/') {
                at++;
                int[] below = integer();
                if (below == null || below[0] < 1) {
                    throw error();
                }
                denominator = below[0];
            }
            if (at >= text.length() || text.charAt(at) != ')') {
                throw error();
            }
            at++;
        }
        return raise(value, whole[0], denominator);
    }

    private Unit raise(Unit value, int numerator, int denominator) {
        try {
            double factor = Math.pow(value.factor(), (double) numerator / denominator);
            return new Unit("", value.dimension().power(numerator, denominator), factor, 0);
        } catch (ArithmeticException e) {
            throw new LaneException("The unit \"" + text + "\" has an exponent that is too large or too fine.", e);
        }
    }

    private int @Nullable [] integer() {
        int start = at;
        if (at < text.length() && (text.charAt(at) == '-' || text.charAt(at) == '+' || text.charAt(at) == '−')) {
            at++;
        }
        int digits = at;
        while (at < text.length() && Character.isDigit(text.charAt(at)) && at - digits < 4) {
            at++;
        }
        if (at == digits) {
            at = start;
            return null;
        }
        return new int[] {Integer.parseInt(text.substring(start, at).replace('−', '-'))};
    }

    private void skip() {
        while (at < text.length() && text.charAt(at) == ' ') {
            at++;
        }
    }
}
