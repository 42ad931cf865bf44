package lane.desk.madeup;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Crossing;
import lane.check.Rule;
import lane.check.RuleKind;
import lane.check.Verdict;
import lane.desk.Session;
import lane.desk.checks.RuleForm;
import lane.estimate.Uncertainty;
import lane.reading.Reading;
import lane.unit.Unit;

/** A made-up check: numbers are positive. */
public record Positive(boolean strictly) implements Rule {
    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "positive";
        }

        @Override
        public Class<Positive> type() {
            return Positive.class;
        }
    }

    /** In the window. */
    public static final class InWindow implements RuleForm {
        @Override
        public String word() {
            return "positive";
        }

        @Override
        public Class<Positive> type() {
            return Positive.class;
        }

        @Override
        public String title() {
            return "positive";
        }

        @Override
        public Rule first(Reading reading) {
            return new Positive(true);
        }

        @Override
        public List<Node> rows(Session session, Check check, CheckResult result, Consumer<Rule> changed) {
            return List.of();
        }
    }

    @Override
    public String measure() {
        return "sign";
    }

    @Override
    public String allowance(Unit unit) {
        return "positive";
    }

    @Override
    public CheckResult judge(Crossing on) {
        Map<String, CheckResult.Lane> lanes = new LinkedHashMap<>();
        on.outcomes().forEach((lane, o) -> o.numbers().stream()
                .findFirst()
                .ifPresent(n -> lanes.put(
                        lane,
                        new CheckResult.Lane(
                                "sign",
                                n.value(),
                                n.value(),
                                Double.NaN,
                                Double.NaN,
                                Uncertainty.NONE,
                                0,
                                n.unit(),
                                null,
                                on.judged().contains(lane) ? n.value() > 0 ? Verdict.WITHIN : Verdict.OUT : null,
                                "made up",
                                o.trail()))));
        boolean all = on.judged().stream()
                .allMatch(j -> lanes.containsKey(j) && lanes.get(j).value() > 0);
        return new CheckResult("", lanes, all ? Verdict.WITHIN : Verdict.OUT, "It is positive.");
    }
}
