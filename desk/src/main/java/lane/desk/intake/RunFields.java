package lane.desk.intake;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.ManyRows;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.Treatment;
import lane.picture.Ticks;
import lane.quantity.FieldUnit;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The fields of a run with their units, the order of their components, and what stresses act on. */
final class RunFields extends RunSection {
    private static final List<List<Integer>> ORDERS = List.of(
            List.of(0, 1, 2), List.of(0, 2, 1), List.of(1, 0, 2), List.of(1, 2, 0), List.of(2, 0, 1), List.of(2, 1, 0));

    /** Orders that programs write: diagonal first in three ways, by rows, by columns. */
    private static final List<List<Integer>> OF_SIX = List.of(
            List.of(0, 1, 2, 3, 4, 5),
            List.of(0, 1, 2, 3, 5, 4),
            List.of(0, 1, 2, 5, 3, 4),
            List.of(0, 3, 5, 1, 4, 2),
            List.of(0, 2, 5, 1, 4, 3));

    private static final List<List<Integer>> OF_NINE =
            List.of(List.of(0, 1, 2, 3, 4, 5, 6, 7, 8), List.of(0, 3, 6, 1, 4, 7, 2, 5, 8));

    RunFields(Session session, Source.Simulation source, Run run, VBox sheet) {
        super(session, source, run, sheet);
    }

    @Override
    void show() {
        add(SourceSheet.title("Fields", "as stored; units marked guess want your word"));
        Node head = SourceSheet.line(
                true,
                Ui.left("Field", 112, "small", "muted"),
                Ui.left("Stored at", 70, "small", "muted"),
                Ui.left("Components", 96, "small", "muted"),
                Ui.cell("Least", 74, "small", "muted"),
                Ui.cell("Greatest", 74, "small", "muted"),
                Ui.left("", 10),
                Ui.left("Unit", 110, "small", "muted"));
        var all = new LinkedHashMap<String, Field>();
        run.fields().forEach(f -> all.putIfAbsent(f.name(), f));
        run.parts().forEach(p -> p.fields().forEach(f -> all.putIfAbsent(f.name(), f)));
        List<Field> fields = List.copyOf(all.values());
        add(ManyRows.of(
                        session,
                        "fields",
                        source.id(),
                        "field",
                        List.copyOf(all.keySet()),
                        head,
                        i -> row(fields.get(i)))
                .toArray(Node[]::new));
    }

    private Node row(Field f) {
        var row = new VBox(field(f, run.fields().contains(f)));
        unit(f).doubt().ifPresent(d -> row.getChildren().add(note(d, "small", "ochre")));
        if (health != null && health.stress().containsKey(f.name())) {
            row.getChildren().add(acts(f.name(), health.stress().get(f.name())));
        }
        return row;
    }

    private Node field(Field field, boolean onMesh) {
        String name = field.name();
        FieldUnit said = session.study().units().stream()
                .filter(u -> u.field().equals(name))
                .findFirst()
                .orElse(null);
        boolean own = treatment().units().containsKey(name);
        Unit unit = unit(field);
        String symbol = unit.known() ? unit.symbol() : "";
        var entry = Ui.text("unit-" + name, symbol, t -> {
            if (own || treatment().system() != null) {
                treat("State unit", x -> x.withUnit(name, t));
            } else {
                session.edit("State unit", s -> s.with(new FieldUnit(name, t, true)));
            }
        });
        entry.setPrefWidth(84);
        entry.setMinWidth(84);
        entry.setMaxWidth(84);
        entry.setPromptText("unit?");
        String word = own
                ? "this run"
                : treatment().system() != null && unit.known()
                        ? treatment().system().name()
                        : said != null && said.stated() ? "stated" : symbol.isBlank() ? "unknown" : "guess";
        var menu = Named.menuButton(word);
        menu.setId("unit-of-" + name);
        menu.setMinWidth(Region.USE_PREF_SIZE);
        var confirm = Named.item("Confirm for all runs");
        confirm.setOnAction(e -> session.edit("Confirm unit", s -> s.with(new FieldUnit(name, symbol, true))));
        confirm.setDisable(symbol.isBlank());
        var alone = Named.item("State for this run alone");
        alone.setOnAction(e -> treat("Unit of this run", t -> t.withUnit(name, symbol)));
        alone.setDisable(symbol.isBlank() || own);
        var follow = Named.item("As in the other runs");
        follow.setOnAction(e -> treat("Unit as in the other runs", t -> t.withUnit(name, "")));
        follow.setDisable(!own);
        menu.getItems().addAll(confirm, alone, follow);
        RunHealth.FieldRange range = health == null ? null : health.fields().get(name);
        int bad = range == null ? 0 : range.nonFinite();
        return SourceSheet.line(
                false,
                Ui.left(name, 112, "second"),
                Ui.left(onMesh ? field.at().word() : "on parts", 70, "second"),
                components(field),
                Ui.cell(number(range, range == null ? 0 : range.least()), 74, "second"),
                Ui.cell(number(range, range == null ? 0 : range.greatest()), 74, "second"),
                Ui.left("", 10),
                entry,
                Ui.left("", 6),
                menu,
                Ui.label(bad == 0 ? "" : "  " + bad + " not finite", "small", "brick"));
    }

