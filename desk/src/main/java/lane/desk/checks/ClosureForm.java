package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Closure;
import lane.check.Rule;
import lane.desk.Session;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** Whether a balance closes. */
public final class ClosureForm implements RuleForm {
    @Override
    public String word() {
        return "closure";
    }

    @Override
    public Class<Closure> type() {
        return Closure.class;
    }

    @Override
    public String title() {
        return "residual of a balance";
    }

    @Override
    public Rule first(Reading reading) {
        return new Closure(0.01, false);
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Closure) check.rule();
        return List.of(CheckRows.tolerance(
                rule.tolerance(),
                rule.absolute(),
                "of the largest term",
                result,
                t -> changed.accept(new Closure(t, rule.absolute())),
                a -> changed.accept(new Closure(rule.tolerance(), a))));
    }

    @Override
    public java.util.Optional<Node> inPlace(Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Closure) check.rule();
        return java.util.Optional.of(CheckRows.inPlace(
                check,
                result,
                rule.tolerance(),
                rule.absolute(),
                "of the largest term",
                t -> changed.accept(new Closure(t, rule.absolute())),
                a -> changed.accept(new Closure(rule.tolerance(), a))));
    }
}
