package lane.desk.stations;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.desk.Session;
import lane.mesh.Axis;
import lane.station.Arc;
import lane.station.CutCurve;
import lane.station.Enclosing;
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
import org.kordamp.ikonli.feather.Feather;

/** The kinds of stations that the program brings along, as the window has them. */
final class ShapeForms {
    private ShapeForms() {}

    private static String samples(Shape shape) {
        return switch (((Shape.Path) shape).sampling()) {
            case Sampling.Even e -> String.valueOf(e.samples());
            case Sampling.Clustered c -> String.valueOf(c.samples());
            case Sampling.CellExact _ -> "exact";
        };
    }

    /** See {@link Points}. */
    public static final class OfPoints implements ShapeForm {
        @Override
        public String word() {
            return "points";
        }

        @Override
        public Class<Points> type() {
            return Points.class;
        }

        @Override
        public String group() {
            return "Points and curves";
        }

        @Override
        public Feather icon() {
            return Feather.MAP_PIN;
        }

        @Override
        public String note(Shape shape) {
            return String.valueOf(((Points) shape).points().size());
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::points;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(PathForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Line}. */
    public static final class OfLine implements ShapeForm {
        @Override
        public String word() {
            return "line";
        }

        @Override
        public Class<Line> type() {
            return Line.class;
        }

        @Override
        public String group() {
            return "Points and curves";
        }

        @Override
        public Feather icon() {
            return Feather.MINUS;
        }

        @Override
        public String note(Shape shape) {
            return samples(shape);
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::line;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(PathForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Arc}. */
    public static final class OfArc implements ShapeForm {
        @Override
        public String word() {
            return "arc";
        }

        @Override
        public Class<Arc> type() {
            return Arc.class;
        }

        @Override
        public String group() {
            return "Points and curves";
        }

        @Override
        public Feather icon() {
            return Feather.MINUS;
        }

        @Override
        public String note(Shape shape) {
            return samples(shape);
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::arc;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(PathForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Polyline}. */
    public static final class OfPolyline implements ShapeForm {
        @Override
        public String word() {
            return "polyline";
        }

        @Override
        public Class<Polyline> type() {
            return Polyline.class;
        }

        @Override
        public String group() {
            return "Points and curves";
        }

        @Override
        public Feather icon() {
            return Feather.MINUS;
        }

        @Override
        public String note(Shape shape) {
            return samples(shape);
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::polyline;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(PathForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link CutCurve}. */
    public static final class OfCutCurve implements ShapeForm {
        @Override
        public String word() {
            return "cut-curve";
        }

        @Override
        public Class<CutCurve> type() {
            return CutCurve.class;
        }

        @Override
        public String group() {
            return "Points and curves";
        }

        @Override
        public Feather icon() {
            return Feather.SCISSORS;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::cutCurve;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(OtherForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Section}. */
    public static final class OfSection implements ShapeForm {
        @Override
        public String word() {
            return "section";
        }

        @Override
        public Class<Section> type() {
            return Section.class;
        }

        @Override
        public String group() {
            return "Surfaces";
        }

        @Override
        public Feather icon() {
            return Feather.LAYERS;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::section;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Shell}. */
    public static final class OfShell implements ShapeForm {
        @Override
        public String word() {
            return "shell";
        }

        @Override
        public Class<Shell> type() {
            return Shell.class;
        }

        @Override
        public String group() {
            return "Surfaces";
        }

        @Override
        public Feather icon() {
            return Feather.LAYERS;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::shell;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Isosurface}. */
    public static final class OfIsosurface implements ShapeForm {
        @Override
        public String word() {
            return "isosurface";
        }

        @Override
        public Class<Isosurface> type() {
            return Isosurface.class;
        }

        @Override
        public String group() {
            return "Surfaces";
        }

        @Override
        public Feather icon() {
            return Feather.LAYERS;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::isosurface;
        }

        @Override
        public String lacks(Session session) {
            return NewStation.lacksIsosurface(session);
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Sheet}. */
    public static final class OfSheet implements ShapeForm {
        @Override
        public String word() {
            return "sheet";
        }

        @Override
        public Class<Sheet> type() {
            return Sheet.class;
        }

        @Override
        public String group() {
            return "Surfaces";
        }

        @Override
        public Feather icon() {
            return Feather.LAYERS;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Enclosing}. */
    public static final class OfEnclosing implements ShapeForm {
        @Override
        public String word() {
            return "enclosing";
        }

        @Override
        public Class<Enclosing> type() {
            return Enclosing.class;
        }

        @Override
        public String group() {
            return "Surfaces";
        }

        @Override
        public Feather icon() {
            return Feather.LAYERS;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::enclosing;
        }

        @Override
        public String lacks(Session session) {
            return NewStation.lacksEnclosing(session);
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Sweep}. */
    public static final class OfSweep implements ShapeForm {
        @Override
        public String word() {
            return "sweep";
        }

        @Override
        public Class<Sweep> type() {
            return Sweep.class;
        }

        @Override
        public String group() {
            return "Sweeps";
        }

        @Override
        public Feather icon() {
            return Feather.MENU;
        }

        @Override
        public String note(Shape shape) {
            return String.valueOf(((Sweep) shape).count());
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::sweep;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(OtherForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link Region}. */
    public static final class OfRegion implements ShapeForm {
        @Override
        public String word() {
            return "region";
        }

        @Override
        public Class<Region> type() {
            return Region.class;
        }

        @Override
        public String group() {
            return "Regions";
        }

        @Override
        public Feather icon() {
            return Feather.PACKAGE;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::region;
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(OtherForm.of(session, station, frame, cylindrical));
        }
    }

    /** See {@link OnPart}. */
    public static final class OfPart implements ShapeForm {
        @Override
        public String word() {
            return "part";
        }

        @Override
        public Class<OnPart> type() {
            return OnPart.class;
        }

        @Override
        public String group() {
            return "Parts";
        }

        @Override
        public Feather icon() {
            return Feather.BOX;
        }

        @Override
        public Consumer<Session> maker() {
            return NewStation::part;
        }

        @Override
        public String lacks(Session session) {
            return NewStation.lacksPart(session);
        }

        @Override
        public List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
            return List.of(SurfaceForm.of(session, station, frame, cylindrical));
        }
    }
}
