package lane.picture.field;

import java.util.Arrays;
import lane.base.Parallel;

/**
 * Draws a scene into a buffer of pixels with depth: nodes are projected in parallel, {@link Visibility} finds what is
 * nearest at each pixel, {@link Shading} colours each pixel once, then lines between bands and {@link SeeThrough} what
 * is transparent. The result does not depend on the number of threads.
 */
public final class Rasteriser {
    private static final int ROWS = 32;

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

    private Rasteriser(Scene scene, Camera camera, Look look, int width, int height) {
        this.scene = scene;
        this.camera = camera;
        this.look = look;
        this.width = width;
        this.height = height;
        argb = new int[width * height];
        depth = new float[argb.length];
        pick = new long[argb.length];
        value = new float[argb.length];
    }

    /** @param ground colour behind everything, without alpha */
    public static Frame draw(Scene scene, Camera camera, Look look, int width, int height, int ground) {
        var r = new Rasteriser(scene, camera, look, width, height);
        Parallel.forBlocks(r.depth.length, 1 << 17, (block, from, to) -> {
            Arrays.fill(r.depth, from, to, Float.POSITIVE_INFINITY);
            Arrays.fill(r.pick, from, to, -1);
        });
        r.draw(0xFF000000 | ground);
        return new Frame(width, height, r.argb, r.depth, r.pick, r.value, camera, scene);
    }

    private void draw(int ground) {
        double[][][] away = scene.away().stream().map(this::inPicture).toArray(double[][][]::new);
        var visibility = new Visibility(width, height, depth, pick, away);
        int surfaces = scene.surfaces().size();
        float[][] projected = new float[surfaces][];
        for (int s = 0; s < surfaces; s++) {
            Scene.Surface surface = scene.surfaces().get(s);
            projected[s] = surface.opacity() > 0 ? project(surface.xyz()) : new float[0];
            if (surface.opacity() >= 1) {
                visibility.draw(surface, s, projected[s]);
            }
        }
        Parallel.forBlocks(height, ROWS, (block, from, to) -> {
            var shading = new Shading(scene, camera, look, projected);
            for (int y = from; y < to; y++) {
                for (int x = 0; x < width; x++) {
                    int at = y * width + x;
                    long p = pick[at];
                    if (p < 0) {
                        argb[at] = ground;
                        value[at] = Float.NaN;
                    } else {
                        argb[at] = shading.colour((int) (p >> 40), (int) (p & 0xFFFFFFFFFFL), x, y);
                        value[at] = shading.value;
                    }
                }
            }
        });
        contours();
        SeeThrough.draw(
                scene,
                projected,
                away,
                () -> new Shading(scene, camera, look, projected),
                width,
                height,
                argb,
                depth,
                pick);
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

    /** For each plane of a space: how its distance grows by pixel right, pixel down and depth, and at zero. */
    private double[][] inPicture(Scene.Away space) {
        double[][] out = new double[space.normals().size()][];
        for (int i = 0; i < out.length; i++) {
            var n = space.normals().get(i);
            double right = n.dot(camera.right()) / camera.scale();
            double down = -n.dot(camera.up()) / camera.scale();
            double zero = n.dot(camera.centre().minus(space.points().get(i)));
            out[i] =
                    new double[] {right, down, n.dot(camera.forward()), zero - right * width / 2.0 - down * height / 2.0
                    };
        }
        return out;
    }

    /** A thin line wherever two neighbouring pixels of one surface lie in different bands. */
    private void contours() {
        if (look.style().bands() == 0) {
            return;
        }
        boolean[] line = new boolean[argb.length];
        Parallel.forBlocks(height - 1, ROWS, (block, from, to) -> {
            for (int y = from; y < to; y++) {
                for (int x = 0; x + 1 < width; x++) {
                    int at = y * width + x;
                    line[at] = parted(at, at + 1) || parted(at, at + width);
                }
            }
        });
        int ink = Shading.ink(look);
        for (int i = 0; i < line.length; i++) {
            if (line[i]) {
                argb[i] = Shading.mix(argb[i], ink, 150);
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
}
