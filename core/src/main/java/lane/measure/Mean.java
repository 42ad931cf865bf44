package lane.measure;

import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.evaluation.BoundQuantity;
import lane.evaluation.Linear;
import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.quantity.Quantity;

/** Mean of a quantity, weighted by area, volume or length. */
public record Mean(String quantity) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "mean";
        }

        @Override
        public Class<Mean> type() {
            return Mean.class;
        }
    }

    @Override
    public String word() {
        return "mean of " + quantity;
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
        return Stored.mean(quantity, values);
    }

    /** Integral and area, in SI units. */
    static double[] sums(SurfaceIntegral surface, String quantity) {
        BoundQuantity bound = surface.ready(quantity).number();
        double[] s = surface.linear(quantity, new Linear.Area(), true);
        return new double[] {bound.factor() * s[0] + bound.offset() * s[1], s[1]};
    }

    /** The mean of a constant is the constant, to its last digit. */
    private static double of(BoundQuantity bound, double integral, double size) {
        return bound.constant().orElse(integral / size);
    }

    /** Of a vector there is one along each axis. */
    @Override
    public boolean directed() {
        return true;
    }

    @Override
    public Mean component(int d, UnaryOperator<String> part) {
        return new Mean(part.apply(quantity));
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        BoundQuantity bound = surface.ready(quantity).number();
        double[] s = sums(surface, quantity);
        return new Measured(of(bound, s[0], s[1]), bound.unit());
    }

    @Override
    public Measured within(RegionIntegral region) {
        Quantity q = region.lens().quantity(quantity);
        BoundQuantity bound = region.ready(q);
        double[] s = region.sums(q);
        return new Measured(of(bound, s[0], s[1]), bound.unit());
    }

    @Override
    public Measured along(PathIntegral path) {
        Quantity q = path.lens().quantity(quantity);
        BoundQuantity bound = path.bound(q);
        return new Measured(of(bound, path.integral(path.values(q)), path.length()), bound.unit());
    }
}
