package lane.desk;

import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.application.Platform;
import lane.field.Run;
import lane.field.RunHealth;

/** Looks runs over behind the window, each once, and remembers what was found. Called on the interface thread. */
final class HealthDesk {
    /** One after the other: each uses all cores by itself. */
    private static final ExecutorService WORKER = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("health").factory());

    private final Map<Run, RunHealth.Sheet> known = new IdentityHashMap<>();
    private final Set<Run> looking = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Runnable done;

    /** @param done told on the interface thread when something new is known */
    HealthDesk(Runnable done) {
        this.done = done;
    }

    /** What is known of a run; null while it is being looked over. @param shown the runs to remember */
    RunHealth.Sheet of(Run run, lane.mesh.Axis axis, Collection<Run> shown) {
        RunHealth.Sheet sheet = known.get(run);
        if (sheet == null && looking.add(run)) {
            WORKER.execute(() -> {
                RunHealth.Sheet found = RunHealth.of(run, axis);
                Platform.runLater(() -> {
                    known.keySet().retainAll(shown);
                    known.put(run, found);
                    looking.remove(run);
                    done.run();
                });
            });
        }
        return sheet;
    }
}
