package lane.formula;

import lane.unit.Dimension;
import lane.unit.Unit;

/**
 * What kind of value a formula has.
 *
 * @param components 1 for a number, 3 for a vector, 9 for a tensor row by row, or as many as a list has
 * @param truth whether it says yes (1) or no (0)
 * @param unit that it is shown in unless another is chosen; unknown if a unit in it is not known
 * @param points how many temperature points it holds: 1 for a temperature, 0 for a difference of two
 */
public record Type(int components, boolean truth, Unit unit, double points) {
    private static final Dimension KELVIN = Unit.of("K").dimension();
    static final Type NUMBER = new Type(1, false, Unit.ONE, 0);
    static final Type TRUTH = new Type(1, true, Unit.ONE, 0);

    /** The type of values stored in a unit; a temperature that is not called a difference is a point. */
    public static Type of(int components, Unit unit) {
        boolean point = unit.known()
                && !unit.interval()
                && unit.dimension().equals(KELVIN)
                && !unit.symbol().startsWith("delta")
                && !unit.symbol().startsWith("Δ");
        return new Type(components, false, unit, point ? 1 : 0);
    }

    public boolean number() {
        return components == 1 && !truth;
    }

    public boolean vector() {
        return components == 3;
    }

    public boolean tensor() {
        return components == 9;
    }

    boolean known() {
        return unit.known();
    }

    Dimension dimension() {
        return unit.dimension();
    }

    boolean temperature() {
        return known() && dimension().equals(KELVIN);
    }

    boolean plain() {
        return known() && dimension().equals(Dimension.NONE);
    }

    Type shaped(int other) {
        return new Type(other, false, unit, points);
    }

    Type in(Unit other, double point) {
        return new Type(components, truth, other, point);
    }

    /** For people: a number, a vector, a tensor. */
    public String word() {
        return truth ? "a condition" : word(components);
    }

    static String word(int components) {
        return switch (components) {
            case 1 -> "a number";
            case 3 -> "a vector";
            case 9 -> "a tensor";
            default -> "a list of " + components + " numbers";
        };
    }
}
