package lane.picture.field;

import java.util.Arrays;
import lane.base.Parallel;

/**
 * Finds what is nearest at each pixel. Blocks of triangles are sorted into bands of rows: one that covers a single pixel
 * centre at most becomes a fragment at once, others are drawn band by band, by edge functions at pixel centres with a
 * top-left rule, so that a pixel on a shared edge belongs to one triangle. No colour is computed here. The result does
 * not depend on the number of threads.
 */
final class Visibility {
    private static final int BAND = 64;
    private static final int CHUNK = 1 << 15;

    private final int width;
    private final int height;
    private final float[] depth;
    private final long[] pick;
    /** For each space that is not drawn its planes, told in pixels. */
    private final double[][][] away;

    Visibility(int width, int height, float[] depth, long[] pick, double[][][] away) {
        this.width = width;
        this.height = height;
        this.depth = depth;
        this.pick = pick;
        this.away = away;
    }

    /** @param p pixel x, pixel y and depth, three to a node of the surface */
    void draw(Scene.Surface s, int index, float[] p) {
        int n = s.triangles();
        int bands = Parallel.blocks(height, BAND);
        boolean cut = away.length > 0 && !s.whole();
        var bins = new Bin[Parallel.blocks(n, CHUNK)];
        Parallel.forBlocks(n, CHUNK, (block, from, to) -> {
            var bin = new Bin(bands);
            for (int t = from; t < to; t++) {
                sort(s.corners(), t, p, bin);
            }
            bins[block] = bin;
        });
        Parallel.forBlocks(bands, 1, (band, from, to) -> {
            int top = band * BAND;
            int bottom = Math.min(height, top + BAND);
            var edges = new Edges();
            for (Bin bin : bins) {
                fragments(bin.small[band], index, cut);
                Numbers list = bin.large[band];
                for (int i = 0; list != null && i < list.size; i++) {
                    triangle(edges, s.corners(), index, list.array[i], p, top, bottom, cut);
                }
            }
        });
    }

    /** A growing list. */
    static final class Numbers {
        int[] array = new int[384];
        int size;

        void add(int v) {
            if (size == array.length) {
                array = Arrays.copyOf(array, 2 * size);
            }
            array[size++] = v;
        }
    }

    /** Triangles of one block by band, in their order; fragments as pixel, triangle, bits of the depth. */
    private static final class Bin {
        private final Numbers[] large;
        private final Numbers[] small;

        Bin(int bands) {
            large = new Numbers[bands];
            small = new Numbers[bands];
        }

        static Numbers of(Numbers[] lists, int band) {
            Numbers list = lists[band];
            if (list == null) {
                list = new Numbers();
                lists[band] = list;
            }
            return list;
        }
    }

    /** The first pixel whose centre is not left of, or above, a coordinate. */
    static int first(float v) {
        float t = v - 0.5f;
        int i = (int) t;
        return i < t ? i + 1 : Math.max(0, i);
    }

    /** The last pixel whose centre is not right of, or below, a coordinate; -1 where there is none. */
    static int last(float v) {
        float t = v - 0.5f;
        return t < 0 ? -1 : (int) t;
    }

    /** Without the library's care for NaN and signed zeros, which costs more than the rest; NaN ends at the area. */
    static float least(float a, float b, float c) {
        float m = a < b ? a : b;
        return m < c ? m : c;
    }

    static float greatest(float a, float b, float c) {
        float m = a > b ? a : b;
        return m > c ? m : c;
    }

    private void sort(int[] corners, int t, float[] p, Bin bin) {
        int a = 3 * corners[3 * t];
        int b = 3 * corners[3 * t + 1];
        int c = 3 * corners[3 * t + 2];
        float ay = p[a + 1];
        float by = p[b + 1];
        float cy = p[c + 1];
        int y0 = first(least(ay, by, cy));
        int y1 = Math.min(height - 1, last(greatest(ay, by, cy)));
        if (y0 > y1) {
            return;
        }
        float ax = p[a];
        float bx = p[b];
        float cx = p[c];
        int x0 = first(least(ax, bx, cx));
        int x1 = Math.min(width - 1, last(greatest(ax, bx, cx)));
        // Coordinates that are no numbers end here or below.
        if (x0 > x1) {
            return;
        }
        if (x0 == x1 && y0 == y1) {
            double area = (double) (bx - ax) * (cy - ay) - (double) (by - ay) * (cx - ax);
            double sign = area > 0 ? 1 : -1;
            double px = x0 + 0.5;
            double py = y0 + 0.5;
            double ebc = sign * ((double) (cx - bx) * (py - by) - (double) (cy - by) * (px - bx));
            double eca = sign * ((double) (ax - cx) * (py - cy) - (double) (ay - cy) * (px - cx));
            double eab = sign * ((double) (bx - ax) * (py - ay) - (double) (by - ay) * (px - ax));
            boolean in = ebc >= 0 && eca >= 0 && eab >= 0 && area != 0;
            if (!in
                    || ebc == 0 && !owns(sign * (cx - bx), sign * (cy - by))
                    || eca == 0 && !owns(sign * (ax - cx), sign * (ay - cy))
                    || eab == 0 && !owns(sign * (bx - ax), sign * (by - ay))) {
                return;
            }
            float z = (float) ((ebc * p[a + 2] + eca * p[b + 2] + eab * p[c + 2]) / Math.abs(area));
            Numbers list = Bin.of(bin.small, y0 / BAND);
            list.add(y0 * width + x0);
            list.add(t);
            list.add(Float.floatToRawIntBits(z));
            return;
        }
        int end = y1 / BAND;
        for (int band = y0 / BAND; band <= end; band++) {
            Bin.of(bin.large, band).add(t);
        }
    }

    private void fragments(Numbers list, int index, boolean cut) {
        if (list == null) {
            return;
        }
        long surface = (long) index << 40;
        int[] f = list.array;
        for (int i = 0; i < list.size; i += 3) {
            int at = f[i];
            float z = Float.intBitsToFloat(f[i + 2]);
            if (z < depth[at] && !(cut && cutAway(away, at % width + 0.5, at / width + 0.5, z))) {
                depth[at] = z;
                pick[at] = surface | f[i + 1];
            }
        }
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

    private void triangle(Edges e, int[] corners, int index, int t, float[] p, int top, int bottom, boolean cut) {
        if (!e.load(corners, t, p, top, bottom, width)) {
            return;
        }
        long id = (long) index << 40 | t;
        double inverse = 1 / e.area;
        for (int y = e.y0; y <= e.y1; y++) {
            for (int x = e.x0; x <= e.x1; x++) {
                if (!e.holds(x + 0.5, y + 0.5)) {
                    continue;
                }
                float z = (float) ((e.bc * e.az + e.ca * e.bz + e.ab * e.cz) * inverse);
                int at = y * width + x;
                if (z >= depth[at] || cut && cutAway(away, x + 0.5, y + 0.5, z)) {
                    continue;
                }
                depth[at] = z;
                pick[at] = id;
            }
        }
    }

    /** A pixel centre on an edge belongs to the triangle whose edge is a left or a top one. */
    static boolean owns(double dx, double dy) {
        return dy < 0 || dy == 0 && dx > 0;
    }
}
