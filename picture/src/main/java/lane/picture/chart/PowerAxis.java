package lane.picture.chart;

import java.awt.Graphics2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import lane.base.Figures;
import org.jfree.chart.axis.AxisState;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.axis.NumberTick;
import org.jfree.chart.axis.TickType;
import org.jfree.chart.ui.RectangleEdge;
import org.jfree.chart.ui.TextAnchor;
import org.jspecify.annotations.Nullable;

/** A logarithmic axis: places along it are powers of ten. */
final class PowerAxis extends NumberAxis {
    private static final long serialVersionUID = 1L;
    private static final String RAISED = "⁰¹²³⁴⁵⁶⁷⁸⁹";
    private static final int MOST = 9;

    PowerAxis(@Nullable String label) {
        super(label);
    }

    @Override
    @SuppressWarnings("rawtypes")
    public List refreshTicks(Graphics2D g, AxisState state, Rectangle2D area, RectangleEdge edge) {
        double low = getRange().getLowerBound();
        double high = getRange().getUpperBound();
        boolean across = RectangleEdge.isTopOrBottom(edge);
        TextAnchor anchor = across ? TextAnchor.TOP_CENTER : TextAnchor.CENTER_RIGHT;
        List<NumberTick> ticks = new ArrayList<>();
        double[] steps = high - low < 0.7
                ? new double[] {1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 7, 8, 9}
                : high - low < 2.2 ? new double[] {1, 2, 5} : new double[] {1};
        int every = (int) Math.max(1, Math.ceil((high - low) / MOST));
        for (int power = (int) Math.floor(low); power <= high; power++) {
            for (double step : steps) {
                double at = power + Math.log10(step);
                if (at >= low - 1e-9 && at <= high + 1e-9) {
                    boolean named = Math.floorMod(power, every) == 0;
                    ticks.add(new NumberTick(TickType.MAJOR, at, named ? text(power, step) : "", anchor, anchor, 0));
                }
            }
        }
        return ticks;
    }

    /** Plain between a thousandth and ten thousand, else as a power of ten. */
    static String text(int power, double step) {
        if (power >= -3 && power <= 3) {
            double v = Math.round(step * 10) * Math.pow(10, power - 1.0);
            return Figures.of(v, 2).plain(v);
        }
        String raised = String.valueOf(Math.abs(power))
                .chars()
                .mapToObj(c -> String.valueOf(RAISED.charAt(c - '0')))
                .collect(java.util.stream.Collectors.joining());
        String ten = "10" + (power < 0 ? "⁻" : "") + raised;
        return step == 1 ? ten : Figures.of(step, 2).plain(step) + "·" + ten;
    }
}
