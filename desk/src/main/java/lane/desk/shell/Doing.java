package lane.desk.shell;

import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.util.Duration;
import lane.desk.Session;
import lane.desk.Ui;

/** Over what is shown, while that is being computed: what is done and how far it is. What takes no time is not told. */
final class Doing {
    private static final Duration PATIENCE = Duration.millis(150);
    private final Session session;
    private final Label words = Ui.label("", "small");
    private final HBox box = new HBox(words);
    private final PauseTransition wait = new PauseTransition(PATIENCE);

    Doing(Session session) {
        this.session = session;
        box.setId("doing");
        box.getStyleClass().add("tooltip-card");
        box.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
        box.setMouseTransparent(true);
        box.setVisible(false);
        StackPane.setAlignment(box, Pos.TOP_CENTER);
        StackPane.setMargin(box, new javafx.geometry.Insets(52, 0, 0, 0));
        wait.setOnFinished(e -> box.setVisible(session.computing()));
    }

    Node node() {
        return box;
    }

    void refresh() {
        boolean computing = session.computing();
        if (!computing) {
            wait.stop();
            box.setVisible(false);
        } else {
            String what = session.busy().isBlank() ? "" : ": " + session.busy();
            words.setText("Being computed" + what + ", " + Math.round(100 * session.progress()) + " %");
            if (!box.isVisible() && wait.getStatus() != javafx.animation.Animation.Status.RUNNING) {
                wait.playFromStart();
            }
        }
    }
}
