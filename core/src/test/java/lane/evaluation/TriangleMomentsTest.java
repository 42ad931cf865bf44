package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import lane.base.BoundedMemo;
import lane.base.Memo;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.formula.Program;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Measure;
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
import org.junit.jupiter.params.provider.ValueSource;

/** Over flat triangles what is linear in a stored field needs no points, and is what these give. A lock gate in still water. */
class TriangleMomentsTest {
    private static final Axis HINGE = new Axis(new Point(2, -1, 0.5), new Point(1, 3, 2));
    private static final Point SLOPE = new Point(120, -35, -9810);

    private static Run run(Mesh mesh, Values pressure, Values rub, Values cells) {
        return new Run(
                mesh,
                List.of(
                        new Field("p", Field.At.NODE, 1, Unit.of("Pa"), pressure),
                        new Field("tau", Field.At.NODE, 3, Unit.of("Pa"), rub),
                        new Field("k", Field.At.CELL, 1, Unit.of("Pa"), cells)),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of(),
                List.of(0.0),
                0,
                Stated.NOTHING);
    }

    /** The same quantities as they are stored, and as formulas that are no more than that and are taken at points. */
    private static EvaluationContext lens(boolean points) {
        return EvaluationContext.of(
                List.of(
                        new Quantity("p", "p", points ? "p * 2 / 2" : "p", "", ""),
                        new Quantity("tau", "tau", points ? "tau * 2 / 2" : "tau", "", ""),
                        new Quantity("k", "k", points ? "k * 2 / 2" : "k", "", "")),
                List.of(),
                Axis.Z);
    }

    private static double over(Measure m, Run run, boolean points) {
        return m.over(new SurfaceIntegral(run, run.parts(), lens(points), Memo.NONE))
                .value();
    }

