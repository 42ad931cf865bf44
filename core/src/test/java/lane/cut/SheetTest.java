package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Sheets laid into meshes, curves on surfaces, and lines along fields. */
class SheetTest {
    /** A wavy surface of triangles over part of the unit square, or flat at a height. */
    private static Mesh wave(int n, double height, double wave, double from, double to) {
        double[] xyz = new double[3 * (n + 1) * (n + 1)];
        int[] nodes = new int[6 * n * n];
        for (int i = 0; i <= n; i++) {
            for (int j = 0; j <= n; j++) {
                int at = 3 * (i * (n + 1) + j);
                xyz[at] = from + (to - from) * i / n;
                xyz[at + 1] = from + (to - from) * j / n;
                xyz[at + 2] = height + wave * Math.sin(7 * xyz[at]) * Math.cos(5 * xyz[at + 1]);
                if (i < n && j < n) {
                    int a = i * (n + 1) + j;
                    int k = 6 * (i * n + j);
                    int[] two = {a, a + n + 1, a + 1, a + 1, a + n + 1, a + n + 2};
                    System.arraycopy(two, 0, nodes, k, 6);
                }
            }
        }
        return Mesh.uniform(xyz, CellShape.TRIANGLE, nodes);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"HEXAHEDRON", "VOXEL", "TETRAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aConformedSheetKeepsItsAreaInMeshesOfAnyShape(CellShape shape) {
        for (double shake : new double[] {0, 0.2}) {
            Mesh mesh = BoxMesh.of(shape, new int[] {6, 6, 6}, new double[] {1, 1, 1}, shake, 2);
            var locator = new CellLocator(mesh);
            // Wavy; flat through the middles of cells; flat exactly in faces of the mesh, and in its boundary.
            for (Mesh sheet : List.of(
                    wave(9, 0.52, 0.1, 0.05, 0.93),
                    wave(5, 0.26, 0, 0, 1),
                    wave(5, 0.5, 0, 0.1, 0.9),
                    wave(6, 0.5, 0, 0, 1),
                    wave(4, 1, 0, 0.1, 0.9),
                    wave(4, 0, 0, 0.1, 0.9))) {
                double area = SlicerTest.area(sheet);
                LaidSheet in = LaidSheet.conformed(locator, sheet, Work.QUIET);
                assertThat(in.area()).isCloseTo(area, within(1e-14 * area));
                assertThat(SlicerTest.area(in.cut().surface()))
                        .as("%s shaken %s at %s", shape, shake, sheet.bounds()[4])
                        .isCloseTo(area, within(1e-10 * area));
                assertThat(in.outside()).isEqualTo(0);
                assertThat(in.coverage()).isEqualTo(1);
            }
        }
    }

