package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import lane.check.Difference;
import lane.formula.Type;
import lane.picture.Fonts;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reading.Profile;
import lane.reading.Samples;
import lane.study.ChartLook;
import lane.study.ChartLook.AxisLook;
import lane.study.ChartLook.Scale;
import lane.study.ChartLook.Strip;
import lane.unit.Unit;
import org.jfree.chart.ChartRenderingInfo;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.plot.CombinedDomainXYPlot;
import org.jfree.chart.plot.IntervalMarker;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.plot.ValueMarker;
import org.jfree.chart.plot.XYPlot;
import org.jfree.chart.ui.Layer;
import org.jfree.chart.ui.RectangleInsets;
import org.jfree.data.Range;
import org.jspecify.annotations.Nullable;

/** The curve of every lane over its difference from the datum, in one panel or several, all on one abscissa. */
public final class ProfileChart {
    /** More curves than these are drawn thin and rough. */
    private static final int SMOOTH = 60;

    /** All curves of a chart together may have so many points. */
    private static final int MOST_POINTS = 200_000;

    /**
     * A lane in the chart.
     *
     * @param difference from the datum; null for the datum itself or where there is none
     * @param levels of the profile
     */
    public record Curve(
            String name,
            LaneStyle style,
            Profile profile,
            @Nullable Difference difference,
            Levels levels) {
        public Curve(String name, LaneStyle style, Profile profile, @Nullable Difference difference) {
            this(name, style, profile, difference, new Levels(profile.abscissa(), profile.samples()));
        }
    }

    /**
     * Curves that stand over one another on one axis of values.
     *
     * @param title name of the quantity
     * @param aside thin curves that belong to one of them, such as those of other times
     * @param tolerance half-width of the band about zero in SI units; NaN for none
     * @param datum name of the datum, blank for none
     * @param shared least and greatest that the axis has to reach, in SI units; null for what the curves need
     */
    public record Panel(
            String title,
            Unit unit,
            List<Curve> curves,
            List<Curve> aside,
            double tolerance,
            String datum,
            double @Nullable [] shared) {}

    /** What is looked at, as places along the axes; null for all. */
    public record View(@Nullable Range x, @Nullable Range y) {
        public static final View ALL = new View(null, null);
    }

    private final JFreeChart chart;
    private final CombinedDomainXYPlot all;
    private final Palette palette;
    private final ChartLook look;
    private final AxisMap across;
    private final List<Panel> panels;
    private final List<AxisMap> ups = new ArrayList<>();
    private final View view;
    private final int most;
    private final boolean plain;
    private final String remark;
    /** What stands above each plot: name and unit, and at the right a remark. */
    private final List<String[]> captions = new ArrayList<>();
    /** Places among the plots: of panels, and of the strip of the first; -1 where there is none. */
    private final List<Integer> places = new ArrayList<>();

    private int strip = -1;

    /**
     * @param abscissaUnit unit of the abscissa as usual, for example mm
     * @param share of the height that the strip of differences takes, 0.1 to 0.9
     */
    public ProfileChart(
            List<Panel> panels,
            Unit abscissaUnit,
            String abscissaName,
            double share,
            ChartLook look,
            View view,
            Palette palette) {
        this.panels = List.copyOf(panels);
        this.palette = palette;
        this.look = look;
        this.view = view;
        across = new AxisMap(abscissaUnit, look.x());
        int curves =
                panels.stream().mapToInt(p -> p.curves.size() + p.aside.size()).sum();
        plain = curves > SMOOTH;
        most = Math.clamp(MOST_POINTS / Math.max(1, curves), 100, CurvePoints.MOST);
        String title = look.x().title().isBlank() ? abscissaName : look.x().title();
        NumberAxis x = axis(
                across.scale() == Scale.SHARE
                        ? title + ", share of its range"
                        : title
                                + (across.unit().equals(Unit.ONE)
                                                || across.unit().symbol().isBlank()
                                        ? ""
                                        : ", " + across.unit().symbol()),
                across,
                palette);
        x.setAutoRangeIncludesZero(false);
        x.setLowerMargin(0);
        x.setUpperMargin(0);
        x.setInverted(look.x().reversed());
        all = new CombinedDomainXYPlot(x);
        all.setGap(34);
        int left = 0;
        int weight = Math.clamp(Math.round(1000 * share), 100, 900);
        for (int i = 0; i < panels.size(); i++) {
            left += panel(panels.get(i), i == 0, weight);
        }
        // The ends of the abscissa, where they are said or looked at.
        range(x, look.x(), across, view.x(), null);
        remark = left == 0 ? "" : left + " values not above zero have no place on a logarithmic axis";
        all.setInsets(new RectangleInsets(0, 0, 0, 8));
        chart = new JFreeChart(null, null, all, false);
        chart.setBackgroundPaint(palette.sheet());
        chart.setPadding(new RectangleInsets(26, 8, 4, 12));
        chart.setTextAntiAlias(true);
    }

