package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Accuracy;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Rule;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** The order of the error against an exact datum. */
public final class AccuracyForm implements RuleForm {
    @Override
    public String word() {
        return "accuracy";
    }

    @Override
    public Class<Accuracy> type() {
        return Accuracy.class;
    }

    @Override
    public String title() {
        return "order of the error, datum exact";
    }

    @Override
    public Rule first(Reading reading) {
        return new Accuracy(2, 0.2, "");
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Accuracy) check.rule();
        var study = session.study();
        var order = Ui.number(
                "check-order", rule.order(), v -> changed.accept(new Accuracy(v, rule.tolerance(), rule.datum())));
        var less = Ui.number(
                "check-tolerance", rule.tolerance(), v -> changed.accept(new Accuracy(rule.order(), v, rule.datum())));
        order.setPrefWidth(56);
        less.setPrefWidth(56);
        List<String> datums = new ArrayList<>(List.of(""));
        study.sources().forEach(s -> datums.add(s.id()));
        return List.of(
                Ui.row(8, Ui.left("Order", 72, "second"), order, Ui.label("less at most", "muted"), less),
                Ui.row(
                        8,
                        Ui.left("Exact", 72, "second"),
                        Ui.choice(
                                "check-datum",
                                datums,
                                rule.datum(),
                                d -> d.isBlank()
                                        ? "the study's datum"
                                        : study.source(d).map(Source::name).orElse(d),
                                d -> changed.accept(new Accuracy(rule.order(), rule.tolerance(), d)))));
    }
}