    private static Values linear(Mesh mesh, Point slope, double at) {
        return Values.of(IntStream.range(0, mesh.nodeCount())
                .mapToDouble(
                        i -> at + slope.dot(new Point(mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2])))
                .toArray());
    }

    /** A pressure that grows evenly lifts a body by the weight of what it displaces, at the centre of that. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 4000})
    void stillWaterLiftsByWhatIsDisplaced(double away) {
        Mesh box = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {7, 5, 9}, new double[] {2, 0.5, 3}, 0, 1);
        double[] xyz = box.xyz().clone();
        for (int i = 0; i < xyz.length; i++) {
            xyz[i] += away;
        }
        Mesh mesh = box.withNodes(xyz);
        Values none = Values.of(new double[3 * mesh.nodeCount()]);
        Run run = run(mesh, linear(mesh, SLOPE, 5e4), none, Values.of(new double[mesh.cellCount()]));
        var loads = new Loads("p", 300, "", Loads.On.WALL, Loads.On.WALL);
        Point force = SLOPE.times(2 * 0.5 * 3);
        var centre = new Point(1 + away, 0.25 + away, 1.5 + away);
        var about = new Axis(new Point(away, away, away), new Point(1, 3, 2));
        Point arm = centre.plus(about.origin().times(-1));
        // Coordinates themselves are known to so much.
        double slack = 1e-13 * (1 + away) * 3e4;
        for (Point d : List.of(new Point(1, 0, 0), new Point(0, 1, 0), new Point(0, 0, 1))) {
            assertThat(over(new Force(loads, d), run, false)).isCloseTo(force.dot(d), within(slack));
        }
        assertThat(over(new Moment(loads, about), run, false))
                .isCloseTo(arm.cross(force).dot(about.direction()), within(slack * (1 + away)));
    }

    private static List<Measure> measures() {
        var pressure = new Loads("p", -70, "", Loads.On.WALL, Loads.On.FLUID);
        var cells = new Loads("k", 0, "", Loads.On.WALL, Loads.On.WALL);
        var both = new Loads("p", 0, "tau", Loads.On.FLUID, Loads.On.WALL);
        return List.of(
                new Mean("p"),
                new Integral("k"),
                new Mean("tau.y"),
                new Flow("tau", 3, "kg/m3", Flow.Carried.NOTHING, HINGE),
                new Force(pressure, new Point(1, 2, -1)),
                new Moment(pressure, HINGE),
                new Force(cells, new Point(1, 2, -1)),
                new Moment(cells, HINGE),
                new Force(both, new Point(0, 1, 1)),
                new Moment(both, HINGE));
    }

    /** Of values at random, narrow and wide, between faces of other shapes and in more of them than a block holds. */
    @Test
    void givesWhatPointsGive() {
        var random = new Random(17);
        List<Mesh> meshes = List.of(
                BoxMesh.of(CellShape.TETRAHEDRON, new int[] {9, 8, 7}, new double[] {2, 0.5, 3}, 0.2, 4),
                // Wedges have triangles and quads by turns.
                BoxMesh.of(CellShape.WEDGE, new int[] {4, 5, 3}, new double[] {1, 2, 1}, 0.2, 5),
                BoxMesh.of(CellShape.PYRAMID, new int[] {3, 2, 2}, new double[] {1, 1, 1}, 0.2, 6));
        for (Mesh mesh : meshes) {
            int n = mesh.nodeCount();
            double[] p = random.doubles(n, -100, 900).toArray();
            float[] tau = new float[3 * n];
            int[] k = random.ints(mesh.cellCount(), -3, 40).toArray();
            for (int i = 0; i < tau.length; i++) {
                tau[i] = random.nextFloat();
            }
            Run run = run(mesh, Values.of(p), new Values.Floats(tau), new Values.Ints(k));
            for (Measure m : measures()) {
                double points = over(m, run, true);
                assertThat(over(m, run, false))
                        .as("%s over %s", m, mesh.shape(0))
                        .isCloseTo(points, within(1e-13 * (Math.abs(points) + 20 * 900 * Math.sqrt(n))));
            }
        }
        assertThat(run(
                                meshes.getFirst(),
                                Values.of(new double[meshes.getFirst().nodeCount()]),
                                Values.of(new double[3 * meshes.getFirst().nodeCount()]),
                                Values.of(new double[meshes.getFirst().cellCount()]))
                        .parts()
                        .getFirst()
                        .surface()
                        .cellCount())
                .isGreaterThan(Program.BLOCK);
    }

    /** Forces along and moments about whatever there is come of one pass over the faces. */
    @Test
    void theyAreSummedOnce() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 2, 4}, new double[] {2, 1, 1}, 0.2, 9);
        Values none = Values.of(new double[3 * mesh.nodeCount()]);
        Run run = run(mesh, linear(mesh, SLOPE, 3e3), none, Values.of(new double[mesh.cellCount()]));
        var passes = new AtomicInteger();
        var all = new BoundedMemo(1 << 20);
        Memo counting = new Memo() {
            @Override
            public <T> T of(Object key, Supplier<T> make) {
                return all.of(key, () -> {
                    passes.incrementAndGet();
                    return make.get();
                });
            }
        };
        var surface = new SurfaceIntegral(run, run.parts(), lens(false), counting);
        for (On on : On.values()) {
            var loads = new Loads("p", 0, "", On.WALL, on);
            for (Measure m : List.of(new Force(loads, SLOPE), new Moment(loads, HINGE), new Moment(loads, Axis.Z))) {
                assertThat(m.over(surface).value()).isEqualTo(over(m, run, false));
            }
        }
        assertThat(passes).hasValue(1);
    }

    /** The size of what changes its sign is that of nodes, the same in one go as from what nodes count at all times. */
    @Test
    void sizesAreThoseOfNodes() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {6, 5, 7}, new double[] {2, 1, 3}, 0.2, 11);
        var random = new Random(3);
        int n = mesh.nodeCount();
        Values rub = Values.of(random.doubles(3 * n, -4, 9).toArray());
        Run once = run(mesh, linear(mesh, SLOPE, 1e4), rub, Values.of(new double[mesh.cellCount()]));
        Run often =
                new Run(mesh, once.fields(), once.parts(), List.of(), List.of(), List.of(0.0, 1.0), 0, Stated.NOTHING);
        for (Loads loads : List.of(
                new Loads("p", 2e3, "", On.WALL, On.WALL),
                new Loads("", 0, "tau", On.WALL, On.WALL),
                new Loads("p", 0, "tau", On.WALL, On.WALL))) {
            double direct = loads.size(new SurfaceIntegral(once, once.parts(), lens(false), Memo.NONE));
            double weighed =
                    loads.size(new SurfaceIntegral(often, often.parts(), lens(false), new BoundedMemo(1 << 20)));
            assertThat(direct).isCloseTo(weighed, within(1e-12 * weighed));
            // By points it is a bit less where it changes its sign or direction within a face.
            double points = loads.size(new SurfaceIntegral(once, once.parts(), lens(true), Memo.NONE));
            assertThat(points).isLessThan(direct).isGreaterThan(0.7 * direct);
        }
    }

    /** What is the same everywhere is its own mean, to the last digit. */
    @Test
    void theMeanOfAConstantIsIt() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {6, 5, 4}, new double[] {1, 1, 1}, 0.2, 8);
        for (double c : new double[] {3, 0.1, 293.15, 1e-7, -45.2}) {
            double[] p = new double[mesh.nodeCount()];
            java.util.Arrays.fill(p, c);
            Run run = run(
                    mesh, Values.of(p), Values.of(new double[3 * p.length]), Values.of(new double[mesh.cellCount()]));
            assertThat(over(new Mean("p"), run, false)).isCloseTo(c, within(2 * Math.ulp(c)));
        }
    }
}
