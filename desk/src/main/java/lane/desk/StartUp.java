package lane.desk;

import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;
import javafx.stage.Stage;
import javafx.util.Duration;

/**
 * Measuring and rehearsing the start. {@code -Dlane.timing=true} prints when each milestone was reached, counted from
 * {@code -Dlane.begun} (milliseconds, as the launcher says it: the operating system tells a process its start only to
 * the second). {@code -Dlane.exit=true} closes the window by itself once every stop was seen; with
 * {@code -Dlane.unseen=true} the window is transparent meanwhile, as when the start-up cache is made.
 */
final class StartUp {
    private static final boolean TIMING = Boolean.getBoolean("lane.timing");

    private StartUp() {}

    static void tell(String milestone) {
        if (TIMING) {
            long begun = Long.getLong("lane.begun", System.currentTimeMillis());
            System.out.printf("%s after %d ms%n", milestone, System.currentTimeMillis() - begun);
        }
    }

    static void prepare(Stage stage) {
        if (Boolean.getBoolean("lane.unseen")) {
            stage.setOpacity(0);
        }
    }

    static void watch(Session session) {
        boolean exit = Boolean.getBoolean("lane.exit");
        if (!TIMING && !exit) {
            return;
        }
        boolean[] seen = {false};
        session.listen(c -> {
            if (c == Session.Change.RESULTS && !seen[0]) {
                seen[0] = true;
                tell("numbers");
                if (exit) {
                    tour(session);
                }
            }
        });
    }

    private static void tour(Session session) {
        var frames = new Timeline();
        for (int stop = 1; stop <= 6; stop++) {
            int next = stop % 6 + 1;
            frames.getKeyFrames().add(new KeyFrame(Duration.millis(600 * stop), e -> session.go(next)));
        }
        frames.getKeyFrames().add(new KeyFrame(Duration.millis(4200), e -> Platform.exit()));
        frames.play();
    }
}
