package lane.picture.chart;

import java.util.ArrayList;
import java.util.List;
import org.jfree.data.xy.AbstractIntervalXYDataset;

/** Curves of a plot, as arrays. */
final class CurveSet extends AbstractIntervalXYDataset {
    private static final long serialVersionUID = 1L;
    private final transient List<CurvePoints> curves = new ArrayList<>();

    void add(CurvePoints points) {
        curves.add(points);
    }

    int left() {
        return curves.stream().mapToInt(CurvePoints::left).sum();
    }

    /** The largest of all values without its sign. */
    double largest() {
        double most = 0;
        for (CurvePoints c : curves) {
            for (double v : c.y()) {
                most = Double.isFinite(v) ? Math.max(most, Math.abs(v)) : most;
            }
        }
        return most;
    }

    @Override
    public int getSeriesCount() {
        return curves.size();
    }

    @Override
    public Comparable<?> getSeriesKey(int series) {
        return series;
    }

    @Override
    public int getItemCount(int series) {
        return curves.get(series).x().length;
    }

    @Override
    public double getXValue(int series, int item) {
        return curves.get(series).x()[item];
    }

    @Override
    public double getYValue(int series, int item) {
        return curves.get(series).y()[item];
    }

    @Override
    public double getStartYValue(int series, int item) {
        return curves.get(series).low()[item];
    }

    @Override
    public double getEndYValue(int series, int item) {
        return curves.get(series).high()[item];
    }

    @Override
    public Number getX(int series, int item) {
        return getXValue(series, item);
    }

    @Override
    public Number getY(int series, int item) {
        return getYValue(series, item);
    }

    @Override
    public Number getStartX(int series, int item) {
        return getXValue(series, item);
    }

    @Override
    public Number getEndX(int series, int item) {
        return getXValue(series, item);
    }

    @Override
    public Number getStartY(int series, int item) {
        return getStartYValue(series, item);
    }

    @Override
    public Number getEndY(int series, int item) {
        return getEndYValue(series, item);
    }

    @Override
    public double getStartXValue(int series, int item) {
        return getXValue(series, item);
    }

    @Override
    public double getEndXValue(int series, int item) {
        return getXValue(series, item);
    }
}
