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
import org.jspecify.annotations.Nullable;

/** What stands on top of a field picture: lines with their samples, the colour scale bar, the orientation mark. */
public final class Annotations {
    /** Width kept free for the scale bar at the right. */
    public static final int BAR_WIDTH = 96;

    private Annotations() {}

    /**
     * A station in the picture that is drawn by lines: one curve or several.
     *
     * @param curves corners of each; a curve of one corner is a dot
     * @param samples places of the samples that are marked, with {@code found} telling which have a value
     * @param handles places that can be dragged, with their names
     */
    public record Line(
            String name,
            List<List<Point>> curves,
            List<Point> samples,
            boolean[] found,
            boolean selected,
            List<Handle> handles) {
        /** A place with its name. */
        public static Line dot(String name, Point at) {
            return new Line(name, List.of(List.of(at)), List.of(), new boolean[0], true, List.of(new Handle("", at)));
        }
    }

    /** A place that can be dragged. */
    public record Handle(String name, Point at) {}

    /** The scale bar's text and ends, in the unit shown. */
    public record Bar(String quantity, String unit, double least, double greatest, ColourScale scale, String note) {}

    /** Words at a place, with a stroke to it. */
    public record Label(String text, Point at) {}

    /** A value at a pixel, on a line between two bands. */
    public record BandLabel(String text, double x, double y) {}

    /**
     * Axes of a flat picture.
     *
     * @param origin where both count from
     * @param right what runs to the right, {@code up} what runs upwards
     */
    public record Flat(Point origin, AxisOf right, AxisOf up) {
        /**
         * @param along direction in space
         * @param perMetre units of the axis to a metre along it
         * @param from its value at the origin
         */
        public record AxisOf(String name, String unit, Point along, double perMetre, double from) {}
    }

    /**
     * What stands on top of a picture.
     *
     * @param measured places that are measured between: two give a distance, three the angle at the second too
     * @param bar null for none
     * @param flat null for none
     */
    public record Over(
            List<Line> lines,
            List<Label> labels,
            List<BandLabel> bands,
            List<Point> measured,
            @Nullable Bar bar,
            @Nullable Flat flat) {
        public Over {
            lines = List.copyOf(lines);
            labels = List.copyOf(labels);
            bands = List.copyOf(bands);
            measured = List.copyOf(measured);
        }

        public static Over of(List<Line> lines, @Nullable Bar bar) {
            return new Over(lines, List.of(), List.of(), List.of(), bar, null);
        }

        public Over with(List<BandLabel> others) {
            return new Over(lines, labels, others, measured, bar, flat);
        }
    }

    /** Draws everything into a picture of the frame's size. */
    public static void paint(Graphics2D g, Camera camera, int width, int height, Over over, Palette palette) {
        List<Line> lines = over.lines();
        Bar bar = over.bar();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        if (over.flat() != null) {
            FlatAxes.paint(g, camera, width, height, over.flat(), palette);
        }
        // The selected one has the first word: labels that would stand on another are left out.
        var taken = new java.util.ArrayList<Rectangle2D>();
        var places = new java.util.ArrayList<double[]>();
        List<Line> order = new java.util.ArrayList<>(
                lines.stream().filter(l -> !l.selected()).toList());
        order.addAll(lines.stream().filter(Line::selected).toList());
        order.forEach(l -> places.add(line(g, camera, width, height, l, palette)));
        for (int i = order.size() - 1; i >= 0; i--) {
            Line l = order.get(i);
            double[] at = places.get(i);
            if (at == null) {
                continue;
            }
            g.setFont(l.selected() ? Fonts.semibold(12) : Fonts.sans(12));
            double wide = g.getFontMetrics().getStringBounds(l.name(), g).getWidth();
            // The scale's place is kept free.
            double most = width - (bar == null ? 4 : BAR_WIDTH) - wide - 4;
            double x = at[0] <= most ? at[0] : Math.max(4, Math.min(most, at[0] - wide - 20));
            var box = new Rectangle2D.Double(x - 4, at[1] - 12, wide + 8, 16);
            if (taken.stream().noneMatch(box::intersects)) {
                taken.add(box);
                text(g, l.name(), x, at[1], palette, l.selected());
            }
        }
        for (BandLabel b : over.bands()) {
            g.setFont(Fonts.sans(10));
            var size = g.getFontMetrics().getStringBounds(b.text(), g);
            var box = new Rectangle2D.Double(b.x() - size.getWidth() / 2 - 3, b.y() - 7, size.getWidth() + 6, 14);
            if (taken.stream().noneMatch(box::intersects)) {
                taken.add(box);
                Color ground = palette.ground();
                g.setColor(new Color(ground.getRed(), ground.getGreen(), ground.getBlue(), 200));
                g.fill(box);
                g.setColor(palette.ink());
                g.drawString(b.text(), (float) (b.x() - size.getWidth() / 2), (float) b.y() + 4);
            }
        }
        for (Label l : over.labels()) {
            label(g, camera, width, height, l, taken, palette);
        }
        if (!over.measured().isEmpty()) {
            Distances.paint(g, camera, width, height, over.measured(), palette);
        }
        if (bar != null) {
            bar(g, width, height, bar, palette);
        }
        if (over.flat() == null) {
            orientation(g, camera, height, palette);
        }
    }

