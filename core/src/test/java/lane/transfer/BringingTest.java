package lane.transfer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** What is found out beside an interpolation that nobody asked for: of a cheese that cools, from one mesh to another. */
class BringingTest {
    private static Run cheese(Mesh mesh) {
        double[] heat = IntStream.range(0, mesh.nodeCount())
                .mapToDouble(i -> 8 + mesh.xyz()[3 * i] - 2 * mesh.xyz()[3 * i + 1])
                .toArray();
        return new Run(
                mesh,
                List.of(new Field("heat", Field.At.NODE, 1, Unit.of("K"), Values.of(heat))),
                List.of(),
                List.of(),
                List.of());
    }

    private static Mesh box(int n, double bent) {
        return BoxMesh.of(CellShape.HEXAHEDRON, new int[] {n, n, n}, new double[] {1, 2, 1}, bent, 7);
    }

    private static Numbers brought(Mesh from, Mesh to, boolean common) {
        var how = new Bringing(
                List.of("heat"), false, MeshTransfer.To.NODES, new Outside.Absent(), false, common, Map.of(), false);
        return how.of(cheese(from), cheese(to), Work.QUIET).fields().getFirst();
    }

    /** The same number of cells, of which each falls into two dozen bodies where its faces are bent. */
    @Test
    void theOverlapOfManyBentCellsIsFoundOnlyForWhoAsks() {
        assertThat(brought(box(4, 0.2), box(5, 0.2), false).overlap()).hasSize(1);
        assertThat(brought(box(18, 0), box(17, 0), false).overlap()).hasSize(1);
        Numbers unasked = brought(box(18, 0.2), box(3, 0.2), false);
        assertThat(unasked.overlap()).isEmpty();
        Numbers asked = brought(box(18, 0.2), box(3, 0.2), true);
        // A linear field keeps its integral either way: 8 + 1/2 - 2 over a volume of 2.
        assertThat(asked.overlap()[0]).isCloseTo(13, within(1e-9));
        assertThat(asked.values()).containsExactly(unasked.values());
        assertThat(unasked.target()[0]).isCloseTo(13, within(1e-9));
    }
}
