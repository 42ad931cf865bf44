package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import lane.desk.ManyRows;
import lane.desk.Session;
import lane.desk.Ui;
import lane.picture.chart.ReadingChart;
import lane.reading.OfAnother;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import lane.reading.Several;
import lane.study.Source;

/** Numbers of a curve beneath the curve that they are taken of. */
final class CurvedPane implements ReadingPane {
    private static final double TALL = 260;

    private final Session session;
    private final TallyPane numbers;
    private final ChartView chart;
    private final BorderPane pane = new BorderPane();

    CurvedPane(Session session) {
        this.session = session;
        numbers = new TallyPane(session);
        chart = new ChartView(session);
    }

    @Override
    public Node show(Reading reading) {
        Node beneath = numbers.show(reading);
        ReadingChart of = session.study().readings().stream()
                .filter(r -> reading.ask() instanceof OfAnother o && r.ask().equals(o.of()))
                .findFirst()
                .map(r -> ReadingChart.of(session.study(), session.results(), r, session.palette()))
                .filter(c -> !c.curves().isEmpty())
                .orElse(null);
        if (of == null) {
            pane.setCenter(beneath);
            return pane;
        }
        chart.node().setPrefHeight(TALL);
        chart.node().setMinHeight(TALL);
        chart.show(of);
        var both = new VBox(chart.node(), why(reading), beneath);
        VBox.setVgrow(beneath, Priority.ALWAYS);
        pane.setCenter(both);
        return pane;
    }

    /** Whether each lane has settled, in a sentence, where that is asked. */
    private Node why(Reading reading) {
        var box = new VBox(2);
        box.getStyleClass().add("sheet");
        if (!(reading.ask() instanceof SettlingOf)) {
            return box;
        }
        List<Node> said = new ArrayList<>();
        for (Source s : session.study().lanes()) {
            if (session.results().outcome(reading.id(), s.id()) instanceof Several made) {
                boolean settled = made.of("settled").map(e -> e.value() == 1).orElse(false);
                var text = Ui.label(
                        s.name()
                                + (settled ? " has settled. " : " has not settled. ")
                                + made.named().getFirst().remark(),
                        "second",
                        settled ? "pine" : "ochre");
                text.setWrapText(true);
                text.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
                text.setStyle("-fx-padding: 2 16 2 16;");
                said.add(text);
            }
        }
        box.getChildren().addAll(ManyRows.few(said, "lane"));
        return box;
    }
}
