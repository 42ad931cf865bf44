package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class MemoryTest {
    @Test
    void aMeshIsNoLargerThanOneAndAHalfTimesTheArraysOfAFile() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {20, 20, 20}, new double[] {1, 1, 1}, 0, 1);
        // As single precision coordinates and 32-bit node numbers, the leanest that a file can be.
        long lean = 4L * 3 * mesh.nodeCount() + mesh.cellCount() * (8 * 4 + 4 + 1L);
        assertThat(mesh.bytes()).isLessThan((long) (1.5 * lean));
    }
}
