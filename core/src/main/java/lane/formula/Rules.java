package lane.formula;

import java.util.LinkedHashMap;
import java.util.Map;
import lane.unit.Dimension;
import lane.unit.Unit;
import lane.unit.UnitSystem;

/** How types combine, and what would mend it where they do not. */
final class Rules {
    /** A temperature in kelvin that may be a point or a difference, whichever fits. */
    static final double EITHER = Double.NaN;

    private static final Map<String, String> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put("kg/m3", "a density");
        KINDS.put("m", "a length");
        KINDS.put("m2", "an area");
        KINDS.put("m3", "a volume");
        KINDS.put("m/s", "a speed");
        KINDS.put("s", "a time");
        KINDS.put("kg", "a mass");
        KINDS.put("Pa", "a pressure");
        KINDS.put("K", "a temperature difference");
        KINDS.put("Pa s", "a viscosity");
        KINDS.put("W/(m K)", "a conductivity");
        KINDS.put("J/(kg K)", "a heat capacity");
        KINDS.put("N", "a force");
    }

    private Rules() {}

    /** The unit that a product or power is shown in. */
    static Unit si(Dimension dimension) {
        return UnitSystem.SI.of(dimension);
    }

    static Unit product(Type a, Type b) {
        if (!a.known() || !b.known()) {
            return Unit.UNKNOWN;
        }
        if (a.plain()) {
            return b.plain() ? Unit.ONE : b.unit().difference();
        }
        return b.plain() ? a.unit().difference() : si(a.dimension().times(b.dimension()));
    }

    static Unit quotient(Type a, Type b) {
        if (!a.known() || !b.known()) {
            return Unit.UNKNOWN;
        }
        if (b.plain()) {
            return a.plain() ? Unit.ONE : a.unit().difference();
        }
        return si(a.dimension().over(b.dimension()));
    }

    static boolean either(Type t) {
        return Double.isNaN(t.points());
    }

    /**
     * What a sum or difference is, the dimensions being equal.
     *
     * @param sign 1 or -1
     */
    static Type sum(Type a, Type b, int sign) {
        double points;
        if (either(a) && either(b)) {
            points = sign > 0 ? EITHER : 0;
        } else if (either(a)) {
            points = sign > 0 ? b.points() : 1 - b.points();
        } else if (either(b)) {
            // A temperature less one in kelvin is a difference; one more is a temperature again.
            points = sign > 0 ? a.points() : a.points() == 1 ? 0 : a.points();
        } else {
            points = a.points() + sign * b.points();
        }
        if (!a.temperature()) {
            return a;
        }
        Unit point = a.unit().offset() != 0 || b.unit().offset() == 0 ? a.unit() : b.unit();
        return a.in(points == 0 ? a.unit().difference() : point, points);
    }

    /** Whether both may be compared as temperatures: both points, or both differences. */
    static boolean alike(Type a, Type b) {
        return !a.temperature() || either(a) || either(b) || a.points() == b.points();
    }

    /** What makes the right side like the left one, in words. */
    static String mend(Type left, Type right) {
        Dimension ratio = left.dimension().over(right.dimension());
        for (Map.Entry<String, String> k : KINDS.entrySet()) {
            Dimension d = Unit.of(k.getKey()).dimension();
            if (ratio.equals(d)) {
                return "multiply the right side by " + k.getValue() + " (" + k.getKey() + ")";
            }
            if (Dimension.NONE.over(ratio).equals(d)) {
                return "divide the right side by " + k.getValue() + " (" + k.getKey() + ")";
            }
        }
        return "the right side lacks a factor in " + si(ratio).symbol();
    }
}
