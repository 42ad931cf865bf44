package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import lane.mesh.Point;
import lane.station.Arc;
import lane.station.CutCurve;
import lane.station.Line;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Shell;
import lane.station.Station;

/** Places of a station that can be dragged, and the station after one was. */
final class Grips {
    /** More points than this are moved by numbers or a table. */
    private static final int MOST = 40;

    private Grips() {}

    static List<FieldPane.Grip> of(Station station) {
        return switch (station.shape()) {
            case Line l -> List.of(free(l.a()), free(l.b()));
            case Polyline p
            when p.points().size() <= MOST ->
                p.points().stream().map(Grips::free).toList();
            case Points p
            when p.points().size() <= MOST ->
                p.points().stream().map(Grips::free).toList();
            case Section s -> List.of(new FieldPane.Grip(s.point(), s.normal()));
            case CutCurve c -> List.of(new FieldPane.Grip(c.point(), c.normal()));
            case Arc a ->
                List.of(new FieldPane.Grip(
                        a.axis().place(a.radius(), Math.toRadians(a.from()), a.along()),
                        a.axis().direction()));
            case Shell s -> {
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
        return station.shaped(moved(station.shape(), grip, to));
    }

    private static Shape moved(Shape shape, int grip, Point to) {
        return switch (shape) {
            case Line l -> grip == 0 ? l.between(to, l.b()) : l.between(l.a(), to);
            case Polyline p -> new Polyline(with(p.points(), grip, to), p.sampling(), p.abscissa());
            case Points p -> p.at(with(p.points(), grip, to));
            case Section s -> s.at(to, s.normal());
            case CutCurve c -> c.moved(to.minus(c.point()));
            case Arc a -> {
                double along = a.axis().along(to.x(), to.y(), to.z());
                yield new Arc(a.axis(), a.radius(), along, a.from(), a.to(), a.sampling(), a.abscissa());
            }
            case Shell s -> new Shell(s.axis(), s.axis().radius(to.x(), to.y(), to.z()), s.from(), s.to(), s.seam());
            default -> shape;
        };
    }

    private static List<Point> with(List<Point> points, int at, Point p) {
        List<Point> next = new ArrayList<>(points);
        next.set(at, p);
        return next;
    }
}
