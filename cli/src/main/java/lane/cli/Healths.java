package lane.cli;

import java.util.Collection;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import lane.base.Same;
import lane.field.Run;
import lane.field.RunHealth;
import lane.study.Study;

/** Whether runs are sound, looked at beside what takes longer. Thread-safe. */
final class Healths {
    private final Map<Object, FutureTask<RunHealth.Report>> known = new ConcurrentHashMap<>();

    /** Begins to look at them, one after the other, on a thread of their own. */
    void look(Collection<Run> runs, Study study) {
        if (!runs.isEmpty()) {
            Thread.ofPlatform()
                    .daemon()
                    .name("health")
                    .start(() -> runs.forEach(r -> task(r, study).run()));
        }
    }

    private FutureTask<RunHealth.Report> task(Run run, Study study) {
        return known.computeIfAbsent(Same.as(run), k -> new FutureTask<>(() -> RunHealth.of(run, study.axis())));
    }

    /** Of one that is looked at, as soon as that is done; else as it is looked at now. */
    RunHealth.Report of(Run run, Study study) {
        FutureTask<RunHealth.Report> one = task(run, study);
        // By whoever comes first.
        one.run();
        try {
            return one.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        }
    }
}
