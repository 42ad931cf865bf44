package lane.base;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;

/** What is kept, what goes first, and how much it is taken to be. */
class BoundedMemoTest {
    @Test
    void theLeastRecentlyUsedGoesFirstAndTheRestStays() {
        var memo = new BoundedMemo(10 * 8_200);
        for (int i = 0; i < 9; i++) {
            memo.of(i, () -> new double[1000]);
        }
        assertThat(memo.bytes()).isBetween(9 * 8_000L, 10 * 8_200L);
        memo.of(0, () -> new double[1000]);
        for (int i = 9; i < 12; i++) {
            memo.of(i, () -> new double[1000]);
        }
        assertThat(memo.kept(0)).as("used again").isPresent();
        assertThat(memo.kept(1)).as("not used since").isEmpty();
        assertThat(memo.bytes()).isLessThanOrEqualTo(10 * 8_200);
        // What is larger than all of it is given and not kept, and costs the others nothing.
        double[] large = memo.of("large", () -> new double[100_000]);
        assertThat(large).hasSize(100_000);
        assertThat(memo.kept("large")).isEmpty();
        assertThat(memo.kept(0)).isPresent();
    }

    @Test
    void whatFailsOrIsCancelledIsNotKeptAndWhatIsCountedIsCountedWhenItIsMade() {
        var memo = new BoundedMemo(10_000);
        assertThatThrownBy(() -> memo.of("k", () -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(memo.<String>counted("k", () -> "made")).isEqualTo("made");
        assertThat(memo.<String>counted("k", () -> "again")).isEqualTo("made");
        assertThat(memo.<String>of("k", () -> "again")).isEqualTo("made");
        assertThat(memo.made()).isEqualTo(1);
        // One thing that needs another under the same roof.
        assertThat(memo.<String>of("outer", () -> memo.<String>of("inner", () -> "i") + "o"))
                .isEqualTo("io");
        assertThat(memo.kept("inner")).contains("i");
    }

    @Test
    void manyThreadsSeeOneResult() {
        var memo = new BoundedMemo(1 << 20);
        List<Object> seen = IntStream.range(0, 64)
                .parallel()
                .mapToObj(i -> memo.<Object>of(i % 4, Object::new))
                .toList();
        assertThat(seen.stream().distinct().count()).isEqualTo(4);
    }

    private record Pair(double[] a, Object b) {}

    @Test
    void aFootprintCountsWhatStandsInRecordsAndCollectionsOnce() {
        double[] big = new double[5000];
        assertThat(Footprint.of(new Pair(big, List.of(big, new int[1000])))).isBetween(44_000L, 45_000L);
        assertThat(Footprint.of(Map.of("x", new Pair(null, new float[500])))).isBetween(2_000L, 2_300L);
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {9, 9, 9}, new double[] {1, 1, 1}, 0, 1);
        assertThat(Footprint.of(List.of(mesh))).isGreaterThanOrEqualTo(mesh.bytes());
        List<Object> round = new ArrayList<>();
        round.add(round);
        assertThat(Footprint.of(round)).isLessThan(100);
    }

    @Test
    void contentIsEqualForEqualNumbersAndForNothingElse() {
        double[] a = new double[20_000];
        Arrays.setAll(a, i -> Math.sin(i));
        double[] b = a.clone();
        assertThat(Content.of(a)).isEqualTo(Content.of(b));
        double[] c = a.clone();
        c[19_999] = Math.nextUp(c[19_999]);
        assertThat(Content.of(a)).isNotEqualTo(Content.of(c));
        assertThat(Content.of(new int[] {1, 2})).isNotEqualTo(Content.of(new int[] {2, 1}));
        assertThat(Content.of(new double[] {0.0})).isNotEqualTo(Content.of(new double[] {-0.0}));
        int[] long1 = new int[50_000];
        int[] long2 = new int[50_000];
        long2[49_999] = 1;
        assertThat(Content.of(long1)).isNotEqualTo(Content.of(long2));
        Mesh one = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.1, 1);
        Mesh same = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.1, 1);
        Mesh other = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.1, 2);
        assertThat(one.key()).isEqualTo(same.key()).isNotEqualTo(other.key());
    }
}
