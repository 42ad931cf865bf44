package lane.desk.readings;

import lane.picture.chart.ProfileChart;
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

    /** The value of that sample; measured points only near one of them. */
    static double value(ProfileChart.Curve c, double x) {
        Profile p = c.profile();
        boolean points = c.style().hollow();
        int best = sample(c, x);
        double span = Math.abs(p.abscissa()[p.size() - 1] - p.abscissa()[0]);
        return best < 0 || points && Math.abs(p.abscissa()[best] - x) > 0.02 * span ? Double.NaN : p.value()[best];
    }
}
