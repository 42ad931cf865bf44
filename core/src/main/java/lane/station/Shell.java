package lane.station;

import lane.base.LaneException;
import lane.cut.Cut;
import lane.cut.CylinderCut;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The surface of constant radius about an axis; it looks away from the axis.
 *
 * @param from and {@code to}: ends along the axis; null for all
 * @param seam angle in degrees at which it is cut to be laid flat
 */
public record Shell(
        Axis axis,
        double radius,
        @Nullable Double from,
        @Nullable Double to,
        double seam) implements Shape.Cutting, Shape.Curved {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "shell";
        }

        @Override
        public Class<Shell> type() {
            return Shell.class;
        }
    }

    public Shell {
        if (!(radius > 0)) {
            throw new LaneException("A shell has radius " + radius + " m; give a positive one.");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException("A shell ends at " + to + " m before it begins at " + from
                    + " m; give the lesser length along the axis first.");
        }
    }

    /** The place on the shell that is so far from the seam, as an arc, and so far along the axis, both in metres. */
    public Point inSpace(double arc, double along) {
        return axis.place(radius, arc / radius + Math.toRadians(seam), along);
    }

    @Override
    public Shape through(Axis frame) {
        return new Shell(frame.out(axis), radius, from, to, seam);
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public String word() {
        return "shell";
    }

    @Override
    public Shell moved(Point by) {
        return new Shell(axis.moved(by), radius, from, to, seam);
    }

    @Override
    public CurveAxis drawn() {
        return new CurveAxis("angle about the axis", Unit.of("rad"));
    }

    @Override
    public CurveAxis.Samples samples(Axis study) {
        double middle = from != null && to != null ? (from + to) / 2 : 0;
        return CurveAxis.Samples.at(
                360, i -> Math.toRadians(i + seam), i -> axis.place(radius, Math.toRadians(i + seam), middle));
    }

    @Override
    public Locus locus(Axis study) {
        double start = Math.toRadians(seam);
        return Locus.of((x, y, z) -> {
            double a = axis.angle(x, y, z) - start;
            double turn = a - 2 * Math.PI * Math.floor(a / (2 * Math.PI));
            // Round-off must not take the seam from the beginning to the end.
            return start + (turn > 2 * Math.PI - 1e-9 ? 0 : turn);
        });
    }

    @Override
    public Cut cut(Run run, Resolver on) {
        requireAbout(run, on);
        return CylinderCut.of(
                run.locator(on.work()),
                axis,
                radius,
                from == null ? Double.NEGATIVE_INFINITY : from,
                to == null ? Double.POSITIVE_INFINITY : to,
                on.work());
    }

    /** A plane run of a full turn has shells about its own axis only. */
    private void requireAbout(Run run, Resolver on) {
        Axis own = on.axis();
        Point o = axis.origin();
        boolean same = axis.direction().cross(own.direction()).norm() < 1e-9
                && own.radius(o.x(), o.y(), o.z()) <= 1e-9 * run.mesh().modelSize();
        if (Resolver.meridian(run) && !same) {
            throw new LaneException("The axis of shell \"" + on.name()
                    + "\" is not that of this axisymmetric run; use the study's axis.");
        }
    }
}
