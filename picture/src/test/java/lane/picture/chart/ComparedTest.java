package lane.picture.chart;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import lane.base.Work;
import lane.check.Difference;
import lane.picture.Palette;
import lane.provenance.Provenance;
import lane.reading.MonitorOf;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Long curves, or many, are compared when somebody asks for it, and are as far apart then as they are at once. */
class ComparedTest {
    private static final Reading TENSION = new Reading("tension", "tension", "", new MonitorOf("tension", "time", "s"));

    private static Profile curve(int n, double offset, String along) {
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = i;
            y[i] = 40 + 5 * Math.sin(i / 30.0) + offset + (i == n / 2 ? 2 * offset : 0);
        }
        return new Profile(x, y, List.of(), along, Unit.of("s"), Unit.of("N"), false, n, "", Provenance.EMPTY);
    }

    private static ReadingChart chart(int lanes, int points) {
        Map<String, Outcome> of = new LinkedHashMap<>();
        Study study = Study.empty("looms").withReadings(l -> List.of(TENSION)).withDatum("loom 0");
        for (int k = 0; k < lanes; k++) {
            String id = "loom " + k;
            of.put(id, curve(points, 0.1 * k, k == 3 ? "row" : "time"));
            study = study.withSources(l -> {
                l.add(new Source.Reference(id, id, Source.Kind.MEASUREMENT, List.of(), Map.of(), List.of()));
                return l;
            });
        }
        Results none = Results.none(study);
        var results = new Results(
                study,
                none.runs(),
                none.failures(),
                none.inPieces(),
                none.placements(),
                none.laid(),
                Map.of(TENSION.id(), of),
                none.beside(),
                none.checks(),
                none.lens());
        return ReadingChart.of(study, results, TENSION, Palette.LIGHT);
    }

    @Test
    void fewAndShortOnesAreComparedAtOnce() {
        ReadingChart chart = chart(5, 100);
        assertThat(chart.uncompared()).isFalse();
        assertThat(chart.complete()).isSameAs(chart);
        assertThat(chart.curves().get(2).difference()).isNotNull();
        // Another abscissa has no difference, and is not asked for again.
        assertThat(chart.curves().get(3).difference()).isNull();
    }

    @Test
    void longOnesAreComparedLater() {
        ReadingChart chart = chart(5, 50_000);
        assertThat(chart.uncompared()).isTrue();
        assertThat(chart.curves()).allMatch(c -> c.difference() == null);
        ReadingChart complete = chart.complete();
        Profile datum = chart.curves().getFirst().profile();
        for (int k : new int[] {1, 2, 4}) {
            Difference wanted = Difference.of(chart.curves().get(k).profile(), datum);
            Difference found = complete.curves().get(k).difference();
            assertThat(found.l2()).isEqualTo(wanted.l2());
            assertThat(found.value()).isEqualTo(wanted.value());
        }
        assertThat(complete.curves().get(0).difference()).isNull();
        assertThat(complete.curves().get(3).difference()).isNull();
    }

    /** Of very many only how far they are apart is held. */
    @Test
    void manyOnesHaveNormsAlone() {
        ReadingChart chart = chart(70, 3000);
        assertThat(chart.uncompared()).isTrue();
        assertThat(chart.complete()).isSameAs(chart);
        ReadingChart.Compared found = chart.compared(Work.QUIET);
        assertThat(found.chart().curves()).hasSize(70).allMatch(c -> c.difference() == null);
        assertThat(found.norms().get(0)).isEmpty();
        assertThat(found.norms().get(3)).isEmpty();
        for (int k : new int[] {1, 50, 69}) {
            Difference wanted = Difference.of(
                    chart.curves().get(k).profile(), chart.curves().getFirst().profile());
            assertThat(found.norms().get(k)).contains(ReadingChart.Norms.of(wanted));
        }
        assertThat(found.norms().get(50).orElseThrow().linfAt()).isEqualTo(1500);
        assertThat(found.norms().get(50).orElseThrow().signed())
                .isCloseTo(15, org.assertj.core.data.Offset.offset(1e-9));
        Work cancelled = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> chart.compared(cancelled)).isInstanceOf(CancellationException.class);
    }
}
