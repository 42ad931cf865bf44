package lane.desk;

import java.util.TreeMap;
import java.util.function.IntFunction;
import javafx.geometry.HPos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.layout.Pane;

/** One column of {@link Ui#PITCH} a lane. Of very many only those are made that are seen, and some beside them. */
public final class LaneStrip extends Pane {
    /** So many cost no time. */
    private static final int MANY = 60;
    /** Columns beyond the window's edge, to which the keys can go on. */
    private static final int BESIDE = 4;

    private final int lanes;
    private final IntFunction<? extends Node> column;
    private final TreeMap<Integer, Node> made = new TreeMap<>();

    /** @param column makes the column of a lane */
    public LaneStrip(int lanes, IntFunction<? extends Node> column) {
        this.lanes = lanes;
        this.column = column;
        // Until it is known how much is seen, as much as is mostly.
        show(0, (lanes <= MANY ? lanes : 12) * Ui.PITCH);
    }

    /** Makes the columns between two places, and lets go of those far from them. */
    void show(double from, double to) {
        boolean all = lanes <= MANY;
        int first = all ? 0 : Math.max(0, (int) (from / Ui.PITCH) - BESIDE);
        int last = all ? lanes - 1 : Math.min(lanes - 1, (int) (to / Ui.PITCH) + BESIDE);
        if (made.keySet().removeIf(i -> i < first || i > last) || made.size() < last - first + 1) {
            for (int i = first; i <= last; i++) {
                made.computeIfAbsent(i, column::apply);
            }
            getChildren().setAll(made.values());
        }
    }

    @Override
    protected double computePrefWidth(double height) {
        return Ui.PITCH * lanes;
    }

    @Override
    protected double computeMinHeight(double width) {
        return room(
                made.values().stream().mapToDouble(n -> n.minHeight(-1)).max().orElse(0));
    }

    @Override
    protected double computePrefHeight(double width) {
        return room(
                made.values().stream().mapToDouble(n -> n.prefHeight(-1)).max().orElse(0));
    }

    private double room(double content) {
        return content + getInsets().getTop() + getInsets().getBottom();
    }

    @Override
    protected void layoutChildren() {
        double top = getInsets().getTop();
        double height = getHeight() - top - getInsets().getBottom();
        made.forEach((i, n) -> {
            double left = Ui.PITCH * i;
            if (n.isResizable()) {
                layoutInArea(n, left, top, n.prefWidth(-1), height, 0, HPos.LEFT, VPos.CENTER);
            } else {
                n.relocate(left, top);
            }
        });
    }
}
