package lane.reading;

import java.util.ArrayList;
import java.util.List;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * Signed terms and what is left over, in SI units.
 *
 * @param terms in order, each with its sign applied
 * @param residual their sum
 * @param scale what the residual is compared with: the magnitude of its largest term, of a chosen one, or a stated number
 * @param against that in words
 * @param missing terms that such a balance has and this one has not, in words; blank for none
 * @param closure |sum of area vectors| / sum of areas of everything that bounds the region
 * @param unit as shown
 * @param positive which way is positive, in words
 */
public record Balance(
        List<Term> terms,
        double residual,
        double scale,
        String against,
        double closure,
        Unit unit,
        String positive,
        String missing,
        Provenance trail)
        implements Outcome {
    /** A term: its name, what it is taken over, its signed value in SI units and how well that is known. */
    public record Term(String name, String over, double value, Uncertainty doubt) {
        /** One of which nothing is known but its value. */
        public Term(String name, String over, double value) {
            this(name, over, value, Uncertainty.NONE);
        }
    }

    /** How well the residual is known, the terms being known independently. */
    private Uncertainty doubt() {
        return terms.stream().map(Term::doubt).reduce(Uncertainty.NONE, Uncertainty::and);
    }

    /** One that is compared with its largest term and of which nothing is expected. */
    public Balance(
            List<Term> terms,
            double residual,
            double scale,
            double closure,
            Unit unit,
            String positive,
            Provenance trail) {
        this(terms, residual, scale, BalanceOf.Against.LARGEST.word(), closure, unit, positive, "", trail);
    }

    public Balance {
        terms = List.copyOf(terms);
    }

    @Override
    public Balance in(Unit other) {
        return new Balance(terms, residual, scale, against, closure, other, positive, missing, trail);
    }

    @Override
    public double scale() {
        return scale;
    }

    @Override
    public String scaledBy() {
        return against;
    }

    public double relative() {
        return scale == 0 ? 0 : residual / scale;
    }

    @Override
    public List<Scalar> scalars() {
        List<Scalar> out = new ArrayList<>();
        terms.forEach(t -> out.add(new Scalar("term " + t.name(), new Estimate(t.value(), unit, t.doubt()), positive)));
        out.add(new Scalar(
                "residual",
                new Estimate(residual, unit, doubt()),
                relative(),
                "relative to " + against + "; closure " + closure
                        + (missing.isBlank() ? "" : "; missing: " + missing)));
        return out;
    }

    @Override
    public List<Estimate> numbers() {
        List<Estimate> out = new ArrayList<>(List.of(new Estimate(residual, unit, doubt())));
        terms.forEach(t -> out.add(new Estimate(t.value(), unit, t.doubt())));
        return out;
    }
}
