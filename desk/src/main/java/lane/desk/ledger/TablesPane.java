package lane.desk.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTables;
import lane.study.TableTemplate;

/** The tables for people as they are written, each with the way to set it up. */
final class TablesPane {
    /** A page shows the first rows; the files hold all. */
    private static final int MOST = 300;

    private TablesPane() {}

    /** @param setUp given the place of the table that is to be set up */
    static Node of(Session session, Ledger ledger, IntConsumer setUp) {
        var page = new VBox(8);
        page.setId("ledger-page");
        page.setStyle("-fx-padding: 12 20 24 20; -fx-background-color: -sheet;");
        List<TableTemplate> all = session.study().pictures().ledger().of(session.study());
        for (int i = 0; i < all.size(); i++) {
            int at = i;
            TableTemplate template = all.get(i);
            var button = Ui.button("Set up…", () -> setUp.accept(at), "small-button");
            button.setId("table-set-up-" + i);
            List<LedgerTable> made = LedgerTables.of(session.results(), ledger, template);
            HBox head = Ui.row(12, Ui.label(template.name(), "title"), button);
            head.setAlignment(Pos.CENTER_LEFT);
            page.getChildren().add(head);
            if (made.stream().allMatch(t -> t.rows().isEmpty())) {
                page.getChildren()
                        .add(Ui.label(
                                "There is nothing to tell: no lane has "
                                        + template.of().word() + ".",
                                "second",
                                "muted"));
            }
            for (LedgerTable table : made) {
                if (made.size() > 1 || !table.title().equals(template.name())) {
                    page.getChildren().add(Ui.label(table.title(), "second", "strong"));
                }
                page.getChildren().add(grid(table));
                table.notes().forEach(n -> page.getChildren().add(Ui.label(n, "small", "muted")));
                if (table.rows().size() > MOST) {
                    page.getChildren()
                            .add(Ui.label(
                                    "The first " + MOST + " of " + table.rows().size() + " lines; the files hold all.",
                                    "small",
                                    "muted"));
                }
            }
        }
        page.getChildren().add(add(session, all, setUp));
        var scroll = new ScrollPane(page);
        scroll.setMinWidth(0);
        scroll.getStyleClass().add("sheet");
        return scroll;
    }

    private static Node add(Session session, List<TableTemplate> all, IntConsumer setUp) {
        MenuButton menu = Named.menuButton("Add a table");
        menu.setId("table-add");
        menu.getStyleClass().add("small-menu");
        for (TableTemplate.Content of : TableTemplate.Content.values()) {
            MenuItem item = Named.item("of " + of.word());
            item.setId("table-add-" + of.name());
            boolean some = of == TableTemplate.Content.CHECKS
                    ? !session.study().checks().isEmpty()
                    : !LedgerTables.readings(session.study(), of).isEmpty();
            item.setDisable(!some);
            item.setOnAction(e -> {
                session.edit("Add table", s -> {
                    List<TableTemplate> next = new ArrayList<>(all);
                    next.add(TableTemplate.of(of));
                    return TableForm.with(s, next);
                });
                setUp.accept(all.size());
            });
            menu.getItems().add(item);
        }
        return menu;
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
                String text = cells.get(c).marked();
                if (!text.isEmpty()) {
                    Label label = Ui.label(text, "second");
                    if (cells.get(c).mark() != LedgerTable.Mark.NONE) {
                        label.getStyleClass().add("ochre");
                    }
                    label.setMaxWidth(260);
                    Tip.on(label, text.length() > 30 ? text : "");
                    place(label, table.columns().get(c), c, r + 1, grid);
                }
            }
        }
        return grid;
    }

    private static void place(Label label, LedgerTable.Column column, int c, int r, GridPane grid) {
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, column.number() ? HPos.RIGHT : HPos.LEFT);
        grid.add(label, c, r);
    }
}
