package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.formula.Type;
import lane.history.Series;
import lane.history.Settling;
import lane.provenance.Method;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Whether a history has settled in its last part, and its mean there, which is the answer.
 *
 * @param of what gives the history
 * @param window share of the whole at its end; 0 for the last fifth
 * @param tolerance share of the scale that drift and scatter may be; 0 for a thousandth
 * @param scale that the tolerance is a share of, in {@code scaleUnit}; null for the magnitude of the mean, or of a temperature for
 *     its range over the whole history, since a share of it would depend on where its scale begins
 * @param batches 0 for a number that suits the memory of the values
 */
public record SettlingOf(
        Ask of, double window, double tolerance, @Nullable Double scale, String scaleUnit, int batches)
        implements OfCurve {
    private static final Method SETTLING = new Method("mean over the last part, its error by batch means", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "settling";
        }

        @Override
        public Class<SettlingOf> type() {
            return SettlingOf.class;
        }
    }

    /** Its numbers by the words that stand behind its name in formulas, in this order. */
    private static final List<String> WORDS =
            List.of("mean", "drift", "scatter", "standard error", "batches", "effective samples", "settled", "from");

    public SettlingOf {
        window = window == 0 ? Settling.WINDOW : window;
        tolerance = tolerance == 0 ? Settling.TOLERANCE : tolerance;
        scaleUnit = scaleUnit == null ? "" : scaleUnit;
        Unit.of(scaleUnit);
        if (of != null && of.form() != Form.CURVE) {
            throw new LaneException("Whether something has settled is asked of a curve, such as a history.");
        }
        if (!(window > 0 && window <= 1)) {
            throw new LaneException("A window is a share above 0 and at most 1, such as 0.2; it is " + window + ".");
        }
        if (!(tolerance > 0)) {
            throw new LaneException("A tolerance is a share above 0, such as 0.001; it is " + tolerance + ".");
        }
        if (batches < 0 || batches == 1) {
            throw new LaneException("A mean is judged by two batches or more; give 0 for a number that suits.");
        }
    }

    @Override
    public SettlingOf of(Ask other) {
        return new SettlingOf(other, window, tolerance, scale, scaleUnit, batches);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        WORDS.forEach(w -> out.add(name + " " + w));
        return out;
    }

    /** What is judged, and where its window lies: for whoever draws it. */
    public Settling judged(Profile p) {
        double size = Double.NaN;
        String word = "the mean";
        if (scale == null && Type.of(1, p.unit()).points() == 1) {
            size = p.range();
            word = "its range";
        }
        if (scale != null) {
            word = "the scale";
            Unit unit = scaleUnit.isBlank() ? p.unit().si() : Unit.of(scaleUnit);
            unit.requireComparable(p.unit(), "The scale");
            size = unit.difference().toSi(scale);
        }
        return Settling.of(Series.of(p.abscissa(), p.value()), window, tolerance, size, word, batches);
    }

    @Override
    public Outcome of(Reading reading, Profile p) {
        Settling s = judged(p);
        Unit shown = Outcome.shown(reading.unit(), p.unit(), "Reading \"" + reading.name() + "\"");
        Unit differ = shown.forInterval();
        Uncertainty doubt = Uncertainty.ofStandard(Uncertainty.Source.SAMPLING, s.standardError(), s.batches() - 1.0);
        String taken = s.samples() + " values from "
                + HistoryOf.number(p.abscissaUnit().fromSi(s.from())) + " to "
                + HistoryOf.number(p.abscissaUnit().fromSi(s.to())) + " "
                + p.abscissaUnit().symbol();
        List<Scalar> all = List.of(
                new Scalar("mean", new Estimate(s.mean(), shown, doubt), s.why()),
                new Scalar("drift", new Estimate(s.drift(), differ), "slope times window"),
                new Scalar("scatter", new Estimate(s.scatter(), differ), "standard deviation about the straight line"),
                new Scalar("standard error", new Estimate(s.standardError(), differ), "of the mean, by batch means"),
                new Scalar("batches", new Estimate(s.batches(), Unit.ONE), batches > 0 ? "as stated" : "as suits"),
                new Scalar("effective samples", new Estimate(s.effectiveSamples(), Unit.ONE), "of " + s.samples()),
                new Scalar("settled", new Estimate(s.settled() ? 1 : 0, Unit.ONE), s.settled() ? "yes" : "no"),
                new Scalar("from", new Estimate(s.from(), p.abscissaUnit()), "where the window begins"));
        return new Several(
                all,
                0,
                List.of(),
                (s.settled() ? "settled: " : "not settled: ") + s.why() + " " + taken + "; " + p.note(),
                p.coverage(),
                p.trail()
                        .then(
                                "reading",
                                SETTLING,
                                "mean of {taken}",
                                Map.of("taken", taken, "definition", this, "unit", shown.label())));
    }
}
