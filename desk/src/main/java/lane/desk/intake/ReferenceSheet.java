package lane.desk.intake;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.ManyRows;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.Formula;
import lane.study.Source;

/** The sheet of a theory or a measurement: its constants, what it answers to which reading, and its tables. */
final class ReferenceSheet {
    private final Session session;
    private final Source.Reference source;

    ReferenceSheet(Session session, Source.Reference source) {
        this.session = session;
        this.source = source;
    }

    void addTo(VBox sheet) {
        var drawn = Ui.segments(
                List.of(Source.Kind.values()),
                source.kind(),
                k -> k == Source.Kind.THEORY ? "theory" : "measurement",
                k -> change("Drawn as", k, source.constants(), source.answers()));
        sheet.getChildren().add(Ui.row(8, Ui.label("Drawn as", "second"), drawn));
        constants(sheet);
        sheet.getChildren().add(SourceSheet.title("Answers", "what it says to which reading"));
        answers(sheet);
        sheet.getChildren().add(new AnswerForm(session, source, this::answers).node());
        source.files().forEach(f -> new TableSheet(session, f).addTo(sheet));
    }

    private void change(String what, Source.Kind kind, Map<String, Double> constants, List<Curve> answers) {
        session.edit(
                what,
                s -> s.with(
                        new Source.Reference(source.id(), source.name(), kind, source.files(), constants, answers)));
    }

    private void answers(Consumer<List<Curve>> edit) {
        try {
            var list = new ArrayList<>(source.answers());
            edit.accept(list);
            change("Change answers", source.kind(), source.constants(), list);
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }

    private void constants(VBox sheet) {
        sheet.getChildren().add(SourceSheet.title("Constants", "in SI units; formulas use them by name"));
        source.constants().forEach((name, value) -> {
            var field = Ui.number("constant-" + name, value, v -> constants(m -> m.put(name, v)));
            field.setMaxWidth(140);
            boolean used = source.answers().stream()
                    .anyMatch(a -> a instanceof Curve.ByFormula f
                            && Formula.of(f.formula()).names().contains(name));
            var remove = Ui.button("Remove", () -> constants(m -> m.remove(name)), "small-button");
            remove.setDisable(used);
            sheet.getChildren()
                    .add(SourceSheet.line(false, Ui.left(name, 130, "mono"), field, Ui.left("", 12), remove));
        });
        var name = Entry.of(new TextField());
        name.setId("constant-name");
        name.setPromptText("name");
        name.setPrefWidth(122);
        var value = Entry.of(new TextField());
        value.setId("constant-value");
        value.setPromptText("value");
        value.setPrefWidth(140);
        Runnable add = () -> {
            try {
                double v = Double.parseDouble(value.getText().strip().replace(',', '.'));
                if (!name.getText().strip().matches("\\p{L}[\\p{L}\\p{N}_]*")) {
                    session.say("A constant's name begins with a letter and goes on with letters and digits; \""
                            + name.getText() + "\" does not.");
                } else {
                    constants(m -> m.put(name.getText().strip(), v));
                }
            } catch (NumberFormatException e) {
                session.say("\"" + value.getText() + "\" is no number; write it like 36.5.");
            }
        };
        value.setOnAction(e -> add.run());
        sheet.getChildren().add(Ui.row(8, name, value, Ui.button("+ Constant", add, "small-button")));
    }

    private void constants(Consumer<Map<String, Double>> edit) {
        var next = new LinkedHashMap<>(source.constants());
        edit.accept(next);
        change("Constants", source.kind(), next, source.answers());
    }

    private void answers(VBox sheet) {
        if (source.answers().isEmpty()) {
            return;
        }
        List<String> names = source.answers().stream().map(this::reading).toList();
        var head = SourceSheet.line(
                true, Ui.left("Reading", 190, "small", "muted"), Ui.left("Answer", 334, "small", "muted"));
        sheet.getChildren()
                .addAll(ManyRows.of(
                        session,
                        "answers",
                        source.id(),
                        "answer",
                        names,
                        head,
                        i -> answer(source.answers().get(i), names.get(i))));
    }

    private String reading(Curve c) {
        return session.study().reading(c.reading()).map(Reading::name).orElse(c.reading() + " (no such reading)");
    }

    private Node answer(Curve c, String reading) {
        var row = SourceSheet.line(false, Ui.left(reading, 190, "second"));
        switch (c) {
            case Curve.ByFormula f -> {
                var formula = Ui.text(
                        "formula-" + f.reading(),
                        f.formula(),
                        t -> replace(c, () -> new Curve.ByFormula(f.reading(), t, f.unit())));
                formula.setPrefWidth(300);
                HBox.setHgrow(formula, javafx.scene.layout.Priority.ALWAYS);
                var unit = Ui.text(
                        "formula-unit-" + f.reading(),
                        f.unit(),
                        t -> replace(c, () -> new Curve.ByFormula(f.reading(), f.formula(), t)));
                unit.setPrefWidth(64);
                unit.setMinWidth(50);
                row.getChildren().addAll(formula, Ui.left("", 6), unit);
            }
            case Curve.Columns f ->
                row.getChildren()
                        .add(Ui.left(
                                ShownPath.words(session, f.file(), 28) + ": " + f.value() + " over " + f.abscissa()
                                        + (f.uncertainty().none()
                                                ? ""
                                                : ", " + f.uncertainty().word()),
                                334,
                                "mono"));
            case Curve.WindowMean f ->
                row.getChildren()
                        .add(Ui.left(
                                ShownPath.words(session, f.file(), 28) + ": mean of " + f.value() + ", " + f.along()
                                        + " " + Ui.shortest(f.from()) + " to " + Ui.shortest(f.to()),
                                334,
                                "mono"));
            case Curve.HandValue f ->
                row.getChildren()
                        .add(Ui.left(
                                (f.formula().isBlank() ? Ui.shortest(f.value()) : f.formula()) + " " + f.unit()
                                        + (f.uncertainty() > 0 ? " ± " + Ui.shortest(f.uncertainty()) : "")
                                        + f.inputs().stream()
                                                .map(i -> ", " + i.name() + " = " + Ui.shortest(i.value()) + " "
                                                        + i.unit() + (i.note().isBlank() ? "" : " (" + i.note() + ")"))
                                                .collect(java.util.stream.Collectors.joining())
                                        + (f.note().isBlank() ? "" : ", " + f.note()),
                                334,
                                "mono"));
        }
        row.getChildren().addAll(Ui.left("", 8), Ui.button("Remove", () -> answers(l -> l.remove(c)), "small-button"));
        return row;
    }

    private void replace(Curve old, java.util.function.Supplier<Curve> next) {
        answers(l -> l.set(l.indexOf(old), next.get()));
    }
}
