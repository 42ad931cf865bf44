package lane.desk.intake;

import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import lane.desk.Marks;
import lane.picture.Palette;

/** A wall, the flow over it, and which way the stored stress points. */
final class StressSketch {
    private static final double WIDTH = 108;
    private static final double HEIGHT = 30;

    private StressSketch() {}

    /** @param along from -1, against the flow, to 1, along it */
    static Node of(double along, Palette palette) {
        var canvas = new Canvas(WIDTH, HEIGHT);
        GraphicsContext g = canvas.getGraphicsContext2D();
        Color ink = Marks.fx(palette.muted());
        Color strong = Marks.fx(palette.teal());
        double wall = HEIGHT - 6;
        g.setStroke(ink);
        g.setLineWidth(1);
        g.strokeLine(4, wall + 0.5, WIDTH - 4, wall + 0.5);
        for (double x = 8; x < WIDTH - 4; x += 8) {
            g.strokeLine(x, wall + 1, x - 4, HEIGHT - 1);
        }
        arrow(g, 8, 6, WIDTH * 0.62, ink);
        g.setFill(ink);
        g.setFont(javafx.scene.text.Font.font("Inter", 9.5));
        g.fillText("flow", WIDTH * 0.62 + 14, 9);
        double length = 0.45 * WIDTH * Math.abs(along);
        double middle = WIDTH / 2;
        g.setLineWidth(2);
        arrow(g, along > 0 ? middle - length / 2 : middle + length / 2, wall - 5, along > 0 ? length : -length, strong);
        canvas.setAccessibleText(along > 0 ? "The stress points along the flow" : "The stress points against the flow");
        return canvas;
    }

    private static void arrow(GraphicsContext g, double x, double y, double length, Color colour) {
        g.setStroke(colour);
        g.setFill(colour);
        double tip = x + length;
        double back = Math.signum(length) * 6;
        g.strokeLine(x, y, tip - back, y);
        g.fillPolygon(new double[] {tip, tip - back, tip - back}, new double[] {y, y - 3.5, y + 3.5}, 3);
    }
}
