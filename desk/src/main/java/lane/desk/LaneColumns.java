package lane.desk;

import javafx.beans.property.DoubleProperty;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;

/**
 * Columns of lanes behind a window of their own: where there are more lanes than fit, all rows and tables move together
 * with the lane bar, by the wheel or by walking through the chips.
 */
public final class LaneColumns extends Pane {
    private final Region content;
    private final DoubleProperty at;

    /** @param strip columns of lanes */
    public LaneColumns(Session session, LaneStrip strip) {
        this(session, strip, strip);
    }

    /** @param content in which the columns stand, with what goes through behind them */
    public LaneColumns(Session session, Region content, LaneStrip strip) {
        this.content = content;
        at = session.lanesAt();
        getChildren().add(content);
        content.translateXProperty().bind(at.negate());
        widthProperty().addListener((o, was, is) -> strip.show(at.get(), at.get() + getWidth()));
        content.translateXProperty().addListener((o, was, is) -> strip.show(at.get(), at.get() + getWidth()));
        var clip = new Rectangle();
        clip.widthProperty().bind(widthProperty());
        clip.heightProperty().bind(heightProperty());
        setClip(clip);
        setMinWidth(0);
        setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(this, Priority.ALWAYS);
        setOnScroll(e -> {
            double by = e.getDeltaX() != 0 ? e.getDeltaX() : e.isShiftDown() ? e.getDeltaY() : 0;
            if (by != 0) {
                move(session, at.get() - by);
                e.consume();
            }
        });
    }

    /** Moves all columns; the last lane stops where its column is still seen. */
    public static void move(Session session, double to) {
        double most = Ui.PITCH * (session.study().sources().size() - 2);
        session.lanesAt().set(Math.max(0, Math.min(most, to)));
    }

    @Override
    protected double computePrefWidth(double height) {
        return content.prefWidth(height);
    }

    @Override
    protected double computeMinHeight(double width) {
        return content.minHeight(-1);
    }

    @Override
    protected double computePrefHeight(double width) {
        return content.prefHeight(-1);
    }

    @Override
    protected void layoutChildren() {
        content.resizeRelocate(0, 0, content.prefWidth(-1), Math.max(getHeight(), content.prefHeight(-1)));
    }
}
