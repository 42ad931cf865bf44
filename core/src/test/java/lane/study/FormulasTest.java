package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Verdict;
import lane.evaluation.StoredValues.At;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Stored;
import lane.measure.Value;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reading.Vector;
import lane.reading.VectorOf;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Frame;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Station;
import lane.station.Within;
import org.junit.jupiter.api.Test;

/**
 * Formulas in a study, against exact answers: boxes of 1 x 2 x 1.5 m with T = x + 2 y, u = (y, -x, 3), p in cells = 5 z, at the
 * times 0 and 1 (T twice as large). Lane b has T + 10 on another mesh.
 */
class FormulasTest {
    private static final double[] SIZE = {1, 2, 1.5};

    private static Run run(int[] n, double more, double times, double time) {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, n, SIZE, 0.2, 1);
        int nodes = mesh.nodeCount();
        double[] t = new double[nodes];
        double[] u = new double[3 * nodes];
        double[] x = mesh.xyz();
        for (int i = 0; i < nodes; i++) {
            t[i] = times * (x[3 * i] + 2 * x[3 * i + 1]) + more;
            u[3 * i] = x[3 * i + 1];
            u[3 * i + 1] = -x[3 * i];
            u[3 * i + 2] = 3;
        }
        double[] p = new double[mesh.cellCount()];
        var cell = new Cell(mesh);
        double[] c = new double[3];
        for (int i = 0; i < p.length; i++) {
            cell.load(i).centre(c);
            p[i] = 5 * c[2];
        }
        return new Run(
                mesh,
                List.of(
                        new Field("T", Field.At.NODE, 1, lane.unit.Unit.of("K"), Values.of(t)),
                        new Field("u", Field.At.NODE, 3, lane.unit.Unit.of("m/s"), Values.of(u)),
                        new Field("p", Field.At.CELL, 1, lane.unit.Unit.of("Pa"), Values.of(p)),
                        new Field("raw", Field.At.NODE, 1, lane.unit.Unit.UNKNOWN, Values.of(t))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of(),
                List.of(0.0, 1.0),
                time,
                Stated.NOTHING);
    }

    private static final Run A0 = run(new int[] {4, 5, 4}, 0, 1, 0);
    private static final Run A1 = run(new int[] {4, 5, 4}, 0, 2, 1);
    private static final Run B = run(new int[] {3, 3, 6}, 10, 1, 0);

    private static class Memory implements Library {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            boolean late = moment instanceof TimeSelector.At a && a.value() == 1;
            return source.id().equals("b") ? B : late ? A1 : A0;
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            if (!file.equals("curve.csv")) {
                throw new LaneException("There is no table here.");
            }
            return new Table(
                    List.of("x", "v"),
                    List.of("m", "Pa"),
                    List.of(new double[] {0, 1}, new double[] {10, 30}),
                    "",
                    new Provenance.Input("curve.csv", "0", 1));
        }

