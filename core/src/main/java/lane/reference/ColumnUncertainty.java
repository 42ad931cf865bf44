package lane.reference;

import lane.base.LaneException;
import lane.unit.Unit;

/**
 * How well a column of values is known, as whoever measured it says. The program shows and uses half-widths that are
 * twice the standard uncertainty (coverage factor 2, about 95 %), so what is stated with another factor is converted.
 *
 * @param kind of what is stated
 * @param column with the half-width of each value (downwards, if {@code upper} is given); blank for none
 * @param upper column with the half-width upwards, where it is another; blank for the same both ways
 * @param stated one half-width for all values, used where no column is named; 0 for none
 * @param unit of what is stated; blank follows the column, else the value; a share is 1 or %
 * @param k coverage factor of what is stated: 1 for a standard uncertainty; 0 where nobody says, which is taken as 2
 */
public record ColumnUncertainty(Kind kind, String column, String upper, double stated, String unit, double k) {
    /** What a half-width is measured in. */
    public enum Kind {
        /** In a unit of the value. */
        ABSOLUTE,
        /** As a share of each value. */
        RELATIVE
    }

    /** The coverage factor of all half-widths in the program. */
    public static final double SHOWN = 2;

    public static final ColumnUncertainty NONE = new ColumnUncertainty(Kind.ABSOLUTE, "", "", 0, "", 0);

    public ColumnUncertainty {
        kind = kind == null ? Kind.ABSOLUTE : kind;
        column = column == null ? "" : column;
        upper = upper == null ? "" : upper;
        unit = unit == null ? "" : unit;
        Unit.of(unit);
        if (!(k >= 0) || !(stated >= 0)) {
            throw new LaneException(
                    "An uncertainty of " + stated + " with k = " + k + " is none; give numbers that are not negative.");
        }
        if (column.isBlank() && !upper.isBlank()) {
            throw new LaneException(
                    "An uncertainty upwards (\"" + upper + "\") needs one downwards; name both columns.");
        }
    }

    /** A column of half-widths in the value's unit, as they stand. */
    public static ColumnUncertainty of(String column) {
        return column == null || column.isBlank() ? NONE : new ColumnUncertainty(Kind.ABSOLUTE, column, "", 0, "", 0);
    }

    public boolean none() {
        return column.isBlank() && stated == 0;
    }

    /** For people. */
    public String word() {
        if (none()) {
            return "no uncertainty stated";
        }
        String what = column.isBlank()
                ? "± " + stated + (unit.isBlank() ? "" : " " + unit)
                : upper.isBlank() ? "± " + column : "- " + column + " + " + upper;
        return what
                + (kind == Kind.RELATIVE ? " of the value" : "")
                + (k == 0 ? "" : ", k = " + (k == Math.rint(k) ? String.valueOf((long) k) : String.valueOf(k)));
    }

    /**
     * Half-widths in SI units with coverage factor 2.
     *
     * @param up whether upwards, where that is another
     * @param values in SI units, to which shares refer
     * @param valueUnit the unit that the values are stored in
     */
    double[] halves(Table table, boolean up, double[] values, Unit valueUnit) {
        double[] out = new double[values.length];
        String name = up && !upper.isBlank() ? upper : column;
        double[] read = name.isBlank() ? null : table.column(name);
        String said = !unit.isBlank() ? unit : read == null ? "" : table.unit(name, "");
        Unit in = Unit.of(said);
        double factor;
        if (kind == Kind.RELATIVE) {
            if (valueUnit.offset() != 0) {
                throw new LaneException("A share of a temperature in " + valueUnit.symbol()
                        + " depends on where its scale begins; state the uncertainty in K, or the values in K.");
            }
            if (in.known() && !in.comparable(Unit.ONE)) {
                throw new LaneException("The relative uncertainty is stated in " + in.symbol()
                        + ", which is no share; give it in % or 1, or call it absolute.");
            }
            factor = in.known() ? in.factor() : 1;
        } else {
            if (in.known()) {
                in.requireComparable(valueUnit, "Uncertainty of the values");
            }
            factor = in.known() ? in.factor() : valueUnit.factor();
        }
        double cover = k == 0 ? 1 : SHOWN / k;
        for (int i = 0; i < out.length; i++) {
            double own = Math.abs(read == null ? stated : read[i]) * factor * cover;
            out[i] = kind == Kind.RELATIVE ? own * Math.abs(values[i]) : own;
        }
        return out;
    }
}
