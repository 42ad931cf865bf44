package lane.desk.ledger;

import java.util.List;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.picture.Ticks;

/** Every number of the ledger, one a line; names give way where there is little room. */
final class LedgerList {
    private static final double FIXED = 46 + 66 + 96 + 8 + 50 + 70 + 18;
    private static final double NARROW = 80;

    private final ListView<Ledger.Line> list = new ListView<>();
    private final BorderPane pane;
    private boolean filling;

    LedgerList(Consumer<Ledger.Line> chosen) {
        list.setId("ledger-list");
        list.setFixedCellSize(25);
        list.setMinWidth(0);
        list.setCellFactory(v -> new Row());
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            if (!filling) {
                chosen.accept(is);
            }
        });
        HBox head = Ui.row(
                0,
                Ui.left("", 46),
                shared(Ui.left("Item", NARROW, "small", "muted")),
                shared(Ui.left("What", NARROW, "small", "muted")),
                Ui.left("Lane", 66, "small", "muted"),
                Ui.cell("Value", 96, "small", "muted"),
                Ui.left("", 8),
                Ui.left("Unit", 50, "small", "muted"),
                Ui.left("Verdict", 88, "small", "muted"));
        head.getStyleClass().addAll("table-row", "paper");
        head.setMinHeight(40);
        head.setMinWidth(0);
        pane = new BorderPane(list, head, null, null, null);
        pane.setMinWidth(0);
    }

    Node node() {
        return pane;
    }

    /** @return the line that is chosen then */
    Ledger.Line fill(List<Ledger.Line> lines) {
        int at = list.getSelectionModel().getSelectedIndex();
        filling = true;
        list.setItems(FXCollections.observableArrayList(lines));
        list.getSelectionModel().select(Math.max(0, Math.min(at, lines.size() - 1)));
        filling = false;
        return list.getSelectionModel().getSelectedItem();
    }

    /** Chooses the line that is so many further on, if there is one. */
    void step(int by) {
        int at = list.getSelectionModel().getSelectedIndex() + by;
        if (at >= 0 && at < list.getItems().size()) {
            list.getSelectionModel().select(at);
            list.scrollTo(at);
        }
    }

    /** Half of what the fixed columns leave. */
    private Label shared(Label label) {
        label.setMinWidth(NARROW);
        label.setMaxWidth(Double.MAX_VALUE);
        label.prefWidthProperty().bind(list.widthProperty().subtract(FIXED).divide(2));
        // Long words end before the next column.
        label.setStyle("-fx-padding: 0 10 0 0;");
        HBox.setHgrow(label, Priority.NEVER);
        return label;
    }

    /** One number. Its labels are made once and filled again, as an edit changes many rows at once. */
    private final class Row extends ListCell<Ledger.Line> {
        private final Label id = Ui.cell("", 38, "small", "muted");
        private final Label item = shared(Ui.left("", NARROW, "second"));
        private final Label what = shared(Ui.left("", NARROW, "second", "muted"));
        private final Label lane = Ui.lane("", 66, "second");
        private final Label value = Ui.cell("", 96, "second");
        private final Label unit = Ui.left("", 50, "small", "muted");
        private final Label verdict = Ui.left("", 70, "second");
        private final HBox row = Ui.row(0, id, Ui.left("", 8), item, what, lane, value, Ui.left("", 8), unit, verdict);

        {
            row.setAlignment(Pos.CENTER_LEFT);
            setMinWidth(0);
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(Ledger.Line line, boolean empty) {
            super.updateItem(line, empty);
            paint(isSelected());
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            id.setText(line.id());
            Ui.fill(item, line.item());
            Ui.fill(what, line.what());
            Ui.fill(lane, line.lane());
            boolean typed = line.trail().typed() && !Double.isNaN(line.value());
            String text = Ticks.number(line.value(), line.uncertainty());
            value.setText(typed ? text + " " + LedgerTable.Mark.TYPED.sign() : text);
            value.getStyleClass().setAll("label", "second", typed ? "ochre" : "ink");
            Tip.on(value, typed ? LedgerTable.Mark.TYPED.meaning() : "");
            Ui.fill(unit, line.unit());
            verdict.setText(line.verdict());
            verdict.getStyleClass().setAll("label", "second", verdict(line.verdict()));
            setGraphic(row);
        }

        @Override
        public void updateSelected(boolean selected) {
            super.updateSelected(selected);
            paint(selected);
        }

        private void paint(boolean selected) {
            setStyle("-fx-padding: 0; -fx-background-color: " + (selected ? "-teal-wash" : "-sheet") + ";");
        }
    }

    private static String verdict(String word) {
        return switch (word) {
            case "within" -> "pine";
            case "out" -> "brick";
            case "undecided" -> "ochre";
            default -> "muted";
        };
    }
}
