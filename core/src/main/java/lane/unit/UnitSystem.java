package lane.unit;

import java.util.List;

/**
 * A coherent system of units: all others follow from those of length, mass, time and temperature; ampere, mole and
 * candela stay.
 *
 * @param name for people
 */
public record UnitSystem(String name, String length, String mass, String time, String temperature) {
    public static final UnitSystem SI = new UnitSystem("SI", "m", "kg", "s", "K");
    public static final UnitSystem MM_N_TONNE = new UnitSystem("mm-N-tonne", "mm", "t", "s", "K");
    public static final UnitSystem CGS = new UnitSystem("CGS", "cm", "g", "s", "K");
    public static final List<UnitSystem> NAMED = List.of(SI, MM_N_TONNE, CGS);

    /** Short symbols that a system's units are called by where one fits; a rate of one over a second is no count of cycles. */
    private static final List<String> SHORT = List.of(
            "N", "kN", "mN", "dyn", "Pa", "kPa", "MPa", "GPa", "hPa", "bar", "J", "mJ", "kJ", "erg", "W", "mW", "kW",
            "P", "Pa s");

    public UnitSystem {
        require(length, "length", 0);
        require(mass, "mass", 1);
        require(time, "time", 2);
        require(temperature, "temperature", 4);
    }

    private static void require(String symbol, String what, int base) {
        Unit unit = Unit.of(symbol);
        if (!unit.known() || !unit.dimension().equals(Dimension.base(base))) {
            throw new lane.base.LaneException(
                    "\"" + symbol + "\" is no unit of " + what + "; a system of units needs one, such as "
                            + List.of("mm", "t", "s", "", "K").get(base) + ".");
        }
    }

    /** The system's unit of a dimension. A temperature is a point where it stands alone. */
    public Unit of(Dimension dimension) {
        String[] symbols = {length, mass, time, "A", temperature, "mol", "cd"};
        if (dimension.equals(Dimension.NONE)) {
            return Unit.ONE;
        }
        double factor = 1;
        var above = new StringBuilder();
        var below = new StringBuilder();
        int belows = 0;
        for (int i = 0; i < symbols.length; i++) {
            double power = dimension.exponent(i);
            if (power == 0) {
                continue;
            }
            if (dimension.equals(Dimension.base(i))) {
                return Unit.of(symbols[i]);
            }
            Unit base = Unit.of(symbols[i]).difference();
            factor *= power == Math.rint(power) ? whole(base.factor(), (int) power) : Math.pow(base.factor(), power);
            StringBuilder side = power > 0 ? above : below;
            belows += power < 0 ? 1 : 0;
            side.append(side.isEmpty() ? "" : " ").append(base.symbol()).append(dimension.exponentText(i));
        }
        for (String s : SHORT) {
            Unit u = Unit.of(s);
            if (u.dimension().equals(dimension) && Math.abs(u.factor() / factor - 1) < 1e-12) {
                return u;
            }
        }
        String symbol = (above.isEmpty() ? "1" : above)
                + (below.isEmpty() ? "" : belows > 1 ? "/(" + below + ")" : "/" + below);
        return new Unit(symbol, dimension, factor, 0);
    }

    /** Powers of ten stay exact where doubles allow it. */
    private static double whole(double base, int power) {
        double positive = 1;
        for (int i = 0; i < Math.abs(power); i++) {
            positive *= base;
        }
        return power < 0 ? 1 / positive : positive;
    }
}
