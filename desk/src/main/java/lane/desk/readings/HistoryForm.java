package lane.desk.readings;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.reading.Ask;
import lane.reading.HistoryOf;
import lane.reading.Reading;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** A number over the stored times of a run. */
public final class HistoryForm implements AskForm {
    @Override
    public String word() {
        return "history";
    }

    @Override
    public Class<HistoryOf> type() {
        return HistoryOf.class;
    }

    @Override
    public String group() {
        return OverTime.GROUP;
    }

    @Override
    public Feather icon() {
        return Feather.CLOCK;
    }

    @Override
    public String name(Study study, Ask ask) {
        Ask of = ((HistoryOf) ask).of();
        String name = AskForm.ALL.of(of).name(study, of);
        return name.isBlank() ? "" : name + " over time";
    }

    @Override
    public String what(Session session, Reading reading) {
        Ask of = ((HistoryOf) reading.ask()).of();
        String name = AskForm.ALL.of(of).name(session.study(), of);
        return name.isBlank() ? reading.name() : name;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Number over time", OverTime::lacksTimes, OverTime::history));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var box = new VBox();
        settings(session, reading, box);
        return List.of(Inside.menu("history-settings", "How it is taken", box));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var h = (HistoryOf) reading.ask();
        TimeRows.add(
                session,
                reading,
                box,
                h.timeUnit(),
                h.from(),
                h.to(),
                u -> new HistoryOf(h.of(), u, h.from(), h.to()),
                (a, b) -> new HistoryOf(h.of(), h.timeUnit(), a, b));
        Inside.settings(session, reading, box);
    }
}
