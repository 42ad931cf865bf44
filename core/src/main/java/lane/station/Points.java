package lane.station;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.CellLocator;
import lane.mesh.Point;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * One point or many, in an order.
 *
 * @param abscissa what curves over them are drawn against, the arc being the way from point to point; null for their number
 * @param from where they come from, for people: a table, the nodes of a lane; blank where they were set one by one
 */
public record Points(List<Point> points, @Nullable Abscissa abscissa, String from) implements Shape.Sampled {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "points";
        }

        @Override
        public Class<Points> type() {
            return Points.class;
        }
    }

    public Points {
        points = List.copyOf(points);
        from = from == null ? "" : from;
        if (points.isEmpty()) {
            throw new LaneException("A list of points has no point; give at least one.");
        }
    }

    public Points(List<Point> points) {
        this(points, null, "");
    }

    /** Other points with the same abscissa. */
    public Points at(List<Point> others) {
        return new Points(others, abscissa, from);
    }

    public Points along(@Nullable Abscissa other) {
        return new Points(points, other, from);
    }

    @Override
    public Shape through(Axis frame) {
        return new Points(
                points.stream().map(frame::out).toList(), abscissa == null ? null : abscissa.through(frame), from);
    }

    @Override
    public String word() {
        return points.size() == 1 ? "point" : "points";
    }

    @Override
    public Points moved(Point by) {
        return at(points.stream().map(p -> p.plus(by)).toList());
    }

    /** Coordinates, three to a point. */
    public double[] xyz() {
        double[] xyz = new double[3 * points.size()];
        for (int i = 0; i < points.size(); i++) {
            xyz[3 * i] = points.get(i).x();
            xyz[3 * i + 1] = points.get(i).y();
            xyz[3 * i + 2] = points.get(i).z();
        }
        return xyz;
    }

    @Override
    public CurveAxis drawn() {
        return abscissa == null
                ? new CurveAxis(CurveAxis.NUMBER, Unit.ONE)
                : new CurveAxis(abscissa.word(), abscissa.unit());
    }

    /** The way from the first point to each. */
    private double[] ways() {
        double[] out = new double[points.size()];
        for (int i = 1; i < out.length; i++) {
            out[i] = out[i - 1] + points.get(i).minus(points.get(i - 1)).norm();
        }
        return out;
    }

    private double[] abscissas(Axis axis) {
        if (abscissa == null) {
            double[] out = new double[points.size()];
            Arrays.setAll(out, i -> i + 1.0);
            return out;
        }
        double[] ways = ways();
        return abscissa.of(ways, ways[ways.length - 1], xyz(), axis);
    }

    @Override
    public CurveAxis.Samples samples(Axis axis) {
        double[] at = abscissas(axis);
        return new CurveAxis.Samples(xyz(), abscissa == null ? at : ways(), at);
    }

    @Override
    public Locus locus(Axis axis) {
        return Locus.of((x, y, z) -> Locus.nearest(points, new Point(x, y, z)));
    }

    @Override
    public Placement place(CellLocator locator, @Nullable Axis turned, Work work) {
        return Placer.points(locator, xyz(), turned, work);
    }

    @Override
    public double[] abscissas(Placement placed, Axis axis) {
        return abscissas(axis);
    }

    @Override
    public double length() {
        return Double.NaN;
    }
}
