package lane.reading;

import java.util.Locale;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.formula.Type;
import lane.provenance.Method;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * One number of a curve: a value at a place, where it passes a level, its peak, its slope. What a run, a theory along the line or a
 * table gives as a curve is looked at alike, along a line or over time.
 *
 * @param of what gives the curve
 * @param what which number
 * @param at for {@code VALUE}, {@code SAMPLE} and {@code RATE} the abscissa, in {@code alongUnit}; for {@code CROSSING}, {@code CROSSINGS} and {@code SETTLED} a level
 *     or a distance from the last value, in {@code levelUnit}; for {@code WIDTH} the share of the peak, 0 to 1
 * @param count for {@code CROSSING} which one, from 1
 * @param levelUnit and {@code alongUnit}: units of {@code at}, {@code from} and {@code to}; SI where blank
 * @param from and {@code to}: the part of the abscissa that counts; null for all
 */
public record FeatureOf(
        Ask of,
        What what,
        double at,
        int count,
        String levelUnit,
        String alongUnit,
        @Nullable Double from,
        @Nullable Double to)
        implements OfCurve {
    private static final Method FEATURE = new Method("feature of a curve, straight between its samples", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "feature";
        }

        @Override
        public Class<FeatureOf> type() {
            return FeatureOf.class;
        }
    }

    /** Which number of the curve. */
    public enum What {
        VALUE("value at a place"),
        CROSSING("place where it passes a level"),
        CROSSINGS("number of times that it passes a level"),
        PEAK("greatest value"),
        PEAK_PLACE("place of the greatest value"),
        LOW("least value"),
        LOW_PLACE("place of the least value"),
        WIDTH("width at a share of the peak"),
        SLOPE("slope of the straight line through it"),
        CONSTANT("constant of the straight line through it"),
        SETTLED("place from which it stays near its last value"),
        MEAN("mean along it"),
        INTEGRAL("integral along it"),
        RATE("rate of change at a place"),
        SAMPLE("value at a sample, none in between"),
        LAST("last value"),
        LAST_VALID("last value that is one"),
        COUNT("number of samples with a value"),
        MISSING("number of samples without a value");

        private final String word;

        What(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        /** Whether {@code at} is a place along the curve. */
        public boolean atPlace() {
            return this == VALUE || this == SAMPLE || this == RATE;
        }

        /** Whether the answer is counted. */
        public boolean counted() {
            return this == CROSSINGS || this == COUNT || this == MISSING;
        }

        /** Whether {@code at} is a level of the quantity. */
        public boolean level() {
            return this == CROSSING || this == CROSSINGS || this == SETTLED;
        }

        /** Whether the answer is a place along the curve, or a length of it. */
        public boolean place() {
            return this == CROSSING || this == PEAK_PLACE || this == LOW_PLACE || this == WIDTH || this == SETTLED;
        }
    }

    public FeatureOf {
        count = count == 0 ? 1 : count;
        levelUnit = levelUnit == null ? "" : levelUnit;
        alongUnit = alongUnit == null ? "" : alongUnit;
        if (of != null && of.form() != Form.CURVE) {
            throw new LaneException(
                    "A number of a curve is taken of a reading that is one, such as a profile or a history.");
        }
        if (count < 1) {
            throw new LaneException("Crossings are counted from 1; " + count + " is none.");
        }
        if (what == What.WIDTH && !(at > 0 && at < 1)) {
            throw new LaneException(
                    "A width is taken at a share of the peak between 0 and 1, such as 0.5; it is " + at + " here.");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException(
                    "The part of a curve from " + from + " to " + to + " is empty; give the lesser end first.");
        }
    }

    @Override
    public FeatureOf of(Ask other) {
        return new FeatureOf(other, what, at, count, levelUnit, alongUnit, from, to);
    }

    @Override
    public Tally of(Reading reading, Profile p) {
        if (what == What.INTEGRAL && Type.of(1, p.unit()).points() == 1) {
            throw new LaneException(
                    Fault.UNIT,
                    "An integral of a temperature depends on where its scale begins; take that"
                            + " of a difference from a temperature, such as T - 300 \"K\", or the mean.");
        }
        if (what == What.WIDTH && Type.of(1, p.unit()).points() == 1) {
            throw new LaneException(
                    Fault.UNIT,
                    "A share of a temperature depends on where its scale begins; take the width"
                            + " of a difference from a temperature, such as T - 300 \"K\".");
        }
        var features = new Features(p, si(from, p), si(to, p));
        Unit natural = natural(p);
        Unit shown = Outcome.shown(reading.unit(), natural, "Reading \"" + reading.name() + "\"");
        Features.Found found =
                switch (what) {
                    case VALUE -> features.value(along(p).toSi(at));
                    case CROSSING -> features.crossing(level(p), count);
                    case CROSSINGS -> features.crossings(level(p));
                    case PEAK -> features.peak(true).value();
                    case PEAK_PLACE -> features.peak(true).place();
                    case LOW -> features.peak(false).value();
                    case LOW_PLACE -> features.peak(false).place();
                    case WIDTH -> features.width(at);
                    case SLOPE -> features.line(1);
                    case CONSTANT -> features.line(0);
                    case SETTLED -> features.settled(distance(p));
                    case MEAN -> features.mean();
                    case INTEGRAL -> features.integral();
                    case RATE -> features.rate(along(p).toSi(at));
                    case SAMPLE -> features.sample(along(p).toSi(at));
                    case LAST -> features.last(false);
                    case LAST_VALID -> features.last(true);
                    case COUNT -> features.count(true);
                    case MISSING -> features.count(false);
                };
        Uncertainty doubt = found.error() > 0
                ? Uncertainty.ofStandard(Uncertainty.Source.SAMPLING, found.error(), found.freedom())
                : Uncertainty.NONE;
        return new Tally(
                new Estimate(found.number(), shown, doubt),
                Map.of(),
                "",
                what.word() + ", " + found.note() + "; " + p.note(),
                p.trail()
                        .then(
                                "reading",
                                FEATURE,
                                "{what}",
                                Map.of("what", what.word(), "definition", this, "unit", shown.label())));
    }

    private Unit natural(Profile p) {
        Unit along = p.abscissaUnit();
        return switch (what) {
            case SLOPE, RATE -> p.unit().difference().over(along.difference());
            case INTEGRAL -> p.unit().times(along.difference());
            default -> what.counted() ? Unit.ONE : what.place() ? along : p.unit();
        };
    }

    private Unit along(Profile p) {
        Unit unit = alongUnit.isBlank() ? p.abscissaUnit().si() : Unit.of(alongUnit);
        unit.requireComparable(p.abscissaUnit(), "The place on the curve");
        return unit;
    }

    private @Nullable Double si(@Nullable Double end, Profile p) {
        return end == null ? null : (Double) along(p).toSi(end);
    }

    private Unit levelIn(Profile p) {
        Unit unit = levelUnit.isBlank() ? p.unit().si() : Unit.of(levelUnit);
        if (p.unit().known() || unit.known()) {
            unit.requireComparable(p.unit(), "The level");
        }
        return p.unit().interval() ? unit.forInterval() : unit;
    }

    private double level(Profile p) {
        return levelIn(p).toSi(at);
    }

    private double distance(Profile p) {
        double d = levelIn(p).difference().toSi(at);
        if (!(d > 0)) {
            throw new LaneException(String.format(
                    Locale.ROOT,
                    "A curve stays within a distance of its last value; give a positive one, not %s.",
                    at));
        }
        return d;
    }
}
