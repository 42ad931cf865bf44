package lane.desk.ledger;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.ledger.LedgerTable;

/** The tables for people as they will stand on paper. */
final class TablesPane {
    /** A page shows the first rows; the files hold all. */
    private static final int MOST = 300;

    private TablesPane() {}

    static Node of(List<LedgerTable> tables) {
        var page = new VBox(8);
        page.setId("ledger-page");
        page.setStyle("-fx-padding: 16 20 24 20; -fx-background-color: -sheet;");
        for (LedgerTable table : tables) {
            page.getChildren().add(Ui.label(table.title(), "title"));
            page.getChildren().add(grid(table));
            if (table.rows().size() > MOST) {
                page.getChildren()
                        .add(Ui.label(
                                "The first " + MOST + " of " + table.rows().size() + " lines; the files hold all.",
                                "small",
                                "muted"));
            }
        }
        var scroll = new ScrollPane(page);
        scroll.setMinWidth(0);
        scroll.getStyleClass().add("sheet");
        return scroll;
    }

    private static GridPane grid(LedgerTable table) {
        var grid = new GridPane(16, 3);
        for (int c = 0; c < table.columns().size(); c++) {
            LedgerTable.Column column = table.columns().get(c);
            Label head = Ui.label(column.title(), "small", "muted");
            Tip.on(head, column.meaning());
            place(head, column, c, 0, grid);
        }
        for (int r = 0; r < Math.min(MOST, table.rows().size()); r++) {
            List<LedgerTable.Cell> cells = table.rows().get(r).cells();
            for (int c = 0; c < cells.size(); c++) {
                String text = cells.get(c).text();
                if (!text.isEmpty()) {
                    Label label = Ui.label(text, "second");
                    label.setMaxWidth(260);
                    Tip.on(label, text.length() > 30 ? text : "");
                    place(label, table.columns().get(c), c, r + 1, grid);
                }
            }
        }
        return grid;
    }

    private static void place(Label label, LedgerTable.Column column, int c, int r, GridPane grid) {
        label.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, column.number() ? javafx.geometry.HPos.RIGHT : javafx.geometry.HPos.LEFT);
        grid.add(label, c, r);
    }
}
