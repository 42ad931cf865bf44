package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Rectangle2D;
import java.util.List;
import lane.check.Difference;
import lane.picture.Fonts;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reading.Profile;
import lane.unit.Unit;
import org.jfree.chart.ChartRenderingInfo;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.plot.CombinedDomainXYPlot;
import org.jfree.chart.plot.IntervalMarker;
import org.jfree.chart.plot.ValueMarker;
import org.jfree.chart.plot.XYPlot;
import org.jfree.chart.renderer.xy.XYErrorRenderer;
import org.jfree.chart.ui.Layer;
import org.jfree.chart.ui.RectangleInsets;
import org.jfree.data.xy.YIntervalSeries;
import org.jfree.data.xy.YIntervalSeriesCollection;
import org.jspecify.annotations.Nullable;

/** The curve of every lane over its difference from the datum, on one abscissa. */
public final class ProfileChart {
    private static final int MOST_POINTS = 4000;

    /**
     * A lane in the chart.
     *
     * @param difference from the datum; null for the datum itself or where there is none
     */
    public record Curve(
            String name,
            LaneStyle style,
            Profile profile,
            @Nullable Difference difference) {}

    /**
     * Where things were drawn, in pixels, with the abscissa at the plots' left and right edge as shown. The strip of
     * differences has no height where there are none.
     */
    public record Layout(Rectangle2D curve, Rectangle2D strip, double left, double right) {
        /** The abscissa under a pixel, in the unit shown. */
        public double abscissa(double x) {
            return left + (x - curve.getX()) / curve.getWidth() * (right - left);
        }
    }

    private final JFreeChart chart;
    private final CombinedDomainXYPlot both;
    private final Palette palette;
    private final String[] captions;
    /** Whether there is a difference to draw. */
    private final boolean compared;

    /**
     * @param title name of the quantity
     * @param abscissaUnit unit of the abscissa as shown, for example mm
     * @param tolerance half-width of the band about zero in SI units; NaN for none
     * @param datum name of the datum, blank for none
     * @param share of the height that the difference strip takes, 0.1 to 0.9
     */
    public ProfileChart(
            List<Curve> curves,
            String title,
            Unit unit,
            Unit abscissaUnit,
            String abscissaName,
            double tolerance,
            String datum,
            double share,
            Palette palette) {
        var x = axis(abscissaName + ", " + abscissaUnit.symbol(), palette);
        x.setAutoRangeIncludesZero(false);
        x.setLowerMargin(0);
        x.setUpperMargin(0);
        both = new CombinedDomainXYPlot(x);
        both.setGap(34);
        var above = new YIntervalSeriesCollection();
        var below = new YIntervalSeriesCollection();
        var top = new MarkedLines(palette);
        var bottom = new MarkedLines(palette);
        Unit differenceUnit = unit.difference();
        int n = curves.size();
        for (int i = 0; i < n; i++) {
            Curve c = curves.get(i);
            add(
                    above,
                    c.name(),
                    c.profile().abscissa(),
                    c.profile().value(),
                    c.profile().uncertainty(),
                    c.profile().upwards(),
                    unit,
                    abscissaUnit);
            Difference d = c.difference();
            if (d != null) {
                add(
                        below,
                        c.name(),
                        d.abscissa(),
                        d.value(),
                        c.style().hollow() ? d.uncertainty() : new double[0],
                        new double[0],
                        differenceUnit,
                        abscissaUnit);
                bottom.lane(below.getSeriesCount() - 1, c.style(), i);
            }
            top.lane(i, c.style(), i);
        }
        NumberAxis y = axis(null, palette);
        y.setAutoRangeIncludesZero(false);
        var upper = plot(above, y, top, palette);
        String against = datum.isBlank() ? "" : "difference from " + datum;
        NumberAxis dy = axis(null, palette);
        var lower = plot(below, dy, bottom, palette);
        lower.addRangeMarker(
                new ValueMarker(0, palette.ink(), new BasicStroke(datum.isBlank() ? 1f : 2.2f)), Layer.FOREGROUND);
        if (!Double.isNaN(tolerance)) {
            double t = differenceUnit.differenceFromSi(tolerance);
            var band = new IntervalMarker(
                    -t, t, palette.pineWash(), new BasicStroke(1), palette.pine(), new BasicStroke(1), 1f);
            lower.addRangeMarker(band, Layer.BACKGROUND);
            double most = t;
            for (int s = 0; s < below.getSeriesCount(); s++) {
                for (int i = 0; i < below.getItemCount(s); i++) {
                    most = Math.max(
                            most, Math.max(Math.abs(below.getStartYValue(s, i)), Math.abs(below.getEndYValue(s, i))));
                }
            }
            // The band stays visible even where the differences are far larger or smaller.
            dy.setRange(-1.15 * most, 1.15 * most);
        }
        int strip = (int) Math.round(1000 * Math.max(0.1, Math.min(0.9, share)));
        compared = below.getSeriesCount() > 0;
        both.add(upper, compared ? 1000 - strip : 1000);
        // Without differences their axes would stand empty.
        if (compared) {
            both.add(lower, strip);
        }
        both.setInsets(new RectangleInsets(0, 0, 0, 8));
        chart = new JFreeChart(null, null, both, false);
        chart.setBackgroundPaint(palette.sheet());
        chart.setPadding(new RectangleInsets(26, 8, 4, 12));
        this.palette = palette;
        captions = new String[] {
            title,
            unit.label(),
            against,
            differenceUnit.label(),
            Double.isNaN(tolerance)
                    ? ""
                    : "tolerance ± " + Ticks.brief(differenceUnit.differenceFromSi(tolerance)) + " "
                            + differenceUnit.label()
        };
        chart.setTextAntiAlias(true);
    }

