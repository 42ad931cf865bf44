package lane.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.base.Parallel;
import lane.base.Work;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Gradient;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Program;
import lane.measure.Integral;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.TallyReader;
import lane.unit.Unit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Formulas over ten million nodes against a loop written by hand over the same arrays, and gradients. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = "-Xmx8g")
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class FormulaBench {
    private static final int MANY = 10_000_000;

    /** Ten million nodes with a velocity, a density and a pressure; one cell is enough of a mesh. */
    @State(Scope.Benchmark)
    public static class Ten {
        double[] u;
        double[] rho;
        double[] p;
        BoundQuantity short1;
        BoundQuantity long1;

        @Setup(Level.Trial)
        public void setup() {
            u = new double[3 * MANY];
            rho = new double[MANY];
            p = new double[MANY];
            for (int i = 0; i < MANY; i++) {
                u[3 * i] = i % 17;
                u[3 * i + 1] = i % 5;
                u[3 * i + 2] = 1;
                rho[i] = 800 + i % 90;
                p[i] = 1 + i % 1000;
            }
            Mesh mesh = Mesh.uniform(new double[3 * MANY], CellShape.TRIANGLE, new int[] {0, 1, 2});
            Run run = new Run(
                    mesh,
                    List.of(field("u", 3, "m/s", u), field("rho", 1, "kg/m3", rho), field("p", 1, "Pa", p)),
                    List.of(),
                    List.of(),
                    List.of());
            short1 = ready(run, "p + 0.5 * rho * dot(u, u)");
            long1 = ready(run, "sqrt(p / rho) * exp(-norm(u) / 10 \"m/s\")");
        }

        private static Field field(String name, int components, String unit, double[] v) {
            return new Field(name, Field.At.NODE, components, Unit.of(unit), Values.of(v));
        }

        private static BoundQuantity ready(Run run, String formula) {
            var q = new Quantity("q", "q", formula, "", "");
            return BoundQuantity.of(run, q, EvaluationContext.of(List.of(q), List.of(), Axis.Z));
        }
    }

    @Benchmark
    public double[][] totalPressure(Ten t) {
        return t.short1.onMesh();
    }

    @Benchmark
    public double[] totalPressureByHand(Ten t) {
        double[] out = new double[MANY];
        Parallel.forBlocks(MANY, 16 * Program.BLOCK, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                double x = t.u[3 * i];
                double y = t.u[3 * i + 1];
                double z = t.u[3 * i + 2];
                out[i] = t.p[i] + 0.5 * t.rho[i] * (x * x + y * y + z * z);
            }
        });
        return out;
    }

    @Benchmark
    public double[][] decay(Ten t) {
        return t.long1.onMesh();
    }

    @Benchmark
    public double[] decayByHand(Ten t) {
        double[] out = new double[MANY];
        Parallel.forBlocks(MANY, 16 * Program.BLOCK, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                double x = t.u[3 * i];
                double y = t.u[3 * i + 1];
                double z = t.u[3 * i + 2];
                out[i] = Math.sqrt(t.p[i] / t.rho[i]) * Math.exp(-Math.sqrt(x * x + y * y + z * z) / 10);
            }
        });
        return out;
    }

    /** About a million cells with a scalar. */
    @State(Scope.Benchmark)
    public static class Million {
        Mesh hexahedra;
        double[] atHexahedra;
        Mesh tetrahedra;
        double[] atTetrahedra;
        Run run;
        EvaluationContext lens;
        int[] cells;

        @Setup(Level.Trial)
        public void setup() {
            hexahedra = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {100, 100, 100}, new double[] {1, 1, 1}, 0.2, 1);
            tetrahedra = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {55, 55, 55}, new double[] {1, 1, 1}, 0.2, 1);
            atHexahedra = values(hexahedra);
            atTetrahedra = values(tetrahedra);
            run = new Run(
                    tetrahedra,
                    List.of(new Field("T", Field.At.NODE, 1, Unit.of("Pa"), Values.of(atTetrahedra))),
                    List.of(),
                    List.of(),
                    List.of());
            lens = EvaluationContext.of(
                    List.of(new Quantity("q", "q", "T ^ 2 + T * 1 \"Pa\"", "", "")), List.of(), Axis.Z);
            cells = java.util.stream.IntStream.range(0, tetrahedra.cellCount()).toArray();
        }

        private static double[] values(Mesh mesh) {
            double[] out = new double[mesh.nodeCount()];
            for (int i = 0; i < out.length; i++) {
                out[i] = Math.sin(mesh.xyz()[3 * i]) * mesh.xyz()[3 * i + 1];
            }
            return out;
        }
    }

    @Benchmark
    public double[] gradientOfAMillionHexahedra(Million m) {
        return Gradient.atNodes(m.hexahedra, m.atHexahedra, 1);
    }

    @Benchmark
    public double[] gradientOfAMillionTetrahedra(Million m) {
        return Gradient.atNodes(m.tetrahedra, m.atTetrahedra, 1);
    }

    @Benchmark
    public Object integralOverAMillionTetrahedra(Million m) {
        Work.QUIET.poll();
        return TallyReader.read(m.run, m.cells, new Integral("q"), "all", m.lens, "", Provenance.EMPTY);
    }
}
