package lane.desk.intake;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.Uncertainty;
import lane.study.Source;

/** Lets a reference answer a reading: by a formula, by columns or a mean from one of its tables, or by a value. */
final class AnswerForm {
    private enum Kind {
        FORMULA("formula"),
        COLUMNS("columns"),
        MEAN("mean of a column"),
        VALUE("value");

        private final String word;

        Kind(String word) {
            this.word = word;
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

    private void show(Kind kind) {
        List<Reading> open = session.study().readings().stream()
                .filter(r -> switch (kind) {
                    case FORMULA -> !(r instanceof Reading.OfBalance);
                    case COLUMNS -> r instanceof Reading.OfProfile;
                    case MEAN, VALUE -> r instanceof Reading.OfTally;
                })
                .filter(r ->
                        source.answers().stream().noneMatch(a -> a.reading().equals(r.id())))
                .toList();
        List<Kind> kinds = source.files().isEmpty() ? List.of(Kind.FORMULA, Kind.VALUE) : List.of(Kind.values());
        box.getChildren()
                .setAll(Ui.row(
                        8, Ui.label("New answer by", "second"), Ui.segments(kinds, kind, k -> k.word, this::show)));
        if (open.isEmpty()) {
            box.getChildren()
                    .add(Ui.label(
                            "No reading is left that a " + kind.word + " could answer; add one at Readings.",
                            "small",
                            "muted"));
            return;
        }
        ComboBox<Reading> reading = Ui.choice("answer-reading", open, open.getFirst(), Reading::name, r -> {});
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
        var field = new TextField();
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
        fields.getChildren().addAll(value, unit, half, note);
        add(
                "Add value",
                () -> new Curve.HandValue(
                        reading.getValue().id(),
                        number(value),
                        unit.getText(),
                        half.getText().isBlank() ? 0 : number(half),
                        note.getText()));
    }

    private static double number(TextField field) {
        try {
            return Double.parseDouble(field.getText().strip().replace(',', '.').replace('−', '-'));
        } catch (NumberFormatException e) {
            throw new LaneException("\"" + field.getText() + "\" is no number; write it like 36.5.", e);
        }
    }

    private List<String> headers(String file) {
        try {
            return session.library().table(file, session.study().recipes()).headers();
        } catch (LaneException e) {
            return List.of();
        }
    }

    private ComboBox<String> file(Consumer<List<String>> shown) {
        ComboBox<String> file = Ui.choice(
                "answer-file", source.files(), source.files().getFirst(), f -> f, f -> shown.accept(headers(f)));
        file.setPrefWidth(150);
        if (source.files().size() > 1) {
            fields.getChildren().add(file);
        }
        return file;
    }

    private static ComboBox<String> column(String id, String word) {
        return Ui.choice(id, List.of(), null, h -> h.isBlank() ? "no uncertainty" : word + h, h -> {});
    }

    private static void fill(ComboBox<String> box, List<String> items, int at) {
        box.getItems().setAll(items);
        box.setValue(items.isEmpty() ? null : items.get(Math.min(at, items.size() - 1)));
    }

    private void columns(ComboBox<Reading> reading) {
        ComboBox<String> value = column("columns-value", "");
        ComboBox<String> along = column("columns-abscissa", "over ");
        ComboBox<String> half = column("columns-uncertainty", "± ");
        Consumer<List<String>> show = headers -> {
            fill(along, headers, 0);
            fill(value, headers, 1);
            List<String> none = new ArrayList<>(List.of(""));
            none.addAll(headers);
            fill(half, none, headers.size() > 2 ? 3 : 0);
        };
        ComboBox<String> file = file(show);
        show.accept(headers(file.getValue()));
        fields.getChildren().addAll(value, along, half);
        add(
                "Add columns",
                () -> new Curve.Columns(
                        reading.getValue().id(),
                        file.getValue(),
                        along.getValue(),
                        "",
                        value.getValue(),
                        "",
                        Uncertainty.of(half.getValue())));
    }

    private void mean(ComboBox<Reading> reading) {
        ComboBox<String> value = column("mean-value", "mean of ");
        ComboBox<String> along = column("mean-along", "over ");
        Consumer<List<String>> show = headers -> {
            fill(along, headers, 0);
            fill(value, headers, 1);
        };
        ComboBox<String> file = file(show);
        show.accept(headers(file.getValue()));
        var from = text("mean-from", "from", 70);
        var to = text("mean-to", "to", 70);
        fields.getChildren().addAll(value, along, from, to);
        add(
                "Add mean",
                () -> new Curve.WindowMean(
                        reading.getValue().id(),
                        file.getValue(),
                        value.getValue(),
                        "",
                        along.getValue(),
                        number(from),
                        number(to)));
    }
}