    private static void add(
            YIntervalSeriesCollection to,
            String name,
            double[] x,
            double[] y,
            double[] half,
            double[] above,
            Unit unit,
            Unit xUnit) {
        var series = new YIntervalSeries(name, false, true);
        int n = y.length;
        for (int i : thin(y)) {
            if (Double.isFinite(y[i]) && Double.isFinite(x[i])) {
                double v = unit.fromSi(y[i]);
                double h = half.length == n && half[i] > 0 ? unit.differenceFromSi(half[i]) : 0;
                double up = above.length == n && above[i] > 0 ? unit.differenceFromSi(above[i]) : h;
                series.add(xUnit.fromSi(x[i]), v, v - h, v + up);
            } else {
                series.add(xUnit.fromSi(x[i]), Double.NaN, Double.NaN, Double.NaN);
            }
        }
        to.addSeries(series);
    }

    /** At most some thousand points, keeping the least and greatest of each stretch, so that no spike is lost. */
    static int[] thin(double[] y) {
        if (y.length <= MOST_POINTS) {
            return java.util.stream.IntStream.range(0, y.length).toArray();
        }
        int stretches = MOST_POINTS / 2;
        int[] keep = new int[2 * stretches];
        for (int s = 0; s < stretches; s++) {
            int from = (int) ((long) s * y.length / stretches);
            int to = (int) ((long) (s + 1) * y.length / stretches);
            int least = from;
            int greatest = from;
            for (int i = from; i < to; i++) {
                least = y[i] < y[least] || Double.isNaN(y[least]) ? i : least;
                greatest = y[i] > y[greatest] || Double.isNaN(y[greatest]) ? i : greatest;
            }
            keep[2 * s] = Math.min(least, greatest);
            keep[2 * s + 1] = Math.max(least, greatest);
        }
        // Both ends stay, so that the axis does not shrink.
        keep[0] = 0;
        keep[keep.length - 1] = y.length - 1;
        return java.util.Arrays.stream(keep).distinct().toArray();
    }

    private static NumberAxis axis(@Nullable String label, Palette palette) {
        var axis = new NumberAxis(label);
        axis.setLabelFont(Fonts.semibold(11));
        axis.setTickLabelFont(Fonts.sans(11));
        axis.setLabelPaint(palette.ink());
        axis.setTickLabelPaint(palette.muted());
        axis.setAxisLinePaint(palette.line());
        axis.setTickMarkPaint(palette.line());
        axis.setTickMarkOutsideLength(5);
        axis.setTickLabelInsets(new RectangleInsets(5, 6, 5, 6));
        axis.setNumberFormatOverride(new TickFormat(axis));
        return axis;
    }

    private static XYPlot plot(YIntervalSeriesCollection data, NumberAxis y, MarkedLines renderer, Palette palette) {
        var plot = new XYPlot(data, null, y, renderer);
        plot.setBackgroundPaint(palette.sheet());
        plot.setOutlinePaint(palette.line());
        plot.setDomainGridlinePaint(palette.grid());
        plot.setRangeGridlinePaint(palette.grid());
        plot.setDomainGridlineStroke(new BasicStroke(1));
        plot.setRangeGridlineStroke(new BasicStroke(1));
        plot.setAxisOffset(RectangleInsets.ZERO_INSETS);
        return plot;
    }

