package lane.check;

import java.util.Map;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * What a check found.
 *
 * @param datum key of the lane compared with; blank where the datum is zero or missing
 * @param lanes by lane key
 * @param verdict the worst of the judged lanes
 * @param why one sentence: the numbers behind the verdict, or what is missing
 */
public record CheckResult(String datum, Map<String, Lane> lanes, Verdict verdict, String why) {
    public CheckResult {
        lanes = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(lanes));
    }

    /**
     * One lane against the datum.
     *
     * @param value the tally or residual in SI units; NaN for a profile
     * @param difference value minus datum, or the profile's norm, in SI units
     * @param relative difference over the scale; NaN where it is not defined
     * @param uncertainty in SI units; 0 where none is stated
     * @param unit as shown
     * @param curve the whole difference of a profile, else null
     * @param verdict only for a judged lane, else null
     */
    public record Lane(
            double value,
            double difference,
            double relative,
            double uncertainty,
            Unit unit,
            Difference curve,
            Verdict verdict,
            Trail trail) {}
}