    private Unit unit(Field field) {
        return EvaluationContext.of(
                        List.of(), session.study().units(), session.study().axis())
                .unit(run, field);
    }

    /** A bound of the range; dots as long as the numbers are being looked over. */
    private String number(RunHealth.@Nullable FieldRange range, double bound) {
        return range == null ? health == null ? "…" : "" : Ticks.number(bound, Double.NaN);
    }

    /** How many components; of vectors and tensors also their order, which may be stated. */
    private Node components(Field field) {
        if (Treatment.components(field.components()).isEmpty()) {
            return Ui.left(String.valueOf(field.components()), 96, "second");
        }
        List<List<Integer>> usual = field.components() == 3 ? ORDERS : field.components() == 6 ? OF_SIX : OF_NINE;
        List<Integer> now = treatment().order().getOrDefault(field.name(), usual.getFirst());
        List<List<Integer>> all = new ArrayList<>(usual);
        if (!all.contains(now)) {
            all.add(now);
        }
        boolean assumed = run.remarks().contains(Treatment.assumed(field.name()));
        ComboBox<List<Integer>> order = Ui.choice(
                "order-" + field.name(),
                all,
                now,
                o -> letters(o) + (assumed && o.equals(usual.getFirst()) ? ", assumed" : ""),
                o -> treat("Order of components", t -> t.withOrder(field.name(), o)));
        Tip.on(order, assumed ? Treatment.assumed(field.name()) : "Which component each stored number stands for");
        order.setPrefWidth(88);
        order.setMinWidth(88);
        order.setMaxWidth(88);
        HBox box = Ui.row(0, order);
        box.setMinWidth(96);
        box.setMaxWidth(96);
        return box;
    }

    /** What stands first, second and so on in the file, when the components are taken from these places. */
    static String letters(List<Integer> from) {
        List<String> names = Treatment.components(from.size());
        String[] at = new String[from.size()];
        for (int d = 0; d < at.length; d++) {
            at[from.get(d)] = names.get(d);
        }
        return String.join(" ", at);
    }

    /** On whom a stored wall stress acts: asked once, with what the flow next to the wall says. */
    private Node acts(String name, double along) {
        Boolean said = treatment().onWall().get(name);
        List<String> words = List.of("not said", "the wall", "the fluid");
        var choice = Ui.segments(
                words,
                said == null ? words.get(0) : said ? words.get(1) : words.get(2),
                w -> w,
                w -> treat(
                        "Stress acts on",
                        t -> t.withOnWall(name, w.equals(words.get(0)) ? null : (Boolean) w.equals(words.get(1)))));
        choice.setId("acts-" + name);
        String hint = Double.isNaN(along)
                ? "no flow next to the wall to compare with"
                : Math.abs(along) < 0.5
                        ? "it points neither along the flow nor against it"
                        : along > 0
                                ? "it points along the flow next to the wall: so it acts on the wall"
                                : "it points against the flow next to the wall: so it acts on the fluid";
        Label caption = Ui.label("acts on", "second", "muted");
        caption.setMinWidth(Region.USE_PREF_SIZE);
        choice.setMinWidth(Region.USE_PREF_SIZE);
        var box = new HBox(
                10,
                caption,
                choice,
                Double.isNaN(along) ? new Region() : StressSketch.of(along, session.palette()),
                note(hint, "small", said == null && Math.abs(along) >= 0.5 ? "ochre" : "muted"));
        box.setAlignment(Pos.CENTER_LEFT);
        box.setStyle("-fx-padding: 7 0 6 0;");
        return box;
    }
}
