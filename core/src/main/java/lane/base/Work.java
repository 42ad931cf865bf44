package lane.base;

import java.util.concurrent.CancellationException;

/**
 * A piece of long work as seen from inside: it reports how far it is and asks, between blocks, whether it was cancelled.
 * Cancelling never interrupts a thread, because an interrupt closes file channels for everybody.
 */
public interface Work {
    /** Work that nobody watches and nobody cancels. */
    Work QUIET = new Work() {
        @Override
        public boolean cancelled() {
            return false;
        }

        @Override
        public void progress(String what, double fraction) {}
    };

    boolean cancelled();

    /**
     * Whether nobody wants the result any more. Work that is only overtaken by a newer one is cancelled, but what it began
     * may be finished for the next.
     */
    default boolean abandoned() {
        return cancelled();
    }

    /** This work for a stretch of itself, whose own 0 to 1 are {@code from} to {@code to} here. */
    default Work stretch(double from, double to) {
        Work whole = this;
        return new Work() {
            @Override
            public boolean cancelled() {
                return whole.cancelled();
            }

            @Override
            public boolean abandoned() {
                return whole.abandoned();
            }

            @Override
            public void progress(String what, double fraction) {
                whole.progress(what, from + (to - from) * Math.clamp(fraction, 0, 1));
            }
        };
    }

    /** Says what is being done and which share of it is done (0 to 1). */
    void progress(String what, double fraction);

    /** @throws CancellationException when the work was cancelled; called between blocks */
    default void poll() {
        if (cancelled()) {
            throw new CancellationException("cancelled");
        }
    }
}
