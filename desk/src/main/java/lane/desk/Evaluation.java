package lane.desk;

import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import javafx.application.Platform;
import lane.base.BoundedMemo;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.FaultLog;
import lane.station.CutCurve;
import lane.station.Region;
import lane.station.Shape;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** Computes the study behind the window; the newest edit wins. All methods are called on the interface thread. */
final class Evaluation {
    /** What is told of it. */
    interface Listener {
        /**
         * Something is being done, or no longer.
         *
         * @param sentence trouble; blank for none
         */
        void busy(String sentence);

        /** New results are there. */
        void results();
    }

    /** Results are known by what they were made of, so they outlive a study: one that is opened again has its numbers. */
    private static final BoundedMemo KNOWN = BoundedMemo.share(0.25);

    private final FileLibrary library;
    private final Evaluator evaluator;
    private final Supplier<Study> study;
    private final Listener listener;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> daemon(r, "evaluate"));
    private volatile @Nullable Job running;
    private Results results;
    private String busy = "";
    private double progress;
    private Set<String> looked = Set.of();
    /** How the tables stood when the study was last computed; null before. */
    private volatile @Nullable Object tables;

    /** @param study as it is now */
    Evaluation(FileLibrary library, Supplier<Study> study, Listener listener) {
        this.library = library;
        this.study = study;
        this.listener = listener;
        evaluator = new Evaluator(library, KNOWN);
        results = Results.none(study.get());
    }

    static Thread daemon(Runnable r, String name) {
        var thread = new Thread(r, name);
        thread.setDaemon(true);
        return thread;
    }

    Results results() {
        return results;
    }

    boolean computing() {
        return running != null;
    }

    /** What is being done, or blank. */
    String busy() {
        return busy;
    }

    double progress() {
        return progress;
    }

    /** How the tables stood when the study was last computed; null before, and while it is being computed. From any thread. */
    @Nullable
    Object computedWith() {
        return running == null ? tables : null;
    }

    /** Stations, by key, that are shown: those that were not laid into the runs yet are, behind the window. */
    void look(Set<String> stations) {
        if (stations.equals(looked)) {
            return;
        }
        looked = Set.copyOf(stations);
        evaluator.look(looked);
        boolean missing = stations.stream()
                .anyMatch(id -> !results.laid().containsKey(id)
                        && study.get()
                                .station(id)
                                .filter(s -> s.shape() instanceof Shape.Surface
                                        || s.shape() instanceof CutCurve
                                        || s.shape() instanceof Region)
                                .isPresent());
        if (missing && !results.runs().isEmpty()) {
            start();
        }
    }

    /** Gives up what is being computed; what is shown stays. @return whether there was anything */
    boolean cancel() {
        Job job = running;
        if (job != null) {
            job.abandoned = true;
            job.cancelled = true;
        }
        return job != null;
    }

    void close() {
        cancel();
        worker.shutdownNow();
    }

    /** Computes the study as it is now. What was being computed is overtaken; what it was loading goes on for this one. */
    void start() {
        if (worker.isShutdown()) {
            // The window was closed; what was still on its way to it asks in vain.
            return;
        }
        Job before = running;
        if (before != null) {
            before.cancelled = true;
        }
        Study now = study.get();
        var job = new Job();
        running = job;
        worker.execute(() -> {
            try {
                Object stood = library.tables(now);
                Results made = evaluator.evaluate(now, job, r -> Platform.runLater(() -> sofar(job, r)));
                tables = stood;
                Platform.runLater(() -> finished(job, made, ""));
            } catch (CancellationException e) {
                Platform.runLater(() -> finished(job, null, ""));
            } catch (OutOfMemoryError e) {
                Platform.runLater(() -> finished(job, null, Session.NO_MEMORY));
            } catch (RuntimeException | LinkageError | AssertionError e) {
                // A fault of ours: the window says so and goes on.
                String sentence = FaultLog.note("Computing the study", e);
                Platform.runLater(() -> finished(job, null, sentence));
            }
        });
    }

    /** What is known before the answers over time are. */
    @SuppressWarnings("ReferenceEquality")
    private void sofar(Job job, Results made) {
        if (job == running && made.study() == study.get()) {
            results = made;
            listener.results();
        }
    }

    // The very document that was computed, not one that equals it.
    @SuppressWarnings("ReferenceEquality")
    private void finished(Job job, @Nullable Results made, String trouble) {
        if (job == running) {
            running = null;
            if (!busy.isEmpty() || !trouble.isEmpty()) {
                busy = "";
                listener.busy(trouble);
            }
        }
        if (made != null && made.study() == study.get()) {
            results = made;
            listener.results();
        }
    }

    /** One evaluation; its progress reaches the window when it takes a while, and then ten times a second. */
    private final class Job implements Work {
        private volatile boolean cancelled;
        private volatile boolean abandoned;
        private volatile long told = System.nanoTime();

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public boolean abandoned() {
            return abandoned;
        }

        @Override
        public void progress(String what, double fraction) {
            long now = System.nanoTime();
            if (now - told > 100_000_000) {
                told = now;
                Platform.runLater(() -> {
                    if (running == this) {
                        busy = what;
                        progress = fraction;
                        listener.busy("");
                    }
                });
            }
        }
    }
}
