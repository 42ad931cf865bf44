package lane.desk.quantities;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.desk.BuiltFrom;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.View;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.picture.LaneStyle;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.reading.Lens;
import lane.study.Source;
import lane.study.Study;

/** One row a quantity: which field, what is taken of it, in which unit, and which lanes have it. */
public final class QuantitiesView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final VBox rows = new VBox();
    private final BuiltFrom built = new BuiltFrom();

    public QuantitiesView(Session session) {
        this.session = session;
        HBox top = Ui.row(
                8,
                Ui.label("Quantities", "title"),
                Ui.label("what is looked at, the same in every lane", "small", "muted"),
                Ui.spring(),
                Ui.button("+ Add quantity", this::add));
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        pane.setTop(top);
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        pane.setCenter(scroll);
        pane.getStyleClass().add("sheet");
    }

    @Override
    public Node node() {
        return pane;
    }

    private List<String> fields() {
        var names = new TreeSet<String>();
        for (Run run : session.results().runs().values()) {
            run.fields().forEach(f -> names.add(f.name()));
            run.parts().forEach(p -> p.fields().forEach(f -> names.add(f.name())));
        }
        session.study().quantities().forEach(q -> names.add(q.field()));
        return List.copyOf(names);
    }

    private void add() {
        List<String> fields = fields();
        if (fields.isEmpty()) {
            session.say("There is no field yet; add a run at Intake first.");
            return;
        }
        String id = Study.freshId(
                fields.getFirst(),
                session.study().quantities().stream().map(Quantity::id).toList());
        session.edit(
                "Add quantity",
                s -> s.withQuantities(list -> {
                    list.add(new Quantity(id, fields.getFirst(), fields.getFirst(), Take.MAGNITUDE, ""));
                    return list;
                }));
        session.select("quantity", id);
    }

    @Override
    public void refresh() {
        Study study = session.study();
        List<String> fields = fields();
        if (!built.changed(
                study.quantities(),
                study.units(),
                study.sources(),
                study.readings(),
                fields,
                session.results().runs().values().stream()
                        .map(System::identityHashCode)
                        .toList(),
                session.palette().dark())) {
            return;
        }
        rows.getChildren().clear();
        HBox head = Ui.row(
                8,
                Ui.left("Name", 170, "small", "muted"),
                Ui.left("Field", 150, "small", "muted"),
                Ui.left("Taken of it", 210, "small", "muted"),
                Ui.left("Unit", 84, "small", "muted"),
                Ui.left("Stored at", 84, "small", "muted"),
                Ui.left("Lanes", 130, "small", "muted"),
                Ui.cell("Used by", 60, "small", "muted"));
        head.getStyleClass().addAll("table-row", "paper");
        head.setStyle("-fx-padding: 0 16 0 16;");
        rows.getChildren().add(head);
        for (Quantity q : session.study().quantities()) {
            rows.getChildren().add(row(q, fields));
        }
        if (session.study().quantities().isEmpty()) {
            var empty =
                    Ui.label("No quantity yet. Add one: a field of your runs, a component or a magnitude.", "muted");
            empty.setStyle("-fx-padding: 20 16 20 16;");
            rows.getChildren().add(empty);
        }
    }

    private Node row(Quantity q, List<String> fields) {
        var name = Ui.text(
                "quantity-name-" + q.id(),
                q.name(),
                t -> change(new Quantity(q.id(), t, q.field(), q.take(), q.unit())));
        name.setPrefWidth(170);
        var field = Ui.choice(
                "quantity-field-" + q.id(),
                fields,
                q.field(),
                f -> f,
                f -> change(new Quantity(q.id(), q.name(), f, q.take(), "")));
        field.setPrefWidth(150);
        var take = Ui.choice(
                "quantity-take-" + q.id(),
                List.of(Take.values()),
                q.take(),
                Take::word,
                t -> change(new Quantity(q.id(), q.name(), q.field(), t, q.unit())));
        take.setPrefWidth(210);
        var unit = Ui.text(
                "quantity-unit-" + q.id(),
                q.unit(),
                t -> change(new Quantity(q.id(), q.name(), q.field(), q.take(), t)));
        unit.setPrefWidth(84);
        unit.setPromptText("follows");
        Lens lens = Lens.of(
                session.study().quantities(),
                session.study().units(),
                session.study().axis());
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        List<Node> marks = new ArrayList<>();
        String stored = "–";
        for (int i = 0; i < styles.size(); i++) {
            Source source = session.study().sources().get(i);
            Run run = session.results().runs().get(source.id());
            Field found = run == null ? null : find(run, q.field());
            if (found != null) {
                stored = run.field(q.field()).isPresent()
                        ? found.at().word()
                        : "parts, " + found.at().word();
                Node mark =
                        Marks.marker(styles.get(i), Marks.fx(session.palette().sheet()));
                javafx.scene.control.Tooltip.install(
                        mark,
                        new javafx.scene.control.Tooltip(source.name() + " has it, stored in "
                                + (lens.unit(run, found).known()
                                        ? lens.unit(run, found).symbol()
                                        : "an unknown unit")));
                marks.add(mark);
            } else {
                marks.add(Ui.label("–", "muted"));
            }
        }
        HBox lanes = Ui.row(7);
        lanes.getChildren().setAll(marks);
        lanes.setMinWidth(130);
        lanes.setMaxWidth(130);
        long used = session.study().readings().stream()
                .filter(r -> r.quantities().contains(q.id()))
                .count();
        HBox row = Ui.row(
                8,
                name,
                field,
                take,
                unit,
                Ui.left(stored, 84, "second"),
                lanes,
                Ui.cell(String.valueOf(used), 60, "second"),
                Ui.spring(),
                Ui.iconButton(org.kordamp.ikonli.feather.Feather.X, "Delete " + q.name(), () -> delete(q, used)));
        row.getStyleClass().add("table-row");
        row.setMinHeight(34);
        row.setStyle("-fx-padding: 0 16 0 16;");
        return row;
    }

    private void delete(Quantity q, long used) {
        if (used > 0) {
            session.say("\"" + q.name() + "\" is used by " + used + " reading(s); delete or change those first.");
            return;
        }
        session.edit(
                "Delete quantity",
                s -> s.withQuantities(list -> {
                    list.removeIf(x -> x.id().equals(q.id()));
                    return list;
                }));
    }

    private static Field find(Run run, String name) {
        return run.field(name)
                .or(() -> run.parts().stream()
                        .map((Part p) -> p.field(name))
                        .flatMap(java.util.Optional::stream)
                        .findFirst())
                .orElse(null);
    }

    private void change(Quantity q) {
        session.edit("Change quantity", s -> s.with(q));
    }
}
