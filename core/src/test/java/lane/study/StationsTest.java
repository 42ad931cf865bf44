package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.Difference;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.PartEdit;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.WeightedMean;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Facing;
import lane.station.Isosurface;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Every kind of station in a box of 1 x 2 x 1.5 m where T = x + 10 z and u = (0, 0, 1 + x), against exact answers. */
class StationsTest {
    private static final double[] SIZE = {1, 2, 1.5};
    private static final Run RUN = run(CellShape.HEXAHEDRON);

    private static Run run(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {5, 6, 7}, SIZE, 0, 1);
        double[] t = new double[mesh.nodeCount()];
        double[] u = new double[3 * t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = mesh.xyz()[3 * i] + 10 * mesh.xyz()[3 * i + 2];
            u[3 * i + 2] = 1 + mesh.xyz()[3 * i];
        }
        Run run = new Run(
                mesh,
                List.of(
                        new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t)),
                        new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(u))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
        return Treatment.NONE.with(new PartEdit.Split("skin", 30)).apply(run);
    }

    private static final class Memory implements Library {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            return RUN;
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            throw new LaneException("There is no table here.");
        }

        /** A square of 600 x 600 mm. */
        @Override
        public Mesh sheet(String file) {
            return Mesh.uniform(
                    new double[] {0, 0, 0, 600, 0, 0, 600, 600, 0, 0, 600, 0},
                    CellShape.TRIANGLE,
                    new int[] {0, 1, 2, 0, 2, 3});
        }
    }

    private static Outcome ask(Station station, Reading reading, Curve... theory) {
        return ask(station, reading, "run", theory);
    }

    private static Outcome ask(Station station, Reading reading, String lane, Curve... theory) {
        var study = Study.of(
                "stations",
                new Settings(
                        "", List.of(), Axis.Z, TimeSelector.LAST, List.of(new FieldUnit("T", "K", true)), List.of()),
                List.of(
                        new Source.Simulation("run", "run", "run", List.of(), "", "f"),
                        new Source.Reference(
                                "theory", "theory", Source.Kind.THEORY, List.of(), Map.of(), List.of(theory))),
                List.of(
                        new Quantity("t", "T", "T", Component.ALL, "K"),
                        new Quantity("u", "u", "u", Component.ALL, ""),
                        new Quantity("w", "w", "u", Component.Z, ""),
                        new Quantity("xx", "xx", "x*x", "", "")),
                List.of(),
                List.of(station),
                List.of(reading),
                List.of(),
                Pictures.NONE);
        return new Evaluator(new Memory()).evaluate(study, Work.QUIET).outcome(reading.id(), lane);
    }

    private static double tally(Station station, Measure measure) {
        Outcome o = ask(station, new Reading("r", "r", "", new TallyOf(List.of(station.id()), measure)));
        assertThat(o).as(o.toString()).isInstanceOf(Tally.class);
        return ((Tally) o).value();
    }

    private static Profile profile(Station station) {
        Outcome o = ask(station, new Reading("r", "r", "", new ProfileOf(station.id(), "t")));
        assertThat(o).as(o.toString()).isInstanceOf(Profile.class);
        return (Profile) o;
    }

    private static final Measure FLOW = new Flow("u", 1, "1", Carried.NOTHING, Axis.Z);

    @Test
    void aSectionHasAreaMeanFlowAndExtremes() {
        var plane = new Section(new Point(0, 0, 0.61), new Point(0, 0, 2), null, null);
        var s = new Station("s", "s", plane);
        assertThat(tally(s, new Area())).isCloseTo(2, within(1e-12));
        assertThat(tally(s, new Mean("t"))).isCloseTo(0.5 + 6.1, within(1e-12));
        assertThat(tally(s, FLOW)).isCloseTo(3, within(1e-12));
        assertThat(tally(s.shaped(plane.at(plane.point(), new Point(0, 0, -1))), FLOW))
                .isCloseTo(-3, within(1e-12));
        assertThat(tally(s, new Extreme("t", true))).isCloseTo(7.1, within(1e-12));
        assertThat(tally(s, new Extreme("t", false))).isCloseTo(6.1, within(1e-12));
        // Integral of (x + 6.1)(1 + x) over that of 1 + x.
        assertThat(tally(s, new WeightedMean("t", "u"))).isCloseTo((1.0 / 3 + 7.1 / 2 + 6.1) / 1.5, within(1e-12));
        var limited = new Station(
                "s",
                "s",
                new Section(
                        plane.point(), plane.normal(), new Box(new Point(0.1, 0.2, 0), new Point(0.35, 1.7, 1)), null));
        assertThat(tally(limited, new Area())).isCloseTo(0.25 * 1.5, within(1e-12));
        var three = plane.through(new Point(0, 0, 0.61), new Point(1, 0, 0.61), new Point(0.2, 1, 0.61));
        assertThat(three.normal()).isEqualTo(new Point(0, 0, 1));
        assertThat(tally(s.shaped(three), FLOW)).isCloseTo(3, within(1e-12));
        assertThatThrownBy(() -> plane.through(new Point(0, 0, 0), new Point(1, 1, 1), new Point(3, 3, 3)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("one line");
        assertThat(ask(s.moved(new Point(0, 0, 5)), new Reading("r", "r", "", new TallyOf(List.of("s"), FLOW))))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("outside this run"));
    }

    @Test
    void aSweepOfSectionsIsAProfileAlongItsAxisAndStopsWhereTheRunDoes() {
        var sweep = new Station("s", "s", new Sweep(Axis.Z, 0, 2, 21, 0));
        var reading = new Reading("r", "r", "", new SweepOf("s", new Mean("t")));
        Profile p = (Profile) ask(sweep, reading);
        for (int i = 0; i < 21; i++) {
            assertThat(p.abscissa()[i]).isCloseTo(0.1 * i, within(1e-15));
            if (i <= 15) {
                assertThat(p.value()[i]).isCloseTo(0.5 + i, within(1e-11));
            } else {
                assertThat(p.value()[i]).isNaN();
            }
        }
        assertThat(p.found()).isEqualTo(16);
        // The theory along the same sweep.
        Profile theory = (Profile) ask(sweep, reading, "theory", new Curve.ByFormula("r", "0.5 + 10*s", "K"));
        assertThat(theory.abscissa()).containsExactly(p.abscissa());
        assertThat(theory.value()[7]).isCloseTo(p.value()[7], within(1e-11));
        var axis = new Axis(new Point(0.5, 1, 0), new Point(0, 0, 1));
        Profile rings = (Profile) ask(new Station("s", "s", new Sweep(axis, 0.1, 1.4, 5, 0.3)), reading);
        assertThat(rings.value()[0]).isCloseTo(0.5 + 1, within(1e-6));
    }

    @Test
    void pathsOfAllKindsReadTheFieldAndItsMean() {
        Point a = new Point(0.1, 0.3, 0.2);
        Point b = new Point(0.9, 0.3, 0.2);
        Point c = new Point(0.9, 1.5, 1.2);
        for (Sampling how : List.of(
                new Sampling.Even(301),
                new Sampling.CellExact(),
                new Sampling.Clustered(301, 20, Sampling.Towards.BOTH))) {
            var chain = new Station("s", "s", new Polyline(List.of(a, b, c), how, Abscissa.ARC));
            Profile p = profile(chain);
            double second = c.minus(b).norm();
            for (int i = 0; i < p.size(); i++) {
                double s = p.abscissa()[i];
                double exact = s <= 0.8 ? 0.1 + s + 2 : 0.9 + 10 * (0.2 + (s - 0.8) / second);
                assertThat(p.value()[i]).isCloseTo(exact, within(1e-9));
            }
            double mean = (0.8 * (0.5 + 2) + second * (0.9 + 7)) / (0.8 + second);
            boolean exact = how instanceof Sampling.CellExact;
            assertThat(tally(chain, new Mean("t"))).isCloseTo(mean, within(exact ? 1e-12 : 1e-2));
            assertThat(tally(chain, new Area())).isCloseTo(0.8 + second, within(1e-12));
        }
        var arc = new Station(
                "s",
                "s",
                new Arc(
                        new Axis(new Point(0.5, 1, 0.7), new Point(0, 0, 1)),
                        0.4,
                        0.1,
                        -170,
                        190,
                        new Sampling.Even(361),
                        Abscissa.ARC));
        Profile p = profile(arc);
        assertThat(p.value()[170]).isCloseTo(0.9 + 8, within(1e-12));
        assertThat(tally(arc, new Mean("t"))).isCloseTo(8.5, within(1e-10));
        assertThat(tally(arc, new Extreme("t", false))).isCloseTo(8.1, within(1e-12));
        double[] clustered = profile(new Station(
                        "s",
                        "s",
                        new Line(a, b, new Sampling.Clustered(11, 8, Sampling.Towards.START), Abscissa.FRACTION)))
                .abscissa();
        assertThat((clustered[10] - clustered[9]) / (clustered[1] - clustered[0]))
                .isCloseTo(8, within(1e-9));
        assertThat(clustered[10]).isEqualTo(1);
    }

    @Test
    void pointsAreReadByNumberAndOutsideOnesAreAbsent() {
        var points = new Station(
                "s", "s", new Points(List.of(new Point(0.2, 0.2, 0.2), new Point(5, 5, 5), new Point(0.7, 1.9, 1.4))));
        Profile p = profile(points);
        assertThat(p.value()[0]).isCloseTo(2.2, within(1e-12));
        assertThat(p.value()[1]).isNaN();
        assertThat(p.value()[2]).isCloseTo(14.7, within(1e-12));
        assertThat(p.abscissa()).containsExactly(1, 2, 3);
        assertThat(tally(points, new Mean("t"))).isCloseTo((2.2 + 14.7) / 2, within(1e-12));
    }

    @Test
    void isosurfacesSheetsAndShells() {
        // T = 7 cuts the box where z = 0.7 - x / 10.
        var iso = new Station("s", "s", new Isosurface("t", List.of(7.0)));
        assertThat(tally(iso, new Area())).isCloseTo(2 * Math.hypot(1, 0.1), within(1e-12));
        assertThat(tally(iso, new Mean("t"))).isCloseTo(7, within(1e-12));
        assertThat(tally(new Station("s", "s", new Isosurface("t", List.of(7.0, 8.0))), new Area()))
                .isCloseTo(4 * Math.hypot(1, 0.1), within(1e-12));
        // Upright, half of it outside: x from 0.7 to 1.3.
        var sheet = new Station("s", "s", new Sheet("f", "mm", new Point(0.7, 1, 0.2), new Point(90, 0, 0), false));
        assertThat(tally(sheet, new Area())).isCloseTo(0.3 * 0.6, within(1e-12));
        assertThat(tally(sheet, new Mean("t"))).isCloseTo(0.85 + 5, within(1e-12));
        assertThat(ask(sheet, new Reading("r", "r", "", new TallyOf(List.of("s"), new WeightedMean("t", "u")))))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("No net flow"));
        var flat = new Station("s", "s", new Sheet("f", "mm", new Point(0.2, 0.2, 0.55), null, false));
        assertThat(tally(flat, FLOW)).isCloseTo(0.36 * 1.5, within(1e-12));
        var axis = new Axis(new Point(0.5, 1, 0), new Point(0, 0, 1));
        var shell = new Station("s", "s", new Shell(axis, 0.4, 0.25, 1.25, 30));
        double area = tally(shell, new Area());
        assertThat(area).isCloseTo(2 * Math.PI * 0.4, within(1e-12));
        assertThat(tally(shell, new Mean("t"))).isCloseTo(0.5 + 7.5, within(1e-12));
        assertThat(tally(shell, new Mean("xx"))).isCloseTo(0.25 + 0.4 * 0.4 / 2, within(1e-12));
        var around = new Reading("r", "r", "", new AroundOf("s", "t", Along.MEAN, 72));
        Profile p = (Profile) ask(shell, around);
        for (int i = 0; i < 72; i++) {
            assertThat(p.value()[i]).isCloseTo(0.5 + 0.4 * Math.cos(p.abscissa()[i]) + 7.5, within(2e-5));
        }
        assertThat(p.abscissa()[0]).isCloseTo(Math.toRadians(30), within(1e-12));
        Profile least = (Profile) ask(shell, new Reading("r", "r", "", new AroundOf("s", "t", Along.LEAST, 72)));
        assertThat(least.value()[10]).isCloseTo(p.value()[10] - 5, within(2e-5));
    }

    @Test
    void aShellIsReadAtStatedAnglesAndPositions() {
        var axis = new Axis(new Point(0.5, 1, 0), new Point(0, 0, 1));
        var shell = new Station("s", "s", new Shell(axis, 0.4, 0.25, 1.25, 30));
        var asked = new AroundOf("s", "t", Along.AT, 0, List.of(217.0, -30.0), "deg", List.of(0.3, 1.1));
        Profile at = (Profile) ask(shell, new Reading("r", "r", "", asked));
        assertThat(at.abscissaUnit().label()).isEqualTo("deg");
        double[] angle = {217, -30, Double.NaN, 217, -30};
        double[] z = {0.3, 0.3, Double.NaN, 1.1, 1.1};
        for (int i = 0; i < 5; i++) {
            double a = Math.toRadians(angle[i]);
            double x = 0.5 + 0.4 * Math.cos(a);
            assertThat(at.abscissa()[i]).isEqualTo(a, within(1e-12));
            assertThat(at.value()[i]).isEqualTo(x + 10 * z[i], within(1e-12));
            assertThat(Arrays.copyOfRange(at.places(), 3 * i, 3 * i + 3))
                    .usingComparatorWithPrecision(1e-12)
                    .containsExactly(x, 1 + 0.4 * Math.sin(a) + 0 * z[i], z[i]);
        }
        // A theory answers at the same places.
        var reading = new Reading("r", "r", "", asked);
        Profile theory = (Profile) ask(shell, reading, "theory", new Curve.ByFormula("r", "x + 10 * z", "K"));
        Difference d = Difference.of(at, theory);
        assertThat(d.value()).hasSize(4);
        assertThat(d.linf()).isLessThan(1e-12);
        // At one angle the curve goes along the axis.
        Profile up = (Profile) ask(
                shell,
                new Reading("r", "r", "", asked.angles(List.of(90.0), "deg").taking(Along.AT, List.of(0.2, 0.9, 1.4))));
        assertThat(up.abscissaName()).isEqualTo("length along the axis");
        assertThat(up.abscissa()).containsExactly(0.2, 0.9, 1.4);
        assertThat(up.value()).usingComparatorWithPrecision(1e-12).containsExactly(2.5, 9.5, 14.5);
        // A mean belongs to the middle of what it goes over, a least value to its place.
        Profile mean = (Profile) ask(
                shell,
                new Reading("r", "r", "", asked.taking(Along.MEAN, List.of()).angles(List.of(3.7), "rad")));
        assertThat(mean.value()[0]).isCloseTo(8 + 0.4 * Math.cos(3.7), within(2e-5));
        assertThat(mean.places()[2]).isCloseTo(0.75, within(1e-9));
        Profile least = (Profile) ask(shell, new Reading("r", "r", "", new AroundOf("s", "t", Along.LEAST, 8)));
        assertThat(least.places()[2]).isCloseTo(0.25, within(1e-9));
        assertThat(ask(shell, new Reading("r", "r", "", asked.taking(Along.AT, List.of(7.0)))))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("give others"));
        assertThatThrownBy(() -> asked.taking(Along.AT, List.of())).hasMessageContaining("at least one position");
        assertThatThrownBy(() -> asked.taking(Along.MEAN, List.of(1.0))).hasMessageContaining("has no positions");
        assertThatThrownBy(() -> asked.angles(List.of(1.0), "gon")).hasMessageContaining("\"deg\" or \"rad\"");
    }

    @Test
    void pointsAreDrawnAgainstWhatStandsBesideThem() {
        var chord = new Points.Beside("chord", "cm", List.of(5.0, 2.5, 7.5));
        var all = new Points(
                List.of(new Point(0.2, 0.2, 0.2), new Point(0.7, 1.9, 1.4), new Point(0.5, 0.5, 0.5)),
                null,
                "rake.csv",
                List.of(chord),
                "chord");
        Profile p = profile(new Station("s", "s", all));
        assertThat(p.abscissaName()).isEqualTo("chord");
        assertThat(p.abscissaUnit().label()).isEqualTo("cm");
        assertThat(p.abscissa()).usingComparatorWithPrecision(1e-15).containsExactly(0.05, 0.025, 0.075);
        assertThat(all.without(1).beside().getFirst().values()).containsExactly(5.0, 7.5);
        assertThat(all.at(List.of(new Point(0, 0, 0))).beside()).isEmpty();
        assertThat(all.along(null).drawn().word()).isEqualTo("number of the point");
        assertThatThrownBy(() -> all.against("span")).hasMessageContaining("there is chord");
        assertThatThrownBy(() -> new Points(List.of(new Point(0, 0, 0)), null, "", List.of(chord), ""))
                .hasMessageContaining("Beside 1 points stand 3 numbers of \"chord\"");
        assertThatThrownBy(() -> new Points.Beside("a", "flurb", List.of())).hasMessageContaining("flurb");
    }

    @Test
    void theShareOfASurfaceThatLiesInTheRunIsANumber() {
        var reading = new Reading("r", "r", "", new TallyOf(List.of("s"), new Area()));
        var sheet = new Sheet("f", "mm", new Point(0.7, 1, 0.2), new Point(90, 0, 0), false);
        Tally half = (Tally) ask(new Station("s", "s", sheet), reading);
        assertThat(half.scalars()).extracting("what").containsExactly("tally", "coverage");
        assertThat(half.scalars().get(1).estimate().value()).isCloseTo(0.5, within(1e-12));
        assertThat(half.scalars().get(1).remark())
                .isEqualTo("50 % of the surface lies in the run; nothing is added for the rest");
        assertThat(half.note()).contains("only 50 % of it in the run");
        assertThat(half.trail().steps())
                .anySatisfy(s -> assertThat(s.settings()).containsKey("coverage"));
        var shell = new Shell(new Axis(new Point(0.5, 1, 0), new Point(0, 0, 1)), 0.02, 0.5, 2.5, 0);
        assertThat(((Tally) ask(new Station("s", "s", shell), reading)).coverage())
                .isCloseTo(0.5, within(1e-9));
        // A plane without end is asked for as far as the run goes.
        var plane = new Section(new Point(0, 0, 0.61), new Point(0, 0, 2), null, null);
        assertThat(((Tally) ask(new Station("s", "s", plane), reading)).coverage())
                .isEqualTo(1);
    }

    @Test
    void aFlowThroughASectionSaysWhichWayIsPositive() {
        var reading = new Reading("r", "r", "", new TallyOf(List.of("s"), FLOW));
        var plane = new Section(new Point(0, 0, 0.61), new Point(0, 0, -2), null, null);
        assertThat(((Tally) ask(new Station("s", "s", plane), reading)).sign())
                .isEqualTo("positive passes along the surface's normal, -z");
        Tally skin = (Tally) ask(new Station("s", "s", new OnPart("skin 1")), reading);
        assertThat(skin.sign()).isEqualTo("positive leaves the run");
        // A factor without a unit is a number.
        var plain = new Flow("u", 3, "", Carried.NOTHING, Axis.Z);
        assertThat(tally(new Station("s", "s", plane), plain)).isCloseTo(-9, within(1e-12));
    }

    @Test
    void regionsTakeCellsByPlaceByPartAndByValue() {
        assertThat(tally(new Station("s", "s", new Region(new Within.All())), new Area()))
                .isCloseTo(3, within(1e-12));
        assertThat(tally(new Station("s", "s", new Region(new Within.All())), new Mean("t")))
                .isCloseTo(8, within(1e-12));
        assertThat(tally(new Station("s", "s", new Region(new Within.All())), new Integral("w")))
                .isCloseTo(4.5, within(1e-12));
        var half =
                new Station("s", "s", new Region(new Within.InBox(new Box(new Point(0, 0, 0), new Point(1, 1, 1.5)))));
        assertThat(tally(half, new Area())).isCloseTo(1.5, within(1e-12));
        // Cells of which the mean of T is above 14.
        int cells = 0;
        for (int x = 0; x < 5; x++) {
            for (int z = 0; z < 7; z++) {
                cells += (x + 0.5) / 5 + 10 * 1.5 * (z + 0.5) / 7 > 14 ? 6 : 0;
            }
        }
        var hot = new Station("s", "s", new Region(new Within.Above("t", 14)));
        assertThat(tally(hot, new Area())).isCloseTo(3.0 * cells / 210, within(1e-12));
        assertThat(tally(hot, new Extreme("t", true))).isCloseTo(16, within(1e-12));
        assertThat(tally(new Station("s", "s", new Region(new Within.Ball(new Point(0.5, 1, 0.75), 9))), new Area()))
                .isCloseTo(3, within(1e-12));
        String low = RUN.parts().stream()
                .filter(p -> p.surface().bounds()[5] < 1e-9)
                .findFirst()
                .orElseThrow()
                .name();
        assertThat(tally(new Station("s", "s", new Region(new Within.Touching(List.of(low)))), new Area()))
                .isCloseTo(3.0 / 7, within(1e-12));
        assertThat(ask(
                        new Station("s", "s", new Region(new Within.Ball(new Point(9, 9, 9), 1))),
                        new Reading("r", "r", "", new TallyOf(List.of("s"), new Area()))))
                .isInstanceOf(Outcome.Absent.class);
    }

    @Test
    void regionsHoldInMeshesOfAnyShape() {
        for (CellShape shape :
                List.of(CellShape.TETRAHEDRON, CellShape.WEDGE, CellShape.PYRAMID, CellShape.POLYHEDRON)) {
            Run run = run(shape);
            int[] all =
                    java.util.stream.IntStream.range(0, run.mesh().cellCount()).toArray();
            var lens = lane.evaluation.EvaluationContext.of(
                    List.of(new Quantity("t", "T", "T", Component.ALL, "K")), List.of(), Axis.Z);
            assertThat(lane.reading.TallyReader.read(
                                    run, all, new Mean("t"), "all", lens, "", lane.provenance.Provenance.EMPTY)
                            .value())
                    .as(shape.word())
                    .isCloseTo(8, within(1e-12));
        }
    }

    @Test
    void facesOfPartsAreChosenByDirectionAndBox() {
        List<String> all = RUN.parts().stream().map(p -> p.name()).toList();
        var up = new Station(
                "s",
                "s",
                new OnPart(
                        all.getFirst(),
                        new ArrayList<>(all),
                        null,
                        new Box(new Point(-1, -1, 0.01), new Point(2, 3, 1.49))));
        assertThat(tally(up, new Area())).isCloseTo(2 * 3 * 1.5, within(1e-12));
        String top = RUN.parts().stream()
                .filter(p -> p.surface().bounds()[4] > 1.5 - 1e-9)
                .findFirst()
                .orElseThrow()
                .name();
        var facing = new Station("s", "s", new OnPart(top, List.of(), new Facing(new Point(0, 0, 1), 10), null));
        assertThat(tally(facing, FLOW)).isCloseTo(3, within(1e-12));
        var away = new Station("s", "s", new OnPart(top, List.of(), new Facing(new Point(0, 0, -1), 10), null));
        assertThat(ask(away, new Reading("r", "r", "", new TallyOf(List.of("s"), FLOW))))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("No face"));
    }

    @Test
    void aCutCurveHasBranchesAgainstTheirOwnExtent() {
        var cut =
                new CutCurve(new Point(0, 0.93, 0), new Point(0, 1, 0), List.of(), Extent.SHARE, new Point(1, 0, 0), 0);
        var curve = new Station("s", "s", cut);
        Profile p = profile(curve);
        for (int i = 0; i < p.size(); i++) {
            if (Double.isFinite(p.value()[i])) {
                assertThat(p.abscissa()[i]).isBetween(0.0, 1.0);
            }
        }
        // Six parts, of which four are met by the plane.
        assertThat(p.note().split(";")).hasSize(4);
        String low = RUN.parts().stream()
                .filter(q -> q.surface().bounds()[5] < 1e-9)
                .findFirst()
                .orElseThrow()
                .name();
        var one = new Station(
                "s",
                "s",
                new CutCurve(cut.point(), cut.normal(), List.of(low), Extent.COORDINATE, new Point(1, 0, 0), 1));
        Profile line = profile(one);
        for (int i = 0; i < line.size(); i++) {
            assertThat(line.value()[i]).isCloseTo(line.abscissa()[i], within(1e-12));
            assertThat(i == 0 || line.abscissa()[i] > line.abscissa()[i - 1]).isTrue();
        }
        assertThat(ask(
                        new Station(
                                "s",
                                "s",
                                new CutCurve(
                                        cut.point(), cut.normal(), List.of(low), Extent.LENGTH, new Point(1, 0, 0), 3)),
                        new Reading("r", "r", "", new ProfileOf("s", "t"))))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("1 branches"));
    }
}
