package lane.reading;

import java.util.Map;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * A single number, in SI units.
 *
 * @param value in SI units
 * @param uncertainty half-width in SI units; NaN when none is stated
 * @param unit as shown
 * @param pieces parts of the number apart, such as pressure and viscous; their sum is the value
 * @param sign which way is positive, in words; empty where a sign has no meaning
 * @param note over what it was taken, for people
 */
public record Tally(
        double value, double uncertainty, Unit unit, Map<String, Double> pieces, String sign, String note, Trail trail)
        implements Outcome {}
