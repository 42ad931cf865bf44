package lane.measure;

import java.util.List;
import java.util.Set;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.SurfaceIntegral;

/** Mean of a quantity, weighted by the flow of a vector through the surface: what a stirred cup would hold. */
public record WeightedMean(String quantity, String vector) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "weighted-mean";
        }

        @Override
        public Class<WeightedMean> type() {
            return WeightedMean.class;
        }
    }

    @Override
    public String word() {
        return "mean of " + quantity + " by flow of " + vector;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity, vector);
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        BoundQuantity ready = surface.ready(quantity).number();
        surface.ready(vector).vector();
        double[] s = surface.of("weighted", List.of(quantity, vector), 3, (at, sums) -> {
            double[] u = at.value[1];
            double through = u[0] * at.nx + u[1] * at.ny + u[2] * at.nz;
            sums[0].add(at.value[0][0] * through);
            sums[1].add(through);
            sums[2].add(at.area * Math.sqrt(u[0] * u[0] + u[1] * u[1] + u[2] * u[2]));
        });
        if (!(Math.abs(s[1]) > 1e-9 * s[2])) {
            throw new LaneException("No net flow of \"" + vector + "\" passes here, so a mean weighted by it has"
                    + " no meaning; take the mean by area.");
        }
        return new Measured(ready.factor() * s[0] / s[1] + ready.offset(), ready.unit());
    }
}
