package lane.measure;

import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.evaluation.BoundQuantity;
import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.quantity.Quantity;
import lane.unit.Unit;

/** Integral of a quantity over area, volume or length. */
public record Integral(String quantity) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "integral";
        }

        @Override
        public Class<Integral> type() {
            return Integral.class;
        }
    }

    @Override
    public String word() {
        return "integral of " + quantity;
    }

    @Override
    public String sign() {
        return "positive where the quantity is";
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Optional<By> by() {
        return Optional.of(By.QUADRATURE);
    }

    @Override
    public Optional<Measure> by(By values) {
        return Stored.integral(quantity, values);
    }

    private Measured of(double value, BoundQuantity bound, String size) {
        return new Measured(value, bound.unit().si().times(Unit.of(size))).signed(sign());
    }

    /** Of a vector there is one along each axis. */
    @Override
    public boolean directed() {
        return true;
    }

    @Override
    public Integral component(int d, UnaryOperator<String> part) {
        return new Integral(part.apply(quantity));
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        return of(
                Mean.sums(surface, quantity)[0],
                surface.ready(quantity),
                surface.over().symbol());
    }

    @Override
    public Measured within(RegionIntegral region) {
        Quantity q = region.lens().quantity(quantity);
        return of(region.sums(q)[0], region.ready(q), "m3");
    }

    @Override
    public Measured along(PathIntegral path) {
        Quantity q = path.lens().quantity(quantity);
        return of(path.integral(path.values(q)), path.bound(q), path.points() ? "1" : "m");
    }
}
