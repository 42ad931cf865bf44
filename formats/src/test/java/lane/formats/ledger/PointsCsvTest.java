package lane.formats.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import lane.base.Work;
import lane.estimate.Band;
import lane.estimate.Uncertainty;
import lane.formats.io.AtomicFile;
import lane.formats.table.CsvWriter;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTables;
import lane.ledger.PointRows;
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

/** The points of long curves are written at once and some at a time, and are the same letters as one by one. */
class PointsCsvTest {
    private static final Reading LOAD = new Reading("load", "load", "", new MonitorOf("load", "time", "ms"));

    private static Profile curve(int n, int seed, boolean bands, boolean places) {
        var r = new Random(seed);
        double[] x = new double[n];
        double[] y = new double[n];
        double[] half = new double[n];
        double[] xyz = new double[3 * n];
        for (int i = 0; i < n; i++) {
            x[i] = i * 1e-4;
            y[i] = switch (i % 11) {
                case 3 -> Double.NaN;
                case 4 -> -0.0;
                case 5 -> i % 2 == 0 ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
                case 6 -> -1e300 * r.nextDouble();
                case 7 -> 1e-9 * r.nextDouble();
                default -> 1000 * r.nextGaussian();
            };
            half[i] = i % 7 == 0 ? Double.NaN : r.nextDouble();
            xyz[3 * i] = r.nextDouble();
        }
        var made = new Profile(
                x,
                y,
                bands ? List.of(new Band(Uncertainty.Source.MEASURED, half)) : List.of(),
                "time",
                Unit.of("ms"),
                Unit.of("kN"),
                false,
                n,
                "",
                Provenance.EMPTY);
        return places ? made.at(xyz) : made;
    }

    private static LedgerTable table(Map<String, Profile> lanes) {
        Map<String, Outcome> of = new LinkedHashMap<>();
        Study study = Study.empty("press").withReadings(l -> List.of(LOAD));
        for (var e : lanes.entrySet()) {
            String id = "lane-" + of.size();
            of.put(id, e.getValue());
            study = study.withSources(l -> {
                l.add(new Source.Reference(id, e.getKey(), Source.Kind.MEASUREMENT, List.of(), Map.of(), List.of()));
                return l;
            });
        }
        Results none = Results.none(study);
        return LedgerTables.curve(
                new Results(
                        study,
                        none.runs(),
                        none.failures(),
                        none.inPieces(),
                        none.placements(),
                        none.laid(),
                        Map.of(LOAD.id(), of),
                        none.beside(),
                        none.checks(),
                        none.lens()),
                LOAD);
    }

    private static String text(AtomicFile.Body body) throws IOException {
        var out = new ByteArrayOutputStream();
        body.write(out);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void theSameLettersAsOneByOne() throws IOException {
        var lanes = new LinkedHashMap<String, Profile>();
        lanes.put("stroke 1", curve(20_000, 1, true, true));
        lanes.put("nothing", curve(0, 2, false, false));
        lanes.put("\"quoted\", and parted", curve(9_000, 3, false, false));
        lanes.put("=1+1", curve(5, 4, false, true));
        lanes.put(" Prüfstand \n 2", curve(8_192, 5, true, false));
        LedgerTable table = table(lanes);
        assertThat(table.rows()).isInstanceOf(PointRows.class).hasSize(37_197);
        String slow = text(CsvWriter.body(LedgerWriter.rows(table)));
        assertThat(text(PointsCsv.body(table, (PointRows) table.rows(), Work.QUIET)))
                .isEqualTo(slow);
        Work cancelled = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> text(PointsCsv.body(table, (PointRows) table.rows(), cancelled)))
                .isInstanceOf(CancellationException.class);
        assertThat(slow.lines().toList().get(1)).startsWith("stroke 1,0.0,ms,");
        assertThat(slow).contains("'=1+1,").contains("-Infinity").contains("\"\"\"quoted\"\", and parted\"");
    }

    /** Each row is that of its place, whichever lane it belongs to. */
    @Test
    void rowsAreFoundByTheirPlace() {
        var lanes = new LinkedHashMap<String, Profile>();
        lanes.put("a", curve(3, 1, false, false));
        lanes.put("b", curve(0, 2, false, false));
        lanes.put("c", curve(0, 3, false, false));
        lanes.put("d", curve(2, 4, true, false));
        List<LedgerTable.Row> rows = table(lanes).rows();
        assertThat(rows).extracting(r -> r.cells().getFirst().text()).containsExactly("a", "a", "a", "d", "d");
        assertThat(((LedgerTable.Num) rows.get(4).cells().get(1)).value()).isEqualTo(0.1);
        assertThat(((LedgerTable.Num) rows.get(3).cells().get(5)).value()).isNaN();
        assertThat(((LedgerTable.Num) rows.get(4).cells().get(5)).value()).isPositive();
        assertThat(table(Map.of("b", curve(0, 2, false, false))).rows()).isEmpty();
    }
}
