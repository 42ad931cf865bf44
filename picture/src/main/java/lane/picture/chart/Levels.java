package lane.picture.chart;

import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.stream.IntStream;
import lane.reading.Samples;
import org.jspecify.annotations.Nullable;

/**
 * What is found out once of a curve of many samples, so that each look at a part of it is quick: whether its abscissa only grows,
 * and where the least and the greatest value of each block of samples are. It is found when somebody draws the curve, and
 * remembered as long as its samples are held.
 */
public final class Levels {
    private static final int BLOCK = 64;

    /** By the samples themselves, which these do not hold. */
    private static final Map<Samples, Blocks> KNOWN = Collections.synchronizedMap(new WeakHashMap<>());

    private final double[] abscissa;
    private final Samples samples;
    private @Nullable Blocks found;

    /**
     * @param least where the least value of each block is, and {@code greatest} the greatest
     */
    private record Blocks(double[] abscissa, boolean grows, double[] value, int[] least, int[] greatest) {
        static Blocks of(double[] abscissa, double[] value) {
            boolean up = true;
            for (int i = 1; i < abscissa.length && up; i++) {
                up = abscissa[i] >= abscissa[i - 1];
            }
            int blocks = value.length / BLOCK;
            var out = new Blocks(abscissa, up, value, new int[blocks], new int[blocks]);
            for (int b = 0; b < blocks; b++) {
                out.least[b] = b * BLOCK;
                out.greatest[b] = b * BLOCK;
                for (int i = b * BLOCK; i < (b + 1) * BLOCK; i++) {
                    out.least[b] = out.lower(i, out.least[b]);
                    out.greatest[b] = out.higher(i, out.greatest[b]);
                }
            }
            return out;
        }

        int lower(int i, int than) {
            return value[i] < value[than] || Double.isNaN(value[than]) ? i : than;
        }

        int higher(int i, int than) {
            return value[i] > value[than] || Double.isNaN(value[than]) ? i : than;
        }
    }

    Levels(double[] abscissa, Samples samples) {
        this.abscissa = abscissa;
        this.samples = samples;
    }

    private synchronized Blocks found() {
        Blocks known = found == null ? KNOWN.get(samples) : found;
        if (known == null || known.abscissa != abscissa) {
            known = Blocks.of(abscissa, samples.now());
            KNOWN.put(samples, known);
        }
        found = known;
        return known;
    }

    /** Whether the abscissa only grows. */
    public boolean grows() {
        return found().grows;
    }

    /** At most so many samples of a range, both ends in it, keeping the least and greatest of each stretch and the ends. */
    int[] thin(int first, int last, int most) {
        int n = last - first + 1;
        if (n <= most) {
            return IntStream.rangeClosed(first, last).toArray();
        }
        Blocks in = found();
        int stretches = Math.max(1, most / 2);
        int[] keep = new int[2 * stretches];
        for (int s = 0; s < stretches; s++) {
            int from = first + (int) ((long) s * n / stretches);
            int to = first + (int) ((long) (s + 1) * n / stretches);
            int low = from;
            int high = from;
            int i = from;
            while (i < to) {
                if (i % BLOCK == 0 && i + BLOCK <= to) {
                    low = in.lower(in.least[i / BLOCK], low);
                    high = in.higher(in.greatest[i / BLOCK], high);
                    i += BLOCK;
                } else {
                    low = in.lower(i, low);
                    high = in.higher(i, high);
                    i++;
                }
            }
            keep[2 * s] = Math.min(low, high);
            keep[2 * s + 1] = Math.max(low, high);
        }
        // Both ends stay, so that the axis does not shrink.
        keep[0] = first;
        keep[keep.length - 1] = last;
        return IntStream.of(keep).distinct().toArray();
    }
}
