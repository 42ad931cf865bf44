package lane.desk.quantities;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.desk.BuiltFrom;
import lane.desk.Chosen;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Type;
import lane.picture.LaneStyle;
import lane.quantity.Catalogue;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.study.Source;
import lane.study.Study;
import lane.study.Users;
import org.jspecify.annotations.Nullable;

/** The sheet of formulas: what files hold, what is made of it, and constants. */
public final class QuantitiesView implements View {
    /** Most lanes that get a marker each. */
    private static final int SLOTS = 6;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final VBox rows = new VBox();
    private final BuiltFrom built = new BuiltFrom();
    private final QuantityCard card;
    private final QuantityTransfer transfer;

    public QuantitiesView(Session session) {
        this.session = session;
        card = new QuantityCard(session, this::refresh);
        transfer = new QuantityTransfer(session, pane);
        var constant = Ui.button("+ Constant", () -> add("constant", "1"));
        constant.setId("add-constant");
        var formula = Ui.button("+ Formula", () -> add("formula", first()));
        formula.setId("add-formula");
        HBox top = Ui.row(
                8,
                Ui.label("Quantities", "title"),
                Ui.label("what is looked at, written once for every lane", "small", "muted"),
                Ui.spring(),
                catalogue(),
                transfer.menu(),
                constant,
                formula);
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        var left = new BorderPane(scroll, top, null, null, null);
        left.getStyleClass().add("sheet");
        pane.setCenter(left);
        pane.setRight(card.node());
    }

    @Override
    public Node node() {
        return pane;
    }

    private String first() {
        return Completion.fields(session).keySet().stream()
                .findFirst()
                .map(lane.formula.Printer::name)
                .orElse("1");
    }

    private void add(String word, String formula) {
        List<String> names =
                session.study().quantities().stream().map(Quantity::name).toList();
        int n = 1;
        while (names.contains(word + " " + n)) {
            n++;
        }
        add(new Quantity("", word + " " + n, formula, "", ""));
    }

    private void add(Quantity q) {
        String id = Study.freshId(
                q.name(),
                session.study().quantities().stream().map(Quantity::id).toList());
        session.edit(
                "Add quantity",
                s -> s.withQuantities(list -> {
                    list.add(new Quantity(id, q.name(), q.formula(), q.unit(), q.note()));
                    return list;
                }));
        session.select(Chosen.QUANTITY, id);
    }

    private MenuButton catalogue() {
        var menu = Named.menuButton("Catalogue");
        menu.setId("quantity-catalogue");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        boolean parted = false;
        for (Catalogue.Entry e : Catalogue.all()) {
            if (e.constant() && !parted) {
                menu.getItems().add(new SeparatorMenuItem());
                parted = true;
            }
            var item = Named.item(e.name());
            item.setOnAction(x -> add(e.take("", kinds())));
            menu.getItems().add(item);
        }
        return menu;
    }

