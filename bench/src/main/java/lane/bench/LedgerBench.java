package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.cli.StudyFigures;
import lane.field.Field;
import lane.field.Values;
import lane.formats.FileLibrary;
import lane.formats.ledger.LedgerFormat;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
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
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** A ledger of a thousand checks and two hundred figures, as it is always written and in all formats; cold, as a nightly build has it. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 0)
@Measurement(iterations = 1)
@Fork(value = 3, jvmArgs = "-Xmx600m")
public class LedgerBench {
    private static final int LINES = 100;
    private static final int CHECKS = 1000;

    @Param({"plain", "all"})
    public String formats;

    private Path folder;
    private Results results;

    private void tray(String name, double more) {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {40, 20, 10}, new double[] {2, 1, 0.5}, 0.1, 3);
        double[] wet = new double[mesh.nodeCount()];
        for (int i = 0; i < wet.length; i++) {
            double x = mesh.xyz()[3 * i];
            wet[i] = 12 + more + x * (3 - x) + 0.2 * mesh.xyz()[3 * i + 1];
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name),
                mesh,
                List.of(new Field("wet", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(wet))),
                VtkXmlWriter.Options.DEFAULT);
    }

    @Setup
    public void evaluated() throws IOException {
        folder = Files.createTempDirectory("ledger-bench");
        tray("a.vtu", 0);
        tray("b.vtu", 0.01);
        List<Station> stations = new ArrayList<>();
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < LINES; i++) {
            double y = (i + 0.5) / LINES;
            stations.add(new Station(
                    "l" + i,
                    "row " + i,
                    new Line(
                            new Point(0.05, y, 0.25), new Point(1.95, y, 0.25), new Sampling.Even(101), Abscissa.ARC)));
            readings.add(new Reading("p" + i, "moisture " + i, "", new ProfileOf("l" + i, "q")));
            readings.add(new Reading("t" + i, "mean " + i, "", new TallyOf(List.of("l" + i), new Mean("q"))));
        }
        List<Check> checks = new ArrayList<>();
        for (int k = 0; k < CHECKS; k++) {
            String reading = (k % 2 == 0 ? "t" : "p") + k % LINES;
            checks.add(new Check("c" + k, reading, Norm.L2, Scale.RANGE, 0.01 + 1e-5 * k, "", List.of("b")));
        }
        Study study = Study.empty("trays")
                .withDatum("a")
                .withSources(l -> List.of(
                        new Source.Simulation("a", "first", "a.vtu", List.of(), "", ""),
                        new Source.Simulation("b", "second", "b.vtu", List.of(), "", "")))
                .withQuantities(l -> List.of(new Quantity("q", "moisture", "wet", "", "")))
                .withStations(l -> stations)
                .withReadings(l -> readings)
                .withChecks(l -> checks);
        results = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
    }

    @TearDown
    public void gone() throws IOException {
        try (var files = Files.walk(folder)) {
            for (Path f : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(f);
            }
        }
    }

    @Benchmark
    public List<Path> written() {
        return LedgerWriter.write(
                results,
                new LedgerWriter.To(
                        folder.resolve("ledger"),
                        folder.resolve("s.lane.json"),
                        Map.of(),
                        Made.here("bench", Instant.EPOCH),
                        formats.equals("all") ? Set.of(LedgerFormat.values()) : Set.of(),
                        new StudyFigures()),
                Work.QUIET);
    }
}