    /** One panel as usual. */
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
        this(
                List.of(new Panel(title, unit, curves, List.of(), tolerance, datum, null)),
                abscissaUnit,
                abscissaName,
                share,
                ChartLook.of(""),
                View.ALL,
                palette);
    }

    private double from() {
        return view.x() != null
                ? view.x().getLowerBound()
                : look.x().from() != null && across.scale() != Scale.SHARE
                        ? across.at(look.x().from())
                        : look.x().to() != null ? Double.NEGATIVE_INFINITY : Double.NaN;
    }

    private double to() {
        return view.x() != null
                ? view.x().getUpperBound()
                : look.x().to() != null && across.scale() != Scale.SHARE
                        ? across.at(look.x().to())
                        : Double.POSITIVE_INFINITY;
    }

    private CurvePoints points(double[] x, double[] y, double[] half, double[] above, AxisMap up, Levels levels) {
        return CurvePoints.of(x, y, half, above, across, up, from(), to(), most, levels);
    }

    /** @return how many values have no place on its axis */
    private int panel(Panel panel, boolean first, int weight) {
        AxisLook own = first ? look.y() : AxisLook.USUAL;
        var up = new AxisMap(panel.unit, own);
        ups.add(up);
        var set = new CurveSet();
        var lines = new MarkedLines(palette, plain);
        for (Curve c : panel.aside) {
            set.add(points(c.profile().abscissa(), c.profile().value(), new double[0], new double[0], up, c.levels()));
            lines.lane(set.getSeriesCount() - 1, c.style(), 0);
        }
        List<CurvePoints> made = panel.curves.parallelStream()
                .map(c -> points(
                        c.profile().abscissa(),
                        c.profile().value(),
                        c.profile().uncertainty(),
                        c.profile().upwards(),
                        up,
                        c.levels()))
                .toList();
        for (int i = 0; i < made.size(); i++) {
            set.add(made.get(i));
            lines.lane(set.getSeriesCount() - 1, panel.curves.get(i).style(), i);
        }
        NumberAxis y = axis(null, up, palette);
        y.setAutoRangeIncludesZero(false);
        y.setInverted(own.reversed());
        XYPlot plot = plot(set, y, lines, palette);
        range(y, own, up, first ? view.y() : null, panel.shared);
        boolean compared =
                first && look.strip() != Strip.NONE && panel.curves.stream().anyMatch(c -> c.difference() != null);
        places.add(captions.size());
        String title = own.title().isBlank() ? panel.title : own.title();
        captions.add(new String[] {
            title,
            up.scale() == Scale.SHARE ? "share of the range of each" : up.unit().label(),
            ""
        });
        all.add(plot, compared ? 1000 - weight : 1000);
        if (compared) {
            strip(panel, up.unit(), weight);
        }
        return set.left();
    }

    private void strip(Panel panel, Unit shown, int weight) {
        Unit differ = shown.difference();
        // A ratio of temperatures depends on where their scale begins.
        boolean points = Type.of(1, panel.unit).points() == 1;
        Strip kind = points ? Strip.DIFFERENCE : look.strip();
        Unit unit = kind == Strip.DIFFERENCE ? differ : Unit.ONE;
        var up = new AxisMap(unit, Scale.LINEAR);
        var set = new CurveSet();
        var lines = new MarkedLines(palette, plain);
        int i = 0;
        for (Curve c : panel.curves) {
            Difference d = c.difference();
            if (d != null) {
                boolean plain = kind == Strip.DIFFERENCE;
                double[] told = plain ? d.value() : Against.of(c.profile(), d, kind);
                set.add(points(
                        d.abscissa(),
                        told,
                        plain && c.style().hollow() ? d.uncertainty() : new double[0],
                        new double[0],
                        up,
                        new Levels(d.abscissa(), Samples.of(told))));
                lines.lane(set.getSeriesCount() - 1, c.style(), i);
            }
            i++;
        }
        NumberAxis dy = axis(null, up, palette);
        dy.setAutoRangeIncludesZero(false);
        XYPlot plot = plot(set, dy, lines, palette);
        double zero = kind == Strip.RATIO ? 1 : 0;
        plot.addRangeMarker(
                new ValueMarker(zero, palette.ink(), new BasicStroke(panel.datum.isBlank() ? 1f : 2.2f)),
                Layer.FOREGROUND);
        boolean banded = kind == Strip.DIFFERENCE && !Double.isNaN(panel.tolerance);
        double t = banded ? differ.differenceFromSi(panel.tolerance) : Double.NaN;
        if (banded) {
            var band = new IntervalMarker(
                    -t, t, palette.pineWash(), new BasicStroke(1), palette.pine(), new BasicStroke(1), 1f);
            plot.addRangeMarker(band, Layer.BACKGROUND);
            double far = t;
            for (int s = 0; s < set.getSeriesCount(); s++) {
                for (int k = 0; k < set.getItemCount(s); k++) {
                    far = Math.max(far, Math.max(Math.abs(set.getStartYValue(s, k)), Math.abs(set.getEndYValue(s, k))));
                }
            }
            // The band stays visible even where the differences are far larger or smaller.
            dy.setRange(-1.15 * far, 1.15 * far);
        }
        strip = captions.size();
        String against = panel.datum.isBlank() ? "" : kind == Strip.RATIO ? "ratio to " : "difference from ";
        captions.add(new String[] {
            against + panel.datum,
            kind == Strip.ERROR ? "% of " + panel.datum : unit.label(),
            points && look.strip() != Strip.DIFFERENCE
                    ? "a ratio of temperatures depends on where their scale begins"
                    : banded ? "tolerance ± " + Ticks.brief(t) + " " + differ.label() : ""
        });
        all.add(plot, weight);
    }

    /** The ends of an axis: what is looked at, or else what is said, or else what all curves need. */
    private static void range(
            NumberAxis axis, AxisLook own, AxisMap map, @Nullable Range looked, double @Nullable [] shared) {
        if (looked != null) {
            axis.setRange(looked);
            return;
        }
        Range auto = axis.getRange();
        double low = auto.getLowerBound();
        double high = auto.getUpperBound();
        if (shared != null && map.scale() != Scale.SHARE) {
            double a = map.place(shared[0]);
            double b = map.place(shared[1]);
            double margin = 0.05 * (b - a);
            low = Double.isFinite(a) ? Math.min(low, a - margin) : low;
            high = Double.isFinite(b) ? Math.max(high, b + margin) : high;
        }
        Double from = own.from();
        Double to = own.to();
        low = from == null ? low : map.at(from);
        high = to == null ? high : map.at(to);
        if ((shared != null || from != null || to != null) && low < high) {
            axis.setRange(low, high);
        }
    }

    private static NumberAxis axis(@Nullable String label, AxisMap map, Palette palette) {
        var axis = map.scale() == Scale.LOG ? new PowerAxis(label) : new NumberAxis(label);
        axis.setLabelFont(Fonts.semibold(11));
        axis.setTickLabelFont(Fonts.sans(11));
        axis.setLabelPaint(palette.ink());
        axis.setTickLabelPaint(palette.muted());
        axis.setAxisLinePaint(palette.line());
        axis.setTickMarkPaint(palette.line());
        axis.setTickMarkOutsideLength(5);
        axis.setTickLabelInsets(new RectangleInsets(5, 6, 5, 6));
        if (map.scale() != Scale.LOG) {
            axis.setNumberFormatOverride(new TickFormat(axis));
        }
        return axis;
    }

    private static XYPlot plot(CurveSet data, NumberAxis y, MarkedLines renderer, Palette palette) {
        // Round-off of what is constant is nothing to look at.
        y.setAutoRangeMinimumSize(Math.max(1e-300, 2e-5 * data.largest()));
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
    public ChartLayout paint(Graphics2D g, double width, double height) {
        double f = look.text().factor();
        AffineTransform before = g.getTransform();
        g.scale(f, f);
        try {
            return painted(g, width / f, height / f).scaled(f);
        } finally {
            g.setTransform(before);
        }
    }

    private ChartLayout painted(Graphics2D g, double width, double height) {
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        var info = new ChartRenderingInfo();
        chart.draw(g, new Rectangle2D.Double(0, 0, width, height), info);
        PlotRenderingInfo plots = info.getPlotInfo();
        for (int i = 0; i < captions.size(); i++) {
            caption(g, plots.getSubplotInfo(i).getDataArea(), captions.get(i));
        }
        boolean back = look.x().reversed();
        Range x = all.getDomainAxis().getRange();
        List<ChartLayout.Plot> made = new ArrayList<>();
        for (int i = 0; i < places.size(); i++) {
            var plot = (XYPlot) all.getSubplots().get(places.get(i));
            Range y = plot.getRangeAxis().getRange();
            boolean down = plot.getRangeAxis().isInverted();
            made.add(new ChartLayout.Plot(plots.getSubplotInfo(places.get(i)).getDataArea(), ups.get(i), new double[] {
                down ? y.getUpperBound() : y.getLowerBound(), down ? y.getLowerBound() : y.getUpperBound()
            }));
        }
        Rectangle2D last = made.getLast().area();
        Rectangle2D below = strip >= 0
                ? plots.getSubplotInfo(strip).getDataArea()
                : new Rectangle2D.Double(last.getX(), last.getMaxY(), last.getWidth(), 0);
        if (!remark.isEmpty()) {
            g.setFont(Fonts.sans(11));
            g.setPaint(palette.ochre());
            g.drawString(
                    remark,
                    (float) made.getFirst().area().getX() + 8,
                    (float) made.getFirst().area().getMaxY() - 8);
        }
        var layout = new ChartLayout(
                made,
                below,
                across,
                back ? x.getUpperBound() : x.getLowerBound(),
                back ? x.getLowerBound() : x.getUpperBound(),
                null);
        for (int i = 0; i < panels.size(); i++) {
            ends(g, panels.get(i), layout, made.get(i));
        }
        ChartNotes.paint(g, look.notes(), layout, palette);
        Rectangle2D legend =
                look.legend() == null ? null : Legend.inside(g, named(), layout.curve(), look.legend(), palette);
        return layout.with(legend);
    }

    /** More names at the ends of curves could not be read. */
    private static final int MOST_ENDS = 12;

    /** The names of curves that belong to one, at their ends, or further in where others end there, too. */
    private void ends(Graphics2D g, Panel panel, ChartLayout layout, ChartLayout.Plot plot) {
        if (panel.aside.size() > MOST_ENDS) {
            return;
        }
        g.setFont(Fonts.sans(10));
        g.setPaint(palette.muted());
        var names = new CurveNames(
                plot.area(),
                Stream.concat(panel.aside.stream(), panel.curves.stream())
                        .map(c -> CurveNames.line(c.profile(), layout::pixel, plot::pixel))
                        .toList());
        for (int k = 0; k < panel.aside.size(); k++) {
            String whole = panel.aside.get(k).name();
            String name = whole.substring(whole.lastIndexOf(", ") + 1).strip();
            double wide = g.getFontMetrics().getStringBounds(name, g).getWidth();
            names.place(k, wide).ifPresent(at -> g.drawString(name, (float) at.getX(), (float) at.getY()));
        }
    }

    /** What a legend has to tell: every lane once. */
    private List<Curve> named() {
        return panels.getFirst().curves;
    }

    /** Name and unit above a plot, level: rotated text is hard to read. */
    private void caption(Graphics2D g, Rectangle2D area, String[] words) {
        g.setFont(Fonts.semibold(12));
        g.setPaint(palette.ink());
        var at = new Point2D.Double(area.getX(), area.getY() - 8);
        g.drawString(words[0], (float) at.x, (float) at.y);
        double wide = g.getFontMetrics().getStringBounds(words[0], g).getWidth();
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.muted());
        g.drawString(words[1], (float) (at.x + wide + 7), (float) at.y);
        if (!words[2].isEmpty()) {
            g.setPaint(palette.pine());
            double right = g.getFontMetrics().getStringBounds(words[2], g).getWidth();
            g.drawString(words[2], (float) (area.getMaxX() - right), (float) at.y);
        }
    }
}
