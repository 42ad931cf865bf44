package lane.desk.stations;

import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.field.Run;
import lane.formats.io.FileNames;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Isosurface;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.study.Study;

/** Adds stations with first numbers that lie in the runs, to be moved in the picture or on the placing card. */
public final class NewStation {
    private NewStation() {}

    /** The runs as first numbers see them. */
    private record Room(double[] bounds, Axis axis) {
        static Room of(Session session) {
            return new Room(NewStation.bounds(session), session.study().axis());
        }

        Point middle() {
            return new Point((bounds[0] + bounds[1]) / 2, (bounds[2] + bounds[3]) / 2, (bounds[4] + bounds[5]) / 2);
        }

        double radius() {
            return NewStation.radius(bounds, axis);
        }
    }

    static void line(Session session) {
        var room = Room.of(session);
        Point m = room.middle();
        add(
                session,
                "Line",
                new Line(
                        new Point(room.bounds[0], m.y(), m.z()),
                        new Point(room.bounds[1], m.y(), m.z()),
                        new Sampling.Even(201),
                        Abscissa.ARC));
    }

    static void arc(Session session) {
        var room = Room.of(session);
        Point m = room.middle();
        double along = room.axis.along(m.x(), m.y(), m.z());
        add(session, "Arc", new Arc(room.axis, room.radius(), along, 0, 360, new Sampling.Even(361), Abscissa.ANGLE));
    }

    static void polyline(Session session) {
        var room = Room.of(session);
        Point m = room.middle();
        List<Point> corners =
                List.of(new Point(room.bounds[0], m.y(), m.z()), m, new Point(m.x(), room.bounds[3], m.z()));
        add(session, "Polyline", new Polyline(corners, new Sampling.Even(201), Abscissa.ARC));
    }

    static void points(Session session) {
        add(session, "Point", new Points(List.of(Room.of(session).middle())));
    }

    static void section(Session session) {
        var room = Room.of(session);
        add(session, "Section", new Section(room.middle(), room.axis.direction(), null, null));
    }

    static void cutCurve(Session session) {
        var room = Room.of(session);
        add(
                session,
                "Cut curve",
                new CutCurve(room.middle(), room.axis.direction(), List.of(), Extent.LENGTH, room.axis.zero(), 0));
    }

    static void shell(Session session) {
        var room = Room.of(session);
        add(session, "Shell", new Shell(room.axis, room.radius(), null, null, 0));
    }

    static void sweep(Session session) {
        var room = Room.of(session);
        double from = along(room.bounds, room.axis, false);
        double to = along(room.bounds, room.axis, true);
        double in = 0.01 * (to - from);
        add(session, "Sweep", new Sweep(room.axis, from + in, to - in, 25, 0));
    }

    static void region(Session session) {
        add(session, "Region", new Region(new Within.All()));
    }

    /** A frame at the place picked last, or at the origin, and its card. */
    public static void frame(Session session) {
        List<String> ids = session.study().frames().stream().map(Frame::id).toList();
        String name = "Frame " + (ids.size() + 1);
        String id = Study.freshId(name, ids);
        Point origin = session.picked() == null ? new Point(0, 0, 0) : session.picked();
        session.edit(
                "Add frame",
                s -> s.withFrames(l -> {
                    l.add(new Frame(id, name, "", origin));
                    return l;
                }));
        session.select(Chosen.STATION, StationsView.FRAME + id);
    }

    /** The surface around the first region. */
    static void enclosing(Session session) {
        Station region = session.study().stations().stream()
                .filter(x -> x.shape() instanceof Region)
                .findFirst()
                .orElse(null);
        if (region == null) {
            session.say("An enclosing surface needs a region; add one first.");
        } else {
            add(session, "Around", "Around " + region.name(), new Enclosing(region.id()));
        }
    }

    /** A point where the picture was clicked twice. */
    static void pin(Session session, Point place) {
        add(session, "Pin", new Points(List.of(place)));
    }

