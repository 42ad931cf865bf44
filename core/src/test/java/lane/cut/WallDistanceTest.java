package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Role;
import lane.field.Run;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The distance of nodes from walls against closed forms and against every face of the wall. */
class WallDistanceTest {
    private static final double[] SIZE = {3, 2, 1};

    private static Run run(Mesh mesh, List<Part> parts) {
        return new Run(mesh, List.of(), parts, List.of(), List.of());
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON"})
    void inABoxItIsThatOfTheNearestSide(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {6, 5, 4}, SIZE, 0.2, 3);
        Part skin = new PartBuilder(mesh).whole("shelf").with(Role.WALL);
        Field d = WallDistance.of(run(mesh, List.of(skin)));
        assertThat(d.unit().symbol()).isEqualTo("m");
        double[] x = mesh.xyz();
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double nearest = Double.MAX_VALUE;
            for (int a = 0; a < 3; a++) {
                nearest = Math.min(nearest, Math.min(x[3 * i + a], SIZE[a] - x[3 * i + a]));
            }
            assertThat(d.values().get(i)).isCloseTo(nearest, within(1e-12));
        }
    }

    /** Of a few faces that lie about: to corners and edges where no face is below a node. */
    @Test
    void ofFacesHereAndThereItIsThatOfTheNearestPlaceOnAny() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {5, 5, 5}, SIZE, 0.25, 12);
        Part skin = new PartBuilder(mesh).whole("skin");
        var random = new Random(21);
        int[] some = IntStream.range(0, skin.surface().cellCount())
                .filter(f -> random.nextDouble() < 0.07)
                .toArray();
        Part wall = skin.pick(some).named("baffles").with(Role.WALL);
        Field d = WallDistance.of(run(mesh, List.of(wall, skin.with(Role.SYMMETRY))));
        double[] x = mesh.xyz();
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double[] p = {x[3 * i], x[3 * i + 1], x[3 * i + 2]};
            double least = Double.MAX_VALUE;
            Mesh s = wall.surface();
            for (int f = 0; f < s.cellCount(); f++) {
                double[][] corner = new double[3][3];
                for (int k = 0; k < 3; k++) {
                    System.arraycopy(s.xyz(), 3 * s.nodes()[s.begin(f) + k], corner[k], 0, 3);
                }
                least = Math.min(least, nearest(p, corner));
            }
            assertThat(d.values().get(i)).as("node %d", i).isCloseTo(least, within(1e-6));
        }
    }

    /** By halving: the distance is a convex function of the two shares of a place in a triangle. */
    private static double nearest(double[] p, double[][] c) {
        double low = 0;
        double high = 1;
        for (int step = 0; step < 80; step++) {
            double a = low + (high - low) / 3;
            double b = high - (high - low) / 3;
            if (alongRow(p, c, a) < alongRow(p, c, b)) {
                high = b;
            } else {
                low = a;
            }
        }
        return alongRow(p, c, (low + high) / 2);
    }

    /** The least distance from the places of one first share: those of a piece of a line, in closed form. */
    private static double alongRow(double[] p, double[][] c, double s) {
        double[] from = new double[3];
        double[] to = new double[3];
        for (int d = 0; d < 3; d++) {
            from[d] = c[0][d] + s * (c[1][d] - c[0][d]);
            to[d] = from[d] + (1 - s) * (c[2][d] - c[0][d]);
        }
        double along = 0;
        double length = 0;
        for (int d = 0; d < 3; d++) {
            along += (p[d] - from[d]) * (to[d] - from[d]);
            length += (to[d] - from[d]) * (to[d] - from[d]);
        }
        double t = length == 0 ? 0 : Math.clamp(along / length, 0, 1);
        double square = 0;
        for (int d = 0; d < 3; d++) {
            double off = from[d] + t * (to[d] - from[d]) - p[d];
            square += off * off;
        }
        return Math.sqrt(square);
    }

    @Test
    void severalWallsCountTogetherAndNoneIsSaid() {
        Mesh mesh = BoxMesh.of(CellShape.VOXEL, new int[] {8, 4, 4}, SIZE, 0, 1);
        Part skin = new PartBuilder(mesh).whole("skin");
        Part low = side(skin, 0, 0).named("low").with(Role.WALL);
        Part high = side(skin, 0, 3).named("high").with(Role.WALL);
        double[] one = all(WallDistance.of(run(mesh, List.of(low))));
        double[] other = all(WallDistance.of(run(mesh, List.of(high))));
        double[] both = all(WallDistance.of(run(mesh, List.of(low, high))));
        for (int i = 0; i < both.length; i++) {
            assertThat(one[i] + other[i]).isCloseTo(3, within(1e-12));
            assertThat(both[i]).isEqualTo(Math.min(one[i], other[i]));
        }
        assertThatThrownBy(() -> WallDistance.of(run(mesh, List.of(skin))))
                .hasMessageContaining("role of a wall")
                .hasMessageContaining("at Intake");
    }

    private static double[] all(Field f) {
        return IntStream.range(0, f.size()).mapToDouble(f.values()::get).toArray();
    }

    /** The faces whose nodes lie in a plane of the box. */
    private static Part side(Part skin, int axis, double at) {
        Mesh s = skin.surface();
        return skin.pick(IntStream.range(0, s.cellCount())
                .filter(f -> Arrays.stream(s.nodes(), s.begin(f), s.begin(f) + s.size(f))
                        .allMatch(v -> Math.abs(s.xyz()[3 * v + axis] - at) < 1e-12))
                .toArray());
    }
}
