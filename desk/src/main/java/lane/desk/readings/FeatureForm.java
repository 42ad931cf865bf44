package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.FeatureOf;
import lane.reading.FeatureOf.What;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.station.CutCurve;
import lane.station.Shape;
import lane.station.Station;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** Numbers of a curve: values at places, crossings, peaks, slopes. */
public final class FeatureForm implements AskForm {
    @Override
    public String word() {
        return "feature";
    }

    @Override
    public Class<FeatureOf> type() {
        return FeatureOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.TRENDING_UP;
    }

    @Override
    public String name(Study study, Ask ask) {
        var f = (FeatureOf) ask;
        if (!(f.of() instanceof ProfileOf p)) {
            String curve = AskForm.ALL.of(f.of()).name(study, f.of());
            return curve.isBlank() ? "" : Plain.title(f.what().word()) + ", " + curve;
        }
        String quantity = AskForm.quantity(study, p.quantity());
        String of = quantity + ", " + AskForm.places(study, List.of(p.station()));
        return switch (f.what()) {
            case PEAK -> "Greatest " + of;
            case LOW -> "Least " + of;
            default ->
                Plain.title(f.what().word().replace(" it ", " " + quantity + " ")) + ", "
                        + AskForm.places(study, List.of(p.station()));
        };
    }

    @Override
    public String group(Reading reading) {
        return reading.ask() instanceof FeatureOf f && f.of().clock().isPresent() ? OverTime.GROUP : group();
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Number of a curve", NewReading::lacksNumber, NewReading::feature, Shape.Sampled.class::isInstance));
    }

    /** Whether a curve can be read along a station. */
    static boolean curved(Station station) {
        return station.shape() instanceof Shape.Sampled || station.shape() instanceof CutCurve;
    }

    @Override
    public ReadingPane pane(Panes panes, Reading reading) {
        return panes.of(CurvedPane.class, CurvedPane::new);
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var f = (FeatureOf) reading.ask();
        List<Station> stations =
                session.study().stations().stream().filter(FeatureForm::curved).toList();
        box.getChildren()
                .add(Rows.of(
                        "Number",
                        Ui.choice(
                                "feature-what",
                                List.of(What.values()),
                                f.what(),
                                What::word,
                                w -> Rows.change(session, reading.in(""), () -> of(f, w, first(w), f.count())))));
        if (f.of() instanceof ProfileOf p) {
            profile(session, reading, f, p, stations, box);
        } else {
            OverTime.of(session, reading, f, box);
        }
        if (f.what().atPlace() || f.what().level() || f.what() == What.WIDTH) {
            String unit = f.what().atPlace() ? f.alongUnit() : f.what().level() ? f.levelUnit() : "";
            String caption = f.what().atPlace() ? "at" : f.what().level() ? "level" : "share";
            box.getChildren()
                    .add(Rows.of(
                            caption,
                            Rows.number(
                                    "feature-at",
                                    f.at(),
                                    v -> Rows.change(session, reading, () -> of(f, f.what(), v, f.count()))),
                            Rows.unit(
                                    f.what() == What.WIDTH ? null : unit,
                                    "feature-unit",
                                    u -> Rows.change(session, reading, () -> in(f, u)))));
        }
        if (f.what() == What.CROSSING) {
            box.getChildren()
                    .add(Rows.of(
                            "which one",
                            Rows.number(
                                    "feature-count",
                                    f.count(),
                                    v -> Rows.change(
                                            session, reading, () -> of(f, f.what(), f.at(), (int) Math.round(v))))));
        }
        box.getChildren()
                .add(Rows.of(
                        "from, to",
                        Rows.end(
                                "feature-from",
                                f.from(),
                                v -> Rows.change(session, reading, () -> between(f, v.orElse(null), f.to()))),
                        Rows.end(
                                "feature-to",
                                f.to(),
                                v -> Rows.change(session, reading, () -> between(f, f.from(), v.orElse(null)))),
                        Rows.unit(
                                f.alongUnit(),
                                "feature-along",
                                u -> Rows.change(session, reading, () -> alongIn(f, u)))));
    }

    private static double first(What what) {
        return what == What.WIDTH ? 0.5 : 0;
    }

    private static void profile(
            Session session, Reading reading, FeatureOf f, ProfileOf p, List<Station> stations, VBox box) {
        session.study().quantity(p.quantity()).ifPresent(q -> box.getChildren()
                .add(Rows.of(
                        "of",
                        Ui.choice(
                                "feature-quantity",
                                session.numbers(),
                                q,
                                Quantity::name,
                                c -> Rows.change(
                                        session, reading.in(""), () -> f.of(new ProfileOf(p.station(), c.id())))))));
        session.study().station(p.station()).ifPresent(s -> box.getChildren()
                .add(Rows.of(
                        "along",
                        Ui.choice(
                                "feature-station",
                                stations,
                                s,
                                Station::name,
                                c -> Rows.change(session, reading, () -> f.of(new ProfileOf(c.id(), p.quantity())))))));
    }

    private static FeatureOf of(FeatureOf f, What what, double at, int count) {
        return new FeatureOf(f.of(), what, at, count, f.levelUnit(), f.alongUnit(), f.from(), f.to());
    }

    private static FeatureOf in(FeatureOf f, String unit) {
        Unit.of(unit);
        return f.what().atPlace()
                ? alongIn(f, unit)
                : new FeatureOf(f.of(), f.what(), f.at(), f.count(), unit, f.alongUnit(), f.from(), f.to());
    }

    private static FeatureOf alongIn(FeatureOf f, String unit) {
        return new FeatureOf(f.of(), f.what(), f.at(), f.count(), f.levelUnit(), unit, f.from(), f.to());
    }

    private static FeatureOf between(FeatureOf f, @Nullable Double from, @Nullable Double to) {
        return new FeatureOf(f.of(), f.what(), f.at(), f.count(), f.levelUnit(), f.alongUnit(), from, to);
    }
}
