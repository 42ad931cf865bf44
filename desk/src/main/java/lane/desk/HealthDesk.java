package lane.desk;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lane.field.Run;
import lane.field.RunHealth;
import lane.mesh.Finding;
import org.jspecify.annotations.Nullable;

/** Looks runs over behind the window, each once, and remembers what was found. Called on the interface thread. */
final class HealthDesk {
    /** One after the other: each uses all cores by itself. */
    private final Background background;

    /** By what runs hold, so that one that is read again unchanged is not looked over again. */
    private final Map<Object, RunHealth.Report> known = new HashMap<>();

    private record Looked(Object run, lane.mesh.Axis axis) {}

    /** @param done told on the interface thread when something new is known */
    HealthDesk(Runnable done) {
        background = new Background("health", done);
    }

    /**
     * What is known of a run; null while it is being looked over.
     *
     * @param shown the runs to remember
     */
    RunHealth.@Nullable Report of(Run run, lane.mesh.Axis axis, Collection<Run> shown) {
        var key = new Looked(run.key(), axis);
        RunHealth.Report sheet = known.get(key);
        if (sheet != null) {
            return sheet;
        }
        Background.Made made = background.of(key, w -> RunHealth.of(run, axis));
        if (made == null) {
            return null;
        }
        sheet = made.thing() instanceof RunHealth.Report found ? found : failed(made.trouble());
        known.keySet()
                .retainAll(shown.stream().map(r -> new Looked(r.key(), axis)).toList());
        known.put(key, sheet);
        return sheet;
    }

    private static RunHealth.Report failed(String trouble) {
        var finding = new Finding(Finding.Severity.ERROR, "could not be looked over: " + trouble, 1, null);
        return new RunHealth.Report(null, List.of(finding), List.of(), Map.of(), Map.of());
    }

    void stop() {
        background.stop();
    }
}
