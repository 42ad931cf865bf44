package lane.check;

import java.util.LinkedHashMap;
import lane.estimate.Estimate;
import lane.provenance.Method;
import lane.reading.Outcome;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A balance closes: the magnitude of its residual is small. Any answer with a scale of its own can be judged so.
 *
 * @param tolerance a share of the answer's own scale (of a balance its largest term unless it says another), or in the
 *     reading's unit
 * @param absolute whether it is in the reading's unit
 */
public record Closure(double tolerance, boolean absolute) implements Rule {
    private static final Method METHOD = new Method("residual over the largest term", 1);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "closure";
        }

        @Override
        public Class<Closure> type() {
            return Closure.class;
        }
    }

    public Closure {
        Tolerance.require(tolerance);
    }

    @Override
    public String measure() {
        return "residual";
    }

    @Override
    public String allowance(Unit unit) {
        return Tolerance.words(tolerance, !absolute, unit);
    }

    @Override
    public CheckResult judge(Crossing on) {
        return CheckEvaluator.byLane(
                on,
                "",
                (lane, value, judged) -> lane(value, judged),
                (lane, value) -> value instanceof Outcome.Absent a
                        ? a.reason()
                        : "This reading has no residual; a closure is that of a balance.");
    }

    private CheckResult.@Nullable Lane lane(Outcome value, boolean judged) {
        if (value.numbers().isEmpty() || Double.isNaN(value.scale()) && !absolute) {
            return null;
        }
        Estimate residual = value.numbers().getFirst();
        Unit unit = residual.unit();
        double scale = value.scale();
        double half = residual.uncertainty().counted();
        double allowed = absolute ? tolerance * unit.factor() : tolerance * scale;
        boolean empty = !absolute && scale == 0;
        Verdict verdict = !judged ? null : Verdict.of(residual.value(), half, allowed);
        String sentence = empty
                ? "All terms are zero, and so is the residual."
                : Tolerance.sentence(
                        "Residual",
                        residual.value(),
                        residual.uncertainty(),
                        allowed,
                        absolute ? 1 / unit.factor() : 100 / scale,
                        absolute ? unit.difference().symbol() : "% of " + value.scaledBy());
        double relative = scale > 0 ? residual.value() / scale : Double.NaN;
        var settings = new LinkedHashMap<String, String>();
        settings.put("relative to", absolute ? "absolute" : value.scaledBy().replaceFirst("^the ", ""));
        settings.put("tolerance", String.valueOf(tolerance));
        settings.put("rule", Verdict.RULE);
        settings.put("residual", Double.isNaN(relative) ? "" : ": " + Tolerance.three(100 * relative) + " %");
        return new CheckResult.Lane(
                "difference",
                residual.value(),
                residual.value(),
                scale,
                allowed,
                residual.uncertainty(),
                half,
                unit,
                null,
                verdict,
                sentence,
                value.trail().then("check", METHOD, "against zero{residual}", settings));
    }
}
