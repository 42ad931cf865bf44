package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.base.Plain;
import lane.mesh.Axis;
import lane.mesh.Point;

/** A chain of straight pieces. */
public record Polyline(List<Point> points, Sampling sampling, Abscissa abscissa) implements Shape.Path {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "polyline";
        }

        @Override
        public Class<Polyline> type() {
            return Polyline.class;
        }
    }

    public Polyline {
        abscissa = abscissa == null ? Abscissa.ARC : abscissa;
        points = List.copyOf(points);
        if (points.size() < 2) {
            throw new LaneException("A polyline has " + Plain.count(points.size(), "point") + "; give at least 2.");
        }
        for (int i = 1; i < points.size(); i++) {
            if (points.get(i).equals(points.get(i - 1))) {
                throw new LaneException(
                        "Points " + i + " and " + (i + 1) + " of a polyline are at one place; remove one of them.");
            }
        }
    }

    @Override
    public Shape through(Axis frame) {
        return new Polyline(points.stream().map(frame::out).toList(), sampling, abscissa.through(frame));
    }

    @Override
    public String word() {
        return "polyline";
    }

    @Override
    public double length() {
        double sum = 0;
        for (int i = 1; i < points.size(); i++) {
            sum += points.get(i).minus(points.get(i - 1)).norm();
        }
        return sum;
    }

    @Override
    public List<Point> corners() {
        return points;
    }

    @Override
    public Polyline moved(Point by) {
        return new Polyline(points.stream().map(p -> p.plus(by)).toList(), sampling, abscissa);
    }

    @Override
    public Polyline sampled(Sampling other, Abscissa against) {
        return new Polyline(points, other, against);
    }
}
