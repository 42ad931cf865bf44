package lane.unit;

import lane.base.Fault;
import lane.base.LaneException;

/**
 * A unit of measurement: {@code SI value = factor * value + offset}. Only a point on a temperature scale has an offset; a
 * difference of temperatures, or a unit inside a product, has none. {@link #UNKNOWN} stands for a file that does not say.
 *
 * @param symbol as written, for example {@code mN m}; empty when unknown
 * @param dimension of the SI value; equal to no other when unknown
 * @param factor greater than 0
 * @param offset in SI units
 * @param interval true where it is known that differences of temperatures are told in it, and never a point on the scale
 */
public record Unit(String symbol, Dimension dimension, double factor, double offset, boolean interval) {
    public static final Unit ONE = new Unit("1", Dimension.NONE, 1, 0);
    public static final Unit UNKNOWN = new Unit("", Dimension.UNKNOWN, 1, 0);

    private static final Dimension TEMPERATURE = Dimension.base(4);
    private static final Dimension PER_SECOND = Dimension.NONE.over(Dimension.base(2));
    private static final java.util.regex.Pattern CYCLES = java.util.regex.Pattern.compile("(^|[^\\p{L}])[kMGm]?Hz");
    private static final java.util.regex.Pattern ANGULAR =
            java.util.regex.Pattern.compile("(^|[^\\p{L}])(rad|deg|rpm|[°'])");

    public Unit(String symbol, Dimension dimension, double factor, double offset) {
        this(symbol, dimension, factor, offset, false);
    }

    /** Reads a unit such as {@code kg/(m3 s)}, {@code mN·m}, {@code m^(1/2)} or {@code degC}; blank means unknown. */
    public static Unit of(String text) {
        return UnitParser.parse(text);
    }

    /** How the symbol was read, where some mean something else by it; one sentence, empty where nothing is in doubt. */
    public java.util.Optional<String> doubt() {
        return UnitParser.doubt(symbol);
    }

    public boolean known() {
        return !dimension.equals(Dimension.UNKNOWN);
    }

    /** Whether it counts cycles per time, which are no angle per time though both are 1/s. */
    public boolean cycles() {
        return perTime() && CYCLES.matcher(symbol).find();
    }

    /** Whether it is an angle per time. */
    public boolean angular() {
        return perTime() && ANGULAR.matcher(symbol).find();
    }

    private boolean perTime() {
        return known() && dimension.equals(PER_SECOND);
    }

    /** The SI value of a value in this unit. */
    public double toSi(double value) {
        return factor * value + offset;
    }

    /** The SI values of many; the same array where all of them stay what they are. */
    public double[] toSi(double[] values) {
        boolean same = factor == 1 && offset == 0;
        for (int i = 0; same && i < values.length; i++) {
            // What is nothing below nothing becomes plainly nothing.
            same = values[i] != 0 || Double.doubleToRawLongBits(values[i]) == 0;
        }
        if (same) {
            return values;
        }
        double[] out = new double[values.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = toSi(values[i]);
        }
        return out;
    }

    /** The value in this unit of an SI value. */
    public double fromSi(double si) {
        double value = (si - offset) / factor;
        return offset == 0 || !Double.isFinite(value) ? value : shortest(value, 2 * Math.ulp(si) / factor);
    }

    /**
     * The decimal with the fewest places within the round-off of an SI value: what a scale's offset took away of the last
     * digits is no part of the number, so 45.20 degC comes back as 45.2.
     */
    private static double shortest(double value, double slack) {
        var exact = new java.math.BigDecimal(value);
        for (int places = 0; places < 17; places++) {
            double rounded =
                    exact.setScale(places, java.math.RoundingMode.HALF_EVEN).doubleValue();
            if (Math.abs(rounded - value) <= slack) {
                return rounded;
            }
        }
        return value;
    }

    /** The value in this unit of an SI difference: an offset does not take part. */
    public double differenceFromSi(double si) {
        return si / factor;
    }

    /** Whether values can be compared with values in the other unit: both known and of one dimension. */
    public boolean comparable(Unit other) {
        return known()
                && other.known()
                && dimension.equals(other.dimension)
                && !(cycles() && other.angular())
                && !(angular() && other.cycles());
    }

    /** Whether what has this unit can be shown in the other one: a difference of temperatures is no point on a scale, nor is a point one. */
    public boolean shownIn(Unit other) {
        return comparable(other) && !(other.interval() && offset != 0) && !(interval && other.offset() != 0);
    }

    /** The unit of differences of values in this unit. */
    public Unit difference() {
        return offset == 0 ? this : new Unit(factor == 1 ? "K" : symbol, dimension, factor, 0);
    }

    /** The same for what is known to be a difference of temperatures; any other unit as it is. */
    public Unit forInterval() {
        Unit plain = difference();
        return dimension.equals(TEMPERATURE) && !interval ? new Unit(plain.symbol, dimension, factor, 0, true) : this;
    }

    /**
     * The same as {@link #requireComparable}, and that not one is a difference of temperatures and the other a point on a scale.
     */
    public void requireAlike(Unit other, String where) {
        requireComparable(other, where);
        if (interval && other.offset != 0 || other.interval && offset != 0) {
            String point = interval ? other.symbol : symbol;
            throw new LaneException(
                    Fault.UNIT,
                    where + " meets a difference of temperatures and a temperature in " + point
                            + ", which cannot be compared; if that is a difference too, give it the unit \"delta "
                            + point
                            + "\".");
        }
    }

    public Unit times(Unit other) {
        if (!known() || !other.known()) {
            return UNKNOWN;
        }
        if (this.equals(ONE)) {
            return other.difference();
        }
        return new Unit(
                Symbols.product(symbol, other.symbol), dimension.times(other.dimension), factor * other.factor, 0);
    }

    public Unit over(Unit other) {
        if (!known() || !other.known()) {
            return UNKNOWN;
        }
        return new Unit(
                Symbols.quotient(symbol, other.symbol), dimension.over(other.dimension), factor / other.factor, 0);
    }

    /** The coherent SI unit of this dimension, written in base units. */
    public Unit si() {
        return known() ? new Unit(dimension.toString(), dimension, 1, 0, interval) : UNKNOWN;
    }

    /** @throws LaneException naming both units when values in this unit cannot be given in the other */
    public void requireComparable(Unit other, String where) {
        if (!known() || !other.known()) {
            String what = !known() && !other.known()
                    ? "two values without a known unit"
                    : "a value without a known unit and one in " + (known() ? this : other).label();
            throw new LaneException(
                    Fault.UNIT,
                    where + " meets " + what
                            + ", which cannot be compared; state the unit that is missing: of a field at Intake, of a column on its"
                            + " table's sheet.");
        }
        if (!comparable(other)) {
            throw new LaneException(
                    Fault.UNIT,
                    where + " meets " + label() + " and " + other.label()
                            + ", which cannot be compared; give both the unit of one dimension.");
        }
    }

    /** The symbol, or the words for an unknown unit. */
    public String label() {
        return known() ? symbol : "unit unknown";
    }
}
