package lane.picture.chart;

import java.awt.geom.Rectangle2D;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Where things were drawn, in pixels. The strip of differences has no height where there are none.
 *
 * @param plots the panels, the first at the top
 * @param across what the abscissa shows
 * @param left and {@code right}: places along the abscissa at the plots' edges
 * @param legend where it was drawn within the first plot; null where it was not
 */
public record ChartLayout(
        List<Plot> plots,
        Rectangle2D strip,
        AxisMap across,
        double left,
        double right,
        @Nullable Rectangle2D legend) {
    public Rectangle2D curve() {
        return plots.getFirst().area();
    }

    /** The abscissa under a pixel, in the unit shown. */
    public double abscissa(double x) {
        return across.shown(place(x));
    }

    /** The place along the abscissa under a pixel. */
    public double place(double x) {
        return left + (x - curve().getX()) / curve().getWidth() * (right - left);
    }

    /** The pixel of an abscissa in SI units. */
    public double pixel(double si) {
        return curve().getX() + (across.place(si) - left) / (right - left) * curve().getWidth();
    }

    /** The same with a legend in it. */
    ChartLayout with(@Nullable Rectangle2D where) {
        return new ChartLayout(plots, strip, across, left, right, where);
    }

    /** The same in a picture so many times as large. */
    ChartLayout scaled(double f) {
        return f == 1
                ? this
                : new ChartLayout(
                        plots.stream()
                                .map(p -> new Plot(scaled(p.area, f), p.up, p.y))
                                .toList(),
                        scaled(strip, f),
                        across,
                        left,
                        right,
                        legend == null ? null : scaled(legend, f));
    }

    private static Rectangle2D scaled(Rectangle2D r, double f) {
        return new Rectangle2D.Double(f * r.getX(), f * r.getY(), f * r.getWidth(), f * r.getHeight());
    }

    /**
     * A plot as it was drawn.
     *
     * @param area in pixels
     * @param y places along its axis at the lower and the upper edge
     */
    public record Plot(Rectangle2D area, AxisMap up, double[] y) {
        /** Where a value in SI units lies, from the top of the picture. */
        public double pixel(double si) {
            return area.getMaxY() - (up.place(si) - y[0]) / (y[1] - y[0]) * area.getHeight();
        }

        /** The place along the axis under a pixel. */
        public double place(double pixel) {
            return y[0] + (area.getMaxY() - pixel) / area.getHeight() * (y[1] - y[0]);
        }
    }
}
