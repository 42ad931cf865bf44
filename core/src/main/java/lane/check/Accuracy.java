package lane.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import lane.base.LaneException;
import lane.convergence.AgainstExact;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The error against an exact datum falls with the order that the scheme has: the slope of the logarithm of the error (of a curve, of its root mean
 * square) over that of the cells' size.
 *
 * @param order that is asked for
 * @param tolerance by which the observed order may lie below
 * @param datum key of the exact lane; blank takes the study's
 */
public record Accuracy(double order, double tolerance, String datum) implements Rule {
    private static final Method METHOD = new Method("order of the error", 1);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "accuracy";
        }

        @Override
        public Class<Accuracy> type() {
            return Accuracy.class;
        }
    }

    public Accuracy {
        datum = datum == null ? "" : datum;
        Tolerance.require(tolerance);
        if (!(order > 0) || Double.isInfinite(order)) {
            throw new LaneException("The order of a scheme is a positive number; got " + order + ".");
        }
    }

    @Override
    public String measure() {
        return "order";
    }

    @Override
    public String allowance(Unit unit) {
        return "order " + Tolerance.plain(order) + " - " + Tolerance.plain(tolerance);
    }

    @Override
    public boolean comparesWithDatum() {
        return true;
    }

    @Override
    public boolean countsDoubts() {
        return false;
    }

    @Override
    public CheckResult judge(Crossing on) {
        String key = datum.isBlank() ? on.datum() : datum;
        Outcome exact = on.outcomes().get(key);
        return CheckEvaluator.byLane(
                on,
                key,
                (lane, value, judged) -> exact == null ? null : lane(on, lane, exact, judged),
                (lane, value) -> value instanceof Outcome.Absent a
                        ? a.reason()
                        : exact instanceof Outcome.Absent a
                                ? "The exact datum has no value: " + a.reason()
                                : "An order needs an exact datum, and an answer in this lane and in a coarser run of its family.");
    }

    private CheckResult.@Nullable Lane lane(Crossing on, String lane, Outcome exact, boolean judged) {
        Double own = on.size(lane);
        if (own == null) {
            return null;
        }
        List<Double> sizes = new ArrayList<>();
        List<Double> errors = new ArrayList<>();
        Provenance trail = exact.trail();
        Unit unit = Unit.UNKNOWN;
        for (String id : on.family()) {
            Outcome o = on.outcomes().get(id);
            Double h = on.size(id);
            double e = o == null || h == null || h < own * (1 - 1e-9) ? Double.NaN : error(o, exact);
            if (o != null && h != null && Double.isFinite(e)) {
                sizes.add(h);
                errors.add(e);
                trail = o.trail().beside(sizes.size() == 1 ? "exact" : "coarser mesh", trail);
                unit = o.unit();
            }
        }
        if (sizes.size() < 2) {
            return null;
        }
        double[] h = sizes.stream().mapToDouble(Double::doubleValue).toArray();
        double[] e = errors.stream().mapToDouble(Double::doubleValue).toArray();
        AgainstExact made = AgainstExact.of(h, e, 0);
        double lacking = Math.max(0, order - made.order());
        double half = Double.isNaN(made.standardError()) ? 0 : 2 * made.standardError();
        var doubt = Uncertainty.ofHalf(Uncertainty.Source.NUMERICAL, half);
        var settings = new LinkedHashMap<String, String>();
        settings.put("sizes", sizes.toString());
        settings.put("errors", errors + " in SI units of " + unit.label());
        settings.put("order", Tolerance.three(made.order()));
        settings.put("rule", Verdict.RULE);
        String sentence = "Observed order of the error " + Tolerance.three(made.order())
                + (half > 0 ? " ± " + Tolerance.three(half) : "") + " over " + h.length + " meshes; at least "
                + Tolerance.plain(order - tolerance) + " is asked for.";
        return new CheckResult.Lane(
                "order of the error",
                made.order(),
                lacking,
                Double.NaN,
                tolerance,
                doubt,
                half,
                Unit.ONE,
                null,
                judged ? Verdict.of(lacking, Math.max(0, half + Math.min(0, order - made.order())), tolerance) : null,
                sentence,
                trail.then("check", METHOD, "order {order}", settings));
    }

    private static double error(Outcome value, Outcome exact) {
        if (value.curve().isPresent() && exact.curve().isPresent()) {
            return Difference.of(value.curve().get(), exact.curve().get()).l2();
        }
        return value.numbers().isEmpty() || exact.numbers().isEmpty()
                ? Double.NaN
                : value.numbers().getFirst().value()
                        - exact.numbers().getFirst().value();
    }
}
