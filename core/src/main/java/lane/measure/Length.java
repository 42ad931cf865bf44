package lane.measure;

import lane.base.LaneException;
import lane.evaluation.PathIntegral;
import lane.unit.Unit;

/** Length of a line or curve within the run. */
public record Length() implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "length";
        }

        @Override
        public Class<Length> type() {
            return Length.class;
        }
    }

    @Override
    public String word() {
        return "length";
    }

    @Override
    public Measured along(PathIntegral path) {
        if (path.points()) {
            throw new LaneException("Points have no length; take it of a line or a curve.");
        }
        return new Measured(path.length(), Unit.of("m"));
    }
}
