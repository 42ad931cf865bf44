package lane.desk.stations;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.DoubleFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.desk.Lengths;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;

/**
 * FormRows of numbers that place something of kind T: lengths in millimetres, angles in degrees. Places are told in the
 * frame that the thing stands in, by radius, angle and length where that frame is cylindrical.
 */
abstract class FormRows<T> {
    final Session session;
    final VBox box = new VBox(6);
    /** The frame that the numbers are in, as it stands in space. */
    final Axis frame;

    final boolean cylindrical;
    /** The unit that lengths are shown and typed in. */
    final Lengths lengths;

    FormRows(Session session, Axis frame, boolean cylindrical) {
        this.session = session;
        lengths = Lengths.of(session);
        this.frame = frame;
        this.cylindrical = cylindrical;
    }

    /** Changes the thing; what cannot be is told and changes nothing. */
    abstract void put(String what, Supplier<T> make);

    void row(String caption, Node... nodes) {
        HBox row = Ui.row(6, Ui.left(caption, 84, "second"));
        row.getChildren().addAll(nodes);
        box.getChildren().add(row);
    }

    TextField number(String id, double shown, String unit, Consumer<Double> changed) {
        var field = Ui.number(id, shown, unit, changed);
        field.setPrefWidth(64);
        field.setMinWidth(56);
        return field;
    }

    /** A length, kept in metres. */
    void length(String caption, String id, double metres, DoubleFunction<T> make) {
        row(
                caption,
                number(
                        id,
                        lengths.shown(metres),
                        lengths.symbol(),
                        v -> put(caption, () -> make.apply(lengths.metres(v)))),
                unit(lengths.symbol()));
    }

    void plain(String caption, String id, double now, String unit, DoubleFunction<T> make) {
        String symbol = unit.equals("degrees") ? "deg" : "";
        row(caption, number(id, now, symbol, v -> put(caption, () -> make.apply(v))), unit(unit));
    }

    static Node unit(String text) {
        return Ui.label(text, "small", "muted");
    }

    void heading(String name, String note) {
        HBox row = Ui.row(8, Ui.label(name, "title"), Ui.label(note, "small", "muted"));
        row.setStyle("-fx-padding: 8 0 0 0;");
        box.getChildren().add(row);
    }

    /** A place, with a menu of places to snap to. */
    void point(String caption, String id, Point p, Function<Point, T> make) {
        Point inSpace = frame.out(p);
        double radius = session.study().axis().radius(inSpace.x(), inSpace.y(), inSpace.z());
        Consumer<Point> changed = to -> put(caption, () -> make.apply(to));
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.label(caption, "section"),
                        Ui.spring(),
                        Ui.label(cylindrical ? "" : "radius " + lengths.brief(radius), "small", "muted"),
                        Snaps.menu(session, id, to -> changed.accept(frame.in(to)))));
        if (cylindrical) {
            double r = Math.hypot(p.x(), p.y());
            double angle = Math.toDegrees(Math.atan2(p.y(), p.x()));
            box.getChildren()
                    .add(Ui.row(
                            6,
                            field(
                                    "radius, " + lengths.symbol(),
                                    id + "r",
                                    lengths.shown(r),
                                    lengths.symbol(),
                                    v -> changed.accept(polar(lengths.metres(v), angle, p.z()))),
                            field("angle, °", id + "a", angle, "deg", v -> changed.accept(polar(r, v, p.z()))),
                            field(
                                    "z, " + lengths.symbol(),
                                    id + "z",
                                    lengths.shown(p.z()),
                                    lengths.symbol(),
                                    v -> changed.accept(polar(r, angle, lengths.metres(v))))));
            return;
        }
        box.getChildren()
                .add(Ui.row(
                        6,
                        field(
                                "x, " + lengths.symbol(),
                                id + "x",
                                lengths.shown(p.x()),
                                lengths.symbol(),
                                v -> changed.accept(new Point(lengths.metres(v), p.y(), p.z()))),
                        field(
                                "y, " + lengths.symbol(),
                                id + "y",
                                lengths.shown(p.y()),
                                lengths.symbol(),
                                v -> changed.accept(new Point(p.x(), lengths.metres(v), p.z()))),
                        field(
                                "z, " + lengths.symbol(),
                                id + "z",
                                lengths.shown(p.z()),
                                lengths.symbol(),
                                v -> changed.accept(new Point(p.x(), p.y(), lengths.metres(v))))));
    }

    private static Point polar(double r, double degrees, double z) {
        double a = Math.toRadians(degrees);
        return new Point(r * Math.cos(a), r * Math.sin(a), z);
    }

    void direction(String caption, String id, Point d, Function<Point, T> make) {
        Consumer<Point> changed = to -> put(caption, () -> make.apply(to));
        box.getChildren().add(Ui.row(8, Ui.label(caption, "section")));
        box.getChildren()
                .add(Ui.row(
                        6,
                        field("x", id + "x", d.x(), "", v -> changed.accept(new Point(v, d.y(), d.z()))),
                        field("y", id + "y", d.y(), "", v -> changed.accept(new Point(d.x(), v, d.z()))),
                        field("z", id + "z", d.z(), "", v -> changed.accept(new Point(d.x(), d.y(), v)))));
    }

    private static Node field(String caption, String id, double shown, String unit, Consumer<Double> changed) {
        var field = Ui.number("end-" + id, shown, unit, changed);
        field.setPrefWidth(88);
        return new VBox(1, Ui.label(caption, "small", "muted"), field);
    }

    void axis(Axis a, Function<Axis, T> make) {
        point("Axis through", "axis-at-", a.origin(), p -> make.apply(new Axis(p, a.direction(), a.zero())));
        direction("Axis along", "axis-along-", a.direction(), p -> make.apply(new Axis(a.origin(), p, null)));
        direction(
                "Angle zero towards", "axis-zero-", a.zero(), p -> make.apply(new Axis(a.origin(), a.direction(), p)));
    }

    /** Several numbers in one field, parted by semicolons. */
    static List<Double> values(String text, String unit) {
        return java.util.Arrays.stream(text.strip().split("\\s*;\\s*|(?<=\\d)\\s+(?=[-+−.\\d])"))
                .filter(t -> !t.isBlank())
                .map(t -> lane.formula.Amount.of(t, lane.unit.Unit.of(unit)))
                .toList();
    }
}
