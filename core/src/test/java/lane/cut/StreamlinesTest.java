package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.function.UnaryOperator;
import lane.base.Work;
import lane.cut.Streamlines.Way;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Lines along fields whose lines are known. */
class StreamlinesTest {
    private static final double[] SIZE = {2, 2, 1};

    private static Field field(Mesh mesh, UnaryOperator<double[]> of) {
        double[] v = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double[] x = {mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2]};
            System.arraycopy(of.apply(x), 0, v, 3 * i, 3);
        }
        return new Field("draught", Field.At.NODE, 3, Unit.of("m/s"), Values.of(v));
    }

    private static Mesh box(CellShape shape, int n) {
        return BoxMesh.of(shape, new int[] {n, n, n / 2}, SIZE, 0.15, 4);
    }

    /** Around the middle of the box: a linear field, which cells keep exactly. */
    private static final UnaryOperator<double[]> AROUND = x -> new double[] {-(x[1] - 1), x[0] - 1, 0};

    @Test
    void aLineAroundAnAxisIsACircleAndTakesItsTime() {
        Mesh mesh = box(CellShape.TETRAHEDRON, 8);
        double around = 2 * Math.PI * 0.6;
        Streamlines s = Streamlines.of(
                mesh.locator(Work.QUIET),
                field(mesh, AROUND),
                new double[] {1.6, 1, 0.5},
                Way.FORWARD,
                1e-9,
                around,
                0.05,
                Work.QUIET);
        assertThat(s.count()).isEqualTo(1);
        int n = s.offsets()[1];
        assertThat(n).isGreaterThan(50);
        for (int i = 0; i < n; i++) {
            double r = Math.hypot(s.xyz()[3 * i] - 1, s.xyz()[3 * i + 1] - 1);
            assertThat(r).as("point %d", i).isCloseTo(0.6, within(1e-7));
            assertThat(s.xyz()[3 * i + 2]).isCloseTo(0.5, within(1e-12));
            double angle = Math.atan2(s.xyz()[3 * i + 1] - 1, s.xyz()[3 * i] - 1);
            // The speed is the radius, so that the angle is the time.
            assertThat(Math.IEEEremainder(s.time()[i] - angle, 2 * Math.PI)).isCloseTo(0, within(1e-6));
        }
        // It is back where it began, after a turn.
        assertThat(s.xyz()[3 * n - 3]).isCloseTo(1.6, within(1e-3));
        assertThat(s.length()[n - 1]).isCloseTo(around, within(1e-2));
        assertThat(s.time()[n - 1]).isCloseTo(2 * Math.PI, within(2e-2));
    }

    @Test
    void aTighterToleranceIsNearer() {
        Mesh mesh = box(CellShape.HEXAHEDRON, 6);
        double[] off = new double[3];
        double[] tolerance = {1e-3, 1e-5, 1e-8};
        for (int t = 0; t < 3; t++) {
            Streamlines s = Streamlines.of(
                    mesh.locator(Work.QUIET),
                    field(mesh, AROUND),
                    new double[] {1.7, 1, 0.4},
                    Way.FORWARD,
                    tolerance[t],
                    4,
                    1,
                    Work.QUIET);
            for (int i = 0; i < s.offsets()[1]; i++) {
                off[t] = Math.max(off[t], Math.abs(Math.hypot(s.xyz()[3 * i] - 1, s.xyz()[3 * i + 1] - 1) - 0.7));
            }
        }
        assertThat(off[1]).isLessThan(off[0]);
        assertThat(off[2]).isLessThan(off[1]).isLessThan(1e-6);
    }

    @Test
    void aLineEndsWhereItLeavesTheMeshAndGoesBothWays() {
        Mesh mesh = box(CellShape.WEDGE, 4);
        Field along = field(mesh, x -> new double[] {2, 0, 0});
        double[] seeds = {0.5, 0.9, 0.3, 1.5, 0.2, 0.8, 9, 9, 9};
        Streamlines s = Streamlines.of(mesh.locator(Work.QUIET), along, seeds, Way.BOTH, 1e-6, 10, 0.2, Work.QUIET);
        assertThat(s.count()).isEqualTo(3);
        for (int line = 0; line < 2; line++) {
            int from = s.offsets()[line];
            int to = s.offsets()[line + 1];
            // The sides of the box are plane, its inside is shaken.
            assertThat(s.xyz()[3 * from]).isCloseTo(0, within(1e-5));
            assertThat(s.xyz()[3 * to - 3]).isCloseTo(2, within(1e-5));
            assertThat(s.length()[from]).isCloseTo(-seeds[3 * line], within(1e-5));
            assertThat(s.length()[to - 1]).isCloseTo(2 - seeds[3 * line], within(1e-5));
            assertThat(s.time()[to - 1]).isCloseTo((2 - seeds[3 * line]) / 2, within(1e-5));
            for (int i = from + 1; i < to; i++) {
                assertThat(s.xyz()[3 * i]).isGreaterThan(s.xyz()[3 * i - 3]);
            }
        }
        // A seed outside gives a line without points.
        assertThat(s.offsets()[3]).isEqualTo(s.offsets()[2]);
    }

    @Test
    void oneWayIsTheHalfOfBoth() {
        Mesh mesh = box(CellShape.HEXAHEDRON, 4);
        Field turning = field(mesh, x -> new double[] {1, 0.3 * x[0], -0.2});
        double[] seed = {0.8, 0.7, 0.6};
        Streamlines both = trace(mesh, turning, seed, Way.BOTH);
        Streamlines forth = trace(mesh, turning, seed, Way.FORWARD);
        Streamlines back = trace(mesh, turning, seed, Way.BACKWARD);
        // The seed itself stands in each half.
        assertThat(both.time().length).isEqualTo(forth.time().length + back.time().length - 1);
        assertThat(both.time()[0]).isEqualTo(back.time()[0]).isNegative();
        int last = both.time().length - 1;
        assertThat(both.time()[last]).isEqualTo(forth.time()[forth.time().length - 1]);
        // Exactly: along it y grows with x^2 and z falls with x.
        for (int i = 0; i <= last; i++) {
            double x = both.xyz()[3 * i];
            assertThat(both.xyz()[3 * i + 1]).isCloseTo(0.7 + 0.15 * (x * x - 0.64), within(2e-5));
            assertThat(both.xyz()[3 * i + 2]).isCloseTo(0.6 - 0.2 * (x - 0.8), within(1e-9));
            assertThat(both.time()[i]).isCloseTo(x - 0.8, within(1e-9));
        }
    }

    private static Streamlines trace(Mesh mesh, Field field, double[] seed, Way way) {
        return Streamlines.of(mesh.locator(Work.QUIET), field, seed, way, 1e-7, 5, 0.1, Work.QUIET);
    }

    @Test
    void whereNothingMovesALineStays() {
        Mesh mesh = box(CellShape.HEXAHEDRON, 4);
        Streamlines s = trace(mesh, field(mesh, x -> new double[3]), new double[] {1, 1, 0.5}, Way.BOTH);
        assertThat(s.time().length).isLessThanOrEqualTo(1);
        // Towards a place of rest it comes ever nearer.
        Streamlines sink = trace(
                mesh,
                field(mesh, x -> new double[] {1 - x[0], 1 - x[1], 0.5 - x[2]}),
                new double[] {0.3, 0.6, 0.2},
                Way.FORWARD);
        int n = sink.time().length;
        assertThat(n).isGreaterThan(10);
        double way = Math.sqrt(0.49 + 0.16 + 0.09);
        assertThat(sink.length()[n - 1]).isBetween(0.95 * way, way + 1e-3);
    }

    @Test
    void cellsHaveAFieldOfTheirOwnToo() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 2}, SIZE, 0, 1);
        double[] v = new double[3 * mesh.cellCount()];
        for (int c = 0; c < mesh.cellCount(); c++) {
            v[3 * c] = 1;
            v[3 * c + 1] = c % 4 < 2 ? 0 : 0.5;
        }
        var cells = new Field("draught", Field.At.CELL, 3, Unit.of("m/s"), Values.of(v));
        Streamlines s = trace(mesh, cells, new double[] {0.05, 0.6, 0.3}, Way.FORWARD);
        int n = s.time().length;
        // Level through two columns of cells, then up by half of what it goes along.
        assertThat(s.xyz()[3 * n - 3]).isCloseTo(2, within(1e-4));
        assertThat(s.xyz()[3 * n - 2]).isCloseTo(0.6 + 0.5, within(2e-2));
    }

    @Test
    void aScalarHasNoLines() {
        Mesh mesh = box(CellShape.HEXAHEDRON, 2);
        var warm = new Field("warm", Field.At.NODE, 1, Unit.of("K"), Values.of(new double[mesh.nodeCount()]));
        assertThatThrownBy(() -> trace(mesh, warm, new double[3], Way.BOTH))
                .hasMessageContaining("\"warm\" has 1 component(s)");
    }

    @Test
    void severalSeedsAreTracedAsEachAlone() {
        Mesh mesh = box(CellShape.TETRAHEDRON, 4);
        Field around = field(mesh, AROUND);
        double[] seeds = new double[3 * 40];
        for (int i = 0; i < 40; i++) {
            seeds[3 * i] = 1 + 0.02 * i;
            seeds[3 * i + 1] = 1;
            seeds[3 * i + 2] = 0.3 + 0.01 * i;
        }
        Streamlines all = trace(mesh, around, seeds, Way.FORWARD);
        for (int i : new int[] {0, 7, 17, 39}) {
            Streamlines one = trace(mesh, around, new double[] {seeds[3 * i], 1, seeds[3 * i + 2]}, Way.FORWARD);
            assertThat(all.offsets()[i + 1] - all.offsets()[i]).isEqualTo(one.offsets()[1]);
            for (int k = 0; k < 3 * one.offsets()[1]; k++) {
                assertThat(all.xyz()[3 * all.offsets()[i] + k]).isEqualTo(one.xyz()[k]);
            }
        }
    }
}
