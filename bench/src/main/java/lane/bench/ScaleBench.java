package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.DatasetReader;
import lane.formats.FileLibrary;
import lane.formats.grid.Opening;
import lane.formats.piece.PieceFolder;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Extreme;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.HistoryOf;
import lane.reading.OverTimesOf;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Station;
import lane.station.Within;
import lane.study.Evaluator;
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

/**
 * Twelve readings over the stored times of a run of 200 000 cells: against the reading of the same files alone, with and without
 * the hash that proves which they were; in one go, and as pieces of which each is a work of its own.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 1)
@Measurement(iterations = 2)
@Fork(value = 1, jvmArgs = "-Xmx3g")
public class ScaleBench {
    @Param("30")
    public int times;

    /** Times in a piece. */
    @Param("10")
    public int block;

    private Path folder;
    private Study study;
    private int round;

    @Setup
    public void write() throws IOException {
        folder = Files.createTempDirectory("lane-scale");
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {80, 50, 50}, new double[] {8, 5, 5}, 0.05, 3);
        for (int t = 0; t < times; t++) {
            double[] salt = new double[mesh.nodeCount()];
            float[] warm = new float[mesh.nodeCount()];
            for (int i = 0; i < salt.length; i++) {
                salt[i] = 35 + Math.sin(mesh.xyz()[3 * i] + 0.1 * t);
                warm[i] = (float) (280 + mesh.xyz()[3 * i + 2] + 0.01 * t);
            }
            VtkXmlWriter.writeGrid(
                    folder.resolve(String.format("reef_%04d.vtu", t)),
                    mesh,
                    List.of(
                            new Field("salt", Field.At.NODE, 1, Unit.of("g/kg"), Values.of(salt)),
                            new Field("warm", Field.At.NODE, 1, Unit.of("K"), new Values.Floats(warm))),
                    VtkXmlWriter.Options.UNPACKED);
        }
        List<Ask> asks = new ArrayList<>();
        for (String q : List.of("salt", "warm")) {
            for (Measure m : List.of(new Mean(q), new Integral(q), new Extreme(q, true), new Extreme(q, false))) {
                asks.add(new HistoryOf(new TallyOf(List.of("all"), m), "h", null, null));
            }
            asks.add(new HistoryOf(new TallyOf(List.of("cut"), new Mean(q)), "h", null, null));
            asks.add(new OverTimesOf(new ProfileOf("rod", q), OverTimesOf.Show.MEAN, 6, "h", null, null));
        }
        study = Study.empty("reef")
                .withSources(l -> List.of(new Source.Simulation(
                        "reef", "reef", "reef_*.vtu", List.of(), "", "", lane.field.Treatment.NONE.inLength("m"))))
                .withQuantities(l -> List.of(
                        new Quantity("salt", "salt", "salt", "", ""), new Quantity("warm", "warm", "warm", "", "")))
                .withStations(l -> List.of(
                        new Station("all", "all", new Region(new Within.All())),
                        new Station("cut", "cut", new Section(new Point(4, 0, 0), new Point(1, 0, 0), null, null)),
                        new Station(
                                "rod",
                                "rod",
                                new Line(
                                        new Point(0.1, 2, 2),
                                        new Point(7.9, 2, 2),
                                        new Sampling.Even(200),
                                        Abscissa.ARC))))
                .withReadings(l -> java.util.stream.IntStream.range(0, asks.size())
                        .mapToObj(i -> new Reading("r" + i, "r" + i, "", asks.get(i)))
                        .toList());
    }

    @TearDown
    public void away() throws IOException {
        try (var all = Files.walk(folder)) {
            all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }

    private List<Path> files() throws IOException {
        try (var all = Files.list(folder)) {
            return all.filter(p -> p.toString().endsWith(".vtu")).sorted().toList();
        }
    }

    /** Mesh and both fields of each file. */
    @Benchmark
    public double read() throws IOException {
        double sum = 0;
        for (Path p : files()) {
            var data = DatasetReader.open(p, TimeSelector.LAST, Opening.WHOLE, Work.QUIET);
            sum += data.mesh().cellCount();
            for (Field f : data.fields()) {
                sum += f.values().now().get(0);
            }
        }
        return sum;
    }

    /** One number of one field over all times, without a trail, as {@code ./lane history} takes it. */
    @Benchmark
    public Object history() {
        System.setProperty("lane.state", folder.resolve("state" + round++).toString());
        return new Evaluator(FileLibrary.unproven(folder))
                .evaluate(study.withReadings(l -> l.subList(0, 1)), Work.QUIET);
    }

    /** SHA-256 of each file, one after the other. */
    @Benchmark
    public byte[] hash() throws Exception {
        MessageDigest digest = MessageDigest.getInstance("SHA-256");
        for (Path p : files()) {
            digest.update(Files.readAllBytes(p));
        }
        return digest.digest();
    }

    /** All twelve readings by a program that knows nothing of before. */
    @Benchmark
    public Object evaluate() {
        // What earlier rounds read is known by the user's folder: another path is another run to it.
        System.setProperty("lane.state", folder.resolve("state" + round++).toString());
        return new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
    }

    /** The same as pieces, each by a library of its own, and put together. */
    @Benchmark
    public Object pieces() {
        System.setProperty("lane.state", folder.resolve("state" + round++).toString());
        var pieces = new PieceFolder(folder.resolve("pieces" + round));
        for (Evaluator.Planned p : new Evaluator(new FileLibrary(folder)).plan(study, block, Work.QUIET)) {
            var library = new FileLibrary(folder);
            var kept = library.keeping(pieces, lane -> Optional.empty());
            String id = PieceFolder.key("reef", p.definition()).orElseThrow();
            kept.collecting(id, () -> new Evaluator(library).make(study, p.piece(), Work.QUIET));
        }
        var library = new FileLibrary(folder);
        library.keeping(pieces, lane -> Optional.empty());
        return new Evaluator(library).evaluate(study, Work.QUIET);
    }
}
