package lane.desk.intake;

import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import lane.base.Plain;
import lane.desk.Marks;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reference.Recipe;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;

/** A small chart of each value column over the abscissa, one above the other, as they will be read. */
final class TableChart {
    private static final double WIDTH = 580;
    private static final double EACH = 74;
    private static final double LEFT = 140;
    private static final int MOST = 4;
    private static final int POINTS = 600;

    private TableChart() {}

    static Node of(Table table, Palette palette) {
        List<String> along = table.with(Recipe.Role.ABSCISSA);
        List<String> values = table.with(Recipe.Role.VALUE);
        int shown = Math.min(MOST, values.size());
        var canvas = new Canvas(WIDTH, Math.max(1, shown) * EACH + 18);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.setFont(Font.font("Lane Sans", 11));
        g.setTextBaseline(VPos.CENTER);
        double[] x = along.isEmpty() ? null : table.column(along.getFirst());
        double[] rx = range(x == null ? new double[] {1, Math.max(2, table.rows())} : x);
        for (int i = 0; i < shown; i++) {
            one(g, table, values.get(i), x, rx, i * EACH, palette);
        }
        g.setFill(Marks.fx(palette.muted()));
        g.setTextAlign(TextAlignment.LEFT);
        double y = shown * EACH + 8;
        g.fillText(Ticks.brief(rx[0]), LEFT, y);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(Ticks.brief(rx[1]), WIDTH - 6, y);
        g.setTextAlign(TextAlignment.CENTER);
        String name = along.isEmpty() ? "row" : named(table, along.getFirst());
        g.fillText(
                name + (values.size() > shown ? "; " + (values.size() - shown) + " more columns" : ""),
                (LEFT + WIDTH) / 2,
                y);
        canvas.setAccessibleText("Preview of " + Plain.names(values));
        return canvas;
    }

    private static String named(Table table, String header) {
        String unit = table.unit(header, "");
        return header + (unit.isBlank() ? "" : " in " + unit);
    }

    private static double[] range(double[] v) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double d : v) {
            if (Double.isFinite(d)) {
                least = Math.min(least, d);
                greatest = Math.max(greatest, d);
            }
        }
        return least > greatest ? new double[] {0, 1} : new double[] {least, greatest};
    }

    private static void one(
            GraphicsContext g,
            Table table,
            String header,
            double @Nullable [] x,
            double[] rx,
            double top,
            Palette palette) {
        double[] v = table.column(header);
        double[] rv = range(v);
        double height = EACH - 14;
        Color ink = Marks.fx(palette.muted());
        g.setStroke(Marks.fx(palette.hair()));
        g.setLineWidth(1);
        g.strokeRect(LEFT + 0.5, top + 4.5, WIDTH - LEFT - 7, height);
        g.setFill(ink);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(Ticks.brief(rv[1]), LEFT - 6, top + 10);
        g.fillText(Ticks.brief(rv[0]), LEFT - 6, top + height);
        g.setFill(Marks.fx(palette.ink()));
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(named(table, header), 0, top + 4 + height / 2, LEFT - 10);
        Color colour = Marks.fx(palette.teal());
        g.setStroke(colour);
        g.setFill(colour);
        boolean few = v.length <= 60;
        // Of very long logs every so many rows are enough for a preview.
        int step = Math.max(1, v.length / POINTS);
        double px = Double.NaN;
        double py = Double.NaN;
        for (int i = 0; i < v.length; i += step) {
            double at = x == null ? i + 1 : x[i];
            if (!Double.isFinite(at) || !Double.isFinite(v[i])) {
                px = Double.NaN;
                continue;
            }
            double sx = LEFT + 6 + (WIDTH - LEFT - 19) * part(at, rx);
            double sy = top + 4 + height - 5 - (height - 10) * part(v[i], rv);
            if (few) {
                g.fillOval(sx - 2, sy - 2, 4, 4);
            } else if (!Double.isNaN(px)) {
                g.strokeLine(px, py, sx, sy);
            }
            px = sx;
            py = sy;
        }
    }

    private static double part(double v, double[] r) {
        return r[1] > r[0] ? (v - r[0]) / (r[1] - r[0]) : 0.5;
    }
}
