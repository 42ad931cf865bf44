package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import lane.study.Study;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** Whether a history has settled, and its mean. */
public final class SettlingForm implements AskForm {
    @Override
    public String word() {
        return "settling";
    }

    @Override
    public Class<SettlingOf> type() {
        return SettlingOf.class;
    }

    @Override
    public String group() {
        return OverTime.GROUP;
    }

    @Override
    public Feather icon() {
        return Feather.ANCHOR;
    }

    @Override
    public String name(Study study, Ask ask) {
        Ask of = ((SettlingOf) ask).of();
        String name = AskForm.ALL.of(of).name(study, of);
        return name.isBlank() ? "" : "Settled " + name;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Settled or not", OverTime::lacksHistory, OverTime::settling));
    }

    @Override
    public ReadingPane pane(Panes panes, Reading reading) {
        return panes.of(CurvedPane.class, CurvedPane::new);
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var s = (SettlingOf) reading.ask();
        OverTime.of(session, reading, s, box);
        box.getChildren()
                .addAll(
                        Rows.of(
                                "Window, last",
                                Rows.number(
                                        "settling-window",
                                        100 * s.window(),
                                        v -> Rows.change(
                                                session, reading, () -> with(s, v / 100, s.tolerance(), s.scale()))),
                                Ui.label("% of it", "small", "muted")),
                        Rows.of(
                                "Tolerance",
                                Rows.number(
                                        "settling-tolerance",
                                        100 * s.tolerance(),
                                        v -> Rows.change(
                                                session, reading, () -> with(s, s.window(), v / 100, s.scale()))),
                                Ui.label(
                                        s.scale() == null
                                                ? "% of the mean; of a temperature, its range"
                                                : "% of the scale",
                                        "small",
                                        "muted")),
                        Rows.of(
                                "Scale",
                                Rows.end(
                                        "settling-scale",
                                        s.scale(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> with(s, s.window(), s.tolerance(), v.orElse(null)))),
                                Rows.unit(
                                        s.scaleUnit(),
                                        "settling-scale-unit",
                                        u -> Rows.change(
                                                session,
                                                reading,
                                                () -> new SettlingOf(
                                                        s.of(),
                                                        s.window(),
                                                        s.tolerance(),
                                                        s.scale(),
                                                        u.strip(),
                                                        s.batches())))),
                        Rows.of(
                                "Batches",
                                Rows.number(
                                        "settling-batches",
                                        s.batches(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> new SettlingOf(
                                                        s.of(),
                                                        s.window(),
                                                        s.tolerance(),
                                                        s.scale(),
                                                        s.scaleUnit(),
                                                        (int) Math.round(v)))),
                                Ui.label("0: as suits", "small", "muted")));
    }

    private static SettlingOf with(SettlingOf s, double window, double tolerance, @Nullable Double scale) {
        return new SettlingOf(s.of(), window, tolerance, scale, s.scaleUnit(), s.batches());
    }
}
