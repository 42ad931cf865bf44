package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Topology;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class PartBuilderTest {
    private static Mesh box(CellShape shape) {
        return BoxMesh.of(shape, new int[] {3, 4, 2}, new double[] {3, 4, 2}, 0.2, 5);
    }

    /** The boundary as a surface of its own: shuffled nodes, every second face wound the other way. */
    private static Mesh loose(Mesh mesh, double moved) {
        Topology.Boundary b = Topology.boundary(mesh);
        int[] used = Arrays.stream(b.nodes()).distinct().toArray();
        var random = new Random(3);
        for (int i = used.length - 1; i > 0; i--) {
            int k = random.nextInt(i + 1);
            int keep = used[i];
            used[i] = used[k];
            used[k] = keep;
        }
        int[] local = new int[mesh.nodeCount()];
        double[] xyz = new double[3 * used.length];
        for (int i = 0; i < used.length; i++) {
            local[used[i]] = i;
            for (int d = 0; d < 3; d++) {
                xyz[3 * i + d] = mesh.xyz()[3 * used[i] + d] + moved;
            }
        }
        int[] nodes = new int[b.nodes().length];
        byte[] shapes = new byte[b.size()];
        for (int f = 0; f < b.size(); f++) {
            int from = b.offsets()[f];
            int n = b.offsets()[f + 1] - from;
            for (int k = 0; k < n; k++) {
                nodes[from + k] = local[b.nodes()[f % 2 == 0 ? from + k : from + n - 1 - k]];
            }
            shapes[f] = (byte) (n == 3 ? CellShape.TRIANGLE : CellShape.QUAD).ordinal();
        }
        return new Mesh(xyz, shapes, b.offsets(), nodes);
    }

    private static double[] vectorAndArea(Mesh surface) {
        double[] sum = new double[4];
        for (int f = 0; f < surface.cellCount(); f++) {
            double[] v = new double[3];
            int n = surface.size(f);
            for (int k = 0; k < n; k++) {
                int a = 3 * surface.nodes()[surface.begin(f) + k];
                int b = 3 * surface.nodes()[surface.begin(f) + (k + 1) % n];
                double[] p = surface.xyz();
                v[0] += (p[a + 1] * p[b + 2] - p[a + 2] * p[b + 1]) / 2;
                v[1] += (p[a + 2] * p[b] - p[a] * p[b + 2]) / 2;
                v[2] += (p[a] * p[b + 1] - p[a + 1] * p[b]) / 2;
            }
            sum[3] += Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
            for (int d = 0; d < 3; d++) {
                sum[d] += v[d];
            }
        }
        return sum;
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aSurfaceWoundBothWaysIsPlacedAndTurnedOutwards(CellShape shape) {
        Mesh mesh = box(shape);
        Part part = new PartBuilder(mesh).place("skin", loose(mesh, 0), List.of());
        int faces = part.surface().cellCount();
        assertThat(part.unmatched()).isZero();
        assertThat(part.turned()).isEqualTo(faces / 2);
        assertThat(part.owner()).doesNotContain(-1);
        double[] s = vectorAndArea(part.surface());
        assertThat(s[3]).isCloseTo(2 * (12 + 6 + 8), within(1e-12));
        assertThat(new double[] {s[0], s[1], s[2]}).containsExactly(new double[3], within(1e-13));
        for (int i = 0; i < part.node().length; i++) {
            for (int d = 0; d < 3; d++) {
                assertThat(mesh.xyz()[3 * part.node()[i] + d])
                        .isEqualTo(part.surface().xyz()[3 * i + d]);
            }
        }
    }

    @Test
    void aSurfaceThatLiesElsewhereIsCountedAndNotForced() {
        Mesh mesh = box(CellShape.HEXAHEDRON);
        // Within the tolerance of 1e-5 of the model it is the same surface, beyond it none of it is.
        assertThat(new PartBuilder(mesh)
                        .place("near", loose(mesh, 1e-7), List.of())
                        .unmatched())
                .isZero();
        Part far = new PartBuilder(mesh).place("far", loose(mesh, 0.01), List.of());
        assertThat(far.unmatched()).isEqualTo(far.surface().cellCount());
        assertThat(far.owner()).containsOnly(-1);
    }

    @Test
    void partsByANumberOfTheCellsBehindShareTheWholeBoundary() {
        Mesh mesh = box(CellShape.WEDGE);
        int[] region = new int[mesh.cellCount()];
        for (int c = 0; c < region.length; c++) {
            region[c] = c < region.length / 2 ? 7 : -2;
        }
        var builder = new PartBuilder(mesh);
        List<Part> parts = builder.byOwner("zone", new Values.Ints(region));
        assertThat(parts).extracting(Part::name).containsExactly("zone -2", "zone 7");
        assertThat(parts.stream().mapToInt(p -> p.surface().cellCount()).sum())
                .isEqualTo(builder.boundary().size());
        for (Part p : parts) {
            int number = Integer.parseInt(p.name().substring(5));
            assertThat(Arrays.stream(p.owner()).map(c -> region[c]).toArray()).containsOnly(number);
        }
    }

    @Test
    void faceCellsInTheMeshBecomePartsTurnedOutwards() {
        // A cube with two of its faces as cells of their own, one of them wound inwards.
        double[] xyz = {0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0, 0, 0, 1, 1, 0, 1, 1, 1, 1, 0, 1, 1};
        byte[] shapes = {
            (byte) CellShape.HEXAHEDRON.ordinal(), (byte) CellShape.QUAD.ordinal(), (byte) CellShape.QUAD.ordinal()
        };
        int[] offsets = {0, 8, 12, 16};
        int[] nodes = {0, 1, 2, 3, 4, 5, 6, 7, 0, 1, 2, 3, 4, 5, 6, 7};
        var mesh = new Mesh(xyz, shapes, offsets, nodes);
        List<Part> parts = new PartBuilder(mesh).byFaceCells("id", new Values.Ints(new int[] {0, 4, 9}));
        assertThat(parts).extracting(Part::name).containsExactly("id 4", "id 9");
        assertThat(parts.get(0).turned()).isEqualTo(1);
        assertThat(parts.get(1).turned()).isZero();
        assertThat(vectorAndArea(parts.get(0).surface())).containsExactly(new double[] {0, 0, -1, 1}, within(1e-15));
        assertThat(vectorAndArea(parts.get(1).surface())).containsExactly(new double[] {0, 0, 1, 1}, within(1e-15));
    }

    @Test
    void thePlaneRunsBoundaryIsEdges() {
        // Four triangles about the middle of a unit square.
        double[] xyz = {0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0, 0.5, 0.5, 0};
        byte t = (byte) CellShape.TRIANGLE.ordinal();
        var mesh = new Mesh(
                xyz, new byte[] {t, t, t, t}, new int[] {0, 3, 6, 9, 12}, new int[] {0, 1, 4, 1, 2, 4, 2, 3, 4, 3, 0, 4
                });
        Part part = new PartBuilder(mesh).whole("edge");
        assertThat(part.surface().cellCount()).isEqualTo(4);
        assertThat(part.surface().dimension()).isEqualTo(1);
        assertThat(part.owner()).containsExactlyInAnyOrder(0, 1, 2, 3);
    }
}
