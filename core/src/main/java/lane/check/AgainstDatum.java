package lane.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A reading against a datum: numbers by their difference, curves by one or several measures of theirs.
 *
 * @param norm how a profile's difference becomes one number; a number needs none
 * @param scale what a relative tolerance refers to
 * @param tolerance a share of the scale, in the reading's unit if the scale is {@link Scale#ABSOLUTE}, a coverage factor if it is
 *     {@link Scale#UNCERTAINTY}
 * @param datum key of the lane compared with; blank takes the study's
 * @param also further measures; the worst one decides
 * @param how curves meet; null as is usual
 * @param other key of another reading whose answer it is compared with: that of the datum, or, where {@code datum} is blank, that of
 *     the same lane; blank compares the reading with itself
 */
public record AgainstDatum(
        Norm norm,
        Scale scale,
        double tolerance,
        String datum,
        List<Demand> also,
        @Nullable Meeting how,
        String other) implements Rule {
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
        also = also == null ? List.of() : List.copyOf(also);
        other = other == null ? "" : other;
        Tolerance.require(tolerance);
    }

    public AgainstDatum(Norm norm, Scale scale, double tolerance, String datum) {
        this(norm, scale, tolerance, datum, List.of(), null, "");
    }

    private Demand first() {
        return new Demand(norm, scale, tolerance);
    }

    private Meeting meeting() {
        return how == null ? Meeting.USUAL : how;
    }

    /** Whether it compares two readings of one lane. */
    public boolean withinLane() {
        return !other.isBlank() && datum.isBlank();
    }

    @Override
    public boolean comparesWithDatum() {
        return !withinLane();
    }

    @Override
    public List<String> readings() {
        return other.isBlank() ? List.of() : List.of(other);
    }

    @Override
    public String measure() {
        var all = new StringBuilder(norm.symbol());
        also.forEach(d -> all.append(", ").append(d.norm().symbol()));
        return all.toString();
    }

    @Override
    public String allowance(Unit unit) {
        return first().allowance(unit);
    }

    @Override
    public CheckResult judge(Crossing on) {
        String key = withinLane() ? "" : datum.isBlank() ? on.datum() : datum;
        Crossing.Other its = on.others().get(other);
        String from = its == null ? "" : "difference from \"" + its.name() + "\"";
        return CheckEvaluator.byLane(
                on,
                other.isBlank() ? key : "",
                (lane, value, judged) -> compare(
                        value,
                        against(on, lane, key),
                        judged,
                        from,
                        its == null ? "datum " + key : "reading " + its.name(),
                        on.doubts()),
                (lane, value) -> missing(value, against(on, lane, key), key));
    }

    private @Nullable Outcome against(Crossing on, String lane, String key) {
        if (other.isBlank()) {
            return on.outcomes().get(key);
        }
        Crossing.Other its = on.others().get(other);
        return its == null ? null : its.outcomes().get(withinLane() ? lane : key);
    }

    private String missing(Outcome value, @Nullable Outcome against, String key) {
        if (value instanceof Outcome.Absent a) {
            return a.reason();
        }
        if (against instanceof Outcome.Absent a) {
            return (other.isBlank() ? "The datum has no value: " : "There is nothing to compare with: ") + a.reason();
        }
        if (!other.isBlank()) {
            return "The reading \"" + other + "\" that it is compared with is not in the study; choose another.";
        }
        return key.isBlank()
                ? "There is no datum to compare with; choose one at its chip or in the check."
                : "The datum \"" + key + "\" has no value for this reading.";
    }

    private CheckResult.@Nullable Lane compare(
            Outcome value, @Nullable Outcome against, boolean judged, String from, String as, Doubts doubts) {
        if (against == null) {
            return null;
        }
        Provenance trail = value.trail().beside(as, against.trail());
        if (value.curve().isPresent() && against.curve().isPresent()) {
            Difference curve =
                    Difference.of(value.curve().orElseThrow(), against.curve().orElseThrow(), meeting());
            var made = new CurveVerdict(first(), curve, value.unit(), doubts.coverage());
            List<CheckResult.Measured> more = new ArrayList<>();
            Verdict worst = made.verdict();
            for (Demand d : also) {
                var one = new CurveVerdict(d, curve, value.unit(), doubts.coverage());
                worst = CheckEvaluator.worse(worst, one.verdict());
                more.add(new CheckResult.Measured(
                        d.norm(),
                        one.difference(),
                        one.scale(),
                        d.allowance(value.unit()),
                        judged ? one.verdict() : null,
                        one.sentence()));
            }
            String sentence = made.sentence();
            for (CheckResult.Measured m : more) {
                sentence += " " + m.sentence();
            }
            LinkedHashMap<String, String> all = settings(curve);
            if (made.scale() > 0 && !norm.share()) {
                all.put(
                        "relative",
                        norm.symbol() + " " + Tolerance.three(100 * made.difference() / made.scale()) + " %");
            }
            return new CheckResult.Lane(
                            norm.symbol() + (from.isEmpty() ? " of difference" : " of " + from),
                            Double.NaN,
                            made.difference(),
                            made.scale(),
                            made.allowed(),
                            made.doubt(),
                            made.doubt().counted(),
                            norm.share() ? Unit.ONE : value.unit(),
                            curve,
                            judged ? worst : null,
                            sentence,
                            checked(trail, all))
                    .with(new CheckResult.Evidence(more, null, Budget.EMPTY), "");
        }
        if (value.numbers().isEmpty() || against.numbers().isEmpty()) {
            return null;
        }
        Estimate v = value.numbers().getFirst();
        Estimate d = against.numbers().getFirst();
        v.unit().requireAlike(d.unit(), "The comparison");
        Uncertainty doubt = doubts.covering(v.uncertainty().and(d.uncertainty()));
        return number(v, d, doubt, judged, from.isEmpty() ? "difference" : from, trail);
    }

    private CheckResult.Lane number(
            Estimate v, Estimate d, Uncertainty doubt, boolean judged, String what, Provenance trail) {
        double difference = v.value() - d.value();
        double range = Math.abs(d.value());
        Unit unit = v.unit();
        boolean absolute = scale == Scale.ABSOLUTE;
        boolean covered = scale == Scale.UNCERTAINTY;
        double half = doubt.counted();
        boolean meaningless = covered ? !doubt.known() : !absolute && range == 0;
        double allowed = meaningless
                ? Double.NaN
                : absolute ? tolerance * unit.factor() : covered ? tolerance * doubt.combined() : tolerance * range;
        Verdict verdict =
                !judged ? null : meaningless ? Verdict.NO_DATA : Verdict.of(difference, covered ? 0 : half, allowed);
        String sentence = meaningless
                ? covered
                        ? NOTHING_KNOWN
                        : "The tolerance is a share of the datum's value, which is zero here, so it has no meaning; give an"
                                + " absolute tolerance."
                : covered
                        ? CurveVerdict.validation(difference, doubt.combined(), tolerance, unit)
                        : Tolerance.sentence(
                                        "Difference",
                                        difference,
                                        doubt,
                                        allowed,
                                        absolute ? 1 / unit.factor() : 100 / range,
                                        absolute ? unit.difference().symbol() : "%")
                                + Tolerance.fromZero(unit, !absolute);
        LinkedHashMap<String, String> all = settings(null);
        if (range > 0) {
            all.put("relative", Tolerance.three(100 * difference / range) + " %");
        }
        return new CheckResult.Lane(
                what,
                v.value(),
                difference,
                range,
                allowed,
                doubt,
                half,
                unit,
                null,
                verdict,
                sentence,
                checked(trail, all));
    }

    /** Said where a tolerance is a multiple of what nobody knows. */
    static final String NOTHING_KNOWN =
            "The tolerance is a multiple of the uncertainty, and none is known; state one, or give another tolerance.";

    private static Provenance checked(Provenance trail, LinkedHashMap<String, String> all) {
        return trail.then(
                "check", METHOD, all.containsKey("relative") ? "against datum: {relative}" : "against datum", all);
    }

    private LinkedHashMap<String, String> settings(@Nullable Difference curve) {
        var settings = new LinkedHashMap<String, String>();
        settings.put("norm", curve == null ? "difference" : norm.symbol() + ", " + norm.word());
        settings.put("relative to", scale.word());
        settings.put("tolerance", String.valueOf(tolerance));
        also.forEach(d -> settings.put("also " + d.norm().symbol(), d.scale().word() + ", tolerance " + d.tolerance()));
        if (!other.isBlank()) {
            settings.put("compared with", other + (withinLane() ? " of the same lane" : ""));
        }
        if (curve != null) {
            settings.put("points", curve.method());
            settings.put("overlap", curve.overlapFrom() + " to " + curve.overlapTo());
        }
        settings.put("rule", Verdict.RULE);
        return settings;
    }

    /** The same with another tolerance. */
    public AgainstDatum tolerating(double allowed) {
        return new AgainstDatum(norm, scale, allowed, datum, also, how, other);
    }

    public AgainstDatum by(Norm measure) {
        return new AgainstDatum(measure, scale, tolerance, datum, also, how, other);
    }

    public AgainstDatum relativeTo(Scale to) {
        return new AgainstDatum(norm, to, tolerance, datum, also, how, other);
    }

    public AgainstDatum from(String lane) {
        return new AgainstDatum(norm, scale, tolerance, lane, also, how, other);
    }

    public AgainstDatum also(List<Demand> others) {
        return new AgainstDatum(norm, scale, tolerance, datum, others, how, other);
    }

    /** @param meeting null as is usual */
    public AgainstDatum meeting(@Nullable Meeting meeting) {
        return new AgainstDatum(norm, scale, tolerance, datum, also, meeting, other);
    }

    public AgainstDatum with(String otherReading) {
        return new AgainstDatum(norm, scale, tolerance, datum, also, how, otherReading);
    }
}
