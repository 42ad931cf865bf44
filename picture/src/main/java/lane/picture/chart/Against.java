package lane.picture.chart;

import lane.check.Difference;
import lane.reading.Profile;
import lane.study.ChartLook.Strip;

/** What a lane is to the datum, other than their difference. */
final class Against {
    private Against() {}

    /**
     * The ratio, or the error in percent, at the places of a difference. A measurement that is compared at places of its own has
     * its own value there; elsewhere the lane is straight between its samples.
     *
     * @return NaN where the datum is zero, or the lane has no value
     */
    static double[] of(Profile lane, Difference d, Strip strip) {
        double[] out = new double[d.value().length];
        int from = 0;
        boolean grows = lane.size() < 2 || lane.abscissa()[lane.size() - 1] >= lane.abscissa()[0];
        for (int i = 0; i < out.length; i++) {
            double x = d.abscissa()[i];
            // Both go along the same abscissa, so the search goes on where it was.
            from = i > 0 && (d.abscissa()[i] >= d.abscissa()[i - 1]) == grows ? from : 0;
            double own = Double.NaN;
            for (int k = from; k < lane.size(); k++) {
                double a = lane.abscissa()[k];
                if (a == x) {
                    own = lane.value()[k];
                    from = k;
                    break;
                }
                if (k + 1 < lane.size() && (a - x) * (lane.abscissa()[k + 1] - x) < 0) {
                    double f = (x - a) / (lane.abscissa()[k + 1] - a);
                    own = (1 - f) * lane.value()[k] + f * lane.value()[k + 1];
                    from = k;
                    break;
                }
            }
            double datum = own - d.value()[i];
            out[i] =
                    datum == 0 ? Double.NaN : strip == Strip.RATIO ? own / datum : 100 * d.value()[i] / Math.abs(datum);
        }
        return out;
    }
}
