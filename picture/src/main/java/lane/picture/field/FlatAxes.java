package lane.picture.field;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import lane.mesh.Point;
import lane.picture.Fonts;
import lane.picture.Palette;
import lane.picture.Ticks;

/** Axes, ticks and a grid along the lower and left side of a flat picture, true to what is seen. */
final class FlatAxes {
    /** Kept free for ticks and names. */
    static final int LEFT = 64;

    static final int BELOW = 44;

    private FlatAxes() {}

    static void paint(Graphics2D g, Camera camera, int width, int height, Annotations.Flat flat, Palette palette) {
        double right = width - Annotations.BAR_WIDTH;
        double bottom = height - BELOW;
        double top = 8;
        Color grid = palette.ink();
        g.setColor(palette.ground());
        g.fill(new Rectangle2D.Double(0, bottom, width, BELOW));
        g.fill(new Rectangle2D.Double(0, 0, LEFT, height));
        g.fill(new Rectangle2D.Double(right, 0, width - right, height));
        g.fill(new Rectangle2D.Double(0, 0, width, top));
        g.setStroke(new BasicStroke(1));
        double x0 = value(camera, flat, flat.right(), LEFT, bottom, width, height);
        double x1 = value(camera, flat, flat.right(), right, bottom, width, height);
        for (double v : Ticks.of(Math.min(x0, x1), Math.max(x0, x1), Math.max(3, (int) ((right - LEFT) / 90)))) {
            double x = LEFT + (right - LEFT) * (v - x0) / (x1 - x0);
            g.setColor(new Color(grid.getRed(), grid.getGreen(), grid.getBlue(), 34));
            g.draw(new Line2D.Double(x, top, x, bottom));
            g.setColor(palette.line());
            g.draw(new Line2D.Double(x, bottom, x, bottom + 5));
            g.setColor(palette.ink());
            g.setFont(Fonts.sans(11));
            String text = Ticks.text(v, Math.min(x0, x1), Math.max(x0, x1));
            double wide = g.getFontMetrics().getStringBounds(text, g).getWidth();
            g.drawString(text, (float) (x - wide / 2), (float) bottom + 17);
        }
        double y0 = value(camera, flat, flat.up(), LEFT, bottom, width, height);
        double y1 = value(camera, flat, flat.up(), LEFT, top, width, height);
        for (double v : Ticks.of(Math.min(y0, y1), Math.max(y0, y1), Math.max(3, (int) ((bottom - top) / 60)))) {
            double y = bottom + (top - bottom) * (v - y0) / (y1 - y0);
            g.setColor(new Color(grid.getRed(), grid.getGreen(), grid.getBlue(), 34));
            g.draw(new Line2D.Double(LEFT, y, right, y));
            g.setColor(palette.line());
            g.draw(new Line2D.Double(LEFT - 5, y, LEFT, y));
            g.setColor(palette.ink());
            g.setFont(Fonts.sans(11));
            String text = Ticks.text(v, Math.min(y0, y1), Math.max(y0, y1));
            double wide = g.getFontMetrics().getStringBounds(text, g).getWidth();
            g.drawString(text, (float) (LEFT - 8 - wide), (float) y + 4);
        }
        g.setColor(palette.line());
        g.draw(new Rectangle2D.Double(LEFT, top, right - LEFT, bottom - top));
        name(g, flat.right(), (LEFT + right) / 2, bottom + 35, palette);
        var turned = g.getTransform();
        g.rotate(-Math.PI / 2, 14, (top + bottom) / 2);
        name(g, flat.up(), 14, (top + bottom) / 2 + 4, palette);
        g.setTransform(turned);
    }

    private static void name(Graphics2D g, Annotations.Flat.AxisOf run, double x, double y, Palette palette) {
        g.setFont(Fonts.semibold(11));
        double a = g.getFontMetrics().getStringBounds(run.name() + " ", g).getWidth();
        g.setFont(Fonts.sans(11));
        double b = g.getFontMetrics().getStringBounds(run.unit(), g).getWidth();
        double at = x - (a + b) / 2;
        g.setFont(Fonts.semibold(11));
        g.setColor(palette.ink());
        g.drawString(run.name(), (float) at, (float) y);
        g.setFont(Fonts.sans(11));
        g.setColor(palette.muted());
        g.drawString(run.unit(), (float) (at + a), (float) y);
    }

    /** What an axis reads behind a pixel. */
    private static double value(
            Camera camera,
            Annotations.Flat flat,
            Annotations.Flat.AxisOf run,
            double px,
            double py,
            int width,
            int height) {
        Point p = camera.place(px, py, 0, width, height).minus(flat.origin());
        return run.from() + run.perMetre() * p.dot(run.along());
    }
}
