package lane.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import lane.base.BoundedMemo;
import lane.base.Memo;
import lane.base.Parallel;
import lane.evaluation.EvaluationContext;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
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

/** Integrals over a million triangles of a boundary, and over a million cells. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx8g", "-XX:+UseParallelGC"})
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
public class IntegralBench {
    private Run slab;
    private Run alone;
    private List<Part> skin;
    private Run block;
    private int[] cells;
    private EvaluationContext lens;
    private final Memo memo = new BoundedMemo(1L << 30);

    private static Run run(Mesh mesh, Double... times) {
        double[] p = new double[mesh.nodeCount()];
        for (int i = 0; i < p.length; i++) {
            p[i] = Math.sin(mesh.xyz()[3 * i]) * mesh.xyz()[3 * i + 1];
        }
        var field = new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(p));
        return new Run(
                mesh,
                List.of(field),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of(),
                List.of(times),
                times[times.length - 1],
                Stated.NOTHING);
    }

    @Setup
    public void setup() {
        // A plate of 500 by 500 cubes: its two large sides have a million triangles.
        slab = run(
                BoxMesh.of(CellShape.TETRAHEDRON, new int[] {500, 500, 1}, new double[] {1, 1, 0.01}, 0.2, 1),
                0.0,
                1.0);
        alone = run(slab.mesh(), 0.0);
        skin = slab.parts();
        block = run(
                BoxMesh.of(CellShape.HEXAHEDRON, new int[] {100, 100, 100}, new double[] {1, 1, 1}, 0.2, 1), 0.0, 1.0);
        cells = IntStream.range(0, block.mesh().cellCount()).toArray();
        lens = EvaluationContext.of(
                List.of(
                        new Quantity("p", "p", "p", "", ""),
                        new Quantity("q", "q", "p ^ 2 + p * 1 \"Pa\"", "", ""),
                        new Quantity("e", "e", "sqrt(abs(p))", "", "")),
                List.of(),
                Axis.Z);
    }

    /** Two readings of a run of one time, which nobody asked anything before. */
    @Benchmark
    public double[] forceAndMoment() {
        return forceAndMoment(alone, new BoundedMemo(1L << 30));
    }

    /** What the resultant is small against where loads cancel. */
    @Benchmark
    public double sizeOfLoads() {
        var surface = new SurfaceIntegral(alone, alone.parts(), lens, new BoundedMemo(1L << 30));
        return new Loads("p", 0, "", Loads.On.WALL, Loads.On.WALL).size(surface);
    }

    /** The first time of a run: what nodes count is found out as well. */
    @Benchmark
    public double[] forceAndMomentFirst() {
        return forceAndMoment(slab, new BoundedMemo(1L << 30));
    }

    /** Another time. */
    @Benchmark
    public double[] forceAndMomentAgain() {
        return forceAndMoment(later(slab), memo);
    }

    /** Numbers that nobody saw before, on a mesh that is known. */
    private static Run later(Run run) {
        Field p = run.fields().getFirst();
        double[] then = ((Values.Doubles) p.values().now()).array().clone();
        var field = new Field(p.name(), p.at(), 1, p.unit(), Values.of(then));
        return run.with(List.of(field), run.parts(), List.of(), Stated.NOTHING);
    }

    private double[] forceAndMoment(Run run, Memo in) {
        var surface = new SurfaceIntegral(run, run.parts(), lens, in);
        var loads = new Loads("p", 0, "", Loads.On.WALL, Loads.On.WALL);
        return new double[] {
            new Force(loads, new Point(1, 0, 0)).over(surface).value(),
            new Moment(loads, Axis.Z).over(surface).value()
        };
    }

    /** The same two numbers by plain loops over triangles, without a formula, a compensated sum or a check. */
    @Benchmark
    public double[] forceAndMomentByHand() {
        Part part = skin.getFirst();
        double[] xyz = slab.mesh().xyz();
        double[] p = ((Values.Doubles) slab.fields().getFirst().values().now()).array();
        int[] nodes = part.surface().nodes();
        int[] of = part.node();
        int faces = part.surface().cellCount();
        double[][] partial = new double[Parallel.blocks(faces, 8192)][2];
        Parallel.forBlocks(faces, 8192, (block, from, to) -> {
            double force = 0;
            double moment = 0;
            for (int f = from; f < to; f++) {
                int a = 3 * of[nodes[3 * f]];
                int b = 3 * of[nodes[3 * f + 1]];
                int c = 3 * of[nodes[3 * f + 2]];
                double ux = xyz[b] - xyz[a];
                double uy = xyz[b + 1] - xyz[a + 1];
                double uz = xyz[b + 2] - xyz[a + 2];
                double vx = xyz[c] - xyz[a];
                double vy = xyz[c + 1] - xyz[a + 1];
                double vz = xyz[c + 2] - xyz[a + 2];
                double nx = (uy * vz - uz * vy) / 6;
                double ny = (uz * vx - ux * vz) / 6;
                for (int q = 0; q < 3; q++) {
                    double s = q == 1 ? 2.0 / 3 : 1.0 / 6;
                    double t = q == 2 ? 2.0 / 3 : 1.0 / 6;
                    double value = (1 - s - t) * p[a / 3] + s * p[b / 3] + t * p[c / 3];
                    double x = xyz[a] + s * ux + t * vx;
                    double y = xyz[a + 1] + s * uy + t * vy;
                    force += value * nx;
                    moment += value * (x * ny - y * nx);
                }
            }
            partial[block][0] = force;
            partial[block][1] = moment;
        });
        double[] out = new double[2];
        for (double[] one : partial) {
            out[0] += one[0];
            out[1] += one[1];
        }
        return out;
    }

    @Benchmark
    public double[] volumeIntegral() {
        return new RegionIntegral(block, cells, lens).sums(lens.quantity("p"));
    }

    /** As a reading takes it of a run that nobody asked anything before. */
    @Benchmark
    public double[] volumeIntegralFirst() {
        return new RegionIntegral(block, cells, lens)
                .keeping(new BoundedMemo(1L << 30))
                .sums(lens.quantity("p"));
    }

    /** Another time. */
    @Benchmark
    public double[] volumeIntegralAgain() {
        return new RegionIntegral(later(block), cells, lens).keeping(memo).sums(lens.quantity("p"));
    }

    @Benchmark
    public double[] volumeIntegralOfAProduct() {
        return new RegionIntegral(block, cells, lens).sums(lens.quantity("q"));
    }

    @Benchmark
    public double[] volumeIntegralOfARoot() {
        return new RegionIntegral(block, cells, lens).sums(lens.quantity("e"));
    }

    @Benchmark
    public double[] volume() {
        return new RegionIntegral(block, cells, lens).sums(null);
    }
}
