package lane.picture.field;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import lane.mesh.Point;
import lane.picture.Fonts;
import lane.picture.Palette;
import lane.picture.Ticks;

/** What stands on top of a field picture: lines with their samples, the colour scale bar, the orientation mark. */
public final class Annotations {
    /** Width kept free for the scale bar at the right. */
    public static final int BAR_WIDTH = 96;

    private Annotations() {}

    /**
     * A line station in the picture.
     *
     * @param samples places of the samples that are marked, with {@code found} telling which have a value
     */
    public record Line(String name, Point a, Point b, List<Point> samples, boolean[] found, boolean selected) {}

    /** The scale bar's text and ends, in the unit shown. */
    public record Bar(String quantity, String unit, double least, double greatest, ColourScale scale, String note) {}

    /** Draws everything into a picture of the frame's size. */
    public static void paint(
            Graphics2D g, Camera camera, int width, int height, List<Line> lines, Bar bar, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        lines.stream().filter(l -> !l.selected()).forEach(l -> line(g, camera, width, height, l, palette));
        lines.stream().filter(Line::selected).forEach(l -> line(g, camera, width, height, l, palette));
        if (bar != null) {
            bar(g, width, height, bar, palette);
        }
        orientation(g, camera, height, palette);
    }

    private static void line(Graphics2D g, Camera camera, int width, int height, Line line, Palette palette) {
        double[] a = new double[3];
        double[] b = new double[3];
        camera.project(line.a().x(), line.a().y(), line.a().z(), width, height, a);
        camera.project(line.b().x(), line.b().y(), line.b().z(), width, height, b);
        Color colour = line.selected() ? Palette.MARK : palette.ink();
        Color halo = line.selected() ? Color.WHITE : palette.ground();
        g.setStroke(new BasicStroke(line.selected() ? 5 : 4, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setColor(halo);
        g.draw(new Line2D.Double(a[0], a[1], b[0], b[1]));
        g.setStroke(new BasicStroke(2, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setColor(colour);
        g.draw(new Line2D.Double(a[0], a[1], b[0], b[1]));
        if (line.selected()) {
            double[] p = new double[3];
            // Dots closer than five pixels would hide the line that they stand on.
            int n = line.samples().size();
            int every = (int) Math.max(1, Math.ceil(5.0 * n / Math.max(1, Math.hypot(b[0] - a[0], b[1] - a[1]))));
            for (int i = 0; i < n; i += line.found()[i] ? every : 1) {
                Point s = line.samples().get(i);
                camera.project(s.x(), s.y(), s.z(), width, height, p);
                // A sample that found no cell is a hollow ring, so that coverage can be seen where it fails.
                var dot = new Ellipse2D.Double(p[0] - 1.5, p[1] - 1.5, 3, 3);
                if (line.found()[i]) {
                    g.setColor(Color.WHITE);
                    g.fill(dot);
                } else {
                    g.setColor(palette.ochre());
                    g.setStroke(new BasicStroke(1.2f));
                    g.draw(new Ellipse2D.Double(p[0] - 2, p[1] - 2, 4, 4));
                }
            }
            handle(g, a, "A");
            handle(g, b, "B");
        }
        text(g, line.name(), Math.max(a[0], b[0]) + 10, Math.min(a[1], b[1]) - 6, palette, line.selected());
    }

    private static void handle(Graphics2D g, double[] p, String name) {
        var ring = new Ellipse2D.Double(p[0] - 5, p[1] - 5, 10, 10);
        g.setColor(Color.WHITE);
        g.fill(new Ellipse2D.Double(p[0] - 7, p[1] - 7, 14, 14));
        g.setColor(Palette.MARK);
        g.setStroke(new BasicStroke(2));
        g.draw(ring);
        g.setFont(Fonts.semibold(8));
        var box = g.getFontMetrics().getStringBounds(name, g);
        g.drawString(name, (float) (p[0] - box.getWidth() / 2), (float) (p[1] + 3));
    }

    /** Text on a halo of the ground's colour. */
    private static void text(Graphics2D g, String text, double x, double y, Palette palette, boolean strong) {
        g.setFont(strong ? Fonts.semibold(12) : Fonts.sans(12));
        var box = g.getFontMetrics().getStringBounds(text, g);
        Color ground = palette.ground();
        g.setColor(new Color(ground.getRed(), ground.getGreen(), ground.getBlue(), 215));
        g.fill(new java.awt.geom.RoundRectangle2D.Double(x - 4, y - 12, box.getWidth() + 8, 16, 6, 6));
        g.setColor(palette.ink());
        g.drawString(text, (float) x, (float) y);
    }

    private static void bar(Graphics2D g, int width, int height, Bar bar, Palette palette) {
        double x = width - BAR_WIDTH + 16;
        double top = 62;
        double tall = Math.max(80, Math.min(330, height - 200));
        g.setColor(palette.ink());
        g.setFont(Fonts.semibold(12));
        g.drawString(bar.quantity(), (float) x, (float) top - 34);
        g.setColor(palette.muted());
        g.setFont(Fonts.sans(11));
        g.drawString(bar.unit(), (float) x, (float) top - 18);
        for (int i = 0; i < tall; i++) {
            g.setColor(new Color(bar.scale().colour(1 - (i + 0.5) / tall)));
            g.fill(new Rectangle2D.Double(x, top + i, 15, 1.02));
        }
        g.setColor(palette.line());
        g.setStroke(new BasicStroke(1));
        g.draw(new Rectangle2D.Double(x - 0.5, top - 0.5, 16, tall + 1));
        g.setFont(Fonts.sans(11));
        for (double v : Ticks.of(bar.least(), bar.greatest(), 7)) {
            double share = bar.greatest() > bar.least() ? (v - bar.least()) / (bar.greatest() - bar.least()) : 0;
            double y = top + tall * (1 - share);
            g.setColor(palette.line());
            g.draw(new Line2D.Double(x + 16, y, x + 20, y));
            g.setColor(palette.ink());
            g.drawString(Ticks.text(v, bar.least(), bar.greatest()), (float) x + 24, (float) y + 4);
        }
        g.setColor(palette.muted());
        float y = (float) (top + tall + 20);
        for (String part : bar.note().split("\n")) {
            g.drawString(part, (float) x, y);
            y += 14;
        }
    }

    private static void orientation(Graphics2D g, Camera camera, int height, Palette palette) {
        double x = 44;
        double y = height - 44;
        Point[] axes = {new Point(1, 0, 0), new Point(0, 1, 0), new Point(0, 0, 1)};
        String[] names = {"x", "y", "z"};
        for (int i = 0; i < 3; i++) {
            double dx = 26 * axes[i].dot(camera.right());
            double dy = -26 * axes[i].dot(camera.up());
            boolean away = axes[i].dot(camera.forward()) > 0.02;
            g.setColor(away ? palette.muted() : palette.ink());
            g.setStroke(new BasicStroke(
                    1.6f, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND, 4, away ? new float[] {2, 3} : null, 0));
            g.draw(new Line2D.Double(x, y, x + dx, y + dy));
            if (Math.hypot(dx, dy) > 6) {
                g.setFont(Fonts.semibold(11));
                g.drawString(names[i], (float) (x + 1.32 * dx - 3), (float) (y + 1.32 * dy + 4));
            }
        }
    }
}
