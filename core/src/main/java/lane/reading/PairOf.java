package lane.reading;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.measure.Mean;
import lane.mesh.Finding;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * Two stations of the same lane against each other: the first less the second, or over it. As a curve on the samples of the first,
 * or as one number of their means.
 *
 * @param first and {@code second}: keys of stations
 * @param match where on the second a sample of the first is looked up
 */
public record PairOf(String first, String second, String quantity, How how, Match match, As as) implements Ask {
    private static final Method PAIR = new Method("two stations of a lane against each other", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "pair";
        }

        @Override
        public Class<PairOf> type() {
            return PairOf.class;
        }
    }

    /** What is made of two values. */
    public enum How {
        DIFFERENCE("first less second"),
        RATIO("first over second");

        private final String word;

        How(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** How samples of two curves belong together. */
    public enum Match {
        ABSCISSA("at the same abscissa"),
        SHARE("at the same share of the length");

        private final String word;

        Match(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** What the answer is. */
    public enum As {
        CURVE("curve"),
        NUMBER("number of the means");

        private final String word;

        As(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public PairOf {
        how = how == null ? How.DIFFERENCE : how;
        match = match == null ? Match.ABSCISSA : match;
        as = as == null ? As.CURVE : as;
    }

    @Override
    public Form form() {
        return as == As.CURVE ? Form.CURVE : Form.NUMBER;
    }

    @Override
    public List<String> stations() {
        return List.of(first, second);
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Reading plain = reading.in("");
        if (as == As.NUMBER) {
            List<Outcome> both = on.run()
                    .gather()
                    .all(List.of(
                            () -> new TallyOf(List.of(first), new Mean(quantity)).read(plain, on),
                            () -> new TallyOf(List.of(second), new Mean(quantity)).read(plain, on)));
            Outcome a = both.getFirst();
            Outcome b = both.getLast();
            return a instanceof Tally x ? b instanceof Tally y ? number(reading, x, y) : b : a;
        }
        List<Outcome> both = on.run()
                .gather()
                .all(List.of(() -> new ProfileOf(first, quantity).read(plain, on), () -> new ProfileOf(second, quantity)
                        .read(plain, on)));
        Outcome a = both.getFirst();
        Outcome b = both.getLast();
        return a instanceof Profile x ? b instanceof Profile y ? curve(reading, x, y) : b : a;
    }

    private Unit unit(Unit of, Reading reading) {
        // Half of a temperature depends on where its scale begins; of kelvins from zero it does not.
        Unit natural = how == How.DIFFERENCE ? of.forInterval() : Unit.ONE;
        return Outcome.shown(reading.unit(), natural, "Reading \"" + reading.name() + "\"");
    }

    private double of(double a, double b) {
        return how == How.DIFFERENCE ? a - b : a / b;
    }

    private Tally number(Reading reading, Tally a, Tally b) {
        double value = of(a.value(), b.value());
        if (how == How.RATIO && !Double.isFinite(value)) {
            throw new LaneException(
                    Fault.NO_VALUE, "The mean over the second station is zero, so nothing can be divided by it.");
        }
        Unit shown = unit(a.unit(), reading);
        return new Tally(
                new Estimate(value, shown, doubt(a, b)),
                Map.of(),
                sign(),
                how.word() + ": mean " + a.note() + ", and " + b.note(),
                Double.isNaN(a.coverage())
                        ? b.coverage()
                        : Double.isNaN(b.coverage()) ? a.coverage() : Math.min(a.coverage(), b.coverage()),
                trail(a.trail(), b.trail(), shown));
    }

    /** Of the difference or the ratio of numbers that are known independently, to first order. */
    private Uncertainty doubt(Tally a, Tally b) {
        Uncertainty first = a.estimate().uncertainty();
        Uncertainty second = b.estimate().uncertainty();
        return how == How.DIFFERENCE
                ? first.and(second)
                : first.times(1 / b.value()).and(second.times(a.value() / (b.value() * b.value())));
    }

    private String sign() {
        return how == How.DIFFERENCE ? "positive where the first station is greater" : "";
    }

    private Provenance trail(Provenance a, Provenance b, Unit shown) {
        // Both stations and all behind them.
        return a.and(b)
                .then("reading", PAIR, "{how}", Map.of("how", how.word(), "definition", this, "unit", shown.label()));
    }

    private Profile curve(Reading reading, Profile a, Profile b) {
        if (match == Match.ABSCISSA && !a.abscissaUnit().comparable(b.abscissaUnit())) {
            throw new LaneException("The first station is drawn against " + a.abscissaName() + " in "
                    + a.abscissaUnit().label() + ", the second against " + b.abscissaName() + " in "
                    + b.abscissaUnit().label()
                    + "; give both the same abscissa, or match them by the share of their length.");
        }
        double[] at = match == Match.ABSCISSA ? a.abscissa() : shares(a.abscissa());
        double[] there = match == Match.ABSCISSA ? b.abscissa() : shares(b.abscissa());
        double[] value = new double[a.size()];
        int found = 0;
        int beyond = 0;
        for (int i = 0; i < value.length; i++) {
            double other = at(there, b.value(), at[i]);
            value[i] = of(a.value()[i], other);
            if (!Double.isFinite(value[i])) {
                value[i] = Double.NaN;
            }
            found += Double.isNaN(value[i]) ? 0 : 1;
            beyond += Double.isNaN(other) && !Double.isNaN(a.value()[i]) ? 1 : 0;
        }
        if (found == 0) {
            throw new LaneException(
                    Fault.NO_VALUE,
                    "No sample of the first station has a counterpart " + match.word()
                            + " on the second; match them otherwise, or move one.");
        }
        Unit shown = unit(a.unit(), reading);
        String note = how.word() + ", " + match.word() + ", straight between the samples of the second"
                + (beyond > 0
                        ? "; " + beyond + " of " + a.size() + " samples have no counterpart there and are left out"
                        : "");
        return new Profile(
                        a.abscissa(),
                        value,
                        List.of(),
                        a.abscissaName(),
                        a.abscissaUnit(),
                        shown,
                        false,
                        found,
                        note,
                        trail(a.trail(), b.trail(), shown))
                .at(a.places());
    }

    /** Of the way from the first finite abscissa to the last. */
    private static double[] shares(double[] x) {
        double[] finite = Arrays.stream(x).filter(Double::isFinite).toArray();
        double start = finite[0];
        double length = finite[finite.length - 1] - start;
        if (!(Math.abs(length) > 0)) {
            throw new LaneException("A station without a length has no shares of it; match by the abscissa.");
        }
        return Arrays.stream(x).map(v -> (v - start) / length).toArray();
    }

    /** Between the samples on both sides; NaN beyond the ends, at gaps and where values are absent. */
    private static double at(double[] x, double[] y, double at) {
        double found = Double.NaN;
        for (int i = 0; i < x.length; i++) {
            boolean here = Math.abs(x[i] - at) <= 1e-12 * Math.max(Math.abs(at), Math.abs(x[i]));
            double value = here ? y[i] : Double.NaN;
            if (!here && i + 1 < x.length && (x[i] - at) * (x[i + 1] - at) < 0) {
                double t = (at - x[i]) / (x[i + 1] - x[i]);
                value = (1 - t) * y[i] + t * y[i + 1];
            }
            if (Double.isNaN(value)) {
                continue;
            }
            if (!Double.isNaN(found) && Math.abs(value - found) > 1e-9 * Math.max(Math.abs(value), Math.abs(found))) {
                throw new LaneException(
                        Fault.NO_VALUE,
                        "The second station has several values at the abscissa " + Finding.number(at, 6)
                                + "; give it an abscissa that does not turn back.");
            }
            found = value;
        }
        return found;
    }
}
