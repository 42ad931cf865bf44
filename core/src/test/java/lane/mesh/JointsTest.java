package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import lane.base.Content;
import lane.base.Work;
import lane.cut.PlaneCut;
import org.junit.jupiter.api.Test;

/** A row of boxes of hay, each a mesh of its own. */
class JointsTest {
    /** A box from a place along x on, two cells along each direction. */
    private static Mesh box(double from, double shake) {
        Mesh at = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);
        double[] x = at.xyz().clone();
        for (int i = 0; i < x.length; i++) {
            x[i] += (i % 3 == 0 ? from : 0) + shake * (i % 5 - 2);
        }
        return at.withNodes(x);
    }

    private static List<Mesh> joined(Mesh... meshes) {
        var finder = new Joints.Finder();
        Arrays.stream(meshes).forEach(finder::add);
        List<Joints> found = finder.found();
        return IntStream.range(0, meshes.length)
                .mapToObj(k ->
                        meshes[k].joined(found.get(k), new Mesh.Key(List.of(Content.of(new int[] {k, meshes.length})))))
                .toList();
    }

    private static int faces(Mesh mesh) {
        return Topology.boundary(mesh).size();
    }

    @Test
    void whereTwoMeetThereIsNoBoundary() {
        List<Mesh> row = joined(box(0, 0), box(1, 0), box(2, 0), box(5, 0));
        assertThat(row.stream().map(JointsTest::faces)).containsExactly(20, 16, 20, 24);
        assertThat(row.get(0).joints()).isNotNull();
    }

    @Test
    void lastDigitsThatDifferDoNotPartThem() {
        for (double last : new double[] {1e-16, 3e-13, 2e-11}) {
            List<Mesh> row = joined(box(0, 0), box(1, last));
            assertThat(row.stream().map(JointsTest::faces))
                    .as("differing by %s", last)
                    .containsExactly(20, 20);
        }
        assertThat(joined(box(0, 0), box(1, 1e-6)).stream().map(JointsTest::faces))
                .containsExactly(24, 24);
    }

    @Test
    void aWallWithoutThicknessWithinOnePieceStays() {
        Mesh one = box(0, 0);
        Mesh next = box(1, 0);
        double[] both = Arrays.copyOf(one.xyz(), 2 * one.xyz().length);
        System.arraycopy(next.xyz(), 0, both, one.xyz().length, next.xyz().length);
        int[] nodes = Arrays.copyOf(one.nodes(), 2 * one.nodes().length);
        for (int i = 0; i < one.nodes().length; i++) {
            nodes[one.nodes().length + i] = next.nodes()[i] + one.nodeCount();
        }
        Mesh slit = Mesh.uniform(both, CellShape.HEXAHEDRON, nodes);
        List<Mesh> row = joined(slit, box(2, 0));
        assertThat(row.stream().map(JointsTest::faces)).containsExactly(44, 20);
    }

    @Test
    void nodesAreSharedAndAPlaneWhereTwoMeetIsCutOnce() {
        List<Mesh> row = joined(box(0, 0), box(1, 0));
        int[] all = IntStream.range(0, 27).toArray();
        for (Mesh m : row) {
            Joints joints = m.joints();
            assertThat(joints).isNotNull();
            assertThat(joints.shared(m, all, 0)).hasSize(9);
            assertThat(joints.shared(m, all, 1)).hasSize(9);
        }
        for (double way : new double[] {1, -1}) {
            double area = 0;
            for (Mesh m : row) {
                area += PlaneCut.of(m, new Point(1, 0, 0), new Point(way, 0, 0), Work.QUIET)
                        .area();
            }
            assertThat(area).isCloseTo(1, within(1e-14));
        }
        // At the end of the row the plane lies in a boundary, which is cut as well.
        double end = 0;
        for (Mesh m : row) {
            end += PlaneCut.of(m, new Point(0, 0, 0), new Point(1, 0, 0), Work.QUIET)
                    .area();
        }
        assertThat(end).isCloseTo(1, within(1e-14));
    }
}
