package lane.picture.field;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.base.Parallel;

/**
 * Finds what is nearest at each pixel, in one pass over the triangles: each is drawn by edge functions at pixel centres
 * with a top-left rule, so that a pixel on a shared edge belongs to one triangle. A pixel holds one number, depth above
 * and triangle below, and keeps the least that comes: threads may come in any order, the result is the same. No colour is
 * computed here.
 */
final class Visibility {
    /** What a pixel holds where nothing is. */
    static final long NOTHING = Long.MAX_VALUE;

    private static final VarHandle KEYS = MethodHandles.arrayElementVarHandle(long[].class);
    private static final int CHUNK = 1 << 13;
    private static final int BAND = 32;
    /** A triangle that spans more pixels in a direction is drawn by bands of rows, so that threads share it. */
    private static final int LARGE = 64;

    private final int width;
    private final int height;
    private final long[] keys;
    /** For each space that is not drawn its planes, told in pixels. */
    private final double[][][] away;

    /** @param keys for each pixel {@link #NOTHING}, or depth above and the triangle's number in the scene below */
    Visibility(int width, int height, long[] keys, double[][][] away) {
        this.width = width;
        this.height = height;
        this.keys = keys;
        this.away = away;
    }

    /** A whole number that grows as the depth does: the order of float bits below zero is turned. */
    private static int ordered(float depth) {
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
     * A node's depth, and the first column and row of pixels whose centres are not left of it, or above it, within the
     * picture. A triangle covers centres from the least of its nodes to before the greatest: one on its right or lower end
     * belongs to its neighbour.
     *
     * @return ordered depth in the upper half, then 16 bits of row and of column
     */
    long cell(float x, float y, float depth) {
        return key(depth, cell(y, height) << 16 | cell(x, width));
    }

    /** No number is treated as zero; triangles with one have no area. */
    private static int cell(float v, int end) {
        float t = v - 0.5f;
        int i = (int) t;
        return Math.clamp(i + (i < t ? 1 : 0), 0, end);
    }

    /** Pixels that triangles won, some of them only for a time: triangle of the surface and pixel, one after the other. */
    static final class Wins {
        int[] pairs = new int[1 << 12];
        int size;

        private void add(int triangle, int pixel) {
            if (size == pairs.length) {
                pairs = Arrays.copyOf(pairs, 2 * size);
            }
            pairs[size++] = triangle;
            pairs[size++] = pixel;
        }
    }

    /**
     * @param base the number of the first triangle of the surface in the scene
     * @param p pixel x, pixel y and depth, three to a node of the surface
     * @param cells see {@link #cell(float, float, float)}
     */
    List<Wins> draw(Scene.Surface s, int base, float[] p, long[] cells) {
        int n = s.triangles();
        boolean cut = away.length > 0 && !s.whole();
        int[] corners = s.corners();
        int[] order = nearFirst(corners, n, cells);
        int[][] large = new int[order.length][];
        Wins[] wins = new Wins[order.length + Parallel.blocks(height, BAND)];
        Parallel.forBlocks(order.length, 1, (turn, from, to) -> {
            var some = new Some();
            int end = Math.min(n, (order[turn] + 1) * CHUNK);
            for (int t = order[turn] * CHUNK; t < end; t += Some.MOST) {
                some.take(corners, cells, t, Math.min(end, t + Some.MOST));
                some.draw(corners, cells, p, base, cut);
            }
            large[turn] = some.large();
            wins[turn] = some.wins;
        });
        int[] all = Arrays.stream(large).flatMapToInt(Arrays::stream).toArray();
        if (all.length > 0) {
            Parallel.forBlocks(height, BAND, (band, top, bottom) -> {
                var own = new Wins();
                for (int t : all) {
                    long a = cells[corners[3 * t]];
                    long b = cells[corners[3 * t + 1]];
                    long c = cells[corners[3 * t + 2]];
                    int x0 = Math.min(column(a), Math.min(column(b), column(c)));
                    int x1 = Math.max(column(a), Math.max(column(b), column(c)));
                    int y0 = Math.max(top, Math.min(row(a), Math.min(row(b), row(c))));
                    int y1 = Math.min(bottom, Math.max(row(a), Math.max(row(b), row(c))));
                    triangle(corners, t, nearest(a, b, c, base + t), p, x0, x1, y0, y1, cut, own);
                }
                wins[order.length + band] = own;
            });
        }
        return Arrays.stream(wins).filter(Objects::nonNull).toList();
    }

    /** What a pixel would hold at the nearest of three nodes. */
    private static long nearest(long a, long b, long c, int number) {
        return Math.min((int) (a >> 32), Math.min((int) (b >> 32), (int) (c >> 32))) * (1L << 32)
                | number & 0xFFFFFFFFL;
    }

    /**
     * Some triangles, sorted out by a plain loop without branches before they are drawn: most small ones cover no pixel's
     * centre, and a branch that cannot be foreseen costs more than what it saves.
     */
    private final class Some {
        static final int MOST = 1024;

        private final int[] triangle = new int[MOST];
        private int size;
        private int[] large = new int[16];
        private int many;
        private final Wins wins = new Wins();

        /** Keeps those whose nodes are neither all in one column nor all in one row. */
        void take(int[] corners, long[] cells, int from, int to) {
            int m = 0;
            for (int t = from; t < to; t++) {
                int a = (int) cells[corners[3 * t]];
                int b = (int) cells[corners[3 * t + 1]];
                int c = (int) cells[corners[3 * t + 2]];
                int differ = a ^ b | a ^ c;
                triangle[m] = t;
                m += 1 + (((differ & 0xFFFF) - 1 | (differ >>> 16) - 1) >> 31);
            }
            size = m;
        }

        void draw(int[] corners, long[] cells, float[] p, int base, boolean cut) {
            for (int i = 0; i < size; i++) {
                int t = triangle[i];
                int na = corners[3 * t];
                int nb = corners[3 * t + 1];
                int nc = corners[3 * t + 2];
                long a = cells[na];
                long b = cells[nb];
                long c = cells[nc];
                int x0 = Math.min(column(a), Math.min(column(b), column(c)));
                int x1 = Math.max(column(a), Math.max(column(b), column(c)));
                int y0 = Math.min(row(a), Math.min(row(b), row(c)));
                int y1 = Math.max(row(a), Math.max(row(b), row(c)));
                long nearest = nearest(a, b, c, base + t);
                if ((x1 - x0 | y1 - y0) == 1) {
                    if (nearest < keys[y0 * width + x0]) {
                        pixel(p, 3 * na, 3 * nb, 3 * nc, x0, y0, t, nearest, cut, wins);
                    }
                    continue;
                }
                if (x1 - x0 > LARGE || y1 - y0 > LARGE) {
                    large = many == large.length ? Arrays.copyOf(large, 2 * many) : large;
                    large[many++] = t;
                } else {
                    triangle(corners, t, nearest, p, x0, x1, y0, y1, cut, wins);
                }
            }
        }

        int[] large() {
            return Arrays.copyOf(large, many);
        }
    }

    private static int column(long cell) {
        return (int) cell & 0xFFFF;
    }

    private static int row(long cell) {
        return (int) cell >>> 16;
    }

    /** Blocks of triangles by the depth of some of them: what is hidden is sooner found to be so. */
    private static int[] nearFirst(int[] corners, int triangles, long[] cells) {
        int blocks = Parallel.blocks(triangles, CHUNK);
        long[] depth = new long[blocks];
        for (int b = 0; b < blocks; b++) {
            int end = Math.min(triangles, (b + 1) * CHUNK);
            long sum = 0;
            int many = 0;
            for (int t = b * CHUNK; t < end; t += CHUNK / 16) {
                sum += cells[corners[3 * t]] >> 32;
                many++;
            }
            depth[b] = sum / many << 32 | b;
        }
        Arrays.sort(depth);
        return Arrays.stream(depth).mapToInt(d -> (int) d).toArray();
    }

    /**
     * Draws what a triangle covers of columns and rows from the first to before the second.
     *
     * @param nearest what a pixel would hold at its nearest corner
     */
    private void triangle(
            int[] corners, int t, long nearest, float[] p, int x0, int x1, int y0, int y1, boolean cut, Wins wins) {
        int a = 3 * corners[3 * t];
        int b = 3 * corners[3 * t + 1];
        int c = 3 * corners[3 * t + 2];
        for (int y = y0; y < y1; y++) {
            for (int x = x0; x < x1; x++) {
                // Else nothing of the triangle is in front of what is here already.
                if (nearest < keys[y * width + x]) {
                    pixel(p, a, b, c, x, y, t, nearest, cut, wins);
                }
            }
        }
    }

    /** Draws a triangle at one pixel. @param a where a corner stands among {@code p} */
    private void pixel(float[] p, int a, int b, int c, int x, int y, int t, long nearest, boolean cut, Wins wins) {
        double px = x + 0.5;
        double py = y + 0.5;
        double z = depth(p, a, b, c, p[a] - px, p[a + 1] - py, p[b] - px, p[b + 1] - py, p[c] - px, p[c + 1] - py);
        if (Double.isNaN(z) || cut && cutAway(away, px, py, (float) z)) {
            return;
        }
        // Round-off must not bring it before its nearest corner, or the order of threads would show.
        if (keep(y * width + x, Math.max(nearest, key((float) z, (int) nearest)))) {
            wins.add(t, y * width + x);
        }
    }

    /**
     * The depth of a triangle at a place; no number where it does not cover the place.
     *
     * @param a where a corner stands among {@code p}
     * @param xa pixels from the place to that corner
     */
    private static double depth(
            float[] p, int a, int b, int c, double xa, double ya, double xb, double yb, double xc, double yc) {
        // Twice the areas between the place and each edge. Differences and products of floats are exact here, so two
        // triangles find the same of the edge between them.
        double bc = xb * yc - yb * xc;
        double ca = xc * ya - yc * xa;
        double ab = xa * yb - ya * xb;
        // All of one sign within, some of another outside; a zero tells neither.
        double two = bc * ca;
        double three = bc * ab;
        if (!(two > 0 && three > 0) && (two < 0 || three < 0 || !holds(bc, ca, ab, xa, ya, xb, yb, xc, yc))) {
            return Double.NaN;
        }
        return (bc * p[a + 2] + ca * p[b + 2] + ab * p[c + 2]) / (bc + ca + ab);
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

    private boolean keep(int at, long key) {
        long held = keys[at];
        while (key < held) {
            long now = (long) KEYS.compareAndExchange(keys, at, held, key);
            if (now == held) {
                return true;
            }
            held = now;
        }
        return false;
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
