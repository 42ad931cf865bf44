package lane.desk;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.StrokeLineCap;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import lane.check.Verdict;
import lane.picture.LaneStyle;

/** The shapes that repeat what colour says: a lane's line and marker, a verdict's dot against its limits. */
public final class Marks {
    private Marks() {}

    public static Color fx(java.awt.Color c) {
        return Color.rgb(c.getRed(), c.getGreen(), c.getBlue());
    }

    /** A lane's marker alone, about nine pixels across. */
    public static Node marker(LaneStyle style, Color sheet) {
        Color colour = fx(style.colour());
        return switch (style.corners()) {
            case 0 -> {
                var circle = new Circle(4, sheet);
                circle.setStroke(colour);
                circle.setStrokeWidth(1.5);
                yield circle;
            }
            case 2 -> new Rectangle(2.2, 10, colour);
            default -> polygon(style.corners(), colour);
        };
    }

    private static Polygon polygon(int n, Color colour) {
        var shape = new Polygon();
        double turn = n == 4 ? Math.PI / 4 : Math.PI / 2;
        for (int i = 0; i < n; i++) {
            double a = turn + 2 * Math.PI * i / n;
            shape.getPoints().addAll((n == 4 ? 5.4 : 4.9) * Math.cos(a), -(n == 4 ? 5.4 : 4.9) * Math.sin(a));
        }
        shape.setFill(colour);
        return shape;
    }

    /** How many pixels a text takes in the window's type at a size. */
    public static double wide(String text, double size) {
        var t = new Text(text);
        t.setFont(Font.font("Lane Sans", size));
        return t.getLayoutBounds().getWidth();
    }

    /** A short piece of the lane's line with its marker. */
    public static Node sample(LaneStyle style, Color sheet) {
        return sample(style, sheet, 22);
    }

    /** @param wide pixels that it may take */
    public static Node sample(LaneStyle style, Color sheet, double wide) {
        var group = new Group();
        Color colour = fx(style.colour());
        if (style.line()) {
            var line = new Line(0, 0, wide, 0);
            line.setStroke(colour);
            line.setStrokeWidth(style.width());
            line.setStrokeLineCap(StrokeLineCap.BUTT);
            if (style.dash() != null) {
                line.getStrokeDashArray().setAll((double) style.dash()[0], (double) style.dash()[1]);
            }
            group.getChildren().add(line);
        } else {
            group.getChildren()
                    .addAll(
                            bar(wide / 2, -7, wide / 2, 7, colour),
                            bar(wide / 2 - 3, -7, wide / 2 + 3, -7, colour),
                            bar(wide / 2 - 3, 7, wide / 2 + 3, 7, colour));
        }
        if (style.corners() != 2) {
            Node marker = marker(style, sheet);
            marker.setTranslateX(wide / 2);
            group.getChildren().add(marker);
        }
        return group;
    }

    private static Line bar(double x0, double y0, double x1, double y1, Color colour) {
        var line = new Line(x0, y0, x1, y1);
        line.setStroke(colour);
        line.setStrokeWidth(1.3);
        return line;
    }

    /** A line of a drawing, coloured by the style sheet. */
    public static Line line(double x0, double y0, double x1, double y1, String style) {
        var line = new Line(x0, y0, x1, y1);
        line.getStyleClass().add(style);
        return line;
    }

    /** Words of a drawing, their middle at the given height. */
    public static Text text(double x, double y, String words, String style) {
        var text = new Text(x, y, words);
        text.setTextOrigin(javafx.geometry.VPos.CENTER);
        text.getStyleClass().add(style);
        return text;
    }

    /** Two upright limits and a dot: inside, outside, on the limit, or none. */
    public static Group verdict(Verdict verdict) {
        String style = "verdict-" + verdict.word().replace(' ', '-');
        var group = new Group();
        Rectangle room = new Rectangle(22, 12, Color.TRANSPARENT);
        group.getChildren().add(room);
        for (double x : new double[] {3, 13}) {
            var limit = new Line(x, 1, x, 11);
            limit.getStyleClass().addAll("verdict-line", style);
            limit.setStrokeWidth(1.6);
            if (verdict == Verdict.NO_DATA) {
                limit.getStrokeDashArray().setAll(2.0, 2.0);
            }
            group.getChildren().add(limit);
        }
        if (verdict != Verdict.NO_DATA) {
            var dot = new Circle(verdict == Verdict.WITHIN ? 8 : verdict == Verdict.OUT ? 18 : 13, 6, 2.9);
            dot.getStyleClass().addAll(verdict == Verdict.UNDECIDED ? "verdict-ring" : "verdict-dot", style);
            group.getChildren().add(dot);
        }
        return group;
    }

    public static HBox verdictWord(Verdict verdict) {
        var word = Ui.label(
                verdict.word(), "verdict-word", "verdict-" + verdict.word().replace(' ', '-'));
        word.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        return Ui.row(6, verdict(verdict), word);
    }
}
