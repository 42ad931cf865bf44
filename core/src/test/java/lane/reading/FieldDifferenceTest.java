package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Values of a run at the places of another's mesh: exact for fields that the cells hold exactly. */
class FieldDifferenceTest {
    private static final Quantity T = new Quantity("t", "T", "T", "", "");

    private static Run run(CellShape shape, int n, double size, boolean byNode, double slope, double more) {
        Mesh mesh = BoxMesh.of(shape, new int[] {n, n + 1, n + 2}, new double[] {size, size, size}, 0.2, n);
        double[] at = byNode ? mesh.xyz() : lane.transfer.MeshTransfer.centres(mesh);
        double[] v = new double[at.length / 3];
        for (int i = 0; i < v.length; i++) {
            v[i] = slope * (at[3 * i] + 2 * at[3 * i + 1] - at[3 * i + 2]) + more;
        }
        return new Run(
                mesh,
                List.of(new Field("T", byNode ? Field.At.NODE : Field.At.CELL, 1, Unit.of("K"), Values.of(v))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
    }

    private static EvaluationContext lens() {
        return EvaluationContext.of(List.of(T), List.of(), Axis.Z);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"HEXAHEDRON", "TETRAHEDRON", "WEDGE", "PYRAMID"})
    void aLinearFieldIsTakenToAnotherMeshExactly(CellShape shape) {
        Run of = run(shape, 4, 1, true, 3, 7);
        Run datum = run(CellShape.HEXAHEDRON, 3, 1, true, 2, 0);
        FieldDifference.Result made = FieldDifference.difference(of, datum, T, lens(), Work.QUIET);
        assertThat(made.outside()).isZero();
        assertThat(made.run().mesh()).isSameAs(datum.mesh());
        assertThat(made.run().parts()).extracting(p -> p.name()).containsExactly("skin");
        Field d = made.run().field(FieldDifference.DIFFERENCE).orElseThrow();
        double[] x = datum.mesh().xyz();
        for (int i = 0; i < d.size(); i++) {
            double exact = x[3 * i] + 2 * x[3 * i + 1] - x[3 * i + 2] + 7;
            assertThat(d.values().get(i)).isCloseTo(exact, within(1e-10));
        }
    }

    @Test
    void aDatumInCellsIsComparedAtTheMiddlesOfItsCells() {
        Run of = run(CellShape.HEXAHEDRON, 4, 1, true, 3, 7);
        Run datum = run(CellShape.TETRAHEDRON, 3, 1, false, 3, 0);
        FieldDifference.Result made = FieldDifference.difference(of, datum, T, lens(), Work.QUIET);
        Field d = made.run().field(FieldDifference.DIFFERENCE).orElseThrow();
        assertThat(d.at()).isEqualTo(Field.At.CELL);
        assertThat(d.size()).isEqualTo(datum.mesh().cellCount());
        for (int i = 0; i < d.size(); i++) {
            assertThat(d.values().get(i)).isCloseTo(7, within(1e-10));
        }
    }

    @Test
    void whatLiesOutsideIsAbsentAndCounted() {
        Run of = run(CellShape.HEXAHEDRON, 3, 0.5, true, 3, 7);
        Run datum = run(CellShape.HEXAHEDRON, 4, 1, true, 3, 0);
        FieldDifference.Result made = FieldDifference.difference(of, datum, T, lens(), Work.QUIET);
        Field d = made.run().field(FieldDifference.DIFFERENCE).orElseThrow();
        double[] x = datum.mesh().xyz();
        int outside = 0;
        for (int i = 0; i < d.size(); i++) {
            boolean in = Math.max(x[3 * i], Math.max(x[3 * i + 1], x[3 * i + 2])) <= 0.5;
            outside += in ? 0 : 1;
            if (in) {
                assertThat(d.values().get(i)).isCloseTo(7, within(1e-10));
            } else {
                assertThat(d.values().get(i)).isNaN();
            }
        }
        assertThat(made.outside()).isCloseTo((double) outside / d.size(), within(1e-15));
    }

    /** A field that bends: the error of trilinear cells falls with the square of their size. */
    @Test
    void theErrorOnASmoothFieldFallsWithTheSquareOfTheCells() {
        double[] error = new double[3];
        for (int k = 0; k < 3; k++) {
            int n = 4 << k;
            Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {n, n, n}, new double[] {1, 1, 1}, 0, 0);
            double[] v = new double[mesh.nodeCount()];
            for (int i = 0; i < v.length; i++) {
                v[i] = Math.sin(3 * mesh.xyz()[3 * i]);
            }
            Run of = new Run(
                    mesh,
                    List.of(new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(v))),
                    List.of(),
                    List.of(),
                    List.of());
            Mesh places = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {7, 7, 7}, new double[] {1, 1, 1}, 0.2, 1);
            double[] got = FieldDifference.values(of, places.xyz(), T, lens(), Work.QUIET)
                    .value();
            for (int i = 0; i < got.length; i++) {
                error[k] = Math.max(error[k], Math.abs(got[i] - Math.sin(3 * places.xyz()[3 * i])));
            }
        }
        assertThat(Math.log(error[0] / error[2]) / Math.log(4)).isBetween(1.8, 2.3);
    }

    @Test
    void aRunWithoutTheFieldIsToldInOneSentence() {
        Run bare = run(CellShape.HEXAHEDRON, 2, 1, true, 1, 0);
        Run none = new Run(bare.mesh(), List.of(), List.of(), List.of(), List.of());
        assertThatThrownBy(() -> FieldDifference.difference(none, bare, T, lens(), Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no field \"T\"");
    }

    @Test
    void workCanBeCancelled() {
        Run of = run(CellShape.HEXAHEDRON, 8, 1, true, 3, 7);
        Run datum = run(CellShape.HEXAHEDRON, 8, 1, true, 2, 0);
        Work stop = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> FieldDifference.difference(of, datum, T, lens(), stop))
                .isInstanceOf(java.util.concurrent.CancellationException.class);
    }
}
