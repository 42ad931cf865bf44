package lane.desk;

import java.util.List;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Line;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Shell;
import lane.station.Sweep;

/** Shapes with first numbers that lie in the runs, to be moved from there. */
public record FirstShapes(double[] bounds, Axis axis) {
    public static FirstShapes of(Session session) {
        double[] bounds = session.study().finest().stream()
                .map(id -> session.results().runs().get(id))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .or(() -> session.results().runs().values().stream().findFirst())
                .map(r -> r.mesh().bounds())
                .orElse(new double[] {0, 1, 0, 1, 0, 1});
        return new FirstShapes(bounds, session.study().axis());
    }

    public Point middle() {
        return new Point((bounds[0] + bounds[1]) / 2, (bounds[2] + bounds[3]) / 2, (bounds[4] + bounds[5]) / 2);
    }

    /** Through the middle, along the longest side. */
    public Line line() {
        int d = 0;
        for (int i = 1; i < 3; i++) {
            d = extent(i) > extent(d) * (1 + 1e-9) ? i : d;
        }
        return new Line(end(d, 0), end(d, 1), new Sampling.Even(201), Abscissa.ARC);
    }

    private double extent(int d) {
        return bounds[2 * d + 1] - bounds[2 * d];
    }

    private Point end(int d, int which) {
        Point m = middle();
        double at = bounds[2 * d + which];
        return new Point(d == 0 ? at : m.x(), d == 1 ? at : m.y(), d == 2 ? at : m.z());
    }

    public Arc arc() {
        Point m = middle();
        double along = axis.along(m.x(), m.y(), m.z());
        return new Arc(axis, radius(), along, 0, 360, new Sampling.Even(361), Abscissa.ANGLE);
    }

    public Polyline polyline() {
        Point m = middle();
        return new Polyline(
                List.of(new Point(bounds[0], m.y(), m.z()), m, new Point(m.x(), bounds[3], m.z())),
                new Sampling.Even(201),
                Abscissa.ARC);
    }

    public Points points() {
        return new Points(List.of(middle()));
    }

    public Section section() {
        return new Section(middle(), axis.direction(), null, null);
    }

    public CutCurve cutCurve() {
        return new CutCurve(middle(), axis.direction(), List.of(), Extent.LENGTH, axis.zero(), 0);
    }

    public Shell shell() {
        return new Shell(axis, radius(), null, null, 0);
    }

    public Sweep sweep() {
        double from = along(false);
        double to = along(true);
        double in = 0.01 * (to - from);
        return new Sweep(axis, from + in, to - in, 25, 0);
    }

    /** A little within the widest place about the axis. */
    private double radius() {
        double most = 0;
        for (int i = 0; i < 2; i++) {
            most = Math.max(most, axis.radius(bounds[i], (bounds[2] + bounds[3]) / 2, (bounds[4] + bounds[5]) / 2));
        }
        return 0.9 * Math.max(most, 1e-6);
    }

    private double along(boolean greatest) {
        double best = greatest ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
        for (int i = 0; i < 8; i++) {
            double h = axis.along(bounds[i & 1], bounds[2 + (i >> 1 & 1)], bounds[4 + (i >> 2 & 1)]);
            best = greatest ? Math.max(best, h) : Math.min(best, h);
        }
        return best;
    }
}
