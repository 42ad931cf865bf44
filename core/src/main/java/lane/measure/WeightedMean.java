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
            double[][] u = at.value[1];
            double[] term = at.through(u);
            sums[1].add(term, at.n);
            sums[0].addProducts(at.value[0][0], term, at.n);
            for (int i = 0; i < at.n; i++) {
                term[i] = at.area()[i] * Math.sqrt(u[0][i] * u[0][i] + u[1][i] * u[1][i] + u[2][i] * u[2][i]);
            }
            sums[2].add(term, at.n);
        });
        if (!(Math.abs(s[1]) > 1e-9 * s[2])) {
            throw new LaneException("No net flow of \"" + vector + "\" passes here, so a mean weighted by it has"
                    + " no meaning; take the mean by area.");
        }
        return new Measured(ready.factor() * s[0] / s[1] + ready.offset(), ready.unit());
    }
}
