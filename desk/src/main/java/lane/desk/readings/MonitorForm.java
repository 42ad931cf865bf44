package lane.desk.readings;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.MonitorOf;
import lane.reading.Reading;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** What tables say over time or iterations. */
public final class MonitorForm implements AskForm {
    @Override
    public String word() {
        return "monitor";
    }

    @Override
    public Class<MonitorOf> type() {
        return MonitorOf.class;
    }

    @Override
    public String group() {
        return OverTime.GROUP;
    }

    @Override
    public Feather icon() {
        return Feather.ACTIVITY;
    }

    @Override
    public String name(Study study, Ask ask) {
        return ((MonitorOf) ask).what();
    }

    @Override
    public String what(Session session, Reading reading) {
        return reading.name();
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Monitor or log of tables", OverTime::lacksTables, OverTime::monitors));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var box = new VBox();
        settings(session, reading, box);
        return List.of(Inside.menu("monitor-settings", "Along", box));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var m = (MonitorOf) reading.ask();
        box.getChildren()
                .add(Rows.of(
                        "Along",
                        Ui.text(
                                "monitor-along",
                                m.along(),
                                a -> Rows.change(
                                        session, reading, () -> new MonitorOf(m.what(), a.strip(), m.alongUnit()))),
                        Rows.unit(
                                m.alongUnit(),
                                "monitor-unit",
                                u -> Rows.change(
                                        session, reading, () -> new MonitorOf(m.what(), m.along(), u.strip())))));
    }
}
