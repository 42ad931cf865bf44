package lane.reading;

import java.util.List;
import java.util.Optional;
import lane.base.Fault;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * What a lane answers to a reading, or the reason why it cannot. Ledger, checks, charts and formulas take from it what every
 * answer offers: named numbers and curves.
 */
public interface Outcome {
    Provenance trail();

    /** The unit that it is shown in; unknown where there is no answer. */
    Unit unit();

    /** Every number of it, in the order of the ledger. */
    List<Scalar> scalars();

    /** The same answer shown in another unit, which compares with its own. */
    default Outcome in(Unit other) {
        return this;
    }

    /** The same answer shown as that of another lane, whose unit compares with its own. */
    default Outcome as(Outcome other) {
        return in(other.unit());
    }

    /** The numbers that formulas and checks take, in the order of {@link Ask#numbers}; the first is the answer itself. */
    default List<Estimate> numbers() {
        return List.of();
    }

    /** The curve, for what is one. */
    default Optional<Profile> curve() {
        return Optional.empty();
    }

    /** What differences of the first number refer to in SI units, where the answer has a scale of its own; NaN for none. */
    default double scale() {
        return Double.NaN;
    }

    /** What that scale is, in words. */
    default String scaledBy() {
        return "its scale";
    }

    /**
     * No answer.
     *
     * @param brief two or three words for a chip, such as {@code no temperature}
     * @param reason one sentence
     */
    record Absent(String brief, String reason) implements Outcome {
        public Absent(Fault fault, String reason) {
            this(fault.brief(), reason);
        }

        public Absent(LaneException e) {
            this(e.fault(), e.getMessage());
        }

        @Override
        public Provenance trail() {
            return Provenance.EMPTY;
        }

        @Override
        public Unit unit() {
            return Unit.UNKNOWN;
        }

        @Override
        public List<Scalar> scalars() {
            return List.of();
        }
    }

    /** A value at a place. */
    record Located(double value, Point place) {}

    /** The unit a reading is shown in: its own if stated, else the given one. */
    static Unit shown(String stated, Unit natural, String where) {
        Unit unit = Unit.of(stated);
        if (!unit.known()) {
            return natural;
        }
        if (natural.known()) {
            natural.requireComparable(unit, where);
        }
        // A difference of temperatures has no point on the scale that it is shown in.
        return natural.interval() ? unit.forInterval() : unit;
    }
}
