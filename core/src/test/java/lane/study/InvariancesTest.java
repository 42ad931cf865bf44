package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Integral;
import lane.measure.Length;
import lane.measure.Loads;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Statistic;
import lane.measure.Stored;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.LoadOf;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.reading.TallyOf;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Box;
import lane.station.Frame;
import lane.station.Isosurface;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/**
 * What a number must not hang on: how a run lies in space when its stations lie with it, how its nodes and cells are numbered, and
 * how wide its numbers are stored. The run is a loaf that bakes; its stations are all told in a frame of the loaf.
 */
class InvariancesTest {
    private static final Axis SPACE = new Axis(new Point(0, 0, 0), new Point(0, 0, 1), new Point(1, 0, 0));
    private static final Frame.Attitude TURNED = new Frame.Attitude.Turned(
            List.of(new Frame.Rotation("z", 37), new Frame.Rotation("x", -64), new Frame.Rotation("y", 118)), false);
    private static final Point MOVED = new Point(31.5, -4.25, 12);

    private static Axis loaf(boolean turned) {
        return turned ? new Frame("loaf", "loaf", "", MOVED, TURNED, false, "").axis() : SPACE;
    }

    /** Fields as functions of the place in the loaf's own frame. */
    private static Run run(Mesh own, Axis frame, boolean narrow) {
        int n = own.nodeCount();
        double[] xyz = new double[3 * n];
        double[] warm = new double[n];
        double[] press = new double[n];
        double[] steam = new double[3 * n];
        double[] rub = new double[3 * n];
        for (int i = 0; i < n; i++) {
            double x = own.xyz()[3 * i];
            double y = own.xyz()[3 * i + 1];
            double z = own.xyz()[3 * i + 2];
            frame.out(new Point(x, y, z)).into(xyz, 3 * i);
            warm[i] = 300 + 40 * x - 25 * y * z + 8 * Math.sin(5 * x * y);
            press[i] = 1200 - 900 * z + 100 * x * x;
            frame.outDirection(new Point(0.4 - y, 0.2 + x * z, 0.3 * x)).into(steam, 3 * i);
            frame.outDirection(new Point(2 + y, -z, x * y)).into(rub, 3 * i);
        }
        Mesh mesh = own.withNodes(xyz);
        double[] kind = new double[mesh.cellCount()];
        double[] middle = new double[3];
        var cell = new lane.mesh.Cell(own);
        for (int c = 0; c < kind.length; c++) {
            cell.load(c).centre(middle);
            kind[c] = Math.rint(1e6 * (middle[0] + 3 * middle[1] - middle[2])) / 1e6;
        }
        return new Run(
                mesh,
                List.of(
                        field("warm", Field.At.NODE, 1, "K", warm, narrow),
                        field("press", Field.At.NODE, 1, "Pa", press, narrow),
                        field("steam", Field.At.NODE, 3, "m/s", steam, false),
                        field("rub", Field.At.NODE, 3, "Pa", rub, false),
                        field("kind", Field.At.CELL, 1, "1", kind, narrow)),
                List.of(new PartBuilder(mesh).whole("crust")),
                List.of(),
                List.of());
    }

    private static Field field(String name, Field.At at, int components, String unit, double[] v, boolean narrow) {
        if (!narrow) {
            return new Field(name, at, components, Unit.of(unit), Values.of(v));
        }
        float[] f = new float[v.length];
        for (int i = 0; i < f.length; i++) {
            f[i] = (float) v[i];
        }
        return new Field(name, at, components, Unit.of(unit), new Values.Floats(f));
    }

