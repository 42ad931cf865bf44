package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import lane.base.LaneException;
import lane.base.Work;
import lane.desk.Session;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Run;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.Profile;
import lane.reading.ProfileReader;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Points;
import lane.station.Station;
import lane.study.Source;
import lane.unit.Unit;

/** The value of a quantity at one place in every lane that is on. */
final class LanesAt {
    private LanesAt() {}

    /** @param value in SI units; NaN where the lane has none there */
    record One(String lane, double value, Unit unit) {}

    private static boolean inMemory(Run run, Set<String> fields) {
        return run.fields().stream().filter(f -> fields.contains(f.name())).allMatch(Field::inMemory);
    }

    /** Runs whose cells are not yet in order, or whose numbers still have to be read, are left out, as looking would take long. */
    static List<One> of(Session session, Point place, Quantity quantity, EvaluationContext lens) {
        List<One> out = new ArrayList<>();
        var point = new Station("", "place", new Points(List.of(place)));
        for (Source source : session.study().lanes()) {
            Run run = session.results().runs().get(source.id());
            if (run == null || !run.located() || !inMemory(run, lens.fields(quantity))) {
                continue;
            }
            try {
                boolean meridian = run.stated().turn() != null && run.mesh().dimension() == 2;
                Placement at = Placer.points(
                        run.locator(),
                        new double[] {place.x(), place.y(), place.z()},
                        meridian ? lens.axis() : null,
                        Work.QUIET);
                Profile p = ProfileReader.read(run, at, point, quantity, lens, "", Provenance.EMPTY);
                out.add(new One(source.name(), p.value()[0], p.unit()));
            } catch (LaneException e) {
                out.add(new One(source.name(), Double.NaN, Unit.UNKNOWN));
            }
        }
        return out;
    }
}
