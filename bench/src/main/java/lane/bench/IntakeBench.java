package lane.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.vtk.VtkXmlReader;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
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

/** Reading a mesh of a million hexahedra with a vector field, against the disk cache and the inflater alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx8g", "-XX:+UseParallelGC"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class IntakeBench {
    private static final int BLOCK = 1 << 15;

    private Path raw;
    private Path packed;
    private List<byte[]> blocks;

    @Setup
    public void setup() throws IOException {
        Path folder = Files.createTempDirectory("intake");
        raw = folder.resolve("raw.vtu");
        packed = folder.resolve("packed.vtu");
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {100, 100, 100}, new double[] {1, 1, 1}, 0.1, 1);
        float[] u = new float[3 * mesh.nodeCount()];
        for (int i = 0; i < u.length; i++) {
            u[i] = (float) Math.sin(1e-3 * i);
        }
        var fields = List.of(new Field("u", Field.At.NODE, 3, Unit.UNKNOWN, new Values.Floats(u)));
        VtkXmlWriter.writeGrid(raw, mesh, fields, VtkXmlWriter.Options.UNPACKED);
        VtkXmlWriter.writeGrid(packed, mesh, fields, VtkXmlWriter.Options.DEFAULT);
        byte[] all = Files.readAllBytes(raw);
        blocks = new ArrayList<>();
        for (int at = 0; at < all.length; at += BLOCK) {
            var deflater = new Deflater();
            deflater.setInput(all, at, Math.min(BLOCK, all.length - at));
            deflater.finish();
            byte[] out = new byte[BLOCK + 1024];
            blocks.add(Arrays.copyOf(out, deflater.deflate(out)));
            deflater.end();
        }
    }

    /** The disk cache alone. */
    @Benchmark
    public byte[] cache() throws IOException {
        return Files.readAllBytes(raw);
    }

    @Benchmark
    public Dataset readRaw() {
        return VtkXmlReader.read(raw, Work.QUIET);
    }

    /** The inflater alone, on one core. */
    @Benchmark
    public long inflater() throws DataFormatException {
        byte[] out = new byte[BLOCK];
        long sum = 0;
        var inflater = new Inflater();
        for (byte[] block : blocks) {
            inflater.reset();
            inflater.setInput(block);
            sum += inflater.inflate(out);
        }
        inflater.end();
        return sum;
    }

    @Benchmark
    public Dataset readZlib() {
        return VtkXmlReader.read(packed, Work.QUIET);
    }
}
