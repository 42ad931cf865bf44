package lane.mesh;

/**
 * A directed line in space.
 *
 * @param origin a point on it, in metres
 * @param direction any length but zero
 */
public record Axis(Point origin, Point direction) {
    public static final Axis Z = new Axis(new Point(0, 0, 0), new Point(0, 0, 1));

    public Axis {
        direction = direction.unit();
    }

    /** Distance of a place from the axis, in metres. */
    public double radius(double x, double y, double z) {
        Point p = new Point(x, y, z).minus(origin);
        return p.minus(direction.times(p.dot(direction))).norm();
    }
}
