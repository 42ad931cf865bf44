package lane.mesh;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import lane.base.LaneException;
import org.junit.jupiter.api.Test;

class MeshCheckTest {
    private static final double[] XYZ = {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1};

    @Test
    void aNodeOutOfRangeIsNamedWithItsCell() {
        assertThatThrownBy(() -> Mesh.uniform(XYZ, CellShape.TRIANGLE, new int[] {0, 1, 2, 1, 2, 4}))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("Cell 1")
                .hasMessageContaining("node 4");
        assertThatThrownBy(() -> Mesh.uniform(XYZ, CellShape.TRIANGLE, new int[] {0, -1, 2}))
                .hasMessageContaining("node -1");
    }

    @Test
    void aWrongNumberOfNodesIsNamed() {
        assertThatThrownBy(() -> new Mesh(
                        XYZ, new byte[] {(byte) CellShape.TETRAHEDRON.ordinal()}, new int[] {0, 3}, new int[] {0, 1, 2
                        }))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("tetrahedron with 3 nodes; it needs 4");
    }

    @Test
    void offsetsThatDoNotFitAreRefused() {
        byte[] shape = {(byte) CellShape.TRIANGLE.ordinal()};
        assertThatThrownBy(() -> new Mesh(XYZ, shape, new int[] {0, 5}, new int[] {0, 1, 2}))
                .hasMessageContaining("offsets");
        assertThatThrownBy(() -> new Mesh(new double[4], shape, new int[] {0, 3}, new int[] {0, 0, 0}))
                .hasMessageContaining("threes");
    }

    @Test
    void aDamagedFaceListOfAPolyhedronIsRefused() {
        byte[] shape = {(byte) CellShape.POLYHEDRON.ordinal()};
        int[] nodes = {0, 1, 2, 3};
        int[] good = {4, 3, 0, 2, 1, 3, 0, 1, 3, 3, 1, 2, 3, 3, 0, 3, 2};
        new Mesh(XYZ, shape, new int[] {0, 4}, nodes, new int[] {0, 17}, good);
        int[] tooLong = good.clone();
        tooLong[1] = 900;
        int[] foreign = good.clone();
        foreign[2] = 7;
        for (int[] bad : new int[][] {tooLong, foreign, {4, 3, 0, 2}}) {
            assertThatThrownBy(() -> new Mesh(XYZ, shape, new int[] {0, 4}, nodes, new int[] {0, bad.length}, bad))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("polyhedron 0");
        }
        assertThatThrownBy(() -> new Mesh(XYZ, shape, new int[] {0, 4}, nodes)).hasMessageContaining("without faces");
    }
}
