package lane.measure;

import lane.base.LaneException;
import lane.evaluation.PathIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.unit.Unit;

/** Length of a line or curve within the run, of a rim, of a section through a surface. */
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
    public Measured over(SurfaceIntegral surface) {
        return new Measured(surface.length(), Unit.of("m"));
    }

    @Override
    public Measured along(PathIntegral path) {
        if (path.points()) {
            throw new LaneException("Points have no length; take it of a line or a curve.");
        }
        return new Measured(path.length(), Unit.of("m"));
    }
}
