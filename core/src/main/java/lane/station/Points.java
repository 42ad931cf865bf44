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

/** One point or many. */
public record Points(List<Point> points) implements Shape.Sampled {
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
        if (points.isEmpty()) {
            throw new LaneException("A list of points has no point; give at least one.");
        }
    }

    @Override
    public Shape through(Axis frame) {
        return new Points(points.stream().map(frame::out).toList());
    }

    @Override
    public String word() {
        return points.size() == 1 ? "point" : "points";
    }

    @Override
    public Points moved(Point by) {
        return new Points(points.stream().map(p -> p.plus(by)).toList());
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
        return new CurveAxis(CurveAxis.NUMBER, Unit.ONE);
    }

    @Override
    public CurveAxis.Samples samples(Axis axis) {
        return CurveAxis.Samples.at(points.size(), i -> i + 1.0, points::get);
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
        double[] out = new double[placed.size()];
        Arrays.setAll(out, i -> i + 1.0);
        return out;
    }

    @Override
    public double length() {
        return Double.NaN;
    }
}
