package lane.evaluation;

import lane.base.LaneException;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * What integrals over a run's mesh stand for: the mesh itself; a plane one times a depth; or a full turn about an axis.
 * Over a full turn the integrand is taken at four angles, which is exact for what goes with the angle up to the third
 * harmonic: forces, whose radial part cancels, moments, and components of vectors. A plane mesh then weighs
 * {@code 2 pi r}, a wedge as often as it fits into the turn.
 *
 * @param factor of every area
 * @param axis of the full turn; null for none
 * @param meridian whether the mesh lies in a half plane of the axis
 * @param first and {@code last}: angles of a wedge's sides, in radians
 */
public record MeshSpan(double factor, @Nullable Axis axis, boolean meridian, double first, double last, double size) {
    public static final int ANGLES = 4;

    public static MeshSpan of(Run run, Axis axis) {
        Mesh mesh = run.mesh();
        var turn = run.stated().turn();
        if (turn == null) {
            // A curved surface stands for itself: it has no depth.
            boolean plane = run.stated().depth() != 1 && CellMeasures.flat(mesh);
            return new MeshSpan(plane ? run.stated().depth() : 1, null, false, 0, 0, 0);
        }
        if (mesh.dimension() == 2) {
            return new MeshSpan(2 * Math.PI, axis, true, 0, 0, mesh.modelSize());
        }
        double[] ends = angles(mesh, axis);
        if (!(ends[1] - ends[0] > 0) || ends[1] - ends[0] > 1.5 * Math.PI) {
            throw new LaneException(String.format(
                    java.util.Locale.ROOT,
                    "The run is said to be a wedge of a full turn but covers %.4g degrees about the axis; "
                            + "state at Intake that it is none, or set the study's axis.",
                    Math.toDegrees(ends[1] - ends[0])));
        }
        return new MeshSpan(2 * Math.PI / (ends[1] - ends[0]), axis, false, ends[0], ends[1], mesh.modelSize());
    }

    /** What integrals over a run stand for, to follow a sentence; blank where they stand for the mesh itself. */
    public static String words(Run run) {
        if (run.stated().turn() != null) {
            return run.mesh().dimension() == 2
                    ? ", for the full turn"
                    : ", for the full turn that the mesh is a wedge of";
        }
        return CellMeasures.flat(run.mesh())
                ? ", for a depth of " + lane.mesh.Finding.number(run.stated().depth(), 6) + " m"
                : "";
    }

    /** Least and greatest angle of the nodes off the axis, from the angle of the first of them. */
    private static double[] angles(Mesh mesh, Axis axis) {
        double[] x = mesh.xyz();
        double tiny = 1e-6 * mesh.modelSize();
        double start = Double.NaN;
        double least = 0;
        double greatest = 0;
        for (int i = 0; i < x.length; i += 3) {
            if (axis.radius(x[i], x[i + 1], x[i + 2]) <= tiny) {
                continue;
            }
            double a = axis.angle(x[i], x[i + 1], x[i + 2]);
            if (Double.isNaN(start)) {
                start = a;
            }
            double from = Math.IEEEremainder(a - start, 2 * Math.PI);
            least = Math.min(least, from);
            greatest = Math.max(greatest, from);
        }
        return new double[] {start + least, start + greatest};
    }

    public boolean turned() {
        return axis != null;
    }

    /** Whether a free edge (of a plane run, a free node, given twice) goes on in the rest of the turn. */
    public boolean goesOn(Point a, Point b) {
        if (axis == null) {
            return false;
        }
        if (onAxis(axis, a) && onAxis(axis, b)) {
            return true;
        }
        return !meridian
                && (onSide(axis, a, first) && onSide(axis, b, first) || onSide(axis, a, last) && onSide(axis, b, last));
    }

    private boolean onAxis(Axis about, Point p) {
        return about.radius(p.x(), p.y(), p.z()) <= 1e-6 * size;
    }

    private boolean onSide(Axis about, Point p, double angle) {
        if (onAxis(about, p)) {
            return true;
        }
        double slack = Math.max(1e-5 * (last - first), 1e-6 * size / about.radius(p.x(), p.y(), p.z()));
        return Math.abs(Math.IEEEremainder(about.angle(p.x(), p.y(), p.z()) - angle, 2 * Math.PI)) <= slack;
    }

    /** Weight of a place: the factor, for a meridian times the radius. */
    public double weight(double x, double y, double z) {
        return meridian && axis != null ? factor * axis.radius(x, y, z) : factor;
    }
}
