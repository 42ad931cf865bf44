package lane.picture.field;

import java.util.Arrays;
import lane.base.Parallel;

/**
 * Draws a scene into a buffer of pixels with depth: nodes are projected in parallel, then each block of rows draws all
 * triangles that touch it, by edge functions at pixel centres with a top-left rule, so that a pixel on a shared edge
 * belongs to one triangle. Values are interpolated, then coloured: colours are exact for the value at the pixel.
 * Transparent surfaces come last, far triangles first. The result does not depend on the number of threads.
 */
public final class Rasteriser {
    private static final int BAND = 64;

    private final Scene scene;
    private final Camera camera;
    private final Look look;
    private final int width;
    private final int height;
    private final int[] argb;
    private final float[] depth;
    private final long[] pick;
    private final int ink;
    private final int plain;
    private final int missing;
    private final double[] light;
    private final double[] lamp;

    private Rasteriser(Scene scene, Camera camera, Look look, int width, int height, int ground) {
        this.scene = scene;
        this.camera = camera;
        this.look = look;
        this.width = width;
        this.height = height;
        argb = new int[width * height];
        depth = new float[argb.length];
        pick = new long[argb.length];
        Arrays.fill(argb, 0xFF000000 | ground);
        Arrays.fill(depth, Float.POSITIVE_INFINITY);
        Arrays.fill(pick, -1);
        ink = look.dark() ? 0xFFE7E3D8 : 0xFF1D2730;
        plain = look.dark() ? 0xFF5B666D : 0xFFB9B4A6;
        missing = look.dark() ? 0xFF3A4248 : 0xFFD9D5CA;
        var l = camera.forward()
                .times(-1)
                .plus(camera.up().times(0.7))
                .plus(camera.right().times(-0.5))
                .unit();
        var m = camera.forward().times(-1).plus(camera.right().times(1.2)).unit();
        light = new double[] {l.x(), l.y(), l.z()};
        lamp = new double[] {m.x(), m.y(), m.z()};
    }

    /** @param ground colour behind everything, without alpha */
    public static Frame draw(Scene scene, Camera camera, Look look, int width, int height, int ground) {
        var r = new Rasteriser(scene, camera, look, width, height, ground);
        for (int s = 0; s < scene.surfaces().size(); s++) {
            if (scene.surfaces().get(s).opacity() >= 1) {
                r.surface(s);
            }
        }
        for (int s = 0; s < scene.surfaces().size(); s++) {
            double opacity = scene.surfaces().get(s).opacity();
            if (opacity > 0 && opacity < 1) {
                r.surface(s);
            }
        }
        return new Frame(width, height, r.argb, r.depth, r.pick, camera, scene);
    }

    private float[] project(double[] xyz) {
        int n = xyz.length / 3;
        float[] out = new float[3 * n];
        Parallel.forBlocks(n, 1 << 14, (block, from, to) -> {
            var r = camera.right();
            var u = camera.up();
            var f = camera.forward();
            var c = camera.centre();
            for (int i = from; i < to; i++) {
                double x = xyz[3 * i] - c.x();
                double y = xyz[3 * i + 1] - c.y();
                double z = xyz[3 * i + 2] - c.z();
                out[3 * i] = (float) (width / 2.0 + camera.scale() * (x * r.x() + y * r.y() + z * r.z()));
                out[3 * i + 1] = (float) (height / 2.0 - camera.scale() * (x * u.x() + y * u.y() + z * u.z()));
                out[3 * i + 2] = (float) (x * f.x() + y * f.y() + z * f.z());
            }
        });
        return out;
    }

    private void surface(int index) {
        Scene.Surface s = scene.surfaces().get(index);
        float[] p = project(s.xyz());
        int n = s.triangles();
        int[] order = s.opacity() < 1 ? farFirst(s, p) : null;
        int bands = Parallel.blocks(height, BAND);
        Parallel.forBlocks(bands, 1, (band, from, to) -> {
            int top = band * BAND;
            int bottom = Math.min(height, top + BAND);
            for (int k = 0; k < n; k++) {
                triangle(s, index, order == null ? k : order[k], p, top, bottom);
            }
        });
    }

    private static int[] farFirst(Scene.Surface s, float[] p) {
        long[] keys = new long[s.triangles()];
        for (int t = 0; t < keys.length; t++) {
            float z = p[3 * s.corners()[3 * t] + 2]
                    + p[3 * s.corners()[3 * t + 1] + 2]
                    + p[3 * s.corners()[3 * t + 2] + 2];
            int bits = Float.floatToIntBits(-z);
            // Turns the order of float bits into that of whole numbers.
            bits ^= bits >> 31 & 0x7fffffff;
            keys[t] = (long) bits << 32 | t;
        }
        Arrays.parallelSort(keys);
        int[] order = new int[keys.length];
        Arrays.setAll(order, i -> (int) keys[i]);
        return order;
    }

