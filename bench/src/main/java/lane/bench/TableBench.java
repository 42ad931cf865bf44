package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import lane.formats.table.TableReader;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** A log of 100 000 rows and 21 columns, 18 MB, read as it is found; and its bytes alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx4g", "-XX:+UseParallelGC", "-Djava.awt.headless=true"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class TableBench {
    private static final int ROWS = 100_000;
    private static final int COLUMNS = 20;

    private Path file;

    @Setup
    public void log() throws IOException {
        file = Files.createTempFile("log", ".csv");
        var text = new StringBuilder("time [s]");
        for (int c = 0; c < COLUMNS; c++) {
            text.append(",probe_").append(c).append(" [K]");
        }
        for (int r = 0; r < ROWS; r++) {
            text.append('\n').append(String.format(Locale.ROOT, "%.3f", 0.01 * r));
            for (int c = 0; c < COLUMNS; c++) {
                text.append(',').append(300 + (r * 7 + c * 13) % 977 / 100.0).append("01");
            }
        }
        Files.writeString(file, text);
    }

    @TearDown
    public void away() throws IOException {
        Files.deleteIfExists(file);
    }

    @Benchmark
    public Object read() {
        return TableReader.read(file, "log.csv");
    }

    @Benchmark
    public Object bytes() throws IOException {
        return Files.readAllBytes(file);
    }
}
