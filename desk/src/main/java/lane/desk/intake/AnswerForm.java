package lane.desk.intake;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.study.Source;

/** Lets a reference answer a reading: by a formula, or by columns of one of its tables. */
final class AnswerForm {
    private AnswerForm() {}

    static void add(Session session, Source.Reference source, VBox sheet) {
        List<Reading> open = session.study().readings().stream()
                .filter(r -> !(r instanceof Reading.OfBalance))
                .filter(r ->
                        source.answers().stream().noneMatch(a -> a.reading().equals(r.id())))
                .toList();
        if (open.isEmpty()) {
            return;
        }
        ComboBox<Reading> reading = Ui.choice("answer-reading", open, open.getFirst(), Reading::name, r -> {});
        reading.setPrefWidth(190);
        var formula = new TextField();
        formula.setId("answer-formula");
        formula.setPromptText("formula of x, y, z, r, s and constants, SI");
        formula.setPrefWidth(270);
        var unit = new TextField();
        unit.setId("answer-unit");
        unit.setPromptText("unit");
        unit.setPrefWidth(70);
        sheet.getChildren()
                .add(Ui.row(
                        8,
                        Ui.label("Answer", "second"),
                        reading,
                        formula,
                        unit,
                        Ui.button(
                                "Add formula",
                                () -> SourceSheet.answers(
                                        session,
                                        source,
                                        list -> list.add(new Curve.ByFormula(
                                                reading.getValue().id(), formula.getText(), unit.getText()))),
                                "small-button")));
        for (String file : source.files()) {
            columns(session, source, sheet, open, file);
        }
    }

    private static void columns(Session session, Source.Reference source, VBox sheet, List<Reading> open, String file) {
        List<String> headers;
        try {
            headers = session.library().table(file).headers();
        } catch (LaneException e) {
            return;
        }
        List<Reading> profiles =
                open.stream().filter(Reading.OfProfile.class::isInstance).toList();
        if (profiles.isEmpty() || headers.size() < 2) {
            return;
        }
        List<String> none = new ArrayList<>(List.of(""));
        none.addAll(headers);
        ComboBox<Reading> reading = Ui.choice("columns-reading", profiles, profiles.getFirst(), Reading::name, r -> {});
        reading.setPrefWidth(190);
        ComboBox<String> along = Ui.choice("columns-abscissa", headers, headers.getFirst(), h -> "over " + h, h -> {});
        ComboBox<String> value = Ui.choice("columns-value", headers, headers.get(1), h -> h, h -> {});
        ComboBox<String> half = Ui.choice(
                "columns-uncertainty",
                none,
                headers.size() > 2 ? headers.get(2) : "",
                h -> h.isBlank() ? "no uncertainty" : "± " + h,
                h -> {});
        sheet.getChildren()
                .add(Ui.row(
                        8,
                        Ui.label("Answer", "second"),
                        reading,
                        value,
                        along,
                        half,
                        Ui.button(
                                "Add columns",
                                () -> SourceSheet.answers(
                                        session,
                                        source,
                                        list -> list.add(new Curve.Columns(
                                                reading.getValue().id(),
                                                file,
                                                along.getValue(),
                                                "",
                                                value.getValue(),
                                                "",
                                                half.getValue()))),
                                "small-button")));
    }
}
