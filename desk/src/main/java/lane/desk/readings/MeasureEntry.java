package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import lane.base.Kinds;
import lane.desk.Session;
import lane.measure.Measure;

/** How a kind of measure is chosen and set in the window: one class a kind, found as a service. */
public interface MeasureEntry extends Kinds.Kind<Measure> {
    Kinds<Measure, MeasureEntry> ALL = Kinds.of(MeasureEntry.class);

    /**
     * A line in the choice of measures.
     *
     * @param first one to begin with; empty where no quantity fits
     * @param needs what to add then
     */
    record Choice(String title, Function<Session, Optional<? extends Measure>> first, String needs) {}

    List<Choice> choices();

    /** The title that a measure stands under. */
    default String title(Measure measure) {
        return choices().getFirst().title();
    }

    /**
     * In a few words.
     *
     * @param what names of its quantities
     */
    default String words(Measure measure, String what) {
        return what.isEmpty() ? title(measure) : title(measure) + " " + what;
    }

    /** Its settings. */
    default void rows(MeasureForm form, Measure measure) {}
}
