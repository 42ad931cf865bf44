package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import lane.base.BoundedMemo;
import lane.base.Memo;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.CylinderCut;
import lane.cut.Level;
import lane.cut.Slicer;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What nodes and cells count over faces is found once for a mesh, and gives what the points of the faces give. */
class FaceWeightsTest {
    private static final Axis SKEW = new Axis(new Point(0.4, -0.1, 0.7), new Point(1, 2, -1));
    /** In hectopascal, and from a zero of its own: what is told in other units has an offset and a factor. */
    private static final EvaluationContext LENS = EvaluationContext.of(
            List.of(),
            List.of(
                    new FieldUnit("head", "hPa", true),
                    new FieldUnit("heat", "degC", true),
                    new FieldUnit("wash", "cm/s", true),
                    new FieldUnit("rub", "Pa", true),
                    new FieldUnit("kind", "hPa", true)),
            Axis.Z);

    private static Field nodes(
            Mesh mesh, String name, double time, List<ToDoubleFunction<double[]>> of, boolean narrow) {
        double[] v = new double[of.size() * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double[] x = {mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2], time};
            for (int c = 0; c < of.size(); c++) {
                v[of.size() * i + c] = of.get(c).applyAsDouble(x);
            }
        }
        float[] single = new float[v.length];
        for (int i = 0; i < v.length; i++) {
            single[i] = (float) v[i];
        }
        return new Field(
                name,
                Field.At.NODE,
                of.size(),
                Unit.UNKNOWN,
                narrow ? new Values.Floats(single) : new Values.Doubles(v));
    }

    /** A block of curd that drains, at one of two times. */
    private static Run run(Mesh mesh, double time) {
        int[] kind = new int[mesh.cellCount()];
        for (int i = 0; i < kind.length; i++) {
            kind[i] = 1 + (i + (int) time) % 5;
        }
        List<ToDoubleFunction<double[]>> wash =
                List.of(x -> x[1] * x[1] - x[3], x -> Math.cos(x[0]), x -> 1 + x[2] * x[0] * x[3]);
        return new Run(
                mesh,
                List.of(
                        nodes(mesh, "head", time, List.of(x -> 12 - 3 * x[2] + Math.sin(x[0] + x[3])), false),
                        nodes(mesh, "heat", time, List.of(x -> 8 + x[1] * x[3]), true),
                        nodes(mesh, "wash", time, wash, true),
                        nodes(mesh, "rub", time, List.of(x -> x[0], x -> -x[1] * x[3], x -> 2 + x[2]), false),
                        new Field("kind", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Ints(kind))),
                List.of(new PartBuilder(mesh).whole("rind")),
                List.of(),
                List.of(),
                List.of(0.0, 1.0),
                time,
                Stated.NOTHING);
    }

    private static List<Measure> measures() {
        var all = new ArrayList<Measure>();
        for (String q : List.of("head", "heat", "kind", "wash.y")) {
            all.add(new Mean(q));
            all.add(new Integral(q));
        }
        all.add(new Flow("wash", 1030, "kg/m3", Flow.Carried.NOTHING, SKEW));
        for (String p : List.of("head", "kind")) {
            var loads = new Loads(p, 400, "", Loads.On.WALL, Loads.On.FLUID);
            all.add(new Force(loads, new Point(1, -1, 3)));
            all.add(new Moment(loads, SKEW));
        }
        var both = new Loads("head", 0, "rub", Loads.On.FLUID, Loads.On.WALL);
        all.add(new Force(both, new Point(0, 1, 0)));
        all.add(new Moment(both, SKEW));
        return all;
    }

    /** Of both times, with what is kept from the first for the second, against the points. */
    private static void agrees(Mesh mesh, List<List<Part>> parts, String what) {
        var memo = new BoundedMemo(1 << 24);
        for (int t = 0; t < 2; t++) {
            Run run = run(mesh, t);
            for (Measure m : measures()) {
                var points = new SurfaceIntegral(run, parts.get(t), LENS, Memo.NONE);
                var kept = new SurfaceIntegral(run, parts.get(t), LENS, memo);
                double expected = m.over(points).value();
                double made = m.over(kept).value();
                double slack = 1e-13 * (Math.abs(expected) + scale(m));
                assertThat(made).as("%s, %s at %s", what, m, t).isCloseTo(expected, within(slack));
                assertThat(kept.inexact()).as("%s, %s", what, m).isEqualTo(points.inexact());
                assertThat(m.over(kept.finer()).value())
                        .as("%s, %s by the next rule", what, m)
                        .isCloseTo(m.over(points.finer()).value(), within(slack));
                // The same to the bit, whoever found out what nodes count.
                var alone = new SurfaceIntegral(run, parts.get(t), LENS, new BoundedMemo(1 << 24));
                assertThat(m.over(alone).value()).isEqualTo(made);
            }
        }
        assertThat(memo.bytes()).as(what).isPositive();
    }

    /** Loads that cancel are small against what they are made of. */
    private static double scale(Measure m) {
        return m instanceof Force || m instanceof Moment ? 3e4 : m instanceof Flow ? 1e3 : 10;
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
                "HEXAHEDRON27",
                "TETRAHEDRON10",
                "VOXEL"
            })
    void overTheRindOfEveryShape(CellShape shape) {
        Mesh mesh = BoxMesh.of(
                shape, new int[] {4, 3, 5}, new double[] {1.2, 0.7, 2}, shape == CellShape.VOXEL ? 0 : 0.2, 5);
        List<Part> rind = run(mesh, 0).parts();
        agrees(mesh, List.of(rind, rind), shape.word());
    }

    /** More faces than are walked over at once, and many more points than there is room for. */
    @Test
    void overManyFaces() {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {60, 50, 2}, new double[] {6, 5, 0.2}, 0.1, 2);
        List<Part> rind = run(mesh, 0).parts();
        assertThat(rind.getFirst().surface().cellCount()).isGreaterThan(9000);
        agrees(mesh, List.of(rind, rind), "many faces");
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "POLYHEDRON"})
    void overSectionsAndShells(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 2, 2}, new double[] {1.2, 1, 1}, 0.2, 9);
        Cut flat = Slicer.cut(mesh, Level.plane(mesh, new Point(0.55, 0.5, 0.5), new Point(3, 1, 1)), Work.QUIET);
        var run = run(mesh, 0);
        Axis about = new Axis(new Point(0.6, 0.5, 0), new Point(0, 0, 1));
        Cut round = CylinderCut.of(run.locator(), about, 0.31, 0.3, 0.5, Work.QUIET);
        List<String> fields = List.of("head", "heat", "wash", "rub");
        // Bent cells fall into very many pieces on a cylinder.
        for (Cut cut : shape == CellShape.TETRAHEDRON ? List.of(flat, round) : List.of(flat)) {
            List<List<Part>> carried = new ArrayList<>();
            List<List<Part>> looked = new ArrayList<>();
            for (int t = 0; t < 2; t++) {
                carried.add(List.of(cut.part("cut", run(mesh, t), fields)));
                // Without fields of its own it takes them within the cells.
                looked.add(List.of(cut.part("cut", run(mesh, t), List.of())));
            }
            agrees(mesh, carried, "cut of " + shape);
            agrees(mesh, looked, "cut within " + shape);
        }
    }

    /** Parts of both kinds, and cut ones with others, are added up. */
    @Test
    void overSeveralPartsAtOnce() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 1, 1}, 0.15, 3);
        Cut low = Slicer.cut(mesh, Level.plane(mesh, new Point(0.5, 0.5, 0.3), new Point(0, 0, 1)), Work.QUIET);
        Cut high = Slicer.cut(mesh, Level.plane(mesh, new Point(0.5, 0.5, 0.8), new Point(0, 1, 1)), Work.QUIET);
        List<List<Part>> all = new ArrayList<>();
        for (int t = 0; t < 2; t++) {
            Run run = run(mesh, t);
            all.add(List.of(
                    run.parts().getFirst(),
                    low.part("low", run, List.of("head", "heat", "wash", "rub")),
                    high.part("high", run, List.of())));
        }
        agrees(mesh, all, "parts of three kinds");
    }

    /** A plane run of sheet metal: lines count for its depth. */
    @Test
    void alongTheRimOfAPlaneRun() {
        int[] quads = new int[4 * 7 * 5];
        double[] xyz = new double[3 * 8 * 6];
        for (int i = 0; i < 48; i++) {
            xyz[3 * i] = i % 8 * 0.4 + 0.02 * (i % 3);
            xyz[3 * i + 1] = i / 8 * 0.3 - 0.03 * (i % 5);
        }
        for (int c = 0; c < 35; c++) {
            int at = c % 7 + 8 * (c / 7);
            int[] corners = {at, at + 1, at + 9, at + 8};
            System.arraycopy(corners, 0, quads, 4 * c, 4);
        }
        Mesh mesh = Mesh.uniform(xyz, CellShape.QUAD, quads);
        Stated deep = new Stated(null, java.util.Map.of(), java.util.Map.of(), 0.25, null, false);
        double[][] value = new double[2][];
        for (int t = 0; t < 2; t++) {
            Run flat = run(mesh, t);
            Run run = flat.with(flat.fields(), flat.parts(), List.of(), deep);
            var loads = new Loads("head", 0, "", Loads.On.WALL, Loads.On.WALL);
            value[t] = new double[2];
            int i = 0;
            for (Memo memo : List.of(Memo.NONE, new BoundedMemo(1 << 20))) {
                value[t][i++] = new Force(loads, new Point(0, 1, 0))
                        .over(new SurfaceIntegral(run, run.parts(), LENS, memo))
                        .value();
            }
            assertThat(value[t][1]).isCloseTo(value[t][0], within(1e-11));
        }
        assertThat(value[0][0]).isNotEqualTo(value[1][0]);
    }

    /** A value that is missing makes the number absent where its node is met, and nowhere else. */
    @Test
    void whatIsMissingElsewhereHasNoSay() {
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.1, 8);
        Run whole = run(mesh, 1);
        double[] head = new double[mesh.nodeCount()];
        for (int i = 0; i < head.length; i++) {
            head[i] = whole.field("head").orElseThrow().values().get(i);
        }
        Part top = whole.parts().getFirst();
        int[] high = java.util.stream.IntStream.range(0, top.surface().cellCount())
                .filter(f -> {
                    int at = top.surface().begin(f);
                    return java.util.stream.IntStream.range(at, at + 3)
                            .allMatch(k -> top.surface().xyz()[3 * top.surface().nodes()[k] + 2] > 1 - 1e-9);
                })
                .toArray();
        assertThat(high).hasSize(18);
        Part lid = top.pick(high).named("lid");
        for (int i = 0; i < head.length; i++) {
            if (mesh.xyz()[3 * i + 2] < 0.9) {
                head[i] = Double.NaN;
            }
        }
        Run holed = whole.with(
                List.of(new Field("head", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(head))),
                List.of(top, lid),
                List.of(),
                whole.stated());
        var memo = new BoundedMemo(1 << 20);
        var mean = new Mean("head");
        double known =
                mean.over(new SurfaceIntegral(holed, List.of(lid), LENS, memo)).value();
        assertThat(known)
                .isCloseTo(
                        mean.over(new SurfaceIntegral(whole, List.of(lid), LENS, Memo.NONE))
                                .value(),
                        within(1e-12 * known));
        assertThat(mean.over(new SurfaceIntegral(holed, List.of(top), LENS, memo))
                        .value())
                .isNaN();
    }

    /** How large loads are wherever they point: what decides whether a force has a line that it acts along. */
    @Test
    void sizesDoNotCancel() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {5, 4, 3}, new double[] {2, 1, 1}, 0, 1);
        Run run = run(mesh, 1);
        var kept = new SurfaceIntegral(run, run.parts(), LENS, new BoundedMemo(1 << 20));
        var points = new SurfaceIntegral(run, run.parts(), LENS, Memo.NONE);
        for (double about : new double[] {0, 800, 1200}) {
            double expected = points.size("head", about);
            // Between nodes of either sign it counts what lies on either side of none.
            assertThat(kept.size("head", about))
                    .as("about %s", about)
                    .isBetween(0.99 * expected, (about < 1000 ? 1.01 : 1.5) * expected);
        }
        double shear = points.size("rub", 0);
        assertThat(shear).isGreaterThan(10);
        assertThat(kept.size("rub", 0)).isCloseTo(shear, within(0.02 * shear));
        // Of a load that is the same everywhere both are the load times the area.
        assertThat(kept.size("kind", 0)).isCloseTo(points.size("kind", 0), within(1e-9));
    }
}
