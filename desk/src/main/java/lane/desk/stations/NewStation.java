package lane.desk.stations;

import java.nio.file.Path;
import java.util.List;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import lane.desk.Chosen;
import lane.desk.FirstShapes;
import lane.desk.Session;
import lane.field.Run;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Isosurface;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Station;
import lane.station.Within;
import lane.study.Study;

/** Adds stations with first numbers that lie in the runs, to be moved in the picture or on the placing card. */
public final class NewStation {
    private NewStation() {}

    static void line(Session session) {
        add(session, "Line", FirstShapes.of(session).line());
    }

    static void arc(Session session) {
        add(session, "Arc", FirstShapes.of(session).arc());
    }

    static void polyline(Session session) {
        add(session, "Polyline", FirstShapes.of(session).polyline());
    }

    static void points(Session session) {
        add(session, "Point", FirstShapes.of(session).points());
    }

    static void section(Session session) {
        add(session, "Section", FirstShapes.of(session).section());
    }

    static void cutCurve(Session session) {
        add(session, "Cut curve", FirstShapes.of(session).cutCurve());
    }

    static void shell(Session session) {
        add(session, "Shell", FirstShapes.of(session).shell());
    }

    static void sweep(Session session) {
        add(session, "Sweep", FirstShapes.of(session).sweep());
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
        if (region != null) {
            add(session, "Around", "Around " + region.name(), new Enclosing(region.id()));
        }
    }

    private static final String NO_RUN = "no run has been read; add one at Intake";

    static String lacksEnclosing(Session session) {
        return session.study().stations().stream().anyMatch(x -> x.shape() instanceof Region)
                ? ""
                : "it encloses a region; add one first";
    }

    static String lacksIsosurface(Session session) {
        return session.results().runs().isEmpty()
                ? NO_RUN
                : session.numbers().isEmpty() ? "no run has a field with one number" : "";
    }

    static String lacksPart(Session session) {
        return session.results().runs().isEmpty()
                ? NO_RUN
                : session.partNames().isEmpty()
                        ? "the runs have no boundary parts; make them at Intake, on the run's sheet"
                        : freePart(session).isEmpty() ? "every boundary part is a station already" : "";
    }

    /** A point where the picture was clicked twice. */
    static void pin(Session session, Point place) {
        add(session, "Pin", new Points(List.of(place)));
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
        session.say(
                "No field of the runs can be drawn as an isosurface: none of them has values at its nodes or cells.");
    }

    private static java.util.Optional<String> freePart(Session session) {
        var have = session.study().stations().stream()
                .map(Station::shape)
                .filter(OnPart.class::isInstance)
                .map(s -> ((OnPart) s).part())
                .toList();
        return session.partNames().stream().filter(n -> !have.contains(n)).findFirst();
    }

    static void part(Session session) {
        freePart(session).ifPresent(part -> add(session, part, part, new OnPart(part)));
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
        String path = session.library().named(file);
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
