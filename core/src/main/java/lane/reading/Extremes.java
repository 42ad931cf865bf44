package lane.reading;

import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;

/**
 * How many of many values there are, and where the least and the greatest stand, found once for an array: lists and ledgers of thousands of histories ask
 * for them over and over.
 *
 * @param least the first place of the least value; -1 where there is none
 * @param greatest the first place of the greatest
 * @param finite how many are finite
 */
public record Extremes(int least, int greatest, int finite) {
    /** Below this they are found as quickly as they are looked up. */
    private static final int MANY = 10_000;

    /** By the arrays themselves, as long as somebody else holds them. */
    private static final Map<double[], Extremes> KNOWN = Collections.synchronizedMap(new WeakHashMap<>());

    /** @param values NaN where absent; must not change */
    public static Extremes of(double[] values) {
        return values.length < MANY ? found(values) : KNOWN.computeIfAbsent(values, Extremes::found);
    }

    private static Extremes found(double[] value) {
        int least = -1;
        int greatest = -1;
        int finite = 0;
        double low = Double.NaN;
        double high = Double.NaN;
        for (int i = 0; i < value.length; i++) {
            double v = value[i];
            // Not so for NaN alone, with which the first compares as well.
            if (!(v >= low) && !Double.isNaN(v)) {
                low = v;
                least = i;
            }
            if (!(v <= high) && !Double.isNaN(v)) {
                high = v;
                greatest = i;
            }
            finite += Double.isFinite(v) ? 1 : 0;
        }
        return new Extremes(least, greatest, finite);
    }
}
