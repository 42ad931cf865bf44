package lane.formats;

import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Predicate;
import java.util.function.Supplier;

/** What was loaded, by its key. Thread-safe. */
final class Loaded {
    private final Map<Object, FutureTask<Object>> kept = new ConcurrentHashMap<>();

    /** Loads once: who asks while another thread is loading the same waits for it. A failure is not kept. */
    @SuppressWarnings("unchecked")
    <T> T of(Object key, Supplier<T> load) {
        var task = new FutureTask<Object>(load::get);
        FutureTask<Object> before = kept.putIfAbsent(key, task);
        FutureTask<Object> mine = before == null ? task : before;
        if (before == null) {
            task.run();
        }
        try {
            return (T) mine.get();
        } catch (ExecutionException e) {
            kept.remove(key, mine);
            if (e.getCause() instanceof CancellationException && before != null) {
                // The other one was cancelled, not we.
                return of(key, load);
            }
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    /** Whether it is there, or being loaded. */
    boolean has(Object key) {
        return kept.containsKey(key);
    }

    /** Whether it is there. */
    boolean there(Object key) {
        FutureTask<Object> task = kept.get(key);
        return task != null && task.isDone();
    }

    void remove(Object key) {
        kept.remove(key);
    }

    void removeIf(Predicate<Object> key) {
        kept.keySet().removeIf(key);
    }

    void clear() {
        kept.clear();
    }
}
