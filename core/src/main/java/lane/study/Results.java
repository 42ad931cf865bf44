package lane.study;

import java.util.Map;
import lane.base.Fault;
import lane.check.CheckResult;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Laid;
import lane.field.Run;
import lane.reading.Outcome;
import lane.station.Placement;
import lane.unit.Unit;

/**
 * Everything that was computed for one study.
 *
 * @param study the study it belongs to
 * @param runs loaded runs by source key; a run that could not be loaded is missing here and named in {@code failures}
 * @param failures one sentence by source key
 * @param placements by station key, then by source key
 * @param laid those of the other stations that are looked at, by station key, then by source key
 * @param readings by reading key, then by source key in lane order
 * @param checks by check key
 * @param lens how quantities were seen
 */
public record Results(
        Study study,
        Map<String, Run> runs,
        Map<String, String> failures,
        Map<String, Map<String, Placement>> placements,
        Map<String, Map<String, Laid>> laid,
        Map<String, Map<String, Outcome>> readings,
        Map<String, CheckResult> checks,
        EvaluationContext lens) {
    public static Results none(Study study) {
        return new Results(
                study,
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                EvaluationContext.of(study.quantities(), study.units(), study.axis()));
    }

    /** What a lane answered; absent if it was not asked. */
    public Outcome outcome(String reading, String source) {
        Outcome found = readings.getOrDefault(reading, Map.of()).get(source);
        return found == null ? new Outcome.Absent(Fault.NOT_READ, "This has not been computed.") : found;
    }

    /** The unit that a reading is shown in, in all lanes so that they compare: that of the first lane that answers. */
    public Unit unit(String reading) {
        return readings.getOrDefault(reading, Map.of()).values().stream()
                .map(Outcome::unit)
                .filter(Unit::known)
                .findFirst()
                .orElse(Unit.UNKNOWN);
    }

    /** The unit that one lane's number is shown in: that of the reading, its own where the two do not compare. */
    public Unit shown(String reading, Unit own) {
        Unit unit = unit(reading);
        return own.comparable(unit) ? unit : own;
    }
}
