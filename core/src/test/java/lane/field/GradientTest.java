package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.function.ToDoubleFunction;
import lane.base.LaneException;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Topology;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class GradientTest {

    private static double[] atNodes(Mesh mesh, ToDoubleFunction<double[]> f) {
        double[] out = new double[mesh.nodeCount()];
        for (int i = 0; i < out.length; i++) {
            out[i] = f.applyAsDouble(new double[] {mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2]});
        }
        return out;
    }

    private static double linear(double[] p) {
        return 2 * p[0] - 3 * p[1] + 5 * p[2] + 1;
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TETRAHEDRON",
                "VOXEL",
                "HEXAHEDRON",
                "WEDGE",
                "PYRAMID",
                "POLYHEDRON",
                "TETRAHEDRON10",
                "PYRAMID13",
                "WEDGE15",
                "WEDGE18",
                "HEXAHEDRON20",
                "HEXAHEDRON27"
            })
    void linearFieldsAreExactOnEverySolid(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 4, 3}, new double[] {1, 2, 1.5}, 0.25, 7);
        double[] f = atNodes(mesh, GradientTest::linear);
        double[] two = new double[2 * f.length];
        for (int i = 0; i < f.length; i++) {
            two[2 * i] = f[i];
            two[2 * i + 1] = -f[i];
        }
        double[] g = Gradient.atNodes(mesh, two, 2);
        double[] expected = {2, -3, 5, -2, 3, -5};
        for (int i = 0; i < g.length; i++) {
            assertThat(g[i]).isCloseTo(expected[i % 6], within(1e-10));
        }
        double[] c = new double[mesh.cellCount()];
        var cell = new Cell(mesh);
        double[] m = new double[3];
        for (int i = 0; i < c.length; i++) {
            cell.load(i).centre(m);
            c[i] = linear(m);
        }
        double[] gc = Gradient.inCells(mesh, c, 1, Gradient.OnBoundary.NONE);
        for (int i = 0; i < gc.length; i++) {
            assertThat(gc[i]).isCloseTo(expected[i % 3], within(1e-10));
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TRIANGLE", "QUAD", "POLYGON", "TRIANGLE6", "QUAD8", "QUAD9"})
    void linearFieldsAreExactInAnyPlane(CellShape shape) {
        CellShape solid =
                switch (shape) {
                    case TRIANGLE -> CellShape.TETRAHEDRON;
                    case TRIANGLE6 -> CellShape.TETRAHEDRON10;
                    case QUAD8 -> CellShape.HEXAHEDRON20;
                    case QUAD9 -> CellShape.HEXAHEDRON27;
                    default -> CellShape.HEXAHEDRON;
                };
        Mesh box = BoxMesh.of(solid, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.2, 2);
        Topology.Boundary skin = Topology.boundary(box);
        // The faces on the side x = 1, which lie in one plane.
        var nodes = new java.util.ArrayList<Integer>();
        var offsets = new java.util.ArrayList<Integer>(java.util.List.of(0));
        for (int f = 0; f < skin.size(); f++) {
            boolean side = true;
            for (int k = skin.offsets()[f]; k < skin.offsets()[f + 1]; k++) {
                side &= box.xyz()[3 * skin.nodes()[k]] > 1 - 1e-9;
            }
            for (int k = skin.offsets()[f]; side && k < skin.offsets()[f + 1]; k++) {
                nodes.add(skin.nodes()[k]);
            }
            if (side) {
                offsets.add(nodes.size());
            }
        }
        byte[] shapes = new byte[offsets.size() - 1];
        java.util.Arrays.fill(shapes, (byte) shape.ordinal());
        // Tilted, so that no direction of space lies in it by chance.
        double[] xyz = box.xyz().clone();
        for (int i = 0; i < xyz.length; i += 3) {
            xyz[i] += 0.4 * xyz[i + 1] - 0.3 * xyz[i + 2];
        }
        Mesh mesh = new Mesh(
                xyz,
                shapes,
                offsets.stream().mapToInt(i -> i).toArray(),
                nodes.stream().mapToInt(i -> i).toArray());
        double[] g = Gradient.atNodes(mesh, atNodes(mesh, GradientTest::linear), 1);
        // The part of (2, -3, 5) in the plane with normal (1, -0.4, 0.3).
        double[] n = {1, -0.4, 0.3};
        double along = (2 * 1 + 3 * 0.4 + 5 * 0.3) / (1 + 0.16 + 0.09);
        boolean[] used = new boolean[mesh.nodeCount()];
        nodes.forEach(v -> used[v] = true);
        for (int i = 0; i < g.length; i++) {
            if (used[i / 3]) {
                double expected = new double[] {2, -3, 5}[i % 3] - along * n[i % 3];
                assertThat(g[i]).isCloseTo(expected, within(1e-10));
            } else {
                assertThat(g[i]).isNaN();
            }
        }
    }

    /** Error of the gradient of a smooth field inside, on even meshes of n cells: second order; everywhere: first. */
    private static double error(CellShape shape, int n, boolean inside, boolean cells) {
        Mesh mesh = BoxMesh.of(shape, new int[] {n, n, n}, new double[] {1, 1, 1}, 0, 1);
        ToDoubleFunction<double[]> f = p -> Math.sin(2 * p[0] + p[1]) * Math.exp(p[2]);
        double[] places = mesh.xyz();
        double[] g;
        if (cells) {
            places = new double[3 * mesh.cellCount()];
            double[] v = new double[mesh.cellCount()];
            var cell = new Cell(mesh);
            double[] m = new double[3];
            for (int i = 0; i < v.length; i++) {
                cell.load(i).centre(m);
                System.arraycopy(m, 0, places, 3 * i, 3);
                v[i] = f.applyAsDouble(m);
            }
            g = Gradient.inCells(mesh, v, 1, Gradient.OnBoundary.NONE);
        } else {
            g = Gradient.atNodes(mesh, atNodes(mesh, f), 1);
        }
        double worst = 0;
        for (int i = 0; i < places.length / 3; i++) {
            boolean in = true;
            for (int d = 0; d < 3; d++) {
                in &= places[3 * i + d] > 0.24 && places[3 * i + d] < 0.76;
            }
            if (inside && !in) {
                continue;
            }
            double a = 2 * places[3 * i] + places[3 * i + 1];
            double e = Math.exp(places[3 * i + 2]);
            worst = Math.max(worst, Math.abs(g[3 * i] - 2 * Math.cos(a) * e));
            worst = Math.max(worst, Math.abs(g[3 * i + 2] - Math.sin(a) * e));
        }
        return worst;
    }

    @Test
    void ordersOfAccuracy() {
        for (CellShape shape : new CellShape[] {CellShape.HEXAHEDRON, CellShape.TETRAHEDRON}) {
            assertThat(order(shape, true, false)).as(shape + " inside").isGreaterThan(1.8);
            assertThat(order(shape, false, false)).as(shape + " everywhere").isGreaterThan(0.85);
        }
        assertThat(order(CellShape.HEXAHEDRON, true, true)).isGreaterThan(1.8);
        assertThat(order(CellShape.HEXAHEDRON, false, true)).isGreaterThan(0.85);
        // Quadratic cells are second order up to the boundary.
        assertThat(order(CellShape.HEXAHEDRON20, false, false)).isGreaterThan(1.8);
    }

    private static double order(CellShape shape, boolean inside, boolean cells) {
        return Math.log(error(shape, 8, inside, cells) / error(shape, 16, inside, cells)) / Math.log(2);
    }

    @Test
    void valuesOnTheBoundaryTakePart() {
        // One cell alone: without its faces nothing is known of its neighbourhood.
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {1, 1, 1}, new double[] {1, 1, 1}, 0, 1);
        assertThat(Gradient.inCells(mesh, new double[] {1}, 1, Gradient.OnBoundary.NONE))
                .containsOnly(Double.NaN);
        double[] xyz = {0, 0.5, 0.5, 0.5, 0, 0.5, 0.5, 0.5, 0, 1, 0.5, 0.5, 0.5, 1, 0.5, 0.5, 0.5, 1};
        double[] v = new double[6];
        for (int i = 0; i < 6; i++) {
            v[i] = linear(new double[] {xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]});
        }
        double middle = linear(new double[] {0.5, 0.5, 0.5});
        double[] g = Gradient.inCells(mesh, new double[] {middle}, 1, new Gradient.OnBoundary(new int[6], xyz, v));
        assertThat(g[0]).isCloseTo(2, within(1e-12));
        assertThat(g[1]).isCloseTo(-3, within(1e-12));
        assertThat(g[2]).isCloseTo(5, within(1e-12));
    }

    @Test
    void linesHaveNoGradient() {
        Mesh line = Mesh.uniform(new double[] {0, 0, 0, 1, 0, 0}, CellShape.LINE, new int[] {0, 1});
        assertThatThrownBy(() -> Gradient.atNodes(line, new double[] {0, 1}, 1)).isInstanceOf(LaneException.class);
    }
}
