package lane.desk;

import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import javafx.application.Platform;
import lane.base.BoundedMemo;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.FaultLog;
import lane.reading.Outcome;
import lane.reading.Reading;
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

        /**
         * Nothing is being computed any more.
         *
         * @param whole whether the results are all of those of the study as it is now
         */
        void finished(boolean whole);
    }

    /** Results are known by what they were made of, so they outlive a study: one that is opened again has its numbers. */
    private static final BoundedMemo KNOWN = BoundedMemo.share(0.25);

    private final FileLibrary library;
    private final Evaluator evaluator;
    private final Supplier<Study> study;
    private final Listener listener;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> daemon(r, "evaluate"));
    private final FirstLooks looks;
    private volatile @Nullable Job running;
    private Results results;
    /** Whether they are not all yet, which stays so where computing is given up. */
    private boolean part = true;

    private String busy = "";
    private double progress;
    private Set<String> looked = Set.of();
    /** The reading that somebody looks at; blank for none. */
    private volatile String shown = "";
    /** How the tables stood when the study was last computed; null before. */
    private volatile @Nullable Object tables;

    /** @param study as it is now */
    Evaluation(FileLibrary library, Supplier<Study> study, Listener listener) {
        this.library = library;
        this.study = study;
        this.listener = listener;
        evaluator = new Evaluator(library, KNOWN);
        looks = new FirstLooks(library, evaluator);
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

    /** Whether the results are all of those of the study as it is now. */
    // The very document that was computed, not one that equals it.
    @SuppressWarnings("ReferenceEquality")
    boolean whole() {
        return running == null && !part && results.study() == study.get();
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

    /** Begins with what can be seen of a reading before long tables are read, or of the first; before there is a window. */
    void foresee(String reading) {
        shown = reading;
        Study now = study.get();
        unseen(now).ifPresent(r -> looks.foresee(now, r));
    }

    /** The reading that is shown: where it waits for long tables, it is looked up before they are read. */
    // The very document that is being computed, not one that equals it.
    @SuppressWarnings("ReferenceEquality")
    void show(String reading) {
        if (reading.equals(shown)) {
            return;
        }
        shown = reading;
        Job job = running;
        Study now = study.get();
        if (job != null && job.of == now) {
            unseen(now)
                    .filter(r -> job.looked.add(r.id()))
                    .ifPresent(r -> looks.later(() -> lookFirst(now, r, new While(job, r.id()))));
        }
    }

    /** The reading that is looked at, or that is going to be first, where nothing is known of it yet. */
    private Optional<Reading> unseen(Study now) {
        return now.reading(shown).or(() -> now.readings().stream().findFirst()).filter(r -> !results.readings()
                .containsKey(r.id()));
    }

    private void lookFirst(Study now, Reading reading, While wanted) {
        Map<String, Outcome> seen = looks.of(now, reading, wanted);
        if (!seen.isEmpty()) {
            Platform.runLater(() -> seen(wanted.job, now, reading.id(), seen));
        } else if (wanted.cancelled()) {
            // Whoever comes back to it looks again.
            wanted.job.looked.remove(reading.id());
        }
    }

    /** Work for a reading as long as it is the one that is shown. */
    private final class While implements Work {
        private final Job job;
        private final String reading;

        While(Job job, String reading) {
            this.job = job;
            this.reading = reading;
        }

        @Override
        public boolean cancelled() {
            return job.cancelled() || !shown.isBlank() && !shown.equals(reading);
        }

        @Override
        public void progress(String what, double fraction) {
            job.progress(what, fraction);
        }
    }

    // The very document that was computed, not one that equals it.
    @SuppressWarnings("ReferenceEquality")
    private void seen(Job job, Study now, String reading, Map<String, Outcome> seen) {
        if (job == running && now == study.get() && !results.readings().containsKey(reading)) {
            results = results.with(now, reading, seen);
            part = true;
            listener.results();
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
        looks.close();
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
        var job = new Job(now);
        running = job;
        Reading unseen = unseen(now).filter(r -> job.looked.add(r.id())).orElse(null);
        Map<String, Outcome> there =
                unseen == null ? null : looks.ready(now, unseen).orElse(null);
        if (unseen != null && there != null && !there.isEmpty()) {
            // So that the window stands with it.
            seen(job, now, unseen.id(), there);
        }
        worker.execute(() -> {
            try {
                library.begin(now);
                if (unseen != null && there == null) {
                    lookFirst(now, unseen, new While(job, unseen.id()));
                }
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
            part = true;
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
        boolean whole = made != null && made.study() == study.get();
        if (whole) {
            results = Objects.requireNonNull(made);
            part = false;
            listener.results();
        }
        if (running == null) {
            listener.finished(whole);
        }
    }

    /** One evaluation; its progress reaches the window when it takes a while, and then ten times a second. */
    private final class Job implements Work {
        private final Study of;
        /** Readings that are looked up before the others. */
        private final Set<String> looked = ConcurrentHashMap.newKeySet();

        private volatile boolean cancelled;
        private volatile boolean abandoned;
        private volatile long told = System.nanoTime();

        Job(Study of) {
            this.of = of;
        }

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