    private void triangle(Scene.Surface s, int index, int t, float[] p, int top, int bottom) {
        int a = s.corners()[3 * t];
        int b = s.corners()[3 * t + 1];
        int c = s.corners()[3 * t + 2];
        float ay = p[3 * a + 1];
        float by = p[3 * b + 1];
        float cy = p[3 * c + 1];
        float least = Math.min(ay, Math.min(by, cy));
        float greatest = Math.max(ay, Math.max(by, cy));
        if (!(greatest >= top && least <= bottom)) {
            return;
        }
        float ax = p[3 * a];
        float bx = p[3 * b];
        float cx = p[3 * c];
        double area = (double) (bx - ax) * (cy - ay) - (double) (by - ay) * (cx - ax);
        if (area == 0 || Double.isNaN(area)) {
            return;
        }
        int x0 = Math.max(0, (int) Math.ceil(Math.min(ax, Math.min(bx, cx)) - 0.5));
        int x1 = Math.min(width - 1, (int) Math.floor(Math.max(ax, Math.max(bx, cx)) - 0.5));
        int y0 = Math.max(top, (int) Math.ceil(least - 0.5));
        int y1 = Math.min(bottom - 1, (int) Math.floor(greatest - 0.5));
        if (x0 > x1 || y0 > y1) {
            return;
        }
        float az = p[3 * a + 2];
        float bz = p[3 * b + 2];
        float cz = p[3 * c + 2];
        float va = Float.NaN;
        float vb = Float.NaN;
        float vc = Float.NaN;
        if (s.value().length > 0) {
            va = s.value()[s.byNode() ? a : s.face()[t]];
            vb = s.byNode() ? s.value()[b] : va;
            vc = s.byNode() ? s.value()[c] : va;
        }
        double shade = look.shaded() ? shade(s.xyz(), a, b, c) : 1;
        int flat = shaded(s.value().length == 0 ? plain : missing, shade);
        double sign = area > 0 ? 1 : -1;
        double inverse = 1 / Math.abs(area);
        double span = look.greatest() - look.least();
        double toShare = span > 0 ? 1 / span : 0;
        boolean coloured = s.value().length > 0;
        // Side lengths in pixels, to turn edge functions into distances for drawn edges.
        double lab = Math.hypot(bx - ax, by - ay);
        double lbc = Math.hypot(cx - bx, cy - by);
        double lca = Math.hypot(ax - cx, ay - cy);
        byte edge = look.edges() ? s.edge()[t] : 0;
        long id = (long) index << 40 | t;
        int alpha = (int) Math.round(256 * Math.min(1, s.opacity()));
        for (int y = y0; y <= y1; y++) {
            double py = y + 0.5;
            for (int x = x0; x <= x1; x++) {
                double px = x + 0.5;
                double ebc = sign * ((cx - bx) * (py - by) - (cy - by) * (px - bx));
                double eca = sign * ((ax - cx) * (py - cy) - (ay - cy) * (px - cx));
                double eab = sign * ((bx - ax) * (py - ay) - (by - ay) * (px - ax));
                if (ebc < 0
                        || eca < 0
                        || eab < 0
                        || ebc == 0 && !owns(sign * (cx - bx), sign * (cy - by))
                        || eca == 0 && !owns(sign * (ax - cx), sign * (ay - cy))
                        || eab == 0 && !owns(sign * (bx - ax), sign * (by - ay))) {
                    continue;
                }
                double wa = ebc * inverse;
                double wb = eca * inverse;
                double wc = eab * inverse;
                float z = (float) (wa * az + wb * bz + wc * cz);
                int at = y * width + x;
                if (z >= depth[at]) {
                    continue;
                }
                double v = wa * va + wb * vb + wc * vc;
                int colour = coloured && !Double.isNaN(v)
                        ? shaded(look.scale().colour((v - look.least()) * toShare), shade)
                        : flat;
                if (edge != 0
                        && ((edge & 1) != 0 && eab < 0.5 * lab
                                || (edge & 2) != 0 && ebc < 0.5 * lbc
                                || (edge & 4) != 0 && eca < 0.5 * lca)) {
                    colour = mix(colour, ink, 110);
                }
                if (alpha >= 256) {
                    argb[at] = colour;
                    depth[at] = z;
                    pick[at] = id;
                } else {
                    argb[at] = mix(argb[at], colour, alpha);
                    if (pick[at] < 0) {
                        pick[at] = id;
                    }
                }
            }
        }
    }

    /** A pixel centre on an edge belongs to the triangle whose edge is a left or a top one. */
    private static boolean owns(double dx, double dy) {
        return dy < 0 || dy == 0 && dx > 0;
    }

    private double shade(double[] x, int a, int b, int c) {
        double ux = x[3 * b] - x[3 * a];
        double uy = x[3 * b + 1] - x[3 * a + 1];
        double uz = x[3 * b + 2] - x[3 * a + 2];
        double vx = x[3 * c] - x[3 * a];
        double vy = x[3 * c + 1] - x[3 * a + 1];
        double vz = x[3 * c + 2] - x[3 * a + 2];
        double nx = uy * vz - uz * vy;
        double ny = uz * vx - ux * vz;
        double nz = ux * vy - uy * vx;
        double n = Math.sqrt(nx * nx + ny * ny + nz * nz);
        if (n == 0) {
            return 1;
        }
        // Both sides of a face are lit alike: seen from inside, a part is as readable as from outside.
        double l = Math.abs(nx * light[0] + ny * light[1] + nz * light[2]) / n;
        double m = Math.abs(nx * lamp[0] + ny * lamp[1] + nz * lamp[2]) / n;
        return Math.min(1, 0.70 + 0.30 * l * l + 0.10 * m);
    }

    private static int shaded(int colour, double shade) {
        int s = (int) (256 * shade);
        return 0xFF000000
                | ((colour >> 16 & 255) * s >> 8) << 16
                | ((colour >> 8 & 255) * s >> 8) << 8
                | (colour & 255) * s >> 8;
    }

    /** Of two colours, {@code share} 256ths of the second. */
    static int mix(int a, int b, int share) {
        int rest = 256 - share;
        return 0xFF000000
                | ((a >> 16 & 255) * rest + (b >> 16 & 255) * share >> 8) << 16
                | ((a >> 8 & 255) * rest + (b >> 8 & 255) * share >> 8) << 8
                | (a & 255) * rest + (b & 255) * share >> 8;
    }
}
