package lane.check;

import java.util.LinkedHashMap;
import java.util.Objects;
import lane.base.LaneException;
import lane.provenance.Method;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A number, or every value of a curve, lies within a band; no datum is needed.
 *
 * @param least lower end in the unit; null for none
 * @param greatest upper end; null for none
 * @param unit of the ends; blank takes the reading's
 */
public record WithinBand(@Nullable Double least, @Nullable Double greatest, String unit) implements Rule {
    private static final Method METHOD = new Method("distance out of a band", 1);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "band";
        }

        @Override
        public Class<WithinBand> type() {
            return WithinBand.class;
        }
    }

    public WithinBand {
        unit = unit == null ? "" : unit;
        Unit.of(unit);
        if (least == null && greatest == null || least != null && greatest != null && !(least <= greatest)) {
            throw new LaneException("A band from " + least + " to " + greatest
                    + " holds nothing; give the lesser end first, or leave one end out.");
        }
    }

    @Override
    public String measure() {
        return "band";
    }

    @Override
    public String allowance(Unit shown) {
        Unit in = Unit.of(unit).known() ? Unit.of(unit) : shown;
        String label = in.known() ? " " + in.symbol() : "";
        return least == null && greatest == null
                ? ""
                : least == null
                        ? "to " + Tolerance.plain(Objects.requireNonNull(greatest)) + label
                        : greatest == null
                                ? "from " + Tolerance.plain(least) + label
                                : Tolerance.plain(least) + " to " + Tolerance.plain(greatest) + label;
    }

    @Override
    public CheckResult judge(Crossing on) {
        return CheckEvaluator.byLane(
                on,
                "",
                (lane, value, judged) -> lane(value, judged),
                (lane, value) ->
                        value instanceof Outcome.Absent a ? a.reason() : "This reading has no number to judge.");
    }

    private CheckResult.@Nullable Lane lane(Outcome value, boolean judged) {
        double v;
        double half;
        lane.estimate.Uncertainty doubt;
        if (value.curve().isPresent()) {
            Profile p = value.curve().orElseThrow();
            int worst = worst(p);
            if (worst < 0) {
                return null;
            }
            v = p.value()[worst];
            double[] up = p.upwards();
            double[] down = p.uncertainty();
            half = up.length == 0 ? 0 : finite(Math.max(up[worst], down[worst]));
            doubt = lane.estimate.Uncertainty.ofHalf(lane.estimate.Uncertainty.Source.MEASURED, half);
        } else if (!value.numbers().isEmpty()) {
            var number = value.numbers().getFirst();
            v = number.value();
            doubt = number.uncertainty();
            half = doubt.counted();
        } else {
            return null;
        }
        Unit shown = value.unit();
        double beyond = beyond(v, shown);
        // Inside of the band the distance to the nearer end is what the uncertainty may use up.
        Verdict verdict = !judged ? null : Verdict.of(Math.max(0, beyond), Math.max(0, half + Math.min(0, beyond)), 0);
        String number = Tolerance.plain(rounded(shown.fromSi(v))) + " " + shown.label();
        String sentence = number + (beyond > 0 ? " lies outside of the band " : " lies in the band ")
                + allowance(shown)
                + (half > 0
                        ? ", uncertainty " + Tolerance.three(shown.differenceFromSi(half)) + " "
                                + shown.difference().symbol()
                        : ", no uncertainty stated")
                + ".";
        var settings = new LinkedHashMap<String, String>();
        settings.put("band", allowance(shown));
        settings.put("rule", Verdict.RULE);
        return new CheckResult.Lane(
                "distance out of the band",
                value.curve().isPresent() ? Double.NaN : v,
                Math.max(0, beyond),
                Double.NaN,
                0,
                doubt,
                half,
                shown,
                null,
                verdict,
                sentence,
                value.trail().then("check", METHOD, "within {band}", settings));
    }

    private static double rounded(double v) {
        return Double.isFinite(v)
                ? new java.math.BigDecimal(v)
                        .round(new java.math.MathContext(6))
                        .doubleValue()
                : v;
    }

    private static double finite(double v) {
        return Double.isNaN(v) ? 0 : v;
    }

    /** The point that decides, each with its own uncertainty on the side where the band ends. */
    private int worst(Profile p) {
        double[] beyond = new double[p.size()];
        double[] half = new double[p.size()];
        double[] up = p.upwards();
        double[] down = p.uncertainty();
        for (int i = 0; i < beyond.length; i++) {
            beyond[i] = Double.isNaN(p.value()[i]) ? Double.NaN : beyond(p.value()[i], p.unit());
            half[i] = up.length == 0 ? 0 : Math.max(finite(up[i]), finite(down[i]));
        }
        return Verdict.deciding(beyond, half, 0);
    }

    /** How far a value in SI units is out of the band; negative inside of it. */
    private double beyond(double si, Unit shown) {
        Unit own = Unit.of(unit);
        if (own.known()) {
            shown.requireComparable(own, "The band");
        }
        Unit in = own.known() ? shown.interval() ? own.forInterval() : own : shown;
        double under = least == null ? Double.NEGATIVE_INFINITY : in.toSi(least) - si;
        double over = greatest == null ? Double.NEGATIVE_INFINITY : si - in.toSi(greatest);
        return Math.max(under, over);
    }
}
