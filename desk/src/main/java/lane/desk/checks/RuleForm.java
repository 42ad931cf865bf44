package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.base.Kinds;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Rule;
import lane.desk.Session;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** How a kind of check is set in the window: one class a kind, found as a service. */
public interface RuleForm extends Kinds.Kind<Rule> {
    Kinds<Rule, RuleForm> ALL = Kinds.of(RuleForm.class);

    /** What it is called in the choice of kinds. */
    String title();

    /** A rule of the kind to begin with. */
    Rule first(Reading reading);

    /**
     * The rows of its settings.
     *
     * @param result what it found; null before it was carried out
     */
    List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed);

    /** Where the tolerance is changed on the board itself; empty for a kind that has not one number of it. */
    default java.util.Optional<Node> inPlace(Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        return java.util.Optional.empty();
    }
}