    @Test
    void whatLiesOutsideIsMeasuredAndPlaced() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {6, 6, 6}, new double[] {1, 1, 1}, 0.2, 2);
        Mesh sheet = wave(8, 0.5, 0, 0.5, 1.5);
        LaidSheet in = LaidSheet.conformed(new CellLocator(mesh), sheet, Work.QUIET);
        assertThat(in.outside()).isCloseTo(0.75, within(1e-12));
        assertThat(in.coverage()).isCloseTo(0.25, within(1e-12));
        assertThat(Math.max(in.place().x(), in.place().y())).isGreaterThan(1);
        LaidSheet sampled = LaidSheet.sampled(new CellLocator(mesh), sheet, 1e-6, Work.QUIET);
        assertThat(sampled.coverage()).isCloseTo(0.25, within(1e-12));
        LaidSheet away = LaidSheet.conformed(new CellLocator(mesh), wave(2, 3, 0, 0, 1), Work.QUIET);
        assertThat(away.cut().empty()).isTrue();
        assertThat(away.coverage()).isEqualTo(0);
    }

    @Test
    void aSphereIsCutIntoOneClosedCurveAndAPlaneWithASlitIntoPieces() {
        Mesh ball = Slicer.cut(
                        BoxMesh.of(CellShape.TETRAHEDRON, new int[] {12, 12, 12}, new double[] {1, 1, 1}, 0.1, 1),
                        sphere(BoxMesh.of(
                                CellShape.TETRAHEDRON, new int[] {12, 12, 12}, new double[] {1, 1, 1}, 0.1, 1)),
                        Work.QUIET)
                .surface();
        Cut ring = CurveBranches.of(ball, new Point(0.5, 0.5, 0.5), new Point(0, 0.3, 1), Work.QUIET);
        List<CurveBranches.Branch> branches = CurveBranches.branches(ring);
        assertThat(branches).singleElement().satisfies(b -> assertThat(b.closed())
                .isTrue());
        assertThat(branches.getFirst().nodes()).hasSize(ring.owner().length + 1);
        double length = 0;
        int[] at = branches.getFirst().nodes();
        double[] x = ring.surface().xyz();
        for (int i = 1; i < at.length; i++) {
            length += Math.sqrt(Math.pow(x[3 * at[i]] - x[3 * at[i - 1]], 2)
                    + Math.pow(x[3 * at[i] + 1] - x[3 * at[i - 1] + 1], 2)
                    + Math.pow(x[3 * at[i] + 2] - x[3 * at[i - 1] + 2], 2));
        }
        assertThat(length).isCloseTo(2 * Math.PI * 0.4, within(0.02));
        // Two open sheets beside each other give two open curves.
        Mesh left = wave(4, 0.2, 0, 0, 1);
        double[] both = java.util.Arrays.copyOf(left.xyz(), 2 * left.xyz().length);
        int[] nodes = java.util.Arrays.copyOf(left.nodes(), 2 * left.nodes().length);
        for (int i = 0; i < left.xyz().length; i++) {
            both[left.xyz().length + i] = left.xyz()[i] + (i % 3 == 0 ? 2 : 0);
        }
        for (int i = 0; i < left.nodes().length; i++) {
            nodes[left.nodes().length + i] = left.nodes()[i] + left.nodeCount();
        }
        List<CurveBranches.Branch> open = CurveBranches.branches(CurveBranches.of(
                Mesh.uniform(both, CellShape.TRIANGLE, nodes), new Point(0, 0.41, 0), new Point(0, 1, 0), Work.QUIET));
        assertThat(open).hasSize(2).noneMatch(CurveBranches.Branch::closed);
    }

    private static Level sphere(Mesh mesh) {
        double[] v = new double[mesh.nodeCount()];
        for (int i = 0; i < v.length; i++) {
            double r = 0;
            for (int d = 0; d < 3; d++) {
                r += (mesh.xyz()[3 * i + d] - 0.5) * (mesh.xyz()[3 * i + d] - 0.5);
            }
            v[i] = Math.sqrt(r);
        }
        return Level.of(v, 0.4);
    }

    @Test
    void streamlinesOfATurningFieldAreHelicesAndComeBack() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {8, 8, 8}, new double[] {1, 1, 1}, 0.2, 1);
        double[] u = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < u.length; i += 3) {
            u[i] = -(mesh.xyz()[i + 1] - 0.5);
            u[i + 1] = mesh.xyz()[i] - 0.5;
            u[i + 2] = 0.05;
        }
        var field = new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(u));
        var random = new Random(1);
        double[] seeds = new double[60];
        for (int i = 0; i < seeds.length; i += 3) {
            seeds[i] = 0.5 + 0.3 * random.nextDouble();
            seeds[i + 1] = 0.5;
            seeds[i + 2] = 0.3 + 0.4 * random.nextDouble();
        }
        Streamlines lines =
                Streamlines.of(new CellLocator(mesh), field, seeds, Streamlines.Way.BOTH, 1e-7, 100, 0.05, Work.QUIET);
        assertThat(lines.count()).isEqualTo(20);
        for (int l = 0; l < 20; l++) {
            double r = seeds[3 * l] - 0.5;
            for (int i = lines.offsets()[l]; i < lines.offsets()[l + 1]; i++) {
                double t = lines.time()[i];
                assertThat(lines.xyz()[3 * i]).isCloseTo(0.5 + r * Math.cos(t), within(2e-5));
                assertThat(lines.xyz()[3 * i + 1]).isCloseTo(0.5 + r * Math.sin(t), within(2e-5));
                assertThat(lines.xyz()[3 * i + 2]).isCloseTo(seeds[3 * l + 2] + 0.05 * t, within(2e-5));
                assertThat(lines.length()[i]).isCloseTo(t * Math.hypot(r, 0.05), within(2e-3 * Math.abs(t) + 1e-9));
            }
            // To both ends of the box, within the tolerance of a step.
            assertThat(lines.xyz()[3 * lines.offsets()[l] + 2]).isCloseTo(0, within(1e-5));
            assertThat(lines.xyz()[3 * lines.offsets()[l + 1] - 1]).isCloseTo(1, within(1e-5));
        }
        double[] outside = {2, 2, 2};
        assertThat(Streamlines.of(new CellLocator(mesh), field, outside, Streamlines.Way.BOTH, 1e-6, 1, 0.1, Work.QUIET)
                        .xyz())
                .isEmpty();
    }
}
