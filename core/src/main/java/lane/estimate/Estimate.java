package lane.estimate;

import lane.unit.Unit;

/**
 * A number that leaves a reading.
 *
 * @param value in SI units; NaN for none
 * @param unit that it is shown in
 * @param uncertainty in SI units
 */
public record Estimate(double value, Unit unit, Uncertainty uncertainty) {
    /** A number of which no uncertainty is stated. */
    public Estimate(double value, Unit unit) {
        this(value, unit, Uncertainty.NONE);
    }

    /** The value in the unit shown. */
    public double shown() {
        return unit.fromSi(value);
    }

    public Estimate in(Unit other) {
        return new Estimate(value, other, uncertainty);
    }
}
