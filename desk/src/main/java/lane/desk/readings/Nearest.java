package lane.desk.readings;

import lane.picture.chart.ProfileChart;
import lane.reading.Between;
import lane.reading.Profile;

/** What a curve is near an abscissa. */
final class Nearest {
    private Nearest() {}

    /** The sample that lies nearest; -1 where none has an abscissa. */
    static int sample(ProfileChart.Curve c, double x) {
        double[] a = c.profile().abscissa();
        int n = a.length;
        if (c.levels().grows() && n > 0) {
            int at = java.util.Arrays.binarySearch(a, x);
            int right = at >= 0 ? at : -at - 1;
            return right == 0 ? 0 : right == n ? n - 1 : x - a[right - 1] <= a[right] - x ? right - 1 : right;
        }
        int best = -1;
        for (int i = 0; i < n; i++) {
            if (!Double.isNaN(a[i]) && (best < 0 || Math.abs(a[i] - x) < Math.abs(a[best] - x))) {
                best = i;
            }
        }
        return best;
    }

    /** Of the whole abscissa, within which rounding leaves a place on the first or the last sample. */
    private static final double ROUNDING = 1e-9;

    /**
     * The value there: on the straight line between two samples, as it is drawn, and none before the first, behind the last or
     * beside a gap; of measured points only that of one that is near.
     */
    static double value(ProfileChart.Curve c, double x) {
        Profile p = c.profile();
        double[] a = p.abscissa();
        int best = sample(c, x);
        if (best < 0) {
            return Double.NaN;
        }
        double away = Math.abs(a[best] - x);
        double span = Math.abs(a[p.size() - 1] - a[0]);
        if (c.style().hollow()) {
            return away > 0.02 * span ? Double.NaN : p.value()[best];
        }
        if (away <= ROUNDING * span) {
            return p.value()[best];
        }
        return c.levels().grows() ? Between.sought(a, p.value(), x) : Between.between(a, p.value(), x);
    }
}
