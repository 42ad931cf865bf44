package lane.reading;

import java.util.List;

/** The stored times of the run that a reading is taken on. */
public interface Moments {
    /** Of what has no times. */
    Moments NONE = new Moments() {
        @Override
        public List<Double> times() {
            return List.of();
        }

        @Override
        public Outcome answer(int i, Reading reading) {
            throw new IndexOutOfBoundsException(i);
        }

        @Override
        public Instant instant(int i, Reading reading) {
            throw new IndexOutOfBoundsException(i);
        }
    };

    /** All that are stored, ascending, as the files count them; empty where they know none. */
    List<Double> times();

    /** What the run answers at a time, with its trail; absent where it cannot answer. */
    Outcome answer(int i, Reading reading);

    /** The numbers of that, which may be known from before. */
    Instant instant(int i, Reading reading);
}
