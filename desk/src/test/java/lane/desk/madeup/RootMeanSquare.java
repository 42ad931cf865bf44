package lane.desk.madeup;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lane.desk.readings.MeasureEntry;
import lane.evaluation.PathIntegral;
import lane.measure.Measure;
import lane.measure.MeasureKind;
import lane.measure.Measured;

/** A made-up measure along paths. */
public record RootMeanSquare(String quantity) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "root-mean-square";
        }

        @Override
        public Class<RootMeanSquare> type() {
            return RootMeanSquare.class;
        }
    }

    /** In the window. */
    public static final class InWindow implements MeasureEntry {
        @Override
        public String word() {
            return "root-mean-square";
        }

        @Override
        public Class<RootMeanSquare> type() {
            return RootMeanSquare.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(new Choice("root mean square", s -> Optional.empty(), "take another."));
        }
    }

    @Override
    public String word() {
        return "root mean square of " + quantity;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Measured along(PathIntegral path) {
        var q = path.lens().quantity(quantity);
        double[] v = path.values(q);
        for (int i = 0; i < v.length; i++) {
            v[i] *= v[i];
        }
        return new Measured(
                Math.sqrt(path.integral(v) / path.length()), path.bound(q).unit(), Map.of(), "", "");
    }
}
