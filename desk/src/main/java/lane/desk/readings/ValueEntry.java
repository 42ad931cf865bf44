package lane.desk.readings;

import java.util.List;
import lane.measure.Measure;
import lane.measure.Value;

/** See {@link Value}: a quantity that is one number a lane. */
public final class ValueEntry implements MeasureEntry {
    @Override
    public String word() {
        return "value";
    }

    @Override
    public Class<Value> type() {
        return Value.class;
    }

    @Override
    public List<Choice> choices() {
        return List.of(new Choice(
                "value, one a lane",
                s -> MeasureChoices.single(s).map(q -> new Value(q.id())),
                "no quantity is one number a lane; define one at Quantities, such as the ratio of two means."));
    }

    @Override
    public String words(Measure measure, String what) {
        return "value of " + what;
    }

    @Override
    public void rows(MeasureForm form, Measure measure) {
        form.single(((Value) measure).quantity(), Value::new);
    }
}
