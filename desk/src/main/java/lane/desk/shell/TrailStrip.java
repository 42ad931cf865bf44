package lane.desk.shell;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import lane.desk.BuiltFrom;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.provenance.Data;
import lane.provenance.Provenance;

/** How the selected number came about; each step leads to its stop and shows its settings. A message takes its place. */
public final class TrailStrip implements View {
    private static final List<String> STOPS = List.of("source", "station", "quantity", "reading", "check");

    private final Session session;
    private final HBox box = Ui.row(8);
    private final BuiltFrom built = new BuiltFrom();

    public TrailStrip(Session session) {
        this.session = session;
        box.getStyleClass().add("trail");
        box.setMinHeight(28);
        box.setPrefHeight(28);
        box.setMaxHeight(28);
        box.setStyle("-fx-padding: 0 16 0 16;");
    }

    @Override
    public Node node() {
        return box;
    }

    @Override
    public void refresh() {
        if (!built.changed(session.message(), session.news(), session.trail())) {
            return;
        }
        List<Node> nodes = new ArrayList<>();
        if (!session.message().isBlank()) {
            Label message = Ui.label(session.message(), session.news() ? "second" : "trouble-text");
            message.setId("message");
            nodes.add(message);
            nodes.add(Ui.spring());
            nodes.add(Ui.iconButton(org.kordamp.ikonli.feather.Feather.X, "Dismiss", () -> session.say("")));
        } else {
            nodes.add(Ui.label("Trail", "section", "second"));
            List<Provenance.Step> steps = session.trail().steps();
            if (steps.isEmpty()) {
                nodes.add(Ui.label("select a number to see how it came about", "small", "muted"));
            }
            for (int i = 0; i < steps.size(); i++) {
                if (i > 0) {
                    nodes.add(Ui.label("›", "muted"));
                }
                nodes.add(step(steps.get(i), i == steps.size() - 1));
            }
        }
        box.getChildren().setAll(nodes);
    }

    private Label step(Provenance.Step step, boolean last) {
        Label label = Ui.label(step.text(), "link");
        label.setMinWidth(40);
        if (last) {
            label.getStyleClass().add("teal");
        }
        var text = new StringBuilder(step.text());
        step.settings()
                .forEach((k, v) -> text.append('\n').append(k).append(": ").append(Data.text(v)));
        Tip.on(label, text.toString());
        int stop =
                switch (STOPS.indexOf(step.stop())) {
                    case 0 -> 1;
                    case 1 -> 2;
                    case 2 -> 3;
                    case 3 -> 4;
                    default -> 5;
                };
        label.setOnMouseClicked(e -> session.go(stop));
        return label;
    }
}
