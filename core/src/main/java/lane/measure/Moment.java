package lane.measure;

import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.evaluation.SurfaceIntegral;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/** Component of the moment along an axis, about a point of it, right-hand rule. */
public record Moment(Loads loads, Axis axis) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "moment";
        }

        @Override
        public Class<Moment> type() {
            return Moment.class;
        }
    }

    @Override
    public String word() {
        return "moment";
    }

    @Override
    public String sign() {
        return "positive turns " + loads.on().word() + " about " + Loads.text(axis.direction()) + ", right-hand rule";
    }

    @Override
    public Set<String> quantities() {
        return loads.quantities();
    }

    @Override
    public boolean directed() {
        return true;
    }

    @Override
    public Optional<Point> along() {
        return Optional.of(axis.direction());
    }

    @Override
    public Optional<Measure> flipped() {
        return Optional.of(
                new Moment(loads, new Axis(axis.origin(), axis.direction().times(-1))));
    }

    /** About the axis through the same origin. */
    @Override
    public Moment component(int d, UnaryOperator<String> part) {
        return new Moment(loads, new Axis(axis.origin(), Point.along(d)));
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        surface.needsNormals("moment");
        return Loads.of(surface, loads, Unit.of("N m"), new Loads.About(axis)).signed(sign());
    }

    /** Component along the axis of (place - origin) x (fx, fy, fz). */
    static double of(Axis axis, double x, double y, double z, double fx, double fy, double fz) {
        Point o = axis.origin();
        Point d = axis.direction();
        double px = x - o.x();
        double py = y - o.y();
        double pz = z - o.z();
        return d.x() * (py * fz - pz * fy) + d.y() * (pz * fx - px * fz) + d.z() * (px * fy - py * fx);
    }
}
