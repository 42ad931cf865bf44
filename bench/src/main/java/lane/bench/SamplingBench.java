package lane.bench;

import java.util.Random;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.mesh.BoxMesh;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Topology;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Sampling;
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

/** Finding cells in a mesh of about a million: building the locator, a line, and a million points in random order. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx8g", "-XX:+UseParallelGC"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class SamplingBench {
    @Param({"HEXAHEDRON", "TETRAHEDRON"})
    public String shape;

    private Mesh mesh;
    private CellLocator locator;
    private double[] points;

    @Setup
    public void setup() {
        int n = shape.equals("HEXAHEDRON") ? 100 : 55;
        mesh = BoxMesh.of(CellShape.valueOf(shape), new int[] {n, n, n}, new double[] {1, 1, 1}, 0.2, 1);
        locator = new CellLocator(mesh);
        points = new Random(2).doubles(3_000_000).toArray();
    }

    @Benchmark
    public CellLocator buildLocator() {
        return new CellLocator(mesh);
    }

    @Benchmark
    public Placement line201() {
        var line = new Line(
                new Point(0.01, 0.02, 0.03), new Point(0.99, 0.97, 0.98), new Sampling.Even(201), Abscissa.ARC);
        return Placer.path(locator, line, Work.QUIET);
    }

    @Benchmark
    public Placement lineCellExact() {
        var line = new Line(
                new Point(0.01, 0.02, 0.03), new Point(0.99, 0.97, 0.98), new Sampling.CellExact(), Abscissa.ARC);
        return Placer.path(locator, line, Work.QUIET);
    }

    @Benchmark
    public Placement millionRandomPoints() {
        return Placer.points(locator, points, Work.QUIET);
    }

    @Benchmark
    public Topology.Boundary boundary() {
        return Topology.boundary(mesh);
    }
}
