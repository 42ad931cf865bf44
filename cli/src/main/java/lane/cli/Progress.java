package lane.cli;

import java.io.PrintStream;
import java.util.Locale;
import java.util.Optional;
import lane.base.Plain;
import lane.base.Work;

/** How far long work is, in one line of a terminal; silent elsewhere. */
final class Progress implements Work {
    private static final long EVERY = 200_000_000;

    private final PrintStream to;
    private long last = System.nanoTime();
    private boolean shown;

    private Progress(PrintStream to) {
        this.to = to;
    }

    /** @return work that is told on the standard error where that is a terminal */
    static Work on(PrintStream to) {
        // There is none where the streams are redirected.
        return Optional.ofNullable(System.console()).filter(c -> c.isTerminal()).isPresent()
                ? new Progress(to)
                : Work.QUIET;
    }

    @Override
    public boolean cancelled() {
        return false;
    }

    @Override
    public synchronized void progress(String what, double fraction) {
        long now = System.nanoTime();
        if (now - last > EVERY) {
            last = now;
            shown = true;
            to.printf(Locale.ROOT, "\r\u001b[K%3.0f %%  %s", 100 * fraction, Plain.line(what));
            to.flush();
        }
    }

    /** Takes the line away. */
    static void end(Work work) {
        if (work instanceof Progress p && p.shown) {
            p.to.print("\r\u001b[K");
            p.to.flush();
        }
    }
}
