package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import lane.base.Work;
import lane.field.Field;
import lane.field.Treatment;
import lane.field.Values;
import lane.formats.FileLibrary;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.FieldUnit;
import lane.reading.Ask;
import lane.reading.Outcome;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Station;
import lane.station.Within;
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

/**
 * Twelve readings of a run of 64 pieces, 100 million hexahedra with {@code -p side=116}, read one piece after the other with 3 GB
 * of heap. It writes {@code 64 x 140} bytes a cell of a piece and takes them away.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 0)
@Measurement(iterations = 1)
@Fork(value = 1, jvmArgs = "-Xmx3g")
public class BigBench {
    /** Pieces along each direction. */
    private static final int PIECES = 4;

    /** Cells along each direction of a piece. */
    @Param("116")
    public int side;

    private Path folder;
    private Study study;

    @Setup
    public void write() throws IOException {
        folder = Files.createTempDirectory("lane-big");
        Mesh unit = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {side, side, side}, new double[] {1, 1, 1}, 0, 3);
        var sources = new StringBuilder();
        for (int p = 0; p < PIECES * PIECES * PIECES; p++) {
            int[] at = {p % PIECES, p / PIECES % PIECES, p / PIECES / PIECES};
            double[] xyz = new double[unit.xyz().length];
            for (int i = 0; i < xyz.length; i++) {
                xyz[i] = unit.xyz()[i] + at[i % 3];
            }
            String name = String.format("lagoon_%02d.vtu", p);
            write(unit.withNodes(xyz), folder.resolve(name));
            sources.append("<Piece Source=\"").append(name).append("\"/>");
        }
        Files.writeString(
                folder.resolve("lagoon.pvtu"),
                "<VTKFile type=\"PUnstructuredGrid\"><PUnstructuredGrid>" + sources + "</PUnstructuredGrid></VTKFile>");
        study = study();
    }

    private static void write(Mesh mesh, Path file) {
        double[] level = new double[mesh.nodeCount()];
        float[] tide = new float[3 * mesh.nodeCount()];
        for (int i = 0; i < level.length; i++) {
            double x = mesh.xyz()[3 * i];
            double z = mesh.xyz()[3 * i + 2];
            level[i] = 9810 * (4 - z) + Math.sin(x);
            tide[3 * i] = (float) (0.5 * x);
            tide[3 * i + 2] = (float) z;
        }
        VtkXmlWriter.writeGrid(
                file,
                mesh,
                List.of(
                        new Field("level", Field.At.NODE, 1, Unit.of("Pa"), Values.of(level)),
                        new Field("tide", Field.At.NODE, 3, Unit.of("m/s"), new Values.Floats(tide))),
                VtkXmlWriter.Options.UNPACKED);
    }

    private static Study study() {
        var loads = new Loads("level", 0, "", Loads.On.WALL, Loads.On.WALL);
        List<Ask> asks = new ArrayList<>();
        for (Measure m : List.of(
                new Mean("level"),
                new Integral("level"),
                new Extreme("level", true),
                new Extreme("level", false),
                new Mean("tide.x"),
                new Area())) {
            asks.add(new TallyOf(List.of("all"), m));
        }
        for (Measure m : List.of(
                new Flow("tide", 1, "1", Flow.Carried.NOTHING, Axis.Z),
                new Force(loads, new Point(0, 0, 1)),
                new Mean("level"))) {
            asks.add(new TallyOf(List.of("shore"), m));
        }
        asks.add(new TallyOf(List.of("cut"), new Mean("level")));
        asks.add(new TallyOf(List.of("cut"), new Flow("tide", 1, "1", Flow.Carried.NOTHING, Axis.Z)));
        asks.add(new ProfileOf("rod", "level"));
        return Study.empty("lagoon")
                .withSources(l -> List.of(new Source.Simulation(
                        "lagoon",
                        "lagoon",
                        "lagoon.pvtu",
                        List.of(),
                        "",
                        "",
                        Treatment.NONE.inLength("m").inPieces(true))))
                .withUnits(l -> List.of(new FieldUnit("level", "Pa", true), new FieldUnit("tide", "m/s", true)))
                .withStations(l -> List.of(
                        new Station("all", "all", new Region(new Within.All())),
                        new Station("shore", "shore", new OnPart("boundary")),
                        new Station("cut", "cut", new Section(new Point(2, 0, 0), new Point(1, 0.2, 0), null, null)),
                        new Station(
                                "rod",
                                "rod",
                                new Line(
                                        new Point(0.1, 2, 0.1),
                                        new Point(3.9, 2.2, 3.9),
                                        new Sampling.Even(400),
                                        Abscissa.ARC))))
                .withReadings(l -> IntStream.range(0, asks.size())
                        .mapToObj(i -> new Reading("r" + i, "r" + i, "", asks.get(i)))
                        .toList());
    }

    @TearDown
    public void away() throws IOException {
        try (var all = Files.walk(folder)) {
            all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }

    /** All readings in one go. */
    @Benchmark
    public Results pieceByPiece() {
        Results made = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
        made.study().readings().forEach(r -> {
            Outcome of = made.outcome(r.id(), "lagoon");
            if (of instanceof Outcome.Absent a) {
                throw new IllegalStateException(r.id() + ": " + a.reason());
            }
            of.scalars()
                    .forEach(s -> System.out.println(
                            r.id() + " " + s.what() + " " + s.estimate().value() + " " + s.remark()));
        });
        return made;
    }
}
