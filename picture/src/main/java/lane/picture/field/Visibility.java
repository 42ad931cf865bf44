package lane.picture.field;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Finds what is nearest at each pixel of some rows, in one pass over the triangles: each is drawn by edge functions at pixel
 * centres with a top-left rule, so that a pixel on a shared edge belongs to one triangle. A pixel holds one number, depth
 * above and triangle below, and keeps the least that comes, so the order in which they come does not matter. No colour is
 * computed here.
 */
final class Visibility {
    /** What a pixel holds where nothing is. */
    static final long NOTHING = Long.MAX_VALUE;

    private final int width;
    private final int top;
    private final int bottom;
    private final long[] keys;
    /** For each space that is not drawn its planes, told in pixels. */
    private final double[][][] away;

    private final Tiles tiles;
    private boolean cut;
    private @Nullable Wins wins;

    /**
     * @param top the first row
     * @param bottom the row behind the last
     * @param keys for each pixel {@link #NOTHING}, or depth above and the triangle's number in the scene below
     */
    Visibility(int width, int top, int bottom, long[] keys, double[][][] away) {
        this.width = width;
        this.top = top;
        this.bottom = bottom;
        this.keys = keys;
        this.away = away;
        tiles = new Tiles(width, top, bottom, keys);
    }

    /** A whole number that grows as the depth does: the order of float bits below zero is turned. */
    static int ordered(float depth) {
        int bits = Float.floatToRawIntBits(depth);
        return bits ^ bits >> 31 & 0x7fffffff;
    }

    static long key(float depth, int number) {
        return (long) ordered(depth) << 32 | number & 0xFFFFFFFFL;
    }

    /** The depth in what a pixel holds; no number where nothing is. */
    static float depth(long key) {
        int bits = (int) (key >> 32);
        return Float.intBitsToFloat(bits ^ bits >> 31 & 0x7fffffff);
    }

    /**
     * What is looked at first of a node.
     *
     * @return ordered depth in the upper half, then 16 bits of row and of column
     */
    static long cell(int column, int row, float depth) {
        return key(depth, row << 16 | column);
    }

    /**
     * Pixels that triangles won, some of them only for a time. For each the triangle of the surface, the place of the pixel,
     * and bits of the weights of the triangle's second and third corner there.
     */
    static final class Wins {
        static final int EACH = 4;

        int[] all;
        int size;

        /** @param pixels so many wins fit at first */
        Wins(int pixels) {
            all = Spare.ints(EACH * pixels);
        }

        private void add(int triangle, int place, double second, double third) {
            if (size == all.length) {
                all = Arrays.copyOf(all, 2 * size);
            }
            all[size] = triangle;
            all[size + 1] = place;
            all[size + 2] = Float.floatToRawIntBits((float) second);
            all[size + 3] = Float.floatToRawIntBits((float) third);
            size += EACH;
        }
    }

    /** Row above and column below. */
    private static int place(int x, int y) {
        return y << 16 | x;
    }

    /**
     * @param base the number of the first triangle of the surface in the scene
     * @param p pixel x, pixel y and depth, three to a node of the surface
     * @param cells see {@link #cell}
     */
    Wins draw(Scene.Surface s, int base, Runs runs, float[] p, long[] cells) {
        wins = new Wins(width * (bottom - top));
        int[] corners = s.corners();
        cut = away.length > 0 && !s.whole();
        runs.forShown(top, bottom, tiles, run -> {
            int end = Math.min(s.triangles(), (run + 1) * Geometry.RUN);
            draw(run * Geometry.RUN, end, corners, cells, p, base);
        });
        return wins;
    }

    /** What a pixel would hold at the nearest of three nodes. */
    private static long nearest(long a, long b, long c, int number) {
        return Math.min((int) (a >> 32), Math.min((int) (b >> 32), (int) (c >> 32))) * (1L << 32)
                | number & 0xFFFFFFFFL;
    }

