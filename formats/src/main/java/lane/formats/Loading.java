package lane.formats;

import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import lane.base.Work;
import org.jspecify.annotations.Nullable;

/**
 * A load on a thread of its own that several can wait for. Who is overtaken leaves, and the load goes on for the next; when
 * all who ever waited have given it up, it stops.
 */
final class Loading<T> implements Work {
    private final List<Work> waiting = new CopyOnWriteArrayList<>();
    private final FutureTask<T> task;
    private final String name;

    Loading(String name, Function<Work, T> load) {
        task = new FutureTask<>(() -> load.apply(this));
        this.name = name;
    }

    void start() {
        Thread.ofPlatform().daemon().name("load " + name).start(task);
    }

    /** What was loaded, or null while it is not there. */
    @Nullable
    T now() {
        return task.state() == java.util.concurrent.Future.State.SUCCESS ? task.resultNow() : null;
    }

    /** Whether it will not give a result: it failed, or was given up. */
    boolean lost() {
        return task.isDone() ? now() == null : cancelled();
    }

    /**
     * Waits for the result.
     *
     * @throws CancellationException when the waiting work is cancelled, or everybody gave the load up
     */
    T await(Work work) {
        waiting.add(work);
        while (true) {
            work.poll();
            try {
                T result = task.get(15, TimeUnit.MILLISECONDS);
                waiting.clear();
                return result;
            } catch (TimeoutException e) {
                // Not there yet: whether it is still wanted is asked again.
            } catch (ExecutionException e) {
                switch (e.getCause()) {
                    case RuntimeException r -> throw r;
                    case Error error -> throw error;
                    case null, default -> throw new IllegalStateException(e.getCause());
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new CancellationException("interrupted");
            }
        }
    }

    @Override
    public boolean cancelled() {
        if (waiting.isEmpty()) {
            return false;
        }
        for (Work w : waiting) {
            if (!w.abandoned()) {
                return false;
            }
        }
        return true;
    }

    @Override
    public void progress(String what, double fraction) {
        for (Work w : waiting) {
            if (!w.cancelled()) {
                w.progress(what, fraction);
            }
        }
    }
}
