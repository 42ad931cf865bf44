package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.picture.field.Coarse;
import lane.picture.field.Scene;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The scene that is drawn while the view moves, of a bent sheet with the value 3 x + z: fewer triangles, the same shape. */
class CoarseTest {
    private static final int N = 1200;
    private static Scene.Surface sheet;

    @BeforeAll
    static void make() {
        int n = N + 1;
        double[] xyz = new double[3 * n * n];
        float[] value = new float[n * n];
        for (int i = 0; i < n * n; i++) {
            double u = (double) (i % n) / N;
            double v = (double) (i / n) / N;
            xyz[3 * i] = 2 * u;
            xyz[3 * i + 1] = Math.sin(3 * u) / 5;
            xyz[3 * i + 2] = v;
            value[i] = (float) (3 * xyz[3 * i] + v);
        }
        int[] nodes = new int[4 * N * N];
        for (int i = 0, at = 0; i < N * N; i++) {
            int a = i / N * n + i % N;
            for (int c : new int[] {a, a + 1, a + n + 1, a + n}) {
                nodes[at++] = c;
            }
        }
        sheet = Scene.surface("sheet", Mesh.uniform(xyz, CellShape.QUAD, nodes), value, true, 1);
    }

    private static double area(Scene.Surface s) {
        double sum = 0;
        for (int t = 0; t < s.triangles(); t++) {
            Point a = corner(s, 3 * t);
            sum += corner(s, 3 * t + 1)
                            .minus(a)
                            .cross(corner(s, 3 * t + 2).minus(a))
                            .norm()
                    / 2;
        }
        return sum;
    }

    private static Point corner(Scene.Surface s, int i) {
        int n = 3 * s.corners()[i];
        return new Point(s.xyz()[n], s.xyz()[n + 1], s.xyz()[n + 2]);
    }

    @Test
    void itHasFarFewerTrianglesOfNearlyTheSameAreaAndValues() {
        Scene.Surface made = Coarse.of(new Scene(List.of(sheet))).surfaces().getFirst();
        assertThat(made.triangles()).isLessThan(sheet.triangles() / 20).isGreaterThan(5_000);
        assertThat(area(made)).isCloseTo(area(sheet), within(0.02 * area(sheet)));
        assertThat(made.name()).isEqualTo("sheet");
        // A value is the mean of the nodes that were gathered, as its place is.
        for (int i = 0; i < made.value().length; i++) {
            assertThat(made.value()[i])
                    .isCloseTo((float) (3 * made.xyz()[3 * i] + made.xyz()[3 * i + 2]), within(1e-4f));
        }
        for (int t = 0; t < made.triangles(); t++) {
            int a = made.corners()[3 * t];
            assertThat(a).isNotEqualTo(made.corners()[3 * t + 1]).isNotEqualTo(made.corners()[3 * t + 2]);
        }
    }

    @Test
    void valuesOfFacesSmallSurfacesAndWhatIsCutAwayStayAsTheyAre() {
        float[] byFace = new float[N * N];
        for (int i = 0; i < byFace.length; i++) {
            byFace[i] = i;
        }
        var faces = new Scene.Surface(
                "faces", sheet.xyz(), sheet.corners(), sheet.face(), byFace, false, 0.5, sheet.edge(), true);
        Mesh one = Mesh.uniform(new double[] {0, 0, 0, 1, 0, 0, 1, 0, 1}, CellShape.TRIANGLE, new int[] {0, 1, 2});
        var small = Scene.surface("small", one, new float[0], true, 1);
        var away = Scene.Away.before(new Point(0, 0, 0), new Point(1, 0, 0));
        Scene made = Coarse.of(new Scene(List.of(faces, small), List.of(away)));
        assertThat(made.away()).containsExactly(away);
        assertThat(made.surfaces().get(1)).isSameAs(small);
        Scene.Surface s = made.surfaces().getFirst();
        assertThat(s.value()).isEqualTo(byFace);
        assertThat(s.opacity()).isEqualTo(0.5);
        assertThat(s.whole()).isTrue();
        // Each triangle still tells the face that it came from, which is near.
        for (int t = 0; t < s.triangles(); t += 97) {
            Point here = corner(s, 3 * t);
            assertThat(here.x()).isCloseTo(2.0 * (s.face()[t] % N) / N, within(0.03));
            assertThat(here.z()).isCloseTo((double) (s.face()[t] / N) / N, within(0.03));
        }
    }

    @Test
    void aSceneThatIsDrawnQuicklyAnywayIsLeft() {
        Mesh one = Mesh.uniform(new double[] {0, 0, 0, 1, 0, 0, 1, 0, 1}, CellShape.TRIANGLE, new int[] {0, 1, 2});
        Scene scene = new Scene(List.of(Scene.surface("small", one, new float[0], true, 1)));
        assertThat(Coarse.of(scene)).isSameAs(scene);
    }
}
