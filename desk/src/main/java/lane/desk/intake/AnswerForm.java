package lane.desk.intake;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Source;

/** Lets a reference answer a reading: by a formula, by columns or a mean from one of its tables, or by a value. */
final class AnswerForm {
    private enum Kind {
        FORMULA("formula", "a curve or a number"),
        COLUMNS("columns", "a curve"),
        MEAN("mean of a column", "a number"),
        VALUE("value", "a number");

        private final String word;
        private final String asks;

        Kind(String word, String asks) {
            this.word = word;
            this.asks = asks;
        }
    }

    private final Session session;
    private final Source.Reference source;
    private final Consumer<Consumer<List<Curve>>> answers;
    private final VBox box = new VBox(6);
    private final FlowPane fields = new FlowPane(8, 6);

    AnswerForm(Session session, Source.Reference source, Consumer<Consumer<List<Curve>>> answers) {
        this.session = session;
        this.source = source;
        this.answers = answers;
        box.setStyle("-fx-padding: 4 0 0 0;");
        show(source.files().isEmpty() ? Kind.FORMULA : Kind.COLUMNS);
    }

    Node node() {
        return box;
    }

    private static boolean fits(Kind kind, Reading r) {
        return switch (kind) {
            case FORMULA -> r.ask().form() != Ask.Form.TERMS;
            case COLUMNS -> r.curve();
            case MEAN, VALUE -> r.ask().form() == Ask.Form.NUMBER;
        };
    }

    private void show(Kind kind) {
        List<Reading> open = session.study().readings().stream()
                .filter(r -> fits(kind, r))
                .filter(r ->
                        source.answers().stream().noneMatch(a -> a.reading().equals(r.id())))
                .toList();
        List<Kind> kinds = source.files().isEmpty() ? List.of(Kind.FORMULA, Kind.VALUE) : List.of(Kind.values());
        var by = Ui.segments(kinds, kind, k -> k.word, this::show);
        // Each has its name, so that the chosen one stays chosen when the sheet is built anew.
        for (int i = 0; i < kinds.size(); i++) {
            by.getChildren().get(i).setId("answer-by-" + kinds.get(i));
        }
        box.getChildren().setAll(Ui.row(8, Ui.label("New answer by", "second"), by));
        if (open.isEmpty()) {
            boolean none = session.study().readings().stream().noneMatch(r -> fits(kind, r));
            var why = Ui.label(
                    none
                            ? "No reading asks for " + kind.asks
                                    + " yet. This source waits; where units fit, it is proposed in the reading."
                            : "Every reading that asks for " + kind.asks + " is answered by this source already.",
                    "small",
                    "muted");
            why.setWrapText(true);
            var go = Ui.button("Go to Readings", () -> session.go(4), "small-button");
            go.setId("answer-go-readings");
            box.getChildren().addAll(why, go);
            return;
        }
        ComboBox<Reading> reading =
                Entry.of(Ui.choice("answer-reading", open, open.getFirst(), Reading::name, r -> {}));
        reading.setPrefWidth(190);
        fields.getChildren().setAll(reading);
        switch (kind) {
            case FORMULA -> formula(reading);
            case COLUMNS -> columns(reading);
            case MEAN -> mean(reading);
            case VALUE -> value(reading);
        }
        box.getChildren().add(fields);
    }

    private static TextField text(String id, String prompt, double width) {
        var field = Entry.of(new TextField());
        field.setId(id);
        field.setPromptText(prompt);
        field.setPrefWidth(width);
        return field;
    }

    private void add(String word, java.util.function.Supplier<Curve> make) {
        fields.getChildren()
                .add(Ui.button(
                        word,
                        () -> {
                            try {
                                Curve made = make.get();
                                answers.accept(l -> l.add(made));
                            } catch (LaneException e) {
                                session.say(e.getMessage());
                            }
                        },
                        "small-button"));
    }

    private void formula(ComboBox<Reading> reading) {
        var formula = text("answer-formula", "formula of x, y, z, r, s and the constants, in SI", 300);
        var unit = text("answer-unit", "unit", 70);
        fields.getChildren().addAll(formula, unit);
        add("Add formula", () -> new Curve.ByFormula(reading.getValue().id(), formula.getText(), unit.getText()));
    }

    private void value(ComboBox<Reading> reading) {
        var value = text("answer-value", "value", 100);
        var unit = text("answer-unit", "unit", 70);
        var half = text("answer-uncertainty", "± uncertainty", 110);
        var note = text("answer-note", "where it comes from", 200);
        var formula = text("answer-hand-formula", "or formula of inputs, in SI", 190);
        var inputs = text("answer-inputs", "inputs: rho = 850 kg/m3 data sheet; h = 20 cm", 290);
        fields.getChildren().addAll(value, unit, half, note, formula, inputs);
        add(
                "Add value",
                () -> new Curve.HandValue(
                        reading.getValue().id(),
                        formula.getText().isBlank() || !value.getText().isBlank() ? number(value) : 0,
                        unit.getText(),
                        half.getText().isBlank() ? 0 : number(half),
                        note.getText(),
                        formula.getText(),
                        inputs(inputs.getText())));
    }

    /** Inputs of a hand calculation: {@code name = value unit note}, parted by semicolons. */
    static List<Curve.Given> inputs(String text) {
        List<Curve.Given> out = new ArrayList<>();
        for (String one : text.split(";")) {
            if (one.isBlank()) {
                continue;
            }
            var m = INPUT.matcher(one.strip());
            if (!m.matches()) {
                throw new LaneException("The input \"" + one.strip()
                        + "\" is not understood; write it like rho = 850 kg/m3 data sheet.");
            }
            out.add(new Curve.Given(
                    m.group(1),
                    Double.parseDouble(m.group(2).replace(',', '.')),
                    m.group(3),
                    m.group(4) == null ? "" : m.group(4).strip()));
        }
        return out;
    }

