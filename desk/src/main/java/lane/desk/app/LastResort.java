package lane.desk.app;

import java.util.function.BiFunction;
import java.util.function.Consumer;

/** What no one caught on any thread: it is noted, the window says so and goes on. */
final class LastResort implements Thread.UncaughtExceptionHandler {
    private final BiFunction<String, Throwable, String> note;
    private final Consumer<String> say;

    /**
     * @param note writes a fault of what was being done where whoever mends it finds it, and gives the sentence
     * @param say tells the sentence
     */
    LastResort(BiFunction<String, Throwable, String> note, Consumer<String> say) {
        this.note = note;
        this.say = say;
    }

    @Override
    public void uncaughtException(Thread thread, Throwable fault) {
        String sentence = note.apply("Work on the thread \"" + thread.getName() + "\"", fault);
        try {
            say.accept(sentence);
        } catch (RuntimeException e) {
            // Telling must not come back here for ever.
            note.apply("Telling of a fault", e);
        }
    }
}
