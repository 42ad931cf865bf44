package lane.station;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import lane.base.Fault;
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
 * @param beside numbers that stand beside them, as other columns of their table
 * @param against name of the one that curves over them are drawn against in place of the abscissa; blank for none
 */
public record Points(List<Point> points, @Nullable Abscissa abscissa, String from, List<Beside> beside, String against)
        implements Shape.Sampled {
    /**
     * Numbers beside points, one each.
     *
     * @param unit of the values; blank for plain numbers
     */
    public record Beside(String name, String unit, List<Double> values) {
        /** @throws LaneException when there is no name, the unit is not known, or a value is missing */
        public Beside {
            unit = unit == null ? "" : unit;
            values = List.copyOf(values);
            if (name == null || name.isBlank()) {
                throw new LaneException("Numbers beside points need a name; give one.");
            }
            if (!unit.isBlank() && !Unit.of(unit).known()) {
                throw new LaneException(
                        Fault.UNIT, "The unit \"" + unit + "\" of \"" + name + "\" beside points is not known.");
            }
        }

        /** That of the values; 1 where none is stated. */
        Unit of() {
            return unit.isBlank() ? Unit.ONE : Unit.of(unit);
        }
    }

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

    @Override
    public boolean inPieces() {
        return true;
    }

    public Points {
        points = List.copyOf(points);
        from = from == null ? "" : from;
        beside = beside == null ? List.of() : List.copyOf(beside);
        against = against == null ? "" : against;
        if (points.isEmpty()) {
            throw new LaneException("A list of points has no point; give at least one.");
        }
        for (Beside b : beside) {
            if (b.values().size() != points.size()) {
                throw new LaneException("Beside " + points.size() + " points stand "
                        + b.values().size() + " numbers of \"" + b.name() + "\"; give one to a point.");
            }
        }
        if (!against.isEmpty() && named(beside, against).isEmpty()) {
            throw new LaneException("Points are to be drawn against \"" + against
                    + "\", which does not stand beside them; there is "
                    + (beside.isEmpty()
                            ? "nothing beside them"
                            : String.join(
                                    ", ", beside.stream().map(Beside::name).toList()))
                    + ".");
        }
    }

    public Points(List<Point> points) {
        this(points, null, "");
    }

    public Points(List<Point> points, @Nullable Abscissa abscissa, String from) {
        this(points, abscissa, from, List.of(), "");
    }

    private static Optional<Beside> named(List<Beside> all, String name) {
        return all.stream().filter(b -> b.name().equals(name)).findFirst();
    }

    /** Other points with the same abscissa; what stands beside them stays only where they are as many. */
    public Points at(List<Point> others) {
        return others.size() == points.size()
                ? new Points(others, abscissa, from, beside, against)
                : new Points(others, abscissa, from);
    }

    /** Without one of them. */
    public Points without(int i) {
        return new Points(
                less(points, i),
                abscissa,
                from,
                beside.stream()
                        .map(b -> new Beside(b.name(), b.unit(), less(b.values(), i)))
                        .toList(),
                against);
    }

    private static <T> List<T> less(List<T> all, int i) {
        var out = new ArrayList<>(all);
        out.remove(i);
        return out;
    }

    public Points along(@Nullable Abscissa other) {
        return new Points(points, other, from, beside, "");
    }

    /** Drawn against one of the numbers beside them. */
    public Points against(String name) {
        return new Points(points, null, from, beside, name);
    }

    @Override
    public Shape through(Axis frame) {
        return new Points(
                points.stream().map(frame::out).toList(),
                abscissa == null ? null : abscissa.through(frame),
                from,
                beside,
                against);
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
        Beside own = named(beside, against).orElse(null);
        if (own != null) {
            return new CurveAxis(own.name(), own.of());
        }
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
        Beside own = named(beside, against).orElse(null);
        if (own != null) {
            return own.values().stream().mapToDouble(own.of()::toSi).toArray();
        }
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
