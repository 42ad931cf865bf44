package lane.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import lane.picture.Export;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.chart.ProfileChart;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.study.ChartLook;
import lane.study.Source;
import lane.unit.Unit;
import org.jfree.data.Range;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Histories of 100 000 rows drawn at 900 x 600: all of them, and a part that was zoomed into. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx6g", "-XX:+UseParallelGC", "-Djava.awt.headless=true"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class ChartBench {
    private static final int ROWS = 100_000;

    @Param({"5", "1000"})
    public int curves;

    private List<ProfileChart.Panel> panels;

    @Setup
    public void walks() {
        var random = new Random(1);
        double[] x = new double[ROWS];
        for (int i = 0; i < ROWS; i++) {
            x[i] = 0.01 * i;
        }
        LaneStyle style = LaneStyle.of(
                        List.<Source>of(new Source.Simulation("a", "a", "a", List.of(), "", "")), Palette.LIGHT)
                .getFirst()
                .drawn();
        List<ProfileChart.Curve> all = new ArrayList<>();
        for (int k = 0; k < curves; k++) {
            double[] y = new double[ROWS];
            for (int i = 1; i < ROWS; i++) {
                y[i] = y[i - 1] + random.nextDouble() - 0.5;
            }
            var profile =
                    new Profile(x, y, List.of(), "time", Unit.of("s"), Unit.of("K"), false, ROWS, "", Provenance.EMPTY);
            all.add(new ProfileChart.Curve("c" + k, style, profile, null));
        }
        panels = List.of(new ProfileChart.Panel("T", Unit.of("K"), all, List.of(), Double.NaN, "", null));
    }

    private Object drawn(ProfileChart.View view) {
        var chart = new ProfileChart(panels, Unit.of("s"), "time", 0.3, ChartLook.of("r"), view, Palette.LIGHT);
        return Export.image(900, 600, 1, g -> chart.paint(g, 900, 600));
    }

    @Benchmark
    public Object all() {
        return drawn(ProfileChart.View.ALL);
    }

    @Benchmark
    public Object aPart() {
        return drawn(new ProfileChart.View(new Range(200, 300), null));
    }
}
