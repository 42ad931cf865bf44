package lane.desk;

import java.util.List;
import java.util.TreeSet;
import lane.field.TimeSelector;
import lane.study.Source;

/** Which of the stored times all runs are looked at. */
public final class TimeChoice {
    private TimeChoice() {}

    /** All times that runs have, ascending. */
    public static List<Double> all(Session session) {
        var all = new TreeSet<Double>();
        session.results().known().forEach(r -> all.addAll(r.times()));
        return List.copyOf(all);
    }

    /** Looks at a time in all runs that follow the study; those that have a choice of their own keep it. */
    public static void choose(Session session, TimeSelector moment) {
        session.edit("Choose time", s -> s.withTime(moment), true);
    }

    /** The place among all times that is looked at. */
    public static int at(Session session, List<Double> all) {
        double now = session.study().sources().stream()
                .filter(s -> s instanceof Source.Simulation r && r.treatment().time() == null)
                .flatMap(s -> session.results().standing(s.id()).stream())
                .filter(r -> r.times().size() > 1)
                .mapToDouble(r -> r.time())
                .findFirst()
                .orElse(Double.NaN);
        int best = all.size() - 1;
        for (int i = 0; i < all.size(); i++) {
            best = Math.abs(all.get(i) - now) < Math.abs(all.get(best) - now) ? i : best;
        }
        return best;
    }
}
