package lane.check;

import java.util.LinkedHashMap;
import java.util.Objects;
import lane.base.LaneException;
import lane.convergence.Convergence;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The numerical uncertainty of a number or a curve, as the meshes or time steps of its family tell it, is small. Of a curve the largest
 * counts.
 *
 * @param tolerance a share of the finest value's magnitude (of a curve, of its range), or in the reading's unit
 * @param absolute whether it is in the reading's unit
 */
public record Converges(double tolerance, boolean absolute) implements Rule {
    private static final Method METHOD = new Method("grid convergence index", 1);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "convergence";
        }

        @Override
        public Class<Converges> type() {
            return Converges.class;
        }
    }

    public Converges {
        Tolerance.require(tolerance);
    }

    @Override
    public String measure() {
        return "numerical uncertainty";
    }

    @Override
    public String allowance(Unit unit) {
        return Tolerance.words(tolerance, !absolute, unit);
    }

    @Override
    public boolean countsDoubts() {
        return false;
    }

    @Override
    public CheckResult judge(Crossing on) {
        return CheckEvaluator.byLane(
                on,
                "",
                (lane, value, judged) -> lane(on, lane, value, judged),
                (lane, value) -> value instanceof Outcome.Absent a
                        ? a.reason()
                        : "A convergence needs an answer in this lane and in a coarser run of its family, whose cells have another size;"
                                + " runs are of one family where Intake says so.");
    }

    private CheckResult.@Nullable Lane lane(Crossing on, String lane, Outcome value, boolean judged) {
        Refined refined = Refined.of(on, lane, on.doubts());
        if (refined == null) {
            return null;
        }
        Convergence c = refined.convergence();
        Profile curve = value.curve().orElse(null);
        double half = curve == null
                ? c.half()
                : largest(Objects.requireNonNull(refined.curve()).half());
        double scale = curve == null ? Math.abs(c.finest()) : curve.range();
        Unit unit = value.unit();
        boolean meaningless = Double.isNaN(half) || !absolute && scale == 0;
        double allowed = absolute ? tolerance * unit.factor() : meaningless ? Double.NaN : tolerance * scale;
        double shown = absolute ? 1 / unit.factor() : 100 / scale;
        String symbol = absolute ? unit.difference().symbol() : "%";
        Unit own = unit.interval() ? unit : unit.difference();
        String limit = Double.isNaN(c.extrapolated()) || curve != null
                ? ""
                : ", extrapolated " + Tolerance.plain(six(unit.fromSi(c.extrapolated()))) + " " + unit.label();
        String sentence = Double.isNaN(half)
                ? "The meshes have no place in common."
                : meaningless
                        ? "The tolerance is a share of the finest value, which is zero; give an absolute tolerance."
                        : "Numerical uncertainty " + Tolerance.three(half * shown) + " " + symbol + ", tolerance "
                                + Tolerance.three(allowed * shown) + " " + symbol + ": " + refined.words() + limit + "."
                                + Tolerance.fromZero(unit, !absolute && curve == null)
                                + (curve == null || refined.count() < 3
                                        ? ""
                                        : " The changes differ in sign at "
                                                + Tolerance.three(100
                                                        * Objects.requireNonNull(refined.curve())
                                                                .oscillatory())
                                                + " % of the places.")
                                + (c.notes().isEmpty() ? "" : " " + String.join(" ", c.notes()));
        Verdict verdict = !judged ? null : meaningless ? Verdict.NO_DATA : Verdict.of(half, 0, allowed);
        var settings = new LinkedHashMap<String, String>();
        settings.put("meshes", String.join(", ", refined.lanes()));
        settings.put("sizes", java.util.Arrays.toString(refined.sizes()));
        settings.put("tolerance", String.valueOf(tolerance));
        settings.put(
                "relative to", absolute ? "absolute" : curve == null ? "finest value" : "range of the finest curve");
        settings.put("says", refined.words());
        Provenance trail = value.trail();
        for (String id : refined.lanes()) {
            Outcome other = on.outcomes().get(id);
            trail = id.equals(lane) || other == null ? trail : trail.beside("mesh " + id, other.trail());
        }
        return new CheckResult.Lane(
                        "numerical uncertainty",
                        curve == null ? c.finest() : Double.NaN,
                        half,
                        scale,
                        allowed,
                        Uncertainty.NONE,
                        0,
                        curve == null ? unit : own,
                        null,
                        verdict,
                        sentence,
                        trail.then("check", METHOD, "convergence: {says}", settings))
                .with(new CheckResult.Evidence(java.util.List.of(), refined, Budget.EMPTY), "");
    }

    private static double six(double v) {
        return Double.isFinite(v) && v != 0
                ? new java.math.BigDecimal(v)
                        .round(new java.math.MathContext(6))
                        .doubleValue()
                : v;
    }

    private static double largest(double[] half) {
        double most = Double.NaN;
        for (double h : half) {
            most = Double.isNaN(h) || h <= most ? most : h;
        }
        return most;
    }

    /** The same with another tolerance. */
    public Converges tolerating(double other) {
        if (!(other >= 0)) {
            throw new LaneException("A tolerance must be 0 or more; got " + other + ".");
        }
        return new Converges(other, absolute);
    }
}
