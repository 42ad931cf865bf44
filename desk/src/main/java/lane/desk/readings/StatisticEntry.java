package lane.desk.readings;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import lane.desk.Session;
import lane.measure.Measure;
import lane.measure.Statistic;
import lane.measure.Statistic.What;
import lane.quantity.Quantity;

/** See {@link Statistic}: how values are spread. */
public final class StatisticEntry implements MeasureEntry {
    private static final double FIRST = 0.95;

    @Override
    public String word() {
        return "statistic";
    }

    @Override
    public Class<Statistic> type() {
        return Statistic.class;
    }

    @Override
    public List<Choice> choices() {
        return Arrays.stream(What.values())
                .map(w -> new Choice(
                        title(w),
                        s -> first(s, w).map(q -> new Statistic(w, q, w == What.PERCENTILE ? FIRST : 0)),
                        w == What.SHARE
                                ? "no quantity is a condition; define one at Quantities, such as T > 300 \"K\"."
                                : MeasureChoices.needs(false, false)))
                .toList();
    }

    private static Optional<String> first(Session session, What what) {
        return (what == What.SHARE
                        ? MeasureChoices.conditions(session).stream()
                        : MeasureChoices.scalars(session).stream())
                .findFirst()
                .map(Quantity::id);
    }

    private static String title(What what) {
        return what == What.SHARE ? "share where it holds" : what.word();
    }

    @Override
    public String title(Measure measure) {
        return title(((Statistic) measure).what());
    }

    @Override
    public void rows(MeasureForm form, Measure measure) {
        var s = (Statistic) measure;
        if (s.what() == What.SHARE) {
            form.condition(s.quantity(), q -> new Statistic(s.what(), q, s.share(), s.values()));
        } else {
            form.scalar(s.quantity(), q -> new Statistic(s.what(), q, s.share(), s.values()));
        }
        if (s.what() == What.PERCENTILE) {
            form.percent("at", s.share(), v -> new Statistic(s.what(), s.quantity(), v, s.values()));
        }
    }
}
