package lane.mesh;

import org.jspecify.annotations.Nullable;

/**
 * A directed line in space, with the direction that angles about it are counted from (right-hand rule).
 *
 * @param origin a point on it, in metres; lengths along the axis are counted from here
 * @param direction any length but zero
 * @param zero the direction of angle zero, square to the axis
 */
public record Axis(Point origin, Point direction, Point zero) {
    public static final Axis Z = new Axis(new Point(0, 0, 0), new Point(0, 0, 1));

    /**
     * @param zero null for the direction nearest to x, or to y about x itself
     * @throws lane.base.LaneException when the direction is zero, or that of angle zero lies along the axis
     */
    public Axis(Point origin, Point direction, @Nullable Point zero) {
        this.origin = origin;
        this.direction = direction.unit();
        Point towards =
                zero != null ? zero : Math.abs(this.direction.x()) < 0.999 ? new Point(1, 0, 0) : new Point(0, 1, 0);
        double along = towards.dot(this.direction);
        // What is square to round-off stays bit for bit, so that a study reads back as it was written.
        Point square = Math.abs(along) <= 4e-16 * towards.norm() ? towards : towards.minus(this.direction.times(along));
        if (square.norm() <= 1e-9 * towards.norm()) {
            throw new lane.base.LaneException(
                    "The direction of angle zero lies along the axis; give one that points away from it.");
        }
        this.zero = square.unit();
    }

    public Axis(Point origin, Point direction) {
        this(origin, direction, null);
    }

    public Axis moved(Point by) {
        return new Axis(origin.plus(by), direction, zero);
    }

    /** The direction of a quarter turn. */
    public Point quarter() {
        return direction.cross(zero);
    }

    /** Distance of a place from the axis, in metres. */
    public double radius(double x, double y, double z) {
        Point p = new Point(x, y, z).minus(origin);
        return p.minus(direction.times(p.dot(direction))).norm();
    }

    /** Length along the axis from its origin, in metres. */
    public double along(double x, double y, double z) {
        return (x - origin.x()) * direction.x() + (y - origin.y()) * direction.y() + (z - origin.z()) * direction.z();
    }

    /** Angle about the axis in radians, above -pi and up to pi; 0 on the axis itself. */
    public double angle(double x, double y, double z) {
        Point p = new Point(x, y, z).minus(origin);
        return Math.atan2(p.dot(quarter()), p.dot(zero));
    }

    /** The place at a radius, an angle and a length along the axis. */
    public Point place(double radius, double angle, double along) {
        return origin.plus(direction.times(along))
                .plus(zero.times(radius * Math.cos(angle)))
                .plus(quarter().times(radius * Math.sin(angle)));
    }

    /** The place in space of coordinates x, y, z along the axis' own directions: zero, quarter, along. */
    public Point out(Point own) {
        return origin.plus(outDirection(own));
    }

    /** The direction in space of one in the axis' own directions. */
    public Point outDirection(Point own) {
        return zero.times(own.x()).plus(quarter().times(own.y())).plus(direction.times(own.z()));
    }

    /** The coordinates of a place along the axis' own directions. */
    public Point in(Point place) {
        return inDirection(place.minus(origin));
    }

    public Point inDirection(Point d) {
        return new Point(d.dot(zero), d.dot(quarter()), d.dot(direction));
    }

    /** An axis that is given in this one's own coordinates, as it stands in space. */
    public Axis out(Axis own) {
        return new Axis(out(own.origin), outDirection(own.direction), outDirection(own.zero));
    }

    /** The axis whose {@link #out(Point)} is this one's {@link #in(Point)}. */
    public Axis inverse() {
        return new Axis(in(new Point(0, 0, 0)), inDirection(new Point(0, 0, 1)), inDirection(new Point(1, 0, 0)));
    }

    /** Writes the vector turned about the direction of the axis; {@code out} may be {@code v}. */
    public void turn(double angle, double[] v, double[] out) {
        double c = Math.cos(angle);
        double s = Math.sin(angle);
        double dx = direction.x();
        double dy = direction.y();
        double dz = direction.z();
        double along = (1 - c) * (v[0] * dx + v[1] * dy + v[2] * dz);
        double x = c * v[0] + s * (dy * v[2] - dz * v[1]) + along * dx;
        double y = c * v[1] + s * (dz * v[0] - dx * v[2]) + along * dy;
        double z = c * v[2] + s * (dx * v[1] - dy * v[0]) + along * dz;
        out[0] = x;
        out[1] = y;
        out[2] = z;
    }
}
