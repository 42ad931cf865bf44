package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Extreme;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.ColumnUncertainty;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Box;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/**
 * Formulas that take numbers of a theory or a measurement, {@code T of theory}: a box of 1 x 1 x 1 m with T = 300 + x + 2 y
 * at its nodes at time 2, against T = 300 + k x of a theory and five points of a rig along a line.
 */
class OfReferencesTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 1, 1}, 0, 0);
    private static final Run RUN = run();
    private static final Run BARE = RUN.with(List.of(RUN.fields().getFirst()), RUN.parts(), List.of(), Stated.NOTHING);
    private final Map<String, Table> tables = new LinkedHashMap<>(Map.of(
            "rig.csv",
            table(new double[] {0, 0.2, 0.4, 0.6, 0.8}, new double[] {27, 28, 30, 29, 27}),
            "rig2.csv",
            table(new double[] {0, 1}, new double[] {0, 0})));

    private static Table table(double[] x, double[] t) {
        return new Table(
                List.of("s", "T"), List.of("m", "degC"), List.of(x, t), "", new Provenance.Input("rig.csv", "0", 1));
    }

    private static Run run() {
        double[] x = MESH.xyz();
        double[] t = new double[MESH.nodeCount()];
        for (int i = 0; i < t.length; i++) {
            t[i] = 300 + x[3 * i] + 2 * x[3 * i + 1];
        }
        return new Run(
                MESH,
                List.of(
                        new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t)),
                        new Field("only", Field.At.NODE, 1, Unit.of("K"), Values.of(t))),
                List.of(new PartBuilder(MESH).whole("skin")),
                List.of(),
                List.of(),
                List.of(2.0),
                2,
                Stated.NOTHING);
    }

    private final Library library = new Library() {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            return source.id().equals("bare") ? BARE : RUN;
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            return tables.get(file);
        }
    };

    private static final Station LINE = new Station(
            "line",
            "line",
            new Line(new Point(0, 0.5, 0.5), new Point(1, 0.5, 0.5), new Sampling.Even(11), Abscissa.ARC));
    private static final Station CROSS = new Station(
            "cross",
            "cross",
            new Line(new Point(0.5, 0, 0.5), new Point(0.5, 1, 0.5), new Sampling.Even(11), Abscissa.ARC));

    private static Curve.ByFormula says(String reading, String formula, String unit) {
        return new Curve.ByFormula(reading, formula, unit);
    }

    private Outcome outcome(String formula, Reading asked, Curve... theory) {
        return outcome(formula, asked, "run", theory);
    }

    private Outcome outcome(String formula, Reading asked, String lane, Curve... theory) {
        return new Evaluator(library)
                .evaluate(study(formula, asked, theory), Work.QUIET)
                .outcome(asked.id(), lane);
    }

    private static Study study(String formula, Reading asked, Curve... theory) {
        List<Reading> readings = new ArrayList<>(List.of(
                new Reading("along", "T along the line", "", new ProfileOf("line", "t")),
                new Reading("across", "T across", "", new ProfileOf("cross", "t")),
                new Reading("heat", "heat", "", new TallyOf(List.of("skin"), new Mean("t")))));
        readings.add(asked);
        return Study.empty("s")
                .withSources(l -> new ArrayList<>(List.of(
                        new Source.Simulation("run", "run", "a", List.of(), "", "f"),
                        new Source.Simulation("bare", "bare run", "a", List.of(), "", "f"),
                        new Source.Reference(
                                "th", "theory", Source.Kind.THEORY, List.of(), Map.of("k", 3.0), List.of(theory)),
                        new Source.Reference(
                                "rig",
                                "rig",
                                Source.Kind.MEASUREMENT,
                                List.of("rig.csv"),
                                Map.of(),
                                List.of(
                                        new Curve.Columns(
                                                "along", "rig.csv", "s", "m", "T", "degC", ColumnUncertainty.NONE),
                                        new Curve.HandValue("heat", 29, "degC", 0.5, ""))))))
                .withQuantities(l -> List.of(
                        new Quantity("t", "temperature", "T", "", ""),
                        new Quantity("rise", "rise", "temperature - 300 \"K\"", "", ""),
                        new Quantity("q", "q", formula, "", "")))
                .withStations(l -> List.of(
                        LINE,
                        CROSS,
                        new Station("skin", "skin", new OnPart("skin")),
                        new Station("all", "all", new Region(new Within.All()))))
                .withReadings(l -> readings);
    }

    private double[] along(String formula, Curve... theory) {
        Outcome o = outcome(formula, new Reading("r", "r", "", new ProfileOf("line", "q")), theory);
        assertThat(o).as(formula + ": " + o).isInstanceOf(Profile.class);
        return ((Profile) o).value();
    }

    private double number(String formula, Measure measure, String station, Curve... theory) {
        Outcome o = outcome(formula, new Reading("r", "r", "", new TallyOf(List.of(station), measure)), theory);
        assertThat(o).as(formula + ": " + o).isInstanceOf(Tally.class);
        return ((Tally) o).value();
    }

    private String trouble(String formula, Curve... theory) {
        Outcome o = outcome(formula, new Reading("r", "r", "", new ProfileOf("line", "q")), theory);
        assertThat(o).as(formula).isInstanceOf(Outcome.Absent.class);
        return ((Outcome.Absent) o).reason();
    }

    @Test
    void aTheorysFormulaCountsAtEveryPlace() {
        var theory = says("along", "300 + k * x", "K");
        // By the quantity's name, by its key, and by the name of the reading.
        for (String name : List.of("temperature", "t", "T", "\"T along the line\"")) {
            double[] d = along("temperature - " + name + " of theory", theory);
            for (int i = 0; i <= 10; i++) {
                assertThat(d[i]).isCloseTo(1 - 2 * i / 10.0, within(1e-12));
            }
        }
        // Other quantities are made of what it says, and its constants are known.
        assertThat(along("rise of theory", theory)[5]).isCloseTo(1.5, within(1e-12));
        assertThat(along("k of theory", theory)[3]).isCloseTo(3, within(1e-15));
        assertThat(along("(temperature - 300 \"K\") of theory", theory)[5]).isCloseTo(1.5, within(1e-12));
        // Over a region and a surface at quadrature points: of (x + 2 y - 3 x)^2 and of (2 y - 2 x)^2, not of means.
        assertThat(number("(temperature - temperature of theory) ^ 2", new Integral("q"), "all", theory))
                .isCloseTo(4 * (2 / 3.0 - 0.5), within(1e-10));
        double faces = 2 * 4 * (2 / 3.0 - 0.5) + 2 * 4 / 3.0 + 2 * 4 / 3.0;
        assertThat(number("(temperature - temperature of theory) ^ 2", new Integral("q"), "skin", theory))
                .isCloseTo(faces, within(1e-9));
        // A theory's formula is not interpolated: its curvature within a cell counts.
        assertThat(number("temperature of theory", new Mean("q"), "all", says("along", "300 + x ^ 4", "K")))
                .isCloseTo(300.2, within(2e-4));
    }

    @Test
    void theTimeIsThatOfTheRunAndTheGradientIsThatOfTheFormula() {
        assertThat(along("temperature of theory", says("along", "300 + time", "K"))[0])
                .isCloseTo(302, within(1e-12));
        assertThat(along("grad(temperature of theory).x", says("along", "300 + 7 * x", "K"))[5])
                .isCloseTo(7, within(1e-10));
    }

    @Test
    void aFormulaAlongTheLineAndOneOfSeveralCountOnTheirStations() {
        double[] own = along("temperature of theory", says("along", "300 + s ^ 2", "K"));
        assertThat(own[5]).isCloseTo(300.25, within(1e-12));
        // Two formulas: on the line the first, across the second, elsewhere neither.
        Curve[] two = {says("along", "300 + x", "K"), says("across", "17 + y", "degC")};
        assertThat(along("temperature of theory", two)[2]).isCloseTo(300.2, within(1e-12));
        Outcome across = outcome("temperature of theory", new Reading("r", "r", "", new ProfileOf("cross", "q")), two);
        assertThat(((Profile) across).value()[2]).isCloseTo(290.35, within(1e-12));
        Outcome everywhere = outcome(
                "temperature of theory",
                new Reading("r", "r", "", new TallyOf(List.of("all"), new Extreme("q", true))),
                two);
        assertThat(((Tally) everywhere).value()).isCloseTo(301, within(1e-12));
    }

    @Test
    void aMeasurementCountsAlongItsLineBetweenItsPoints() {
        double[] d = along("temperature - temperature of rig");
        double[] rig = {27, 27.5, 28, 29, 30, 29.5, 29, 28, 27};
        for (int i = 0; i < rig.length; i++) {
            assertThat(d[i]).isCloseTo(301 + i / 10.0 - 273.15 - rig[i], within(1e-9));
        }
        assertThat(d[9]).isNaN();
        assertThat(d[10]).isNaN();
        // Nothing is known of it elsewhere, but where the lines cross.
        Outcome o = outcome("temperature of rig", new Reading("r", "r", "", new ProfileOf("cross", "q")));
        double[] v = ((Profile) o).value();
        for (int i = 0; i < v.length; i++) {
            assertThat(Double.isNaN(v[i])).isEqualTo(i != 5);
        }
        // Single numbers are the same everywhere.
        assertThat(along("heat of rig - 300 \"K\"")[0]).isCloseTo(2.15, within(1e-12));
        assertThat(outcome("temperature of rig", new Reading("r", "r", "", new ProfileOf("line", "q")))
                        .trail()
                        .toString())
                .contains("rig: table rig.csv");
    }

    @Test
    void whatAReferenceDoesNotSayIsOneSentence() {
        assertThat(trouble("p of theory", says("along", "300", "K")))
                .contains("theory says nothing about \"p\"; it knows temperature, T along the line, k.");
        assertThat(trouble("(mean(temperature over all)) of theory", says("along", "300", "K")))
                .contains("theory has no mesh to take a mean of");
        assertThat(trouble("grad(temperature) of theory", says("along", "300", "K")))
                .contains("theory has no mesh");
        assertThat(trouble("temperature of nobody"))
                .contains("no lane \"nobody\"")
                .contains("theory, rig");
        assertThat(trouble("temperature of theory", says("along", "300", ""))).contains("unit");
        assertThat(trouble("temperature of theory", says("along", "300", "K"), says("across", "5", "Pa")))
                .contains("gives it in");
    }

    @Test
    void aRunMayLackWhatAnotherLaneHas() {
        Outcome o = outcome("only of run", new Reading("r", "r", "", new ProfileOf("line", "q")), "bare");
        assertThat(((Profile) o).value()[0]).isCloseTo(301, within(1e-12));
    }

    /** What is looked up beyond the place counts wherever it stands: no number stays as it was. */
    @Test
    void changesOfWhatIsLookedUpReachIntegralsToo() {
        var evaluator = new Evaluator(library);
        Reading asked = new Reading("r", "r", "", new TallyOf(List.of("skin"), new Mean("q")));
        Study s = study("temperature of theory - mean(T over all)", asked, says("along", "300 + x", "K"));
        assertThat(tally(evaluator, s)).isCloseTo(300.5 - 301.5, within(1e-10));
        // The theory's formula, a constant, the place of a mean.
        Study formula = study("temperature of theory - mean(T over all)", asked, says("along", "310 + x", "K"));
        assertThat(tally(evaluator, formula)).isCloseTo(310.5 - 301.5, within(1e-10));
        Study place = s.withStations(l -> {
            l.removeIf(x -> x.id().equals("all"));
            l.add(new Station(
                    "all",
                    "all",
                    new Region(new Within.InBox(new Box(new Point(0, 0, 0), new Point(1, 0.25, 1), null)))));
            return l;
        });
        assertThat(tally(evaluator, place)).isCloseTo(300.5 - 300.75, within(1e-10));
        Study table = study("table(rig, 0 \"m\")", asked);
        assertThat(tally(evaluator, table)).isCloseTo(300.15, within(1e-10));
        tables.put("rig.csv", table(new double[] {0, 2}, new double[] {7, 9}));
        assertThat(tally(evaluator, table)).isCloseTo(280.15, within(1e-10));
    }

    private static double tally(Evaluator evaluator, Study study) {
        Outcome o = evaluator.evaluate(study, Work.QUIET).outcome("r", "run");
        assertThat(o).as(o.toString()).isInstanceOf(Tally.class);
        return ((Tally) o).value();
    }

    /** A station that no formula looks at costs nothing to move. */
    @Test
    void anEditThatIsNotLookedAtComputesNothingAgain() {
        var evaluator = new Evaluator(library);
        Reading asked = new Reading("r", "r", "", new ProfileOf("line", "q"));
        Study s = study("temperature - mean(T over all)", asked, says("along", "300 + x", "K"));
        evaluator.evaluate(s, Work.QUIET);
        long before = evaluator.computed();
        Study next = s.withStations(l -> {
            l.add(new Station("p", "tap", new Points(List.of(new Point(0.5, 0.5, 0.5)))));
            return l;
        });
        evaluator.evaluate(next, Work.QUIET);
        // The placement of the new points on the mesh of both runs.
        assertThat(evaluator.computed() - before).isEqualTo(1);
    }

    @Test
    void placesAreFoundAgainOnTheirStations() {
        var axis = Axis.Z;
        var path = new Arc(Axis.Z, 2, 0.5, 150, 330, new Sampling.Even(5), Abscissa.ANGLE);
        var arc = new Station("a", "a", path);
        var at = lane.station.PathSamples.of(path);
        double[][] p = split(at.xyz());
        var found = lane.station.Locus.of(arc, axis).find(p[0], p[1], p[2], at.size());
        double[] want = Abscissa.ANGLE.of(at.arc(), path.length(), at.xyz(), axis);
        for (int i = 0; i < at.size(); i++) {
            assertThat(found.arc()[i]).isCloseTo(at.arc()[i], within(1e-9));
            assertThat(found.abscissa()[i]).isCloseTo(want[i], within(1e-9));
        }
        var off = lane.station.Locus.of(arc, axis)
                .find(new double[] {2, 0, 1.9}, new double[] {0, -2, 0}, new double[] {0.5, 0.5, 0.5}, 3);
        assertThat(off.arc()[0]).isNaN();
        assertThat(off.arc()[1]).isCloseTo(2 * Math.toRadians(120), within(1e-9));
        assertThat(off.arc()[2]).isNaN();
        var bent = new Station(
                "b",
                "b",
                new Polyline(
                        List.of(new Point(0, 0, 0), new Point(1, 0, 0), new Point(1, 2, 0)),
                        new Sampling.Even(3),
                        Abscissa.FRACTION));
        var on =
                lane.station.Locus.of(bent, axis).find(new double[] {1, 0.5}, new double[] {1, 0.01}, new double[2], 2);
        assertThat(on.abscissa()[0]).isCloseTo(2 / 3.0, within(1e-12));
        assertThat(on.abscissa()[1]).isNaN();
        var shell = new Station("s", "s", new Shell(Axis.Z, 1, 0.0, 1.0, 90));
        var around =
                lane.station.Locus.of(shell, axis).find(new double[] {1, 0}, new double[] {0, 1}, new double[2], 2);
        assertThat(around.abscissa()[0]).isCloseTo(2 * Math.PI, within(1e-12));
        assertThat(around.abscissa()[1]).isCloseTo(Math.PI / 2, within(1e-12));
    }

    private static double[][] split(double[] xyz) {
        double[][] out = new double[3][xyz.length / 3];
        for (int i = 0; i < xyz.length; i++) {
            out[i % 3][i / 3] = xyz[i];
        }
        return out;
    }
}
