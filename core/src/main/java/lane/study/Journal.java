package lane.study;

import java.util.Optional;
import lane.reading.Instant;

/**
 * What was read of a run at single times, kept beyond the program's end, so that whoever is stopped half-way goes on from there.
 * It holds as long as the files that were read for it look the same.
 */
public interface Journal {
    /** Keeps nothing. */
    Journal NONE = new Journal() {
        @Override
        public Optional<Instant> of(double time) {
            return Optional.empty();
        }

        @Override
        public void keep(double time, Instant instant) {}
    };

    Optional<Instant> of(double time);

    void keep(double time, Instant instant);
}
