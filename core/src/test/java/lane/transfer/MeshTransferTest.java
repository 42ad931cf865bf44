package lane.transfer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.stream.Stream;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.transfer.MeshTransfer.To;
import lane.transfer.MeshTransfer.Wanted;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Integrals are kept to round-off, linear fields exact, on every pair of shapes. */
class MeshTransferTest {
    private static final Outside ABSENT = new Outside.Absent();

    /** A function of the place. */
    private interface Of {
        double at(double x, double y, double z);
    }

    private static Mesh box(CellShape shape, int n, double... size) {
        return BoxMesh.of(shape, new int[] {n, n + 1, n - 1}, size, shape == CellShape.VOXEL ? 0 : 0.25, n);
    }

    private static Field nodes(Mesh mesh, Of of) {
        double[] x = mesh.xyz();
        double[] v = new double[mesh.nodeCount()];
        Arrays.setAll(v, i -> of.at(x[3 * i], x[3 * i + 1], x[3 * i + 2]));
        return new Field("humidity", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(v));
    }

    private static Field cells(Mesh mesh, long seed) {
        var random = new Random(seed);
        double[] v = random.doubles(2L * mesh.cellCount(), -3, 5).toArray();
        return new Field("flux", Field.At.CELL, 2, Unit.UNKNOWN, Values.of(v));
    }

    private static Run run(Mesh mesh, Field... fields) {
        return new Run(mesh, List.of(fields), List.of(), List.of(), List.of());
    }

    private static MeshTransfer.Result conservative(Run source, Mesh target, To to) {
        return MeshTransfer.of(source, target, source.fields(), new Wanted(true, to, ABSENT, false, true), Work.QUIET);
    }

    static Stream<Arguments> pairs() {
        CellShape[] shapes = {
            CellShape.TETRAHEDRON,
            CellShape.HEXAHEDRON,
            CellShape.VOXEL,
            CellShape.WEDGE,
            CellShape.PYRAMID,
            CellShape.POLYHEDRON,
            CellShape.TETRAHEDRON10
        };
        return Arrays.stream(shapes).flatMap(a -> Arrays.stream(shapes).map(b -> Arguments.of(a, b)));
    }

