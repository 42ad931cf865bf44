package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.Shelf;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.FileLibrary;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.study.Source;
import lane.unit.Unit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** A run of 216 000 hexahedra over forty times, packed: what its first time costs, and what each further one does. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx4g", "-XX:+UseParallelGC"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class RecordingBench {
    private static final int TIMES = 40;

    private Path folder;
    private Source.Simulation source;
    private FileLibrary open;
    private int next;

    @Setup
    public void setup() throws IOException {
        folder = Files.createTempDirectory("recording");
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {60, 60, 60}, new double[] {1, 1, 1}, 0.1, 1);
        for (int t = 0; t < TIMES; t++) {
            double[] v = new double[mesh.nodeCount()];
            for (int i = 0; i < v.length; i++) {
                v[i] = Math.sin(1e-3 * i + t);
            }
            String name = "step_" + t + ".vtu";
            VtkXmlWriter.writeGrid(
                    folder.resolve(name),
                    mesh,
                    List.of(new Field("T", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(v))),
                    VtkXmlWriter.Options.DEFAULT);
        }
        source = new Source.Simulation("s", "s", "step_*.vtu", List.of(), "", "f");
        open = new FileLibrary(folder);
        another();
    }

    private Run run(FileLibrary library, int t) {
        return library.run(source, new TimeSelector.At(t, 0), Work.QUIET);
    }

    /** From nothing to a located and bounded run. */
    @Benchmark
    public Object first() {
        return run(new FileLibrary(folder), 0).locator();
    }

    /** Another time of the open run. */
    @Benchmark
    public Run another() {
        next = (next + 1) % TIMES;
        return run(open, next);
    }

    /** Another time, and every value of its field. */
    @Benchmark
    public double anotherWithField() {
        Shelf.limit(1);
        return another().field("T").orElseThrow().values().get(7);
    }
}
