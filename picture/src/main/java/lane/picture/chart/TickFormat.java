package lane.picture.chart;

import java.text.FieldPosition;
import java.text.NumberFormat;
import java.text.ParsePosition;
import lane.base.Figures;
import lane.picture.Ticks;
import org.jfree.chart.axis.NumberAxis;

/** Writes the ticks of an axis as all numbers of the program are written, all of one axis alike. */
final class TickFormat extends NumberFormat {
    private static final long serialVersionUID = 1L;
    private final transient NumberAxis axis;

    TickFormat(NumberAxis axis) {
        this.axis = axis;
    }

    @Override
    public StringBuffer format(double v, StringBuffer to, FieldPosition position) {
        double step = axis.getTickUnit().getSize();
        double most = Math.max(Math.abs(axis.getLowerBound()), Math.abs(axis.getUpperBound()));
        Figures figures = Ticks.figures(step, most);
        return to.append(figures.whole(Math.abs(v) < 1e-6 * step ? 0 : v));
    }

    @Override
    public StringBuffer format(long v, StringBuffer to, FieldPosition position) {
        return format((double) v, to, position);
    }

    @Override
    public Number parse(String text, ParsePosition position) {
        throw new UnsupportedOperationException("nobody types into an axis");
    }
}
