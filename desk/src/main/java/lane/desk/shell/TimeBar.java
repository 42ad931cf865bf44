package lane.desk.shell;

import java.util.List;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.util.Duration;
import lane.desk.Session;
import lane.desk.TimeChoice;
import lane.desk.Ui;
import lane.field.TimeSelector;
import org.kordamp.ikonli.feather.Feather;

/** The stored times of runs as a slider, which plays: under pictures and charts, for there is one time for all of them. */
final class TimeBar {
    private static final Duration STEP = Duration.millis(150);

    private final Session session;
    private final HBox pane = Ui.row(10);
    private final Button play;
    private final Slider slider = new Slider();
    private final Label told = Ui.label("", "second");
    private final Timeline playing = new Timeline(new KeyFrame(STEP, e -> next()));
    private List<Double> times = List.of();
    private boolean following;

    TimeBar(Session session) {
        this.session = session;
        playing.setCycleCount(Animation.INDEFINITE);
        play = Ui.iconButton(Feather.PLAY, "Play the stored times", this::toggle);
        play.setId("time-play");
        slider.setId("time-slider");
        slider.setMin(0);
        slider.setBlockIncrement(1);
        slider.setMajorTickUnit(1);
        slider.setMinorTickCount(0);
        slider.setSnapToTicks(true);
        slider.setAccessibleText("Stored time that is looked at");
        slider.valueProperty().addListener((o, was, is) -> {
            if (!following) {
                choose((int) Math.round(is.doubleValue()));
            }
        });
        HBox.setHgrow(slider, Priority.ALWAYS);
        told.setMinWidth(150);
        pane.getChildren().addAll(play, slider, told);
        pane.getStyleClass().add("toolbar");
        pane.setMinHeight(34);
        pane.setMaxHeight(34);
        pane.setId("time-bar");
    }

    Node node() {
        return pane;
    }

    @SuppressWarnings("ReferenceEquality")
    private boolean computed() {
        // An edit makes another study; the same one was computed.
        return session.results().study() == session.study() && !session.computing();
    }

    private void toggle() {
        if (playing.getStatus() == Animation.Status.RUNNING) {
            stop();
        } else {
            if (TimeChoice.at(session, times) == times.size() - 1) {
                choose(0);
            }
            play.setGraphic(Ui.smallIcon(Feather.PAUSE));
            playing.play();
        }
    }

    private void stop() {
        playing.stop();
        play.setGraphic(Ui.smallIcon(Feather.PLAY));
    }

    /** The next time, as soon as the one before has been computed. */
    private void next() {
        if (!computed()) {
            return;
        }
        int at = TimeChoice.at(session, times);
        if (at + 1 >= times.size() || !pane.isVisible()) {
            stop();
        } else {
            choose(at + 1);
        }
    }

    private void choose(int i) {
        if (i >= 0 && i < times.size() && i != TimeChoice.at(session, times)) {
            TimeChoice.choose(session, new TimeSelector.At(times.get(i), 0));
        }
    }

    void refresh() {
        times = TimeChoice.all(session);
        boolean there = times.size() > 1 && (session.stop() == 2 || session.stop() == 4);
        pane.setVisible(there);
        pane.setManaged(there);
        if (!there) {
            return;
        }
        following = true;
        int at = TimeChoice.at(session, times);
        slider.setMax(times.size() - 1.0);
        if (!slider.isValueChanging() || computed()) {
            slider.setValue(at);
        }
        following = false;
        told.setText("t = " + TimeSelector.text(times.get(at)) + ",  " + (at + 1) + " of " + times.size());
    }
}
