package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import lane.base.BoundedMemo;
import lane.base.Memo;
import lane.base.Sum;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A polynomial is integrated by the least rule that is exact for it: no other rule gives more than round-off else. */
class RuleTest {
    private static final List<Quantity> QUANTITIES = List.of(
            new Quantity("p", "p", "3 * p - 2 \"Pa\"", "", ""),
            new Quantity("product", "product", "p * p + p * 1 \"Pa\" / 2", "", ""),
            new Quantity("root", "root", "sqrt(abs(p) / 1 \"Pa\")", "", ""),
            new Quantity("cellwise", "cellwise", "sqrt(c) + c", "", ""),
            new Quantity("wind", "wind", "[1 \"m/s\", 2 \"m/s\", 3 \"m/s\"]", "", ""),
            new Quantity("u", "u", "p * position", "", ""));
    private static final EvaluationContext LENS = EvaluationContext.of(QUANTITIES, List.of(), Axis.Z);

    private static Run run(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 3, 5}, new double[] {1.2, 0.7, 2}, 0.2, 5);
        double[] p = new double[mesh.nodeCount()];
        for (int i = 0; i < p.length; i++) {
            double x = mesh.xyz()[3 * i];
            double z = mesh.xyz()[3 * i + 2];
            p[i] = Math.sin(3 * x) + mesh.xyz()[3 * i + 1] * z + 0.3;
        }
        double[] c = new double[mesh.cellCount()];
        for (int i = 0; i < c.length; i++) {
            c[i] = 1 + i % 7;
        }
        return new Run(
                mesh,
                List.of(
                        new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(p)),
                        new Field("c", Field.At.CELL, 1, Unit.ONE, Values.of(c))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TETRAHEDRON",
                "HEXAHEDRON",
                "WEDGE",
                "PYRAMID",
                "POLYHEDRON",
                "HEXAHEDRON20",
                "TETRAHEDRON10",
                "VOXEL"
            })
    void regions(CellShape shape) {
        Run run = run(shape);
        int[] cells = IntStream.range(0, run.mesh().cellCount()).toArray();
        for (String q : List.of("p", "product", "cellwise")) {
            double[] made = new RegionIntegral(run, cells, LENS).sums(LENS.quantity(q));
            double[] finest = new RegionIntegral(run, cells, LENS, 8).sums(LENS.quantity(q));
            // The shape functions of a pyramid are no polynomials.
            double slack = shape == CellShape.PYRAMID ? 1e-6 : 1e-13;
            assertThat(made[0]).as("%s in a %s", q, shape).isCloseTo(finest[0], within(slack * Math.abs(finest[0])));
            assertThat(made[1]).isCloseTo(finest[1], within(1e-13 * finest[1]));
        }
        double[] rough = new RegionIntegral(run, cells, LENS, 1).sums(LENS.quantity("root"));
        double[] made = new RegionIntegral(run, cells, LENS).sums(LENS.quantity("root"));
        assertThat(made[0]).as("what is no polynomial has the full rule").isNotEqualTo(rough[0]);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TETRAHEDRON",
                "HEXAHEDRON",
                "WEDGE",
                "PYRAMID",
                "POLYHEDRON",
                "HEXAHEDRON20",
                "TETRAHEDRON10",
                "VOXEL"
            })
    void whatNodesCountIsFoundOnceAndGivesTheSameIntegral(CellShape shape) {
        Run run = run(shape);
        var plain = EvaluationContext.of(List.of(), List.of(), Axis.Z);
        // Only some cells; what lies at other nodes has no say.
        int[] cells = IntStream.range(0, run.mesh().cellCount() / 2).toArray();
        double[] p = IntStream.range(0, run.mesh().nodeCount())
                .mapToDouble(run.field("p").orElseThrow().values()::get)
                .toArray();
        boolean[] met = new boolean[p.length];
        for (int c : cells) {
            for (int k = run.mesh().begin(c);
                    k < run.mesh().begin(c) + run.mesh().size(c);
                    k++) {
                met[run.mesh().nodes()[k]] = true;
            }
        }
        for (int i = 0; i < p.length; i++) {
            p[i] = met[i] ? p[i] : Double.NaN;
        }
        Run holed = run.with(
                List.of(
                        new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(p)),
                        run.field("c").orElseThrow()),
                run.parts(),
                List.of(),
                run.stated());
        var memo = new BoundedMemo(1 << 22);
        for (String q : List.of("p", "c")) {
            RegionIntegral points = new RegionIntegral(holed, cells, plain);
            double[] expected = points.sums(plain.quantity(q));
            double[] made = points.keeping(memo).sums(plain.quantity(q));
            assertThat(made[0]).as(q).isCloseTo(expected[0], within(1e-14 * Math.abs(expected[0])));
            assertThat(made[1]).isEqualTo(expected[1]);
            assertThat(points.keeping(memo).finer().sums(plain.quantity(q))[0])
                    .isCloseTo(points.finer().sums(plain.quantity(q))[0], within(1e-14 * Math.abs(expected[0])));
            for (boolean greatest : List.of(true, false)) {
                assertThat(points.keeping(memo).extreme(plain.quantity(q), greatest))
                        .isEqualTo(points.extreme(plain.quantity(q), greatest));
            }
        }
        assertThat(memo.bytes()).isPositive();
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON", "HEXAHEDRON27", "VOXEL"})
    void surfaces(CellShape shape) {
        Run run = run(shape);
        var loads = new Loads("p", 0, "", Loads.On.WALL, Loads.On.WALL);
        var axis = new Axis(new Point(0.1, -0.2, 0.3), new Point(1, 2, -1));
        for (var measure : List.of(
                new Force(loads, new Point(1, 1, 0)),
                new Moment(loads, axis),
                new Flow("u", 1, "1", Flow.Carried.NOTHING, axis),
                new Flow("u", 1, "1", Flow.Carried.ANGULAR_MOMENTUM, axis))) {
            double made = measure.over(new SurfaceIntegral(run, run.parts(), LENS, Memo.NONE))
                    .value();
            double finest = measure.over(new SurfaceIntegral(run, run.parts(), LENS, Memo.NONE, 8))
                    .value();
            assertThat(made).as("%s over %s", measure.word(), shape).isCloseTo(finest, within(1e-12));
        }
    }

    /** Triangles come in blocks and other faces one by one: a block may be full when either comes. */
    @Test
    void facesOfSeveralShapesFillBlocksOfPointsExactly() {
        var axis = new Axis(new Point(0, 0, 0), new Point(1, 0, 0));
        for (int n = 10; n < 100; n++) {
            Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {n, 5, 1}, new double[] {n, 1, 1}, 0, 0);
            var run = new Run(mesh, List.of(), List.of(new PartBuilder(mesh).whole("skin")), List.of(), List.of());
            var over = new SurfaceIntegral(run, run.parts(), LENS, Memo.NONE);
            assertThat(new Flow("wind", 1, "1", Flow.Carried.NOTHING, axis)
                            .over(over)
                            .value())
                    .as("%s long", n)
                    .isCloseTo(0, within(1e-12));
            assertThat(over.inexact()).isFalse();
        }
    }

    @Test
    void degreesOfFormulas() {
        Run run = run(CellShape.HEXAHEDRON);
        assertThat(BoundQuantity.of(run, LENS.quantity("p"), LENS).degree()).isEqualTo(1);
        assertThat(BoundQuantity.of(run, LENS.quantity("product"), LENS).degree())
                .isEqualTo(2);
        assertThat(BoundQuantity.of(run, LENS.quantity("cellwise"), LENS).degree())
                .isZero();
        assertThat(BoundQuantity.of(run, LENS.quantity("root"), LENS).degree()).isGreaterThanOrEqualTo(1000);
        for (var one : List.of(
                java.util.Map.entry("x * y * p", 3),
                java.util.Map.entry("p / c", 1),
                java.util.Map.entry("-(c * p)", 1),
                java.util.Map.entry("7", 0))) {
            var q = new Quantity("q", "q", one.getKey(), "", "");
            assertThat(BoundQuantity.of(run, q, LENS).degree()).as(one.getKey()).isEqualTo(one.getValue());
        }
        for (String none : List.of("c / p", "abs(p)", "p > 1 \"Pa\"", "p ^ 0.5", "max(p, 0 \"Pa\")")) {
            var q = new Quantity("q", "q", none, "", "");
            assertThat(BoundQuantity.of(run, q, LENS).degree()).as(none).isGreaterThanOrEqualTo(1000);
        }
    }

    @Test
    void sumsSideBySideLoseNothing() {
        double[] v = new double[403];
        for (int i = 0; i < v.length; i++) {
            v[i] = i % 2 == 0 ? 1e16 : 1;
        }
        for (int i = 0; i < v.length; i += 4) {
            v[i] = -1e16;
        }
        var sum = new Sum();
        sum.add(v, v.length);
        double exact = java.util.Arrays.stream(v)
                .mapToObj(java.math.BigDecimal::new)
                .reduce(java.math.BigDecimal.ZERO, java.math.BigDecimal::add)
                .doubleValue();
        assertThat(sum.value()).isEqualTo(exact);
        var products = new Sum();
        products.addProducts(new double[] {1, 2, 3, 4, 5}, new double[] {1, 10, 100, 1000, 10000}, 5);
        assertThat(products.value()).isEqualTo(54321);
        var none = new Sum();
        none.add(new double[] {1, Double.POSITIVE_INFINITY, 2, 3}, 4);
        assertThat(none.value()).isEqualTo(Double.POSITIVE_INFINITY);
        var missing = new Sum();
        missing.add(new double[] {1, Double.NaN, 2, 3}, 4);
        assertThat(missing.value()).isNaN();
    }
}
