package lane.mesh;

/** A place in space, in metres, or a direction where a method says so. */
public record Point(double x, double y, double z) {
    public Point {
        if (!Double.isFinite(x + y + z)) {
            throw new lane.base.LaneException(
                    "A point needs three finite numbers; got " + x + ", " + y + ", " + z + ".");
        }
    }

    /** The direction of an axis: 0, 1 or 2 for x, y or z. */
    public static Point along(int axis) {
        return new Point(axis == 0 ? 1 : 0, axis == 1 ? 1 : 0, axis == 2 ? 1 : 0);
    }

    public Point minus(Point o) {
        return new Point(x - o.x, y - o.y, z - o.z);
    }

    public Point plus(Point o) {
        return new Point(x + o.x, y + o.y, z + o.z);
    }

    public Point times(double f) {
        return new Point(f * x, f * y, f * z);
    }

    public double dot(Point o) {
        return x * o.x + y * o.y + z * o.z;
    }

    public Point cross(Point o) {
        return new Point(y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x);
    }

    public double norm() {
        return Math.sqrt(dot(this));
    }

    /** Writes its three numbers where they belong. */
    public void into(double[] xyz, int at) {
        xyz[at] = x;
        xyz[at + 1] = y;
        xyz[at + 2] = z;
    }

    /** @throws lane.base.LaneException when the length is zero */
    public Point unit() {
        double n = norm();
        if (n == 0) {
            throw new lane.base.LaneException("A direction cannot be 0, 0, 0; give one number that is not zero.");
        }
        // What has length 1 already stays bit for bit, so that a study reads back as it was written.
        return Math.abs(n - 1) <= 4e-16 ? this : times(1 / n);
    }
}
