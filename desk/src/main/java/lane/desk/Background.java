package lane.desk;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import javafx.application.Platform;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.io.FaultLog;
import org.jspecify.annotations.Nullable;

/**
 * What one view shows that takes long to make: made behind the window, what was asked for last first, and kept while it is
 * asked for. Each view has its own, so that a picture never waits for the numbers of a sheet, nor for those of a window that
 * is closed. Used on the interface thread only.
 */
public final class Background {
    /** Something made, or why it could not be. */
    public record Made(@Nullable Object thing, String trouble) {}

    /** Makes a thing. It asks between blocks whether it is still wanted. */
    @FunctionalInterface
    public interface Make {
        Object make(Work work);
    }

    /** A thing that is wanted: it waits, is being made, or was given up. */
    private static final class Job implements Work {
        private final Object key;
        private final Make make;
        private volatile boolean cancelled;

        Job(Object key, Make make) {
            this.key = key;
            this.make = make;
        }

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public void progress(String what, double fraction) {}
    }

    private final String name;
    private final Runnable done;
    private final Executor window;
    /** Notes a fault of the program and says so in a sentence. */
    private final Function<Throwable, String> note;

    private final Map<Object, Made> made = new HashMap<>();
    private final Map<Object, Job> open = new HashMap<>();
    private Set<Object> asked = new HashSet<>();
    private Set<Object> before = Set.of();
    /** Shared with the thread that makes things, under its own lock. */
    private final Deque<Job> waiting = new ArrayDeque<>();

    private boolean running;

    private record Finished(Job job, Made result) {}

    /** What is made and not shown yet, and whether the window is going to look. */
    private final Queue<Finished> finished = new ConcurrentLinkedQueue<>();

    private final AtomicBoolean telling = new AtomicBoolean();

    /**
     * @param name of the thread
     * @param done told on the interface thread whenever something new is there
     */
    public Background(String name, Runnable done) {
        this(name, done, Platform::runLater, e -> FaultLog.note("The work behind the window", e));
    }

    Background(String name, Runnable done, Executor window, Function<Throwable, String> note) {
        this.name = name;
        this.done = done;
        this.window = window;
        this.note = note;
    }

    /** What is kept under the key; null while it is being made. */
    public @Nullable Made of(Object key, Make make) {
        asked.add(key);
        Made found = made.get(key);
        if (found == null && !open.containsKey(key)) {
            var job = new Job(key, make);
            open.put(key, job);
            begin(job);
        }
        return found;
    }

    /** Whether something is being made that is wanted. */
    boolean busy() {
        return !open.isEmpty();
    }

    /** What is kept under the key; null where it is not made, or not yet. */
    @Nullable
    Made kept(Object key) {
        return made.get(key);
    }

    /**
     * Ends a round of asking: what neither this round nor the one before asked for is let go, and what waits or is being
     * made for nobody is given up.
     */
    public void settle() {
        Set<Object> keep = asked;
        made.keySet().removeIf(k -> !keep.contains(k) && !before.contains(k));
        open.values().removeIf(job -> {
            job.cancelled |= !keep.contains(job.key);
            return job.cancelled;
        });
        before = keep;
        asked = new HashSet<>();
    }

    /** Lets one thing go, or gives it up. */
    void forget(Object key) {
        made.remove(key);
        Job job = open.remove(key);
        if (job != null) {
            job.cancelled = true;
        }
    }

    /** Gives everything up. */
    public void stop() {
        open.values().forEach(job -> job.cancelled = true);
        open.clear();
        made.clear();
    }

    private void begin(Job job) {
        synchronized (waiting) {
            waiting.addFirst(job);
            if (!running) {
                running = true;
                Thread.ofPlatform().daemon().name(name).start(this::work);
            }
        }
    }

    private void work() {
        for (Job job = next(); job != null; job = next()) {
            Made result = make(job);
            if (result != null) {
                finished.add(new Finished(job, result));
                if (telling.compareAndSet(false, true)) {
                    window.execute(this::arrived);
                }
            }
        }
    }

    private Job next() {
        synchronized (waiting) {
            waiting.removeIf(job -> job.cancelled);
            running = !waiting.isEmpty();
            return waiting.pollFirst();
        }
    }

    /** @return null for what was given up */
    private @Nullable Made make(Job job) {
        try {
            return new Made(job.make.make(job), "");
        } catch (LaneException e) {
            return new Made(null, e.getMessage());
        } catch (CancellationException e) {
            return job.cancelled ? null : new Made(null, note.apply(e));
        } catch (OutOfMemoryError e) {
            return new Made(null, Session.NO_MEMORY);
        } catch (RuntimeException | Error e) {
            // Whatever it was, the place that waits for it must hear of it.
            return new Made(null, note.apply(e));
        }
    }

    /** Of several that arrive at once it is told once. */
    private void arrived() {
        telling.set(false);
        boolean news = false;
        for (Finished one = finished.poll(); one != null; one = finished.poll()) {
            news |= arrived(one.job, one.result);
        }
        if (news) {
            done.run();
        }
    }

    private boolean arrived(Job job, Made result) {
        // What was given up and asked for again is another job.
        if (open.remove(job.key, job)) {
            made.put(job.key, result);
            return true;
        }
        return false;
    }
}
