package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.estimate.Estimate;
import lane.history.Periods;
import lane.history.Series;
import lane.provenance.Method;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The strongest periods of a history, the first of which is the answer, with their amplitudes.
 *
 * @param of what gives the history
 * @param most how many are looked for, 1 to 9; 0 for three
 * @param from and {@code to}: the part that counts, in {@code alongUnit}, SI where that is blank; null for all
 */
public record PeriodsOf(
        Ask of,
        int most,
        String alongUnit,
        @Nullable Double from,
        @Nullable Double to) implements OfCurve {
    private static final Method PERIODS =
            new Method("sinusoids by least squares at the peaks of the spectrum, the strongest first", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "periods";
        }

        @Override
        public Class<PeriodsOf> type() {
            return PeriodsOf.class;
        }
    }

    public PeriodsOf {
        most = most == 0 ? 3 : most;
        alongUnit = alongUnit == null ? "" : alongUnit;
        Unit.of(alongUnit);
        if (of != null && of.form() != Form.CURVE) {
            throw new LaneException("Periods are those of a curve, such as a history.");
        }
        if (most < 1 || most > 9) {
            throw new LaneException("From 1 to 9 periods are looked for; " + most + " are asked for.");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException(
                    "The part of a curve from " + from + " to " + to + " is empty; give the lesser end first.");
        }
    }

    @Override
    public PeriodsOf of(Ask other) {
        return new PeriodsOf(other, most, alongUnit, from, to);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (int k = 1; k <= most; k++) {
            out.add(name + " period " + k);
            out.add(name + " amplitude " + k);
        }
        return out;
    }

    @Override
    public Outcome of(Reading reading, Profile p) {
        Unit along = alongUnit.isBlank() ? p.abscissaUnit().si() : Unit.of(alongUnit);
        along.requireComparable(p.abscissaUnit(), "The part of the curve");
        Series all = Series.of(p.abscissa(), p.value());
        Series part = all.between(
                from == null ? Double.NEGATIVE_INFINITY : along.toSi(from),
                to == null ? Double.POSITIVE_INFINITY : along.toSi(to));
        Periods found = Periods.of(part, most);
        if (found.strongest().isEmpty()) {
            return new Outcome.Absent(
                    Fault.NO_VALUE,
                    "No period stands out from the noise among " + Plain.count(part.size(), "value")
                            + "; take a longer part, or look at the curve.");
        }
        Unit shown = Outcome.shown(reading.unit(), p.abscissaUnit(), "Reading \"" + reading.name() + "\"");
        double reach = part.along()[part.size() - 1] - part.along()[0];
        List<Scalar> out = new ArrayList<>();
        for (int k = 1; k <= most; k++) {
            boolean there = k <= found.strongest().size();
            Periods.Period one = there ? found.strongest().get(k - 1) : null;
            String share = one == null
                    ? "no other period stands out"
                    : HistoryOf.number(100 * one.share()) + " % of the variance about the straight line"
                            + (one.period() > 0.5 * reach
                                    ? "; it fits less than twice into what there is, so it may be a trend: take a later part"
                                    : "");
            out.add(new Scalar("period " + k, new Estimate(one == null ? Double.NaN : one.period(), shown), share));
            out.add(new Scalar(
                    "amplitude " + k,
                    new Estimate(
                            one == null ? Double.NaN : one.amplitude(), p.unit().forInterval()),
                    share));
        }
        String note = "from " + Plain.count(part.size(), "value") + " less their straight line"
                + (found.resampled() ? ", unevenly spaced: looked for on even ones, fitted on their own" : "");
        return new Several(
                out,
                0,
                List.of(),
                note + "; " + p.note(),
                p.coverage(),
                p.trail()
                        .then(
                                "reading",
                                PERIODS,
                                "strongest periods",
                                Map.of("definition", this, "unit", shown.label())));
    }
}
