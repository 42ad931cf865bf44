package lane.picture.field;

import java.util.Arrays;

/**
 * What is farthest in each tile of some rows of a picture that is being drawn, to tell what is hidden. It is looked up again only
 * when what is known does not hide; what has been drawn since can only be nearer, so the answer "hidden" always holds.
 */
final class Tiles {
    private static final int SIDE = 8;

    private final int width;
    private final int top;
    private final int bottom;
    private final int columns;
    private final long[] keys;
    private final int[] farthest;

    /** For rows from the first to before the second. */
    Tiles(int width, int top, int bottom, long[] keys) {
        this.width = width;
        this.top = top;
        this.bottom = bottom;
        this.keys = keys;
        columns = (width + SIDE - 1) / SIDE;
        farthest = new int[columns * ((bottom - top + SIDE - 1) / SIDE)];
        Arrays.fill(farthest, Integer.MAX_VALUE);
    }

    /** Whether all pixels of some columns and rows, each to before its second, are nearer than a depth. */
    boolean hide(int x0, int x1, int y0, int y1, int depth) {
        for (int row = (y0 - top) / SIDE; top + row * SIDE < y1; row++) {
            for (int column = x0 / SIDE; column * SIDE < x1; column++) {
                int tile = row * columns + column;
                if (farthest[tile] >= depth && look(tile, row, column) >= depth) {
                    return false;
                }
            }
        }
        return true;
    }

    private int look(int tile, int row, int column) {
        long far = Long.MIN_VALUE;
        int end = Math.min(width, (column + 1) * SIDE);
        for (int y = top + row * SIDE; y < Math.min(bottom, top + (row + 1) * SIDE); y++) {
            for (int x = column * SIDE; x < end; x++) {
                far = Math.max(far, keys[y * width + x]);
            }
        }
        farthest[tile] = (int) (far >> 32);
        return farthest[tile];
    }
}
