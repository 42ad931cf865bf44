package lane.transfer;

import lane.base.LaneException;

/** What places of the target get that lie outside of the source. */
public sealed interface Outside {
    /** No value. */
    record Absent() implements Outside {}

    /**
     * The value of the nearest place of the source.
     *
     * @param within as far as this, in metres
     */
    record Nearest(double within) implements Outside {
        public Nearest {
            if (!(within > 0)) {
                throw new LaneException("The nearest value is taken within a positive distance; got " + within + ".");
            }
        }
    }

    /** A number, the same for every component. */
    record Value(double value) implements Outside {
        public Value {
            if (!Double.isFinite(value)) {
                throw new LaneException("What lies outside gets a number; got " + value + ".");
            }
        }
    }
}
