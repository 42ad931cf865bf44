package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.FitOf;
import lane.reading.FitOf.Over;
import lane.reading.FitOf.Show;
import lane.reading.Reading;
import lane.station.Shape;
import lane.station.Station;
import lane.study.Study;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** Polynomials through curves, and through nodes and cells. */
public final class FitForm implements AskForm {
    @Override
    public String word() {
        return "fit";
    }

    @Override
    public Class<FitOf> type() {
        return FitOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public String group(Reading reading) {
        return reading.curve() ? "Profiles" : "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.GIT_COMMIT;
    }

    @Override
    public String name(Study study, Ask ask) {
        var f = (FitOf) ask;
        return "Fit of " + AskForm.quantity(study, f.quantity()) + ", " + AskForm.places(study, f.stations());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Polynomial through a curve",
                NewReading::lacksNumber,
                NewReading::fit,
                Shape.Sampled.class::isInstance));
    }

    @Override
    public String what(Session session, Reading reading) {
        var f = (FitOf) reading.ask();
        String name = session.study().quantity(f.quantity()).map(Quantity::name).orElse(f.quantity());
        return name + ", " + f.show().word();
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var f = (FitOf) reading.ask();
        var out = new ArrayList<Node>(
                List.of(quantity(session, reading, f), Ui.label("degree", "muted"), degree(session, reading, f)));
        if (f.over() == Over.CURVE) {
            out.addAll(List.of(Ui.label("on", "muted"), station(session, reading, f)));
        }
        out.add(show(session, reading, f));
        return out;
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var f = (FitOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of("Fit of", quantity(session, reading, f)),
                        Rows.of("through", over(session, reading, f)),
                        Rows.of(
                                f.over() == Over.CURVE ? "along" : "in",
                                f.over() == Over.CURVE ? station(session, reading, f) : parts(session, reading, f)));
        if (f.over() != Over.CURVE) {
            box.getChildren().add(Rows.of("against", against(session, reading, f)));
        }
        box.getChildren()
                .addAll(
                        Rows.of("Degree", degree(session, reading, f)),
                        Rows.of(
                                "from, to",
                                Rows.end(
                                        "fit-from",
                                        f.from(),
                                        v -> Rows.change(session, reading, () -> between(f, v.orElse(null), f.to()))),
                                Rows.end(
                                        "fit-to",
                                        f.to(),
                                        v -> Rows.change(session, reading, () -> between(f, f.from(), v.orElse(null)))),
                                Rows.unit(
                                        f.alongUnit(),
                                        "fit-along",
                                        u -> Rows.change(session, reading, () -> alongIn(f, u)))),
                        Rows.of("Judged by", judged(session, reading, f)),
                        Rows.of("shown", show(session, reading, f)));
    }

    private static Node quantity(Session session, Reading reading, FitOf f) {
        return Ui.choice(
                "fit-quantity",
                session.numbers(),
                session.study().quantity(f.quantity()).orElse(null),
                q -> q == null ? "?" : q.name(),
                q -> Rows.change(
                        session, reading.in(""), () -> of(f, f.stations(), q.id(), f.degree(), f.over(), f.against())));
    }

    /** Places count as well as quantities. */
    private static Node against(Session session, Reading reading, FitOf f) {
        List<String> among = new ArrayList<>(List.of("x", "y", "z"));
        session.numbers().stream()
                .map(Quantity::id)
                .filter(k -> !among.contains(k))
                .forEach(among::add);
        if (!among.contains(f.against())) {
            among.add(f.against());
        }
        return Ui.choice(
                "fit-against",
                among,
                f.against(),
                k -> k.isBlank()
                        ? "choose one"
                        : session.study().quantity(k).map(Quantity::name).orElse(k),
                k -> Rows.change(
                        session, reading.in(""), () -> of(f, f.stations(), f.quantity(), f.degree(), f.over(), k)));
    }

    private static Node over(Session session, Reading reading, FitOf f) {
        return Ui.choice(
                "fit-over",
                List.of(Over.values()),
                f.over(),
                Over::word,
                o -> NewReading.fitOver(session, reading, f, o));
    }

    private static Node parts(Session session, Reading reading, FitOf f) {
        return PartsChoice.of(
                session,
                "fit-parts",
                f.stations(),
                1,
                ids -> Rows.change(
                        session, reading, () -> of(f, ids, f.quantity(), f.degree(), f.over(), f.against())));
    }

    private static Node station(Session session, Reading reading, FitOf f) {
        Station now = f.stations().stream()
                .flatMap(id -> session.study().station(id).stream())
                .findFirst()
                .orElse(null);
        return Ui.choice(
                "fit-station",
                session.study().stations().stream().filter(FeatureForm::curved).toList(),
                now,
                s -> s == null ? "?" : s.name(),
                s -> Rows.change(
                        session,
                        reading,
                        () -> of(f, List.of(s.id()), f.quantity(), f.degree(), f.over(), f.against())));
    }

    private static Node degree(Session session, Reading reading, FitOf f) {
        var field = Rows.number(
                "fit-degree",
                f.degree(),
                v -> Rows.change(
                        session,
                        reading.in(""),
                        () -> of(f, f.stations(), f.quantity(), (int) Math.round(v), f.over(), f.against())));
        field.setPrefWidth(48);
        return field;
    }

    private static Node judged(Session session, Reading reading, FitOf f) {
        return Ui.choice(
                "fit-number",
                IntStream.rangeClosed(0, f.degree()).boxed().toList(),
                f.number(),
                k -> k == 0 ? "constant" : "coefficient " + k,
                k -> Rows.change(
                        session,
                        reading.in(""),
                        () -> new FitOf(
                                f.stations(),
                                f.quantity(),
                                f.degree(),
                                f.over(),
                                f.against(),
                                f.alongUnit(),
                                f.from(),
                                f.to(),
                                f.show(),
                                k)));
    }

    private static Node show(Session session, Reading reading, FitOf f) {
        return Ui.choice(
                "fit-show",
                List.of(Show.values()),
                f.show(),
                Show::word,
                s -> Rows.change(
                        session,
                        reading.in(""),
                        () -> new FitOf(
                                f.stations(),
                                f.quantity(),
                                f.degree(),
                                f.over(),
                                f.against(),
                                f.alongUnit(),
                                f.from(),
                                f.to(),
                                s,
                                f.number())));
    }

    /** A lower degree has no number beyond it. */
    static FitOf of(FitOf f, List<String> stations, String quantity, int degree, Over over, String against) {
        return new FitOf(
                stations,
                quantity,
                degree,
                over,
                against,
                f.alongUnit(),
                f.from(),
                f.to(),
                f.show(),
                Math.min(f.number(), Math.max(0, degree)));
    }

    private static FitOf between(FitOf f, @Nullable Double from, @Nullable Double to) {
        return new FitOf(
                f.stations(),
                f.quantity(),
                f.degree(),
                f.over(),
                f.against(),
                f.alongUnit(),
                from,
                to,
                f.show(),
                f.number());
    }

    private static FitOf alongIn(FitOf f, String unit) {
        lane.unit.Unit.of(unit);
        return new FitOf(
                f.stations(),
                f.quantity(),
                f.degree(),
                f.over(),
                f.against(),
                unit,
                f.from(),
                f.to(),
                f.show(),
                f.number());
    }
}
