package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import lane.mesh.Point;
import lane.picture.field.Camera;
import lane.picture.field.ColourScale;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import org.junit.jupiter.api.Test;

/**
 * What is in front at each pixel, against a search over all triangles in whole numbers: corners at quarters of a pixel, so
 * that many lie on edges and on centres of pixels, at few depths, so that many are at the same.
 */
class VisibilityTest {
    private static final int W = 97;
    private static final int H = 71;
    private static final Look LOOK = new Look(ColourScale.SIZE, 0, 1, false, false, false);
    /** Looks along y at one pixel a metre, the origin in the upper left corner of the picture. */
    private static final Camera CAMERA = new Camera(new Point(W / 2.0, 0, -H / 2.0), 0, 0, 1);

    /** Corners in quarters of a pixel, right and down. */
    private record Corners(int[] x, int[] y, int[] depth) {
        int triangles() {
            return x.length / 3;
        }

        static Corners random(Random random, int n, int size) {
            var c = new Corners(new int[3 * n], new int[3 * n], new int[3 * n]);
            for (int t = 0; t < n; t++) {
                int cx = random.nextInt(-40, 4 * W + 40);
                int cy = random.nextInt(-40, 4 * H + 40);
                int depth = random.nextInt(6);
                for (int k = 0; k < 3; k++) {
                    c.x[3 * t + k] = cx + random.nextInt(-size, size + 1);
                    c.y[3 * t + k] = cy + random.nextInt(-size, size + 1);
                    c.depth[3 * t + k] = depth;
                }
            }
            return c;
        }

        Scene.Surface surface(String name) {
            int n = triangles();
            double[] xyz = new double[9 * n];
            int[] corners = new int[3 * n];
            int[] face = new int[n];
            for (int i = 0; i < 3 * n; i++) {
                xyz[3 * i] = x[i] / 4.0;
                xyz[3 * i + 1] = depth[i];
                xyz[3 * i + 2] = -y[i] / 4.0;
                corners[i] = i;
                face[i / 3] = i / 3;
            }
            return new Scene.Surface(name, xyz, corners, face, new float[0], true, 1, new byte[n], false);
        }

        /** Whether a triangle owns the centre of a pixel: the rule is that of left and top edges. */
        boolean owns(int t, int px, int py) {
            long qx = 4L * px + 2;
            long qy = 4L * py + 2;
            long area = cross(t, 0, 1, x[3 * t + 2], y[3 * t + 2]);
            if (area == 0) {
                return false;
            }
            for (int k = 0; k < 3; k++) {
                int a = 3 * t + k;
                int b = 3 * t + (k + 1) % 3;
                long side = Long.signum(area) * cross(t, k, (k + 1) % 3, qx, qy);
                long dx = Long.signum(area) * (x[b] - x[a]);
                long dy = Long.signum(area) * (y[b] - y[a]);
                if (side < 0 || side == 0 && !(dy < 0 || dy == 0 && dx > 0)) {
                    return false;
                }
            }
            return true;
        }

        private long cross(int t, int a, int b, long px, long py) {
            return (long) (x[3 * t + b] - x[3 * t + a]) * (py - y[3 * t + a])
                    - (long) (y[3 * t + b] - y[3 * t + a]) * (px - x[3 * t + a]);
        }
    }

    private static void check(List<Corners> all) {
        Scene scene = new Scene(java.util.stream.IntStream.range(0, all.size())
                .mapToObj(i -> all.get(i).surface(String.valueOf(i)))
                .toList());
        DrawnFrame frame = Rasteriser.draw(scene, CAMERA, LOOK, W, H, 0);
        for (int py = 0; py < H; py++) {
            for (int px = 0; px < W; px++) {
                String best = "none";
                int depth = Integer.MAX_VALUE;
                for (int s = 0; s < all.size(); s++) {
                    Corners c = all.get(s);
                    for (int t = 0; t < c.triangles(); t++) {
                        if (c.depth[3 * t] < depth && c.owns(t, px, py)) {
                            depth = c.depth[3 * t];
                            best = s + " " + t;
                        }
                    }
                }
                String seen =
                        frame.at(px, py).map(h -> h.name() + " " + h.face()).orElse("none");
                assertThat(seen).as("pixel " + px + ", " + py).isEqualTo(best);
            }
        }
    }

    @Test
    void smallAndLargeTrianglesAreInFrontWhereASearchFindsThem() {
        var random = new Random(11);
        check(List.of(
                Corners.random(random, 400, 3), Corners.random(random, 300, 12), Corners.random(random, 60, 300)));
    }

    @Test
    void emptySurfacesAndSurfacesOutsideOfThePictureDoNotDisturb() {
        var random = new Random(5);
        var none = new Corners(new int[0], new int[0], new int[0]);
        check(List.of(none, Corners.random(random, 50, 30), none, none, Corners.random(random, 50, 30), none));
        check(List.of(none));
        DrawnFrame empty = Rasteriser.draw(new Scene(List.of()), CAMERA, LOOK, W, H, 0x123456);
        assertThat(empty.argb()).containsOnly(0xFF123456);
    }

    @Test
    void aPictureThatIsTooLargeIsRefusedInOneSentence() {
        assertThatThrownBy(() -> Rasteriser.draw(new Scene(List.of()), CAMERA, LOOK, 70_000, 10, 0))
                .isInstanceOf(lane.base.LaneException.class)
                .hasMessageContaining("70000 x 10 pixels is too large");
    }

