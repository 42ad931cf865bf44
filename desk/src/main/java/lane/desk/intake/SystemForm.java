package lane.desk.intake;

import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.Ui;
import lane.unit.UnitSystem;

/** A system of units of one's own, from its four base units. */
final class SystemForm {
    private final Popup popup = new Popup();
    private final Label trouble = Ui.label("", "small", "brick");

    SystemForm(UnitSystem from, Consumer<UnitSystem> made) {
        var grid = new GridPane(8, 6);
        TextField length = row(grid, 0, "Length", from.length());
        TextField mass = row(grid, 1, "Mass", from.mass());
        TextField time = row(grid, 2, "Time", from.time());
        TextField warm = row(grid, 3, "Temperature", from.temperature());
        var take = Ui.button("Take", () -> {
            try {
                var system = new UnitSystem(
                        String.join("-", length.getText(), mass.getText(), time.getText()),
                        length.getText(),
                        mass.getText(),
                        time.getText(),
                        warm.getText());
                popup.hide();
                made.accept(system);
            } catch (LaneException e) {
                trouble.setText(e.getMessage());
            }
        });
        trouble.setWrapText(true);
        trouble.setMaxWidth(220);
        var box = new VBox(8, Ui.label("Base units of the run", "section"), grid, trouble, take);
        box.getStyleClass().add("tooltip-card");
        box.setStyle("-fx-padding: 12;");
        popup.setAutoHide(true);
        popup.getContent().add(box);
    }

    private static TextField row(GridPane grid, int at, String word, String value) {
        var field = Entry.of(new TextField(value));
        field.setId("system-" + word.toLowerCase(java.util.Locale.ROOT));
        field.setPrefWidth(90);
        grid.addRow(at, Ui.label(word, "second"), field);
        return field;
    }

    void show(Node below) {
        var at = below.localToScreen(0, below.getBoundsInLocal().getHeight() + 4);
        popup.show(below, at.getX(), at.getY());
    }
}
