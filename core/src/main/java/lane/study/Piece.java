package lane.study;

import java.util.List;

/**
 * A part of the work of a study that rests on no other part.
 *
 * @param lane key of the run that is read
 * @param readings keys of those that are answered; they share what is read of the run
 * @param times stored times that are read, ascending; none for the one that the study looks at
 */
public record Piece(String lane, List<String> readings, List<Double> times) {
    public Piece {
        readings = List.copyOf(readings);
        times = List.copyOf(times);
    }

    /** Whether it reads stored times one after the other. */
    public boolean overTime() {
        return !times.isEmpty();
    }
}