        @Override
        public Mesh sheet(String file) {
            throw new LaneException("There is no sheet here.");
        }
    }

    private static final Station LINE = new Station(
            "line",
            "line",
            new Line(new Point(0.1, 0.3, 0.4), new Point(0.9, 1.7, 1.2), new Sampling.Even(7), Abscissa.ARC));

    private static Study study(List<Quantity> quantities, Reading... readings) {
        return Study.empty("s")
                .withSources(l -> new ArrayList<>(List.of(
                        new Source.Simulation("a", "fine run", "a", List.of(), "", "f"),
                        new Source.Simulation("b", "b", "b", List.of(), "", "f"),
                        new Source.Reference(
                                "rig", "rig", Source.Kind.MEASUREMENT, List.of("curve.csv"), Map.of(), List.of()))))
                .withUnits(l -> {
                    l.add(new FieldUnit("T", "K", true));
                    return l;
                })
                .withQuantities(l -> quantities)
                .withFrames(l -> {
                    l.add(new Frame(
                            "f",
                            "tilted",
                            "",
                            new Point(1, 0, 0),
                            new Frame.Attitude.Directed(new Point(1, 0, 0), new Point(0, 1, 0)),
                            false,
                            ""));
                    return l;
                })
                .withStations(l -> {
                    l.add(LINE);
                    l.add(new Station("skin", "skin", new OnPart("skin")));
                    l.add(new Station(
                            "cut", "mid cut", new Section(new Point(0, 0, 0.7), new Point(0, 0, 1), null, null)));
                    l.add(new Station("all", "all", new Region(new Within.All())));
                    l.add(new Station(
                            "tap", "tap", new Points(List.of(new Point(0.5, 0.5, 0.5), new Point(0.5, 1.5, 0.5)))));
                    return l;
                })
                .withReadings(l -> List.of(readings));
    }

    private static Quantity q(String name, String formula, String unit) {
        return new Quantity(name, name, formula, unit, "");
    }

    private static Outcome outcome(List<Quantity> quantities, Reading reading, String lane) {
        return new Evaluator(new Memory())
                .evaluate(study(quantities, reading), Work.QUIET)
                .outcome(reading.id(), lane);
    }

    /** The formula along the line against its exact value at each place. */
    private static void along(String formula, double tolerance, Function<double[], Double> exact, Quantity... more) {
        List<Quantity> all = new ArrayList<>(List.of(more));
        all.add(q("q", formula, ""));
        Outcome o = outcome(all, new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(o).as(formula + ": " + o).isInstanceOf(Profile.class);
        double[] v = ((Profile) o).value();
        for (int i = 0; i < v.length; i++) {
            double s = i / 6.0;
            double[] p = {0.1 + 0.8 * s, 0.3 + 1.4 * s, 0.4 + 0.8 * s};
            assertThat(v[i]).as(formula + " at " + i).isCloseTo(exact.apply(p), within(tolerance));
        }
    }

    private static double number(String formula, Measure measure, String station, Quantity... more) {
        List<Quantity> all = new ArrayList<>(List.of(more));
        all.add(q("q", formula, ""));
        Outcome o = outcome(all, new Reading("r", "r", "", new TallyOf(List.of(station), measure)), "a");
        assertThat(o).as(formula + ": " + o).isInstanceOf(Tally.class);
        return ((Tally) o).value();
    }

    @Test
    void formulasOfFieldsPlacesAndDefinitions() {
        along("2 * T + 1 \"K\" - T", 1e-12, p -> p[0] + 2 * p[1] + 1);
        along("speed ^ 2", 1e-12, p -> p[1] * p[1] + p[0] * p[0] + 9, q("speed", "norm(u)", "mm/s"));
        along("x + radius + axial", 1e-12, p -> p[0] + Math.hypot(p[0], p[1]) + p[2]);
        along("u.swirl", 1e-12, p -> -Math.hypot(p[0], p[1]));
        along("u.x in tilted", 1e-12, p -> -p[0]);
        along("x in tilted", 1e-12, p -> p[1]);
        along("table(\"rig\", x)", 1e-12, p -> 10 + 20 * p[0]);
        along("table(curve, \"v\", x)", 1e-12, p -> 10 + 20 * p[0]);
    }

    @Test
    void gradients() {
        along("grad(T).y", 1e-10, p -> 2.0);
        along("norm(grad(T))", 1e-10, p -> Math.sqrt(5));
        along("curl(u).z", 1e-10, p -> -2.0);
        along("div(u)", 1e-10, p -> 0.0);
        along("grad(u).xy", 1e-10, p -> 1.0);
        along("grad(p).z", 1e-10, p -> 5.0);
        along("grad(2 * T + 3 * dot(u, [0, 0, 1]) * 1 \"K s/m\").x", 1e-10, p -> 2.0);
    }

    /** Values of cell fields on the boundary take part in gradients where a part has them: here they are 2 Pa too large. */
    @Test
    void gradientsInCellsSeeTheValuesOfParts() {
        for (double more : new double[] {0, 2}) {
            var skin = A0.parts().getFirst();
            double[] p = new double[skin.surface().cellCount()];
            var face = new Cell(skin.surface());
            double[] c = new double[3];
            for (int f = 0; f < p.length; f++) {
                face.load(f).centre(c);
                p[f] = 5 * c[2] + more;
            }
            Run with = A0.with(
                    A0.fields(),
                    List.of(skin.with(
                            List.of(new Field("p", Field.At.CELL, 1, lane.unit.Unit.of("Pa"), Values.of(p))))),
                    List.of(),
                    Stated.NOTHING);
            var library = new Memory() {
                @Override
                public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                    return with;
                }
            };
            Profile made = (Profile) new Evaluator(library)
                    .evaluate(
                            study(
                                    List.of(q("q", "grad(p).z", "")),
                                    new Reading("r", "r", "", new ProfileOf("line", "q"))),
                            Work.QUIET)
                    .outcome("r", "a");
            // The line begins and ends near the boundary.
            // cells.
            double most = 0;
            for (double v : made.value()) {
                most = Math.max(most, Math.abs(v - 5));
            }
            if (more == 0) {
                assertThat(most).isLessThan(1e-9);
            } else {
                assertThat(most).isGreaterThan(0.1);
            }
        }
    }

    @Test
    void otherLanesAndTimes() {
        along("T of b - T", 1e-10, p -> 10.0);
        along("T of \"fine run\" - T", 1e-12, p -> 0.0);
        along("T at 1 - T", 1e-12, p -> p[0] + 2 * p[1]);
        along("T at 1000 \"ms\" - T", 1e-12, p -> p[0] + 2 * p[1]);
        Outcome o =
                outcome(List.of(q("q", "T at 0.5", "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        // A library says no to times that are not stored; this one gives the first.
        assertThat(o).isInstanceOf(Profile.class);
    }

    @Test
    void reductionsAreOneNumberALane() {
        double skin = 2 * (2 + 3 + 1.5);
        along("mean(T over all)", 1e-12, p -> 2.5);
        along("integral(1 over skin)", 1e-12, p -> skin);
        along("max(T over skin) - min(T over skin)", 1e-12, p -> 5.0);
        along("flow(u over \"mid cut\")", 1e-12, p -> 6.0);
        along("mean(T over \"mid cut\" by dot(u, normal))", 1e-12, p -> 2.5);
        along("mean(T over tap)", 1e-10, p -> 2.5);
        along("mean(u over all).z", 1e-12, p -> 3.0);
        along("integral(T ^ 2 over all)", 1e-10, p -> {
            // The square integrated: of (x + 2 y)^2 over the box.
            return 1.5 * (2 * (1 / 3.0) + 4 * 0.5 * 2 + 4 * 8 / 3.0);
        });
    }

    @Test
    void aQuantityThatIsOneNumberALaneIsReadWithoutAStation() {
        List<Quantity> all = List.of(
                q("ratio", "mean(T over all) / max(T over skin)", ""),
                q("T", "T", "K"),
                q("g", "9.81 \"m/s2\"", "cm/s2"));
        Tally ratio = (Tally) outcome(all, new Reading("r", "r", "%", new TallyOf(List.of(), new Value("ratio"))), "a");
        assertThat(ratio.value()).isCloseTo(0.5, within(1e-12));
        assertThat(ratio.unit().label()).isEqualTo("%");
        assertThat(ratio.trail().steps().toString()).contains("max(T over skin)");
        Tally g = (Tally) outcome(all, new Reading("r", "r", "", new TallyOf(List.of(), new Value("g"))), "b");
        assertThat(g.unit().fromSi(g.value())).isCloseTo(981, within(1e-12));
        assertThat(outcome(all, new Reading("r", "r", "", new TallyOf(List.of(), new Value("T"))), "a"))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("another value at each place"));
        assertThatThrownBy(() -> new TallyOf(List.of("skin"), new Value("g"))).hasMessageContaining("as a whole");
    }

    /** A box of 1 x 2 x 1.5 m with u = (y, -x, 3) and p = 5 z: means and forces with all that they have. */
    @Test
    void aVectorIsOneReadingWithItsComponents() {
        var velocity = new Quantity("vel", "air speed", "u", "", "");
        var wind = new Reading("w", "wind", "", new VectorOf(List.of("all"), new Mean("vel"), VectorOf.Which.Y));
        Vector mean = (Vector) outcome(List.of(velocity), wind, "a");
        assertThat(mean.components())
                .extracting(Tally::value)
                .usingElementComparator((x, y) -> Math.abs(x - y) < 1e-12 ? 0 : 1)
                .containsExactly(1.0, -0.5, 3.0);
        assertThat(mean.numbers().getFirst().value()).isCloseTo(-0.5, within(1e-12));
        assertThat(mean.magnitude()).isCloseTo(Math.sqrt(10.25), within(1e-12));
        assertThat(mean.scalars())
                .extracting("what")
                .containsExactly("x", "y", "z", "magnitude", "direction x", "direction y", "direction z");
        assertThat(mean.scalars().getLast().estimate().value()).isCloseTo(3 / Math.sqrt(10.25), within(1e-12));
        // Formulas know its numbers by name.
        var twice = new Reading("t", "t", "", new TallyOf(List.of(), new Value("d")));
        var study = study(List.of(velocity, q("d", "2 * \"wind z\" + \"wind\"", "")), wind, twice);
        Tally used =
                (Tally) new Evaluator(new Memory()).evaluate(study, Work.QUIET).outcome("t", "a");
        assertThat(used.value()).isCloseTo(5.5, within(1e-12));
        var loads = new Loads("p", 0, "", Loads.On.FLUID, Loads.On.WALL);
        Outcome made = outcome(
                List.of(),
                new Reading(
                        "f",
                        "f",
                        "mN",
                        new VectorOf(List.of("skin"), new Force(loads, new Point(0, 1, 0)), VectorOf.Which.MAGNITUDE)),
                "a");
        assertThat(made).as(made.toString()).isInstanceOf(Vector.class);
        var force = (Vector) made;
        for (int d = 0; d < 3; d++) {
            Tally one = (Tally) outcome(
                    List.of(),
                    new Reading("f", "f", "", new TallyOf(List.of("skin"), new Force(loads, Point.along(d)))),
                    "a");
            assertThat(force.components().get(d).value()).isEqualTo(one.value());
        }
        assertThat(force.unit().label()).isEqualTo("mN");
        assertThat(force.magnitude()).isGreaterThan(1);
        assertThatThrownBy(() -> new VectorOf(List.of("skin"), new Area(), VectorOf.Which.X))
                .hasMessageContaining("has no components");
        assertThat(outcome(
                        List.of(),
                        new Reading("m", "m", "", new VectorOf(List.of("all"), new Mean("T"), VectorOf.Which.X)),
                        "a"))
                .isInstanceOf(Outcome.Absent.class);
    }

    /** A reading that two formulas reach, each through another one of the same name, stands in the trail with both. */
    @Test
    void whatIsReachedByTwoWaysKeepsBoth() {
        Reading profile = new Reading("r", "r", "", new ProfileOf("line", "q"));
        List<String> trails = new ArrayList<>();
        for (String[] of : new String[][] {{"T", "x"}, {"T + 1 \"K\"", "x"}, {"T", "y"}}) {
            Outcome o = outcome(
                    List.of(
                            q("t", of[0], ""),
                            q("way", of[1], ""),
                            q("q", "mean(t over all) + 1 \"K/m\" * mean(way over all)", "")),
                    profile,
                    "a");
            assertThat(o).as(o.toString()).isInstanceOf(Profile.class);
            trails.add(o.trail().toString());
        }
        assertThat(trails).doesNotHaveDuplicates();
        assertThat(trails.getFirst()).contains("mean over all=").contains("mean over all (2)=");
    }

    @Test
    void whatIsWrongIsToldOnceWithTheWayToIt() {
        Outcome o = outcome(
                List.of(q("a", "T + T", ""), q("b", "2 * a", ""), q("c", "b - T", ""), q("q", "c * c", "")),
                new Reading("r", "r", "", new ProfileOf("line", "q")),
                "a");
        assertThat(((Outcome.Absent) o).reason())
                .startsWith(
                        "Quantity \"q\" cannot be computed because of \"a\", by way of \"c\", \"b\": Temperatures are added")
                .containsOnlyOnce("cannot be computed");
    }

    @Test
    void readingsAreUsedByName() {
        Reading mean = new Reading("m", "mean T", "", new TallyOf(List.of("all"), new Mean("t")));
        Reading profile = new Reading("r", "r", "", new ProfileOf("line", "q"));
        Study s = study(List.of(q("t", "T", ""), q("q", "T - \"mean T\"", "")), mean, profile);
        var evaluator = new Evaluator(new Memory());
        Profile p = (Profile) evaluator.evaluate(s, Work.QUIET).outcome("r", "a");
        assertThat(p.value()[0]).isCloseTo(0.7 - 2.5, within(1e-12));
        // The number follows what it is made of.
        Study next = s.with(q("t", "T + 5 \"K\"", ""));
        Profile after = (Profile) evaluator.evaluate(next, Work.QUIET).outcome("r", "a");
        assertThat(after.value()[0]).isCloseTo(0.7 - 7.5, within(1e-12));
        // A reading that needs itself through a quantity is told and not computed for ever.
        Study loop = study(
                List.of(q("t", "T - \"mean T\"", "")),
                new Reading("m", "mean T", "", new TallyOf(List.of("all"), new Mean("t"))));
        Outcome o = evaluator.evaluate(loop, Work.QUIET).outcome("m", "a");
        assertThat(o).isInstanceOf(Outcome.Absent.class);
        assertThat(((Outcome.Absent) o).reason()).contains("defined by itself");
    }

    /** A number that a formula takes by name follows every edit of what it is made of. */
    @Test
    void aTermOfABalanceIsFollowed() {
        Reading profile = new Reading("r", "r", "", new ProfileOf("line", "q"));
        List<Quantity> quantities = List.of(q("t", "T", ""), q("q", "T - \"heat: in\"", ""));
        var evaluator = new Evaluator(new Memory());
        for (int factor : new int[] {1, -1}) {
            var term = new Term("in", factor, List.of("skin"), new Mean("t"));
            Reading heat = new Reading("b", "heat", "", new BalanceOf(List.of(term), List.of(), ""));
            Outcome o = evaluator
                    .evaluate(study(quantities, heat, profile), Work.QUIET)
                    .outcome("r", "a");
            assertThat(o).as(o.toString()).isInstanceOf(Profile.class);
            assertThat(((Profile) o).value()[0]).isCloseTo(0.7 - factor * 2.5, within(1e-10));
        }
    }

    /** The integral of a square is the square integrated, not the square of interpolated means. */
    @Test
    void integrandsAreFormedAtQuadraturePoints() {
        double exact = 1.5 * (2 * (1 / 3.0) + 4 * 0.5 * 2 + 4 * 8 / 3.0);
        assertThat(number("T ^ 2", new Integral("q"), "all")).isCloseTo(exact, within(1e-10));
        // On the skin: normal and place are those of the point; closed, so the divergence theorem holds: 3 V.
        assertThat(number("dot(position, normal)", new Integral("q"), "skin")).isCloseTo(9, within(1e-10));
        assertThat(number("T * p", new Mean("q"), "all")).isCloseTo(2.5 * 3.75, within(0.02));
    }

    @Test
    void theDistanceFromWalls() {
        // The whole skin is a wall: the nearest of six sides.
        Run walled = A0.with(
                A0.fields(),
                A0.parts().stream().map(p -> p.with(lane.field.Role.WALL)).toList(),
                List.of(),
                Stated.NOTHING);
        Field d = lane.cut.WallDistance.of(walled);
        double[] x = walled.mesh().xyz();
        for (int i = 0; i < d.size(); i++) {
            double least = 1e9;
            for (int k = 0; k < 3; k++) {
                least = Math.min(least, Math.min(x[3 * i + k], SIZE[k] - x[3 * i + k]));
            }
            assertThat(d.values().get(i)).isCloseTo(least, within(1e-12));
        }
        Outcome o = outcome(
                List.of(q("q", "wall_distance", "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(((Outcome.Absent) o).reason()).contains("role of a wall");
    }

    @Test
    void nodeAndCellFieldsMix() {
        Outcome o = outcome(
                List.of(q("q", "p + T * 1 \"Pa/K\"", "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(((Profile) o).note()).contains("node values interpolated, cell values as stored");
    }

    @Test
    void anUnknownUnitIsSaidInTheTrailOrGivenByTheQuantity() {
        Outcome o = outcome(List.of(q("q", "2 * raw", "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(o).isInstanceOf(Profile.class);
        assertThat(((Profile) o).unit().known()).isFalse();
        assertThat(o.trail().toString()).contains("unit of \"raw\" is not known");
        Outcome given =
                outcome(List.of(q("q", "2 * raw", "mm")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(((Profile) given).value()[0]).isCloseTo(2 * 0.7e-3, within(1e-15));
        assertThat(((Profile) given).unit().symbol()).isEqualTo("mm");
    }

    @Test
    void whatIsMissingOrWrongIsOneSentence() {
        Map<String, String> wrong = new LinkedHashMap<>();
        wrong.put("S", "no field \"S\"");
        wrong.put("T + p", "cannot be added");
        wrong.put("T of c", "no lane \"c\"");
        wrong.put("mean(T over nowhere)", "no station");
        wrong.put("table(nothing, x)", "no table");
        wrong.put("T +", "ends too early");
        wrong.put("T + mean T", "does not belong");
        wrong.put("x in nowhere", "no frame");
        wrong.forEach((formula, words) -> {
            Outcome o =
                    outcome(List.of(q("q", formula, "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
            assertThat(o).as(formula).isInstanceOf(Outcome.Absent.class);
            assertThat(((Outcome.Absent) o).reason())
                    .as(formula)
                    .contains(words)
                    .endsWith(".");
        });
        Outcome shown = outcome(List.of(q("q", "T", "Pa")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
        assertThat(((Outcome.Absent) shown).reason()).contains("K and Pa");
    }

    /** Only what an edit touches is computed again. */
    @Test
    void anEditOfAnotherQuantityComputesNothing() {
        Reading r = new Reading("r", "r", "", new ProfileOf("line", "q"));
        Study s = study(List.of(q("q", "u.x", ""), q("other", "norm(u)", "")), r);
        var evaluator = new Evaluator(new Memory());
        evaluator.evaluate(s, Work.QUIET);
        int before = evaluator.computed();
        evaluator.evaluate(s.with(q("other", "norm(u) * 2", "")), Work.QUIET);
        assertThat(evaluator.computed()).isEqualTo(before);
        evaluator.evaluate(s.with(q("q", "3 * u.x", "")), Work.QUIET);
        // In both lanes.
        assertThat(evaluator.computed()).isEqualTo(before + 2);
    }

    @Test
    void axisymmetricPlacesAndAxes() {
        Study s = study(List.of(q("q", "u.axial", "")), new Reading("r", "r", "", new ProfileOf("line", "q")))
                .withAxis(new Axis(new Point(0, 0, 0), new Point(1, 0, 0)));
        Profile p =
                (Profile) new Evaluator(new Memory()).evaluate(s, Work.QUIET).outcome("r", "a");
        assertThat(p.value()[0]).isCloseTo(0.3, within(1e-12));
    }

    /** T is x + 2 y, between 0 and 5 K. */
    @Test
    void differencesOfTemperaturesAreNumbersLikeOthers() {
        along("abs(T - 2 \"K\")", 1e-12, p -> Math.abs(p[0] + 2 * p[1] - 2));
        along("max(T - 2 \"K\", 0)", 1e-12, p -> Math.max(p[0] + 2 * p[1] - 2, 0));
        along("max(T - 2 \"K\", 1 \"K\")", 1e-12, p -> Math.max(p[0] + 2 * p[1] - 2, 1));
        along("max(0, T - 2 \"K\", 0.5 \"K\")", 1e-12, p -> Math.max(p[0] + 2 * p[1] - 2, 0.5));
        along("min(T, 2 \"K\")", 1e-12, p -> Math.min(p[0] + 2 * p[1], 2));
        along("min(T, 274.15 \"K\", 1 \"degC\")", 1e-12, p -> p[0] + 2 * p[1]);
        along("hypot(T - 1 \"K\", T - 2 \"K\")", 1e-12, p -> Math.hypot(p[0] + 2 * p[1] - 1, p[0] + 2 * p[1] - 2));
        along("sign(T - 2 \"K\")", 0, p -> Math.signum(p[0] + 2 * p[1] - 2));
        along("if(T > 2 \"K\", T - 2 \"K\", 0)", 1e-12, p -> Math.max(p[0] + 2 * p[1] - 2, 0));
        along("-abs(2 \"K\" - T)", 1e-12, p -> -Math.abs(p[0] + 2 * p[1] - 2));
        along("abs(T - mean(T over all))", 1e-9, p -> Math.abs(p[0] + 2 * p[1] - 2.5));
        along("max(T over all) - min(T over all)", 1e-12, p -> 5.0);
        along("floor((T - 0.25 \"K\") / 1 \"K\")", 0, p -> Math.floor(p[0] + 2 * p[1] - 0.25));
        along("((T - 2 \"K\") ^ 2) ^ 0.5", 1e-12, p -> Math.abs(p[0] + 2 * p[1] - 2));
        along(
                "abs(rise) + max(rise, 0)",
                1e-12,
                p -> Math.abs(p[0] + 2 * p[1] - 2) + Math.max(p[0] + 2 * p[1] - 2, 0),
                q("rise", "T - 2 \"K\"", "delta degC"));
    }

    /** A field of a coarser run is read where the place is: what it has between its own nodes, not between those of this run. */
    /** A difference is told without the scale's offset in whatever unit it is asked for, and meets no point on the scale. */
    @Test
    void differencesOfTemperaturesAreToldWithoutTheOffset() {
        List<Quantity> all = List.of(
                q("spread", "max(T over all) - min(T over all)", ""), q("rise", "T - 2 \"K\"", ""), q("T", "T", ""));
        Reading spread = new Reading("r", "r", "degF", new TallyOf(List.of(), new Value("spread")));
        Tally five = (Tally) outcome(all, spread, "a");
        assertThat(five.unit().fromSi(five.value())).isCloseTo(9, within(1e-12));
        Tally mean =
                (Tally) outcome(all, new Reading("r", "r", "degF", new TallyOf(List.of("all"), new Mean("rise"))), "a");
        assertThat(mean.unit().fromSi(mean.value())).isCloseTo(0.9, within(1e-12));
        Tally sum = (Tally) outcome(
                all,
                new Reading(
                        "r", "r", "degF", new TallyOf(List.of("all"), new Stored(Stored.Take.SUM, At.NODES, "T", ""))),
                "a");
        assertThat(sum.unit().fromSi(sum.value()) / sum.value()).isCloseTo(1.8, within(1e-12));
        Profile p = (Profile) outcome(all, new Reading("r", "r", "degC", new ProfileOf("line", "rise")), "a");
        assertThat(p.unit().fromSi(p.value()[0])).isCloseTo(0.7 - 2, within(1e-12));
        // A temperature itself keeps its scale.
        Tally point =
                (Tally) outcome(all, new Reading("r", "r", "degF", new TallyOf(List.of("all"), new Mean("T"))), "a");
        assertThat(point.unit().fromSi(point.value())).isCloseTo(2.5 * 1.8 - 459.67, within(1e-9));
        // What somebody says of a difference as if it were a temperature is refused, with the way.
        for (String unit : List.of("degF", "delta degF")) {
            var hand = new Source.Reference(
                    "hand",
                    "hand",
                    Source.Kind.MEASUREMENT,
                    List.of(),
                    Map.of(),
                    List.of(new Curve.HandValue("r", 9, unit, 0.1, "")));
            Study s = study(all, spread)
                    .withSources(l -> {
                        l.add(hand);
                        return l;
                    })
                    .withDatum("hand")
                    .withChecks(l -> {
                        l.add(new Check("c", "r", new AgainstDatum(Norm.L2, Scale.ABSOLUTE, 0.2, ""), List.of("a")));
                        return l;
                    });
            var result =
                    new Evaluator(new Memory()).evaluate(s, Work.QUIET).checks().get("c");
            if (unit.startsWith("delta")) {
                assertThat(result.verdict()).as(result.why()).isEqualTo(Verdict.WITHIN);
            } else {
                assertThat(result.verdict()).isEqualTo(Verdict.NO_DATA);
                assertThat(result.why())
                        .contains("a difference of temperatures")
                        .contains("\"delta degF\"");
            }
        }
    }

    @Test
    void anotherRunIsReadAtThePlaceItself() {
        // Linear fields are exact wherever they are read; their square is so only at the place.
        along("(T of b) ^ 2", 1e-10, p -> Math.pow(p[0] + 2 * p[1] + 10, 2));
        along("(T ^ 2) of b", 1e-10, p -> Math.pow(p[0] + 2 * p[1] + 10, 2));
        along("(u of b).x * (u of b).y", 1e-10, p -> -p[0] * p[1]);
        along("norm(u) of b", 1e-10, p -> Math.sqrt(p[0] * p[0] + p[1] * p[1] + 9));
        // Cells of that run, not of this one.
        var along = new Reading("r", "r", "", new ProfileOf("line", "q"));
        Outcome there = outcome(List.of(q("q", "p", "")), along, "b");
        assertThat(((Profile) outcome(List.of(q("q", "p of b", "")), along, "a")).value())
                .isEqualTo(((Profile) there).value())
                .isNotEqualTo(((Profile) outcome(List.of(q("q", "p", "")), along, "a")).value());
        // At quadrature points the square is integrated, not its values at nodes of this run.
        assertThat(number("(T of b) ^ 2", new Mean("q"), "all"))
                .isCloseTo(
                        number("(x * 1 \"K/m\" + 2 * y * 1 \"K/m\" + 10 \"K\") ^ 2", new Mean("q"), "all"),
                        within(1e-6));
        along("grad(T of b).y", 1e-9, p -> 2.0);
    }

    @Test
    void aFieldOfTheLaneItselfIsTheSameToTheBit() {
        for (String body : List.of("T", "T ^ 2", "p", "u.swirl", "grad(T).y * T", "T * mean(T over skin)")) {
            along("(" + body + " of \"fine run\") - (" + body + ")", 0, p -> 0.0);
            along("(" + body + " of a) - (" + body + ")", 0, p -> 0.0);
            along("(" + body + " at 0) - (" + body + ")", 0, p -> 0.0);
        }
        along("(T ^ 2) at 1", 1e-11, p -> 4 * Math.pow(p[0] + 2 * p[1], 2));
    }

    @Test
    void howMuchLiesOutsideOfTheOtherRunIsANumberBesideTheResult() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 5, 4}, new double[] {0.5, 2, 1.5}, 0.2, 1);
        var field = new Field("T", Field.At.NODE, 1, lane.unit.Unit.of("K"), Values.of(new double[mesh.nodeCount()]));
        Run narrow = new Run(mesh, List.of(field), List.of(), List.of(), List.of());
        var library = new Memory() {
            @Override
            public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                return source.id().equals("b") ? narrow : A0;
            }
        };
        var reading = new Reading("r", "r", "", new ProfileOf("line", "q"));
        Results made = new Evaluator(library).evaluate(study(List.of(q("q", "T - T of b", "")), reading), Work.QUIET);
        // Seven places from x of 0.1 to 0.9: those beyond 0.5 are not in a run that ends there.
        assertThat(Arrays.stream(((Profile) made.outcome("r", "a")).value())
                        .filter(Double::isNaN)
                        .count())
                .isEqualTo(3);
        assertThat(made.scalars("r", "a"))
                .filteredOn(x -> x.what().equals("outside of b"))
                .singleElement()
                .satisfies(x -> assertThat(x.estimate().value()).isCloseTo(3 / 7.0, within(1e-12)));
        assertThat(made.scalars("r", "b")).noneMatch(x -> x.what().startsWith("outside of b"));
        // So has a mean over stations that several ask for.
        Study means = study(List.of(q("q", "T - mean(T of b over all)", ""), q("s", "mean(T of b over all) - T", "")))
                .withReadings(l -> List.of(reading, new Reading("r2", "r2", "", new ProfileOf("line", "s"))));
        Results two = new Evaluator(library).evaluate(means, Work.QUIET);
        assertThat(two.scalars("r", "a"))
                .filteredOn(x -> x.what().equals("outside of b"))
                .hasSize(1);
        assertThat(two.scalars("r2", "a"))
                .filteredOn(x -> x.what().equals("outside of b"))
                .isEqualTo(two.scalars("r", "a").stream()
                        .filter(x -> x.what().equals("outside of b"))
                        .toList());
        // Others that look up the same places have the same share, whoever was first.
        Study both = study(List.of(q("q", "T - T of b", ""), q("s", "(T of b) - T", "")), reading)
                .withReadings(l -> List.of(
                        reading,
                        new Reading("r2", "r2", "", new ProfileOf("line", "s")),
                        new Reading("r3", "r3", "", new ProfileOf("line", "q"))));
        Results all = new Evaluator(library).evaluate(both, Work.QUIET);
        for (String id : List.of("r", "r2", "r3")) {
            assertThat(all.scalars(id, "a"))
                    .as(id)
                    .filteredOn(x -> x.what().equals("outside of b"))
                    .singleElement()
                    .satisfies(x -> assertThat(x.estimate().value()).isCloseTo(3 / 7.0, within(1e-12)));
        }
    }

    @Test
    void whatStandsInFilesIsAQuantityWithoutBeingDefined() {
        for (var one : Map.of("T", "T", "u.x", "u.x", "norm(u)", "norm(u)", "\"T\"", "T", "u.swirl", "u.swirl")
                .entrySet()) {
            Outcome o = outcome(List.of(), new Reading("r", "r", "", new ProfileOf("line", one.getKey())), "a");
            Outcome defined = outcome(
                    List.of(q("q", one.getValue(), "")), new Reading("r", "r", "", new ProfileOf("line", "q")), "a");
            assertThat(((Profile) o).value()).as(one.getKey()).isEqualTo(((Profile) defined).value());
            assertThat(o.unit()).isEqualTo(defined.unit());
        }
        // A definition of that key stands before the field; in quotes, or by a component, it is the field all the same.
        Quantity twice = q("raw", "2 * raw", "");
        assertThat(value(List.of(twice), "raw")).isCloseTo(2 * 0.7, within(1e-12));
        assertThat(value(List.of(twice), "\"raw\"")).isCloseTo(0.7, within(1e-12));
        assertThat(value(List.of(q("u", "2 * u", "")), "u.y")).isCloseTo(-0.1, within(1e-12));
        Outcome none = outcome(List.of(), new Reading("r", "r", "", new ProfileOf("line", "Tt")), "a");
        assertThat(((Outcome.Absent) none).reason())
                .contains("no quantity and no field \"Tt\"")
                .contains("T, u, p, raw");
    }

    private static double value(List<Quantity> quantities, String key) {
        Outcome o = outcome(quantities, new Reading("r", "r", "", new ProfileOf("line", key)), "a");
        return ((Profile) o).value()[0];
    }

    /** The frame's directions are y, z and x of space. */
    @Test
    void aWholeVectorOrTensorInAFrameIsTurned() {
        along("(u in tilted).x", 1e-12, p -> -p[0]);
        along("(u in tilted).y", 1e-12, p -> 3.0);
        along("component(u in tilted, 3)", 1e-12, p -> p[1]);
        along("norm(u in tilted) - norm(u)", 1e-12, p -> 0.0);
        along("dot(turned, turned) - dot(u, u)", 1e-12, p -> 0.0, q("turned", "u in tilted", ""));
        along("turned.x + turned.y", 1e-12, p -> -p[0] + 3, q("turned", "u in tilted", ""));
        // A vector of space along the frame's first direction, from numbers.
        along("dot(u, [1, 0, 0] in tilted)", 1e-12, p -> -p[0]);
        // t.ij = u_i u_j, turned: products of what is turned are products of the frame's components.
        Quantity t = q("t", "outer(u, u) in tilted", "");
        along("t.xy", 1e-12, p -> -p[0] * 3, t);
        along("dot(t, [1, 0, 0]).z", 1e-12, p -> p[1] * -p[0], t);
        along("trace(t) - dot(u, u)", 1e-12, p -> 0.0, t);
        along("det(t + identity() * 1 \"m2/s2\") - det(outer(u, u) + identity() * 1 \"m2/s2\")", 1e-9, p -> 0.0, t);
        // What is computed elsewhere comes back as it stands in space, and is turned once.
        along("(mean(u over all) in tilted).y", 1e-9, p -> 3.0);
        along("(grad(T) in tilted).x", 1e-9, p -> 2.0);
        along("(u of b in tilted).x", 1e-9, p -> -p[0]);
        along("(u at 1 in tilted).y", 1e-9, p -> 3.0);
    }

    @Test
    void aFlowOfAVectorInAFrameIsRefusedHoweverItCameThere() {
        for (String formula : List.of(
                "2 * (u in tilted)",
                "(u in tilted) of b",
                "(u in tilted) at 1",
                "mean(u in tilted over all)",
                "dot(outer(u, u) in tilted, [1, 0, 0])")) {
            assertThat(flow(formula)).as(formula).isInstanceOfSatisfying(Outcome.Absent.class, a -> assertThat(
                            a.reason())
                    .contains("taken in a frame")
                    .contains("as it stands in space"));
        }
        // Numbers of such a vector may stand before one of space, and brackets make one of space.
        for (String formula : List.of("norm(u in tilted) * [0, 0, 1]", "(u in tilted).x * u", "[0, 0, 1] in tilted")) {
            assertThat(flow(formula)).as(formula).isNotInstanceOf(Outcome.Absent.class);
        }
    }

    private Outcome flow(String formula) {
        var flow = new lane.measure.Flow("turned", 1, "1", lane.measure.Flow.Carried.NOTHING, lane.mesh.Axis.Z);
        return outcome(
                List.of(q("turned", formula, "")), new Reading("r", "r", "", new TallyOf(List.of("skin"), flow)), "a");
    }
}
