package lane.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.concurrent.CancellationException;
import lane.base.LaneException;
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

class PlacerTest {
    private static Line line(Point a, Point b, Sampling sampling) {
        return new Line(a, b, sampling, Abscissa.ARC);
    }

    private static Field field(Mesh mesh, java.util.function.DoubleUnaryOperator ofX) {
        double[] v = new double[mesh.nodeCount()];
        for (int i = 0; i < v.length; i++) {
            v[i] = ofX.applyAsDouble(mesh.xyz()[3 * i]);
        }
        return new Field("f", Field.At.NODE, 1, Unit.ONE, Values.of(v));
    }

    private static double integral(Placement p, Field f) {
        double[] v = p.apply(f, 0);
        double sum = 0;
        for (int i = 0; i < v.length; i++) {
            sum += Double.isNaN(v[i]) ? 0 : v[i] * p.weight()[i];
        }
        return sum;
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aLinearFieldIsExactAtEverySampleAndItsIntegralToo(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 3, 3}, new double[] {4, 3, 3}, 0.2, 2);
        var locator = new CellLocator(mesh);
        Field f = field(mesh, x -> 1 + 2 * x);
        Point a = new Point(0.1, 0.2, 0.3);
        Point b = new Point(3.9, 2.7, 2.6);
        for (Sampling sampling : new Sampling[] {new Sampling.Even(101), new Sampling.CellExact()}) {
            Placement p = Placer.path(locator, line(a, b, sampling), Work.QUIET);
            assertThat(p.found()).isEqualTo(p.size());
            double[] v = p.apply(f, 0);
            for (int i = 0; i < v.length; i++) {
                assertThat(v[i]).isCloseTo(1 + 2 * p.xyz()[3 * i], within(1e-11));
            }
            double length = b.minus(a).norm();
            assertThat(integral(p, f)).isCloseTo(length * (1 + 2 * 2.0), within(1e-10));
        }
    }

    @Test
    void cellExactSamplingIntegratesThePiecewiseLinearInterpolantExactlyWhereEvenSamplingDoesNot() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {7, 1, 1}, new double[] {1, 1, 1}, 0, 2);
        Field f = field(mesh, x -> Math.exp(3 * x));
        double exact = 0;
        for (int i = 0; i < 7; i++) {
            exact += (Math.exp(3 * i / 7.0) + Math.exp(3 * (i + 1) / 7.0)) / 14;
        }
        var locator = new CellLocator(mesh);
        Point a = new Point(0, 0.4, 0.4);
        Point b = new Point(1, 0.4, 0.4);
        assertThat(integral(Placer.path(locator, line(a, b, new Sampling.CellExact()), Work.QUIET), f))
                .isCloseTo(exact, within(1e-12));
        double even = integral(Placer.path(locator, line(a, b, new Sampling.Even(11)), Work.QUIET), f);
        assertThat(Math.abs(even - exact)).isGreaterThan(1e-4);
    }

    @Test
    void aLineInAFaceOrAlongAnEdgeIsCoveredOnce() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 2, 2}, new double[] {3, 2, 2}, 0, 2);
        var locator = new CellLocator(mesh);
        for (Point[] ends : new Point[][] {
            {new Point(0, 1, 0.3), new Point(3, 1, 0.3)},
            {new Point(0, 1, 1), new Point(3, 1, 1)},
            {new Point(0, 0, 0), new Point(2, 2, 2)}
        }) {
            Placement p = Placer.path(locator, line(ends[0], ends[1], new Sampling.CellExact()), Work.QUIET);
            double covered = 0;
            for (int i = 0; i < p.size(); i++) {
                covered += p.cell()[i] >= 0 ? p.weight()[i] : 0;
            }
            assertThat(covered).isCloseTo(ends[1].minus(ends[0]).norm(), within(1e-12));
        }
    }

    @Test
    void samplesOutsideAreAbsentNotZero() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 2);
        Placement p = Placer.path(
                new CellLocator(mesh),
                line(new Point(-1, 0.5, 0.5), new Point(1, 0.5, 0.5), new Sampling.Even(21)),
                Work.QUIET);
        double[] v = p.apply(field(mesh, x -> 5), 0);
        assertThat(p.found()).isEqualTo(11);
        assertThat(v[9]).isNaN();
        assertThat(v[10]).isEqualTo(5);
        assertThat(p.moved()).isZero();
    }

    @Test
    void aCellFieldIsReadAsStored() {
        Mesh mesh = BoxMesh.of(CellShape.VOXEL, new int[] {4, 1, 1}, new double[] {4, 1, 1}, 0, 2);
        var f = new Field("c", Field.At.CELL, 2, Unit.ONE, Values.of(0, 10, 1, 11, 2, 12, 3, 13));
        Placement p = Placer.path(
                new CellLocator(mesh),
                line(new Point(0.5, 0.5, 0.5), new Point(3.5, 0.5, 0.5), new Sampling.Even(4)),
                Work.QUIET);
        assertThat(p.apply(f, 1)).containsExactly(10, 11, 12, 13);
    }

    @Test
    void manyPointsInAnyOrderGiveTheSameAsOneByOne() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {6, 6, 6}, new double[] {1, 1, 1}, 0.2, 4);
        var locator = new CellLocator(mesh);
        var random = new Random(8);
        double[] xyz = random.doubles(3 * 20_000, -0.1, 1.1).toArray();
        Placement many = Placer.points(locator, xyz, Work.QUIET);
        Field f = field(mesh, x -> x * x);
        double[] v = many.apply(f, 0);
        for (int i = 0; i < 20_000; i += 997) {
            Placement one =
                    Placer.points(locator, new double[] {xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]}, Work.QUIET);
            assertThat(many.cell()[i]).isEqualTo(one.cell()[0]);
            assertThat(Double.valueOf(v[i])).isEqualTo(Double.valueOf(one.apply(f, 0)[0]));
        }
    }

    @Test
    void wrongLinesAreRefusedInASentence() {
        Point p = new Point(1, 2, 3);
        assertThatThrownBy(() -> line(p, p, new Sampling.CellExact()))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("both ends");
        assertThatThrownBy(() -> new Sampling.Even(1)).hasMessageContaining("2 to 1 000 000");
        assertThatThrownBy(() -> new Point(0, Double.NaN, 0)).hasMessageContaining("finite");
    }

    @Test
    void cancellingStops() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 4);
        Work cancelled = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> Placer.points(new CellLocator(mesh), new double[30_000], cancelled))
                .isInstanceOf(CancellationException.class);
    }
}
