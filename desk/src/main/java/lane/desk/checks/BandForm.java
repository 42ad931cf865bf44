package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import lane.base.LaneException;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Rule;
import lane.check.WithinBand;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** Whether a number lies within a band. */
public final class BandForm implements RuleForm {
    @Override
    public String word() {
        return "band";
    }

    @Override
    public Class<WithinBand> type() {
        return WithinBand.class;
    }

    @Override
    public String title() {
        return "within a band";
    }

    @Override
    public Rule first(Reading reading) {
        return new WithinBand(0.0, null, reading.unit());
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (WithinBand) check.rule();
        return List.of(
                Ui.row(
                        8,
                        Ui.left("From", 72, "second"),
                        end(
                                session,
                                "check-least",
                                rule.least(),
                                v -> changed.accept(new WithinBand(v, rule.greatest(), rule.unit()))),
                        Ui.label("to", "muted"),
                        end(
                                session,
                                "check-greatest",
                                rule.greatest(),
                                v -> changed.accept(new WithinBand(rule.least(), v, rule.unit())))),
                Ui.row(8, Ui.left("Unit", 72, "second"), unit(session, rule, changed)));
    }

    private static TextField unit(Session session, WithinBand rule, Consumer<Rule> changed) {
        var field = Ui.text(
                "check-unit",
                rule.unit(),
                t -> attempt(session, () -> changed.accept(new WithinBand(rule.least(), rule.greatest(), t))));
        field.setPromptText("the reading's");
        field.setPrefWidth(90);
        return field;
    }

    /** A blank end is none. */
    private static TextField end(Session session, String id, @Nullable Double now, Consumer<Double> typed) {
        var field = Ui.text(
                id,
                now == null ? "" : Ui.shortest(now),
                t -> attempt(session, () -> {
                    try {
                        typed.accept(
                                t.isBlank() ? null : Double.valueOf(t.strip().replace('−', '-')));
                    } catch (NumberFormatException e) {
                        throw new LaneException("\"" + t + "\" is no number; type one, or leave the end out.", e);
                    }
                }));
        field.setPromptText("open");
        field.setPrefWidth(80);
        return field;
    }

    private static void attempt(Session session, Runnable edit) {
        try {
            edit.run();
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }
}
