package lane.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.reading.Ask;
import lane.reading.AskKind;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Scalar;
import lane.reading.Several;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * How a curve of each lane agrees with that of a datum, as numbers that formulas, tallies and checks take by name: the measures of a
 * check.
 *
 * @param reading key of the curve's reading
 * @param datum key of the lane compared with
 * @param norm which measure is the answer
 * @param how curves meet; null as is usual
 */
public record AgreementOf(
        String reading, String datum, Norm norm, @Nullable Meeting how) implements Ask {
    private static final Method METHOD = new Method("measures of the difference of two curves", 1);
    /** By the words that stand behind its name in formulas, in this order. */
    private static final List<String> WORDS =
            List.of("L1", "L2", "Linf", "Linf at", "bias", "correlation", "share inside", "datum's range");

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "agreement";
        }

        @Override
        public Class<AgreementOf> type() {
            return AgreementOf.class;
        }
    }

    public AgreementOf {
        norm = norm == null ? Norm.L2 : norm;
        if (norm.share()) {
            throw new LaneException("The answer of an agreement is L1, L2, LINF or BIAS; the others stand beside it.");
        }
    }

    @Override
    public Form form() {
        return Form.TERMS;
    }

    @Override
    public List<String> stations() {
        return List.of();
    }

    @Override
    public Set<String> quantities() {
        return Set.of();
    }

    @Override
    public List<String> readings() {
        return List.of(reading);
    }

    @Override
    public List<String> lanes() {
        return List.of(datum);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        WORDS.forEach(w -> out.add(name + " " + w));
        return out;
    }

    @Override
    public Outcome read(Reading asked, ReadingContext on) {
        Reading of = on.elsewhere().reading(reading);
        if (of.ask() instanceof AgreementOf || !of.curve()) {
            throw new LaneException(
                    Fault.NO_VALUE, "\"" + of.name() + "\" is no curve, so it has no measures of agreement.");
        }
        if (on.elsewhere().own().equals(datum)) {
            throw new LaneException(Fault.NO_VALUE, "This lane is the datum itself.");
        }
        Profile own = curve(on.elsewhere().answer(on.elsewhere().own(), of), "this lane");
        Profile base = curve(on.elsewhere().answer(datum, of), "the datum");
        Difference d = Difference.of(own, base, Objects.requireNonNullElse(how, Meeting.USUAL));
        Unit shown = Outcome.shown(asked.unit(), own.unit().forInterval(), "Reading \"" + asked.name() + "\"");
        Unit along = own.abscissaUnit();
        String note = "of \"" + of.name() + "\" " + d.method();
        List<Scalar> all = List.of(
                scalar("L1", d, Norm.L1, shown),
                scalar("L2", d, Norm.L2, shown),
                scalar("Linf", d, Norm.LINF, shown),
                new Scalar(
                        "Linf at", new Estimate(d.linfAt(), along), d.signed() >= 0 ? "greater there" : "less there"),
                scalar("bias", d, Norm.BIAS, shown),
                new Scalar("correlation", new Estimate(d.correlation(), Unit.ONE), "Pearson's"),
                new Scalar("share inside", new Estimate(d.inside(), Unit.ONE), "of the datum's own uncertainty"),
                new Scalar("datum's range", new Estimate(d.datumRange(), shown), ""));
        var settings = new LinkedHashMap<String, Object>();
        settings.put("reading", of.name());
        settings.put("points", d.method());
        settings.put("definition", this);
        return new Several(
                all,
                WORDS.indexOf(norm.symbol()),
                List.of(),
                note,
                Double.NaN,
                own.trail()
                        .beside("datum " + datum, base.trail())
                        .then("reading", METHOD, "agreement of {reading}", settings));
    }

    private static Scalar scalar(String what, Difference d, Norm norm, Unit unit) {
        double half = d.uncertaintyNorm(norm);
        return new Scalar(
                what,
                new Estimate(d.norm(norm), unit, Uncertainty.ofHalf(Uncertainty.Source.MEASURED, half)),
                d.datumRange() > 0 ? d.norm(norm) / d.datumRange() : Double.NaN,
                norm.word());
    }

    private static Profile curve(Outcome o, String who) {
        if (o instanceof Outcome.Absent a) {
            throw new LaneException(Fault.NO_VALUE, "There is no curve of " + who + ": " + a.reason());
        }
        return o.curve().orElseThrow(() -> new LaneException(Fault.NO_VALUE, "There is no curve of " + who + "."));
    }
}
