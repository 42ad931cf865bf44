package lane.picture.field;

import java.util.Arrays;
import java.util.function.IntConsumer;
import lane.base.Parallel;

/** Where the runs of a surface's triangles lie in a picture, and in which order they are drawn best. */
final class Runs {
    /** Runs that are drawn one after the other, as they lie in memory. */
    private static final int TOGETHER = 16;

    private final int count;
    /** Pairs of first column or row and that behind the last. */
    private final int[] columns;

    private final int[] rows;
    /** Depth of the nearest corner of a run's box, as a number that grows with it. */
    private final int[] near;

    private final int[] order;

    Runs(double[] boxes, Projection projection) {
        count = boxes.length / 6;
        columns = new int[2 * count];
        rows = new int[2 * count];
        near = new int[count];
        Parallel.forBlocks(count, 1 << 10, (block, from, to) -> {
            for (int run = from; run < to; run++) {
                int at = 6 * run;
                columns[2 * run] = projection.column(projection.right(boxes, at, false));
                columns[2 * run + 1] = projection.column(projection.right(boxes, at, true));
                rows[2 * run] = projection.row(projection.down(boxes, at, false));
                rows[2 * run + 1] = projection.row(projection.down(boxes, at, true));
                near[run] = Visibility.ordered(projection.depth(boxes, at, false));
            }
        });
        order = nearFirst();
    }

    /** What is hidden is sooner found to be so when the nearest is drawn first. */
    private int[] nearFirst() {
        long[] depth = new long[Parallel.blocks(count, TOGETHER)];
        Arrays.fill(depth, Long.MAX_VALUE);
        for (int run = 0; run < count; run++) {
            int b = run / TOGETHER;
            depth[b] = Math.min(depth[b], (long) near[run] << 32 | b);
        }
        Arrays.sort(depth);
        return Arrays.stream(depth).mapToInt(d -> (int) d).toArray();
    }

    /** Goes through those with rows from the first to before the second that are not hidden when it is their turn. */
    void forShown(int top, int bottom, Tiles tiles, IntConsumer work) {
        for (int b : order) {
            for (int run = b * TOGETHER; run < Math.min(count, (b + 1) * TOGETHER); run++) {
                int y0 = Math.max(top, rows[2 * run]);
                int y1 = Math.min(bottom, rows[2 * run + 1]);
                if (y0 < y1 && !tiles.hide(columns[2 * run], columns[2 * run + 1], y0, y1, near[run])) {
                    work.accept(run);
                }
            }
        }
    }
}
