package lane.desk.intake;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.ManyRows;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Values;
import lane.picture.Ticks;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.unit.Unit;

/** The columns of a table with their role and unit. */
final class ColumnRows {
    static final String LIST = "columns";

    private final Session session;
    private final String file;
    private final Table table;
    private final Recipe recipe;
    private final Consumer<Recipe.Column> correct;

    /** @param correct takes what is said about a column */
    ColumnRows(Session session, String file, Table table, Recipe recipe, Consumer<Recipe.Column> correct) {
        this.session = session;
        this.file = file;
        this.table = table;
        this.recipe = recipe;
        this.correct = correct;
    }

    List<Node> nodes() {
        Node head = SourceSheet.line(
                true,
                Ui.left("Column", 140, "small", "muted"),
                Ui.left("Role", 124, "small", "muted"),
                Ui.left("Unit", 96, "small", "muted"),
                Ui.cell("Least", 84, "small", "muted"),
                Ui.cell("Greatest", 84, "small", "muted"),
                Ui.cell("Missing", 58, "small", "muted"));
        return ManyRows.of(session, LIST, file, "column", table.headers(), head, this::row);
    }

    private Node row(int i) {
        Node line = column(i);
        return doubt(table.units().get(i))
                .<Node>map(d -> new VBox(line, RunSection.note(d, "small", "ochre")))
                .orElse(line);
    }

    /** How the unit was read, where some mean something else by it. */
    private static Optional<String> doubt(String unit) {
        try {
            return Unit.of(unit).doubt();
        } catch (LaneException e) {
            return Optional.of(e.getMessage());
        }
    }

    private Node column(int i) {
        String header = table.headers().get(i);
        Recipe.Column said = recipe.column(header);
        var f = new Field(
                header,
                Field.At.NODE,
                1,
                Unit.UNKNOWN,
                Values.of(table.columns().get(i)));
        double[] r = f.range(0);
        ComboBox<Recipe.Role> role = Ui.choice(
                "role-of-" + header,
                List.of(Recipe.Role.values()),
                table.roles().get(i),
                Recipe.Role::word,
                v -> correct.accept(new Recipe.Column(header, said.unit(), v)));
        role.setPrefWidth(116);
        role.setMinWidth(116);
        role.setMaxWidth(116);
        var unit = Ui.text(
                "unit-of-" + header,
                table.units().get(i),
                v -> correct.accept(new Recipe.Column(header, v.strip(), said.role())));
        unit.setPromptText("unit?");
        unit.setPrefWidth(88);
        unit.setMinWidth(88);
        unit.setMaxWidth(88);
        return SourceSheet.line(
                false,
                Ui.left(header, 140, "second"),
                role,
                Ui.left("", 8),
                unit,
                Ui.left("", 8),
                Ui.cell(Ticks.number(r[0], Double.NaN), 84, "second"),
                Ui.cell(Ticks.number(r[2], Double.NaN), 84, "second"),
                Ui.cell(f.nonFinite() == 0 ? "" : String.valueOf(f.nonFinite()), 58, "second", "ochre"));
    }
}
