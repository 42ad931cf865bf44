package lane.desk.readings;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.OverTimesOf;
import lane.reading.OverTimesOf.Show;
import lane.reading.Reading;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** A curve over the stored times of a run. */
public final class OverTimesForm implements AskForm {
    @Override
    public String word() {
        return "over-times";
    }

    @Override
    public Class<OverTimesOf> type() {
        return OverTimesOf.class;
    }

    @Override
    public String group() {
        return OverTime.GROUP;
    }

    @Override
    public Feather icon() {
        return Feather.LAYERS;
    }

    @Override
    public String name(Study study, Ask ask) {
        var o = (OverTimesOf) ask;
        String name = AskForm.ALL.of(o.of()).name(study, o.of());
        return name.isBlank() ? "" : name + (o.show() == Show.MEAN ? ", mean over time" : " at several times");
    }

    @Override
    public String what(Session session, Reading reading) {
        Ask of = ((OverTimesOf) reading.ask()).of();
        return AskForm.ALL.of(of).what(session, reading.asking(of));
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Profiles over times", OverTime::lacksTimes, OverTime::profiles));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var box = new VBox();
        settings(session, reading, box);
        return List.of(Inside.menu("over-times-settings", "How it is taken", box));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var o = (OverTimesOf) reading.ask();
        box.getChildren()
                .add(Rows.of(
                        "Show",
                        Ui.choice(
                                "over-times-show",
                                List.of(Show.values()),
                                o.show(),
                                Show::word,
                                s -> Rows.change(
                                        session,
                                        reading,
                                        () -> new OverTimesOf(o.of(), s, o.most(), o.timeUnit(), o.from(), o.to())))));
        if (o.show() == Show.FAMILY) {
            box.getChildren()
                    .add(Rows.of(
                            "at most",
                            Rows.number(
                                    "over-times-most",
                                    o.most(),
                                    v -> Rows.change(
                                            session,
                                            reading,
                                            () -> new OverTimesOf(
                                                    o.of(),
                                                    o.show(),
                                                    (int) Math.round(v),
                                                    o.timeUnit(),
                                                    o.from(),
                                                    o.to()))),
                            Ui.label("curves", "small", "muted")));
        }
        TimeRows.add(
                session,
                reading,
                box,
                o.timeUnit(),
                o.from(),
                o.to(),
                u -> new OverTimesOf(o.of(), o.show(), o.most(), u, o.from(), o.to()),
                (a, b) -> new OverTimesOf(o.of(), o.show(), o.most(), o.timeUnit(), a, b));
        Ask of = o.of();
        box.getChildren().addAll(AskForm.ALL.of(of).tools(session, reading.asking(of)));
    }
}
