package lane.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentSkipListSet;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Samples;
import lane.reading.Scalar;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import org.junit.jupiter.api.Test;

/** A drying kiln's log of many thermocouples, of which few are looked at. */
class ColumnsTest {
    private static final int ROWS = 200;
    private static final int MANY = 60;

    private final List<double[]> numbers = numbers();
    private final ConcurrentSkipListSet<Integer> looked = new ConcurrentSkipListSet<>();

    private static List<double[]> numbers() {
        var random = new Random(5);
        double[] minutes = IntStream.range(0, ROWS).mapToDouble(i -> i / 3.0).toArray();
        return IntStream.range(0, MANY)
                .mapToObj(c -> {
                    double[] v = random.doubles(ROWS, -40, 180).toArray();
                    v[c] = Double.NaN;
                    return c == 0 ? minutes : v;
                })
                .toList();
    }

    private Table table(boolean later) {
        List<String> headers = IntStream.range(0, MANY)
                .mapToObj(c -> c == 0 ? "time" : "TC " + c)
                .toList();
        List<String> units = IntStream.range(0, MANY)
                .mapToObj(c -> c == 0 ? "min" : c % 2 == 0 ? "degC" : "")
                .toList();
        List<double[]> columns = !later
                ? numbers
                : new Columns(ROWS, numbers.stream().map(Samples.Ends::of).toList(), c -> {
                    looked.add(c);
                    return numbers.get(c).clone();
                });
        return new Table(headers, units, columns, "made", new Provenance.Input("kiln.csv", "12", 1));
    }

    private Results evaluated(boolean later, int readings) {
        Table table = table(later);
        List<Monitors.One> all = Monitors.of(table).subList(0, readings);
        Study study = Study.empty("kiln")
                .withSources(l -> List.of(new Source.Reference(
                        "log",
                        "log",
                        Source.Kind.MEASUREMENT,
                        List.of("kiln.csv"),
                        Map.of(),
                        all.stream()
                                .<Curve>map(m -> m.answer(m.column(), "kiln.csv"))
                                .toList())))
                .withReadings(l -> all.stream()
                        .map(m -> new Reading(m.column(), m.column(), "", m.ask()))
                        .toList());
        return new Evaluator(new Library() {
                    @Override
                    public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                        throw new LaneException("There is no run.");
                    }

                    @Override
                    public Table table(String file, List<Recipe> recipes) {
                        return table;
                    }
                })
                .evaluate(study, Work.QUIET);
    }

    @Test
    void whatNobodyLooksAtIsNotRead() {
        Table table = table(true);
        assertThat(table.rows()).isEqualTo(ROWS);
        assertThat(table.unit("TC 4", "")).isEqualTo("degC");
        assertThat(table.ends("TC 7").places().finite()).isEqualTo(ROWS - 1);
        assertThat(looked).isEmpty();
        assertThat(Monitors.of(table)).hasSize(MANY - 1).allSatisfy(m -> assertThat(m.along())
                .isEqualTo("time"));
        assertThat(looked).containsExactly(0);
        assertThat(table.column("TC 7")).isSameAs(table.column("TC 7")).isEqualTo(numbers.get(7));
        assertThat(looked).containsExactly(0, 7);
    }

    /** The ends of histories are told without their values, and are those that the values have. */
    @Test
    void historiesAreTheSameAsThoseOfATableThatIsThere() {
        Results later = evaluated(true, MANY - 1);
        Results there = evaluated(false, MANY - 1);
        assertThat(looked).containsExactly(0);
        for (int c = 1; c < MANY; c++) {
            String id = "TC " + c;
            assertThat(scalars(later, id)).isEqualTo(scalars(there, id));
            assertThat(later.outcome(id, "log").trail())
                    .isEqualTo(there.outcome(id, "log").trail());
        }
        assertThat(looked).containsExactly(0);
        for (int c = 1; c < MANY; c++) {
            var p = (Profile) later.outcome("TC " + c, "log");
            var q = (Profile) there.outcome("TC " + c, "log");
            assertThat(p.size()).isEqualTo(ROWS);
            assertThat(p.most()).isEqualTo(q.most());
            assertThat(p.value()).isEqualTo(q.value());
            double offset = c % 2 == 0 ? 273.15 : 0;
            assertThat(p.value())
                    .containsExactly(
                            Arrays.stream(numbers.get(c)).map(v -> v + offset).toArray(), within(1e-12));
            assertThat(Samples.Ends.of(p.value())).isEqualTo(p.samples().ends());
        }
    }

    private static List<String> scalars(Results of, String id) {
        Outcome made = of.outcome(id, "log");
        return made.scalars().stream().map(Scalar::toString).toList();
    }
}