    /** Threads may take blocks of triangles in any order. */
    @Test
    void manyBlocksGiveTheSamePictureEveryTime() {
        var random = new Random(3);
        Scene scene = new Scene(List.of(
                Corners.random(random, 60_000, 4).surface("a"),
                Corners.random(random, 30_000, 8).surface("b")));
        long[] first = Rasteriser.draw(scene, CAMERA, LOOK, W, H, 0).keys();
        for (int k = 0; k < 20; k++) {
            assertThat(Rasteriser.draw(scene, CAMERA, LOOK, W, H, 0).keys()).isEqualTo(first);
        }
    }

    @Test
    void cornersThatAreNoNumbersDrawNothing() {
        Corners c = Corners.random(new Random(1), 200, 20);
        Scene.Surface s = c.surface("a");
        for (int i = 0; i < s.xyz().length; i += 7) {
            s.xyz()[i] = i % 2 == 0 ? Double.NaN : Double.POSITIVE_INFINITY;
        }
        DrawnFrame frame = Rasteriser.draw(new Scene(List.of(s)), CAMERA, LOOK, W, H, 0);
        for (int py = 0; py < H; py++) {
            for (int px = 0; px < W; px++) {
                frame.at(px, py).ifPresent(h -> {
                    for (int k = 0; k < 9; k++) {
                        assertThat(s.xyz()[9 * h.face() + k]).isFinite();
                    }
                });
            }
        }
    }

    /** Wavy sheets behind one another: most of their triangles are hidden, and runs of them are passed over. */
    private static Scene.Surface sheets(int[] order) {
        int n = 120;
        int sheets = 4;
        double[] xyz = new double[3 * sheets * n * n];
        for (int i = 0; i < xyz.length / 3; i++) {
            int sheet = i / (n * n);
            double u = (double) (i % n) / (n - 1);
            double v = (double) (i / n % n) / (n - 1);
            xyz[3 * i] = 1.2 * W * u - 0.1 * W;
            xyz[3 * i + 1] = 2 * sheet + 4 * Math.sin(9 * u + sheet) * Math.cos(7 * v) + 30 * u;
            xyz[3 * i + 2] = -(0.8 * H * v + 0.03 * H * sheet) + Math.sin(5 * u + sheet);
        }
        int[] corners = new int[6 * sheets * (n - 1) * (n - 1)];
        int at = 0;
        for (int sheet = sheets - 1; sheet >= 0; sheet--) {
            for (int k = 0; k < (n - 1) * (n - 1); k++) {
                int a = sheet * n * n + k / (n - 1) * n + k % (n - 1);
                for (int c : new int[] {a, a + 1, a + n + 1, a, a + n + 1, a + n}) {
                    corners[at++] = c;
                }
            }
        }
        int[] mixed = new int[corners.length];
        for (int t = 0; t < order.length; t++) {
            System.arraycopy(corners, 3 * order[t], mixed, 3 * t, 3);
        }
        return new Scene.Surface("s", xyz, mixed, order, new float[0], true, 1, new byte[order.length], false);
    }

    private static final int IN_SHEETS = 4 * 2 * 119 * 119;

    private static int[] seen(Scene.Surface s, Camera camera) {
        DrawnFrame frame = Rasteriser.draw(new Scene(List.of(s)), camera, LOOK, W, H, 0);
        int[] out = new int[W * H];
        for (int i = 0; i < out.length; i++) {
            out[i] = frame.at(i % W, i / W).map(DrawnFrame.Hit::face).orElse(-1);
        }
        return out;
    }

    @Test
    void whatIsHiddenIsPassedOverWithoutATrace() {
        int[] plain = java.util.stream.IntStream.range(0, IN_SHEETS).toArray();
        int[] mixed = plain.clone();
        var random = new Random(8);
        for (int i = mixed.length - 1; i > 0; i--) {
            int k = random.nextInt(i + 1);
            int held = mixed[i];
            mixed[i] = mixed[k];
            mixed[k] = held;
        }
        // Runs of triangles that lie anywhere hide nothing, so the second picture is drawn in full.
        Scene.Surface near = sheets(plain);
        Scene.Surface anywhere = sheets(mixed);
        for (Camera c : List.of(
                CAMERA,
                CAMERA.turned(0.7, 0.3),
                CAMERA.turned(3, -0.6),
                CAMERA.zoomed(6, 40, 30, W, H),
                CAMERA.moved(60, 20))) {
            int[] seen = seen(near, c);
            assertThat(seen).isEqualTo(seen(anywhere, c));
            assertThat(java.util.Arrays.stream(seen)
                            .filter(f -> f >= 0)
                            .distinct()
                            .count())
                    .isGreaterThan(500);
        }
    }

    /** A corner that is no number must not make the box around its neighbours vanish. */
    @Test
    void neighboursOfAFaultyCornerAreDrawn() {
        int[] plain = java.util.stream.IntStream.range(0, IN_SHEETS).toArray();
        Scene.Surface whole = sheets(plain);
        Scene.Surface holed = sheets(plain);
        int bad = 60 * 120 + 60;
        holed.xyz()[3 * bad] = Double.NaN;
        int[] all = seen(whole, CAMERA);
        int[] some = seen(holed, CAMERA);
        for (int i = 0; i < all.length; i++) {
            int face = all[i];
            boolean touches =
                    face >= 0 && List.of(0, 1, 2).stream().anyMatch(k -> whole.corners()[3 * face + k] == bad);
            if (!touches) {
                assertThat(some[i]).isEqualTo(face);
            }
        }
    }
}