    /** Words beside their place, moved down until they stand on no others. */
    private static void label(
            Graphics2D g, Camera camera, int width, int height, Label l, List<Rectangle2D> taken, Palette palette) {
        double[] p = new double[3];
        camera.project(l.at().x(), l.at().y(), l.at().z(), width, height, p);
        g.setFont(Fonts.sans(12));
        double wide = g.getFontMetrics().getStringBounds(l.text(), g).getWidth();
        double x = Math.clamp(p[0] + 22, 8, Math.max(8, width - wide - 12));
        double y = Math.clamp(p[1] - 18, 16, Math.max(16, height - 8));
        var box = new Rectangle2D.Double(x - 6, y - 14, wide + 12, 20);
        while (taken.stream().anyMatch(box::intersects) && y < height - 24) {
            y += 20;
            box = new Rectangle2D.Double(x - 6, y - 14, wide + 12, 20);
        }
        taken.add(box);
        g.setStroke(new BasicStroke(1.2f));
        g.setColor(palette.ink());
        g.draw(new Line2D.Double(p[0], p[1], x - 6, y - 4));
        g.fill(new Ellipse2D.Double(p[0] - 2.5, p[1] - 2.5, 5, 5));
        g.setColor(palette.sheet());
        g.fill(box);
        g.setColor(palette.line());
        g.draw(box);
        g.setColor(palette.ink());
        g.drawString(l.text(), (float) x, (float) y);
    }

    /** Draws a line without its name; returns where the name belongs, or null for none. */
    private static double @Nullable [] line(
            Graphics2D g, Camera camera, int width, int height, Line line, Palette palette) {
        Color colour = line.selected() ? Palette.MARK : palette.ink();
        Color halo = line.selected() ? Color.WHITE : palette.ground();
        var path = new java.awt.geom.Path2D.Double();
        double[] p = new double[3];
        double[] label = {Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY};
        double long2 = 0;
        for (List<Point> curve : line.curves()) {
            double x0 = 0;
            double y0 = 0;
            for (int i = 0; i < curve.size(); i++) {
                Point c = curve.get(i);
                camera.project(c.x(), c.y(), c.z(), width, height, p);
                if (i == 0) {
                    path.moveTo(p[0], p[1]);
                } else {
                    path.lineTo(p[0], p[1]);
                    long2 += Math.hypot(p[0] - x0, p[1] - y0);
                }
                x0 = p[0];
                y0 = p[1];
                if (p[0] > label[0]) {
                    label[0] = p[0];
                    label[1] = p[1];
                }
            }
        }
        g.setStroke(new BasicStroke(line.selected() ? 5 : 4, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setColor(halo);
        g.draw(path);
        g.setStroke(new BasicStroke(2, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setColor(colour);
        g.draw(path);
        if (line.selected()) {
            // Dots closer than five pixels would hide the line that they stand on.
            int n = line.samples().size();
            int every = (int) Math.max(1, Math.ceil(5.0 * n / Math.max(1, long2)));
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
            for (Handle h : line.handles()) {
                camera.project(h.at().x(), h.at().y(), h.at().z(), width, height, p);
                handle(g, p, h.name());
            }
        }
        return label[0] > Double.NEGATIVE_INFINITY && !line.name().isBlank()
                ? new double[] {label[0] + 10, label[1] - 6}
                : null;
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
    static void text(Graphics2D g, String text, double x, double y, Palette palette, boolean strong) {
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
        List<String> names = wrapped(g, bar.quantity(), BAR_WIDTH - 20);
        for (int i = 0; i < names.size(); i++) {
            g.drawString(names.get(i), (float) x, (float) top - 34 - 14 * (names.size() - 1 - i));
        }
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

    /** Words in at most two lines that fit; the end of what does not is left out. */
    private static List<String> wrapped(Graphics2D g, String text, double wide) {
        var lines = new java.util.ArrayList<String>();
        var line = new StringBuilder();
        for (String word : text.split("[ \n]")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && g.getFontMetrics().getStringBounds(longer, g).getWidth() > wide) {
                lines.add(line.toString());
                line = new StringBuilder(word);
            } else {
                line = new StringBuilder(longer);
            }
        }
        lines.add(line.toString());
        List<String> kept = new java.util.ArrayList<>(lines.subList(0, Math.min(2, lines.size())));
        if (lines.size() > 2) {
            kept.set(1, kept.get(1) + "…");
        }
        return kept;
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
