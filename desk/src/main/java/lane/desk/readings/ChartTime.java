package lane.desk.readings;

import lane.desk.Session;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.reading.HistoryOf;
import lane.reading.Reading;
import lane.station.CurveAxis;
import lane.unit.Unit;

/** The time of a history's marker and that of the pictures, which are one. */
final class ChartTime {
    private ChartTime() {}

    /** The time that is looked at, in SI units as the history tells it; NaN where there is none. */
    static double looked(Session session, Reading reading) {
        return reading.ask() instanceof HistoryOf h && h.clock().isPresent()
                ? h.clock()
                        .get()
                        .unit()
                        .toSi(session.results().runs().values().stream()
                                .filter(r -> r.times().size() > 1)
                                .mapToDouble(Run::time)
                                .findFirst()
                                .orElse(Double.NaN))
                : Double.NaN;
    }

    /** Looks at the stored time nearest to a place of a history. */
    static void choose(Session session, Reading reading, double si) {
        if (!(reading.ask() instanceof HistoryOf h) || Double.isNaN(si)) {
            return;
        }
        Unit unit = h.clock().map(CurveAxis::unit).orElse(Unit.ONE);
        double at = unit.fromSi(si);
        session.results().runs().values().stream()
                .filter(r -> r.times().size() > 1)
                .findFirst()
                .flatMap(r -> r.times().stream().min(java.util.Comparator.comparingDouble(t -> Math.abs(t - at))))
                .ifPresent(t -> lane.desk.TimeChoice.choose(session, new TimeSelector.At(t, 0)));
    }
}
