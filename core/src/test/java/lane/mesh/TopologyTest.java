package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The boundary of meshes against faces that are counted one by one. */
class TopologyTest {
    private static final double[] SIZE = {2, 1, 1.5};

    /** Faces that one cell alone has, by their sorted corners. */
    private static Map<List<Integer>, Integer> counted(Mesh mesh) {
        Map<List<Integer>, Integer> seen = new HashMap<>();
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            cell.load(c);
            for (int[] face : cell.faces()) {
                List<Integer> key = new ArrayList<>();
                for (int k : face) {
                    key.add(cell.node(k));
                }
                key.sort(null);
                seen.merge(key, 1, Integer::sum);
            }
        }
        seen.values().removeIf(n -> n > 1);
        return seen;
    }

    private static List<Integer> corners(Topology.Boundary b, int face) {
        return IntStream.range(b.offsets()[face], b.offsets()[face + 1])
                .map(i -> b.nodes()[i])
                .sorted()
                .boxed()
                .toList();
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "VOXEL", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void everyFaceOfOneCellAloneIsThereOnceAndLooksOut(CellShape shape) {
        // A pyramid is flat, so its nodes are moved less.
        double shake = shape == CellShape.VOXEL ? 0 : shape == CellShape.PYRAMID ? 0.05 : 0.2;
        Mesh whole = BoxMesh.of(shape, new int[] {4, 3, 3}, SIZE, shake, 3);
        var random = new Random(5);
        for (int trial = 0; trial < 6; trial++) {
            // Some cells are taken out, so that the rest has caves and bridges.
            int[] kept = IntStream.range(0, whole.cellCount())
                    .filter(c -> random.nextDouble() < 0.75)
                    .toArray();
            Mesh mesh = trial == 0 ? whole : whole.only(kept);
            Topology.Boundary rim = Topology.boundary(mesh);
            Map<List<Integer>, Integer> left = counted(mesh);
            int faces = left.size();
            for (int f = 0; f < rim.size(); f++) {
                assertThat(left.remove(corners(rim, f)))
                        .as("%s, face %d", shape, f)
                        .isEqualTo(1);
                assertThat(outward(mesh, rim, f)).as("%s, face %d", shape, f).isGreaterThan(0);
            }
            assertThat(left).isEmpty();
            assertThat(rim.size()).isEqualTo(faces);
            assertThat(rim.shared()).isZero();
            assertThat(closed(mesh, rim)).as(shape.word()).isLessThan(1e-13);
        }
    }

    /** How far a face looks away from the middle of its cell. */
    private static double outward(Mesh mesh, Topology.Boundary rim, int f) {
        double[] middle = new double[3];
        new Cell(mesh).load(rim.owner()[f]).centre(middle);
        double[] n = area(mesh, rim, f);
        int first = rim.nodes()[rim.offsets()[f]];
        double out = 0;
        for (int d = 0; d < 3; d++) {
            out += n[d] * (mesh.xyz()[3 * first + d] - middle[d]);
        }
        return out;
    }

    /** The area vector of a face, as its nodes go around. */
    private static double[] area(Mesh mesh, Topology.Boundary rim, int f) {
        double[] n = new double[3];
        int from = rim.offsets()[f];
        int to = rim.offsets()[f + 1];
        double[] x = mesh.xyz();
        for (int k = from; k < to; k++) {
            int a = 3 * rim.nodes()[k];
            int b = 3 * rim.nodes()[k + 1 < to ? k + 1 : from];
            n[0] += (x[a + 1] * x[b + 2] - x[a + 2] * x[b + 1]) / 2;
            n[1] += (x[a + 2] * x[b] - x[a] * x[b + 2]) / 2;
            n[2] += (x[a] * x[b + 1] - x[a + 1] * x[b]) / 2;
        }
        return n;
    }

    private static double closed(Mesh mesh, Topology.Boundary rim) {
        double[] sum = new double[3];
        double size = 0;
        for (int f = 0; f < rim.size(); f++) {
            double[] n = area(mesh, rim, f);
            size += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            for (int d = 0; d < 3; d++) {
                sum[d] += n[d];
            }
        }
        return Math.sqrt(sum[0] * sum[0] + sum[1] * sum[1] + sum[2] * sum[2]) / size;
    }

    @Test
    void aBoxHasTheFacesOfItsSidesWhateverTheOrderOfItsCells() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {7, 5, 3}, SIZE, 0.1, 2);
        int expected = 2 * (7 * 5 + 5 * 3 + 7 * 3);
        assertThat(Topology.boundary(mesh).size()).isEqualTo(expected);
        int[] mixed = IntStream.range(0, mesh.cellCount()).toArray();
        var random = new Random(11);
        for (int i = mixed.length - 1; i > 0; i--) {
            int k = random.nextInt(i + 1);
            int was = mixed[i];
            mixed[i] = mixed[k];
            mixed[k] = was;
        }
        Topology.Boundary rim = Topology.boundary(mesh.only(mixed));
        assertThat(rim.size()).isEqualTo(expected);
        double area = 0;
        for (int f = 0; f < rim.size(); f++) {
            double[] n = area(mesh, rim, f);
            area += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        }
        assertThat(area).isCloseTo(2 * (2 + 1.5 + 3), within(1e-9));
    }

    /** Where cells of two shapes meet in a face it is inside; a quad that meets two triangles is not the same face. */
    @Test
    void cellsOfSeveralShapesMeetInFacesOfTheSameNodes() {
        // A cube with a pyramid on it, and a wedge at its side.
        double[] xyz = {
            0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0, 0, 0, 1, 1, 0, 1, 1, 1, 1, 0, 1, 1, 0.5, 0.5, 2, 2, 0, 0, 2, 1, 0
        };
        byte[] shapes = {
            (byte) CellShape.HEXAHEDRON.ordinal(), (byte) CellShape.PYRAMID.ordinal(), (byte) CellShape.WEDGE.ordinal()
        };
        int[] nodes = {0, 1, 2, 3, 4, 5, 6, 7, 4, 5, 6, 7, 8, 1, 9, 5, 2, 10, 6};
        Mesh mesh = new Mesh(xyz, shapes, new int[] {0, 8, 13, 19}, nodes);
        Topology.Boundary rim = Topology.boundary(mesh);
        assertThat(rim.size()).isEqualTo(4 + 4 + 4);
        assertThat(Arrays.stream(rim.owner()).filter(c -> c == 1)).hasSize(4);
        assertThat(closed(mesh, rim)).isLessThan(1e-14);
    }

    @Test
    void aFaceThatThreeCellsClaimIsCounted() {
        double[] xyz = {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, -1, 0.5, 0.5, 0.5};
        int[] nodes = {0, 1, 2, 3, 0, 2, 1, 4, 0, 1, 2, 5};
        Mesh mesh = Mesh.uniform(xyz, CellShape.TETRAHEDRON, nodes);
        Topology.Boundary rim = Topology.boundary(mesh);
        assertThat(rim.shared()).isEqualTo(1);
        assertThat(rim.size()).isEqualTo(9);
    }

    @Test
    void theRimOfASurfaceIsItsFreeEdges() {
        // A strip of five quads, of which the third is missing.
        double[] xyz = new double[3 * 12];
        for (int i = 0; i < 12; i++) {
            xyz[3 * i] = i / 2;
            xyz[3 * i + 1] = i % 2;
        }
        int[] nodes = new int[20];
        for (int c = 0; c < 5; c++) {
            int[] quad = {2 * c, 2 * c + 2, 2 * c + 3, 2 * c + 1};
            System.arraycopy(quad, 0, nodes, 4 * c, 4);
        }
        Mesh strip = Mesh.uniform(xyz, CellShape.QUAD, nodes);
        assertThat(Topology.boundary(strip).size()).isEqualTo(12);
        Topology.Boundary parted = Topology.boundary(strip.only(new int[] {0, 1, 3, 4}));
        assertThat(parted.size()).isEqualTo(12);
        assertThat(Arrays.stream(parted.owner()).distinct()).hasSize(4);
        for (int f = 0; f < parted.size(); f++) {
            assertThat(parted.shape(f)).isEqualTo(CellShape.LINE);
        }
    }

    @Test
    void whatHasNoBoundaryHasNone() {
        Mesh line = Mesh.uniform(new double[] {0, 0, 0, 1, 0, 0}, CellShape.LINE, new int[] {0, 1});
        assertThat(Topology.boundary(line).size()).isZero();
        Mesh none = new Mesh(new double[] {1, 2, 3}, new byte[0], new int[1], new int[0]);
        assertThat(Topology.boundary(none).size()).isZero();
    }
}
