package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.base.Work;
import lane.check.AgreementOf;
import lane.check.Check;
import lane.check.Converges;
import lane.check.Norm;
import lane.check.Verdict;
import lane.check.WithinBand;
import lane.field.Field;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.FieldDifferenceOf;
import lane.reading.Outcome;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Several;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Station;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Measures of agreement and differences of fields as readings; families as they come out of an evaluation: a slab of peat. */
class ComparisonsTest {
    private static final Map<String, Double> OFF = Map.of("coarse", 0.16, "medium", 0.04, "fine", 0.01);

    /** Numbers of cubes along the slab: sizes 1, 1/2, 1/4. */
    private static final Map<String, Integer> CUBES = Map.of("coarse", 2, "medium", 4, "fine", 8);

    private static Run run(String id) {
        int n = CUBES.get(id);
        Mesh mesh = BoxMesh.of(CellShape.VOXEL, new int[] {2 * n, n, n}, new double[] {2, 1, 1}, 0, 1);
        double[] x = mesh.xyz();
        double[] v = new double[mesh.nodeCount()];
        Arrays.setAll(v, i -> 300 + 10 * x[3 * i] + OFF.get(id) * (1 + x[3 * i]));
        var field = new Field("t", Field.At.NODE, 1, Unit.of("K"), Values.of(v));
        return new Run(mesh, List.of(field), List.of(), List.of(), List.of());
    }

    private static Study study() {
        return Study.empty("peat")
                .withSources(l -> List.of(source("coarse"), source("medium"), source("fine")))
                .withStations(l -> List.of(new Station(
                        "core",
                        "Core",
                        new Line(new Point(0, 0.5, 0.5), new Point(2, 0.5, 0.5), new Sampling.Even(21), Abscissa.ARC))))
                .withQuantities(l -> List.of(new Quantity("wet", "wet", "2 * \"agrees Linf\"", "", "")))
                .withReadings(l -> List.of(
                        new Reading("along", "along", "", new ProfileOf("core", "t")),
                        new Reading("agrees", "agrees", "", new AgreementOf("along", "fine", Norm.L2, null)),
                        new Reading("differs", "differs", "", new FieldDifferenceOf("t", "fine"))));
    }

    private static Source source(String id) {
        return new Source.Simulation(id, id, id, List.of(), "", "slab");
    }

