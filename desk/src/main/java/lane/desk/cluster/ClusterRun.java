package lane.desk.cluster;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import javafx.application.Platform;
import lane.base.LaneException;
import lane.base.Work;
import lane.desk.Session;
import lane.formats.cluster.Spread;
import lane.formats.io.FaultLog;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/**
 * An evaluation on a cluster that a window waits for: what its pieces answered is shown as it arrives, and what is still to come
 * is not computed here. Used on the interface thread only.
 */
public final class ClusterRun {
    private final Session session;
    private final Runnable changed;
    private @Nullable Job job;
    private String text = "";
    private boolean shown;

    /** @param changed told when there is other news */
    public ClusterRun(Session session, Runnable changed) {
        this.session = session;
        this.changed = changed;
    }

    /** One wait. */
    private static final class Job implements Work {
        private volatile boolean cancelled;
        private volatile @Nullable Spread spread;
        /** Why what is missing is not computed here. */
        private volatile String why = "It is being computed on the cluster.";
        /** Why pieces could not be made, by lane; none as long as they may be. */
        private volatile Map<String, String> lacking = Map.of();

        private int done = -1;

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public void progress(String what, double fraction) {}
    }

    public boolean waiting() {
        return job != null;
    }

    /** Whether what is missing of what is shown is not computed here. */
    public boolean shown() {
        return shown;
    }

    /** How far it is, or how it ended; blank before. */
    public String text() {
        return text;
    }

    /** Gives the study as it stands in its file to the cluster, and waits. */
    public void begin(Spread.Asked asked) {
        start(work -> Spread.plan(asked, work));
    }

    /** Waits for one that was begun before, and goes on with it where it was ended. */
    public void attach(Path out) {
        start(work -> {
            Spread found = Spread.of(out);
            if (found.state().still()) {
                found.restart();
            }
            return found;
        });
    }

    /** Waits no longer; the jobs go on. */
    public void leave() {
        if (job != null) {
            job.cancelled = true;
        }
    }

    /** Ends the jobs; what they made stays. */
    public void end() {
        Job now = job;
        Spread spread = now == null ? null : now.spread;
        if (spread != null) {
            Thread.ofPlatform().daemon().name("end jobs").start(() -> {
                try {
                    spread.stop();
                } catch (LaneException e) {
                    Platform.runLater(() -> tell(e.getMessage()));
                }
            });
        }
    }

    private interface Opening {
        Spread of(Work work);
    }

    private void start(Opening opening) {
        if (job != null) {
            return;
        }
        var now = new Job();
        job = now;
        tell("The plan is being made.");
        Thread.ofPlatform().daemon().name("wait for the cluster").start(() -> {
            try {
                Spread spread = opening.of(now);
                now.spread = spread;
                session.library().keeping(spread.pieces(), lane -> missing(now, lane));
                Spread.State end = spread.await(now, s -> told(now, s));
                Platform.runLater(() -> ended(now, spread, text(end)));
            } catch (CancellationException e) {
                Platform.runLater(() -> ended(now, now.spread, "No longer waited for; the jobs go on."));
            } catch (LaneException e) {
                Platform.runLater(() -> ended(now, now.spread, e.getMessage()));
            } catch (RuntimeException | Error e) {
                String sentence = FaultLog.note("Waiting for the cluster", e);
                Platform.runLater(() -> ended(now, now.spread, sentence));
            }
        });
    }

    private static String text(Spread.State end) {
        return end.done() == end.all()
                ? "All of it is computed: " + end.all() + (end.all() == 1 ? " piece." : " pieces.")
                : end.cancelled() > 0
                        ? "The jobs were ended: " + end.done() + " of " + end.all() + " pieces are done."
                        : end.done() + " of " + end.all() + " pieces are done; the others could not be computed.";
    }

    private static Optional<String> missing(Job of, Source.Simulation lane) {
        String lacking = of.lacking.get(lane.id());
        return Optional.of(lacking == null ? of.why : "It could not be computed on the cluster: " + lacking);
    }

    /** Called by the waiting thread. */
    private void told(Job of, Spread.State now) {
        String words = now.text();
        boolean more = now.done() != of.done;
        of.done = now.done();
        of.why = "It is being computed on the cluster: " + words + ".";
        Spread spread = of.spread;
        if (more && spread != null) {
            spread.pieces().refresh();
        }
        Platform.runLater(() -> {
            if (of == job) {
                tell(words);
                if (more) {
                    session.evaluate();
                }
            }
        });
    }

    private void ended(Job of, @Nullable Spread spread, String words) {
        if (of != job) {
            return;
        }
        job = null;
        if (spread != null) {
            spread.pieces().refresh();
            shown = true;
            // Whatever is missing now nobody makes any more: on this machine only when somebody asks for it.
            of.lacking = spread.lacking();
            of.why = "It was not computed on the cluster. \"Compute here\" does it on this machine.";
            session.evaluate();
        }
        tell(words);
    }

    /** Computes what is missing on this machine, too. */
    public void here() {
        leave();
        shown = false;
        session.library().alone();
        session.evaluate();
        tell("");
    }

    private void tell(String words) {
        text = words;
        changed.run();
    }
}
