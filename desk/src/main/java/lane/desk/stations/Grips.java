package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import lane.mesh.Point;
import lane.station.Station;

/** Places of a station that can be dragged, and the station after one was. */
final class Grips {
    /** More points than this are moved by numbers or a table. */
    private static final int MOST = 40;

    private Grips() {}

    static List<FieldPane.Grip> of(Station station) {
        return switch (station) {
            case Station.Line l -> List.of(free(l.a()), free(l.b()));
            case Station.Polyline p
            when p.points().size() <= MOST ->
                p.points().stream().map(Grips::free).toList();
            case Station.Points p
            when p.points().size() <= MOST ->
                p.points().stream().map(Grips::free).toList();
            case Station.Section s -> List.of(new FieldPane.Grip(s.point(), s.normal()));
            case Station.CutCurve c -> List.of(new FieldPane.Grip(c.point(), c.normal()));
            case Station.Arc a ->
                List.of(new FieldPane.Grip(
                        a.axis().place(a.radius(), Math.toRadians(a.from()), a.along()),
                        a.axis().direction()));
            case Station.Shell s -> {
                double middle = s.from() != null && s.to() != null ? (s.from() + s.to()) / 2 : 0;
                Point at = s.axis().place(s.radius(), 0, middle);
                yield List.of(new FieldPane.Grip(at, s.axis().zero()));
            }
            default -> List.of();
        };
    }

    private static FieldPane.Grip free(Point p) {
        return new FieldPane.Grip(p, null);
    }

    static Station moved(Station station, int grip, Point to) {
        return switch (station) {
            case Station.Line l -> grip == 0 ? l.between(to, l.b()) : l.between(l.a(), to);
            case Station.Polyline p ->
                new Station.Polyline(p.id(), p.name(), with(p.points(), grip, to), p.sampling(), p.abscissa());
            case Station.Points p -> new Station.Points(p.id(), p.name(), with(p.points(), grip, to));
            case Station.Section s -> s.at(to, s.normal());
            case Station.CutCurve c -> c.moved(to.minus(c.point()));
            case Station.Arc a -> {
                double along = a.axis().along(to.x(), to.y(), to.z());
                yield new Station.Arc(
                        a.id(), a.name(), a.axis(), a.radius(), along, a.from(), a.to(), a.sampling(), a.abscissa());
            }
            case Station.Shell s ->
                new Station.Shell(
                        s.id(),
                        s.name(),
                        s.axis(),
                        s.axis().radius(to.x(), to.y(), to.z()),
                        s.from(),
                        s.to(),
                        s.seam());
            default -> station;
        };
    }

    private static List<Point> with(List<Point> points, int at, Point p) {
        List<Point> next = new ArrayList<>(points);
        next.set(at, p);
        return next;
    }
}
