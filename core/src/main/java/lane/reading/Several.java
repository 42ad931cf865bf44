package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lane.estimate.Estimate;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * An answer of several numbers, each with a word and a remark.
 *
 * @param named in the order that {@link Ask#numbers} names them after the answer
 * @param answer which of them is the answer
 * @param pieces further numbers for the ledger that formulas do not take, such as pressure and viscous parts
 * @param note over what they were taken, for people
 * @param coverage share of what was asked for that lies in the run; NaN where that has no size
 */
public record Several(
        List<Scalar> named, int answer, List<Scalar> pieces, String note, double coverage, Provenance trail)
        implements Outcome {
    public Several {
        named = List.copyOf(named);
        pieces = List.copyOf(pieces);
    }

    @Override
    public Unit unit() {
        return named.get(answer).estimate().unit();
    }

    /** The unit of each of its numbers. */
    public List<Unit> units() {
        return named.stream().map(s -> s.estimate().unit()).toList();
    }

    /** Each of its numbers in the unit of the other's. */
    @Override
    public Several as(Outcome other) {
        return other instanceof Several s
                ? new Several(as(named, s.named), answer, as(pieces, s.pieces), note, coverage, trail)
                : this;
    }

    private static List<Scalar> as(List<Scalar> own, List<Scalar> others) {
        return own.stream()
                .map(s -> others.stream()
                        .filter(o -> o.what().equals(s.what()))
                        .map(o -> o.estimate().unit())
                        .filter(s.estimate().unit()::shownIn)
                        .findFirst()
                        .map(u -> new Scalar(s.what(), s.estimate().in(u), s.relative(), s.remark()))
                        .orElse(s))
                .toList();
    }

    @Override
    public List<Estimate> numbers() {
        List<Estimate> out = new ArrayList<>(List.of(named.get(answer).estimate()));
        named.forEach(s -> out.add(s.estimate()));
        return out;
    }

    @Override
    public List<Scalar> scalars() {
        List<Scalar> out = new ArrayList<>(named);
        out.addAll(pieces);
        Tally.coverage(coverage).ifPresent(out::add);
        return List.copyOf(out);
    }

    /** The number of a word. */
    public Optional<Estimate> of(String what) {
        return named.stream().filter(s -> s.what().equals(what)).findFirst().map(Scalar::estimate);
    }
}
