package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.ledger.Ledger;
import lane.measure.Area;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/**
 * The lines of a ledger against exact numbers: a cube of a metre with T = 300 K + 10 x, shown in degrees; a theory that is half a
 * degree above it at x = 0 and on it at x = 1; and a balance of three numbers.
 */
class LedgerTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);

    private static class Memory implements Library {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            double[] t = new double[MESH.nodeCount()];
            for (int i = 0; i < t.length; i++) {
                t[i] = 300 + 10 * MESH.xyz()[3 * i];
            }
            return new Run(
                    MESH,
                    List.of(new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t))),
                    List.of(new PartBuilder(MESH).whole("skin")),
                    List.of(),
                    List.of(),
                    List.of(),
                    0,
                    Stated.NOTHING);
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            throw new LaneException("There is no table here.");
        }

        @Override
        public Mesh sheet(String file) {
            throw new LaneException("There is no sheet here.");
        }
    }

    static final Study STUDY = Study.empty("s")
            .withDatum("theory")
            .withSources(l -> List.of(
                    new Source.Simulation("a", "fine", "a", List.of(), "", ""),
                    new Source.Reference(
                            "theory",
                            "theory",
                            Source.Kind.THEORY,
                            List.of(),
                            Map.of(),
                            List.of(
                                    new Curve.ByFormula("line", "300.5 + 9.5 * s", "K"),
                                    new Curve.HandValue("mean", 31, "degC", 0.25, "")))))
            .withUnits(l -> List.of(new FieldUnit("T", "K", true)))
            .withQuantities(l -> List.of(new Quantity("t", "temperature", "T", "degC", "")))
            .withStations(l -> List.of(
                    new Station(
                            "x",
                            "along x",
                            new Line(
                                    new Point(0, 0.5, 0.5),
                                    new Point(1, 0.5, 0.5),
                                    new Sampling.Even(5),
                                    Abscissa.ARC)),
                    new Station(
                            "out",
                            "outside",
                            new Line(new Point(0, 9, 9), new Point(1, 9, 9), new Sampling.Even(5), Abscissa.ARC)),
                    new Station("skin", "skin", new OnPart("skin"))))
            .withReadings(l -> List.of(
                    new Reading("line", "T along x", "", new ProfileOf("x", "t")),
                    new Reading("mean", "mean T", "", new TallyOf(List.of("skin"), new Mean("t"))),
                    new Reading("none", "T outside", "", new ProfileOf("out", "t")),
                    new Reading(
                            "b",
                            "areas",
                            "cm2",
                            new BalanceOf(
                                    List.of(
                                            new Term("all", 1, List.of("skin"), new Area()),
                                            new Term("again", -1, List.of("skin"), new Area())),
                                    List.of(),
                                    "outwards"))))
            .withChecks(l -> List.of(
                    new Check("c1", "line", Norm.L1, Scale.ABSOLUTE, 0.2, "", List.of("a")),
                    new Check("c2", "mean", Norm.L2, Scale.ABSOLUTE, 5, "", List.of("a")),
                    new Check("c3", "none", Norm.L2, Scale.RANGE, 0.1, "", List.of("a"))));

    static final Results RESULTS = evaluated(STUDY);

    static Results evaluated(Study study) {
        return new Evaluator(new Memory() {
                    @Override
                    public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                        Run run = super.run(source, moment, work);
                        return study.units().isEmpty() ? unitless(run) : run;
                    }
                })
                .evaluate(study, Work.QUIET);
    }

    private static Run unitless(Run run) {
        return new Run(
                run.mesh(),
                run.fields().stream()
                        .map(f -> new Field("feucht", f.at(), 1, Unit.UNKNOWN, f.values()))
                        .toList(),
                run.parts(),
                List.of(),
                List.of(),
                List.of(),
                0,
                Stated.NOTHING,
                new Object());
    }

    private static final Ledger LEDGER = Ledger.of(RESULTS);

    private static Ledger.Line line(String stop, String item, String what, String lane) {
        List<Ledger.Line> found = LEDGER.lines().stream()
                .filter(l -> l.stop().equals(stop)
                        && l.item().equals(item)
                        && l.what().startsWith(what)
                        && l.lane().equals(lane))
                .toList();
        assertThat(found)
                .as(stop + " " + item + " " + what + " " + lane + " in " + LEDGER.lines())
                .hasSize(1);
        return found.getFirst();
    }

    @Test
    void linesAreNumberedInTheOrderOfTheStudy() {
        List<Ledger.Line> lines = LEDGER.lines();
        for (int i = 0; i < lines.size(); i++) {
            assertThat(lines.get(i).id()).isEqualTo("N" + (i + 1));
        }
        assertThat(lines.stream().map(Ledger.Line::item).distinct())
                .containsExactly("T along x", "mean T", "T outside", "areas");
        int readings =
                (int) lines.stream().filter(l -> l.stop().equals("reading")).count();
        assertThat(lines.subList(readings, lines.size())).allMatch(l -> l.stop().equals("check"));
    }

    @Test
    void aProfileGivesItsLeastAndGreatestInTheUnitShown() {
        assertThat(line("reading", "T along x", "least", "fine").value()).isCloseTo(26.85, within(1e-9));
        assertThat(line("reading", "T along x", "greatest", "fine").value()).isCloseTo(36.85, within(1e-9));
        assertThat(line("reading", "T along x", "least", "theory").value()).isCloseTo(27.35, within(1e-9));
        assertThat(line("reading", "T along x", "least", "fine").remark()).contains("5 of 5 samples");
        assertThat(line("reading", "T along x", "least", "fine").trail().steps())
                .isNotEmpty();
    }

    /** An uncertainty is a difference: a quarter of a degree stays one. */
    @Test
    void aTallyHasItsUncertaintyAsADifference() {
        Ledger.Line own = line("reading", "mean T", "tally", "fine");
        assertThat(own.value()).isCloseTo(31.85, within(1e-9));
        assertThat(own.uncertainty()).isNaN();
        Ledger.Line hand = line("reading", "mean T", "tally", "theory");
        assertThat(hand.value()).isCloseTo(31, within(1e-9));
        assertThat(hand.uncertainty()).isCloseTo(0.25, within(1e-12));
    }

    @Test
    void aDifferenceOfTemperaturesIsADifference() {
        Ledger.Line d = line("check", "mean T", "difference from theory", "fine");
        assertThat(d.value()).isCloseTo(0.85, within(1e-9));
        assertThat(d.verdict()).isEqualTo("within");
        assertThat(d.remark()).isNotBlank();
    }

    @Test
    void aCurveHasItsNormAndItsLargestDifferenceWithThePlace() {
        // The difference falls evenly from 0.5 to 0: its mean magnitude is 0.25, more than 0.2.
        Ledger.Line l1 = line("check", "T along x", "L1 of difference from theory", "fine");
        assertThat(l1.value()).isCloseTo(0.25, within(1e-9));
        assertThat(l1.verdict()).isEqualTo("out");
        Ledger.Line most = line("check", "T along x", "Linf of difference", "fine");
        assertThat(most.remark()).isEqualTo("at 0 mm, less than the datum there");
        assertThat(most.value()).isCloseTo(0.5, within(1e-9));
        assertThat(most.relative()).isCloseTo(0.5 / 9.5, within(1e-9));
        assertThat(most.verdict()).isEmpty();
    }

    @Test
    void aBalanceGivesItsTermsAndTheResidual() {
        assertThat(line("reading", "areas", "term all", "fine").value()).isCloseTo(60_000, within(1e-6));
        assertThat(line("reading", "areas", "term again", "fine").value()).isCloseTo(-60_000, within(1e-6));
        Ledger.Line rest = line("reading", "areas", "residual", "fine");
        assertThat(rest.value()).isCloseTo(0, within(1e-6));
        assertThat(rest.relative()).isCloseTo(0, within(1e-12));
        assertThat(rest.unit()).isEqualTo("cm2");
        assertThat(rest.remark()).contains("largest term");
    }

    @Test
    void whatIsAbsentIsALineWithItsReason() {
        Ledger.Line none = line("reading", "areas", "", "theory");
        assertThat(none.value()).isNaN();
        assertThat(none.remark()).isNotBlank();
        Ledger.Line verdict = line("check", "T outside", "verdict", "");
        assertThat(verdict.verdict()).isEqualTo("no data");
        assertThat(verdict.value()).isNaN();
        assertThat(verdict.remark()).isNotBlank();
    }
}
