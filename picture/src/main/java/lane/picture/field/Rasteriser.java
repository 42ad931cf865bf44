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
    private static final int CHUNK = 1 << 15;

    private final Scene scene;
    private final Camera camera;
    private final Look look;
    private final int width;
    private final int height;
    private final int[] argb;
    private final float[] depth;
    private final long[] pick;
    /** The value at each pixel, NaN where there is none. */
    private final float[] value;

    /** For each plane that cuts away: how its distance grows by pixel right, pixel down and depth, and at zero. */
    private final double[][] away;

    private final double toShare;
    private final boolean plainScale;
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
        value = new float[argb.length];
        Parallel.forBlocks(argb.length, 1 << 17, (block, from, to) -> {
            Arrays.fill(argb, from, to, 0xFF000000 | ground);
            Arrays.fill(depth, from, to, Float.POSITIVE_INFINITY);
            Arrays.fill(pick, from, to, -1);
            Arrays.fill(value, from, to, Float.NaN);
        });
        away = scene.away().stream().map(this::inPicture).toArray(double[][]::new);
        double span = look.greatest() - look.least();
        toShare = span > 0 ? 1 / span : 0;
        plainScale = !look.log() && look.style().bands() == 0 && !look.style().marked();
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
        r.contours();
        r.seeThrough();
        return new Frame(width, height, r.argb, r.depth, r.pick, r.value, camera, scene);
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
        int bands = Parallel.blocks(height, BAND);
        // Each block of triangles is sorted into the bands that it touches; most triangles of a fine mesh touch no
        // pixel
        // centre and end here.
        var bins = new Bin[Parallel.blocks(n, CHUNK)];
        Parallel.forBlocks(n, CHUNK, (block, from, to) -> {
            var bin = new Bin(bands);
            for (int t = from; t < to; t++) {
                bin(s.corners(), t, t, p, bin);
            }
            bins[block] = bin;
        });
        Parallel.forBlocks(bands, 1, (band, from, to) -> {
            int top = band * BAND;
            int bottom = Math.min(height, top + BAND);
            for (Bin bin : bins) {
                int[] list = bin.triangles[band];
                for (int i = 0; i < bin.count[band]; i++) {
                    triangle(s, index, list[i], p, top, bottom);
                }
            }
        });
    }

    private double[] inPicture(Scene.Away plane) {
        var n = plane.normal();
        double right = n.dot(camera.right()) / camera.scale();
        double down = -n.dot(camera.up()) / camera.scale();
        return new double[] {
            right,
            down,
            n.dot(camera.forward()),
            n.dot(camera.centre().minus(plane.point())) - right * width / 2.0 - down * height / 2.0
        };
    }

    private boolean cutAway(double px, double py, double z) {
        for (double[] a : away) {
            if (a[0] * px + a[1] * py + a[2] * z + a[3] > 0) {
                return true;
            }
        }
        return false;
    }

    /** All see-through surfaces together, far triangles first, whichever surface they belong to. */
    private void seeThrough() {
        int surfaces = scene.surfaces().size();
        float[][] p = new float[surfaces][];
        int n = 0;
        for (int s = 0; s < surfaces; s++) {
            double opacity = scene.surfaces().get(s).opacity();
            if (opacity > 0 && opacity < 1) {
                p[s] = project(scene.surfaces().get(s).xyz());
                n += scene.surfaces().get(s).triangles();
            }
        }
        if (n == 0) {
            return;
        }
        int[] of = new int[n];
        int[] which = new int[n];
        long[] keys = new long[n];
        int at = 0;
        for (int s = 0; s < surfaces; s++) {
            for (int t = 0; p[s] != null && t < scene.surfaces().get(s).triangles(); t++) {
                of[at] = s;
                which[at] = t;
                keys[at] = (long) far(scene.surfaces().get(s).corners(), t, p[s]) << 32 | at;
                at++;
            }
        }
        Arrays.parallelSort(keys);
        int bands = Parallel.blocks(height, BAND);
        var bins = new Bin[Parallel.blocks(n, CHUNK)];
        Parallel.forBlocks(n, CHUNK, (block, from, to) -> {
            var bin = new Bin(bands);
            for (int i = from; i < to; i++) {
                int k = (int) keys[i];
                bin(scene.surfaces().get(of[k]).corners(), which[k], k, p[of[k]], bin);
            }
            bins[block] = bin;
        });
        Parallel.forBlocks(bands, 1, (band, from, to) -> {
            int top = band * BAND;
            int bottom = Math.min(height, top + BAND);
            for (Bin bin : bins) {
                int[] list = bin.triangles[band];
                for (int i = 0; i < bin.count[band]; i++) {
                    int k = list[i];
                    triangle(scene.surfaces().get(of[k]), of[k], which[k], p[of[k]], top, bottom);
                }
            }
        });
    }

    /** A number that grows the nearer a triangle is. */
    private static int far(int[] corners, int t, float[] p) {
        float z = p[3 * corners[3 * t] + 2] + p[3 * corners[3 * t + 1] + 2] + p[3 * corners[3 * t + 2] + 2];
        int bits = Float.floatToIntBits(-z);
        // Turns the order of float bits into that of whole numbers.
        return bits ^ bits >> 31 & 0x7fffffff;
    }

    /** A thin line wherever two neighbouring pixels of one surface lie in different bands. */
    private void contours() {
        if (look.style().bands() == 0) {
            return;
        }
        boolean[] line = new boolean[argb.length];
        Parallel.forBlocks(height - 1, BAND, (block, from, to) -> {
            for (int y = from; y < to; y++) {
                for (int x = 0; x + 1 < width; x++) {
                    int at = y * width + x;
                    line[at] = parted(at, at + 1) || parted(at, at + width);
                }
            }
        });
        for (int i = 0; i < line.length; i++) {
            if (line[i]) {
                argb[i] = mix(argb[i], ink, 150);
            }
        }
    }

    private boolean parted(int a, int b) {
        return pick[a] >= 0
                && pick[b] >= 0
                && pick[a] >> 40 == pick[b] >> 40
                && !Float.isNaN(value[a])
                && !Float.isNaN(value[b])
                && look.band(look.share(value[a])) != look.band(look.share(value[b]));
    }

    /** Triangles of one block by band, in their order. */
    private static final class Bin {
        private final int[][] triangles;
        private final int[] count;

        Bin(int bands) {
            triangles = new int[bands][];
            count = new int[bands];
        }

        void add(int band, int t) {
            int[] list = triangles[band];
            if (list == null) {
                list = new int[256];
                triangles[band] = list;
            } else if (count[band] == list.length) {
                list = Arrays.copyOf(list, 2 * list.length);
                triangles[band] = list;
            }
            list[count[band]++] = t;
        }
    }

    private void bin(int[] corners, int t, int number, float[] p, Bin bin) {
        int a = 3 * corners[3 * t];
        int b = 3 * corners[3 * t + 1];
        int c = 3 * corners[3 * t + 2];
        float ay = p[a + 1];
        float by = p[b + 1];
        float cy = p[c + 1];
        float least = Math.min(ay, Math.min(by, cy));
        float greatest = Math.max(ay, Math.max(by, cy));
        int y0 = Math.max(0, (int) Math.ceil(least - 0.5));
        int y1 = Math.min(height - 1, (int) Math.floor(greatest - 0.5));
        // Written so that coordinates that are no numbers fail it.
        if (!(y0 <= y1 && greatest >= 0 && least <= height)) {
            return;
        }
        float ax = p[a];
        float bx = p[b];
        float cx = p[c];
        int x0 = Math.max(0, (int) Math.ceil(Math.min(ax, Math.min(bx, cx)) - 0.5));
        int x1 = Math.min(width - 1, (int) Math.floor(Math.max(ax, Math.max(bx, cx)) - 0.5));
        if (x0 > x1) {
            return;
        }
        if (x0 == x1 && y0 == y1) {
            // One pixel centre in the box, but is it in the triangle?
            double px = x0 + 0.5;
            double py = y0 + 0.5;
            double e1 = (double) (bx - ax) * (py - ay) - (by - ay) * (px - ax);
            double e2 = (double) (cx - bx) * (py - by) - (cy - by) * (px - bx);
            double e3 = (double) (ax - cx) * (py - cy) - (ay - cy) * (px - cx);
            if (Math.min(e1, Math.min(e2, e3)) < 0 && Math.max(e1, Math.max(e2, e3)) > 0) {
                return;
            }
        }
        int last = y1 / BAND;
        for (int band = y0 / BAND; band <= last; band++) {
            bin.add(band, number);
        }
    }

    private void triangle(Scene.Surface s, int index, int t, float[] p, int top, int bottom) {
        int a = s.corners()[3 * t];
        int b = s.corners()[3 * t + 1];
        int c = s.corners()[3 * t + 2];
        float ax = p[3 * a];
        float ay = p[3 * a + 1];
        float bx = p[3 * b];
        float by = p[3 * b + 1];
        float cx = p[3 * c];
        float cy = p[3 * c + 1];
        double area = (double) (bx - ax) * (cy - ay) - (double) (by - ay) * (cx - ax);
        if (area == 0 || Double.isNaN(area)) {
            return;
        }
        int x0 = Math.max(0, (int) Math.ceil(Math.min(ax, Math.min(bx, cx)) - 0.5));
        int x1 = Math.min(width - 1, (int) Math.floor(Math.max(ax, Math.max(bx, cx)) - 0.5));
        int y0 = Math.max(top, (int) Math.ceil(Math.min(ay, Math.min(by, cy)) - 0.5));
        int y1 = Math.min(bottom - 1, (int) Math.floor(Math.max(ay, Math.max(by, cy)) - 0.5));
        double sign = area > 0 ? 1 : -1;
        // Edge functions grow by these from pixel to pixel; they are exact, as corners are floats.
        double xbc = sign * -(cy - by);
        double ybc = sign * (cx - bx);
        double xca = sign * -(ay - cy);
        double yca = sign * (ax - cx);
        double xab = sign * -(by - ay);
        double yab = sign * (bx - ax);
        float az = p[3 * a + 2];
        float bz = p[3 * b + 2];
        float cz = p[3 * c + 2];
        float va = Float.NaN;
        float vb = Float.NaN;
        float vc = Float.NaN;
        double shade = -1;
        int flat = 0;
        double inverse = 1 / Math.abs(area);
        double span = look.greatest() - look.least();
        double toShare = span > 0 ? 1 / span : 0;
        boolean plainScale =
                !look.log() && look.style().bands() == 0 && !look.style().marked();
        boolean coloured = s.value().length > 0;
        // Side lengths in pixels, to turn edge functions into distances for drawn edges.
        byte edge = look.edges() ? s.edge()[t] : 0;
        double lab = edge == 0 ? 0 : Math.hypot(bx - ax, by - ay);
        double lbc = edge == 0 ? 0 : Math.hypot(cx - bx, cy - by);
        double lca = edge == 0 ? 0 : Math.hypot(ax - cx, ay - cy);
        boolean cut = away.length > 0 && !s.whole();
        long id = (long) index << 40 | t;
        int alpha = (int) Math.round(256 * Math.min(1, s.opacity()));
        for (int y = y0; y <= y1; y++) {
            double py = y + 0.5;
            for (int x = x0; x <= x1; x++) {
                double px = x + 0.5;
                double ebc = ybc * (py - by) + xbc * (px - bx);
                double eca = yca * (py - cy) + xca * (px - cx);
                double eab = yab * (py - ay) + xab * (px - ax);
                if (ebc < 0
                        || eca < 0
                        || eab < 0
                        || ebc == 0 && !owns(ybc, -xbc)
                        || eca == 0 && !owns(yca, -xca)
                        || eab == 0 && !owns(yab, -xab)) {
                    continue;
                }
                double wa = ebc * inverse;
                double wb = eca * inverse;
                double wc = eab * inverse;
                float z = (float) (wa * az + wb * bz + wc * cz);
                int at = y * width + x;
                if (z >= depth[at] || cut && cutAway(px, py, z)) {
                    continue;
                }
                if (shade < 0) {
                    // Only a triangle that is seen is lit and coloured.
                    if (s.value().length > 0) {
                        va = s.value()[s.byNode() ? a : s.face()[t]];
                        vb = s.byNode() ? s.value()[b] : va;
                        vc = s.byNode() ? s.value()[c] : va;
                        if (look.style().byFace() && s.byNode()) {
                            va = s.mean(t);
                            vb = va;
                            vc = va;
                        }
                    }
                    shade = look.shaded() ? shade(s.xyz(), a, b, c) : 1;
                    flat = shaded(s.value().length == 0 ? plain : missing, shade);
                }
                double v = wa * va + wb * vb + wc * vc;
                int colour;
                if (coloured && !Double.isNaN(v)) {
                    colour = shaded(
                            plainScale ? look.scale().colour((v - look.least()) * toShare) : look.colour(look.share(v)),
                            shade);
                } else {
                    // Where a value is missing the surface is hatched, so that it is not taken for one of the scale.
                    colour = coloured && (x + y & 7) < 2 ? mix(flat, ink, 90) : flat;
                }
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
                    value[at] = coloured ? (float) v : Float.NaN;
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
