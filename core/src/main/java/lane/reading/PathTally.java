package lane.reading;

import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Sum;
import lane.field.Run;
import lane.quantity.Quantity;
import lane.station.Placement;
import lane.station.Points;
import lane.station.Station;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * One number over a path, weighted by length as its samples stand for it (exact for the interpolant when it is cut at
 * every cell), or over points, which weigh the same: length, mean, integral, least and greatest value. Only what lies in
 * the run counts.
 */
public final class PathTally {
    private PathTally() {}

    /** @throws LaneException when nothing lies in the run, or the measure has no meaning on a path */
    public static Tally of(
            Run run, Placement placement, Station station, Measure measure, Lens lens, String unitText, Trail trail) {
        if (placement.found() == 0) {
            throw new LaneException(
                    Fault.OUTSIDE,
                    "The " + station.word() + " \"" + station.name() + "\" lies outside this run; move it.");
        }
        boolean points = station.shape() instanceof Points;
        String key =
                switch (measure) {
                    case Measure.Area _ -> "";
                    case Measure.Mean m -> m.quantity();
                    case Measure.Integral m -> m.quantity();
                    case Measure.Extreme m -> m.quantity();
                    default ->
                        throw new LaneException(
                                "A " + TallyReader.describe(measure)
                                        + " is taken over surfaces; over a path take its length, a mean, an integral or an extreme.");
                };
        var sum = new Sum();
        var length = new Sum();
        double best = Double.NaN;
        int at = -1;
        Profile read = key.isEmpty() ? null : read(run, placement, station, lens.quantity(key), lens);
        for (int i = 0; i < placement.size(); i++) {
            if (placement.cell()[i] < 0) {
                continue;
            }
            double w = placement.weight()[i];
            length.add(w);
            if (read != null) {
                double v = read.value()[i];
                sum.add(w * v);
                boolean greatest = measure instanceof Measure.Extreme e && e.greatest();
                if (Double.isNaN(best) || (greatest ? v > best : v < best)) {
                    best = v;
                    at = i;
                }
            }
        }
        Unit metre = points ? Unit.ONE : Unit.of("m");
        double value =
                switch (measure) {
                    case Measure.Area _ -> length.value();
                    case Measure.Mean _ -> sum.value() / length.value();
                    case Measure.Integral _ -> sum.value();
                    default -> best;
                };
        Unit natural = read == null
                ? metre
                : measure instanceof Measure.Integral ? read.unit().si().times(metre) : read.unit();
        Unit shown = Outcome.shown(unitText, natural, "Tally");
        String place =
                measure instanceof Measure.Extreme && at >= 0 ? " at " + TallyReader.at(placement.place(at)) : "";
        String what = measure instanceof Measure.Area
                ? points ? "number of points" : "length"
                : TallyReader.describe(measure);
        Trail full = (read == null ? trail : read.trail())
                .then("reading", what, Map.of("measure", measure.toString(), "unit", shown.label()));
        return new Tally(
                value,
                shown,
                Map.of(),
                measure.sign(),
                what + " over " + station.name() + ", " + placement.found() + " of " + placement.size() + " samples"
                        + place,
                full);
    }

    private static Profile read(Run run, Placement placement, Station station, Quantity quantity, Lens lens) {
        return ProfileReader.read(run, placement, station, quantity, lens, "", Trail.EMPTY);
    }
}
