package lane.desk.checks;

import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import lane.base.Figures;
import lane.check.Refined;
import lane.convergence.Convergence;
import lane.desk.Ui;
import lane.unit.Unit;

/** A value against the size of the meshes, with what it is extrapolated to and the numerical uncertainty of the finest. */
final class SizeChart {
    private static final double WIDE = 216;
    private static final double TALL = 116;
    private static final double EDGE = 8;

    private SizeChart() {}

    /**
     * @param unit that the values are told in
     * @param length that the sizes are told in; unknown for sizes that somebody stated
     */
    static Node of(Refined refined, Unit unit, Unit length) {
        Convergence c = refined.convergence();
        double[] v = refined.values();
        double least = c.finest() - c.half();
        double most = c.finest() + c.half();
        for (double x : v) {
            least = Math.min(least, x);
            most = Math.max(most, x);
        }
        if (!Double.isNaN(c.extrapolated())) {
            least = Math.min(least, c.extrapolated());
            most = Math.max(most, c.extrapolated());
        }
        double from = least;
        double span = most > least ? most - least : 1;
        double widest = refined.sizes()[refined.sizes().length - 1] * 1.06;
        var pane = new Pane();
        pane.setMinSize(WIDE, TALL);
        pane.setMaxSize(WIDE, TALL);
        var frame = new Rectangle(0.5, 0.5, WIDE - 1, TALL - 1);
        frame.setFill(null);
        frame.getStyleClass().add("axis-line");
        pane.getChildren().add(frame);
        java.util.function.DoubleUnaryOperator x = h -> EDGE + (WIDE - 2 * EDGE) * h / widest;
        java.util.function.DoubleUnaryOperator y = w -> TALL - EDGE - (TALL - 2 * EDGE) * (w - from) / span;
        if (!Double.isNaN(c.extrapolated())) {
            double at = y.applyAsDouble(c.extrapolated());
            var level = new Line(x.applyAsDouble(0), at, WIDE - EDGE, at);
            level.getStyleClass().add("axis-line");
            level.getStrokeDashArray().setAll(3.0, 3.0);
            pane.getChildren().add(level);
            curve(refined, x, y, pane);
        }
        double fine = x.applyAsDouble(refined.sizes()[0]);
        var bar = new Line(fine, y.applyAsDouble(c.finest() - c.half()), fine, y.applyAsDouble(c.finest() + c.half()));
        bar.getStyleClass().add("size-bar");
        pane.getChildren().add(bar);
        for (int i = 0; i < v.length; i++) {
            var dot = new Circle(x.applyAsDouble(refined.sizes()[i]), y.applyAsDouble(v[i]), i == 0 ? 4 : 3);
            dot.getStyleClass().add(i == 0 ? "size-finest" : "size-mesh");
            pane.getChildren().add(dot);
        }
        if (!Double.isNaN(c.extrapolated())) {
            double px = x.applyAsDouble(0);
            double py = y.applyAsDouble(c.extrapolated());
            var limit = new Polyline(px, py - 4.5, px + 4.5, py, px, py + 4.5, px - 4.5, py, px, py - 4.5);
            limit.getStyleClass().add("size-limit");
            pane.getChildren().add(limit);
        }
        double[] told = {unit.fromSi(from), unit.fromSi(from + span)};
        Figures figures = Figures.of(told, 0, 4);
        var box = new VBox(
                2,
                Ui.label(figures.whole(told[1]) + " " + unit.label() + ", the greatest shown", "small", "muted"),
                pane,
                Ui.label(
                        figures.whole(told[0]) + ", the least; size 0 at the left, " + size(refined.sizes()[0], length)
                                + " finest, " + size(refined.sizes()[refined.sizes().length - 1], length)
                                + " coarsest",
                        "small",
                        "muted"));
        box.setId("size-chart");
        return box;
    }

    private static String size(double h, Unit length) {
        double shown = length.known() ? length.fromSi(h) : h;
        return Figures.of(shown, 3).whole(shown) + (length.known() ? " " + length.symbol() : "");
    }

    /** The power of the size through the finest value. */
    private static void curve(
            Refined refined,
            java.util.function.DoubleUnaryOperator x,
            java.util.function.DoubleUnaryOperator y,
            Pane pane) {
        Convergence c = refined.convergence();
        double h = refined.sizes()[0];
        double last = refined.sizes()[refined.sizes().length - 1];
        var line = new Polyline();
        line.getStyleClass().add("size-curve");
        for (int k = 0; k <= 60; k++) {
            double size = last * k / 60;
            double value = c.extrapolated() + (c.finest() - c.extrapolated()) * Math.pow(size / h, c.order());
            double py = y.applyAsDouble(value);
            if (py >= 2 && py <= TALL - 2) {
                line.getPoints().addAll(x.applyAsDouble(size), py);
            }
        }
        pane.getChildren().add(line);
    }
}
