package lane.desk.intake;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.reference.ColumnUncertainty;
import lane.reference.Recipe;
import lane.reference.Table;

/** States how well a column is known: by a column or two, or one value for all; absolute or as a share; with its k. */
final class UncertaintyForm {
    private static final String NONE = "";
    private static final String ALL = "\u0000";

    private final ComboBox<String> column = Entry.of(Ui.choice(
            "columns-uncertainty",
            List.of(),
            null,
            h -> h.equals(NONE) ? "no uncertainty" : h.equals(ALL) ? "± one for all" : "± " + h,
            h -> {}));
    private final ComboBox<String> upper = Entry.of(
            Ui.choice("columns-upper", List.of(), null, h -> h.equals(NONE) ? "both ways" : "up: " + h, h -> {}));
    private final TextField stated = Entry.of(new TextField());
    private final ComboBox<ColumnUncertainty.Kind> kind = Entry.of(Ui.choice(
            "columns-kind",
            List.of(ColumnUncertainty.Kind.values()),
            ColumnUncertainty.Kind.ABSOLUTE,
            k -> k == ColumnUncertainty.Kind.ABSOLUTE ? "absolute" : "of the value",
            k -> {}));
    private final TextField unit = Entry.of(new TextField());
    private final TextField k = Entry.of(new TextField());

    UncertaintyForm() {
        field(stated, "columns-stated", "±", 60, "Half-width of all values");
        field(
                unit,
                "columns-uncertainty-unit",
                "unit",
                60,
                "Unit of the uncertainty; blank follows the column or the value");
        field(k, "columns-k", "k = 2", 56, "Coverage factor: 1 for a standard uncertainty, 2 for about 95 %");
        column.setPrefWidth(150);
        upper.setPrefWidth(130);
        kind.setPrefWidth(110);
        column.valueProperty().addListener((o, was, is) -> show());
        show();
    }

    private static void field(TextField f, String id, String prompt, double width, String tip) {
        f.setId(id);
        f.setPromptText(prompt);
        f.setPrefWidth(width);
        Tip.on(f, tip);
    }

    private void show() {
        boolean none = column.getValue() == null || column.getValue().equals(NONE);
        boolean all = ALL.equals(column.getValue());
        for (Node n : List.of(kind, unit, k)) {
            visible(n, !none);
        }
        visible(stated, all);
        visible(upper, !none && !all);
    }

    private static void visible(Node node, boolean on) {
        node.setVisible(on);
        node.setManaged(on);
    }

    List<Node> nodes() {
        return List.of(column, stated, upper, kind, unit, k);
    }

    /** Offers the columns of a table; its first uncertainty is taken, a share where its unit is one. */
    void of(Table table) {
        List<String> items = new ArrayList<>(List.of(NONE, ALL));
        items.addAll(table.headers());
        List<String> ups = new ArrayList<>(List.of(NONE));
        ups.addAll(table.headers());
        column.getItems().setAll(items);
        upper.getItems().setAll(ups);
        List<String> unsure = table.with(Recipe.Role.UNCERTAINTY);
        column.setValue(unsure.isEmpty() ? NONE : unsure.getFirst());
        upper.setValue(unsure.size() == 2 ? unsure.get(1) : NONE);
        boolean share = !unsure.isEmpty() && table.unit(unsure.getFirst(), "").equals("%");
        kind.setValue(share ? ColumnUncertainty.Kind.RELATIVE : ColumnUncertainty.Kind.ABSOLUTE);
        List.of(column, upper, kind).forEach(Entry::said);
        show();
    }

    /** @throws LaneException when what is written is no number */
    ColumnUncertainty value() {
        String c = column.getValue() == null ? NONE : column.getValue();
        if (c.equals(NONE)) {
            return ColumnUncertainty.NONE;
        }
        boolean all = c.equals(ALL);
        return new ColumnUncertainty(
                kind.getValue(),
                all ? "" : c,
                all ? "" : upper.getValue(),
                all ? AnswerForm.number(stated) : 0,
                unit.getText(),
                k.getText().isBlank() ? 0 : AnswerForm.number(k));
    }
}
