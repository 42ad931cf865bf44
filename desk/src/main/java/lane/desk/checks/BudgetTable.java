package lane.desk.checks;

import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.check.Budget;
import lane.check.CheckResult;
import lane.desk.Session;
import lane.desk.Ui;
import lane.study.Source;
import lane.unit.Unit;

/** What an uncertainty is made of: each component, where it comes from, its standard uncertainty and its share. */
final class BudgetTable {
    private BudgetTable() {}

    static Node of(Session session, CheckResult.Lane lane) {
        Budget budget = lane.evidence().budget();
        Unit unit = lane.unit().difference();
        var box = new VBox(2);
        box.setId("budget");
        HBox head = Ui.row(
                0,
                Ui.left("Component", 92, "small", "muted"),
                Ui.left("from", 92, "small", "muted"),
                Ui.cell("standard", 72, "small", "muted"),
                Ui.cell("share", 54, "small", "muted"));
        head.getStyleClass().add("table-row");
        box.getChildren().add(head);
        for (Budget.Row r : budget.rows()) {
            String from = session.study().source(r.from()).map(Source::name).orElse(r.from());
            var share = new Region();
            share.getStyleClass().add("budget-share");
            share.setMinSize(40 * budget.share(r), 5);
            share.setMaxSize(40 * budget.share(r), 5);
            HBox row = Ui.row(
                    0,
                    Ui.left(r.component(), 92, "second"),
                    Ui.left(from, 92, "second", "muted"),
                    Ui.cell(Figures.of(unit.fromSi(r.standard()), 3).whole(unit.fromSi(r.standard())), 72, "second"),
                    Ui.cell(Figures.of(100 * budget.share(r), 2).whole(100 * budget.share(r)) + " %", 54, "second"),
                    Ui.row(0, Ui.left("", 8), share));
            row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
            row.getStyleClass().add("table-row");
            box.getChildren().add(row);
        }
        double all = unit.fromSi(budget.combined());
        double half = unit.fromSi(lane.half());
        box.getChildren()
                .add(Ui.label(
                        "together u = " + Figures.of(all, 3).whole(all) + " " + unit.symbol()
                                + (lane.half() > 0 && all > 0
                                        ? ", U = " + Figures.of(half, 3).whole(half) + " " + unit.symbol()
                                                + " with k = "
                                                + Figures.of(half / all, 3).whole(half / all)
                                        : ""),
                        "small",
                        "muted"));
        return box;
    }
}
