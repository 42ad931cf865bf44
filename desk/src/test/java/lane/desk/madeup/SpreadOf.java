package lane.desk.madeup;

import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.desk.readings.AskForm;
import lane.reading.Ask;
import lane.reading.AskKind;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Tally;

/** A made-up kind of reading: how far the values along a station lie apart. */
public record SpreadOf(String station, String quantity) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "spread";
        }

        @Override
        public Class<SpreadOf> type() {
            return SpreadOf.class;
        }
    }

    /** In the window. */
    public static final class InWindow implements AskForm {
        @Override
        public String word() {
            return "spread";
        }

        @Override
        public Class<SpreadOf> type() {
            return SpreadOf.class;
        }

        @Override
        public String group() {
            return "Spreads";
        }
    }

    @Override
    public Ask.Form form() {
        return Ask.Form.NUMBER;
    }

    @Override
    public List<String> stations() {
        return List.of(station);
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Outcome along = new ProfileOf(station, quantity).read(reading, on);
        if (!(along instanceof Profile p)) {
            return along;
        }
        return new Tally(p.range(), p.unit().difference(), Map.of(), "", "spread of " + p.note(), p.trail());
    }
}
