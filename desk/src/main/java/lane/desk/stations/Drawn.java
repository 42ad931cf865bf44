package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import lane.evaluation.CutCurveBranches;
import lane.evaluation.Laid;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.picture.field.Annotations;
import lane.picture.field.Annotations.Handle;
import lane.station.Arc;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.Line;
import lane.station.Placement;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import org.jspecify.annotations.Nullable;

/** Stations as lines in the picture. */
final class Drawn {
    private static final int MARKED = 20;

    private Drawn() {}

    /**
     * @param samples known samples, or null
     * @param laid what the station came to be, or null. Null for no lines.
     */
    static Annotations.@Nullable Line line(
            Station station, boolean selected, @Nullable Placement samples, @Nullable Laid laid) {
        String name = station.name();
        return switch (station.shape()) {
            case Shape.Path p -> sampled(name, List.of(p.corners()), selected, selected ? samples : null, handles(p));
            case Points p -> {
                List<Handle> handles = new ArrayList<>();
                for (int i = 0; i < Math.min(40, p.points().size()); i++) {
                    handles.add(new Handle(
                            p.points().size() == 1 ? "" : String.valueOf(i + 1),
                            p.points().get(i)));
                }
                yield sampled(name, p.points().stream().map(List::of).toList(), selected, null, handles);
            }
            case CutCurve c -> {
                List<List<Point>> curves = new ArrayList<>();
                if (laid != null) {
                    laid.branches().forEach((CutCurveBranches.Branch b) -> curves.add(b.places()));
                }
                yield selected || !curves.isEmpty()
                        ? sampled(name, curves, selected, null, List.of(new Handle("", c.point())))
                        : null;
            }
            case Section s
            when selected ->
                sampled(name, List.of(List.of(s.point(), arrow(s))), true, null, List.of(new Handle("", s.point())));
            case Shell s
            when selected -> {
                double middle = s.from() != null && s.to() != null ? (s.from() + s.to()) / 2 : 0;
                Point at = s.axis().place(s.radius(), 0, middle);
                Point foot = s.axis().origin().plus(s.axis().direction().times(middle));
                yield sampled(name, List.of(List.of(foot, at)), true, null, List.of(new Handle("", at)));
            }
            case Sweep w
            when selected -> {
                List<List<Point>> curves = new ArrayList<>();
                curves.add(List.of(on(w.axis(), w.from()), on(w.axis(), w.to())));
                for (int i = 0; w.ring() > 0 && i < w.count(); i++) {
                    curves.add(circle(w.axis(), w.ring(), w.place(i)));
                }
                List<Handle> ends = List.of(
                        new Handle("1", on(w.axis(), w.from())),
                        new Handle(String.valueOf(w.count()), on(w.axis(), w.to())));
                yield sampled(name, curves, true, null, ends);
            }
            case Region r when selected -> sampled(name, outline(r.within()), true, null, List.of());
            default -> null;
        };
    }

    /** A frame as three strokes from its origin; where angle zero is, is written at its x. */
    static List<Annotations.Line> frame(lane.station.Frame frame, Axis a, double size) {
        double length2 = 0.12 * size;
        List<Annotations.Line> out = new ArrayList<>();
        Point[] d = {a.zero(), a.quarter(), a.direction()};
        String[] names =
                frame.cylindrical() ? new String[] {"angle 0", "angle 90°", "z"} : new String[] {"x", "y", "z"};
        for (int i = 0; i < 3; i++) {
            Point tip = a.origin().plus(d[i].times(length2));
            out.add(new Annotations.Line(
                    frame.name() + ", " + names[i],
                    List.of(List.of(a.origin(), tip)),
                    List.of(),
                    new boolean[0],
                    true,
                    i == 0 ? List.of(new Handle("", a.origin())) : List.of()));
        }
        return out;
    }

    private static Point arrow(Section s) {
        double long2 = s.box() == null
                ? 0.01
                : 0.2 * s.box().greatest().minus(s.box().least()).norm();
        return s.point().plus(s.normal().times(long2));
    }

    private static Point on(Axis axis, double along) {
        return axis.origin().plus(axis.direction().times(along));
    }

    private static List<Point> circle(Axis axis, double radius, double along) {
        List<Point> out = new ArrayList<>();
        for (int i = 0; i <= 48; i++) {
            out.add(axis.place(radius, 2 * Math.PI * i / 48, along));
        }
        return out;
    }

    private static List<List<Point>> outline(Within within) {
        return switch (within) {
            case Within.InBox b -> box(b.box());
            case Within.Cylinder c ->
                List.of(
                        circle(c.axis(), c.radius(), c.from()),
                        circle(c.axis(), c.radius(), c.to()),
                        List.of(
                                c.axis().place(c.radius(), 0, c.from()),
                                c.axis().place(c.radius(), 0, c.to())));
            case Within.Ball b ->
                List.of(
                        circle(new Axis(b.centre(), new Point(1, 0, 0)), b.radius(), 0),
                        circle(new Axis(b.centre(), new Point(0, 1, 0)), b.radius(), 0),
                        circle(new Axis(b.centre(), new Point(0, 0, 1)), b.radius(), 0));
            default -> List.of();
        };
    }

    private static List<List<Point>> box(Box b) {
        Point l = b.least();
        Point g = b.greatest();
        List<List<Point>> out = new ArrayList<>();
        for (double z : new double[] {l.z(), g.z()}) {
            out.add(List.of(
                    new Point(l.x(), l.y(), z),
                    new Point(g.x(), l.y(), z),
                    new Point(g.x(), g.y(), z),
                    new Point(l.x(), g.y(), z),
                    new Point(l.x(), l.y(), z)));
        }
        for (double x : new double[] {l.x(), g.x()}) {
            for (double y : new double[] {l.y(), g.y()}) {
                out.add(List.of(new Point(x, y, l.z()), new Point(x, y, g.z())));
            }
        }
        return out;
    }

    private static List<Handle> handles(Shape.Path path) {
        return switch (path) {
            case Line l -> List.of(new Handle("A", l.a()), new Handle("B", l.b()));
            case Arc a -> List.of(new Handle("A", a.axis().place(a.radius(), Math.toRadians(a.from()), a.along())));
            case Polyline p -> {
                List<Handle> out = new ArrayList<>();
                for (int i = 0; i < Math.min(40, p.points().size()); i++) {
                    out.add(new Handle(String.valueOf(i + 1), p.points().get(i)));
                }
                yield out;
            }
            // A kind that the picture does not know is drawn by its ends.
            default -> List.of(new Handle("A", path.at(0)), new Handle("B", path.at(1)));
        };
    }

    private static Annotations.Line sampled(
            String name, List<List<Point>> curves, boolean selected, @Nullable Placement p, List<Handle> handles) {
        List<Point> samples = new ArrayList<>();
        boolean[] found = new boolean[0];
        if (p != null) {
            int every = Math.max(1, p.size() / MARKED);
            found = new boolean[(p.size() + every - 1) / every];
            for (int i = 0; i < p.size(); i += every) {
                found[samples.size()] = p.cell()[i] >= 0;
                samples.add(p.place(i));
            }
        }
        return new Annotations.Line(name, curves, samples, found, selected, handles);
    }
}
