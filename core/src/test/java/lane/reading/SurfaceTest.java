package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Memo;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceIntegral;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
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
import lane.provenance.Provenance;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.BalanceOf.Term;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Tallies and balances on boxes with fields whose integrals are known exactly. */
class SurfaceTest {
    private static final double[] SIZE = {2, 3, 1.5};
    private static final Axis AXIS = new Axis(new Point(0.3, -0.2, 0), new Point(0, 0, 2));

    private static EvaluationContext lens() {
        return EvaluationContext.of(
                List.of(
                        new Quantity("p", "pressure", "p", Component.ALL, ""),
                        new Quantity("u", "velocity", "u", Component.ALL, ""),
                        new Quantity("ux", "u x", "u", Component.X, ""),
                        new Quantity("tau", "shear", "tau", Component.ALL, "")),
                List.of(
                        new FieldUnit("p", "Pa", true),
                        new FieldUnit("u", "m/s", true),
                        new FieldUnit("tau", "Pa", true)),
                AXIS);
    }

    private static Field field(Mesh mesh, String name, int components, Function<double[], double[]> of) {
        double[] v = new double[components * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double[] value = of.apply(new double[] {mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2]});
            System.arraycopy(value, 0, v, components * i, components);
        }
        return new Field(name, Field.At.NODE, components, Unit.UNKNOWN, Values.of(v));
    }

    /** A shaken box under water: pressure grows downwards, the flow turns about z, shear pulls along x. */
    private static Run run(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 2, 4}, SIZE, 0.2, 17);
        List<Field> fields = List.of(
                field(mesh, "p", 1, x -> new double[] {1000 - 9810 * x[2]}),
                field(mesh, "u", 3, x -> new double[] {1 + 2 * x[0], -3 * x[1] + x[2], 4 * x[2]}),
                field(mesh, "tau", 3, x -> new double[] {5, 0, 0}));
        return new Run(mesh, fields, List.of(new PartBuilder(mesh).whole("skin")), List.of(), List.of());
    }

    private static Tally read(Run run, Measure measure, String unit) {
        return TallyReader.read(run, run.parts(), measure, lens(), unit, Provenance.EMPTY, Memo.NONE);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void exactIntegralsOverAClosedBox(CellShape shape) {
        Run run = run(shape);
        double volume = 2 * 3 * 1.5;
        assertThat(read(run, new Area(), "m2").value()).isCloseTo(2 * (6 + 3 + 4.5), within(1e-12));
        // Buoyancy: hydrostatic pressure on the skin pushes up with the weight of the displaced fluid.
        var wall = new Loads("p", 500, "", On.FLUID, On.WALL);
        assertThat(read(run, new Force(wall, new Point(0, 0, 1)), "N").value()).isCloseTo(-9810 * volume, within(1e-8));
        assertThat(read(run, new Force(wall, new Point(1, 0, 0)), "kN").value()).isCloseTo(0, within(1e-8));
        // The divergence theorem: flow out is the volume times div u = 2 - 3 + 4.
        var flow = new Flow("u", 870, "kg/m3", Carried.NOTHING, AXIS);
        assertThat(read(run, flow, "kg/s").value()).isCloseTo(870 * 3 * volume, within(1e-8));
        // With the other sign the words for it are others too.
        Tally in = read(run, flow.flipped().orElseThrow(), "kg/s");
        assertThat(in.value()).isCloseTo(-870 * 3 * volume, within(1e-8));
        assertThat(in.sign()).isEqualTo("positive enters the run");
        assertThat(read(run, new Integral("ux"), "").value()).isCloseTo(skinOf(1, 2), within(1e-11));
        assertThat(read(run, new Mean("ux"), "m/s").value()).isCloseTo(skinOf(1, 2) / 27, within(1e-12));
    }

    /** Integral of c + k x over the skin of the box. */
    private static double skinOf(double c, double k) {
        double sides = 2 * (2 * 1.5 + 2 * 3) * (c + k * 1);
        return sides + 3 * 1.5 * (c + c + 2 * k);
    }

    @Test
    void theMomentIsThatOfTheForceWithPressureAndShearApart() {
        Run run = run(CellShape.HEXAHEDRON);
        var fluid = new Loads("p", 0, "tau", On.FLUID, On.FLUID);
        Tally t = read(run, new Moment(fluid, new Axis(new Point(0, 0, 0), new Point(0, 1, 0))), "N m");
        // Pressure: the fluid is pushed back by buoyancy at the middle of the box; y moment = z Fx - x Fz.
        double lift = 9810 * 9;
        assertThat(t.pieces().get("pressure")).isCloseTo(-1.0 * lift, within(1e-6));
        // Shear of 5 Pa along x on all of the skin acts at its centre, z = 0.75.
        assertThat(t.pieces().get("viscous")).isCloseTo(5 * 27 * 0.75, within(1e-9));
        assertThat(t.value()).isCloseTo(t.pieces().get("pressure") + t.pieces().get("viscous"), within(1e-9));
        var wall = new Loads("p", 0, "tau", On.FLUID, On.WALL);
        assertThat(read(run, new Moment(wall, new Axis(new Point(0, 0, 0), new Point(0, 1, 0))), "N m")
                        .value())
                .isCloseTo(-t.value(), within(1e-9));
    }

    @Test
    void theIntegralOfAProductIsTheProductIntegrated() {
        Run run = run(CellShape.VOXEL);
        // u.n r x u has degree 4 on a face; against the volume integral of div(u m) with m the moment of u about the
        // axis.
        var m = new Flow("u", 1, "1", Carried.ANGULAR_MOMENTUM, AXIS);
        double exact = 0;
        int n = 40;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                for (int k = 0; k < n; k++) {
                    double x = 2 * (i + 0.5) / n;
                    double y = 3 * (j + 0.5) / n;
                    double z = 1.5 * (k + 0.5) / n;
                    double px = x - 0.3;
                    double py = y + 0.2;
                    double ux = 1 + 2 * x;
                    double uy = -3 * y + z;
                    double moment = px * uy - py * ux;
                    exact += 3 * moment + ux * (uy - 2 * py) + uy * (-3 * px - ux) + 4 * z * px;
                }
            }
        }
        assertThat(read(run, m, "").value()).isCloseTo(exact * 9 / (n * n * n), within(0.05));
    }

    @Test
    void theResultHasTheSameBitsOnAnyNumberOfThreads() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {40, 40, 5}, SIZE, 0.2, 17);
        Run run = new Run(
                mesh,
                List.of(field(mesh, "p", 1, x -> new double[] {Math.sin(9 * x[0]) + x[1]})),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
        double pooled = read(run, new Integral("p"), "").value();
        var one = new java.util.concurrent.ForkJoinPool(1);
        double alone =
                one.submit(() -> read(run, new Integral("p"), "").value()).get();
        one.shutdown();
        assertThat(alone).isEqualTo(pooled);
    }

    @Test
    void unitsAreCheckedBeforeNumbersAreAdded() {
        Run run = run(CellShape.VOXEL);
        EvaluationContext kinematic = EvaluationContext.of(
                List.of(new Quantity("p", "pressure", "p", Component.ALL, "")),
                List.of(new FieldUnit("p", "m2/s2", true)),
                AXIS);
        var force = new Force(new Loads("p", 0, "", On.FLUID, On.WALL), new Point(1, 0, 0));
        assertThatThrownBy(() -> TallyReader.read(run, run.parts(), force, kinematic, "", Provenance.EMPTY, Memo.NONE))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("kinematic")
                .hasMessageContaining("density");
        assertThatThrownBy(() -> read(run, new Area(), "kg")).hasMessageContaining("m2 and kg");
        assertThatThrownBy(() -> read(run, new Mean("u"), "")).hasMessageContaining("3 components");
        assertThatThrownBy(() -> read(run, new Flow("p", 1, "1", Carried.NOTHING, AXIS), ""))
                .hasMessageContaining("vector");
        assertThatThrownBy(() -> read(run, new Mean("q"), "")).hasMessageContaining("no quantity and no field \"q\"");
    }

    @Test
    void aBalanceNamesWhatAnOpenRegionLacks() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, SIZE, 0, 1);
        int[] region = new int[mesh.cellCount()];
        for (int c = 0; c < region.length; c++) {
            region[c] = c < 4 ? 1 : 2;
        }
        List<Part> halves = new PartBuilder(mesh).byOwner("half", new Values.Ints(region));
        Run run = new Run(
                mesh, List.of(field(mesh, "u", 3, x -> new double[] {x[0], -x[1], 3})), halves, List.of(), List.of());
        var flow = new Flow("u", 1, "1", Carried.NOTHING, AXIS);
        var terms =
                List.of(new Term("below", -1, List.of("half 1"), flow), new Term("above", -1, List.of("half 2"), flow));
        Balance b = BalanceReader.read(
                run,
                new Reading("b", "b", "m3/s", new BalanceOf(terms, List.of(), "in")),
                s -> List.of(run.part(s)),
                lens(),
                Provenance.EMPTY,
                Memo.NONE);
        assertThat(b.closure()).isLessThan(1e-15);
        assertThat(b.residual()).isCloseTo(0, within(1e-12));
        assertThat(b.terms().getFirst().value()).isCloseTo(18, within(1e-12));
        assertThat(b.scale()).isCloseTo(18, within(1e-12));
        assertThatThrownBy(() -> BalanceReader.read(
                        run,
                        new Reading("b", "half", "", new BalanceOf(terms.subList(0, 1), List.of(), "")),
                        s -> List.of(run.part(s)),
                        lens(),
                        Provenance.EMPTY,
                        Memo.NONE))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("open")
                .hasMessageContaining("half 2");
        assertThatThrownBy(() -> run.part("lid")).hasMessageContaining("half 1, half 2");
    }

    @Test
    void aSurfaceFileIsPlacedTurnedAndItsOwnFieldsComeFirst() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, SIZE, 0.1, 1);
        Part whole = new PartBuilder(mesh).whole("skin");
        Mesh skin = whole.surface();
        int[] inwards = skin.nodes().clone();
        for (int f = 0; f < skin.cellCount(); f += 2) {
            int keep = inwards[4 * f + 1];
            inwards[4 * f + 1] = inwards[4 * f + 3];
            inwards[4 * f + 3] = keep;
        }
        Mesh mixed = Mesh.uniform(skin.xyz(), CellShape.QUAD, inwards);
        var own = new Field("p", Field.At.CELL, 1, Unit.of("Pa"), new Values.Floats(new float[skin.cellCount()]));
        Part placed = new PartBuilder(mesh).place("skin", mixed, List.of(own));
        assertThat(placed.turned()).isEqualTo(12);
        assertThat(placed.unmatched()).isZero();
        assertThat(placed.owner()).isEqualTo(whole.owner());
        Run run = new Run(
                mesh, List.of(field(mesh, "p", 1, x -> new double[] {7})), List.of(placed), List.of(), List.of());
        assertThat(new SurfaceIntegral(run, run.parts(), lens(), Memo.NONE).closure())
                .isLessThan(1e-15);
        assertThat(read(run, new Mean("p"), "").value()).isZero();
        // A surface elsewhere is unmatched, and fields of the run are not known on it.
        double[] far = skin.xyz().clone();
        java.util.Arrays.setAll(far, i -> far[i] + 10);
        Part lost = new PartBuilder(mesh).place("far", Mesh.uniform(far, CellShape.QUAD, inwards), List.of());
        assertThat(lost.unmatched()).isEqualTo(24);
        Run away = new Run(mesh, run.fields(), List.of(lost), List.of(), List.of());
        assertThatThrownBy(() -> read(away, new Mean("p"), ""))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("boundary");
        assertThat(read(away, new Area(), "").value()).isPositive();
    }

    @Test
    void statingAnotherUnitIntegratesNothingAgain() {
        Run run = run(CellShape.HEXAHEDRON);
        var kept = new java.util.HashMap<Object, Object>();
        Memo memo = new Memo() {
            @Override
            @SuppressWarnings("unchecked")
            public <T> T of(Object key, java.util.function.Supplier<T> make) {
                return (T) kept.computeIfAbsent(key, k -> make.get());
            }
        };
        var swirl = new Flow("u", 850, "kg/m3", Carried.ANGULAR_MOMENTUM, AXIS);
        var flow = new Flow("u", 850, "kg/m3", Carried.NOTHING, AXIS);
        var force = new Force(new Loads("p", 500, "tau", On.FLUID, On.WALL), new Point(0, 0, 1));
        for (Measure measure : List.of(swirl, flow, force, new Mean("p"))) {
            Tally inSi = TallyReader.read(run, run.parts(), measure, lens(), "", Provenance.EMPTY, memo);
            int made = kept.size();
            EvaluationContext other = EvaluationContext.of(
                    List.copyOf(lens().quantities().values()),
                    List.of(
                            new FieldUnit("p", "kPa", true),
                            new FieldUnit("u", "mm/s", true),
                            new FieldUnit("tau", "kPa", true)),
                    AXIS);
            Tally stated = TallyReader.read(run, run.parts(), measure, other, "", Provenance.EMPTY, memo);
            assertThat(kept).as(measure.toString()).hasSize(made);
            double times = measure == swirl ? 1e-6 : measure == flow ? 1e-3 : 1e3;
            // A closed surface feels no constant pressure, so the reference does not spoil the ratio.
            assertThat(stated.value()).isCloseTo(times * inSi.value(), within(1e-9 * Math.abs(times * inSi.value())));
            Tally again = TallyReader.read(run, run.parts(), measure, other, "", Provenance.EMPTY, Memo.NONE);
            assertThat(stated.value()).isEqualTo(again.value());
        }
    }
}
