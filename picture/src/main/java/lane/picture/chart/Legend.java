package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import lane.picture.Fonts;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.study.ChartLook;

/** Which lane is which, in rows above a chart that stands by itself: a piece of its line with its marker, and its name. */
final class Legend {
    /** It begins at the plot, but not further right than this, for which its rows are counted. */
    private static final double LEFT = 60;

    private static final double SAMPLE = 30;
    private static final double GAP = 20;
    private static final double ROW = 20;
    private static final double ABOVE = 8;

    private Legend() {}

    private static double[] widths(Graphics2D g, List<ProfileChart.Curve> curves) {
        g.setFont(Fonts.sans(12));
        return curves.stream()
                .mapToDouble(c -> SAMPLE
                        + 8
                        + g.getFontMetrics().getStringBounds(c.name(), g).getWidth())
                .toArray();
    }

    /** How much of the height it takes. */
    static double height(Graphics2D g, List<ProfileChart.Curve> curves, double width) {
        int rows = 1;
        double x = LEFT;
        for (double w : widths(g, curves)) {
            if (x > LEFT && x + w > width - GAP) {
                rows++;
                x = LEFT;
            }
            x += w + GAP;
        }
        return ABOVE + rows * ROW;
    }

    /** Draws it at the top, above a plot that begins at a place. */
    static void paint(Graphics2D g, List<ProfileChart.Curve> curves, double width, double plot, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setPaint(palette.sheet());
        g.fill(new Rectangle2D.Double(0, 0, width, height(g, curves, width)));
        double[] wide = widths(g, curves);
        double left = Math.min(LEFT, plot);
        double x = left;
        double y = ABOVE + ROW / 2;
        for (int i = 0; i < wide.length; i++) {
            if (x > left && x + wide[i] > width - GAP) {
                x = left;
                y += ROW;
            }
            sample(g, curves.get(i).style(), x, y, palette);
            g.setPaint(palette.ink());
            g.setFont(Fonts.sans(12));
            g.drawString(curves.get(i).name(), (float) (x + SAMPLE + 8), (float) y + 4);
            x += wide[i] + GAP;
        }
    }

    /**
     * Draws it within a plot, as a column on a sheet of its own.
     *
     * @param at its upper left corner, as shares of the plot
     * @return where it is
     */
    static Rectangle2D inside(
            Graphics2D g, List<ProfileChart.Curve> curves, Rectangle2D plot, ChartLook.Spot at, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        double wide = 8 + 8;
        for (double w : widths(g, curves)) {
            wide = Math.max(wide, w + 16);
        }
        double tall = curves.size() * ROW + 8;
        double x = Math.clamp(
                plot.getX() + at.x() * plot.getWidth(), plot.getX(), Math.max(plot.getX(), plot.getMaxX() - wide));
        double y = Math.clamp(
                plot.getY() + at.y() * plot.getHeight(), plot.getY(), Math.max(plot.getY(), plot.getMaxY() - tall));
        var box = new Rectangle2D.Double(x, y, wide, tall);
        g.setPaint(palette.sheet());
        g.fill(box);
        g.setPaint(palette.line());
        g.setStroke(new BasicStroke(1));
        g.draw(box);
        for (int i = 0; i < curves.size(); i++) {
            double row = y + 4 + ROW * (i + 0.5);
            sample(g, curves.get(i).style(), x + 8, row, palette);
            g.setPaint(palette.ink());
            g.setFont(Fonts.sans(12));
            g.drawString(curves.get(i).name(), (float) (x + 8 + SAMPLE + 8), (float) row + 4);
        }
        return box;
    }

    private static void sample(Graphics2D g, LaneStyle style, double x, double y, Palette palette) {
        g.setPaint(style.colour());
        if (style.line()) {
            g.setStroke(style.stroke());
            g.draw(new Line2D.Double(x, y, x + SAMPLE, y));
        }
        if (style.corners() == 2) {
            return;
        }
        var marker = AffineTransform.getTranslateInstance(x + SAMPLE / 2, y).createTransformedShape(style.marker());
        g.setPaint(style.hollow() ? palette.sheet() : style.colour());
        g.fill(marker);
        g.setPaint(style.hollow() ? style.colour() : palette.sheet());
        g.setStroke(new BasicStroke(style.hollow() ? 1.5f : 1f));
        g.draw(marker);
    }
}
