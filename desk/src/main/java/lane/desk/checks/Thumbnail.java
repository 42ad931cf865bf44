package lane.desk.checks;

import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import lane.check.Difference;
import lane.desk.Marks;
import lane.picture.LaneStyle;

/** A difference strip without text, 40 by 26 pixels. */
final class Thumbnail {
    private static final double WIDE = 40;
    private static final double TALL = 26;

    private Thumbnail() {}

    static Node of(Difference d, LaneStyle style, double most, double tolerance) {
        var pane = new Pane();
        pane.setMinSize(WIDE, TALL);
        pane.setMaxSize(WIDE, TALL);
        pane.setClip(new Rectangle(WIDE, TALL));
        double scale = most > 0 ? TALL / 2 / (1.1 * most) : 0;
        double t = Math.min(TALL, tolerance * scale);
        var band = new Rectangle(0, TALL / 2 - t, WIDE, 2 * t);
        band.getStyleClass().add("pine-band");
        var zero = new Line(0, TALL / 2, WIDE, TALL / 2);
        zero.getStyleClass().add("axis-line");
        var frame = new Rectangle(0.5, 0.5, WIDE - 1, TALL - 1);
        frame.setFill(null);
        frame.getStyleClass().add("axis-line");
        pane.getChildren().addAll(band, zero);
        double from = d.overlapFrom();
        double span = d.overlapTo() - from;
        var line = new Polyline();
        int n = d.value().length;
        int step = Math.max(1, n / 124);
        for (int i = 0; i < n; i += step) {
            double x = span > 0 ? 1 + (WIDE - 2) * (d.abscissa()[i] - from) / span : WIDE / 2;
            double y = TALL / 2 - d.value()[i] * scale;
            if (style.line()) {
                line.getPoints().addAll(x, y);
            } else {
                var dot = new Circle(x, y, 1.6);
                dot.setFill(null);
                dot.setStroke(Marks.fx(style.colour()));
                pane.getChildren().add(dot);
            }
        }
        line.setStroke(Marks.fx(style.colour()));
        line.setStrokeWidth(1.6);
        if (style.dash() != null) {
            line.getStrokeDashArray().setAll((double) style.dash()[0], (double) style.dash()[1]);
        }
        pane.getChildren().addAll(line, frame);
        return pane;
    }
}
