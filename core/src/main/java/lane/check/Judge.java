package lane.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lane.base.LaneException;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.unit.Unit;

/** Carries out a check on what the lanes answered. */
public final class Judge {
    private Judge() {}

    /**
     * @param outcomes what each lane answered, in lane order
     * @param studyDatum key of the study's datum
     * @param finest lanes judged when the check names none
     */
    public static CheckResult judge(
            Check check, Map<String, Outcome> outcomes, String studyDatum, List<String> finest) {
        boolean balance = outcomes.values().stream().anyMatch(Balance.class::isInstance);
        String datumId = balance ? "" : check.datum().isBlank() ? studyDatum : check.datum();
        Outcome datum = outcomes.get(datumId);
        List<String> judged = check.judged().isEmpty() ? finest : check.judged();
        var lanes = new LinkedHashMap<String, CheckResult.Lane>();
        String why = "";
        Verdict worst = judged.isEmpty() ? Verdict.NO_DATA : null;
        for (var entry : outcomes.entrySet()) {
            boolean isJudged = judged.contains(entry.getKey());
            try {
                CheckResult.Lane lane =
                        entry.getKey().equals(datumId) ? null : compare(check, entry.getValue(), datum, isJudged);
                if (lane != null) {
                    lanes.put(entry.getKey(), lane);
                }
            } catch (LaneException e) {
                why = isJudged ? e.getMessage() : why;
            }
            if (isJudged) {
                CheckResult.Lane lane = lanes.get(entry.getKey());
                Verdict verdict = lane == null ? Verdict.NO_DATA : lane.verdict();
                if (lane == null && why.isEmpty()) {
                    why = missing(entry.getValue(), datum, datumId);
                }
                worst = worst == null || rank(verdict) > rank(worst) ? verdict : worst;
                why = lane != null && verdict == worst ? sentence(check, lane) : why;
            }
        }
        return new CheckResult(balance ? "" : datumId, lanes, worst == null ? Verdict.NO_DATA : worst, why);
    }

    private static int rank(Verdict v) {
        return switch (v) {
            case WITHIN -> 0;
            case UNDECIDED -> 1;
            case NO_DATA -> 2;
            case OUT -> 3;
        };
    }

    private static String missing(Outcome value, Outcome datum, String datumId) {
        if (value instanceof Outcome.Absent a) {
            return a.reason();
        }
        return datum instanceof Outcome.Absent a
                ? "The datum has no value: " + a.reason()
                : "The datum \"" + datumId + "\" has no value for this reading.";
    }

    /** @return null where there is nothing to compare */
    private static CheckResult.Lane compare(Check check, Outcome value, Outcome datum, boolean judged) {
        return switch (value) {
            case Balance b -> {
                double allowed =
                        check.scale() == Check.Scale.ABSOLUTE ? si(check, b.unit()) : check.tolerance() * b.scale();
                // A residual is judged by its magnitude alone.
                Verdict verdict = judged ? Verdict.of(b.residual(), 0, allowed) : null;
                yield lane(check, b.residual(), b.residual(), b.scale(), 0, b.unit(), null, verdict, b.trail());
            }
            case Tally t
            when datum instanceof Tally d -> {
                t.unit().requireComparable(d.unit(), "The comparison");
                double scale = check.scale() == Check.Scale.ABSOLUTE ? 1 : Math.abs(d.value());
                double u = Math.hypot(zero(t.uncertainty()), zero(d.uncertainty()));
                double allowed =
                        check.scale() == Check.Scale.ABSOLUTE ? si(check, t.unit()) : check.tolerance() * scale;
                Verdict verdict = judged ? Verdict.of(t.value() - d.value(), u, allowed) : null;
                yield lane(
                        check,
                        t.value(),
                        t.value() - d.value(),
                        Math.abs(d.value()),
                        u,
                        t.unit(),
                        null,
                        verdict,
                        t.trail().with(d.trail()));
            }
            case Profile p
            when datum instanceof Profile d -> {
                Difference curve = Difference.of(p, d);
                double norm = curve.norm(check.norm());
                double scale = check.scale() == Check.Scale.ABSOLUTE ? curve.datumRange() : curve.scale(check.scale());
                double u = curve.uncertaintyNorm(check.norm());
                double allowed =
                        check.scale() == Check.Scale.ABSOLUTE ? si(check, p.unit()) : check.tolerance() * scale;
                Verdict verdict = judged ? Verdict.of(norm, u, allowed) : null;
                yield lane(
                        check,
                        Double.NaN,
                        norm,
                        scale,
                        u,
                        p.unit(),
                        curve,
                        verdict,
                        p.trail().with(d.trail()));
            }
            default -> null;
        };
    }

    private static double si(Check check, Unit unit) {
        return check.tolerance() * unit.factor();
    }

    private static double zero(double v) {
        return Double.isNaN(v) ? 0 : v;
    }

    private static CheckResult.Lane lane(
            Check check,
            double value,
            double difference,
            double scale,
            double uncertainty,
            Unit unit,
            Difference curve,
            Verdict verdict,
            lane.trail.Trail trail) {
        double relative = scale > 0 ? difference / scale : Double.NaN;
        var settings = new LinkedHashMap<String, String>();
        settings.put(
                "norm",
                curve == null
                        ? "difference"
                        : check.norm().symbol() + ", " + check.norm().word());
        settings.put("relative to", check.scale().word());
        settings.put("tolerance", String.valueOf(check.tolerance()));
        if (curve != null) {
            settings.put("points", curve.method());
            settings.put("overlap", curve.overlapFrom() + " to " + curve.overlapTo());
        }
        settings.put("rule", "within if d + U <= t, out if d - U > t, else undecided");
        String text = Double.isNaN(relative)
                ? "against datum"
                : "against datum: " + (curve == null ? "" : check.norm().symbol() + " ") + three(100 * relative) + " %";
        return new CheckResult.Lane(
                value, difference, relative, uncertainty, unit, curve, verdict, trail.then("check", text, settings));
    }

    private static String sentence(Check check, CheckResult.Lane lane) {
        boolean absolute = check.scale() == Check.Scale.ABSOLUTE;
        double factor = absolute ? 1 / lane.unit().factor() : lane.relative() / lane.difference() * 100;
        if (!Double.isFinite(factor)) {
            factor = 0;
        }
        String unit = absolute ? lane.unit().difference().symbol() : "%";
        double tolerance = absolute ? check.tolerance() : 100 * check.tolerance();
        double uncertainty = lane.uncertainty() * Math.abs(factor);
        String doubt = uncertainty == 0
                ? "no uncertainty stated"
                : String.format(Locale.ROOT, "uncertainty %.2g %s", uncertainty, unit);
        return "Difference " + three(lane.difference() * factor) + " " + unit + ", " + doubt + ", tolerance "
                + three(tolerance) + " " + unit + ".";
    }

    /** Three digits, with a minus sign that is no hyphen. */
    private static String three(double v) {
        return String.format(Locale.ROOT, "%.3g", v).replace('-', '−');
    }
}
