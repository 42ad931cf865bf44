package lane.reading;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.CurveAxis;
import lane.station.Station;

/**
 * What a reading asks. Each kind is one class: what it needs, how a run answers it, and by which names formulas know its
 * numbers. Its answer offers named numbers and curves, on which ledger, checks, charts and references work; they know no
 * kind. The kinds there are stand in the services file of {@link AskKind}.
 */
public interface Ask {
    /** What the answer is made of. */
    enum Form {
        /** One number an abscissa. */
        CURVE,
        /** One number. */
        NUMBER,
        /** Several numbers that only a run can give. */
        TERMS
    }

    Form form();

    /** Keys of the stations it looks at. */
    List<String> stations();

    /** Keys of the quantities it needs. */
    Set<String> quantities();

    /**
     * Names by which formulas know its numbers, in the order of {@link Outcome#scalars}; none for a curve.
     *
     * @param name of the reading
     */
    default List<String> numbers(String name) {
        return form() == Form.CURVE ? List.of() : List.of(name);
    }

    /** Key of the quantity that its curve shows itself, as along a line or in a mean over sections; empty for others. */
    default Optional<String> shows() {
        return Optional.empty();
    }

    /** What asks for the curve that this is a number of; empty for what is no number of a curve. */
    default Optional<Ask> curve() {
        return Optional.empty();
    }

    /** The number of such a curve, whoever gives it. */
    default Outcome of(Reading reading, Profile curve) {
        throw new lane.base.LaneException("Reading \"" + reading.name() + "\" is no number of a curve.");
    }

    /** Keys of other readings whose answers it takes. */
    default List<String> readings() {
        return List.of();
    }

    /** Keys of other lanes that it looks at. */
    default List<String> lanes() {
        return List.of();
    }

    /**
     * A field that differs from that of another run.
     *
     * @param quantity key
     * @param datum key of the other run's lane
     */
    record Apart(String quantity, String datum) {}

    /** The field whose differences its numbers measure, so that they can be shown where they are; empty for others. */
    default Optional<Apart> apart() {
        return Optional.empty();
    }

    /** Whether its numbers are the terms of a balance and what is left of them. */
    default boolean balances() {
        return false;
    }

    /**
     * Whether what it asks of the pieces of a run makes up what it is of the run, each number being put together by
     * {@link lane.field.Gather}. What looks at neighbours, or at what hangs together, does not.
     */
    default boolean inPieces() {
        return false;
    }

    /** Whether it rests on all stored times of a run, and not on the one that is looked at. */
    default boolean overTime() {
        return false;
    }

    /**
     * What is asked at single times.
     *
     * @param reading that is asked at each
     * @param times places among the stored ones
     */
    record AtTimes(Reading reading, int[] times) {
        @Override
        public boolean equals(Object other) {
            return other instanceof AtTimes a && reading.equals(a.reading) && Arrays.equals(times, a.times);
        }

        @Override
        public int hashCode() {
            return 31 * reading.hashCode() + Arrays.hashCode(times);
        }
    }

    /**
     * What it asks at which of the stored times, where it rests on them; empty for others.
     *
     * @throws lane.base.LaneException where none of the times counts
     */
    default Optional<AtTimes> atTimes(Reading reading, List<Double> stored) {
        return Optional.empty();
    }

    /** What its curve is drawn against where it goes over time, and no station says it. */
    default Optional<CurveAxis> clock() {
        return Optional.empty();
    }

    /** What its curve is drawn against. */
    default CurveAxis drawn(Station on) {
        return CurveAxis.of(on);
    }

    /**
     * The places of its curve, where these are known without a run: there a theory answers.
     *
     * @throws lane.base.LaneException for a cut curve, which only a run knows
     */
    default CurveAxis.Samples samples(Station on, Axis axis) {
        return CurveAxis.samples(on, axis);
    }

    /**
     * A direction in space that an answer points in: that of a vector, or for a number along a direction the one it acts in,
     * which is the other way where the number is negative. Empty for what has none.
     */
    default Optional<Point> arrow(Outcome made) {
        return Optional.empty();
    }

    /** The same with the other sign, where its sign is that of a direction; empty for others. */
    default Optional<Ask> flipped() {
        return Optional.empty();
    }

    /** Key of the frame that its own directions and its answer are in; blank for space. */
    default String frame() {
        return "";
    }

    /** The same with its frame as it stands in space. */
    default Ask placed(Axis frame) {
        return this;
    }

    /**
     * Answers on one run.
     *
     * @throws lane.base.LaneException with one sentence when the run cannot answer
     */
    Outcome read(Reading reading, ReadingContext on);
}
