package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Memo;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceIntegral;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.BalanceOf.Term;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Balances over boxes: what closes them, what opens them, and their signed terms. */
class BalanceTest {
    private static final Flow FLOW = new Flow("u", 2, "kg/m3", Carried.NOTHING, Axis.Z);

    /** A box whose boundary is cut into low x, high x and sides, by the place of the faces. */
    private static Run run(Function<double[], double[]> velocity) {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 3, 2}, new double[] {2, 1, 1}, 0, 1);
        double[] u = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double[] x = {mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2]};
            System.arraycopy(velocity.apply(x), 0, u, 3 * i, 3);
        }
        var builder = new PartBuilder(mesh);
        Part whole = builder.whole("all");
        int[] kind = new int[whole.surface().cellCount()];
        for (int f = 0; f < kind.length; f++) {
            double least = Double.MAX_VALUE;
            double most = -Double.MAX_VALUE;
            for (int k = 0; k < 4; k++) {
                double x = whole.surface()
                        .xyz()[3 * whole.surface().nodes()[whole.surface().begin(f) + k]];
                least = Math.min(least, x);
                most = Math.max(most, x);
            }
            kind[f] = most < 1e-9 ? 0 : least > 2 - 1e-9 ? 1 : 2;
        }
        List<Part> parts = List.of(
                some(builder, whole, kind, 0, "in"),
                some(builder, whole, kind, 1, "out"),
                some(builder, whole, kind, 2, "sides"));
        return new Run(
                mesh,
                List.of(new Field("u", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(u))),
                parts,
                List.of(),
                List.of());
    }

    private static Part some(PartBuilder builder, Part whole, int[] kind, int wanted, String name) {
        Mesh s = whole.surface();
        int n = (int) java.util.Arrays.stream(kind).filter(k -> k == wanted).count();
        int[] nodes = new int[4 * n];
        int at = 0;
        for (int f = 0; f < kind.length; f++) {
            if (kind[f] == wanted) {
                System.arraycopy(s.nodes(), s.begin(f), nodes, at, 4);
                at += 4;
            }
        }
        return builder.place(name, Mesh.uniform(s.xyz(), CellShape.QUAD, nodes), List.of());
    }

    private static EvaluationContext lens() {
        return EvaluationContext.of(
                List.of(new Quantity("u", "velocity", "u", Component.ALL, "")),
                List.of(new FieldUnit("u", "m/s", true)),
                Axis.Z);
    }

    private static Balance read(Run run, List<Term> terms, String... closedBy) {
        return BalanceReader.read(
                run,
                new Reading("b", "mass", "", new BalanceOf(terms, List.of(closedBy), "positive adds")),
                s -> List.of(run.part(s)),
                lens(),
                Provenance.EMPTY,
                Memo.NONE);
    }

    private static Term term(String part, int sign) {
        return new Term(part, sign, List.of(part), FLOW);
    }

    @Test
    void theResidualIsTheSumOfTheSignedTerms() {
        Balance b = read(run(x -> new double[] {3, 0, 0}), List.of(term("in", -1), term("out", -1)), "sides");
        assertThat(b.terms().get(0).value()).isCloseTo(6, within(1e-13));
        assertThat(b.terms().get(1).value()).isCloseTo(-6, within(1e-13));
        assertThat(b.residual()).isCloseTo(0, within(1e-13));
        assertThat(b.scale()).isCloseTo(6, within(1e-13));
        assertThat(b.unit().label()).isEqualTo("kg/s");
    }

    @Test
    void aSourceInsideShowsAsResidual() {
        // div u = 5, volume 2, density 2.
        Run run = run(x -> new double[] {5 * x[0], 0, 0});
        Balance b = read(run, List.of(term("in", 1), term("out", 1), term("sides", 1)));
        assertThat(b.residual()).isCloseTo(20, within(1e-12));
        assertThat(b.relative()).isCloseTo(1, within(1e-12));
    }

    @Test
    void aTubeWithoutItsSidesIsOpenThoughItsAreaVectorsCancel() {
        Run run = run(x -> new double[] {3, 0, 0});
        assertThat(new SurfaceIntegral(run, List.of(run.part("in"), run.part("out")), lens(), Memo.NONE).closure())
                .isLessThan(1e-15);
        assertThatThrownBy(() -> read(run, List.of(term("in", 1), term("out", 1))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("is open: 20 edges of its parts have no neighbour")
                .hasMessageContaining("it lacks sides");
        assertThatThrownBy(() -> read(run, List.of(term("in", 1)), "sides"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("is open: 10 edges")
                .hasMessageContaining("it lacks out");
    }

    @Test
    void aBalanceWithoutTermsAndOneOfMixedUnitsAreRefused() {
        Run run = run(x -> new double[] {3, 0, 0});
        assertThatThrownBy(() -> read(run, List.of(), "in", "out", "sides"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("has no terms");
        var area = new Term("area", 1, List.of("out"), new Area());
        assertThatThrownBy(() -> read(run, List.of(term("in", 1), area), "sides"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("Term \"area\"");
        assertThatThrownBy(() -> new Term("x", 2, List.of("in"), FLOW))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("give 1 or -1");
    }
}
