package lane.desk.ledger;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.ledger.Ledger;
import lane.picture.Ticks;
import lane.provenance.Data;
import lane.provenance.Provenance;
import org.jspecify.annotations.Nullable;

/** How a number came about: its files by content, and each step with its settings and method. */
final class LedgerTrail {
    private static final double WIDE = 338;

    private final Session session;
    private final VBox detail = new VBox(6);
    private final ScrollPane scroll = new ScrollPane(detail);
    private Ledger.@Nullable Line shown;

    LedgerTrail(Session session) {
        this.session = session;
        detail.setStyle("-fx-padding: 10 16 16 16;");
        detail.getStyleClass().add("panel");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinWidth(WIDE);
        scroll.setMaxWidth(WIDE);
    }

    Node node() {
        return scroll;
    }

    void show(Ledger.@Nullable Line line) {
        if (line != null && line.equals(shown)) {
            return;
        }
        shown = line;
        detail.getChildren().clear();
        if (line != null && !line.trail().steps().isEmpty()) {
            session.show("line " + line.id(), line::trail);
        }
        if (line == null) {
            detail.getChildren().add(Ui.label("No numbers yet", "muted"));
            return;
        }
        detail.getChildren()
                .addAll(
                        Ui.label("How the number came about", "title"),
                        Ui.label(line.item() + ", " + line.what(), "second"),
                        Ui.row(
                                8,
                                Ui.label(Ticks.number(line.value(), Double.NaN), "section"),
                                Ui.label(line.unit(), "muted"),
                                Ui.label(line.lane(), "muted")));
        if (line.trail().typed()) {
            detail.getChildren().add(note("Typed by hand, or resting on a number that was."));
        }
        if (!line.remark().isBlank()) {
            detail.getChildren().add(note(line.remark()));
        }
        for (Provenance.Input input : line.trail().inputs()) {
            detail.getChildren()
                    .add(pair(
                            "file",
                            input.path() + "\n"
                                    + (input.proved()
                                            ? input.sha256().substring(0, 32) + "\n"
                                                    + input.sha256().substring(32)
                                            : "not proved yet")
                                    + "\n" + input.bytes() + " bytes"));
        }
        for (Provenance.Step step : line.trail().steps()) {
            detail.getChildren().add(pair(step.stop(), words(step)));
        }
        for (Provenance.Other other : line.trail().others()) {
            detail.getChildren().add(Ui.label(other.as(), "second", "strong"));
            other.steps().forEach(step -> detail.getChildren().add(pair(step.stop(), words(step))));
        }
    }

    private static String words(Provenance.Step step) {
        var text = new StringBuilder(step.text());
        step.settings().forEach((k, v) -> {
            String value = Data.text(v);
            if (step.text().contains(value)) {
                // The sentence says it.
                return;
            }
            text.append('\n').append(k).append(": ");
            text.append(value.length() < 160 ? value : value.substring(0, 159) + "…");
        });
        return text.append("\nmethod: ")
                .append(step.method().name())
                .append(", version ")
                .append(step.method().version())
                .toString();
    }

    private static Node note(String text) {
        var label = Ui.label(text, "second");
        label.getStyleClass().add("note");
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return label;
    }

    private static Node pair(String key, String value) {
        var label = Ui.label(value, "mono");
        label.setWrapText(true);
        label.setMaxWidth(226);
        label.setMinHeight(Region.USE_PREF_SIZE);
        HBox row = Ui.row(8, Ui.left(key, 62, "small", "muted"), label);
        row.setAlignment(Pos.TOP_LEFT);
        row.getStyleClass().add("rule");
        return row;
    }
}
