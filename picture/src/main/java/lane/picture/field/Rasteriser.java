package lane.picture.field;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.Parallel;

/**
 * Draws a scene into a buffer of pixels with depth: nodes are projected in parallel, {@link Visibility} finds what is
 * nearest at each pixel, {@link Shading} colours each pixel once, then lines between bands and {@link SeeThrough} what
 * is transparent. The result does not depend on the number of threads.
 */
public final class Rasteriser {
    private static final int MOST = 0xFFFF;
    private static final int ROWS = 32;

    private final Scene scene;
    private final Camera camera;
    private final Look look;
    private final int width;
    private final int height;
    private final int[] argb;
    private final long[] keys;
    private int[] first;
    /** The value at each pixel where lines between bands are drawn. */
    private final float[] band;

    private Rasteriser(Scene scene, Camera camera, Look look, int width, int height) {
        this.scene = scene;
        this.camera = camera;
        this.look = look;
        this.width = width;
        this.height = height;
        argb = new int[width * height];
        keys = new long[argb.length];
        band = new float[look.style().bands() == 0 ? 0 : argb.length];
    }

    /**
     * @param ground colour behind everything, without alpha
     * @throws lane.base.LaneException for a picture that is larger than can be held
     */
    public static Frame draw(Scene scene, Camera camera, Look look, int width, int height, int ground) {
        if (width > MOST || height > MOST || (long) width * height > Integer.MAX_VALUE / 8) {
            throw new lane.base.LaneException("A picture of " + width + " x " + height
                    + " pixels is too large; give at most " + MOST + " a side and 268 million in all.");
        }
        var r = new Rasteriser(scene, camera, look, width, height);
        Parallel.forBlocks(r.keys.length, 1 << 17, (block, from, to) -> {
            Arrays.fill(r.keys, from, to, Visibility.NOTHING);
            Arrays.fill(r.argb, from, to, 0xFF000000 | ground);
            if (r.band.length > 0) {
                Arrays.fill(r.band, from, to, Float.NaN);
            }
        });
        r.draw();
        return new Frame(width, height, r.argb, r.keys, r.first, r.band, camera, scene);
    }

    private void draw() {
        double[][][] away = scene.away().stream().map(this::inPicture).toArray(double[][][]::new);
        var visibility = new Visibility(width, height, keys, away);
        int surfaces = scene.surfaces().size();
        float[][] projected = new float[surfaces][];
        List<Won> won = new ArrayList<>();
        first = new int[surfaces + 1];
        for (int s = 0; s < surfaces; s++) {
            Scene.Surface surface = scene.surfaces().get(s);
            first[s + 1] = Math.addExact(first[s], surface.triangles());
            projected[s] = Spare.floats(surface.opacity() > 0 ? surface.xyz().length : 0);
            long[] cells = Spare.longs(projected[s].length / 3);
            project(surface.xyz(), projected[s], cells, visibility);
            if (surface.opacity() >= 1) {
                for (Visibility.Wins w : visibility.draw(surface, first[s], projected[s], cells)) {
                    won.add(new Won(s, w));
                }
            }
            Spare.give(cells);
        }
        Parallel.forBlocks(won.size(), 4, (block, from, to) -> {
            var shading = new Shading(scene, camera, look, projected);
            won.subList(from, to).forEach(w -> shade(shading, w));
        });
        contours();
        SeeThrough.draw(
                scene,
                projected,
                first,
                away,
                () -> new Shading(scene, camera, look, projected),
                width,
                height,
                argb,
                keys);
        for (float[] p : projected) {
            Spare.give(p);
        }
    }

    private record Won(int surface, Visibility.Wins wins) {}

    /**
     * Colours the pixels that triangles won and kept: triangle by triangle, as memory is read in order then. Each pixel has
     * one owner, so threads do not meet.
     */
    private void shade(Shading shading, Won won) {
        int[] pairs = won.wins.pairs;
        for (int i = 0; i < won.wins.size; i += 2) {
            int t = pairs[i];
            int at = pairs[i + 1];
            if ((int) keys[at] == first[won.surface] + t) {
                argb[at] = shading.colour(won.surface, t, at % width, at / width);
                if (band.length > 0) {
                    band[at] = shading.value;
                }
            }
        }
    }

    /** Writes pixel x, pixel y and depth of each node, and its cell of pixels. */
    private void project(double[] xyz, float[] out, long[] cells, Visibility visibility) {
        var r = camera.right().times(camera.scale());
        var u = camera.up().times(-camera.scale());
        var f = camera.forward();
        var c = camera.centre();
        Parallel.forBlocks(cells.length, 1 << 13, (block, from, to) -> {
            for (int i = 3 * from; i < 3 * to; i += 3) {
                double x = xyz[i] - c.x();
                double y = xyz[i + 1] - c.y();
                double z = xyz[i + 2] - c.z();
                float right = (float) (width / 2.0 + (x * r.x() + y * r.y() + z * r.z()));
                float down = (float) (height / 2.0 + (x * u.x() + y * u.y() + z * u.z()));
                float depth = (float) (x * f.x() + y * f.y() + z * f.z());
                out[i] = right;
                out[i + 1] = down;
                out[i + 2] = depth;
                cells[i / 3] = visibility.cell(right, down, depth);
            }
        });
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
        return !Float.isNaN(band[a])
                && !Float.isNaN(band[b])
                && look.band(look.share(band[a])) != look.band(look.share(band[b]))
                && surface(a) == surface(b);
    }

    private int surface(int at) {
        int s = 0;
        while ((int) keys[at] >= first[s + 1]) {
            s++;
        }
        return s;
    }
}
