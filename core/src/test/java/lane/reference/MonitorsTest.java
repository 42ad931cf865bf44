package lane.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import lane.provenance.Provenance;
import lane.reading.MonitorOf;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MonitorsTest {
    private static double[] rows(double by) {
        double[] out = new double[30];
        Arrays.setAll(out, i -> 3 + by * i);
        return out;
    }

    private static Table table(List<String> headers, List<String> units, List<double[]> columns) {
        return new Table(headers, units, columns, "made", new Provenance.Input("log.csv", "00", 1));
    }

    @ParameterizedTest
    @CsvSource({
        // What grows and is called a time, whatever its language; else what counts; else the first that grows.
        "Zeit, h, Zeit, time, h",
        "t [min], min, t [min], time, min",
        "Physical time, '', Physical time, time, s",
        "iter, '', iter, iter, 1",
        "Step no., '', Step no., Step no., 1",
        "depth, mm, depth, depth, mm",
    })
    void whatTheRowsStandAlong(String header, String unit, String along, String word, String in) {
        Table t = table(
                List.of("flux", "total", header, "note"),
                List.of("W", "J", unit, ""),
                List.of(rows(-1), rows(2), rows(0.5), new double[30]));
        List<Monitors.One> all = Monitors.of(t);
        boolean named = !header.equals("depth");
        assertThat(all.getFirst().along()).isEqualTo(named ? along : "total");
        if (named) {
            assertThat(all.getFirst().ask()).isEqualTo(new MonitorOf("flux", word, in));
            assertThat(all).extracting(Monitors.One::column).containsExactly("flux", "total", "note");
        }
    }

    @Test
    void aTableInWhichNothingGrowsHasNone() {
        Table t = table(List.of("a", "b"), List.of("", ""), List.of(rows(-1), new double[30]));
        assertThat(Monitors.of(t)).isEmpty();
        double[] restarted = Stream.of(rows(1), Arrays.copyOf(rows(1), 10))
                .flatMapToDouble(Arrays::stream)
                .toArray();
        assertThat(Monitors.of(table(List.of("i", "x"), List.of("", ""), List.of(restarted, new double[40]))))
                .hasSize(1);
    }
}