    /** Which field of the runs is of which kind, by what its name says. */
    private Map<String, String> kinds() {
        var out = new java.util.HashMap<String, String>();
        for (String name : Completion.fields(session).keySet()) {
            String plain = name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z]", "");
            for (String kind : Catalogue.KINDS) {
                String wanted = kind.replace(" ", "");
                if (plain.equals(wanted) || plain.startsWith(wanted)) {
                    out.putIfAbsent(kind, name);
                }
            }
        }
        return out;
    }

    @Override
    public void refresh() {
        Study study = session.study();
        if (study.quantities().find(session.selected(Chosen.QUANTITY)).isEmpty()
                && !study.quantities().isEmpty()) {
            session.select(Chosen.QUANTITY, study.quantities().getFirst().id());
        }
        Quantity chosen =
                study.quantities().find(session.selected(Chosen.QUANTITY)).orElse(null);
        if (built.changed(
                study.quantities(),
                study.units(),
                study.sources(),
                study.readings(),
                study.stations().stream()
                        .map(s -> s.name() + s.shape().shapedBy())
                        .toList(),
                session.selected(Chosen.QUANTITY),
                session.results().runs().values().stream()
                        .map(System::identityHashCode)
                        .toList(),
                session.palette().dark())) {
            fill(chosen);
        }
        card.refresh(chosen);
    }

    private void fill(@Nullable Quantity chosen) {
        rows.getChildren().clear();
        var graph = new Definitions(session.study().quantities());
        List<Quantity> formulas = new ArrayList<>();
        List<Quantity> constants = new ArrayList<>();
        for (Quantity q : session.study().quantities()) {
            boolean constant = graph.tree(q) != null
                    && graph.leaves(q).isEmpty()
                    && graph.needs(q).stream()
                            .noneMatch(n -> lane.formula.Uses.beyond(Objects.requireNonNull(graph.tree(n))));
            (constant ? constants : formulas).add(q);
        }
        if (!formulas.isEmpty()) {
            band("Formulas", formulas.size(), "Formula");
        }
        formulas.forEach(q -> rows.getChildren().add(row(q, q.equals(chosen))));
        if (!constants.isEmpty()) {
            band("Constants", constants.size(), "Value");
            constants.forEach(q -> rows.getChildren().add(row(q, q.equals(chosen))));
        }
        if (session.study().quantities().isEmpty()) {
            rows.getChildren().add(nothing());
        }
        fields();
    }

    /** What belongs here, and the buttons that make it. */
    private Node nothing() {
        boolean files = !session.offered().fields().isEmpty();
        var empty = wrapped(
                files
                        ? "Nothing is defined, and nothing needs to be: the fields below can be chosen wherever a quantity can, with"
                                + " their components. A formula makes something new of them."
                        : "Quantities come with the fields of runs: add a run at Intake. Formulas over them are made here.",
                "muted");
        var buttons = files
                ? Ui.row(8, Ui.button("Add a formula", () -> add("formula", first()), "main"))
                : Ui.row(8, Ui.button("Go to Intake", () -> session.go(1), "main"));
        var box = new VBox(10, empty, buttons);
        box.setStyle("-fx-padding: 20 16 20 16;");
        return box;
    }

    private void band(String name, int count, String what) {
        HBox head = Ui.row(
                8,
                Ui.left(name + "  " + count, 160, "section"),
                grown(Ui.label(what, "small", "muted")),
                Ui.left("Unit", 92, "small", "muted"),
                Ui.left("Stored at", 62, "small", "muted"),
                Ui.left("Lanes", 92, "small", "muted"),
                Ui.cell("Used by", 50, "small", "muted"));
        head.getStyleClass().addAll("table-row", "paper");
        head.setStyle("-fx-padding: 0 16 0 16;");
        rows.getChildren().add(head);
    }

    private static Node grown(Node node) {
        var box = new StackPane(node);
        box.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        box.setMinWidth(0);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private static Label wrapped(String text, String style) {
        Label label = Ui.label(text, "small", style);
        label.setWrapText(true);
        return label;
    }

    private void fields() {
        Map<String, String> all = Completion.fields(session);
        if (all.isEmpty()) {
            return;
        }
        band("In the files", all.size(), "Chosen everywhere as they stand");
        var lens = session.lens();
        for (String name : all.keySet()) {
            Field f = null;
            String unit = "";
            for (Run run : session.results().runs().values()) {
                Field found = field(run, name);
                if (found != null) {
                    f = found;
                    unit = lens.unit(run, found).label();
                }
            }
            String what = f == null ? "" : f.components() == 1 ? "one number" : f.components() + " components";
            long used = session.study().quantities().stream()
                            .filter(q -> lens.fields(q).contains(name))
                            .count()
                    + Users.ofField(session.study(), name).size();
            Predicate<Source> has = s -> {
                Run run = session.results().runs().get(s.id());
                return run != null && field(run, name) != null;
            };
            String lack = lacking(has);
            HBox row = Ui.row(
                    8,
                    Ui.left(name, 160, "mono"),
                    grown(wrapped(lack.isEmpty() ? what : what + ", " + lack, "muted")),
                    Ui.left(unit, 92, "second"),
                    Ui.left(f == null ? "" : f.at().word(), 62, "second"),
                    lanes(has),
                    Ui.cell(used == 0 ? "–" : String.valueOf(used), 50, "second"));
            row.getStyleClass().add("table-row");
            row.setStyle("-fx-padding: 0 16 0 16;");
            rows.getChildren().add(row);
        }
    }

    private static @Nullable Field field(Run run, String name) {
        return run.field(name)
                .or(() -> run.parts().stream()
                        .flatMap(p -> p.field(name).stream())
                        .findFirst())
                .orElse(null);
    }

    /** One slot a lane: its marker where it can answer, a dash where not; with many lanes how many runs of all can. */
    private HBox lanes(Predicate<Source> answers) {
        List<Source> sources = session.study().sources();
        List<Source> runs = runs();
        List<Source> lack = runs.stream().filter(answers.negate()).toList();
        HBox out = Ui.row(2);
        if (sources.size() > SLOTS) {
            String count = lack.isEmpty() ? "all " + runs.size() : runs.size() - lack.size() + " of " + runs.size();
            out.getChildren().add(Ui.label(count, lack.isEmpty() ? "second" : "ochre"));
        } else {
            List<LaneStyle> styles = LaneStyle.of(sources, session.palette());
            for (int i = 0; i < sources.size(); i++) {
                Node mark = answers.test(sources.get(i))
                        ? Marks.marker(styles.get(i), Marks.fx(session.palette().sheet()))
                        : Ui.label("–", "muted");
                var slot = new StackPane(mark);
                slot.setMinWidth(13);
                slot.setMaxWidth(13);
                out.getChildren().add(slot);
            }
        }
        if (!lack.isEmpty()) {
            Tip.on(out, "not in " + names(lack));
        }
        out.setMinWidth(92);
        out.setMaxWidth(92);
        return out;
    }

    private List<Source> runs() {
        return session.study().sources().stream()
                .filter(s -> session.results().runs().containsKey(s.id()))
                .toList();
    }

    private static String names(List<Source> sources) {
        return sources.stream().map(Source::name).collect(Collectors.joining(", "));
    }

    /** Which runs lack it, where markers do not show it; empty if none does. */
    private String lacking(Predicate<Source> answers) {
        List<Source> lack = runs().stream().filter(answers.negate()).toList();
        if (lack.isEmpty() || session.study().sources().size() <= SLOTS) {
            return "";
        }
        return lack.size() == runs().size() ? "in no run" : "not in " + names(lack);
    }

    private Node row(Quantity q, boolean chosen) {
        Checked checked = Checked.of(session, q.formula(), q.name(), q.unit());
        Type type = checked.type();
        Node formula;
        if (chosen) {
            formula = new FormulaEditor(
                    session,
                    q,
                    t -> session.edit(
                            "Formula of " + q.name(), s -> s.with(current(q).by(t.strip()))));
        } else {
            lane.formula.FormulaException wrong = checked.wrong();
            formula = FormulaText.of(q.formula(), wrong != null ? wrong.from() : 0, wrong != null ? wrong.to() : 0);
            if (wrong != null) {
                formula = new VBox(2, formula, wrapped(wrong.getMessage(), "brick"));
            }
        }
        String lack = lacking(s -> checked.types().containsKey(s.id()));
        if (checked.wrong() == null && !lack.isEmpty()) {
            formula = new VBox(2, formula, wrapped(lack, "muted"));
        }
        String unit = type == null ? "–" : q.unit().isBlank() ? type.unit().label() : q.unit();
        int used = Users.of(session.study(), q).size();
        HBox row = Ui.row(
                8,
                Ui.left(q.name(), 160),
                grown(formula),
                Ui.row(4, Ui.label(unit, "second"), Ui.label(q.unit().isBlank() ? "" : "set", "small", "muted")),
                Ui.left(stored(q), 62, "second"),
                lanes(s -> checked.types().containsKey(s.id())),
                Ui.cell(used == 0 ? "–" : String.valueOf(used), 50, "second"));
        ((HBox) row.getChildren().get(2)).setMinWidth(92);
        ((HBox) row.getChildren().get(2)).setMaxWidth(92);
        row.getStyleClass().add("table-row");
        row.setMinHeight(27);
        row.setStyle(
                chosen
                        ? "-fx-padding: 5 16 5 13; -fx-border-color: transparent transparent -hair -teal;"
                                + " -fx-border-width: 0 0 1 3;"
                        : "-fx-padding: 3 16 3 16;");
        row.setId("quantity-row-" + q.id());
        if (chosen) {
            row.getStyleClass().add("selected");
        } else {
            row.setOnMouseClicked(e -> session.select(Chosen.QUANTITY, q.id()));
        }
        return row;
    }

    /** The quantity as it stands now, of which a row may still show the state before. */
    private Quantity current(Quantity q) {
        return session.study().quantities().find(q.id()).orElse(q);
    }

    /** Where its values stand: at nodes only where all that it is made of does. */
    private String stored(Quantity q) {
        var lens = session.lens();
        for (Run run : session.results().runs().values()) {
            List<Field> found = lens.fields(q).stream()
                    .map(n -> field(run, n))
                    .filter(java.util.Objects::nonNull)
                    .toList();
            if (!found.isEmpty()) {
                boolean part = found.stream().anyMatch(f -> !run.fields().contains(f));
                boolean node = found.stream().allMatch(f -> f.at() == Field.At.NODE);
                return part ? "parts" : node ? "nodes" : "cells";
            }
        }
        return "";
    }
}
