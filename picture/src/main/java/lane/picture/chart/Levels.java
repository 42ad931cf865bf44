package lane.picture.chart;

import java.util.stream.IntStream;

/**
 * What is found out once of a curve of many samples, so that each look at a part of it is quick: whether its abscissa only grows,
 * and where the least and the greatest value of each block of samples are.
 */
public final class Levels {
    private static final int BLOCK = 64;

    private final boolean grows;
    private final double[] value;
    private final int[] least;
    private final int[] greatest;

    Levels(double[] abscissa, double[] value) {
        this.value = value;
        boolean up = true;
        for (int i = 1; i < abscissa.length && up; i++) {
            up = abscissa[i] >= abscissa[i - 1];
        }
        grows = up;
        int blocks = value.length / BLOCK;
        least = new int[blocks];
        greatest = new int[blocks];
        for (int b = 0; b < blocks; b++) {
            least[b] = b * BLOCK;
            greatest[b] = b * BLOCK;
            for (int i = b * BLOCK; i < (b + 1) * BLOCK; i++) {
                least[b] = lower(i, least[b]);
                greatest[b] = higher(i, greatest[b]);
            }
        }
    }

    private int lower(int i, int than) {
        return value[i] < value[than] || Double.isNaN(value[than]) ? i : than;
    }

    private int higher(int i, int than) {
        return value[i] > value[than] || Double.isNaN(value[than]) ? i : than;
    }

    /** Whether the abscissa only grows. */
    public boolean grows() {
        return grows;
    }

    /** At most so many samples of a range, both ends in it, keeping the least and greatest of each stretch and the ends. */
    int[] thin(int first, int last, int most) {
        int n = last - first + 1;
        if (n <= most) {
            return IntStream.rangeClosed(first, last).toArray();
        }
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
                    low = lower(least[i / BLOCK], low);
                    high = higher(greatest[i / BLOCK], high);
                    i += BLOCK;
                } else {
                    low = lower(i, low);
                    high = higher(i, high);
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
