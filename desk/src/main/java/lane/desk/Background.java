package lane.desk;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import javafx.application.Platform;
import lane.base.LaneException;

/**
 * What a view shows that takes long to make: made one after the other behind the window, kept while it is asked for.
 * Used on the interface thread only.
 */
public final class Background {
    /** Something made, or why it could not be. */
    public record Made(Object thing, String trouble) {}

    private static final ExecutorService WORKER = Executors.newSingleThreadExecutor(r -> {
        var thread = new Thread(r, "picture background");
        thread.setDaemon(true);
        return thread;
    });

    private final Map<Object, Made> made = new HashMap<>();
    private final Runnable done;

    public Background(Runnable done) {
        this.done = done;
    }

    /** What is kept under the key; null while it is being made. */
    public Made of(Object key, Supplier<Object> make) {
        if (made.containsKey(key)) {
            return made.get(key);
        }
        made.put(key, null);
        WORKER.execute(() -> {
            Made out;
            try {
                out = new Made(make.get(), "");
            } catch (LaneException e) {
                out = new Made(null, e.getMessage());
            }
            Made kept = out;
            Platform.runLater(() -> {
                made.put(key, kept);
                done.run();
            });
        });
        return null;
    }

    /** Forgets all but these. */
    public void keep(Set<Object> keys) {
        made.keySet().removeIf(k -> made.get(k) != null && !keys.contains(k));
    }
}
