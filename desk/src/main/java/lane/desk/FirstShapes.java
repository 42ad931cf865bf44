package lane.desk;

import java.util.List;
import lane.base.Work;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Line;
import lane.station.Placer;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Shell;
import lane.station.Sweep;
import org.jspecify.annotations.Nullable;

/** Shapes with first numbers that lie in the runs, to be moved from there. */
public record FirstShapes(
        double[] bounds, Axis axis, @Nullable Run run) {
    private static final int PROBES = 41;

    public static FirstShapes of(Session session) {
        Run run = session.study().finest().stream()
                .map(id -> session.results().runs().get(id))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .or(() -> session.results().runs().values().stream().findFirst())
                .orElse(null);
        double[] bounds =
                run == null ? new double[] {0, 1, 0, 1, 0, 1} : run.mesh().bounds();
        return new FirstShapes(bounds, session.study().axis(), run);
    }

    public Point middle() {
        return new Point((bounds[0] + bounds[1]) / 2, (bounds[2] + bounds[3]) / 2, (bounds[4] + bounds[5]) / 2);
    }

    /** Through the middle, along the side where most of it lies in the run, the longest of several alike. */
    public Line line() {
        int best = 0;
        for (int d = 1; d < 3; d++) {
            int more = found(d) - found(best);
            best = more > 0 || more == 0 && extent(d) > extent(best) * (1 + 1e-9) ? d : best;
        }
        return new Line(end(best, 0), end(best, 1), new Sampling.Even(201), Abscissa.ARC);
    }

    /** How many of some places along a side, through the middle, lie in the run. */
    private int found(int d) {
        if (run == null || extent(d) == 0) {
            return 0;
        }
        double[] xyz = new double[3 * PROBES];
        for (int i = 0; i < PROBES; i++) {
            Point a = end(d, 0);
            Point p = a.plus(end(d, 1).minus(a).times((i + 0.5) / PROBES));
            xyz[3 * i] = p.x();
            xyz[3 * i + 1] = p.y();
            xyz[3 * i + 2] = p.z();
        }
        int n = 0;
        for (int cell : Placer.points(run.locator(Work.QUIET), xyz, Work.QUIET).cell()) {
            n += cell >= 0 ? 1 : 0;
        }
        return n;
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