    private void draw(int from, int to, int[] corners, long[] cells, float[] p, int base) {
        for (int t = from; t < to; t++) {
            int na = corners[3 * t];
            int nb = corners[3 * t + 1];
            int nc = corners[3 * t + 2];
            long a = cells[na];
            long b = cells[nb];
            long c = cells[nc];
            int differ = (int) (a ^ b | a ^ c);
            if (((differ & 0xFFFF) - 1 | (differ >>> 16) - 1) < 0) {
                // All corners in one column or in one row: most small triangles cover no pixel's centre.
                continue;
            }
            int x0 = Math.min(column(a), Math.min(column(b), column(c)));
            int x1 = Math.max(column(a), Math.max(column(b), column(c)));
            int y0 = Math.max(top, Math.min(row(a), Math.min(row(b), row(c))));
            int y1 = Math.min(bottom, Math.max(row(a), Math.max(row(b), row(c))));
            if (y0 >= y1) {
                // It lies in the rows of others, which no one else may write.
                continue;
            }
            long near = nearest(a, b, c, base + t);
            if ((x1 - x0 | y1 - y0) == 1) {
                if (near < keys[y0 * width + x0]) {
                    pixel(p, 3 * na, 3 * nb, 3 * nc, x0, y0, t, near);
                }
            } else {
                triangle(t, 3 * na, 3 * nb, 3 * nc, near, p, x0, x1, y0, y1);
            }
        }
    }

    private static int column(long cell) {
        return (int) cell & 0xFFFF;
    }

    private static int row(long cell) {
        return (int) cell >>> 16;
    }

    /**
     * Draws what a triangle covers of columns and rows from the first to before the second.
     *
     * @param nearest what a pixel would hold at its nearest corner
     */
    private void triangle(int t, int a, int b, int c, long nearest, float[] p, int x0, int x1, int y0, int y1) {
        for (int y = y0; y < y1; y++) {
            for (int x = x0; x < x1; x++) {
                // Else nothing of the triangle is in front of what is here already.
                if (nearest < keys[y * width + x]) {
                    pixel(p, a, b, c, x, y, t, nearest);
                }
            }
        }
    }

    /**
     * Draws a triangle at one pixel.
     *
     * @param a where a corner stands among {@code p}
     */
    private void pixel(float[] p, int a, int b, int c, int x, int y, int t, long nearest) {
        double px = x + 0.5;
        double py = y + 0.5;
        double xa = p[a] - px;
        double ya = p[a + 1] - py;
        double xb = p[b] - px;
        double yb = p[b + 1] - py;
        double xc = p[c] - px;
        double yc = p[c + 1] - py;
        // Twice the areas between the place and each edge. Differences and products of floats are exact here, so two
        // triangles find the same of the edge between them.
        double bc = xb * yc - yb * xc;
        double ca = xc * ya - yc * xa;
        double ab = xa * yb - ya * xb;
        // All of one sign within, some of another outside; a zero tells neither.
        double two = bc * ca;
        double three = bc * ab;
        if (!(two > 0 && three > 0) && (two < 0 || three < 0 || !holds(bc, ca, ab, xa, ya, xb, yb, xc, yc))) {
            return;
        }
        double inverse = 1 / (bc + ca + ab);
        float z = (float) ((bc * p[a + 2] + ca * p[b + 2] + ab * p[c + 2]) * inverse);
        if (!(cut && cutAway(away, px, py, z))) {
            keep(x, y, t, z, nearest, ca * inverse, ab * inverse);
        }
    }

    private void keep(int x, int y, int t, float z, long nearest, double second, double third) {
        // Round-off must not bring it before its nearest corner, or the order of drawing would show.
        long key = Math.max(nearest, key(z, (int) nearest));
        int at = y * width + x;
        if (key < keys[at] && !Float.isNaN(z)) {
            keys[at] = key;
            Objects.requireNonNull(wins).add(t, place(x, y), second, third);
        }
    }

    /** Whether a place on an edge's line belongs to the triangle. */
    private static boolean holds(
            double bc, double ca, double ab, double xa, double ya, double xb, double yb, double xc, double yc) {
        double sign = Math.signum(bc + ca + ab);
        return sign != 0
                && sign * bc >= 0
                && sign * ca >= 0
                && sign * ab >= 0
                && (bc != 0 || owns(sign * (xc - xb), sign * (yc - yb)))
                && (ca != 0 || owns(sign * (xa - xc), sign * (ya - yc)))
                && (ab != 0 || owns(sign * (xb - xa), sign * (yb - ya)));
    }

    static boolean cutAway(double[][][] away, double px, double py, double z) {
        for (double[][] space : away) {
            boolean in = true;
            for (double[] a : space) {
                in &= a[0] * px + a[1] * py + a[2] * z + a[3] > 0;
            }
            if (in) {
                return true;
            }
        }
        return false;
    }

    /** A pixel centre on an edge belongs to the triangle whose edge is a left or a top one. */
    static boolean owns(double dx, double dy) {
        return dy < 0 || dy == 0 && dx > 0;
    }
}