    /** The same mesh with nodes and cells in another order. */
    private static Mesh numbered(Mesh mesh, long seed) {
        var random = new Random(seed);
        int[] node = order(mesh.nodeCount(), random);
        int[] cells = order(mesh.cellCount(), random);
        Mesh some = mesh.only(cells);
        double[] xyz = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            System.arraycopy(mesh.xyz(), 3 * i, xyz, 3 * node[i], 3);
        }
        byte[] shapes = new byte[some.cellCount()];
        int[] offsets = new int[some.cellCount() + 1];
        for (int c = 0; c < shapes.length; c++) {
            shapes[c] = (byte) some.shape(c).ordinal();
            offsets[c + 1] = some.begin(c) + some.size(c);
        }
        return new Mesh(
                xyz,
                shapes,
                offsets,
                Arrays.stream(some.nodes()).map(v -> node[v]).toArray());
    }

    private static int[] order(int n, Random random) {
        int[] out = new int[n];
        Arrays.setAll(out, i -> i);
        for (int i = n - 1; i > 0; i--) {
            int k = random.nextInt(i + 1);
            int was = out[i];
            out[i] = out[k];
            out[k] = was;
        }
        return out;
    }

    private static Map<String, Shape> shapes() {
        var out = new LinkedHashMap<String, Shape>();
        var even = new Sampling.Even(23);
        out.put("skewer", new Line(new Point(0.11, 0.2, 0.13), new Point(1.3, 0.71, 0.52), even, Abscissa.ARC));
        out.put(
                "exact",
                new Line(
                        new Point(-0.2, 0.33, 0.2),
                        new Point(1.7, 0.41, 0.37),
                        new Sampling.CellExact(),
                        Abscissa.ARC));
        out.put(
                "bend",
                new Polyline(
                        List.of(new Point(0.2, 0.2, 0.2), new Point(1.1, 0.3, 0.5), new Point(0.9, 0.8, 0.1)),
                        even,
                        Abscissa.FRACTION));
        var upright = new Axis(new Point(0.7, 0.5, 0), new Point(0.1, 0, 1), new Point(1, 0, 0));
        out.put("arc", new Arc(upright, 0.31, 0.3, 15, 260, even, Abscissa.ARC));
        out.put("slice", new Section(new Point(0.6, 0.4, 0.3), new Point(1, 0.4, -0.3), null, null));
        out.put(
                "window",
                new Section(
                        new Point(0.6, 0.4, 0.3),
                        new Point(0, 0, 1),
                        new Box(new Point(0.2, 0.1, 0), new Point(1.2, 0.7, 1)),
                        null));
        out.put("warmth", new Isosurface("warm", List.of(318.0)));
        out.put("crust", new OnPart("crust"));
        out.put("low", new OnPart("crust", List.of(), null, new Box(new Point(-1, -1, -1), new Point(2, 2, 0.2))));
        out.put("all", new Region(new Within.All()));
        out.put(
                "crumb",
                new Region(new Within.InBox(new Box(new Point(0.21, 0.13, 0.1), new Point(1.2, 0.8, 0.52)), true)));
        out.put("ball", new Region(new Within.Ball(new Point(0.7, 0.5, 0.3), 0.33)));
        out.put("pins", new Points(List.of(new Point(0.3, 0.2, 0.1), new Point(1.1, 0.7, 0.4), new Point(5, 5, 5))));
        return out;
    }

    private static List<Reading> readings() {
        List<Reading> out = new ArrayList<>();
        shapes().forEach((key, shape) -> {
            boolean path = shape instanceof Shape.Sampled;
            boolean region = shape instanceof Region;
            for (String q : List.of("warm", "kind", "made", "up")) {
                if (path) {
                    add(out, "profile of " + q + " on " + key, new ProfileOf(key, q));
                }
                tally(out, key, q, new Mean(q));
                tally(out, key, q, new Integral(q));
                tally(out, key, q, new Extreme(q, true));
                tally(out, key, q, new Extreme(q, false));
                if (!(shape instanceof Points)) {
                    tally(out, key, q, new Statistic(Statistic.What.DEVIATION, q, 0));
                    tally(out, key, q, new Statistic(Statistic.What.PERCENTILE, q, 0.3));
                }
            }
            if (path && !(shape instanceof Points)) {
                tally(out, key, "", new Length());
            }
            if (!path) {
                tally(out, key, "", new Area());
                tally(
                        out,
                        key,
                        "kind",
                        new Stored(Stored.Take.SIZE_MEAN, lane.evaluation.StoredValues.At.CELLS, "kind", ""));
            }
            if (!path && !region) {
                tally(out, key, "", new Flow("steam", 0.6, "kg/m3", Flow.Carried.NOTHING, Axis.Z));
                add(
                        out,
                        "load on " + key,
                        new LoadOf(
                                List.of(key),
                                new Loads("press", 300, "rub", Loads.On.WALL, Loads.On.WALL),
                                new Point(0.2, 0.1, 0.4),
                                new Point(1, 1, 0),
                                new Point(0, 0, 1),
                                null,
                                LoadOf.Which.MAGNITUDE,
                                "loaf",
                                null));
            }
        });
        return out;
    }

    private static void tally(List<Reading> out, String station, String quantity, Measure measure) {
        add(
                out,
                measure.getClass().getSimpleName() + " " + measure.word() + quantity + " over " + station,
                new TallyOf(List.of(station), measure));
    }

    private static void add(List<Reading> out, String name, Ask ask) {
        out.add(new Reading("r" + out.size(), name, "", ask));
    }

    private static Results results(Run run, boolean turned) {
        var library = new Library() {
            @Override
            public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                return run;
            }

            @Override
            public Table table(String file, List<Recipe> recipes) {
                throw new LaneException("There is no table.");
            }
        };
        Frame frame = turned
                ? new Frame("loaf", "loaf", "", MOVED, TURNED, false, "")
                : new Frame("loaf", "loaf", "", new Point(0, 0, 0));
        Study study = Study.empty("bakery")
                .withSources(l -> List.of(new Source.Simulation("run", "run", "run.vtu", List.of(), "", "")))
                .withQuantities(l -> List.of(
                        new Quantity("warm", "warm", "warm", "", ""),
                        new Quantity("kind", "kind", "kind", "", ""),
                        new Quantity("press", "press", "press", "", ""),
                        new Quantity("steam", "steam", "steam", "", ""),
                        new Quantity("rub", "rub", "rub", "", ""),
                        new Quantity(
                                "made",
                                "made",
                                "norm(steam) * sqrt(warm / 1 \"K\") + dot(steam, grad(warm)) * 1 \"m/K\"",
                                "",
                                ""),
                        new Quantity("up", "up", "steam.z in loaf + x in loaf / 1 \"s\"", "", "")))
                .withFrames(l -> List.of(frame))
                .withStations(l -> shapes().entrySet().stream()
                        .map(e -> new Station(e.getKey(), e.getKey(), "loaf", e.getValue()))
                        .toList())
                .withReadings(l -> readings());
        return new Evaluator(library).evaluate(study, Work.QUIET);
    }

    /** @param slack of a number against the largest of its kind */
    private static void same(Results a, Results b, double slack) {
        int numbers = 0;
        for (Reading r : a.study().readings()) {
            Outcome one = a.outcome(r.id(), "run");
            Outcome other = b.outcome(r.id(), "run");
            assertThat(one).as("%s: %s", r.name(), one).isNotInstanceOf(Outcome.Absent.class);
            assertThat(other).as("%s: %s", r.name(), other).isNotInstanceOf(Outcome.Absent.class);
            List<Scalar> first = one.scalars();
            List<Scalar> second = other.scalars();
            assertThat(second).as(r.name()).hasSameSizeAs(first);
            double size = first.stream()
                    .mapToDouble(s -> Math.abs(s.estimate().value()))
                    .filter(Double::isFinite)
                    .max()
                    .orElse(1);
            for (int i = 0; i < first.size(); i++) {
                double v = first.get(i).estimate().value();
                double w = second.get(i).estimate().value();
                if (Double.isNaN(v)) {
                    assertThat(w).as("%s, %s", r.name(), first.get(i).what()).isNaN();
                } else {
                    assertThat(w).as("%s, %s", r.name(), first.get(i).what()).isCloseTo(v, within(slack * (1 + size)));
                }
                numbers++;
            }
            if (one instanceof Profile p && other instanceof Profile q) {
                assertThat(q.size()).as(r.name()).isEqualTo(p.size());
                for (int i = 0; i < p.size(); i++) {
                    assertThat(q.abscissa()[i]).as(r.name()).isCloseTo(p.abscissa()[i], within(1e-9));
                    // On a face between cells what is constant in cells has two values, of which either may be told.
                    if (!r.name().contains("kind") && !r.name().contains("made")) {
                        assertThat(q.value()[i]).as(r.name()).isCloseTo(p.value()[i], within(slack * (1 + size) * 100));
                    }
                    numbers++;
                }
            }
        }
        assertThat(numbers).isGreaterThan(600);
    }

    private static Mesh mesh() {
        return BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 2}, new double[] {1.4, 1, 0.6}, 0.15, 7);
    }

    @Test
    void howItLiesInSpace() {
        same(results(run(mesh(), loaf(false), false), false), results(run(mesh(), loaf(true), false), true), 1e-9);
    }

    @Test
    void howNodesAndCellsAreNumbered() {
        same(results(run(mesh(), SPACE, false), false), results(run(numbered(mesh(), 3), SPACE, false), false), 1e-9);
    }

    @Test
    void howWideNumbersAreStored() {
        same(results(run(mesh(), SPACE, false), false), results(run(mesh(), SPACE, true), false), 2e-5);
    }
}
