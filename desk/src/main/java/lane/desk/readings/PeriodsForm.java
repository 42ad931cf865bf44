package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.reading.Ask;
import lane.reading.PeriodsOf;
import lane.reading.Reading;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** The strongest periods of a history. */
public final class PeriodsForm implements AskForm {
    @Override
    public String word() {
        return "periods";
    }

    @Override
    public Class<PeriodsOf> type() {
        return PeriodsOf.class;
    }

    @Override
    public String group() {
        return OverTime.GROUP;
    }

    @Override
    public Feather icon() {
        return Feather.RADIO;
    }

    @Override
    public String name(Study study, Ask ask) {
        Ask of = ((PeriodsOf) ask).of();
        String name = AskForm.ALL.of(of).name(study, of);
        return name.isBlank() ? "" : "Periods of " + name;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Strongest periods", OverTime::lacksHistory, OverTime::periods));
    }

    @Override
    public ReadingPane pane(Panes panes, Reading reading) {
        return panes.of(CurvedPane.class, CurvedPane::new);
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var p = (PeriodsOf) reading.ask();
        OverTime.of(session, reading, p, box);
        box.getChildren()
                .addAll(
                        Rows.of(
                                "at most",
                                Rows.number(
                                        "periods-most",
                                        p.most(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> new PeriodsOf(
                                                        p.of(),
                                                        (int) Math.round(v),
                                                        p.alongUnit(),
                                                        p.from(),
                                                        p.to())))),
                        Rows.of(
                                "from, to",
                                Rows.end(
                                        "periods-from",
                                        p.from(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> new PeriodsOf(
                                                        p.of(), p.most(), p.alongUnit(), v.orElse(null), p.to()))),
                                Rows.end(
                                        "periods-to",
                                        p.to(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> new PeriodsOf(
                                                        p.of(), p.most(), p.alongUnit(), p.from(), v.orElse(null)))),
                                Rows.unit(
                                        p.alongUnit(),
                                        "periods-along",
                                        u -> Rows.change(
                                                session,
                                                reading,
                                                () -> new PeriodsOf(p.of(), p.most(), u.strip(), p.from(), p.to())))));
    }
}
