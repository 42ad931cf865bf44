package lane.desk.readings;

import java.util.List;
import lane.measure.Heat;
import lane.measure.Measure;

/** See {@link Heat}: conducted through a surface, from a gradient. */
public final class HeatEntry implements MeasureEntry {
    @Override
    public String word() {
        return "heat";
    }

    @Override
    public Class<Heat> type() {
        return Heat.class;
    }

    @Override
    public List<Choice> choices() {
        return List.of(new Choice(
                "heat conducted",
                s -> MeasureChoices.temperatures(s).stream().findFirst().map(q -> new Heat(q.id(), "", 0)),
                "no run has a temperature; state the unit of one at Quantities."));
    }

    @Override
    public void rows(MeasureForm form, Measure measure) {
        var h = (Heat) measure;
        form.inUnit("of", "temperature", "K", h.temperature(), "none", t -> new Heat(t, h.conductivity(), h.value()));
        form.inUnit(
                "Conductivity",
                "conductivity",
                "W/(m K)",
                h.conductivity(),
                "stated",
                k -> new Heat(h.temperature(), k, h.value()));
        if (h.conductivity().isBlank()) {
            form.value("is", "k", h.value(), "W/(m K)", v -> new Heat(h.temperature(), "", v));
        }
    }
}