    /** Draws the chart and tells where its plots are. */
    public Layout paint(Graphics2D g, double width, double height) {
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        var info = new ChartRenderingInfo();
        chart.draw(g, new Rectangle2D.Double(0, 0, width, height), info);
        var plots = info.getPlotInfo();
        caption(g, plots.getSubplotInfo(0).getDataArea(), captions[0], captions[1]);
        Rectangle2D curve = plots.getSubplotInfo(0).getDataArea();
        Rectangle2D strip = compared
                ? plots.getSubplotInfo(1).getDataArea()
                : new Rectangle2D.Double(curve.getX(), curve.getMaxY(), curve.getWidth(), 0);
        if (compared) {
            caption(g, strip, captions[2], captions[3]);
            g.setPaint(palette.pine());
            double wide = g.getFontMetrics().getStringBounds(captions[4], g).getWidth();
            g.drawString(captions[4], (float) (strip.getMaxX() - wide), (float) strip.getY() - 8);
        }
        var range = both.getDomainAxis().getRange();
        return new Layout(curve, strip, range.getLowerBound(), range.getUpperBound());
    }

    /** Name and unit above a plot, level: rotated text is hard to read. */
    private void caption(Graphics2D g, Rectangle2D area, String name, String unit) {
        g.setFont(Fonts.semibold(12));
        g.setPaint(palette.ink());
        g.drawString(name, (float) area.getX(), (float) area.getY() - 8);
        double wide = g.getFontMetrics().getStringBounds(name, g).getWidth();
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.muted());
        g.drawString(unit, (float) (area.getX() + wide + 7), (float) area.getY() - 8);
    }

    /** Lines with dashes, and markers on every 40th of 201 samples, shifted by lane so that none covers another. */
    private static final class MarkedLines extends XYErrorRenderer {
        private static final long serialVersionUID = 1L;
        private final java.util.Map<Integer, Integer> shift = new java.util.HashMap<>();
        private final Palette palette;

        MarkedLines(Palette palette) {
            this.palette = palette;
            setDrawXError(false);
            setErrorStroke(new BasicStroke(1.3f));
            setCapLength(7);
            setDefaultItemLabelsVisible(false);
        }

        void lane(int series, LaneStyle style, int number) {
            setSeriesPaint(series, style.colour());
            setSeriesStroke(series, style.stroke());
            setSeriesShape(series, style.marker());
            setSeriesLinesVisible(series, style.line());
            setSeriesShapesFilled(series, true);
            setSeriesFillPaint(series, style.hollow() ? palette.sheet() : style.colour());
            setSeriesOutlinePaint(series, style.hollow() ? style.colour() : palette.sheet());
            setSeriesOutlineStroke(series, new BasicStroke(style.hollow() ? 1.5f : 1f));
            setUseFillPaint(true);
            setUseOutlinePaint(true);
            setDrawOutlines(true);
            setDrawSeriesLineAsPath(true);
            shift.put(series, style.corners() == 2 ? -1 : style.hollow() ? -2 : number);
        }

        @Override
        public boolean getItemShapeVisible(int series, int item) {
            int lane = shift.getOrDefault(series, 0);
            if (lane == -2) {
                return true;
            }
            if (lane == -1) {
                return false;
            }
            int n = getPlot().getDataset().getItemCount(series);
            int every = Math.max(1, n / 5);
            return item % every == Math.floorMod(8 * n / 201 + lane * Math.max(1, n / 20), every);
        }

        @Override
        public void drawItem(
                Graphics2D g,
                org.jfree.chart.renderer.xy.XYItemRendererState state,
                Rectangle2D area,
                org.jfree.chart.plot.PlotRenderingInfo info,
                XYPlot plot,
                org.jfree.chart.axis.ValueAxis x,
                org.jfree.chart.axis.ValueAxis y,
                org.jfree.data.xy.XYDataset data,
                int series,
                int item,
                org.jfree.chart.plot.CrosshairState crosshair,
                int pass) {
            // Error bars only where a half-width is stated: a bar of no height would draw a stray cap.
            var interval = (YIntervalSeriesCollection) data;
            setDrawYError(interval.getEndYValue(series, item) > interval.getStartYValue(series, item));
            setErrorPaint(
                    getSeriesOutlinePaint(series) instanceof Color c && c.equals(palette.sheet())
                            ? getSeriesPaint(series)
                            : getSeriesOutlinePaint(series));
            super.drawItem(g, state, area, info, plot, x, y, data, series, item, crosshair, pass);
        }
    }
}
