package lane.desk;

import java.util.Collection;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import lane.field.Run;
import lane.field.RunHealth;
import lane.mesh.Finding;

/** Looks runs over behind the window, each once, and remembers what was found. Called on the interface thread. */
final class HealthDesk {
    /** One after the other: each uses all cores by itself. */
    private final Background background;

    /** A run by identity. */
    private record Looked(Run run) {}

    private final Map<Run, RunHealth.Sheet> known = new IdentityHashMap<>();

    /** @param done told on the interface thread when something new is known */
    HealthDesk(Runnable done) {
        background = new Background("health", done);
    }

    /** What is known of a run; null while it is being looked over. @param shown the runs to remember */
    RunHealth.Sheet of(Run run, lane.mesh.Axis axis, Collection<Run> shown) {
        RunHealth.Sheet sheet = known.get(run);
        if (sheet != null) {
            return sheet;
        }
        Background.Made made = background.of(new Looked(run), w -> RunHealth.of(run, axis));
        if (made == null) {
            return null;
        }
        sheet = made.thing() instanceof RunHealth.Sheet found ? found : failed(made.trouble());
        known.keySet().retainAll(shown);
        known.put(run, sheet);
        return sheet;
    }

    private static RunHealth.Sheet failed(String trouble) {
        var finding = new Finding(Finding.Severity.ERROR, "could not be looked over: " + trouble, 1, null);
        return new RunHealth.Sheet(null, List.of(finding), List.of(), Map.of());
    }

    void stop() {
        background.stop();
    }
}
