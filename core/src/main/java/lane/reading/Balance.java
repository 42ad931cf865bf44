package lane.reading;

import java.util.ArrayList;
import java.util.List;
import lane.estimate.Estimate;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * Signed terms and what is left over, in SI units.
 *
 * @param terms in order, each with its sign applied
 * @param residual their sum
 * @param scale the largest term's magnitude, which the residual is compared with
 * @param closure |sum of area vectors| / sum of areas of everything that bounds the region
 * @param unit as shown
 * @param positive which way is positive, in words
 */
public record Balance(
        List<Term> terms, double residual, double scale, double closure, Unit unit, String positive, Provenance trail)
        implements Outcome {
    /** A term: its name, what it is taken over, and its signed value in SI units. */
    public record Term(String name, String over, double value) {}

    public Balance {
        terms = List.copyOf(terms);
    }

    @Override
    public double scale() {
        return scale;
    }

    public double relative() {
        return scale == 0 ? 0 : residual / scale;
    }

    @Override
    public List<Scalar> scalars() {
        List<Scalar> out = new ArrayList<>();
        terms.forEach(t -> out.add(new Scalar("term " + t.name(), new Estimate(t.value(), unit), positive)));
        out.add(new Scalar(
                "residual",
                new Estimate(residual, unit),
                relative(),
                "relative to the largest term; closure " + closure));
        return out;
    }

    @Override
    public List<Estimate> numbers() {
        List<Estimate> out = new ArrayList<>(List.of(new Estimate(residual, unit)));
        terms.forEach(t -> out.add(new Estimate(t.value(), unit)));
        return out;
    }
}
