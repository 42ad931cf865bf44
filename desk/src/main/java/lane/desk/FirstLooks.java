package lane.desk;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.FaultLog;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Evaluator;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** Looks up the reading that somebody waits for before long tables are read whole. */
final class FirstLooks {
    private final FileLibrary library;
    private final Evaluator evaluator;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> Evaluation.daemon(r, "first look"));
    private volatile boolean closed;
    /** What was begun before there was a window. */
    private volatile @Nullable Ahead ahead;

    private record Ahead(Study study, String reading, FutureTask<Map<String, Outcome>> task) {
        // The very document, not one that equals it.
        @SuppressWarnings("ReferenceEquality")
        boolean of(Study now, Reading asked) {
            return study == now && reading.equals(asked.id());
        }
    }

    FirstLooks(FileLibrary library, Evaluator evaluator) {
        this.library = library;
        this.evaluator = evaluator;
    }

    /** Begins with what is going to be shown first, while the window is being made. From any thread. */
    void foresee(Study study, Reading reading) {
        library.begin(study);
        var task = new FutureTask<>(() -> look(study, reading, new Work() {
            @Override
            public boolean cancelled() {
                return closed;
            }

            @Override
            public void progress(String what, double fraction) {}
        }));
        ahead = new Ahead(study, reading.id(), task);
        worker.execute(task);
    }

    /** Does something behind whoever asks. */
    void later(Runnable look) {
        if (!closed) {
            worker.execute(look);
        }
    }

    /** What can be known of a reading before its tables are read; nothing where nobody waits for it any more. */
    Map<String, Outcome> of(Study now, Reading reading, Work work) {
        Ahead begun = ahead;
        ahead = null;
        return begun == null || !begun.of(now, reading) ? look(now, reading, work) : made(begun);
    }

    /** The same where it was begun and is there by now. */
    Optional<Map<String, Outcome>> ready(Study now, Reading reading) {
        Ahead begun = ahead;
        if (begun == null || !begun.of(now, reading) || !begun.task.isDone()) {
            return Optional.empty();
        }
        ahead = null;
        return Optional.of(made(begun));
    }

    private static Map<String, Outcome> made(Ahead begun) {
        try {
            return begun.task.get();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Map.of();
        }
    }

    private Map<String, Outcome> look(Study now, Reading reading, Work work) {
        try {
            return evaluator.firstLook(now, reading, work);
        } catch (CancellationException e) {
            return Map.of();
        } catch (RuntimeException e) {
            // It comes with all the others.
            FaultLog.note("Looking up a reading", e);
            return Map.of();
        }
    }

    void close() {
        closed = true;
        worker.shutdown();
    }
}
