package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;

/**
 * A part of a circle about an axis.
 *
 * @param along place of the circle on the axis
 * @param from and {@code to}: angles in degrees
 */
public record Arc(Axis axis, double radius, double along, double from, double to, Sampling sampling, Abscissa abscissa)
        implements Shape.Path {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "arc";
        }

        @Override
        public Class<Arc> type() {
            return Arc.class;
        }
    }

    public Arc {
        abscissa = abscissa == null ? Abscissa.ARC : abscissa;
        if (!(radius > 0) || !(Math.abs(to - from) > 0) || Math.abs(to - from) > 360) {
            throw new LaneException("An arc needs a positive radius and two angles that are at most"
                    + " 360 degrees apart; it has radius " + radius + " m, from " + from + " to " + to + ".");
        }
    }

    @Override
    public Shape through(Axis frame) {
        return new Arc(frame.out(axis), radius, along, from, to, sampling, abscissa.through(frame));
    }

    @Override
    public String word() {
        return "arc";
    }

    @Override
    public double length() {
        return Math.toRadians(Math.abs(to - from)) * radius;
    }

    @Override
    public List<Point> corners() {
        int n = (int) Math.ceil(Math.abs(to - from));
        return java.util.stream.IntStream.rangeClosed(0, n)
                .mapToObj(i -> axis.place(radius, Math.toRadians(from + (to - from) * i / n), along))
                .toList();
    }

    @Override
    public Arc moved(Point by) {
        return new Arc(axis.moved(by), radius, along, from, to, sampling, abscissa);
    }

    @Override
    public Arc sampled(Sampling other, Abscissa against) {
        return new Arc(axis, radius, along, from, to, other, against);
    }

    @Override
    public Point at(double share) {
        return axis.place(radius, Math.toRadians(from + share * (to - from)), along);
    }

    @Override
    public double along(double x, double y, double z) {
        double near = Locus.NEAR * length();
        if (Math.abs(axis.along(x, y, z) - along) > near || Math.abs(axis.radius(x, y, z) - radius) > near) {
            return Double.NaN;
        }
        double span = Math.toRadians(to - from);
        double turn = (axis.angle(x, y, z) - Math.toRadians(from)) * Math.signum(span);
        turn -= 2 * Math.PI * Math.floor(turn / (2 * Math.PI));
        double over = turn - Math.abs(span);
        double slack = near / radius;
        // Just before the start is nearly a full turn.
        if (turn > 2 * Math.PI - slack && over > 0) {
            return 0;
        }
        return over > slack ? Double.NaN : Math.min(turn, Math.abs(span)) * radius;
    }
}
