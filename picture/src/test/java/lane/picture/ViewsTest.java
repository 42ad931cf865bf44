package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.util.List;
import lane.mesh.Axis;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.picture.field.Annotations;
import lane.picture.field.BandLabels;
import lane.picture.field.Camera;
import lane.picture.field.Coarse;
import lane.picture.field.ColourScale;
import lane.picture.field.Distances;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import org.junit.jupiter.api.Test;

/** Views, measuring, bands, coarse drawing and cut-away spaces, read from numbers and pixels. */
class ViewsTest {
    private static final int W = 400;
    private static final int H = 300;

    private static double[] project(Camera c, Point p) {
        double[] out = new double[3];
        c.project(p.x(), p.y(), p.z(), W, H, out);
        return out;
    }

    @Test
    void aViewTurnsAboutAPickedPlace() {
        var c = new Camera(new Point(1, 2, 3), 0.4, 0.3, 55);
        var pivot = new Point(1.7, 1.1, 3.9);
        Camera turned = c.turnedAbout(pivot, 0.8, -0.5);
        double[] before = project(c, pivot);
        double[] after = project(turned, pivot);
        for (int d = 0; d < 3; d++) {
            assertThat(after[d]).isCloseTo(before[d], within(1e-9));
        }
        assertThat(turned.yaw()).isCloseTo(1.2, within(1e-12));
    }

    @Test
    void aBoxFillsThePicture() {
        var c = new Camera(new Point(0, 0, 0), 0, 0, 10);
        Camera near = c.boxed(100, 50, 200, 100, W, H);
        assertThat(near.scale()).isEqualTo(40);
        Point corner = c.place(100, 50, 0, W, H);
        double[] p = project(near, corner);
        assertThat(p[0]).isCloseTo(0, within(1e-9));
        assertThat(p[1]).isCloseTo(50, within(1e-9));
        assertThat(c.boxed(10, 10, 10.5, 200, W, H)).isEqualTo(c);
    }

    @Test
    void camerasLookAlongADirection() {
        for (Point f : List.of(new Point(0, 0, -1), new Point(0, 1, 0), new Point(-1, 0, 0), new Point(1, -2, 3))) {
            double[] a = Camera.angles(f);
            Point seen = new Camera(new Point(0, 0, 0), a[0], a[1], 1).forward();
            assertThat(seen.minus(f.unit()).norm()).isLessThan(1e-12);
        }
    }

    @Test
    void distancesAndAngles() {
        var p = List.of(new Point(0.03, 0, 0), new Point(0, 0, 0), new Point(0, 0.01, 0));
        assertThat(Distances.words(p.subList(0, 2))).isEqualTo("30 mm (-30, 0, 0)");
        assertThat(Distances.angle(p)).isCloseTo(90, within(1e-12));
        assertThat(Distances.words(p)).contains("angle 90");
        assertThat(Distances.words(List.of())).contains("Click two places");
    }

    /** A square of n x n quads in the plane of x and z, value x. */
    private static Scene.Surface square(int n) {
        double[] xyz = new double[3 * (n + 1) * (n + 1)];
        float[] v = new float[(n + 1) * (n + 1)];
        int[] nodes = new int[4 * n * n];
        for (int i = 0; i < v.length; i++) {
            xyz[3 * i] = (double) (i % (n + 1)) / n;
            xyz[3 * i + 2] = (double) (i / (n + 1)) / n;
            v[i] = (float) xyz[3 * i];
        }
        for (int i = 0; i < n * n; i++) {
            int a = i / n * (n + 1) + i % n;
            nodes[4 * i] = a;
            nodes[4 * i + 1] = a + 1;
            nodes[4 * i + 2] = a + n + 2;
            nodes[4 * i + 3] = a + n + 1;
        }
        return Scene.surface("square", Mesh.uniform(xyz, CellShape.QUAD, nodes), v, true, 1);
    }

    private static final Camera FRONT = new Camera(new Point(0.5, 0, 0.5), 0, 0, 200);

