package lane.reading;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.station.CurveAxis;
import lane.unit.Unit;

/**
 * What was written down while a run was going on, over time or iterations: tables answer it, and no run does.
 *
 * @param what is written down, in words; two monitors of the same words are the same
 * @param along what it is written down along, such as time or iteration
 * @param alongUnit of that; {@code 1} for a number of steps
 */
public record MonitorOf(String what, String along, String alongUnit) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "monitor";
        }

        @Override
        public Class<MonitorOf> type() {
            return MonitorOf.class;
        }
    }

    public MonitorOf {
        what = what == null ? "" : what;
        along = along == null || along.isBlank() ? "time" : along;
        alongUnit = alongUnit == null || alongUnit.isBlank() ? "s" : alongUnit;
        if (!Unit.of(alongUnit).known()) {
            throw new LaneException(
                    "What a monitor is written down along needs a unit; write s for a time or 1 for a number of steps.");
        }
    }

    /** Whether another one is of the same thing, whatever unit its time is counted in. */
    public boolean alike(MonitorOf other) {
        return what.equals(other.what)
                && along.equals(other.along)
                && Unit.of(alongUnit).comparable(Unit.of(other.alongUnit));
    }

    @Override
    public Form form() {
        return Form.CURVE;
    }

    @Override
    public List<String> stations() {
        return List.of();
    }

    @Override
    public Set<String> quantities() {
        return Set.of();
    }

    @Override
    public Optional<CurveAxis> clock() {
        return Optional.of(new CurveAxis(along, Unit.of(alongUnit)));
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        return new Outcome.Absent(
                Fault.NO_VALUE,
                "\"" + reading.name() + "\" stands in tables only; of a run, a history goes over its stored times.");
    }
}
