package lane.picture.field;

import java.util.Arrays;
import lane.base.Parallel;

/** Draws all see-through surfaces together, far triangles first, whichever surface they belong to. */
final class SeeThrough {
    private static final int BAND = 64;

    private SeeThrough() {}

    static void draw(
            Scene scene,
            float[][] projected,
            int[] first,
            double[][][] away,
            java.util.function.Supplier<Shading> shadings,
            int width,
            int height,
            int[] argb,
            long[] keys) {
        int n = 0;
        for (int s = 0; s < projected.length; s++) {
            n += through(scene, s) ? scene.surfaces().get(s).triangles() : 0;
        }
        if (n == 0) {
            return;
        }
        int[] of = new int[n];
        int[] which = new int[n];
        long[] far = new long[n];
        int at = 0;
        for (int s = 0; s < projected.length; s++) {
            for (int t = 0; through(scene, s) && t < scene.surfaces().get(s).triangles(); t++) {
                of[at] = s;
                which[at] = t;
                far[at] = (long) far(scene.surfaces().get(s).corners(), t, projected[s]) << 32 | at;
                at++;
            }
        }
        Arrays.parallelSort(far);
        int bands = Parallel.blocks(height, BAND);
        Parallel.forBlocks(bands, 1, (band, from, to) -> {
            int top = band * BAND;
            int bottom = Math.min(height, top + BAND);
            var edges = new Edges();
            Shading shading = shadings.get();
            for (long key : far) {
                int k = (int) key;
                Scene.Surface s = scene.surfaces().get(of[k]);
                float[] p = projected[of[k]];
                if (!touches(s.corners(), which[k], p, top, bottom)
                        || !edges.load(s.corners(), which[k], p, top, bottom, width)) {
                    continue;
                }
                int alpha = (int) Math.round(256 * s.opacity());
                boolean cut = away.length > 0 && !s.whole();
                double inverse = 1 / edges.area;
                for (int y = edges.y0; y <= edges.y1; y++) {
                    for (int x = edges.x0; x <= edges.x1; x++) {
                        if (!edges.holds(x + 0.5, y + 0.5)) {
                            continue;
                        }
                        float z = (float) ((edges.bc * edges.az + edges.ca * edges.bz + edges.ab * edges.cz) * inverse);
                        int pixel = y * width + x;
                        if (z >= Visibility.depth(keys[pixel])
                                || cut && Visibility.cutAway(away, x + 0.5, y + 0.5, z)) {
                            continue;
                        }
                        argb[pixel] = Shading.mix(
                                argb[pixel],
                                shading.colour(of[k], which[k], x, y, edges.ca * inverse, edges.ab * inverse),
                                alpha);
                        if (keys[pixel] == Visibility.NOTHING) {
                            keys[pixel] = Visibility.key(Float.POSITIVE_INFINITY, first[of[k]] + which[k]);
                        }
                    }
                }
            }
        });
    }

    static boolean through(Scene scene, int s) {
        double opacity = scene.surfaces().get(s).opacity();
        return opacity > 0 && opacity < 1;
    }

    private static boolean touches(int[] corners, int t, float[] p, int top, int bottom) {
        float a = p[3 * corners[3 * t] + 1];
        float b = p[3 * corners[3 * t + 1] + 1];
        float c = p[3 * corners[3 * t + 2] + 1];
        return Math.max(a, Math.max(b, c)) >= top && Math.min(a, Math.min(b, c)) <= bottom;
    }

    /** A number that grows the nearer a triangle is. */
    private static int far(int[] corners, int t, float[] p) {
        float z = p[3 * corners[3 * t] + 2] + p[3 * corners[3 * t + 1] + 2] + p[3 * corners[3 * t + 2] + 2];
        int bits = Float.floatToIntBits(-z);
        // Turns the order of float bits into that of whole numbers.
        return bits ^ bits >> 31 & 0x7fffffff;
    }
}
