package lane.desk;

import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.io.FaultLog;
import org.jspecify.annotations.Nullable;

/**
 * One long piece of work that a form or view started and waits for, behind the window: how far it is, given up, ended or failed is
 * told in its place. Used on the interface thread only.
 */
public final class LongWork {
    private final String name;
    private final Consumer<String> told;
    private final Consumer<String> failed;
    private final Consumer<Boolean> running;
    private @Nullable Job job;

    /** What is under way. */
    private final class Job implements Work {
        private volatile boolean cancelled;

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public void progress(String what, double fraction) {
            Platform.runLater(() -> {
                if (job == this && !cancelled) {
                    told.accept(what + ", " + Math.round(100 * fraction) + " %");
                }
            });
        }
    }

    /**
     * @param name what is done, for the thread and for the note of a fault
     * @param told given a sentence: how far it is, or why it failed
     * @param running told whether something is under way
     */
    public LongWork(String name, Consumer<String> told, Consumer<Boolean> running) {
        this(name, told, told, running);
    }

    /** @param failed given the sentence on why it failed, where that is told elsewhere */
    public LongWork(String name, Consumer<String> told, Consumer<String> failed, Consumer<Boolean> running) {
        this.name = name;
        this.told = told;
        this.failed = failed;
        this.running = running;
    }

    public boolean running() {
        return job != null;
    }

    /** Gives up what is under way. */
    public void cancel() {
        if (job != null) {
            job.cancelled = true;
        }
    }

    /**
     * Starts; what is under way already goes on and this is not begun.
     *
     * @param then given the result on the interface thread
     */
    public <T> void start(Function<Work, T> make, Consumer<T> then) {
        if (job != null) {
            return;
        }
        var now = new Job();
        job = now;
        running.accept(true);
        Thread.ofPlatform().daemon().name(name).start(() -> {
            try {
                T made = make.apply(now);
                Platform.runLater(() -> ended(now, () -> then.accept(made)));
            } catch (CancellationException e) {
                Platform.runLater(() -> ended(now, () -> told.accept("Given up.")));
            } catch (LaneException e) {
                Platform.runLater(() -> ended(now, () -> failed.accept(e.getMessage())));
            } catch (OutOfMemoryError e) {
                Platform.runLater(() -> ended(now, () -> failed.accept(Session.NO_MEMORY)));
            } catch (RuntimeException | Error e) {
                String sentence = FaultLog.note(name, e);
                Platform.runLater(() -> ended(now, () -> failed.accept(sentence)));
            }
        });
    }

    private void ended(Job of, Runnable then) {
        if (job == of) {
            job = null;
            running.accept(false);
            then.run();
        }
    }
}