    private static final java.util.regex.Pattern INPUT = java.util.regex.Pattern.compile(
            "(\\p{L}[\\p{L}\\p{N}_]*)\\s*=\\s*([-+]?\\d+(?:[.,]\\d+)?(?:[eE][-+]?\\d+)?)\\s+(\\S+)(\\s.*)?");

    static double number(TextField field) {
        try {
            return Double.parseDouble(field.getText().strip().replace(',', '.').replace('−', '-'));
        } catch (NumberFormatException e) {
            throw new LaneException("\"" + field.getText() + "\" is no number; write it like 36.5.", e);
        }
    }

    private java.util.Optional<Table> table(String file) {
        try {
            return java.util.Optional.ofNullable(
                    session.tables().of(file, session.study().recipes()));
        } catch (LaneException e) {
            return java.util.Optional.empty();
        }
    }

    private ComboBox<String> file(Consumer<String> shown) {
        ComboBox<String> file = Entry.of(Ui.choice(
                "answer-file", source.files(), source.files().getFirst(), f -> ShownPath.words(session, f), shown));
        file.setPrefWidth(150);
        if (source.files().size() > 1) {
            fields.getChildren().add(file);
        }
        return file;
    }

    private static ComboBox<String> column(String id, String word) {
        return Entry.of(Ui.choice(id, List.of(), null, h -> word + h, h -> {}));
    }

    private static String column(ComboBox<String> box) {
        if (box.getValue() == null) {
            throw new LaneException("No column is chosen: the table is still being read, or holds none.");
        }
        return box.getValue();
    }

    private static void fill(ComboBox<String> box, List<String> items, int at) {
        box.getItems().setAll(items);
        box.setValue(items.isEmpty() ? null : items.get(Math.min(at, items.size() - 1)));
        Entry.said(box);
    }

    private void columns(ComboBox<Reading> reading) {
        ComboBox<String> value = column("columns-value", "");
        ComboBox<String> along = column("columns-abscissa", "over ");
        var uncertainty = new UncertaintyForm();
        Consumer<String> show = name -> table(name).ifPresent(t -> {
            List<String> first = t.with(Recipe.Role.ABSCISSA);
            List<String> values = t.with(Recipe.Role.VALUE);
            fill(along, t.headers(), first.isEmpty() ? 0 : t.headers().indexOf(first.getFirst()));
            fill(value, t.headers(), values.isEmpty() ? 1 : t.headers().indexOf(values.getFirst()));
            uncertainty.of(t);
        });
        ComboBox<String> file = file(show);
        show.accept(file.getValue());
        fields.getChildren().addAll(value, along);
        fields.getChildren().addAll(uncertainty.nodes());
        addLike(
                "Add columns",
                reading,
                file,
                () -> new Curve.Columns(
                        reading.getValue().id(),
                        file.getValue(),
                        column(along),
                        "",
                        column(value),
                        "",
                        uncertainty.value()));
    }

    /** Adds an answer here and, unless it is unticked, in the other references whose table is of the same kind. */
    private void addLike(
            String word, ComboBox<Reading> reading, ComboBox<String> file, java.util.function.Supplier<Curve> make) {
        var others = new LikeBox(session, source, "answer-like", file::getValue, () -> reading.getValue()
                .id());
        reading.valueProperty().addListener((o, was, is) -> others.count());
        file.valueProperty().addListener((o, was, is) -> others.count());
        fields.getChildren().add(others.node());
        fields.getChildren()
                .add(Ui.button(
                        word,
                        () -> {
                            try {
                                Curve made = make.get();
                                Map<String, Source> next = new HashMap<>();
                                next.put(source.id(), with(source, made));
                                others.chosen()
                                        .forEach(r -> next.put(
                                                r.id(),
                                                with(r, Kin.of(made, r.files().getFirst()))));
                                session.edit(
                                        "Add answers",
                                        s -> s.withSources(l -> {
                                            l.replaceAll(x -> next.getOrDefault(x.id(), x));
                                            return l;
                                        }));
                            } catch (LaneException e) {
                                session.say(e.getMessage());
                            }
                        },
                        "small-button"));
    }

    private static Source.Reference with(Source.Reference r, Curve answer) {
        List<Curve> all = new ArrayList<>(r.answers());
        all.add(answer);
        return new Source.Reference(r.id(), r.name(), r.kind(), r.files(), r.constants(), all);
    }

    private void mean(ComboBox<Reading> reading) {
        ComboBox<String> value = column("mean-value", "mean of ");
        ComboBox<String> along = column("mean-along", "over ");
        Consumer<String> show = name -> table(name).ifPresent(t -> {
            fill(along, t.headers(), 0);
            fill(value, t.headers(), 1);
        });
        ComboBox<String> file = file(show);
        show.accept(file.getValue());
        var from = text("mean-from", "from", 70);
        var to = text("mean-to", "to", 70);
        fields.getChildren().addAll(value, along, from, to);
        addLike(
                "Add mean",
                reading,
                file,
                () -> new Curve.WindowMean(
                        reading.getValue().id(),
                        file.getValue(),
                        column(value),
                        "",
                        column(along),
                        number(from),
                        number(to)));
    }
}
