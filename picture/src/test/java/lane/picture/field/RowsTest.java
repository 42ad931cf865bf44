package lane.picture.field;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import lane.mesh.Point;
import org.junit.jupiter.api.Test;

/** A thread that draws some rows writes these and no others, or threads would meet. */
class RowsTest {
    private static final int W = 60;
    private static final int H = 64;
    private static final Camera CAMERA = new Camera(new Point(W / 2.0, 0, -H / 2.0), 0, 0, 1);

    private static Scene.Surface scattered(int n, int size) {
        var random = new Random(size);
        double[] xyz = new double[9 * n];
        int[] corners = new int[3 * n];
        int[] face = new int[n];
        for (int t = 0; t < n; t++) {
            double x = random.nextInt(4 * W) / 4.0;
            double z = -random.nextInt(4 * H) / 4.0;
            double depth = random.nextInt(9);
            for (int i = 3 * t; i < 3 * t + 3; i++) {
                xyz[3 * i] = x + random.nextInt(-size, size + 1) / 4.0;
                xyz[3 * i + 1] = depth;
                xyz[3 * i + 2] = z + random.nextInt(-size, size + 1) / 4.0;
                corners[i] = i;
                face[t] = t;
            }
        }
        return new Scene.Surface("s", xyz, corners, face, new float[0], true, 1, new byte[n], false);
    }

    private static long[] rows(Scene.Surface s, int top, int bottom) {
        var projection = new Projection(CAMERA, W, H);
        int nodes = s.xyz().length / 3;
        float[] p = new float[3 * nodes];
        long[] cells = new long[nodes];
        for (int i = 0; i < nodes; i++) {
            double[] x = Arrays.copyOfRange(s.xyz(), 3 * i, 3 * i + 3);
            p[3 * i] = projection.right(x[0], x[1], x[2]);
            p[3 * i + 1] = projection.down(x[0], x[1], x[2]);
            p[3 * i + 2] = projection.depth(x[0], x[1], x[2]);
            cells[i] = Visibility.cell(projection.column(p[3 * i]), projection.row(p[3 * i + 1]), p[3 * i + 2]);
        }
        long[] keys = new long[W * H];
        Arrays.fill(keys, Visibility.NOTHING);
        new Visibility(W, top, bottom, keys, new double[0][][])
                .draw(s, 0, new Runs(s.geometry().boxes(), projection), p, cells);
        return keys;
    }

    @Test
    void rowsOfOthersAreLeftAlone() {
        for (int size : new int[] {2, 4, 9, 40}) {
            Scene.Surface s = scattered(4000, size);
            long[] all = rows(s, 0, H);
            assertThat(all)
                    .isEqualTo(Rasteriser.draw(
                                    new Scene(List.of(s)),
                                    CAMERA,
                                    new Look(ColourScale.SIZE, 0, 1, false, false, false),
                                    W,
                                    H,
                                    0)
                            .keys());
            for (int[] part : new int[][] {{0, 16}, {16, 24}, {24, 64}}) {
                long[] some = rows(s, part[0], part[1]);
                for (int i = 0; i < some.length; i++) {
                    boolean own = i / W >= part[0] && i / W < part[1];
                    assertThat(some[i])
                            .as("size %s, row %s, pixel %s", size, i / W, i)
                            .isEqualTo(own ? all[i] : Visibility.NOTHING);
                }
            }
        }
    }
}
