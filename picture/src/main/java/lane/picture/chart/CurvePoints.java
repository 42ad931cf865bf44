package lane.picture.chart;

import lane.study.ChartLook.Scale;

/**
 * Points of a curve at their places along both axes, as many as can be told apart in what is looked at, and no spike lost.
 *
 * @param low and {@code high}: ends of what is known of a value
 * @param left how many values have no place on a logarithmic axis
 */
record CurvePoints(double[] x, double[] y, double[] low, double[] high, int left) {
    /** A curve alone may have so many. */
    static final int MOST = 3000;

    /**
     * @param half and {@code above}: half-widths in SI units; empty for none
     * @param from and {@code to}: places along x that are looked at; NaN for all
     */
    static CurvePoints of(
            double[] abscissa,
            double[] value,
            double[] half,
            double[] above,
            AxisMap across,
            AxisMap up,
            double from,
            double to,
            int most,
            Levels levels) {
        double[] xRange = range(across, abscissa);
        double[] yRange = range(up, value);
        int[] ends = seen(abscissa, across, xRange, from, to, levels.grows());
        int[] kept = levels.thin(ends[0], ends[1], most);
        int n = kept.length;
        double[] x = new double[n];
        double[] y = new double[n];
        double[] low = new double[n];
        double[] high = new double[n];
        int left = 0;
        for (int k = 0; k < n; k++) {
            int i = kept[k];
            x[k] = place(across, xRange, abscissa[i]);
            y[k] = place(up, yRange, value[i]);
            double down = half.length == value.length && half[i] > 0 ? half[i] : 0;
            double rise = above.length == value.length && above[i] > 0 ? above[i] : down;
            low[k] = down > 0 ? place(up, yRange, value[i] - down) : y[k];
            high[k] = rise > 0 ? place(up, yRange, value[i] + rise) : y[k];
            left += Double.isFinite(value[i]) && Double.isNaN(y[k]) ? 1 : 0;
        }
        return new CurvePoints(x, y, low, high, left);
    }

    /** Least and greatest, by which shares are told; empty where none are. */
    private static double[] range(AxisMap map, double[] si) {
        if (map.scale() != Scale.SHARE) {
            return new double[0];
        }
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : si) {
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
        }
        return new double[] {least, greatest};
    }

    static double place(AxisMap map, double[] range, double si) {
        return range.length == 0
                ? map.place(si)
                : range[1] > range[0] ? (si - range[0]) / (range[1] - range[0]) : si == range[0] ? 0.5 : Double.NaN;
    }

    /** The first and last sample of what is looked at, with one on each side; those of all of a curve that turns back. */
    private static int[] seen(
            double[] abscissa, AxisMap across, double[] range, double from, double to, boolean grows) {
        int n = abscissa.length;
        if (Double.isNaN(from) || !grows) {
            return new int[] {0, n - 1};
        }
        return new int[] {
            Math.max(0, before(abscissa, across, range, from) - 1), Math.min(n - 1, before(abscissa, across, range, to))
        };
    }

    /** How many samples lie before a place; one without a place lies before all. */
    private static int before(double[] abscissa, AxisMap across, double[] range, double place) {
        int low = 0;
        int high = abscissa.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (place(across, range, abscissa[middle]) >= place) {
                high = middle;
            } else {
                low = middle + 1;
            }
        }
        return low;
    }
}
