package lane.reading;

import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;

/**
 * Where the least and the greatest of many values stand, found once for an array: lists and ledgers of thousands of histories ask
 * for them over and over.
 *
 * @param least the first place of the least value; -1 where there is none
 * @param greatest the first place of the greatest
 */
record Extremes(int least, int greatest) {
    /** Below this they are found as quickly as they are looked up. */
    private static final int MANY = 10_000;

    /** By the arrays themselves, as long as somebody else holds them. */
    private static final Map<double[], Extremes> KNOWN = Collections.synchronizedMap(new WeakHashMap<>());

    /** @param values NaN where absent; must not change */
    static Extremes of(double[] values) {
        return values.length < MANY ? found(values) : KNOWN.computeIfAbsent(values, Extremes::found);
    }

    private static Extremes found(double[] value) {
        int least = -1;
        int greatest = -1;
        for (int i = 0; i < value.length; i++) {
            if (!Double.isNaN(value[i])) {
                least = least < 0 || value[i] < value[least] ? i : least;
                greatest = greatest < 0 || value[i] > value[greatest] ? i : greatest;
            }
        }
        return new Extremes(least, greatest);
    }
}
