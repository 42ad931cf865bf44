package lane.check;

import java.util.LinkedHashMap;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A reading against a datum: numbers by their difference, curves by a norm of theirs.
 *
 * @param norm how a profile's difference becomes one number; a number needs none
 * @param scale what a relative tolerance refers to
 * @param tolerance a share of the scale, or in the reading's unit if the scale is {@link Scale#ABSOLUTE}
 * @param datum key of the lane compared with; blank takes the study's
 */
public record AgainstDatum(Norm norm, Scale scale, double tolerance, String datum) implements Rule {
    private static final Method METHOD = new Method("difference from the datum, norms weighted by length", 2);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "datum";
        }

        @Override
        public Class<AgainstDatum> type() {
            return AgainstDatum.class;
        }
    }

    public AgainstDatum {
        norm = norm == null ? Norm.L2 : norm;
        scale = scale == null ? Scale.RANGE : scale;
        datum = datum == null ? "" : datum;
        Tolerance.require(tolerance);
    }

    private boolean absolute() {
        return scale == Scale.ABSOLUTE;
    }

    @Override
    public boolean comparesWithDatum() {
        return true;
    }

    @Override
    public String measure() {
        return norm.symbol();
    }

    @Override
    public String allowance(Unit unit) {
        return Tolerance.words(tolerance, !absolute(), unit);
    }

    @Override
    public CheckResult judge(Crossing on) {
        String key = datum.isBlank() ? on.datum() : datum;
        Outcome against = on.outcomes().get(key);
        return CheckEvaluator.byLane(
                on,
                key,
                (lane, value, judged) -> compare(value, against, judged),
                value -> missing(value, against, key));
    }

    private static String missing(Outcome value, @Nullable Outcome against, String key) {
        if (value instanceof Outcome.Absent a) {
            return a.reason();
        }
        return against instanceof Outcome.Absent a
                ? "The datum has no value: " + a.reason()
                : key.isBlank()
                        ? "There is no datum to compare with; choose one at its chip or in the check."
                        : "The datum \"" + key + "\" has no value for this reading.";
    }

    private CheckResult.@Nullable Lane compare(Outcome value, @Nullable Outcome against, boolean judged) {
        if (against == null) {
            return null;
        }
        if (value.curve().isPresent() && against.curve().isPresent()) {
            Difference curve =
                    Difference.of(value.curve().orElseThrow(), against.curve().orElseThrow());
            double range = absolute() ? curve.datumRange() : curve.scale(scale);
            double allowed = absolute() ? tolerance * value.unit().factor() : tolerance * range;
            int deciding = norm == Norm.LINF ? curve.deciding(allowed) : -1;
            double half = deciding < 0 ? curve.uncertaintyNorm(norm) : curve.uncertainty()[curve.largest()];
            var doubt = Uncertainty.ofHalf(Uncertainty.Source.MEASURED, half);
            return lane(
                    norm.symbol() + " of difference",
                    Double.NaN,
                    curve.norm(norm),
                    range,
                    doubt,
                    value.unit(),
                    curve,
                    deciding,
                    judged,
                    value.trail().with(against.trail()));
        }
        if (value.numbers().isEmpty() || against.numbers().isEmpty()) {
            return null;
        }
        Estimate v = value.numbers().getFirst();
        Estimate d = against.numbers().getFirst();
        v.unit().requireAlike(d.unit(), "The comparison");
        return lane(
                "difference",
                v.value(),
                v.value() - d.value(),
                Math.abs(d.value()),
                v.uncertainty().and(d.uncertainty()),
                v.unit(),
                null,
                -1,
                judged,
                value.trail().with(against.trail()));
    }

    private CheckResult.Lane lane(
            String what,
            double value,
            double difference,
            double range,
            Uncertainty doubt,
            Unit unit,
            @Nullable Difference curve,
            int deciding,
            boolean judged,
            Provenance trail) {
        double half = doubt.counted();
        boolean meaningless = !absolute() && range == 0;
        double allowed = absolute() ? tolerance * unit.factor() : meaningless ? Double.NaN : tolerance * range;
        boolean elsewhere = curve != null && deciding >= 0 && deciding != curve.largest();
        Verdict verdict = !judged
                ? null
                : meaningless
                        ? Verdict.NO_DATA
                        : elsewhere && curve != null
                                ? Verdict.of(curve.value()[deciding], curve.uncertainty()[deciding], allowed)
                                : Verdict.of(difference, half, allowed);
        double shown = absolute() ? 1 / unit.factor() : 100 / range;
        String symbol = absolute() ? unit.difference().symbol() : "%";
        String sentence = meaningless
                ? "The tolerance is a share " + (curve == null ? "of the datum's value" : scale.word())
                        + ", which is zero here, so it has no meaning; give an absolute tolerance."
                : Tolerance.sentence("Difference", difference, doubt, allowed, shown, symbol)
                        + (elsewhere && curve != null
                                ? " Another place decides: "
                                        + Tolerance.three(Math.abs(curve.value()[deciding]) * shown) + " "
                                        + symbol + " with an uncertainty of "
                                        + Tolerance.three(curve.uncertainty()[deciding] * shown) + " " + symbol
                                        + " there."
                                : "");
        double relative = range > 0 ? difference / range : Double.NaN;
        LinkedHashMap<String, String> all = settings(curve);
        if (!Double.isNaN(relative)) {
            all.put("relative", (curve == null ? "" : norm.symbol() + " ") + Tolerance.three(100 * relative) + " %");
        }
        return new CheckResult.Lane(
                what,
                value,
                difference,
                range,
                allowed,
                doubt,
                half,
                unit,
                curve,
                verdict,
                sentence,
                trail.then(
                        "check",
                        METHOD,
                        all.containsKey("relative") ? "against datum: {relative}" : "against datum",
                        all));
    }

    private LinkedHashMap<String, String> settings(@Nullable Difference curve) {
        var settings = new LinkedHashMap<String, String>();
        settings.put("norm", curve == null ? "difference" : norm.symbol() + ", " + norm.word());
        settings.put("relative to", scale.word());
        settings.put("tolerance", String.valueOf(tolerance));
        if (curve != null) {
            settings.put("points", curve.method());
            settings.put("overlap", curve.overlapFrom() + " to " + curve.overlapTo());
        }
        settings.put("rule", Verdict.RULE);
        return settings;
    }

    /** The same with another tolerance. */
    public AgainstDatum tolerating(double other) {
        return new AgainstDatum(norm, scale, other, datum);
    }
}