    private static Results evaluate(Study s) {
        var runs = new LinkedHashMap<String, Run>();
        CUBES.keySet().forEach(id -> runs.put(id, run(id)));
        return new Evaluator(new Library() {
                    @Override
                    public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                        return Objects.requireNonNull(runs.get(source.id()));
                    }

                    @Override
                    public Table table(String file, List<Recipe> recipes) {
                        throw new IllegalStateException("no tables here");
                    }
                })
                .evaluate(s, Work.QUIET);
    }

    private static double of(Results r, String reading, String lane, String what) {
        return ((Several) r.outcome(reading, lane)).of(what).orElseThrow().value();
    }

    @Test
    void measuresOfAgreementAreNumbersByName() {
        Results r = evaluate(study());
        // 0.15 (1 + x) over 0 to 2: its mean 0.3, the largest 0.45 at the end.
        assertThat(of(r, "agrees", "coarse", "L1")).isCloseTo(0.3, within(1e-10));
        assertThat(of(r, "agrees", "coarse", "bias")).isCloseTo(0.3, within(1e-10));
        assertThat(of(r, "agrees", "coarse", "Linf")).isCloseTo(0.45, within(1e-10));
        assertThat(of(r, "agrees", "coarse", "Linf at")).isCloseTo(2, within(1e-10));
        assertThat(of(r, "agrees", "medium", "Linf")).isCloseTo(0.09, within(1e-10));
        assertThat(of(r, "agrees", "coarse", "correlation")).isCloseTo(1, within(1e-12));
        assertThat(r.outcome("agrees", "coarse").numbers().getFirst().value())
                .isEqualTo(of(r, "agrees", "coarse", "L2"));
        assertThat(((Outcome.Absent) r.outcome("agrees", "fine")).reason()).contains("the datum itself");
        assertThat(r.outcome("agrees", "coarse").trail().inputs()).isEmpty();
        // In a formula by name, through a tally of a line.
        Study more = study().withReadings(l -> {
            var all = new java.util.ArrayList<>(l);
            all.add(new Reading(
                    "twice", "twice", "", new lane.reading.TallyOf(List.of("core"), new lane.measure.Mean("wet"))));
            return all;
        });
        Outcome twice = evaluate(more).outcome("twice", "coarse");
        assertThat(twice).as(String.valueOf(twice)).isNotInstanceOf(Outcome.Absent.class);
        assertThat(twice.numbers().getFirst().value()).isCloseTo(0.9, within(1e-9));
        // And judged.
        Study judged = study().withChecks(l ->
                List.of(new Check("c", "agrees", new WithinBand(null, 0.1, "K"), List.of("medium", "coarse"))));
        assertThat(evaluate(judged).checks().get("c").verdict()).isEqualTo(Verdict.OUT);
        Study lost = study().withReadings(l ->
                List.of(new Reading("agrees", "agrees", "", new AgreementOf("gone", "fine", Norm.L2, null))));
        assertThat(((Outcome.Absent) evaluate(lost).outcome("agrees", "coarse")).reason())
                .contains("\"gone\" is not in the study");
    }

    @Test
    void whatNeedsItselfIsTold() {
        Study s = study().withReadings(l -> List.of(
                new Reading("along", "along", "", new ProfileOf("core", "wet")),
                new Reading("agrees", "agrees", "", new AgreementOf("along", "fine", Norm.L2, null))));
        Results r = evaluate(s);
        assertThat(((Outcome.Absent) r.outcome("along", "coarse")).reason()).contains("defined by itself");
        assertThat(r.outcome("agrees", "coarse")).isInstanceOf(Outcome.Absent.class);
    }

    @Test
    void theDifferenceOfAFieldHasNormsOverVolumeAndPlaces() {
        Results r = evaluate(study());
        // 0.15 (1 + x) again, over the volume: mean 0.3, mean square 0.15^2 (1 + 2 + 4/3).
        assertThat(of(r, "differs", "coarse", "L1")).isCloseTo(0.3, within(1e-10));
        assertThat(of(r, "differs", "coarse", "L2")).isCloseTo(0.15 * Math.sqrt(1 + 2 + 4.0 / 3), within(1e-10));
        assertThat(of(r, "differs", "coarse", "Linf")).isCloseTo(0.45, within(1e-10));
        assertThat(of(r, "differs", "coarse", "L1 over places")).isCloseTo(0.3, within(1e-10));
        assertThat(of(r, "differs", "coarse", "share outside")).isZero();
        assertThat(of(r, "differs", "coarse", "datum's range")).isCloseTo(20.02, within(1e-9));
        assertThat(((Outcome.Absent) r.outcome("differs", "fine")).reason()).contains("the datum itself");
    }

    @Test
    void sizesOfCellsAreThoseOfTheRuns() {
        Study s =
                study().withChecks(l -> List.of(new Check("c", "along", new Converges(0.01, false), List.of("fine"))));
        var refined = Objects.requireNonNull(
                evaluate(s).checks().get("c").lanes().get("fine").evidence().refined());
        assertThat(refined.sizes()).containsExactly(new double[] {1.0 / 8, 1.0 / 4, 1.0 / 2}, within(1e-12));
        assertThat(refined.convergence().order()).isCloseTo(2, within(1e-8));
        assertThat(evaluate(s).checks().get("c").verdict()).isEqualTo(Verdict.WITHIN);
    }

    @Test
    void theSameChecksForAnotherFamily() {
        Study s = study().withSources(l -> {
                    var all = new java.util.ArrayList<>(l);
                    all.add(new Source.Simulation("new", "new", "new", List.of(), "", "other"));
                    return all;
                })
                .withChecks(l -> List.of(
                        new Check("c", "along", new Converges(0.01, false), List.of()).under("Slab"),
                        new Check("d", "agrees", new WithinBand(null, 0.1, "K"), List.of("medium"))));
        assertThat(CheckTemplates.families(s)).containsExactly("slab");
        Study made = CheckTemplates.same(s, "new");
        assertThat(made.checks()).extracting(Check::id).containsExactly("c", "d", "c-new", "d-new");
        assertThat(made.checks().get(2).judged()).containsExactly("new");
        assertThat(made.checks().get(2).group()).isEqualTo("Slab");
        assertThat(CheckTemplates.same(made, "new")).isEqualTo(made);
        assertThat(CheckTemplates.same(s, "medium")).isEqualTo(s);
    }
}
