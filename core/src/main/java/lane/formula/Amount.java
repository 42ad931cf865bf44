package lane.formula;

import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Numbers typed as formulas of numbers, such as {@code (30 + 36)/2} or {@code 1.5 "in"}. */
public final class Amount {
    private Amount() {}

    /**
     * The number in a unit: one without a unit is taken in it, another is converted.
     *
     * @throws LaneException when it cannot be read, is no number, or has a unit of another kind
     */
    public static double of(String text, Unit in) {
        // A comma between digits is a decimal sign, unless it parts what a function takes.
        boolean called = text.matches("(?s).*\\p{L}\\s*\\(.*");
        String plain = called ? text.strip() : text.strip().replaceAll("(?<=\\d),(?=\\d)", ".");
        Compiler.Compiled made;
        try {
            made = Compiler.compile(plain, NOTHING);
        } catch (FormulaException e) {
            Double bare = bare(plain, in);
            if (bare != null) {
                return bare;
            }
            throw new LaneException("\"" + text + "\" is no number here: " + e.getMessage(), e);
        }
        Type type = made.type();
        if (!type.number()) {
            throw new LaneException("\"" + text + "\" is " + type.word() + " and no number; write it like 36.5.");
        }
        Program.Bench bench = made.program().bench(1);
        bench.run(1);
        double si = bench.result(0)[0];
        if (!Double.isFinite(si)) {
            throw new LaneException("\"" + text + "\" has no finite value; correct it.");
        }
        boolean own = !type.unit().equals(Unit.ONE);
        if (own && in.known()) {
            type.unit().requireComparable(in, "\"" + text + "\"");
        }
        return own && in.known() ? in.fromSi(si) : si;
    }

    private static final Pattern BARE = Pattern.compile("([+-]?[\\d.]+(?:[eE][+-]?\\d+)?)\\s*([^\\d\\s\"+*/^(-].*)");

    /** A number with a unit that stands without quotes, as in 12 cm; null for what is none. */
    private static @Nullable Double bare(String text, Unit in) {
        var m = BARE.matcher(text);
        if (!m.matches() || !in.known()) {
            return null;
        }
        try {
            Unit unit = Unit.of(m.group(2).strip());
            if (!unit.known()) {
                return null;
            }
            unit.requireComparable(in, "\"" + text + "\"");
            return in.fromSi(unit.toSi(Double.parseDouble(m.group(1))));
        } catch (NumberFormatException e) {
            return null;
        } catch (LaneException e) {
            if (e.fault() == lane.base.Fault.UNIT && e.getMessage().contains(text)) {
                throw e;
            }
            return null;
        }
    }

    private static final Scope NOTHING = new Bare() {
        @Override
        public @Nullable Meaning meaning(String name) {
            if (name.equals("pi")) {
                return null;
            }
            throw new Trouble("\"" + name + "\" is a name; only numbers are known here.");
        }
    };
}
