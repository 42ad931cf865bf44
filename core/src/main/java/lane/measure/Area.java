package lane.measure;

import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.unit.Unit;

/** How large the station is: area, volume, length, number of points. */
public record Area() implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "area";
        }

        @Override
        public Class<Area> type() {
            return Area.class;
        }
    }

    @Override
    public String word() {
        return "area";
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        return new Measured(surface.geometry()[3], surface.over());
    }

    @Override
    public Measured within(RegionIntegral region) {
        return new Measured(region.sums(null)[1], Unit.of("m3"));
    }

    @Override
    public Measured along(PathIntegral path) {
        return new Measured(path.length(), path.points() ? Unit.ONE : Unit.of("m"));
    }
}
