package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.field.Part;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * A single number.
 *
 * @param pieces parts of the number apart, such as pressure and viscous, in SI units; their sum is the value
 * @param sign which way is positive, in words; empty where a sign has no meaning
 * @param note over what it was taken, for people
 * @param coverage share of the surfaces that were asked for which lies in the run, the least of several; NaN where they
 *     have no size of their own
 */
public record Tally(
        Estimate estimate, Map<String, Double> pieces, String sign, String note, double coverage, Provenance trail)
        implements Outcome {
    /** A number over something whole. */
    public Tally(Estimate estimate, Map<String, Double> pieces, String sign, String note, Provenance trail) {
        this(estimate, pieces, sign, note, Double.NaN, trail);
    }

    /**
     * A number of which no uncertainty is stated.
     *
     * @param value in SI units
     */
    public Tally(double value, Unit unit, Map<String, Double> pieces, String sign, String note, Provenance trail) {
        this(new Estimate(value, unit), pieces, sign, note, trail);
    }

    /** In SI units. */
    public double value() {
        return estimate.value();
    }

    /** Half-width in SI units; NaN when none is stated. */
    public double uncertainty() {
        return estimate.uncertainty().told();
    }

    /** The row that tells how much of a surface lies in the run. */
    public static final String COVERAGE = "coverage";

    @Override
    public Unit unit() {
        return estimate.unit();
    }

    @Override
    public Tally in(Unit other) {
        return new Tally(estimate.in(other), pieces, sign, note, coverage, trail);
    }

    @Override
    public List<Scalar> scalars() {
        List<Scalar> out = new ArrayList<>();
        String remark = Stream.of(sign, note).filter(w -> !w.isBlank()).collect(Collectors.joining("; "));
        out.add(new Scalar("tally", estimate, remark));
        pieces.forEach((piece, v) -> out.add(new Scalar(piece + " part", new Estimate(v, unit()), "")));
        quadrature(estimate).ifPresent(out::add);
        coverage(coverage).ifPresent(out::add);
        return out;
    }

    /** The row that tells how well a number was integrated. */
    public static final String QUADRATURE = "quadrature";

    /** The row of the ledger that tells how well a number was integrated; empty where that is exact but for round-off. */
    static Optional<Scalar> quadrature(Estimate of) {
        Double error = of.uncertainty().standard().get(Uncertainty.Source.QUADRATURE);
        return error == null
                ? Optional.empty()
                : Optional.of(new Scalar(
                        QUADRATURE,
                        new Estimate(Uncertainty.USUAL * error, of.unit().forInterval()),
                        "difference to the next rule of integration, or to half of the samples"));
    }

    /** The row of the ledger that tells how much of a surface lies in the run; empty where it has no size of its own. */
    static Optional<Scalar> coverage(double share) {
        if (Double.isNaN(share)) {
            return Optional.empty();
        }
        String remark = Part.lacking(share)
                ? Part.percent(share) + " of the surface lies in the run; nothing is added for the rest"
                : "all of the surface lies in the run";
        return Optional.of(new Scalar(COVERAGE, new Estimate(share, Unit.ONE), remark));
    }

    @Override
    public List<Estimate> numbers() {
        return List.of(estimate);
    }
}