    @ParameterizedTest
    @MethodSource("pairs")
    void whatIsConservedIsKeptToRoundOff(CellShape from, CellShape to) {
        Mesh source = box(from, 3, 1, 1, 1);
        Mesh target = box(to, 2, 1, 1, 1);
        Run run = run(source, cells(source, 5), nodes(source, (x, y, z) -> 2 + x - 3 * y + 5 * z));
        MeshTransfer.Result made = conservative(run, target, To.CELLS);
        Common common = Objects.requireNonNull(made.common());
        assertThat(common.overlap()).isCloseTo(1, within(1e-12));
        assertThat(common.uncovered()).isCloseTo(0, within(1e-12));
        assertThat(common.partly()).isZero();
        for (Numbers n : made.fields()) {
            assertThat(n.outside()).isZero();
            for (int d = 0; d < n.source().length; d++) {
                assertThat(n.target()[d]).isCloseTo(n.overlap()[d], within(1e-12 * Math.abs(n.overlap()[d])));
                assertThat(n.target()[d]).isCloseTo(n.source()[d], within(1e-11 * (1 + Math.abs(n.source()[d]))));
            }
        }
        // The mean of a linear field over a cell is its value at the centroid.
        Numbers linear = made.fields().getLast();
        var cell = new CellBody(target, new double[] {0, 0, 1}, 1);
        for (int c = 0; c < target.cellCount(); c++) {
            cell.load(c, new double[3], false);
            double volume = 0;
            double[] first = new double[3];
            for (int k = 0; k < cell.count; k++) {
                cell.pieces[k].moments();
                volume += cell.sign[k] * cell.pieces[k].volume;
                first[0] += cell.sign[k] * cell.pieces[k].mx;
                first[1] += cell.sign[k] * cell.pieces[k].my;
                first[2] += cell.sign[k] * cell.pieces[k].mz;
            }
            double wanted = 2 + (first[0] - 3 * first[1] + 5 * first[2]) / volume;
            assertThat(linear.values()[c]).isCloseTo(wanted, within(1e-10));
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void valuesAtNodesKeepTheIntegralAndLinearFields(CellShape shape) {
        Mesh source = box(CellShape.HEXAHEDRON, 3, 1, 1, 1);
        Mesh target = box(shape, 3, 1, 1, 1);
        Of linear = (x, y, z) -> 1 + 2 * x - y + 0.5 * z;
        Run run = run(source, nodes(source, linear), cells(source, 3));
        MeshTransfer.Result made = conservative(run, target, To.NODES);
        Numbers n = made.fields().getFirst();
        for (int v = 0; v < target.nodeCount(); v++) {
            double[] x = target.xyz();
            assertThat(n.values()[v]).isCloseTo(linear.at(x[3 * v], x[3 * v + 1], x[3 * v + 2]), within(1e-9));
        }
        for (Numbers each : made.fields()) {
            for (int d = 0; d < each.source().length; d++) {
                assertThat(each.target()[d])
                        .isCloseTo(each.overlap()[d], within(1e-12 * (1 + Math.abs(each.overlap()[d]))));
                assertThat(each.target()[d])
                        .isCloseTo(each.source()[d], within(1e-11 * (1 + Math.abs(each.source()[d]))));
            }
        }
    }

    @Test
    void aTargetThatReachesFurtherIsCoveredInPart() {
        Mesh source = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0, 1);
        Mesh target = BoxMesh.of(CellShape.VOXEL, new int[] {5, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        Run run = run(source, nodes(source, (x, y, z) -> x * y * z));
        MeshTransfer.Result made = conservative(run, target, To.CELLS);
        Common common = Objects.requireNonNull(made.common());
        assertThat(common.overlap()).isCloseTo(1, within(1e-13));
        assertThat(common.uncovered()).isCloseTo(1, within(1e-13));
        assertThat(common.partly()).isEqualTo(1);
        Numbers n = made.fields().getFirst();
        // The cells' own interpolation of xyz is xyz itself.
        assertThat(n.overlap()[0]).isCloseTo(0.125, within(1e-14));
        assertThat(n.target()[0]).isCloseTo(0.125, within(1e-14));
        assertThat(n.outside()).isEqualTo(2);
        assertThat(made.notes()).anyMatch(s -> s.startsWith("1 cell of the target lies in the source in part"));
        MeshTransfer.Result mean =
                MeshTransfer.of(run, target, run.fields(), new Wanted(true, To.CELLS, ABSENT, true, true), Work.QUIET);
        // x from 0.8 to 1 in the third cell: the mean of x is 0.9 there.
        assertThat(mean.fields().getFirst().values()[2]).isCloseTo(0.9 / 4, within(1e-13));
        MeshTransfer.Result filled = MeshTransfer.of(
                run,
                target,
                run.fields(),
                new Wanted(true, To.AS_STORED, new Outside.Value(2), false, true),
                Work.QUIET);
        assertThat(filled.fields().getFirst().outside()).isZero();
        MeshTransfer.Result filledCells = MeshTransfer.of(
                run, target, run.fields(), new Wanted(true, To.CELLS, new Outside.Value(2), false, true), Work.QUIET);
        assertThat(filledCells.fields().getFirst().target()[0]).isCloseTo(2.125, within(1e-13));
    }

    @Test
    void planeMeshesShareAreas() {
        Mesh triangles = plane(CellShape.TRIANGLE, 5, 1, 0);
        for (CellShape shape :
                new CellShape[] {CellShape.QUAD, CellShape.POLYGON, CellShape.TRIANGLE, CellShape.PIXEL}) {
            Mesh other = plane(shape, 3, 1, shape == CellShape.PIXEL ? 0 : 0.2);
            Run run = run(other, nodes(other, (x, y, z) -> 3 - x + 4 * y), cells(other, 2));
            MeshTransfer.Result made = conservative(run, triangles, To.CELLS);
            Common common = Objects.requireNonNull(made.common());
            assertThat(common.overlap()).isCloseTo(1, within(1e-13));
            Numbers n = made.fields().getFirst();
            assertThat(n.source()[0]).isCloseTo(4.5, within(1e-12));
            assertThat(n.target()[0]).isCloseTo(4.5, within(1e-12));
            var cell = new Cell(triangles);
            double[] c = new double[3];
            for (int t = 0; t < triangles.cellCount(); t++) {
                cell.load(t).centre(c);
                assertThat(n.values()[t]).as(shape.word()).isCloseTo(3 - c[0] + 4 * c[1], within(1e-11));
            }
            Numbers stored = made.fields().getLast();
            assertThat(stored.target()[1]).isCloseTo(stored.source()[1], within(1e-12));
            Numbers toNodes = conservative(run, triangles, To.NODES).fields().getFirst();
            double[] x = triangles.xyz();
            for (int v = 0; v < triangles.nodeCount(); v++) {
                assertThat(toNodes.values()[v]).isCloseTo(3 - x[3 * v] + 4 * x[3 * v + 1], within(1e-9));
            }
        }
        Mesh above = plane(CellShape.QUAD, 3, 1, 0).withNodes(raised(plane(CellShape.QUAD, 3, 1, 0)));
        assertThatThrownBy(() -> conservative(run(above, nodes(above, (x, y, z) -> x)), triangles, To.AS_STORED))
                .hasMessageContaining("different planes");
        assertThatThrownBy(() -> conservative(
                        run(above, nodes(above, (x, y, z) -> x)), box(CellShape.VOXEL, 2, 1, 1, 1), To.AS_STORED))
                .hasMessageContaining("the source has 2 dimensions, the target 3");
    }

    private static double[] raised(Mesh mesh) {
        double[] x = mesh.xyz().clone();
        for (int i = 2; i < x.length; i += 3) {
            x[i] = 1;
        }
        return x;
    }

    private static Mesh plane(CellShape shape, int n, double size, double shake) {
        var random = new Random(n);
        double[] xyz = new double[3 * (n + 1) * (n + 1)];
        for (int j = 0; j <= n; j++) {
            for (int i = 0; i <= n; i++) {
                int at = 3 * (j * (n + 1) + i);
                xyz[at] = size * (i + (i % n == 0 ? 0 : shake * (random.nextDouble() - 0.5))) / n;
                xyz[at + 1] = size * (j + (j % n == 0 ? 0 : shake * (random.nextDouble() - 0.5))) / n;
            }
        }
        int[] loop =
                switch (shape) {
                    case TRIANGLE -> new int[] {0, 1, 3, 0, 3, 2};
                    case PIXEL -> new int[] {0, 1, 2, 3};
                    default -> new int[] {0, 1, 3, 2};
                };
        int cells = n * n * loop.length / (shape == CellShape.TRIANGLE ? 3 : 4);
        int[] nodes = new int[n * n * loop.length];
        int at = 0;
        for (int j = 0; j < n; j++) {
            for (int i = 0; i < n; i++) {
                int o = j * (n + 1) + i;
                int[] v = {o, o + 1, o + n + 1, o + n + 2};
                for (int k : loop) {
                    nodes[at++] = v[k];
                }
            }
        }
        byte[] shapes = new byte[cells];
        Arrays.fill(shapes, (byte) shape.ordinal());
        int[] offsets = new int[cells + 1];
        Arrays.setAll(offsets, c -> c * (shape == CellShape.TRIANGLE ? 3 : 4));
        return new Mesh(xyz, shapes, offsets, nodes);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON", "HEXAHEDRON20"})
    void interpolationIsExactForLinearFields(CellShape shape) {
        Mesh source = box(shape, 3, 1, 1, 1);
        Mesh target = box(CellShape.TETRAHEDRON, 4, 1, 1, 1.5);
        Of linear = (x, y, z) -> 2 * x - y + 3 * z;
        MeshTransfer.Result made = MeshTransfer.of(
                run(source, nodes(source, linear)),
                target,
                List.of(nodes(source, linear)),
                new Wanted(false, To.AS_STORED, ABSENT, false, true),
                Work.QUIET);
        Numbers n = made.fields().getFirst();
        double[] x = target.xyz();
        int outside = 0;
        for (int v = 0; v < target.nodeCount(); v++) {
            if (x[3 * v + 2] > 1) {
                assertThat(n.values()[v]).isNaN();
                outside++;
            } else {
                assertThat(n.values()[v]).isCloseTo(linear.at(x[3 * v], x[3 * v + 1], x[3 * v + 2]), within(1e-10));
            }
        }
        assertThat(n.outside()).isEqualTo(outside).isPositive();
        assertThat(Objects.requireNonNull(made.common()).overlap()).isCloseTo(1, within(1e-12));
        assertThat(n.overlap()[0]).isCloseTo(2, within(1e-11));
        double[] mask = new double[target.nodeCount()];
        Values held = made.masks().getFirst().values();
        Arrays.setAll(mask, held::get);
        assertThat(Arrays.stream(mask).sum()).isEqualTo(target.nodeCount() - outside);
    }

    /** Stored in cells, and taken as linear in each: exact for linear fields, to nodes and to cells; constant it is of first order. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void fieldsInCellsAreExactWhereTheyAreTakenAsLinear(CellShape shape) {
        Mesh source = box(shape, 4, 1, 1, 1);
        Mesh target = box(CellShape.TETRAHEDRON, 5, 1, 1, 1);
        Of linear = (x, y, z) -> 2 * x - y + 3 * z + 7;
        double[] middle = MeshTransfer.centres(source);
        double[] v = new double[source.cellCount()];
        Arrays.setAll(v, c -> linear.at(middle[3 * c], middle[3 * c + 1], middle[3 * c + 2]));
        var stored = new Field("humidity", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(v));
        for (To to : List.of(To.NODES, To.CELLS)) {
            MeshTransfer.Result made = MeshTransfer.of(
                    run(source, stored),
                    target,
                    List.of(stored),
                    new Wanted(false, to, ABSENT, false, false, true),
                    Work.QUIET);
            double[] x = to == To.NODES ? target.xyz() : MeshTransfer.centres(target);
            Numbers n = made.fields().getFirst();
            for (int i = 0; i < n.values().length; i++) {
                assertThat(n.values()[i]).isCloseTo(linear.at(x[3 * i], x[3 * i + 1], x[3 * i + 2]), within(1e-10));
            }
            assertThat(made.notes().toString()).contains("linear in each cell");
        }
        MeshTransfer.Result constant = MeshTransfer.of(
                run(source, stored),
                target,
                List.of(stored),
                new Wanted(false, To.NODES, ABSENT, false, false),
                Work.QUIET);
        assertThat(constant.notes().toString()).contains("constant in each cell");
        assertThatThrownBy(() -> new Wanted(true, To.NODES, ABSENT, false, false, true))
                .hasMessageContaining("leave linear out");
    }

    @Test
    void whatLiesOutsideGetsWhatIsAskedFor() {
        Mesh source = box(CellShape.HEXAHEDRON, 3, 1, 1, 1);
        Mesh target = BoxMesh.of(CellShape.VOXEL, new int[] {3, 1, 1}, new double[] {1.5, 1, 1}, 0, 1);
        Run run = run(source, nodes(source, (x, y, z) -> x));
        MeshTransfer.Result near = MeshTransfer.of(
                run,
                target,
                run.fields(),
                new Wanted(false, To.AS_STORED, new Outside.Nearest(0.6), false, false),
                Work.QUIET);
        assertThat(near.fields().getFirst().outside()).isZero();
        assertThat(near.fields().getFirst().values()[3]).isCloseTo(1, within(1e-12));
        MeshTransfer.Result far = MeshTransfer.of(
                run,
                target,
                run.fields(),
                new Wanted(false, To.AS_STORED, new Outside.Nearest(0.4), false, false),
                Work.QUIET);
        assertThat(far.fields().getFirst().outside()).isEqualTo(4);
        MeshTransfer.Result filled = MeshTransfer.of(
                run,
                target,
                run.fields(),
                new Wanted(false, To.AS_STORED, new Outside.Value(-7), false, false),
                Work.QUIET);
        assertThat(filled.fields().getFirst().values()[3]).isEqualTo(-7);
        assertThatThrownBy(() -> new Wanted(true, To.AS_STORED, new Outside.Nearest(1), false, false))
                .hasMessageContaining("takes no nearest values");
    }

    @Test
    void valuesAreImposedOnAPartAfterwards() {
        Mesh source = box(CellShape.HEXAHEDRON, 3, 1, 1, 1);
        Mesh target = box(CellShape.HEXAHEDRON, 2, 1, 1, 1);
        Run run = run(source, nodes(source, (x, y, z) -> 4 + z));
        MeshTransfer.Result made = MeshTransfer.of(
                run, target, run.fields(), new Wanted(false, To.AS_STORED, ABSENT, false, false), Work.QUIET);
        var skin = new PartBuilder(target).whole("skin");
        Numbers n = MeshTransfer.imposed(made.fields().getFirst(), target, List.of(skin), 0, Work.QUIET);
        assertThat(n.largestChange()).isCloseTo(5, within(1e-12));
        for (int node : skin.node()) {
            assertThat(n.values()[node]).isZero();
        }
        assertThat(n.target()[0]).isLessThan(made.fields().getFirst().target()[0]);
        Numbers inCells = conservative(run, target, To.CELLS).fields().getFirst();
        assertThatThrownBy(() -> MeshTransfer.imposed(inCells, target, List.of(skin), 0, Work.QUIET))
                .hasMessageContaining("transfer it to nodes");
    }

    @Test
    void farFromTheOriginNothingIsLost() {
        Mesh near = box(CellShape.TETRAHEDRON, 3, 1, 1, 1);
        double[] moved = near.xyz().clone();
        Arrays.setAll(moved, i -> moved[i] + 4096);
        Mesh far = near.withNodes(moved);
        Mesh other = box(CellShape.HEXAHEDRON, 4, 1, 1, 1);
        double[] also = other.xyz().clone();
        Arrays.setAll(also, i -> also[i] + 4096);
        Run run = run(far, cells(far, 1));
        MeshTransfer.Result made = conservative(run, other.withNodes(also), To.AS_STORED);
        assertThat(Objects.requireNonNull(made.common()).overlap()).isCloseTo(1, within(1e-11));
        Numbers n = made.fields().getFirst();
        assertThat(n.target()[0]).isCloseTo(n.source()[0], within(1e-10));
    }
}
