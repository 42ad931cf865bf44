package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class CellLocatorTest {
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void everyPointOfTheBoxIsFoundInTheCellThatASearchOfAllCellsFinds(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 3, 5}, new double[] {4, 3, 5}, 0.15, 5);
        var finder = new CellLocator(mesh).finder();
        var random = new Random(3);
        var cell = new Cell(mesh);
        for (int k = 0; k < 400; k++) {
            double x = 4 * random.nextDouble();
            double y = 3 * random.nextDouble();
            double z = 5 * random.nextDouble();
            int found = finder.find(x, y, z, 1e-6);
            assertThat(found).as("%s at %s %s %s", shape, x, y, z).isNotNegative();
            int first = -1;
            for (int c = 0; c < mesh.cellCount() && first < 0; c++) {
                first = cell.load(c).locate(x, y, z) == 0 ? c : -1;
            }
            if (first >= 0) {
                assertThat(found).isEqualTo(first);
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aPointOnASharedFaceEdgeOrNodeIsFoundOnceInTheSmallestCellWhateverWasAskedBefore(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 3, 3}, new double[] {3, 3, 3}, 0, 5);
        var locator = new CellLocator(mesh);
        var fresh = locator.finder();
        var used = locator.finder();
        var random = new Random(9);
        double[][] places = {{1, 1.5, 1.5}, {1, 2, 0.25}, {1, 1, 1}, {0, 0, 0}, {3, 3, 3}, {2, 1, 3}, {0.5, 0.5, 1}};
        for (double[] p : places) {
            used.find(3 * random.nextDouble(), 3 * random.nextDouble(), 3 * random.nextDouble(), 0);
            int expected = fresh.find(p[0], p[1], p[2], 0);
            assertThat(expected).isNotNegative();
            assertThat(used.find(p[0], p[1], p[2], 0)).isEqualTo(expected);
            assertThat(locator.finder().find(p[0], p[1], p[2], 0)).isEqualTo(expected);
        }
    }

    @Test
    void aPointOutsideIsAbsentAndOneWithinTheToleranceIsMoved() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);
        var finder = new CellLocator(mesh).finder();
        assertThat(finder.find(1.001, 0.5, 0.5, 1e-6)).isEqualTo(-1);
        assertThat(finder.find(1 + 5e-7, 0.25, 0.25, 1e-6)).isEqualTo(1);
        assertThat(finder.miss()).isBetween(4.9e-7, 5.1e-7);
        assertThat(finder.find(0.5, 0.5, 0.5, 1e-6)).isZero();
        assertThat(finder.miss()).isZero();
        assertThat(finder.find(Double.NaN, 0, 0, 1)).isEqualTo(-1);
        assertThat(finder.find(Double.POSITIVE_INFINITY, 0, 0, 1)).isEqualTo(-1);
    }

    @Test
    void anEmptyMeshAndCellsWithoutPlaceDoNoHarm() {
        var empty = new CellLocator(new Mesh(new double[0], new byte[0], new int[1], new int[0]));
        assertThat(empty.finder().find(0, 0, 0, 1)).isEqualTo(-1);
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        mesh.xyz()[0] = Double.NaN;
        var locator = new CellLocator(mesh);
        assertThat(locator.lost()).isPositive();
        assertThat(locator.finder().find(1.7, 0.5, 0.4, 0)).isNotNegative();
    }

    @Test
    void onlyCellsOfTheHighestDimensionTakePart() {
        // A tetrahedron with one of its faces as a triangle of its own.
        double[] xyz = {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1};
        Mesh mesh = new Mesh(
                xyz,
                new byte[] {(byte) CellShape.TRIANGLE.ordinal(), (byte) CellShape.TETRAHEDRON.ordinal()},
                new int[] {0, 3, 7},
                new int[] {0, 1, 2, 0, 1, 2, 3});
        assertThat(new CellLocator(mesh).finder().find(0.2, 0.2, 0, 0)).isEqualTo(1);
    }

    @Test
    void manyKeysAreSortedInGroupsAndGivenUpInBetween() {
        var random = new java.util.Random(3);
        long[] keys = new long[600_000];
        for (int i = 0; i < keys.length; i++) {
            keys[i] = i % 1000 == 0 ? -1 : (long) random.nextInt(1 << 30) << 32 | i;
        }
        long[] expected = keys.clone();
        java.util.Arrays.sort(expected);
        assertThat(CellLocator.sorted(keys, lane.base.Work.QUIET)).isEqualTo(expected);
        int[] polls = {0};
        var givenUp = new lane.base.Work() {
            @Override
            public boolean cancelled() {
                return ++polls[0] > 20;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> CellLocator.sorted(keys, givenUp))
                .isInstanceOf(java.util.concurrent.CancellationException.class);
    }
}
