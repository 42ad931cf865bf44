package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;

/**
 * A straight line from A to B.
 *
 * @param abscissa what profiles on it are drawn against
 */
public record Line(Point a, Point b, Sampling sampling, Abscissa abscissa) implements Shape.Path {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "line";
        }

        @Override
        public Class<Line> type() {
            return Line.class;
        }
    }

    public Line {
        abscissa = abscissa == null ? Abscissa.ARC : abscissa;
        if (a.equals(b)) {
            throw new LaneException("A line has both ends at one place, " + a + "; move one of them.");
        }
    }

    @Override
    public double length() {
        return b.minus(a).norm();
    }

    @Override
    public Shape through(Axis frame) {
        return new Line(frame.out(a), frame.out(b), sampling, abscissa.through(frame));
    }

    @Override
    public String word() {
        return "line";
    }

    @Override
    public List<Point> corners() {
        return List.of(a, b);
    }

    @Override
    public Line moved(Point by) {
        return between(a.plus(by), b.plus(by));
    }

    @Override
    public Line sampled(Sampling other, Abscissa against) {
        return new Line(a, b, other, against);
    }

    public Line between(Point newA, Point newB) {
        return new Line(newA, newB, sampling, abscissa);
    }
}
