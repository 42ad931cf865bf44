package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Rule;
import lane.check.Trend;
import lane.desk.Session;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** Whether a number settles over the runs of a family. */
public final class TrendForm implements RuleForm {
    @Override
    public String word() {
        return "trend";
    }

    @Override
    public Class<Trend> type() {
        return Trend.class;
    }

    @Override
    public String title() {
        return "last change over the runs";
    }

    @Override
    public Rule first(Reading reading) {
        return new Trend(0.01, false);
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Trend) check.rule();
        return List.of(CheckRows.tolerance(
                rule.tolerance(),
                rule.absolute(),
                "of the finest value",
                result,
                t -> changed.accept(new Trend(t, rule.absolute())),
                a -> changed.accept(new Trend(rule.tolerance(), a))));
    }

    @Override
    public java.util.Optional<Node> inPlace(Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Trend) check.rule();
        return java.util.Optional.of(CheckRows.inPlace(
                check,
                result,
                rule.tolerance(),
                rule.absolute(),
                "of the finest value",
                t -> changed.accept(new Trend(t, rule.absolute())),
                a -> changed.accept(new Trend(rule.tolerance(), a))));
    }
}
