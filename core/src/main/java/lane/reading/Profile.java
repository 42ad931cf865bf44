package lane.reading;

import lane.trail.Trail;
import lane.unit.Unit;

/**
 * A curve: one value an abscissa, in SI units.
 *
 * @param abscissa in SI units, in the order of the line
 * @param value NaN where absent
 * @param uncertainty half-width of each value in SI units, downwards if {@code above} is given; empty when none is stated
 * @param above half-width upwards; empty when it is the same both ways
 * @param abscissaName and {@code abscissaUnit}: what is drawn along the axis, unit as shown
 * @param unit as shown
 * @param formula true when the curve is known at any abscissa, so that it can be a datum at anybody's points
 * @param found number of samples that have a value
 * @param note how it was made, for people: moved samples, cells as stored
 */
public record Profile(
        double[] abscissa,
        double[] value,
        double[] uncertainty,
        double[] above,
        String abscissaName,
        Unit abscissaUnit,
        Unit unit,
        boolean formula,
        int found,
        String note,
        Trail trail)
        implements Outcome {
    /** A curve whose uncertainty is the same both ways. */
    public Profile(
            double[] abscissa,
            double[] value,
            double[] uncertainty,
            String abscissaName,
            Unit abscissaUnit,
            Unit unit,
            boolean formula,
            int found,
            String note,
            Trail trail) {
        this(
                abscissa,
                value,
                uncertainty,
                new double[0],
                abscissaName,
                abscissaUnit,
                unit,
                formula,
                found,
                note,
                trail);
    }

    /** Half-width upwards; empty when no uncertainty is stated. */
    public double[] upwards() {
        return above.length == 0 ? uncertainty : above;
    }

    public int size() {
        return value.length;
    }

    /** The unit that the abscissa is drawn in: millimetres for lengths, degrees for angles. */
    public Unit abscissaShown() {
        return abscissaUnit.equals(Unit.of("m"))
                ? Unit.of("mm")
                : abscissaUnit.equals(Unit.of("rad")) ? Unit.of("deg") : abscissaUnit;
    }

    /** Greatest minus least of the finite values; 0 when there is none. */
    public double range() {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : value) {
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
        }
        return greatest >= least ? greatest - least : 0;
    }
}
