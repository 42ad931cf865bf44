package lane.reading;

import java.util.Arrays;

/** Values of a curve between its samples. */
public final class Between {
    private Between() {}

    /** Whether an abscissa only grows. */
    public static boolean grows(double[] abscissa) {
        boolean up = true;
        for (int i = 0; i < abscissa.length && up; i++) {
            up = Double.isFinite(abscissa[i]) && (i == 0 || abscissa[i] > abscissa[i - 1]);
        }
        return up;
    }

    /** What {@link #between} gives along an abscissa that grows everywhere, found in few steps. */
    public static double sought(double[] abscissa, double[] value, double at) {
        int i = Arrays.binarySearch(abscissa, at + 0.0);
        if (i >= 0) {
            return Double.isFinite(value[i]) ? value[i] : Double.NaN;
        }
        int b = -i - 1;
        if (b > 0 && abscissa[b - 1] == at) {
            // Zero, with the other sign.
            return Double.isFinite(value[b - 1]) ? value[b - 1] : Double.NaN;
        }
        return b == 0 || b == abscissa.length
                ? Double.NaN
                : between(Arrays.copyOfRange(abscissa, b - 1, b + 1), Arrays.copyOfRange(value, b - 1, b + 1), at);
    }

    /**
     * Linear between the two points around a place, in whatever direction they run; of several stretches the first that holds it.
     * NaN beside the curve and where one of the two has no value.
     */
    public static double between(double[] abscissa, double[] value, double at) {
        for (int i = 0; i < abscissa.length; i++) {
            if (abscissa[i] == at && Double.isFinite(value[i])) {
                return value[i];
            }
        }
        for (int i = 1; i < abscissa.length; i++) {
            double a = abscissa[i - 1];
            double b = abscissa[i];
            if ((a < at && at < b || b < at && at < a) && Double.isFinite(value[i - 1]) && Double.isFinite(value[i])) {
                return value[i - 1] + (at - a) / (b - a) * (value[i] - value[i - 1]);
            }
        }
        return Double.NaN;
    }
}
