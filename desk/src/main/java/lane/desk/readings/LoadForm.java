package lane.desk.readings;

import java.util.List;
import java.util.function.DoubleFunction;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Point;
import lane.reading.LoadOf;
import lane.reading.LoadOf.Reference;
import lane.reading.LoadOf.Which;
import lane.reading.Reading;
import lane.station.Shape;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** Force and moment along and across a stream, with centre of pressure and coefficients, in one reading. */
public final class LoadForm implements AskForm {
    private static final Reference FIRST = new Reference(1.2, 1, 1, 1);

    @Override
    public String word() {
        return "load";
    }

    @Override
    public Class<LoadOf> type() {
        return LoadOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.CROSSHAIR;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Load: along, across, moment, coefficients",
                NewReading::lacksLoads,
                NewReading::load,
                Shape.Surface.class::isInstance));
    }

    @Override
    public String sign(Reading reading) {
        var l = (LoadOf) reading.ask();
        return "a force is positive where it pushes " + l.loads().on().word()
                + " along the direction; a moment turns by the right-hand rule";
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var l = (LoadOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of(
                                "Parts",
                                PartsChoice.of(
                                        session,
                                        "load-parts",
                                        l.stations(),
                                        1,
                                        ids -> Rows.change(
                                                session,
                                                reading,
                                                () -> new LoadOf(
                                                        ids,
                                                        l.loads(),
                                                        l.about(),
                                                        l.along(),
                                                        l.across(),
                                                        l.reference(),
                                                        l.number(),
                                                        l.frame(),
                                                        null)))),
                        MeasureForm.ofLoads(
                                session,
                                "load",
                                l.loads(),
                                loads -> Rows.change(
                                        session,
                                        reading,
                                        () -> new LoadOf(
                                                l.stations(),
                                                loads,
                                                l.about(),
                                                l.along(),
                                                l.across(),
                                                l.reference(),
                                                l.number(),
                                                l.frame(),
                                                null))),
                        Rows.point("along", "load-along", l.along(), p -> turn(session, reading, l, p, l.across())),
                        Rows.point("across", "load-across", l.across(), p -> turn(session, reading, l, l.along(), p)),
                        Rows.point(
                                "about, m",
                                "load-about",
                                l.about(),
                                p -> Rows.change(
                                        session,
                                        reading,
                                        () -> new LoadOf(
                                                l.stations(),
                                                l.loads(),
                                                p,
                                                l.along(),
                                                l.across(),
                                                l.reference(),
                                                l.number(),
                                                l.frame(),
                                                null))));
        Rows.frame(
                        session,
                        "load-frame",
                        l.frame(),
                        f -> Rows.change(
                                session,
                                reading,
                                () -> new LoadOf(
                                        l.stations(),
                                        l.loads(),
                                        l.about(),
                                        l.along(),
                                        l.across(),
                                        l.reference(),
                                        l.number(),
                                        f,
                                        null)))
                .ifPresent(box.getChildren()::add);
        reference(session, reading, l, box);
        box.getChildren()
                .add(Rows.of(
                        "Judged by",
                        Ui.choice(
                                "load-number",
                                List.of(Which.values()).stream()
                                        .filter(w -> l.reference() != null
                                                || !w.word().startsWith("coefficient"))
                                        .toList(),
                                l.number(),
                                Which::word,
                                w -> Rows.change(session, reading.in(""), () -> with(l, l.reference(), w)))));
    }

    private static void turn(Session session, Reading reading, LoadOf l, Point along, Point across) {
        Rows.change(
                session,
                reading,
                () -> new LoadOf(
                        l.stations(),
                        l.loads(),
                        l.about(),
                        MeasureForm.unit(along),
                        MeasureForm.unit(across),
                        l.reference(),
                        l.number(),
                        l.frame(),
                        null));
    }

    private static LoadOf with(LoadOf l, @Nullable Reference reference, Which number) {
        return new LoadOf(
                l.stations(), l.loads(), l.about(), l.along(), l.across(), reference, number, l.frame(), null);
    }

    private static void reference(Session session, Reading reading, LoadOf l, VBox box) {
        Reference r = l.reference();
        var wanted = Named.check("coefficients");
        wanted.setId("load-coefficients");
        wanted.setSelected(r != null);
        wanted.setOnAction(e -> Rows.change(
                session,
                reading.in(""),
                () -> r == null
                        ? with(l, FIRST, l.number())
                        : with(l, null, l.number().word().startsWith("coefficient") ? Which.ALONG : l.number())));
        box.getChildren().add(Rows.of("", wanted));
        if (r == null) {
            return;
        }
        box.getChildren()
                .addAll(
                        value(
                                session,
                                reading,
                                l,
                                "kg/m3",
                                "density",
                                r.density(),
                                v -> new Reference(v, r.speed(), r.area(), r.length())),
                        value(
                                session,
                                reading,
                                l,
                                "m/s",
                                "speed",
                                r.speed(),
                                v -> new Reference(r.density(), v, r.area(), r.length())),
                        value(
                                session,
                                reading,
                                l,
                                "m2",
                                "area",
                                r.area(),
                                v -> new Reference(r.density(), r.speed(), v, r.length())),
                        value(
                                session,
                                reading,
                                l,
                                "m",
                                "length",
                                r.length(),
                                v -> new Reference(r.density(), r.speed(), r.area(), v)));
    }

    private static Node value(
            Session session,
            Reading reading,
            LoadOf l,
            String unit,
            String word,
            double now,
            DoubleFunction<Reference> make) {
        var field = Ui.number(
                "load-" + word,
                now,
                unit,
                v -> Rows.change(session, reading, () -> with(l, make.apply(v), l.number())));
        field.setPrefWidth(78);
        return Rows.of(word, field, Ui.label(unit, "muted"));
    }
}
