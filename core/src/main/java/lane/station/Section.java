package lane.station;

import lane.base.LaneException;
import lane.cut.Cut;
import lane.cut.PlaneCut;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * A plane section; it looks along the normal.
 *
 * @param box what it is limited to; null for none
 * @param piece only the connected piece nearest to this place; null for all
 */
public record Section(
        Point point,
        Point normal,
        @Nullable Box box,
        @Nullable Point piece) implements Shape.Cutting {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "section";
        }

        @Override
        public Class<Section> type() {
            return Section.class;
        }
    }

    public Section {
        normal = normal.unit();
    }

    @Override
    public Shape through(Axis frame) {
        return new Section(
                frame.out(point),
                frame.outDirection(normal),
                box == null ? null : box.through(frame),
                piece == null ? null : frame.out(piece));
    }

    @Override
    public String word() {
        return "section";
    }

    /** Which of several is the nearest no piece knows. */
    @Override
    public boolean inPieces() {
        return piece == null;
    }

    @Override
    public Section moved(Point by) {
        return at(point.plus(by), normal);
    }

    /**
     * The same through three points; it looks to where they turn counterclockwise.
     *
     * @throws LaneException when the three lie on one line
     */
    public Section through(Point a, Point b, Point c) {
        Point n = b.minus(a).cross(c.minus(a));
        double reach = Math.max(b.minus(a).norm(), c.minus(a).norm());
        if (!(n.norm() > 1e-12 * reach * reach)) {
            throw new LaneException(
                    "The three points of the section lie on one line and give no plane; move one of them aside.");
        }
        return at(a, n);
    }

    public Section at(Point newPoint, Point newNormal) {
        return new Section(newPoint, newNormal, box, piece);
    }

    @Override
    public Cut cut(Run run, Resolver on) {
        if (Resolver.meridian(run) && normal.cross(on.axis().direction()).norm() > 1e-9) {
            throw new LaneException("Section \"" + on.name() + "\" is not square to the axis of this axisymmetric run;"
                    + " turn it, or read a line.");
        }
        Cut cut = PlaneCut.of(run.locator(on.work()), point, normal, on.work());
        if (box != null) {
            cut = PlaneCut.within(cut, box.bounds(), box.frame());
            if (piece == null) {
                cut = cut.covering(coverage(run, cut, box));
            }
        }
        return piece == null ? cut : PlaneCut.nearest(cut, piece);
    }

    /** Share of what the box holds of the plane that lies in the run; 1 where the box is open along the plane. */
    private double coverage(Run run, Cut cut, Box within) {
        Mesh mesh = run.mesh();
        Point other = null;
        Point on = null;
        if (mesh.dimension() != 3) {
            double[] n = CellMeasures.plane(mesh);
            if (n == null) {
                return 1;
            }
            other = new Point(n[0], n[1], n[2]);
            on = new Point(mesh.xyz()[0], mesh.xyz()[1], mesh.xyz()[2]);
        }
        double asked = PlaneCut.size(point, normal, other, on, within.bounds(), within.frame());
        double share = cut.area() / asked;
        // What misses the whole by round-off is whole.
        return Double.isInfinite(asked) ? 1 : asked > 0 ? Math.min(1, share > 1 - 1e-9 ? 1 : share) : Double.NaN;
    }
}
