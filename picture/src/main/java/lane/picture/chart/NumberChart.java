package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import lane.estimate.Estimate;
import lane.picture.Fonts;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.ChartLook;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;

/**
 * A number of each lane as a mark on one axis, with its uncertainty, and the datum as a line.
 *
 * @param rows of the lanes that have the number
 * @param datum in SI units; NaN for none
 */
public record NumberChart(String title, Unit unit, List<Row> rows, double datum, String datumName, ChartLook look) {
    /** A lane's number. */
    public record Row(String name, LaneStyle style, Estimate number) {}

    private static final double ROW = 34;
    private static final double TOP = 44;
    private static final double BOTTOM = 40;
    private static final int TICKS = 7;

    public static NumberChart of(Study study, Results results, Reading reading, Palette palette) {
        List<Row> rows = new ArrayList<>();
        List<LaneStyle> styles = LaneStyle.of(study.sources(), palette);
        ChartLook look = study.chart(reading.id());
        String datumId = ReadingChart.check(study, reading)
                .map(c -> c.rule().datum())
                .filter(d -> !d.isBlank())
                .orElse(study.datum());
        double datum = Double.NaN;
        String datumName = "";
        for (int i = 0; i < styles.size(); i++) {
            Source source = study.sources().get(i);
            Outcome made = results.outcome(reading.id(), source.id());
            if (study.off().contains(source.id()) || made.numbers().isEmpty()) {
                continue;
            }
            Estimate number = made.numbers().getFirst();
            rows.add(new Row(source.name(), styles.get(i).looking(look.lanes().get(source.id())), number));
            if (source.id().equals(datumId)) {
                datum = number.value();
                datumName = source.name();
            }
        }
        return new NumberChart(reading.name(), results.unit(reading.id()), rows, datum, datumName, look);
    }

    /** How high it wants to be. */
    public double height() {
        return look.text().factor() * (TOP + BOTTOM + ROW * rows.size());
    }

    /** Draws it. */
    public void paint(Graphics2D g, double width, double height, Palette palette) {
        double f = look.text().factor();
        AffineTransform before = g.getTransform();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.scale(f, f);
        g.setPaint(palette.sheet());
        g.fill(new Rectangle2D.Double(0, 0, width / f, height / f));
        painted(g, width / f, height / f, palette);
        g.setTransform(before);
    }

    private void painted(Graphics2D g, double width, double height, Palette palette) {
        g.setFont(Fonts.sans(12));
        double names = 60;
        double values = 40;
        for (Row r : rows) {
            names = Math.max(
                    names, g.getFontMetrics().getStringBounds(r.name, g).getWidth());
            values = Math.max(
                    values,
                    g.getFontMetrics().getStringBounds(text(r.number), g).getWidth());
        }
        double left = 16 + Math.min(names, width / 3) + 12;
        double right = width - 16 - values - 12;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (Row r : rows) {
            double half = half(r.number);
            double v = unit.fromSi(r.number.value());
            low = Double.isFinite(v) ? Math.min(low, v - half) : low;
            high = Double.isFinite(v) ? Math.max(high, v + half) : high;
        }
        if (!(low <= high)) {
            low = 0;
            high = 1;
        }
        double margin = high > low ? 0.08 * (high - low) : Math.max(1e-3 * Math.abs(high), 1e-300);
        low -= margin;
        high += margin;
        double bottom = Math.min(height - BOTTOM, TOP + ROW * rows.size());
        g.setFont(Fonts.semibold(12));
        g.setPaint(palette.ink());
        g.drawString(title, 16, 22);
        double wide = g.getFontMetrics().getStringBounds(title, g).getWidth();
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.muted());
        g.drawString(unit.label(), (float) (16 + wide + 7), 22);
        for (double t : Ticks.of(low, high, TICKS)) {
            double x = left + (t - low) / (high - low) * (right - left);
            g.setPaint(palette.grid());
            g.setStroke(new BasicStroke(1));
            g.draw(new Line2D.Double(x, TOP - 8, x, bottom));
            String word = Ticks.text(t, low, high);
            g.setPaint(palette.muted());
            g.drawString(
                    word,
                    (float) (x - g.getFontMetrics().getStringBounds(word, g).getWidth() / 2),
                    (float) bottom + 16);
        }
        if (!Double.isNaN(datum)) {
            double x = left + (unit.fromSi(datum) - low) / (high - low) * (right - left);
            g.setPaint(palette.ink());
            g.setStroke(new BasicStroke(2.2f));
            g.draw(new Line2D.Double(x, TOP - 8, x, bottom));
        }
        double tall = (bottom - TOP) / Math.max(1, rows.size());
        for (int i = 0; i < rows.size(); i++) {
            row(g, rows.get(i), TOP + tall * (i + 0.5), left, right, low, high, palette);
        }
    }

    private void row(
            Graphics2D g, Row r, double y, double left, double right, double low, double high, Palette palette) {
        g.setFont(Fonts.sans(12));
        g.setPaint(palette.ink());
        g.drawString(r.name, 16, (float) y + 4);
        g.drawString(text(r.number), (float) right + 12, (float) y + 4);
        double v = unit.fromSi(r.number.value());
        if (!Double.isFinite(v)) {
            return;
        }
        double x = left + (v - low) / (high - low) * (right - left);
        double half = half(r.number) / (high - low) * (right - left);
        g.setPaint(r.style.colour());
        if (half > 0) {
            g.setStroke(new BasicStroke(1.3f));
            g.draw(new Line2D.Double(x - half, y, x + half, y));
            g.draw(new Line2D.Double(x - half, y - 4, x - half, y + 4));
            g.draw(new Line2D.Double(x + half, y - 4, x + half, y + 4));
        }
        var marker = AffineTransform.getTranslateInstance(x, y).createTransformedShape(r.style.marker());
        g.setPaint(r.style.hollow() ? palette.sheet() : r.style.colour());
        g.fill(marker);
        g.setPaint(r.style.colour());
        g.setStroke(new BasicStroke(1.5f));
        g.draw(marker);
    }

    private double half(Estimate e) {
        double half = e.uncertainty().half();
        return half > 0 ? unit.differenceFromSi(half) : 0;
    }

    private String text(Estimate e) {
        return Double.isFinite(e.value()) ? Ticks.number(unit.fromSi(e.value()), half(e)) : "no value";
    }
}