    private static double[] bounds(Session session) {
        return session.study().finest().stream()
                .map(id -> session.results().runs().get(id))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .or(() -> session.results().runs().values().stream().findFirst())
                .map(r -> r.mesh().bounds())
                .orElse(new double[] {0, 1, 0, 1, 0, 1});
    }

    /** A little within the widest place about the axis. */
    private static double radius(double[] b, Axis axis) {
        double[] x = {b[0], b[1]};
        double most = 0;
        for (int i = 0; i < 2; i++) {
            most = Math.max(most, axis.radius(x[i], (b[2] + b[3]) / 2, (b[4] + b[5]) / 2));
        }
        return 0.9 * Math.max(most, 1e-6);
    }

    private static double along(double[] b, Axis axis, boolean greatest) {
        double best = greatest ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
        for (int i = 0; i < 8; i++) {
            double h = axis.along(b[i & 1], b[2 + (i >> 1 & 1)], b[4 + (i >> 2 & 1)]);
            best = greatest ? Math.max(best, h) : Math.min(best, h);
        }
        return best;
    }

    static void isosurface(Session session) {
        var lens = session.lens();
        for (Quantity q : session.numbers()) {
            for (Run run : session.results().runs().values()) {
                try {
                    double[] all = lane.evaluation.NodeValues.of(run, q, lens);
                    double least = java.util.Arrays.stream(all)
                            .filter(Double::isFinite)
                            .min()
                            .orElse(0);
                    double greatest = java.util.Arrays.stream(all)
                            .filter(Double::isFinite)
                            .max()
                            .orElse(0);
                    double middle = lane.evaluation.BoundQuantity.of(run, q, lens)
                            .unit()
                            .fromSi((least + greatest) / 2);
                    double value = new java.math.BigDecimal(middle)
                            .round(new java.math.MathContext(3))
                            .doubleValue();
                    add(session, "Isosurface", new Isosurface(q.id(), List.of(value)));
                    return;
                } catch (lane.base.LaneException e) {
                    // Another run or quantity may do.
                }
            }
        }
        session.say("An isosurface needs a quantity with one number at nodes; add one at Quantities first.");
    }

    static void part(Session session) {
        var have = session.study().stations().stream()
                .map(Station::shape)
                .filter(OnPart.class::isInstance)
                .map(s -> ((OnPart) s).part())
                .toList();
        String part = session.partNames().stream()
                .filter(n -> !have.contains(n))
                .findFirst()
                .orElse(null);
        if (part == null) {
            session.say("Every boundary part of the runs is a station already.");
        } else {
            add(session, part, part, new OnPart(part));
        }
    }

    /** Asks for the file of a sheet. */
    static void sheet(Session session, Window window) {
        var chooser = new FileChooser();
        chooser.setTitle("A surface from STL, PLY, OBJ or VTP");
        java.io.File file = chooser.showOpenDialog(window);
        if (file != null) {
            sheet(session, file.toPath());
        }
    }

    /** Adds a sheet from a file; STL and OBJ say no unit, millimetres are taken until another is stated. */
    public static void sheet(Session session, Path file) {
        String path = FileNames.relative(
                Objects.requireNonNull(session.file().toAbsolutePath().getParent()), file);
        String stem = file.getFileName().toString().replaceAll("\\.[^.]*$", "");
        add(session, stem, stem, new Sheet(path, "mm", null, null, false));
    }

    private static void add(Session session, String word, Shape shape) {
        List<String> names =
                session.study().stations().stream().map(Station::name).toList();
        int n = 1;
        while (names.contains(word + " " + n)) {
            n++;
        }
        add(session, word, word + " " + n, shape);
    }

    private static void add(Session session, String stem, String name, Shape shape) {
        String id = Study.freshId(
                stem, session.study().stations().stream().map(Station::id).toList());
        var made = new Station(id, name, shape);
        session.edit(
                "Add " + made.word(),
                s -> s.withStations(l -> {
                    l.add(made);
                    return l;
                }));
        session.select(Chosen.STATION, id);
    }
}
