package lane.picture.field;

import java.util.Arrays;
import lane.base.Parallel;

/**
 * Draws a scene into a buffer of pixels with depth: nodes are projected in parallel, {@link Visibility} finds what is
 * nearest at each pixel, {@link Shading} colours each pixel once, then lines between bands and {@link SeeThrough} what
 * is transparent. The result does not depend on the number of threads.
 */
public final class Rasteriser {
    private static final int MOST = 0xFFFF;
    /** Rows that one thread draws: what a pixel holds has one owner. */
    private static final int ROWS = 160;

    private final Scene scene;
    private final Camera camera;
    private final Look look;
    private final int width;
    private final int height;
    private final int[] argb;
    private final long[] keys;
    private int[] first = {};
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
    public static DrawnFrame draw(Scene scene, Camera camera, Look look, int width, int height, int ground) {
        if (width > MOST || height > MOST || (long) width * height > Integer.MAX_VALUE / 8) {
            throw new lane.base.LaneException("A picture of " + width + " x " + height
                    + " pixels is too large; give at most " + MOST + " a side and 268 million in all.");
        }
        var r = new Rasteriser(scene, camera, look, width, height);
        r.draw(0xFF000000 | ground);
        return new DrawnFrame(width, height, r.argb, r.keys, r.first, r.band, camera, scene);
    }

    private void draw(int ground) {
        double[][][] away = scene.away().stream().map(this::inPicture).toArray(double[][][]::new);
        var projection = new Projection(camera, width, height);
        int surfaces = scene.surfaces().size();
        float[][] projected = new float[surfaces][];
        long[][] cells = new long[surfaces][];
        Runs[] runs = new Runs[surfaces];
        first = new int[surfaces + 1];
        for (int s = 0; s < surfaces; s++) {
            Scene.Surface surface = scene.surfaces().get(s);
            first[s + 1] = Math.addExact(first[s], surface.triangles());
            projected[s] = Spare.floats(surface.opacity() > 0 ? surface.xyz().length : 0);
            cells[s] = Spare.longs(projected[s].length / 3);
            project(surface.xyz(), projected[s], cells[s], projection);
            runs[s] = surface.opacity() >= 1 ? new Runs(surface.geometry().boxes(), projection) : null;
        }
        Parallel.forBlocks(height, rows(), (block, top, bottom) -> {
            Arrays.fill(keys, top * width, bottom * width, Visibility.NOTHING);
            Arrays.fill(argb, top * width, bottom * width, ground);
            if (band.length > 0) {
                Arrays.fill(band, top * width, bottom * width, Float.NaN);
            }
            var visibility = new Visibility(width, top, bottom, keys, away);
            var wins = new Visibility.Wins[surfaces];
            for (int s = 0; s < surfaces; s++) {
                if (runs[s] != null) {
                    wins[s] = visibility.draw(scene.surfaces().get(s), first[s], runs[s], projected[s], cells[s]);
                }
            }
            var shading = new Shading(scene, camera, look, projected);
            for (int s = 0; s < surfaces; s++) {
                if (runs[s] != null) {
                    shade(shading, s, wins[s]);
                    Spare.give(wins[s].all);
                }
            }
        });
        for (long[] c : cells) {
            Spare.give(c);
        }
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

    /**
     * Colours the pixels that triangles won and kept, in the order in which they were drawn: memory is read in order then.
     */
    private void shade(Shading shading, int surface, Visibility.Wins wins) {
        int[] won = wins.all;
        for (int i = 0; i < wins.size; i += Visibility.Wins.EACH) {
            int t = won[i];
            int x = won[i + 1] & 0xFFFF;
            int y = won[i + 1] >>> 16;
            int at = y * width + x;
            if ((int) keys[at] == first[surface] + t) {
                float second = Float.intBitsToFloat(won[i + 2]);
                float third = Float.intBitsToFloat(won[i + 3]);
                argb[at] = shading.colour(surface, t, x, y, second, third);
                if (band.length > 0) {
                    band[at] = shading.value;
                }
            }
        }
    }

    /** Writes pixel x, pixel y and depth of each node, and its cell of pixels. */
    private static void project(double[] xyz, float[] out, long[] cells, Projection projection) {
        Parallel.forBlocks(cells.length, 1 << 13, (block, from, to) -> {
            for (int i = 3 * from; i < 3 * to; i += 3) {
                float right = projection.right(xyz[i], xyz[i + 1], xyz[i + 2]);
                float down = projection.down(xyz[i], xyz[i + 1], xyz[i + 2]);
                float depth = projection.depth(xyz[i], xyz[i + 1], xyz[i + 2]);
                out[i] = right;
                out[i + 1] = down;
                out[i + 2] = depth;
                cells[i / 3] = Visibility.cell(projection.column(right), projection.row(down), depth);
            }
        });
    }

    /** Rows that one thread draws at a time. Few large parts, as triangles on their borders are drawn twice. */
    private int rows() {
        int parts = 5 * Parallel.threads() / 2;
        return Math.max(16, (height / parts + 7) / 8 * 8);
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
