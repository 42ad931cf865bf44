package lane.bench;

import java.util.Random;
import java.util.concurrent.TimeUnit;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.CylinderCut;
import lane.cut.LaidSheet;
import lane.cut.Level;
import lane.cut.PlaneCut;
import lane.cut.Slicer;
import lane.cut.Streamlines;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Topology;
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

/** What is cut out of a million hexahedra. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx8g", "-XX:+UseParallelGC"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class CutBench {
    private static final Axis UPRIGHT = new Axis(new Point(0.503, 0.497, 0), new Point(0, 0, 1));
    private Mesh mesh;
    private CellLocator locator;
    private double[] ball;
    private Field turning;
    private Field scalar;
    private Cut section;
    private Mesh sheet;
    private double[] seeds;

    @Setup
    public void setup() {
        mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {100, 100, 100}, new double[] {1, 1, 1}, 0.2, 1);
        locator = new CellLocator(mesh);
        int n = mesh.nodeCount();
        ball = new double[n];
        double[] u = new double[3 * n];
        for (int i = 0; i < n; i++) {
            double x = mesh.xyz()[3 * i] - 0.5;
            double y = mesh.xyz()[3 * i + 1] - 0.5;
            double z = mesh.xyz()[3 * i + 2] - 0.5;
            ball[i] = Math.sqrt(x * x + y * y + z * z);
            u[3 * i] = -y;
            u[3 * i + 1] = x;
            u[3 * i + 2] = 0.1;
        }
        turning = new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(u));
        scalar = new Field("r", Field.At.NODE, 1, Unit.of("m"), Values.of(ball));
        section = planeSection();
        double[] xyz = new double[3 * 71 * 71];
        for (int i = 0; i < 71 * 71; i++) {
            xyz[3 * i] = 0.02 + 0.96 * (i % 71) / 70.0;
            int row = i / 71;
            xyz[3 * i + 1] = 0.02 + 0.96 * row / 70.0;
            xyz[3 * i + 2] = 0.5 + 0.3 * Math.sin(6 * xyz[3 * i]) * Math.cos(5 * xyz[3 * i + 1]);
        }
        int[] nodes = new int[6 * 70 * 70];
        for (int i = 0; i < 4900; i++) {
            int a = i / 70 * 71 + i % 70;
            System.arraycopy(new int[] {a, a + 1, a + 71, a + 1, a + 72, a + 71}, 0, nodes, 6 * i, 6);
        }
        sheet = Mesh.uniform(xyz, CellShape.TRIANGLE, nodes);
        seeds = new Random(2).doubles(6000, 0.1, 0.9).toArray();
    }

    @Benchmark
    public Cut planeSection() {
        return PlaneCut.of(locator, new Point(0.5, 0.5, 0.5), new Point(1, 2, 3), Work.QUIET);
    }

    @Benchmark
    public Values recolourSection() {
        return section.stencil().apply(scalar);
    }

    @Benchmark
    public Cut isosurface() {
        return Slicer.cut(mesh, Level.of(ball, 0.4), Work.QUIET);
    }

    @Benchmark
    public Topology.Boundary boundary() {
        return Topology.boundary(mesh);
    }

    @Benchmark
    public Streamlines streamlines2000() {
        return Streamlines.of(locator, turning, seeds, Streamlines.Way.FORWARD, 1e-5, 1, 0.02, Work.QUIET);
    }

    @Benchmark
    public LaidSheet conform9800() {
        return LaidSheet.conformed(locator, sheet, Work.QUIET);
    }

    /** A shell of forty cells across, its area exact. */
    @Benchmark
    public Cut shell() {
        return CylinderCut.of(locator, UPRIGHT, 0.2, 0.1, 0.9, Work.QUIET);
    }

    /** One whose radius is a fifth of a cell's width. */
    @Benchmark
    public Cut thinShell() {
        return CylinderCut.of(locator, UPRIGHT, 0.002, 0.1, 0.9, Work.QUIET);
    }
}
