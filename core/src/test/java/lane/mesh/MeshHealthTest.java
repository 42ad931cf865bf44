package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class MeshHealthTest {
    private static long count(MeshHealth.Report sheet, String words) {
        return sheet.findings().stream()
                .filter(f -> f.text().contains(words))
                .mapToLong(Finding::count)
                .sum();
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON",
                "TETRAHEDRON10", "PYRAMID13", "WEDGE15", "WEDGE18", "HEXAHEDRON20", "HEXAHEDRON27"
            })
    void aSoundMeshHasNoFindings(CellShape shape) {
        MeshHealth.Report sheet = MeshHealth.of(BoxMesh.of(shape, new int[] {3, 2, 2}, new double[] {3, 2, 1}, 0.2, 3));
        assertThat(sheet.findings()).isEmpty();
        assertThat(sheet.volume()).isCloseTo(6, within(1e-12));
    }

    @Test
    void everyFaultIsCountedWithItsPlace() {
        // Two unit cubes apart by 10, the second turned inside out; a flat third; double and unused nodes.
        double[] cube = {0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0, 0, 0, 1, 1, 0, 1, 1, 1, 1, 0, 1, 1};
        double[] xyz = new double[3 * 26];
        for (int i = 0; i < 8; i++) {
            for (int d = 0; d < 3; d++) {
                xyz[3 * i + d] = cube[3 * i + d];
                xyz[3 * (8 + i) + d] = cube[3 * i + d] + 10;
                xyz[3 * (16 + i) + d] = d == 2 ? 20 : cube[3 * i + d];
            }
        }
        xyz[3 * 24] = Double.NaN;
        int[] nodes = new int[24];
        for (int i = 0; i < 24; i++) {
            nodes[i] = i;
        }
        for (int k = 0; k < 4; k++) {
            nodes[8 + k] = 8 + 4 + k;
            nodes[12 + k] = 8 + k;
        }
        MeshHealth.Report sheet = MeshHealth.of(Mesh.uniform(xyz, CellShape.HEXAHEDRON, nodes));
        assertThat(sheet.volume()).isCloseTo(2, within(1e-12));
        assertThat(count(sheet, "negative volume")).isEqualTo(1);
        assertThat(count(sheet, "degenerate")).isEqualTo(1);
        assertThat(count(sheet, "belong to no cell")).isEqualTo(2);
        assertThat(count(sheet, "no numbers")).isEqualTo(1);
        assertThat(count(sheet, "another node stands")).isEqualTo(4);
        assertThat(count(sheet, "not connected")).isEqualTo(3);
        Point worst = sheet.findings().stream()
                .filter(f -> f.text().contains("negative"))
                .findFirst()
                .orElseThrow()
                .worst();
        assertThat(List.of(worst.x(), worst.y(), worst.z())).containsExactly(10.5, 10.5, 10.5);
    }

    @Test
    void wedgesThatAllLookTheOtherWayAreNoFault() {
        Mesh box = BoxMesh.of(CellShape.WEDGE, new int[] {2, 2, 1}, new double[] {1, 1, 1}, 0, 1);
        int[] turned = box.nodes().clone();
        for (int c = 0; c < turned.length; c += 6) {
            for (int k : new int[] {0, 3}) {
                int keep = turned[c + k + 1];
                turned[c + k + 1] = turned[c + k + 2];
                turned[c + k + 2] = keep;
            }
        }
        assertThat(MeshHealth.of(Mesh.uniform(box.xyz(), CellShape.WEDGE, turned))
                        .findings())
                .isEmpty();
        // One alone is.
        int[] one = box.nodes().clone();
        System.arraycopy(turned, 0, one, 0, 6);
        assertThat(count(MeshHealth.of(Mesh.uniform(box.xyz(), CellShape.WEDGE, one)), "negative volume"))
                .isEqualTo(1);
    }

    /** What is counted is counted in words; what is said of the whole has no count. */
    @Test
    void findingsAreToldAsSentences() {
        assertThat(Finding.told("cells are very skewed: gradients are poor there", 1))
                .isEqualTo("1 cell is very skewed: gradients are poor there");
        assertThat(Finding.told("faces of part \"we are cells\" are wound the other way", 1))
                .isEqualTo("1 face of part \"we are cells\" is wound the other way");
        assertThat(Finding.told("nodes of wall \"lid\" do not stand still", 1))
                .isEqualTo("1 node of wall \"lid\" does not stand still");
        assertThat(Finding.told("cells have no volume or no area", 12)).isEqualTo("12 cells have no volume or no area");
        assertThat(Finding.told("plane mesh: integrals are taken for a depth of 1 m", 4800))
                .isEqualTo("plane mesh: integrals are taken for a depth of 1 m");
    }
}
