package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.picture.field.Camera;
import lane.picture.field.ColourScale;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Light on faces and values between corners, from pixels against numbers made by hand. */
class LightTest {
    private static final int SIZE = 101;
    private static final Camera FRONT = new Camera(new Point(0, 0, 0), 0, 0, 40);
    /** The colour of a surface without values, in light. */
    private static final int PLAIN = 0xB9B4A6;

    /** A square through the origin whose normal is turned from the eye about the upright, in degrees. */
    private static Scene plate(double degrees, boolean turned, float[] values) {
        double c = Math.cos(Math.toRadians(degrees));
        double s = Math.sin(Math.toRadians(degrees));
        double[] xyz = new double[12];
        int[][] corner = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};
        for (int i = 0; i < 4; i++) {
            xyz[3 * i] = corner[i][0] * c;
            xyz[3 * i + 1] = corner[i][0] * s;
            xyz[3 * i + 2] = corner[i][1];
        }
        int[] nodes = turned ? new int[] {3, 2, 1, 0} : new int[] {0, 1, 2, 3};
        return new Scene(List.of(Scene.surface("p", Mesh.uniform(xyz, CellShape.QUAD, nodes), values, true, 1)));
    }

    private static Look look(boolean shaded, boolean edges) {
        return new Look(ColourScale.SIZE, 0, 1, shaded, edges, false);
    }

    private static int middle(Scene scene, Look look) {
        return Rasteriser.draw(scene, FRONT, look, SIZE, SIZE, 0xFFFFFF).argb()[SIZE * (SIZE / 2) + SIZE / 2 - 3];
    }

    /** Two lamps: one over the left shoulder, squared, and one at the right. */
    private static double expected(double degrees) {
        double right = Math.sin(Math.toRadians(degrees));
        double into = -Math.cos(Math.toRadians(degrees));
        double l = (-0.5 * right - into) / Math.sqrt(1 + 0.49 + 0.25);
        double m = Math.abs(1.2 * right - into) / Math.sqrt(1 + 1.44);
        return Math.min(1, 0.70 + 0.30 * l * l + 0.10 * m);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 20, -35, 60, -75})
    void lightDependsOnTheNormalAndNotOnTheSide(double degrees) {
        int seen = middle(plate(degrees, false, new float[0]), look(true, false));
        assertThat(middle(plate(degrees, true, new float[0]), look(true, false)))
                .isEqualTo(seen);
        for (int shift : new int[] {0, 8, 16}) {
            assertThat((double) (seen >> shift & 255))
                    .isCloseTo(expected(degrees) * (PLAIN >> shift & 255), within(1.5));
        }
        assertThat(middle(plate(degrees, false, new float[0]), look(false, false)))
                .isEqualTo(0xFF000000 | PLAIN);
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "40, 0.3", "-60, -1.1"})
    void lightStaysWhereTheEyeIs(double degrees, double yaw) {
        Scene scene = plate(degrees + Math.toDegrees(yaw), false, new float[0]);
        var camera = new Camera(new Point(0, 0, 0), yaw, 0, 40);
        int turned =
                Rasteriser.draw(scene, camera, look(true, false), SIZE, SIZE, 0).argb()[SIZE * 50 + 47];
        assertThat(turned).isEqualTo(middle(plate(degrees, false, new float[0]), look(true, false)));
    }

    /** Between corners values grow evenly over each triangle, and the colour is that of the value at the pixel's centre. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 55})
    void coloursAreThoseOfTheValueAtThePixel(double degrees) {
        Scene scene = plate(degrees, false, new float[] {0, 1, 1, 0});
        int[] argb = Rasteriser.draw(scene, FRONT, look(false, false), SIZE, SIZE, 0xFFFFFF)
                .argb();
        double half = 40 * Math.cos(Math.toRadians(degrees));
        int seen = 0;
        for (int x = 0; x < SIZE; x++) {
            double share = (x + 0.5 - SIZE / 2.0 + half) / (2 * half);
            if (share > 0.001 && share < 0.999) {
                int[] around = {
                    ColourScale.SIZE.colour(share - 1e-4),
                    ColourScale.SIZE.colour(share),
                    ColourScale.SIZE.colour(share + 1e-4)
                };
                assertThat(argb[SIZE * 50 + x]).isIn(around[0], around[1], around[2]);
                seen++;
            }
        }
        assertThat(seen).isGreaterThan(40);
    }

    @Test
    void whereACornerHasNoValueTheTriangleIsHatched() {
        Scene scene = plate(0, false, new float[] {Float.NaN, 0.5f, 0.5f, 0.5f});
        int[] argb = Rasteriser.draw(scene, FRONT, look(false, false), SIZE, SIZE, 0xFFFFFF)
                .argb();
        // The square is parted between its first and third corner, so both triangles have the first.
        long half = java.util.Arrays.stream(argb)
                .filter(c -> c == ColourScale.SIZE.colour(0.5))
                .count();
        assertThat(half).isZero();
        assertThat(java.util.Arrays.stream(argb).distinct().count()).isEqualTo(3);
    }

    @Test
    void edgesAreDrawnOnTheSidesOfFacesOnly() {
        Look with = look(false, true);
        int[] argb = Rasteriser.draw(plate(0, false, new float[0]), FRONT, with, SIZE, SIZE, 0xFFFFFF)
                .argb();
        int plain = 0xFF000000 | PLAIN;
        // Not along the diagonal between its two triangles.
        for (int i = 20; i < 80; i++) {
            assertThat(argb[SIZE * i + i]).isEqualTo(plain);
            assertThat(argb[SIZE * i + SIZE - 1 - i]).isEqualTo(plain);
        }
        assertThat(argb[SIZE * 50 + 11]).isEqualTo(plain);
        assertThat(argb[SIZE * 50 + 10]).isNotEqualTo(plain).isNotEqualTo(0xFFFFFFFF);
        assertThat(argb[SIZE * 50 + 9]).isEqualTo(0xFFFFFFFF);
    }
}
