package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lane.base.BoundedMemo;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Values;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.FeatureOf;
import lane.reading.FeatureOf.What;
import lane.reading.HistoryOf;
import lane.reading.Instant;
import lane.reading.MonitorOf;
import lane.reading.Outcome;
import lane.reading.OverTimesOf;
import lane.reading.PeriodsOf;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import lane.reading.Several;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.ColumnUncertainty;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A vat of 1 m3 whose level goes as h = 2 + t + x t at the hours 0, 1, 2, 4, and which was not written at 3. */
class OverTimeTest {
    private static final List<Double> HOURS = List.of(0.0, 1.0, 2.0, 3.0, 4.0);
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 2, 2}, new double[] {1, 1, 1}, 0, 0);

    private static final class Vat implements Library {
        final Map<Double, Run> runs = new HashMap<>();
        final Map<String, Map<Double, Instant>> kept = new HashMap<>();
        final List<Double> read = new ArrayList<>();
        int stop = Integer.MAX_VALUE;
        Table table = log();

        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            double t = HOURS.get(moment.in(HOURS));
            return runs.computeIfAbsent(t, x -> at(x, source.file()));
        }

        @Override
        public Run passing(Source.Simulation source, TimeSelector moment, Work work) {
            if (read.size() >= stop) {
                throw new java.util.concurrent.CancellationException("stopped");
            }
            Run run = run(source, moment, work);
            read.add(run.time());
            return run;
        }

        @Override
        public Object recorded(Source.Simulation source, Run run) {
            return source.file();
        }

        @Override
        public Journal journal(Source.Simulation source, List<?> definition) {
            var all = kept.computeIfAbsent(source.file() + definition, k -> new HashMap<>());
            return new Journal() {
                @Override
                public Optional<Instant> of(double time) {
                    return Optional.ofNullable(all.get(time));
                }

                @Override
                public void keep(double time, Instant instant) {
                    all.put(time, instant);
                }
            };
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            return table;
        }
    }

    private static Run at(double t, String file) {
        double[] h = new double[MESH.nodeCount()];
        Arrays.setAll(h, i -> 2 + t + MESH.xyz()[3 * i] * t);
        List<Field> fields = t == 3 ? List.of() : List.of(new Field("h", Field.At.NODE, 1, Unit.of("m"), Values.of(h)));
        var input = new Provenance.Input(file + t, "00", 1);
        return new Run(MESH, fields, List.of(), List.of(input), List.of(), HOURS, t, Stated.NOTHING, file + t);
    }

    private static Table log() {
        double[] n = new double[40];
        double[] q = new double[40];
        Arrays.setAll(n, i -> i < 20 ? i : i - 4);
        Arrays.setAll(q, i -> i == 7 ? Double.NaN : 5 + Math.pow(0.5, n[i]));
        return new Table(
                List.of("iteration", "flux"),
                List.of("", "W"),
                List.of(n, q),
                "made",
                new Provenance.Input("log.csv", "11", 1));
    }

    private static final TallyOf LEVEL = new TallyOf(List.of("all"), new Mean("h"));
    private static final HistoryOf HISTORY = new HistoryOf(LEVEL, "h", null, null);

    private final Vat vat = new Vat();

    private Study study(Ask ask, TimeSelector looked, Curve... answers) {
        var treatment = new Treatment(looked, "", null, Map.of(), Map.of(), Map.of(), 1.0, null, List.of());
        return Study.empty("vat")
                .withSources(l -> List.of(
                        new Source.Simulation("vat", "vat", "vat*", List.of(), "", "", treatment),
                        new Source.Reference(
                                "rig",
                                "rig",
                                Source.Kind.MEASUREMENT,
                                List.of("log.csv"),
                                Map.of("a", 2.0),
                                List.of(answers))))
                .withQuantities(l -> List.of(new Quantity("h", "level", "h", "", "")))
                .withStations(l -> List.of(
                        new Station("all", "all", new Region(new Within.All())),
                        new Station(
                                "rod",
                                "rod",
                                new Line(
                                        new Point(0, 0.5, 0.5),
                                        new Point(1, 0.5, 0.5),
                                        new Sampling.Even(3),
                                        Abscissa.ARC))))
                .withReadings(l -> List.of(new Reading("r", "r", "", ask)));
    }

    private Outcome read(Ask ask, TimeSelector looked) {
        return new Evaluator(vat).evaluate(study(ask, looked), Work.QUIET).outcome("r", "vat");
    }

    private Outcome read(Ask ask) {
        return read(ask, TimeSelector.LAST);
    }

    @Test
    void aNumberIsToldAtEachStoredTimeAndMissingWhereItIs() {
        var p = (Profile) read(HISTORY);
        assertThat(p.abscissa()).containsExactly(0, 3600, 7200, 10800, 14400);
        assertThat(p.value()).containsExactly(new double[] {2, 3.5, 5, Double.NaN, 8}, within(1e-12));
        assertThat(p.abscissaUnit()).isEqualTo(Unit.of("h"));
        assertThat(p.note()).contains("1 of them without a value, first at 3").contains("h");
        assertThat(p.trail().inputs()).hasSize(4);
        assertThat(((Profile) read(new HistoryOf(LEVEL, "", null, null))).note())
                .contains("taken as seconds, which the files do not say");
        assertThat(((Profile) read(new HistoryOf(LEVEL, "h", 1.0, 2.0))).value())
                .containsExactly(new double[] {3.5, 5}, within(1e-12));
        assertThat(((Profile) read(new HistoryOf(LEVEL, "1", null, null))).abscissaName())
                .isEqualTo("step");
    }

    private static void same(Outcome one, Outcome other) {
        var p = (Profile) one;
        var q = (Profile) other;
        assertThat(Arrays.equals(p.value(), q.value()) && Arrays.equals(p.abscissa(), q.abscissa()))
                .isTrue();
        assertThat(p.note()).isEqualTo(q.note());
        assertThat(p.trail()).isEqualTo(q.trail());
    }

    /** The same whichever time the study looks at, and its trail too. */
    @Test
    void itDoesNotDependOnTheTimeThatIsLookedAt() {
        Outcome last = read(HISTORY);
        same(read(HISTORY, new TimeSelector.First()), last);
        Evaluator one = new Evaluator(vat);
        one.evaluate(study(HISTORY, TimeSelector.LAST), Work.QUIET);
        int before = vat.read.size();
        one.evaluate(study(HISTORY, new TimeSelector.At(1, 0)), Work.QUIET);
        assertThat(vat.read).hasSize(before);
    }

    @Test
    void whoIsStoppedHalfWayGoesOnFromThere() {
        vat.stop = 2;
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> read(HISTORY))
                .isInstanceOf(java.util.concurrent.CancellationException.class);
        assertThat(vat.read).containsExactly(0.0, 1.0);
        vat.stop = Integer.MAX_VALUE;
        vat.read.clear();
        var p = (Profile) read(HISTORY);
        assertThat(p.value()[1]).isCloseTo(3.5, within(1e-12));
        assertThat(vat.read).containsExactly(2.0, 3.0);
        Outcome whole = new OverTimeTest().read(HISTORY);
        same(p, whole);
    }

    /** Times before the last one tell numbers and files alone; what is asked of one of them later tells all of it. */
    @Test
    void howItCameAboutIsToldByTheLastTimeThatHasAnAnswer() {
        var whole = (Profile) read(HISTORY);
        assertThat(vat.read).containsExactly(0.0, 1.0, 2.0, 3.0);
        vat.read.clear();
        vat.kept.clear();
        // The last of these has no answer.
        var before = (Profile) read(new HistoryOf(LEVEL, "h", 1.0, 3.0));
        assertThat(before.trail().inputs()).hasSize(2);
        assertThat(before.trail().steps())
                .extracting(Provenance.Step::stop)
                .isEqualTo(whole.trail().steps().stream()
                        .map(Provenance.Step::stop)
                        .toList());
        assertThat(before.trail().steps().subList(0, before.trail().steps().size() - 1))
                .isEqualTo(
                        whole.trail().steps().subList(0, whole.trail().steps().size() - 1));
    }

    /** What is known at once is told before the times are read, and not again where they are known. */
    @Test
    void theOthersDoNotWaitForTheTimes() {
        var told = new ArrayList<Results>();
        Study study = study(HISTORY, TimeSelector.LAST).withReadings(l -> {
            l.add(new Reading("last", "last", "", LEVEL));
            return l;
        });
        var evaluator = new Evaluator(vat);
        Results whole = evaluator.evaluate(study, Work.QUIET, told::add);
        assertThat(told).hasSize(1);
        Results before = told.getFirst();
        assertThat(before.outcome("last", "vat")).isEqualTo(whole.outcome("last", "vat"));
        assertThat(before.outcome("r", "vat")).isInstanceOfSatisfying(Outcome.Absent.class, a -> assertThat(a.brief())
                .isEqualTo("being read"));
        assertThat(whole.outcome("r", "vat")).isInstanceOf(Profile.class);
        assertThat(whole.readings().keySet()).containsExactly("r", "last");
        evaluator.evaluate(study.withReadings(l -> l.reversed()), Work.QUIET, told::add);
        assertThat(told).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource({
        // Over 0 to 2 h, where every time has a value: trapezoids of what is straight.
        "MEAN, 0, 3.5",
        "INTEGRAL, 0, 25200",
        "RATE, 1, 0.0004166666666666667",
        "VALUE, 0.5, 2.75",
        "SAMPLE, 1, 3.5",
        "LAST, 0, 5",
        "LAST_VALID, 0, 5",
        "COUNT, 0, 3",
        "MISSING, 0, 0",
        "PEAK_PLACE, 0, 7200",
    })
    void numbersOfAHistory(What what, double at, double expected) {
        var ask = new FeatureOf(HISTORY, what, at, 1, "", "h", 0.0, 2.0);
        assertThat(((Tally) read(ask)).value()).isCloseTo(expected, within(1e-9 * Math.abs(expected)));
    }

    @Test
    void whatIsMissingIsCountedAndNothingIsMadeUp() {
        assertThat(((Tally) read(new FeatureOf(HISTORY, What.MISSING, 0, 1, "", "", null, null))).value())
                .isEqualTo(1);
        var mean = (Tally) read(new FeatureOf(HISTORY, What.MEAN, 0, 1, "", "", null, null));
        assertThat(mean.value()).isCloseTo(3.5, within(1e-12));
        assertThat(mean.note()).contains("over the 50 % that has values");
        assertThat(read(new FeatureOf(HISTORY, What.SAMPLE, 0.5, 1, "", "h", null, null)))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("nearest"));
        assertThat(read(new FeatureOf(HISTORY, What.LAST, 0, 1, "", "h", null, 3.0)))
                .isInstanceOfSatisfying(
                        Outcome.Absent.class, a -> assertThat(a.reason()).contains("has no value"));
        assertThat(read(new HistoryOf(LEVEL, "h", 3.0, 3.5))).isInstanceOf(Outcome.Absent.class);
    }

    @Test
    void profilesOverTimesAreAFamilyOrAMeanBetweenExtremes() {
        var rod = new ProfileOf("rod", "h");
        var family = (Profile) read(new OverTimesOf(rod, OverTimesOf.Show.FAMILY, 3, "h", null, null));
        assertThat(family.value()).containsExactly(new double[] {6, 8, 10}, within(1e-12));
        assertThat(family.beside()).extracting(Profile.Beside::name).containsExactly("t = 0 h", "t = 2 h");
        assertThat(family.beside().get(1).value()).containsExactly(new double[] {4, 5, 6}, within(1e-12));
        var mean = (Profile) read(new OverTimesOf(rod, OverTimesOf.Show.MEAN, 0, "h", null, null));
        // The mean of t over 0, 1, 2, 4 by trapezoids is 2.
        assertThat(mean.value()).containsExactly(new double[] {4, 5, 6}, within(1e-12));
        assertThat(mean.beside().get(0).value()).containsExactly(new double[] {2, 2, 2}, within(1e-12));
        assertThat(mean.beside().get(1).value()).containsExactly(new double[] {6, 8, 10}, within(1e-12));
    }

    private Outcome rig(Ask ask, Curve... answers) {
        return new Evaluator(vat)
                .evaluate(study(ask, TimeSelector.LAST, answers), Work.QUIET)
                .outcome("r", "rig");
    }

    private static Curve.Columns flux(String reading) {
        return new Curve.Columns(reading, "log.csv", "iteration", "", "flux", "", ColumnUncertainty.NONE);
    }

    private static final MonitorOf FLUX = new MonitorOf("flux", "iteration", "1");

    @Test
    void aLogIsAHistoryOfItsOwnAndSoAreItsNumbers() {
        var p = (Profile) rig(FLUX, flux("r"));
        assertThat(p.size()).isEqualTo(36);
        assertThat(p.note()).contains("36 rows").contains("4 were overwritten").contains("1 of them without a value");
        assertThat(p.abscissa()[35]).isEqualTo(35);
        assertThat(read(FLUX)).isInstanceOf(Outcome.Absent.class);
        var settled = (Several) rig(new SettlingOf(FLUX, 0, 0, null, "", 0), flux("r"));
        assertThat(settled.numbers().getFirst().value()).isCloseTo(5, within(1e-7));
        assertThat(settled.of("settled").orElseThrow().value()).isEqualTo(1);
        // What is said of the monitor holds for its numbers.
        Study both = study(new FeatureOf(FLUX, What.LAST, 0, 1, "", "", null, null), TimeSelector.LAST, flux("m"))
                .withReadings(l -> {
                    l.add(new Reading("m", "m", "", FLUX));
                    return l;
                });
        assertThat(new Evaluator(vat).evaluate(both, Work.QUIET).outcome("r", "rig"))
                .isInstanceOfSatisfying(Tally.class, t -> assertThat(t.value()).isCloseTo(5, within(1e-9)));
    }

    /** A table is known by itself: it may be larger than all that is kept. */
    @Test
    void aTableLargerThanWhatIsKeptIsReadOnce() {
        double[] t = new double[40_000];
        double[] v = new double[t.length];
        Arrays.setAll(t, i -> i);
        Arrays.setAll(v, i -> Math.sin(i));
        vat.table = new Table(
                List.of("time", "v"), List.of("s", "K"), List.of(t, v), "made", new Provenance.Input("l.csv", "1", 1));
        Study one = study(
                new MonitorOf("v", "time", "s"),
                TimeSelector.LAST,
                new Curve.Columns("r", "log.csv", "time", "", "v", "", ColumnUncertainty.NONE));
        var memo = new BoundedMemo(700_000);
        var evaluator = new Evaluator(vat, memo);
        Profile first = (Profile) evaluator.evaluate(one, Work.QUIET).outcome("r", "rig");
        int made = memo.made();
        assertThat(evaluator.evaluate(one.withName("again"), Work.QUIET).outcome("r", "rig"))
                .isSameAs(first);
        assertThat(memo.made()).isEqualTo(made);
        // What nothing changes is the table's own; all columns stand along the same times.
        assertThat(first.abscissa()).isSameAs(t);
        assertThat(first.value()).isSameAs(v);
        vat.table = vat.table.from(new Provenance.Input("l.csv", "2", 1));
        assertThat(evaluator
                        .evaluate(one, Work.QUIET)
                        .outcome("r", "rig")
                        .trail()
                        .inputs())
                .extracting(Provenance.Input::sha256)
                .contains("2");
    }

    /** A share of a temperature would be another one in degC than in K. */
    @Test
    void theToleranceOfATemperatureIsAShareOfItsRange() {
        double[] t = new double[100];
        double[] v = new double[100];
        Arrays.setAll(t, i -> i);
        Arrays.setAll(v, i -> i < 50 ? 20 : 30 + 0.002 * (i - 80));
        for (String unit : List.of("degC", "K")) {
            vat.table = new Table(
                    List.of("time", "v"),
                    List.of("s", unit),
                    List.of(t, v),
                    "made",
                    new Provenance.Input("l.csv", "1", 1));
            var made = (Several) rig(
                    new SettlingOf(new MonitorOf("v", "time", "s"), 0, 0.01, null, "", 0),
                    new Curve.Columns("r", "log.csv", "time", "", "v", "", ColumnUncertainty.NONE));
            assertThat(made.of("settled").orElseThrow().value()).isEqualTo(1);
            assertThat(made.named().getFirst().remark())
                    .contains("of its range")
                    .contains("0.38 %");
        }
    }

    @Test
    void aTheoryAnswersAHistoryAtAnyTime() {
        var theory = new Curve.ByFormula("r", "a + 1.5 * time / 3600", "m");
        var p = (Profile) rig(HISTORY, theory);
        assertThat(p.formula()).isTrue();
        for (int i = 0; i < p.size(); i++) {
            assertThat(p.value()[i]).isCloseTo(2 + 1.5 * p.abscissa()[i] / 3600, within(1e-12));
        }
        assertThat(p.abscissa()).contains(3600, 14400);
        assertThat(rig(HISTORY, new Curve.HandValue("r", 3, "m", 0, ""))).isInstanceOf(Outcome.Absent.class);
        // A formula knows a history's numbers as well.
        assertThat(((Tally) rig(new FeatureOf(HISTORY, What.PEAK, 0, 1, "", "", null, null), theory)).value())
                .isCloseTo(8, within(1e-12));
    }

    @Test
    void periodsOfALogAreFoundWithTheirAmplitudes() {
        double[] t = new double[500];
        double[] v = new double[500];
        Arrays.setAll(t, i -> 0.01 * i);
        Arrays.setAll(
                v,
                i -> 7
                        + 0.3 * t[i]
                        + 2 * Math.sin(2 * Math.PI * t[i] / 0.37)
                        + 0.5 * Math.cos(2 * Math.PI * t[i] / 0.113));
        vat.table = new Table(
                List.of("time", "v"),
                List.of("s", "m"),
                List.of(t, v),
                "made",
                new Provenance.Input("log.csv", "11", 1));
        var monitor = new MonitorOf("v", "time", "s");
        var p = (Several) rig(
                new PeriodsOf(monitor, 0, "", null, null),
                new Curve.Columns("r", "log.csv", "time", "", "v", "", ColumnUncertainty.NONE));
        assertThat(p.of("period 1").orElseThrow().value()).isCloseTo(0.37, within(1e-8));
        assertThat(p.of("amplitude 1").orElseThrow().value()).isCloseTo(2, within(1e-7));
        assertThat(p.of("period 2").orElseThrow().value()).isCloseTo(0.113, within(1e-8));
        assertThat(p.of("amplitude 2").orElseThrow().value()).isCloseTo(0.5, within(1e-7));
        assertThat(p.of("period 3").orElseThrow().value()).isNaN();
    }

    @Test
    void whatMakesNoSenseIsRefusedWhenItIsSaid() {
        for (Runnable wrong : List.<Runnable>of(
                () -> new HistoryOf(new ProfileOf("rod", "h"), "", null, null),
                () -> new HistoryOf(LEVEL, "m", null, null),
                () -> new HistoryOf(LEVEL, "", 2.0, 1.0),
                () -> new HistoryOf(new FeatureOf(HISTORY, What.MEAN, 0, 1, "", "", null, null), "", null, null),
                () -> new OverTimesOf(LEVEL, null, 0, "", null, null),
                () -> new OverTimesOf(HISTORY, null, 0, "", null, null),
                () -> new SettlingOf(HISTORY, 1.5, 0, null, "", 0),
                () -> new SettlingOf(LEVEL, 0, 0, null, "", 0),
                () -> new PeriodsOf(HISTORY, 12, "", null, null))) {
            org.assertj.core.api.Assertions.assertThatThrownBy(wrong::run).isInstanceOf(LaneException.class);
        }
        assertThat(Set.copyOf(HISTORY.quantities())).containsExactly("h");
        assertThat(new SettlingOf(HISTORY, 0, 0, null, "", 0).stations()).containsExactly("all");
    }
}
