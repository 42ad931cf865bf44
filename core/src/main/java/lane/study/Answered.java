package lane.study;

import java.util.List;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Scalar;

/**
 * What a lane answered to a reading.
 *
 * @param beside numbers that belong to the answer and are none of it
 * @param time of the run that answered; NaN where it has none
 * @param inputs files that it rests on
 */
public record Answered(Outcome outcome, List<Scalar> beside, double time, List<Provenance.Input> inputs) {
    public Answered {
        beside = List.copyOf(beside);
        inputs = List.copyOf(inputs);
    }

    /** One that is kept nowhere. */
    Answered(Outcome outcome) {
        this(outcome, List.of(), Double.NaN, List.of());
    }
}
