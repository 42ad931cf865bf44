package lane.measure;

import java.util.Set;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Run;

/** A quantity that is one number a lane, such as a ratio of two integrals: that number, over no station. */
public record Value(String quantity) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "value";
        }

        @Override
        public Class<Value> type() {
            return Value.class;
        }
    }

    @Override
    public String word() {
        return "value of " + quantity;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public boolean placeless() {
        return true;
    }

    @Override
    public Measured of(Run run, EvaluationContext lens) {
        BoundQuantity bound =
                BoundQuantity.of(run, lens.quantity(quantity), lens).number();
        double value = bound.constant()
                .orElseThrow(() -> new LaneException("The quantity \""
                        + lens.quantity(quantity).name()
                        + "\" has another value at each place and is no single number; take a mean, an integral or an"
                        + " extreme of it over a station."));
        return new Measured(value, bound.unit());
    }
}
