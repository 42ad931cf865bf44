package lane.desk.checks;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Converges;
import lane.check.Rule;
import lane.desk.Session;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** A numerical uncertainty that is to be small; what meshes and order it takes stands with the uncertainty of the check. */
public final class ConvergesForm implements RuleForm {
    @Override
    public String word() {
        return "convergence";
    }

    @Override
    public Class<Converges> type() {
        return Converges.class;
    }

    @Override
    public String title() {
        return "numerical uncertainty of the family";
    }

    @Override
    public Rule first(Reading reading) {
        return new Converges(0.01, false);
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Converges) check.rule();
        return List.of(CheckRows.tolerance(
                rule.tolerance(),
                rule.absolute(),
                "of the finest value",
                result,
                t -> changed.accept(rule.tolerating(t)),
                a -> changed.accept(new Converges(rule.tolerance(), a))));
    }

    @Override
    public Optional<Node> inPlace(Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (Converges) check.rule();
        return Optional.of(CheckRows.inPlace(
                check,
                result,
                rule.tolerance(),
                rule.absolute(),
                "of the finest value",
                t -> changed.accept(rule.tolerating(t)),
                a -> changed.accept(new Converges(rule.tolerance(), a))));
    }
}
