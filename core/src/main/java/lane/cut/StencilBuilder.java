package lane.cut;

import java.util.Arrays;

/** Collects a stencil point by point. */
final class StencilBuilder {
    private int[] start;
    private int[] node;
    private double[] share;
    private int points;
    private int entries;

    StencilBuilder(int expected) {
        start = new int[Math.max(2, expected + 1)];
        node = new int[Math.max(4, 2 * expected)];
        share = new double[node.length];
    }

    StencilBuilder add(int n, double s) {
        if (entries == node.length) {
            node = Arrays.copyOf(node, 2 * entries);
            share = Arrays.copyOf(share, 2 * entries);
        }
        node[entries] = n;
        share[entries++] = s;
        return this;
    }

    /** Adds the entries of a point of another stencil, times a factor. */
    StencilBuilder copy(Stencil from, int point, double factor) {
        for (int k = from.start()[point]; k < from.start()[point + 1]; k++) {
            add(from.node()[k], factor * from.share()[k]);
        }
        return this;
    }

    /** Ends the point that entries were added to. */
    void next() {
        if (points + 2 > start.length) {
            start = Arrays.copyOf(start, 2 * start.length);
        }
        start[++points] = entries;
    }

    Stencil build() {
        return new Stencil(
                Arrays.copyOf(start, points + 1), Arrays.copyOf(node, entries), Arrays.copyOf(share, entries));
    }
}
