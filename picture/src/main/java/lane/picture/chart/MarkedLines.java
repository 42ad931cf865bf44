package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Line2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.util.HashMap;
import java.util.Map;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import org.jfree.chart.axis.ValueAxis;
import org.jfree.chart.plot.CrosshairState;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.plot.XYPlot;
import org.jfree.chart.renderer.xy.XYErrorRenderer;
import org.jfree.chart.renderer.xy.XYItemRendererState;
import org.jfree.data.Range;
import org.jfree.data.xy.IntervalXYDataset;
import org.jfree.data.xy.XYDataset;

/** Lines with dashes, and markers on every 40th of 201 samples, shifted by lane so that none covers another. */
final class MarkedLines extends XYErrorRenderer {
    private static final long serialVersionUID = 1L;
    /** So many markers of measured points can be told apart. */
    private static final int MOST_MARKED = 150;

    private static final int MANY = 400;
    private static final double CAP = 7;
    private static final BasicStroke BAR = new BasicStroke(1.3f);

    private final Map<Integer, Integer> shift = new HashMap<>();
    private final Palette palette;
    private final boolean plain;

    /** @param plain whether lines are thin and rough, as among hundreds of them */
    MarkedLines(Palette palette, boolean plain) {
        this.palette = palette;
        this.plain = plain;
        setDefaultItemLabelsVisible(false);
    }

    void lane(int series, LaneStyle style, int number) {
        setSeriesPaint(series, style.colour());
        setSeriesStroke(series, style.stroke());
        setSeriesShape(series, style.marker());
        setSeriesLinesVisible(series, style.line());
        setSeriesFillPaint(series, style.hollow() ? palette.sheet() : style.colour());
        setSeriesOutlinePaint(series, style.hollow() ? style.colour() : palette.sheet());
        setSeriesOutlineStroke(series, new BasicStroke(style.hollow() ? 1.5f : 1f));
        shift.put(series, style.corners() == 2 ? -1 : style.hollow() ? -2 : number);
    }

    @Override
    public boolean getItemShapeVisible(int series, int item) {
        int lane = shift.getOrDefault(series, 0);
        if (lane == -1) {
            return false;
        }
        int n = getPlot().getDataset().getItemCount(series);
        if (lane == -2) {
            // Of a log with thousands of rows some are marked; where there is no line between them, all are.
            return n <= MOST_MARKED || !getItemLineVisible(series, item) || item % (n / MOST_MARKED + 1) == 0;
        }
        int every = Math.max(1, n / 5);
        return item % every == Math.floorMod(8 * n / 201 + lane * Math.max(1, n / 20), every);
    }

    /** All of a curve at once, with its first item: the axes are straight, so a place is a product and a sum. */
    @Override
    public void drawItem(
            Graphics2D g,
            XYItemRendererState state,
            Rectangle2D area,
            PlotRenderingInfo info,
            XYPlot plot,
            ValueAxis x,
            ValueAxis y,
            XYDataset data,
            int series,
            int item,
            CrosshairState crosshair,
            int pass) {
        if (item != 0) {
            return;
        }
        var set = (IntervalXYDataset) data;
        var across = new Straight(
                x.getRange(),
                x.valueToJava2D(x.getLowerBound(), area, plot.getDomainAxisEdge()),
                x.valueToJava2D(x.getUpperBound(), area, plot.getDomainAxisEdge()));
        var up = new Straight(
                y.getRange(),
                y.valueToJava2D(y.getLowerBound(), area, plot.getRangeAxisEdge()),
                y.valueToJava2D(y.getUpperBound(), area, plot.getRangeAxisEdge()));
        if (pass == 0) {
            bars(g, set, series, across, up);
            if (getItemLineVisible(series, 0)) {
                line(g, set, series, across, up);
            }
        } else {
            marks(g, set, series, area, across, up);
        }
    }

    /** Where points lie pixel by pixel nobody sees how they are joined, and round corners take most of the time. */
    private static BasicStroke quick(BasicStroke s) {
        return new BasicStroke(
                s.getLineWidth(), BasicStroke.CAP_BUTT, BasicStroke.JOIN_BEVEL, 10, s.getDashArray(), s.getDashPhase());
    }

    private record Straight(double from, double by, double at) {
        Straight(Range range, double low, double high) {
            this(range.getLowerBound(), (high - low) / range.getLength(), low);
        }

        double of(double v) {
            return at + (v - from) * by;
        }
    }

    private void line(Graphics2D g, IntervalXYDataset set, int series, Straight across, Straight up) {
        var path = new Path2D.Double();
        boolean on = false;
        int n = set.getItemCount(series);
        for (int i = 0; i < n; i++) {
            double px = across.of(set.getXValue(series, i));
            double py = up.of(set.getYValue(series, i));
            if (Double.isNaN(px) || Double.isNaN(py)) {
                on = false;
            } else if (on) {
                path.lineTo(px, py);
            } else {
                path.moveTo(px, py);
                on = true;
            }
        }
        if (plain) {
            Object smooth = g.getRenderingHint(RenderingHints.KEY_ANTIALIASING);
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_OFF);
            g.setStroke(new BasicStroke(1));
            g.setPaint(getSeriesPaint(series));
            g.draw(path);
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, smooth);
            return;
        }
        g.setStroke(n > MANY ? quick((BasicStroke) getSeriesStroke(series)) : getSeriesStroke(series));
        g.setPaint(getSeriesPaint(series));
        g.draw(path);
    }

    /** Bars only where a half-width is stated: one of no height would draw a stray cap. */
    private void bars(Graphics2D g, IntervalXYDataset set, int series, Straight across, Straight up) {
        g.setPaint(
                getSeriesOutlinePaint(series) instanceof Color c && c.equals(palette.sheet())
                        ? getSeriesPaint(series)
                        : getSeriesOutlinePaint(series));
        g.setStroke(BAR);
        for (int i = 0; i < set.getItemCount(series); i++) {
            double low = set.getStartYValue(series, i);
            double high = set.getEndYValue(series, i);
            if (high > low) {
                double px = across.of(set.getXValue(series, i));
                double a = up.of(low);
                double b = up.of(high);
                g.draw(new Line2D.Double(px, a, px, b));
                g.draw(new Line2D.Double(px - CAP / 2, a, px + CAP / 2, a));
                g.draw(new Line2D.Double(px - CAP / 2, b, px + CAP / 2, b));
            }
        }
    }

    private void marks(
            Graphics2D g, IntervalXYDataset set, int series, Rectangle2D area, Straight across, Straight up) {
        for (int i = 0; i < set.getItemCount(series); i++) {
            if (!getItemShapeVisible(series, i)) {
                continue;
            }
            double px = across.of(set.getXValue(series, i));
            double py = up.of(set.getYValue(series, i));
            if (!area.contains(px, py)) {
                continue;
            }
            Shape mark = AffineTransform.getTranslateInstance(px, py).createTransformedShape(getSeriesShape(series));
            g.setPaint(getSeriesFillPaint(series));
            g.fill(mark);
            g.setPaint(getSeriesOutlinePaint(series));
            g.setStroke(getSeriesOutlineStroke(series));
            g.draw(mark);
        }
    }
}
