package lane.desk.app;

import java.util.function.Consumer;

/** What no one caught on any thread: it is noted, the window says so and goes on. */
final class LastResort implements Thread.UncaughtExceptionHandler {
    /** Writes a fault of what was being done where whoever mends it finds it, and gives the sentence for the user. */
    interface Note {
        String of(String doing, Throwable fault);
    }

    private final Note note;
    private final Consumer<String> say;

    /** @param say tells the sentence */
    LastResort(Note note, Consumer<String> say) {
        this.note = note;
        this.say = say;
    }

    @Override
    public void uncaughtException(Thread thread, Throwable fault) {
        String sentence = note.of("Work on the thread \"" + thread.getName() + "\"", fault);
        try {
            say.accept(sentence);
        } catch (RuntimeException e) {
            // Telling must not come back here for ever.
            note.of("Telling of a fault", e);
        }
    }
}
