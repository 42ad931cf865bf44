package lane.desk.intake;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Side;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Named;
import lane.desk.Ui;
import lane.reference.Recipe.Lines;
import lane.reference.Table;

/**
 * The first lines of a table's file as they are, the margin of each telling what it was taken for. A click on a line, or Enter,
 * says otherwise.
 */
final class TableLines {
    private static final double ROW = 19;
    private static final int SEEN = 9;

    private TableLines() {}

    /**
     * @param said where lines stand as far as somebody said so
     * @param changed gets what is said now
     */
    static Node of(List<Table.Line> lines, Lines said, Consumer<Lines> changed) {
        var rows = new VBox();
        rows.setId("table-lines");
        for (Table.Line line : lines) {
            rows.getChildren().add(row(line, said, changed));
        }
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("file-lines");
        double height = ROW * Math.min(SEEN, lines.size()) + 4;
        scroll.setPrefViewportHeight(height);
        scroll.setMinHeight(height);
        return scroll;
    }

    private static HBox row(Table.Line line, Lines said, Consumer<Lines> changed) {
        String use = "line-" + line.use().word().replace(' ', '-');
        var band = new Region();
        band.getStyleClass().addAll("line-band", use);
        band.setMinWidth(4);
        band.setMaxHeight(Double.MAX_VALUE);
        Label number = Ui.cell(String.valueOf(line.number()), 34, "mono", "small", "muted");
        Label word = Ui.left(line.use() == Table.Use.BLANK ? "" : line.use().word(), 66, "small", "muted");
        Label text = Ui.label(line.text().replace('\t', '\u2192'), "mono", "small");
        text.setMinWidth(0);
        HBox.setHgrow(text, Priority.ALWAYS);
        var row = new HBox(8, band, number, word, text);
        row.getStyleClass().add("file-line");
        row.setId("table-line-" + line.number());
        row.setMinHeight(ROW);
        row.setMaxHeight(ROW);
        row.setFocusTraversable(true);
        row.setAccessibleText("Line " + line.number() + ", " + line.use().word() + ": " + line.text());
        row.setOnMouseClicked(e -> {
            row.requestFocus();
            menu(line, said, changed).show(row, e.getScreenX(), e.getScreenY());
        });
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                menu(line, said, changed).show(row, Side.BOTTOM, 60, 0);
                e.consume();
            }
        });
        return row;
    }

    private static ContextMenu menu(Table.Line line, Lines said, Consumer<Lines> changed) {
        int n = (int) line.number();
        var menu = new ContextMenu();
        menu.getItems()
                .addAll(
                        item("line-is-header", "This is the header", () -> changed.accept(said.withHeader(n))),
                        item("line-is-units", "These are units", () -> changed.accept(said.withUnits(n))),
                        item("line-is-data", "Data begin here", () -> changed.accept(said.withData(n))));
        if (line.use() == Table.Use.HEADER) {
            menu.getItems().add(item("line-no-header", "This is no header", () -> changed.accept(said.withHeader(-1))));
        }
        if (line.use() == Table.Use.UNITS) {
            menu.getItems().add(item("line-no-units", "These are no units", () -> changed.accept(said.withUnits(-1))));
        }
        if (!said.equals(Lines.FOUND)) {
            menu.getItems().add(item("line-found", "Find all of it out again", () -> changed.accept(Lines.FOUND)));
        }
        return menu;
    }

    private static MenuItem item(String id, String text, Runnable action) {
        var item = Named.item(text);
        item.setId(id);
        item.setOnAction(e -> action.run());
        return item;
    }
}
