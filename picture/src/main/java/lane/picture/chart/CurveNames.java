package lane.picture.chart;

import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import lane.reading.Profile;

/**
 * Where names of curves stand on a plot: above the curve, at its right end if nothing else is there, else as far right as one can
 * tell whose name it is, else where it covers no other name.
 */
final class CurveNames {
    private static final double ROW = 12;
    /** How far another curve has to be from a name. */
    private static final double APART = 11;

    private static final double GAP = 4;
    private static final double LIFT = 3;
    /** Places that are tried along a curve. */
    private static final int PLACES = 16;

    /** A curve in pixels, from left to right; gaps are not numbers. */
    record Line(double[] x, double[] y) {
        /** Its height where it passes a place; NaN where it does not. */
        double at(double px) {
            for (int i = 0; i + 1 < x.length; i++) {
                if (x[i] <= px && px <= x[i + 1]) {
                    return x[i + 1] == x[i] ? y[i] : y[i] + (px - x[i]) / (x[i + 1] - x[i]) * (y[i + 1] - y[i]);
                }
            }
            return Double.NaN;
        }

        /** The rightmost place within bounds where it has a height. */
        double end(Rectangle2D area) {
            for (int i = x.length - 1; i >= 0; i--) {
                if (x[i] <= area.getMaxX() && Double.isFinite(y[i])) {
                    return x[i];
                }
            }
            return Double.NaN;
        }
    }

    /** More points than these of a curve tell where its name stands no better. */
    private static final int ENOUGH = 1000;

    static Line line(Profile p, DoubleUnaryOperator x, DoubleUnaryOperator y) {
        double[] abscissa = p.abscissa();
        double[] value = p.value();
        int n = Math.min(abscissa.length, ENOUGH);
        double[] px = new double[n];
        double[] py = new double[n];
        boolean back = n > 1 && x.applyAsDouble(abscissa[0]) > x.applyAsDouble(abscissa[abscissa.length - 1]);
        for (int i = 0; i < n; i++) {
            int k = n == 1 ? 0 : (int) ((long) i * (abscissa.length - 1) / (n - 1));
            px[back ? n - 1 - i : i] = x.applyAsDouble(abscissa[k]);
            py[back ? n - 1 - i : i] = y.applyAsDouble(value[k]);
        }
        return new Line(px, py);
    }

    private final Rectangle2D area;
    private final List<Line> all;
    private final List<Rectangle2D> taken = new ArrayList<>();

    CurveNames(Rectangle2D area, List<Line> all) {
        this.area = area;
        this.all = all;
    }

    /**
     * Where the name of a curve begins, on its base line; it is taken then. Empty where there is no room.
     *
     * @param k which curve
     * @param wide how wide its name is
     */
    Optional<Point2D> place(int k, double wide) {
        double end = all.get(k).end(area);
        for (boolean alone : new boolean[] {true, false}) {
            for (int step = 0; step < PLACES; step++) {
                double right = end - step * area.getWidth() / PLACES;
                double y = highest(all.get(k), right - wide - GAP, right) - LIFT;
                var box = new Rectangle2D.Double(right - wide - GAP, y - ROW + LIFT, wide + GAP, ROW);
                boolean free = area.contains(area.getCenterX(), y)
                        && box.getMinX() >= area.getMinX()
                        && taken.stream().noneMatch(box::intersects);
                if (free && (!alone || alone(k, box))) {
                    taken.add(box);
                    return Optional.of(new Point2D.Double(box.getX(), y));
                }
            }
        }
        return Optional.empty();
    }

    /** The highest place of a curve above a name, so that it does not strike it out; NaN where it has none at its right end. */
    private static double highest(Line line, double left, double right) {
        double y = line.at(right);
        for (double px : new double[] {left, (left + right) / 2}) {
            double there = line.at(px);
            y = there < y ? there : y;
        }
        return y;
    }

    /** Whether no other curve is near a name. */
    private boolean alone(int k, Rectangle2D box) {
        double y = box.getMaxY();
        for (int o = 0; o < all.size(); o++) {
            for (double px : new double[] {box.getMinX(), box.getCenterX(), box.getMaxX()}) {
                if (o != k && Math.abs(all.get(o).at(px) - y) < APART) {
                    return false;
                }
            }
        }
        return true;
    }
}
