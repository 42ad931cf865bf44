package lane.measure;

import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.evaluation.SurfaceIntegral;
import lane.mesh.Point;
import lane.unit.Unit;

/** Component of the force along a direction: {@code (p - ref) n} and the wall shear, apart and together. */
public record Force(Loads loads, Point direction) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "force";
        }

        @Override
        public Class<Force> type() {
            return Force.class;
        }
    }

    @Override
    public String word() {
        return "force";
    }

    @Override
    public String sign() {
        return "positive pushes " + loads.on().word() + " along " + Loads.text(direction);
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
        return Optional.of(direction.unit());
    }

    @Override
    public Optional<Measure> flipped() {
        return Optional.of(new Force(loads, direction.times(-1)));
    }

    @Override
    public Force component(int d, UnaryOperator<String> part) {
        return new Force(loads, Point.along(d));
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        surface.needsNormals("force");
        Point d = direction.unit();
        return Loads.of(surface, loads, Unit.of("N"), new Loads.Along(d)).signed(sign());
    }
}
