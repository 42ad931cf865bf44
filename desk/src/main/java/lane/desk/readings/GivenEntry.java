package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import lane.measure.Given;
import lane.measure.Measure;
import lane.unit.Unit;

/** See {@link Given}: a number that somebody typed, with its source. */
public final class GivenEntry implements MeasureEntry {
    @Override
    public String word() {
        return "given";
    }

    @Override
    public Class<Given> type() {
        return Given.class;
    }

    @Override
    public List<Choice> choices() {
        return List.of(new Choice("typed value", s -> Optional.of(new Given(0, "", "to be said")), ""));
    }

    @Override
    public void rows(MeasureForm form, Measure measure) {
        var g = (Given) measure;
        form.value("Value", "given", g.value(), g.unit(), v -> new Given(v, g.unit(), g.source()));
        form.text("in", "given-unit", g.unit(), u -> {
            Unit.of(u);
            return new Given(g.value(), u, g.source());
        });
        form.text("Source", "given-source", g.source(), t -> new Given(g.value(), g.unit(), t));
    }
}
