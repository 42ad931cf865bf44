package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Level;
import lane.cut.Slicer;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Extreme;
import lane.measure.Measured;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What is made of fields is known at the nodes of a cut, as it is in the cells around. */
class PartNodesTest {
    /** How an evaluation sees quantities, gradients among them. */
    private static EvaluationContext lens(Run run) {
        var library = new Library() {
            @Override
            public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                return run;
            }

            @Override
            public Table table(String file, List<Recipe> recipes) {
                throw new LaneException("There is no table.");
            }
        };
        Study study = Study.empty("bog")
                .withSources(l -> List.of(new Source.Simulation("run", "run", "run.vtu", List.of(), "", "")))
                .withQuantities(l -> List.of(
                        new Quantity("warm", "warm", "warm", "", ""),
                        new Quantity("slope", "slope", "norm(grad(warm))", "", ""),
                        new Quantity("mixed", "mixed", "warm + grad(warm).x * 1 \"m\" - x * 2 \"K/m\"", "", "")));
        return new Evaluator(library).evaluate(study, Work.QUIET).lens();
    }

    /** A peat bog: warmth grows by 2, -3 and 6 kelvin a metre. */
    private static Run bog(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 3, 3}, new double[] {2, 1, 1.5}, 0.15, 6);
        double[] warm = new double[mesh.nodeCount()];
        for (int i = 0; i < warm.length; i++) {
            warm[i] = 280 + 2 * mesh.xyz()[3 * i] - 3 * mesh.xyz()[3 * i + 1] + 6 * mesh.xyz()[3 * i + 2];
        }
        return new Run(
                mesh,
                List.of(new Field("warm", Field.At.NODE, 1, Unit.of("K"), Values.of(warm))),
                List.of(new PartBuilder(mesh).whole("bank")),
                List.of(),
                List.of());
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON"})
    void aGradientIsKnownAtTheNodesOfASection(CellShape shape) {
        Run run = bog(shape);
        EvaluationContext lens = lens(run);
        Cut cut = Slicer.cut(
                run.mesh(), Level.plane(run.mesh(), new Point(0.9, 0.5, 0.7), new Point(1, 2, -1)), Work.QUIET);
        for (Part part : List.of(
                cut.part("cut", run, List.of("warm")),
                cut.part("bare", run, List.of()),
                run.parts().getFirst())) {
            SurfaceValues slope = SurfaceValues.of(run, part, lens.quantity("slope"), lens);
            assertThat(slope.byNode()).isTrue();
            assertThat(slope.exact()).hasSize(part.surface().nodeCount());
            SurfaceValues mixed = SurfaceValues.of(run, part, lens.quantity("mixed"), lens);
            SurfaceValues warm = SurfaceValues.of(run, part, lens.quantity("warm"), lens);
            for (int i = 0; i < slope.exact().length; i++) {
                double[] x = part.surface().xyz();
                String where = shape + ", " + part.name() + ", node " + i;
                assertThat(slope.exact()[i]).as(where).isCloseTo(7, within(1e-9));
                double expected = 280 - 3 * x[3 * i + 1] + 6 * x[3 * i + 2];
                assertThat(warm.exact()[i]).as(where).isCloseTo(expected + 2 * x[3 * i], within(1e-9));
                assertThat(mixed.exact()[i]).as(where).isCloseTo(expected + 2, within(1e-9));
            }
            for (boolean greatest : List.of(true, false)) {
                Measured m =
                        new Extreme("slope", greatest).over(new SurfaceIntegral(run, List.of(part), lens, Memo.NONE));
                assertThat(m.value()).as(part.name()).isCloseTo(7, within(1e-9));
            }
        }
    }

    /** Faces that are none of the run's have no values there, and none by chance. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON"})
    void whatLiesElsewhereStaysAbsent(CellShape shape) {
        Run run = bog(shape);
        EvaluationContext lens = lens(run);
        Mesh far = Mesh.uniform(new double[] {9, 9, 9, 10, 9, 9, 9, 10, 9}, CellShape.TRIANGLE, new int[] {0, 1, 2});
        Part elsewhere = new PartBuilder(run.mesh()).place("elsewhere", far, List.of());
        assertThat(elsewhere.unmatched()).isEqualTo(1);
        assertThat(SurfaceValues.of(run, elsewhere, lens.quantity("warm"), lens).exact())
                .containsOnly(Double.NaN);
        assertThat(SurfaceValues.of(run, elsewhere, lens.quantity("slope"), lens)
                        .exact())
                .containsOnly(Double.NaN);
    }
}
