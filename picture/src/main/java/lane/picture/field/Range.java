package lane.picture.field;

import java.util.Arrays;
import java.util.List;

/**
 * The ends of a colour scale, in SI units.
 *
 * @param signed whether it lies about zero, so that the two sides get two hues
 */
public record Range(double least, double greatest, boolean signed) {
    /** A negative side smaller than this share of the positive one is round-off, as on a wall at rest. */
    private static final double ROUND_OFF = 1e-3;

    /** How the ends are chosen. */
    public enum Kind {
        /** From the least to the greatest value. */
        WHOLE,
        /** From the 2nd to the 98th percentile. */
        ROBUST
    }

    /** The range of values, NaN left out; 0 to 1 where there is none. */
    public static Range of(List<float[]> values, Kind kind) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (float[] array : values) {
            for (float v : array) {
                if (Float.isFinite(v)) {
                    least = Math.min(least, v);
                    greatest = Math.max(greatest, v);
                }
            }
        }
        if (least > greatest) {
            return new Range(0, 1, false);
        }
        if (kind == Kind.ROBUST) {
            float[] all = finite(values);
            Arrays.parallelSort(all);
            least = all[(int) Math.round(0.02 * (all.length - 1))];
            greatest = all[(int) Math.round(0.98 * (all.length - 1))];
        }
        return about(least, greatest);
    }

    /** A range made even about zero where both signs are in it. */
    public static Range about(double least, double greatest) {
        boolean signed = least < -ROUND_OFF * greatest && greatest > 0;
        double most = Math.max(greatest, -least);
        return signed ? new Range(-most, most, true) : new Range(least, greatest, false);
    }

    private static float[] finite(List<float[]> values) {
        int n = 0;
        for (float[] array : values) {
            for (float v : array) {
                n += Float.isFinite(v) ? 1 : 0;
            }
        }
        float[] all = new float[n];
        int at = 0;
        for (float[] array : values) {
            for (float v : array) {
                if (Float.isFinite(v)) {
                    all[at++] = v;
                }
            }
        }
        return all;
    }
}