    @Test
    void valuesOfBandsAreWrittenOnTheirLines() {
        var look = new Look(ColourScale.SIZE, 0, 1, false, false, false, new Look.Style(4, false, false, false));
        DrawnFrame frame = Rasteriser.draw(new Scene(List.of(square(10))), FRONT, look, W, H, 0xFFFFFF);
        List<Annotations.BandLabel> labels = BandLabels.of(frame, look, v -> String.valueOf(Math.round(100 * v)));
        assertThat(labels).extracting(Annotations.BandLabel::text).contains("25", "50", "75");
        for (Annotations.BandLabel l : labels) {
            double value = (l.x() - 100) / 200.0;
            assertThat(value).isCloseTo(Double.parseDouble(l.text()) / 100, within(0.011));
        }
    }

    @Test
    void aCoarseSceneHasFewerTrianglesAndLooksAlmostTheSame() {
        Scene small = new Scene(List.of(square(20)));
        assertThat(Coarse.of(small)).isSameAs(small);
        Scene many = new Scene(List.of(square(1150)));
        Scene coarse = Coarse.of(many);
        assertThat(coarse.surfaces().getFirst().triangles()).isLessThan(60_000).isGreaterThan(10_000);
        var look = new Look(ColourScale.SIZE, 0, 1, false, false, false);
        DrawnFrame exact = Rasteriser.draw(many, FRONT, look, W, H, 0xFFFFFF);
        DrawnFrame rough = Rasteriser.draw(coarse, FRONT, look, W, H, 0xFFFFFF);
        for (int y = 60; y < 240; y += 7) {
            for (int x = 110; x < 290; x += 7) {
                assertThat(rough.value(x, y)).isCloseTo(exact.value(x, y), within(0.02));
            }
        }
    }

    @Test
    void aBoxIsCutAwayAndWhatStandsBehindIsSeen() {
        var away = Scene.Away.inside(new double[] {0.25, 0.5, -1, 1, -1, 2}, Axis.Z);
        var look = new Look(ColourScale.SIZE, 0, 1, false, false, false);
        DrawnFrame frame = Rasteriser.draw(new Scene(List.of(square(7)), List.of(away)), FRONT, look, W, H, 0xFFFFFF);
        int y = 150;
        assertThat(frame.at(100 + 40, y)).isPresent();
        assertThat(frame.at(100 + 60, y)).isEmpty();
        assertThat(frame.at(100 + 90, y)).isEmpty();
        assertThat(frame.at(100 + 110, y)).isPresent();
    }

    /** Triangles of less than a pixel give each pixel of the square exactly one owner and its exact value. */
    @Test
    void trianglesSmallerThanAPixelLeaveNoHole() {
        var look = new Look(ColourScale.SIZE, 0, 1, false, false, false);
        DrawnFrame frame = Rasteriser.draw(new Scene(List.of(square(431))), FRONT, look, W, H, 0xFFFFFF);
        for (int y = 51; y < 249; y++) {
            for (int x = 101; x < 299; x++) {
                assertThat(frame.value(x, y)).isCloseTo((x + 0.5 - 100) / 200, within(1e-6));
                assertThat(frame.argb()[y * W + x]).isEqualTo(ColourScale.SIZE.colour((x + 0.5 - 100) / 200));
            }
        }
    }

    @Test
    void flatAxesStandWhereTheirNumbersSay() {
        var image = new BufferedImage(W, H, BufferedImage.TYPE_INT_ARGB);
        var g = image.createGraphics();
        var flat = new Annotations.Flat(
                new Point(0, 0, 0),
                new Annotations.Flat.AxisOf("x", "mm", new Point(1, 0, 0), 1000, 0),
                new Annotations.Flat.AxisOf("z", "mm", new Point(0, 0, 1), 1000, 0));
        var over = new Annotations.Over(List.of(), List.of(), List.of(), List.of(), null, flat);
        Annotations.paint(g, FRONT, W, H, over, Palette.LIGHT);
        // x = 0.5 m stands at pixel 200: the grid's line is darker than the ground beside it.
        int on = image.getRGB(200, 120) >>> 24;
        int beside = image.getRGB(210, 120) >>> 24;
        assertThat(on).isGreaterThan(beside);
    }
}
