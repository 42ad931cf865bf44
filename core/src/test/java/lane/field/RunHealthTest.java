package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.function.UnaryOperator;
import lane.mesh.BoxMesh;
import lane.mesh.CellQuality;
import lane.mesh.CellShape;
import lane.mesh.Finding;
import lane.mesh.Mesh;
import lane.mesh.MeshHealth;
import lane.quantity.FieldUnit;
import lane.study.FamilyHealth;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RunHealthTest {
    private static Mesh mapped(Mesh mesh, UnaryOperator<double[]> map) {
        double[] xyz = mesh.xyz().clone();
        for (int i = 0; i < xyz.length; i += 3) {
            System.arraycopy(map.apply(Arrays.copyOfRange(xyz, i, i + 3)), 0, xyz, i, 3);
        }
        return Mesh.uniform(xyz, mesh.shape(0), mesh.nodes());
    }

    private static Mesh box(int x, int y, int z) {
        return BoxMesh.of(CellShape.HEXAHEDRON, new int[] {x, y, z}, new double[] {x, y, z}, 0, 1);
    }

    @Test
    void skewnessWarpAndAspectOfKnownCells() {
        CellQuality cubes = CellQuality.of(box(3, 2, 2));
        assertThat(cubes.worstSkewness()).isCloseTo(0, within(1e-12));
        assertThat(cubes.worstAspect()).isCloseTo(1, within(1e-12));
        assertThat(cubes.skewness()).containsExactly(12, 0, 0, 0, 0, 0, 0, 0, 0, 0);
        assertThat(cubes.findings()).isEmpty();
        // Sheared to 30 degrees: angles of 30 and 150, so (150 - 90) / 90.
        CellQuality sheared =
                CellQuality.of(mapped(box(2, 2, 2), p -> new double[] {p[0] + p[1] * Math.sqrt(3), p[1], p[2]}));
        assertThat(sheared.worstSkewness()).isCloseTo(2 / 3.0, within(1e-12));
        assertThat(sheared.worstAspect()).isCloseTo(2, within(1e-12));
        assertThat(sheared.skewness()[6]).isEqualTo(8);
        // A regular tetrahedron is without skew; one with three right angles at a corner has (90 - 60) / 120.
        double[] regular = {1, 1, 1, 1, -1, -1, -1, 1, -1, -1, -1, 1};
        assertThat(CellQuality.of(Mesh.uniform(regular, CellShape.TETRAHEDRON, new int[] {0, 1, 2, 3}))
                        .worstSkewness())
                .isCloseTo(0, within(1e-12));
        double[] corner = {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1};
        assertThat(CellQuality.of(Mesh.uniform(corner, CellShape.TETRAHEDRON, new int[] {0, 1, 2, 3}))
                        .worstSkewness())
                .isCloseTo(0.25, within(1e-12));
        // One corner of a cube's top lifted by h: the top's corners stand h/4 off their mean plane, nearly.
        double h = 1e-3;
        CellQuality bent = CellQuality.of(
                mapped(box(1, 1, 1), p -> new double[] {p[0], p[1], p[2] + (p[0] * p[1] * p[2] > 0.5 ? h : 0)}));
        assertThat(bent.worstWarp()).isCloseTo(h / 4, within(1e-6));
        CellQuality thin = CellQuality.of(mapped(box(1, 1, 2), p -> new double[] {p[0], p[1], p[2] * 1e-4}));
        assertThat(thin.worstAspect()).isCloseTo(1e4, within(1e-4));
        assertThat(thin.findings()).singleElement().satisfies(f -> assertThat(f.count())
                .isEqualTo(2));
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"VERTEX", "LINE", "POLYLINE", "LINE3"},
            mode = EnumSource.Mode.EXCLUDE)
    void everyShapeHasAQuality(CellShape shape) {
        if (shape.dimension() == 3 && !shape.quadratic()) {
            CellQuality q = CellQuality.of(BoxMesh.of(shape, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0.1, 3));
            assertThat(q.worstSkewness()).isBetween(0.0, 0.99);
            assertThat(Arrays.stream(q.skewness()).sum()).isPositive();
        }
    }

    @Test
    void oneCellThickMeshesAreRecognised() {
        Mesh slab = mapped(box(6, 5, 1), p -> new double[] {p[0], p[1], 0.2 * p[2]});
        assertThat(texts(MeshHealth.of(slab).findings())).anyMatch(t -> t.contains("along z, over 0.2 m"));
        // The same slab as a wedge of 5 degrees about x.
        double half = Math.toRadians(2.5);
        Mesh wedge = mapped(box(6, 5, 1), p -> {
            double a = half * (2 * p[2] - 1);
            return new double[] {p[0], (1 + p[1]) * Math.cos(a), (1 + p[1]) * Math.sin(a)};
        });
        assertThat(texts(MeshHealth.of(wedge).findings()))
                .anyMatch(t -> t.contains("around the x axis, a wedge of 5 degrees") && t.contains("72 times"));
        assertThat(texts(MeshHealth.of(box(4, 4, 4)).findings())).noneMatch(t -> t.contains("one cell thick"));
    }

    private static List<String> texts(List<Finding> findings) {
        return findings.stream().map(Finding::text).toList();
    }

    /** A channel along x; the velocity is given at the nodes. */
    private static Run channel(UnaryOperator<double[]> velocity, Unit unit) {
        Mesh mesh = box(4, 3, 3);
        double[] u = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            System.arraycopy(velocity.apply(Arrays.copyOfRange(mesh.xyz(), 3 * i, 3 * i + 3)), 0, u, 3 * i, 3);
        }
        List<Part> sides = PartPieces.split(new PartBuilder(mesh).whole("side"), 30);
        List<Part> parts = sides.stream()
                .map(p -> {
                    double[] b = p.surface().bounds();
                    return b[1] == 0
                            ? p.named("inlet").with(Role.INLET)
                            : b[0] == 4 ? p.named("outlet").with(Role.OUTLET) : p.with(Role.WALL);
                })
                .toList();
        return new Run(
                mesh, List.of(new Field("u", Field.At.NODE, 3, unit, Values.of(u))), parts, List.of(), List.of());
    }

    private static double profile(double[] x) {
        return x[1] * (3 - x[1]) * x[2] * (3 - x[2]);
    }

    private static List<String> health(Run run) {
        return texts(RunHealth.of(run).findings());
    }

    @Test
    void soundFlowGivesNoFindingAndFaultsAreNamed() {
        Unit speed = Unit.of("m/s");
        assertThat(health(channel(x -> new double[] {profile(x), 0, 0}, speed)))
                .noneMatch(t -> t.contains("wall") || t.contains("wrong way") || t.contains("differ"));
        assertThat(health(channel(x -> new double[] {-profile(x), 0, 0}, speed)))
                .anyMatch(t -> t.contains("inlet \"inlet\" have flow the wrong way, 100 %"))
                .anyMatch(t -> t.contains("outlet \"outlet\" have flow the wrong way"));
        assertThat(health(channel(x -> new double[] {profile(x) + 0.5, 0, 0}, speed)))
                .anyMatch(t -> t.contains("do not stand still") && t.contains("0.5"));
        assertThat(health(channel(x -> new double[] {profile(x) * (1 - x[0] / 8), 0, 0}, speed)))
                .anyMatch(t -> t.contains("in and out flow differ by 50 %"));
        assertThat(health(channel(x -> new double[] {x[0] > 3.5 ? 0 : profile(x), 0, 0}, speed)))
                .anyMatch(t -> t.contains("outlet \"outlet\" has no flow"));
        // What is no velocity is not judged as one.
        assertThat(health(channel(x -> new double[] {-profile(x), 0, 0}, Unit.of("N"))))
                .noneMatch(t -> t.contains("wrong way"));
    }

    @Test
    void jumpsAreFoundAtNodesAndInCellsWithTheirPlace() {
        Mesh mesh = box(8, 2, 2);
        double[] node = new double[mesh.nodeCount()];
        for (int i = 0; i < node.length; i++) {
            node[i] = mesh.xyz()[3 * i] < 4.5 ? 0 : 10;
        }
        double[] cell = new double[mesh.cellCount()];
        for (int c = 0; c < cell.length; c++) {
            cell[c] = mesh.xyz()[3 * mesh.nodes()[mesh.begin(c)]] < 2.5 ? 1 : 2;
        }
        var run = new Run(
                mesh,
                List.of(
                        new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(node)),
                        new Field("p", Field.At.CELL, 1, Unit.of("Pa"), Values.of(cell))),
                List.of(),
                List.of(),
                List.of());
        List<Finding> found = RunHealth.of(run).findings();
        Finding t = found.stream()
                .filter(f -> f.text().contains("\"T\" changes"))
                .findFirst()
                .orElseThrow();
        assertThat(t.count()).isEqualTo(4);
        assertThat(t.worst().x()).isBetween(4.0, 5.0);
        Finding p = found.stream()
                .filter(f -> f.text().contains("\"p\" changes"))
                .findFirst()
                .orElseThrow();
        assertThat(p.count()).isEqualTo(9);
        assertThat(p.worst().x()).isEqualTo(3);
    }

    @Test
    void theRunsOfAFamilyAreCompared() {
        var runs = new LinkedHashMap<String, Run>();
        runs.put("coarse", channel(x -> new double[] {1, 0, 0}, Unit.of("m/s")));
        Mesh fine = mapped(box(8, 6, 6), p -> new double[] {p[0] / 2, p[1] / 2, p[2] / 2});
        runs.put("fine", new Run(fine, List.of(), List.of(), List.of(), List.of()));
        List<String> texts = texts(FamilyHealth.of(runs, List.of(new FieldUnit("u", "m/s", true))));
        assertThat(texts)
                .anyMatch(t -> t.equals("refinement ratio of coarse and fine is 2"))
                .anyMatch(t -> t.startsWith("parts that only one") && t.contains("inlet"))
                .anyMatch(t -> t.contains("u at nodes"))
                .noneMatch(t -> t.contains("bounds"));
        runs.put("other", new Run(box(8, 6, 6), List.of(), List.of(), List.of(), List.of()));
        assertThat(texts(FamilyHealth.of(runs, List.of())))
                .anyMatch(t -> t.startsWith("bounds of fine and other differ by 4 m"))
                .anyMatch(t -> t.contains("of fine and other is 1, under 1.3"));
    }
}
