package lane.bench;

import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.transfer.MeshTransfer;
import lane.transfer.Outside;
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
import org.openjdk.jmh.annotations.Warmup;

/** One field from half a million cells to another half million of another shape, the source's locator standing. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx8g", "-XX:+UseParallelGC"})
@Warmup(iterations = 1, time = 1)
@Measurement(iterations = 2, time = 1)
public class TransferBench {
    /** Shapes of source and target; cells of boxes stand straight, tetrahedra are shaken. */
    @Param({"VOXEL-TETRAHEDRON", "TETRAHEDRON-VOXEL", "VOXEL-VOXEL"})
    public String pair;

    private Run nodal;
    private Run stored;
    private Mesh target;

    @Setup
    public void meshes() {
        String[] shapes = pair.split("-");
        Mesh source = box(CellShape.valueOf(shapes[0]), 0);
        target = box(CellShape.valueOf(shapes[1]), 1);
        double[] x = source.xyz();
        double[] v = new double[source.nodeCount()];
        Arrays.setAll(v, i -> Math.sin(3 * x[3 * i]) + x[3 * i + 1] * x[3 * i + 2]);
        nodal = run(source, new Field("t", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(v)));
        double[] c = new double[source.cellCount()];
        Arrays.setAll(c, i -> i % 17);
        stored = run(source, new Field("t", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(c)));
        source.locator(Work.QUIET);
    }

    private static Mesh box(CellShape shape, int more) {
        int n = (shape == CellShape.TETRAHEDRON ? 44 : 79) + more;
        return BoxMesh.of(shape, new int[] {n, n, n}, new double[] {1, 1, 1}, 0.2, more);
    }

    private static Run run(Mesh mesh, Field field) {
        return new Run(mesh, List.of(field), List.of(), List.of(), List.of());
    }

    private Object made(Run run, boolean conservative, MeshTransfer.To to) {
        var wanted = new MeshTransfer.Wanted(conservative, to, new Outside.Absent(), false, false);
        return MeshTransfer.of(run, target, run.fields(), wanted, Work.QUIET);
    }

    @Benchmark
    public Object interpolated() {
        return made(nodal, false, MeshTransfer.To.NODES);
    }

    @Benchmark
    public Object interpolatedInCells() {
        return made(nodal, false, MeshTransfer.To.CELLS);
    }

    @Benchmark
    public Object conservativeFromCells() {
        return made(stored, true, MeshTransfer.To.CELLS);
    }

    @Benchmark
    public Object conservativeFromNodes() {
        return made(nodal, true, MeshTransfer.To.CELLS);
    }
}
