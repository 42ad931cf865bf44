package lane.desk.stations;

import java.nio.file.Path;
import java.util.List;
import java.util.function.BiFunction;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import lane.desk.Session;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Abscissa;
import lane.station.Frame;
import lane.station.Sampling;
import lane.station.Station;
import lane.station.Within;
import lane.study.Study;

/** Adds stations with first numbers that lie in the runs, to be moved in the picture or on the placing card. */
public final class NewStation {
    private NewStation() {}

    /** The kinds that can be added without asking for a file. */
    public enum Kind {
        LINE("line"),
        ARC("arc"),
        POLYLINE("polyline"),
        POINT("point"),
        SECTION("section"),
        CUT_CURVE("cut curve"),
        PART("part"),
        SHELL("shell"),
        ISOSURFACE("isosurface"),
        SWEEP("sweep"),
        REGION("region"),
        ENCLOSING("enclosing surface");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** Adds a station of a kind and selects it; says what is missing where it cannot. */
    public static void add(Session session, Kind kind) {
        Axis axis = session.study().axis();
        double[] b = bounds(session);
        Point low = new Point(b[0], b[2], b[4]);
        Point high = new Point(b[1], b[3], b[5]);
        Point middle = low.plus(high).times(0.5);
        double radius = radius(b, axis);
        var even = new Sampling.Even(201);
        switch (kind) {
            case LINE ->
                add(
                        session,
                        "Line",
                        (id, name) -> new Station.Line(
                                id,
                                name,
                                new Point(b[0], middle.y(), middle.z()),
                                new Point(b[1], middle.y(), middle.z()),
                                even,
                                Abscissa.ARC));
            case ARC ->
                add(
                        session,
                        "Arc",
                        (id, name) -> new Station.Arc(
                                id,
                                name,
                                axis,
                                radius,
                                axis.along(middle.x(), middle.y(), middle.z()),
                                0,
                                360,
                                new Sampling.Even(361),
                                Abscissa.ANGLE));
            case POLYLINE ->
                add(
                        session,
                        "Polyline",
                        (id, name) -> new Station.Polyline(
                                id,
                                name,
                                List.of(
                                        new Point(b[0], middle.y(), middle.z()),
                                        middle,
                                        new Point(middle.x(), b[3], middle.z())),
                                even,
                                Abscissa.ARC));
            case POINT -> add(session, "Point", (id, name) -> new Station.Points(id, name, List.of(middle)));
            case SECTION ->
                add(
                        session,
                        "Section",
                        (id, name) -> new Station.Section(id, name, middle, axis.direction(), null, null));
            case CUT_CURVE ->
                add(
                        session,
                        "Cut curve",
                        (id, name) -> new Station.CutCurve(
                                id, name, middle, axis.direction(), List.of(), Station.Extent.LENGTH, axis.zero(), 0));
            case SHELL -> add(session, "Shell", (id, name) -> new Station.Shell(id, name, axis, radius, null, null, 0));
            case ISOSURFACE -> isosurface(session);
            case SWEEP -> {
                double from = along(b, axis, false);
                double to = along(b, axis, true);
                double in = 0.01 * (to - from);
                add(session, "Sweep", (id, name) -> new Station.Sweep(id, name, axis, from + in, to - in, 25, 0));
            }
            case REGION -> add(session, "Region", (id, name) -> new Station.Region(id, name, new Within.All()));
            case PART -> part(session);
            case ENCLOSING -> enclosing(session);
        }
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
                    l.add(new Frame(id, name, "", origin, null, false, ""));
                    return l;
                }));
        session.select("station", StationsView.FRAME + id);
    }

    /** The surface around the first region. */
    private static void enclosing(Session session) {
        Station region = session.study().stations().stream()
                .filter(Station.Region.class::isInstance)
                .findFirst()
                .orElse(null);
        if (region == null) {
            session.say("An enclosing surface needs a region; add one first.");
        } else {
            add(
                    session,
                    "Around",
                    "Around " + region.name(),
                    (id, name) -> new Station.Enclosing(id, name, region.id()));
        }
    }

    /** A point where the picture was clicked twice. */
    static void pin(Session session, Point place) {
        add(session, "Pin", (id, name) -> new Station.Points(id, name, List.of(place)));
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

    private static void isosurface(Session session) {
        var lens = session.lens();
        for (Quantity q : session.numbers()) {
            for (Run run : session.results().runs().values()) {
                try {
                    double[] all = lane.reading.NodeValues.of(run, q, lens);
                    double least = java.util.Arrays.stream(all)
                            .filter(Double::isFinite)
                            .min()
                            .orElse(0);
                    double greatest = java.util.Arrays.stream(all)
                            .filter(Double::isFinite)
                            .max()
                            .orElse(0);
                    double middle = lane.reading.Ready.of(run, q, lens).unit().fromSi((least + greatest) / 2);
                    double value = new java.math.BigDecimal(middle)
                            .round(new java.math.MathContext(3))
                            .doubleValue();
                    add(session, "Isosurface", (id, name) -> new Station.Isosurface(id, name, q.id(), List.of(value)));
                    return;
                } catch (lane.base.LaneException e) {
                    // Another run or quantity may do.
                    continue;
                }
            }
        }
        session.say("An isosurface needs a quantity with one number at nodes; add one at Quantities first.");
    }

    private static void part(Session session) {
        var have = session.study().stations().stream()
                .filter(Station.OnPart.class::isInstance)
                .map(s -> ((Station.OnPart) s).part())
                .toList();
        String part = session.partNames().stream()
                .filter(n -> !have.contains(n))
                .findFirst()
                .orElse(null);
        if (part == null) {
            session.say("Every boundary part of the runs is a station already.");
        } else {
            add(session, part, part, (id, name) -> new Station.OnPart(id, name, part));
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
        Path folder = session.file().toAbsolutePath().getParent();
        Path full = file.toAbsolutePath().normalize();
        String path = (full.getRoot().equals(folder.getRoot()) ? folder.relativize(full) : full)
                .toString()
                .replace('\\', '/');
        String stem = file.getFileName().toString().replaceAll("\\.[^.]*$", "");
        add(session, stem, stem, (id, name) -> new Station.Sheet(id, name, path, "mm", null, null, false));
    }

    private static void add(Session session, String word, BiFunction<String, String, Station> make) {
        List<String> names =
                session.study().stations().stream().map(Station::name).toList();
        int n = 1;
        while (names.contains(word + " " + n)) {
            n++;
        }
        add(session, word, word + " " + n, make);
    }

    private static void add(Session session, String stem, String name, BiFunction<String, String, Station> make) {
        String id = Study.freshId(
                stem, session.study().stations().stream().map(Station::id).toList());
        Station made = make.apply(id, name);
        session.edit(
                "Add " + made.word(),
                s -> s.withStations(l -> {
                    l.add(made);
                    return l;
                }));
        session.select("station", id);
    }
}
