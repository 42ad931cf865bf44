package lane.station;

import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Least and greatest corner.
 *
 * @param in the frame whose directions its edges have; null for those of space
 */
public record Box(Point least, Point greatest, @Nullable Axis in) {
    public Box {
        if (least.x() >= greatest.x() || least.y() >= greatest.y() || least.z() >= greatest.z()) {
            throw new LaneException(
                    "A box from " + least + " to " + greatest + " is empty; give its least corner first.");
        }
    }

    public Box(Point least, Point greatest) {
        this(least, greatest, null);
    }

    Box through(Axis frame) {
        return new Box(least, greatest, in == null ? frame : frame.out(in));
    }

    Box moved(Point by) {
        return in == null ? new Box(least.plus(by), greatest.plus(by)) : new Box(least, greatest, in.moved(by));
    }

    /** Least and greatest x, y and z in its frame. */
    public double[] bounds() {
        return new double[] {least.x(), greatest.x(), least.y(), greatest.y(), least.z(), greatest.z()};
    }

    /** In cubic metres. */
    public double volume() {
        Point size = greatest.minus(least);
        return size.x() * size.y() * size.z();
    }

    /** The frame that its bounds are in. */
    public Axis frame() {
        return in == null ? Axis.Z : in;
    }

    public boolean holds(double x, double y, double z) {
        if (in != null) {
            Point own = in.in(new Point(x, y, z));
            return inside(own.x(), own.y(), own.z());
        }
        return inside(x, y, z);
    }

    private boolean inside(double x, double y, double z) {
        return x >= least.x()
                && x <= greatest.x()
                && y >= least.y()
                && y <= greatest.y()
                && z >= least.z()
                && z <= greatest.z();
    }
}
