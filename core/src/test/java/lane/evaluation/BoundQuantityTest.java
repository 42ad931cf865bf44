package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Meaning;
import lane.formula.Type;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** A quantity is made ready once for all who ask of the same run by the same definitions, and anew wherever it may be another. */
class BoundQuantityTest {
    private static final Quantity HALF = new Quantity("half", "half", "moisture / 2", "", "");
    private static final Quantity QUARTER = new Quantity("quarter", "quarter", "half / 2", "", "");

    private static Run run(double moisture) {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);
        double[] values = new double[mesh.nodeCount()];
        java.util.Arrays.fill(values, moisture);
        return new Run(
                mesh,
                List.of(new Field("moisture", Field.At.NODE, 1, Unit.of("g/m3"), Values.of(values))),
                List.of(),
                List.of(),
                List.of());
    }

    private static EvaluationContext lens(String unit, Beyond beyond, Quantity... quantities) {
        List<FieldUnit> units = unit.isBlank() ? List.of() : List.of(new FieldUnit("moisture", unit, true));
        return EvaluationContext.of(List.of(quantities), units, Axis.Z, beyond);
    }

    private static double value(Run run, Quantity quantity, EvaluationContext lens) {
        return BoundQuantity.of(run, quantity, lens).onMesh()[0][0];
    }

    @Test
    void itIsTheSameForWhoAsksAgain() {
        Run run = run(8);
        EvaluationContext lens = lens("", Beyond.NONE, HALF, QUARTER);
        BoundQuantity ready = BoundQuantity.of(run, QUARTER, lens);
        assertThat(BoundQuantity.of(run, QUARTER, lens)).isSameAs(ready);
        assertThat(BoundQuantity.of(run, QUARTER, lens.with(new Beyond() {}))).isSameAs(ready);
        assertThat(ready.onMesh()[0][0]).isCloseTo(0.002, within(1e-15));
    }

    @Test
    void anotherRunUnitOrDefinitionGivesAnotherNumber() {
        Run run = run(8);
        EvaluationContext lens = lens("", Beyond.NONE, HALF, QUARTER);
        assertThat(value(run, QUARTER, lens)).isCloseTo(0.002, within(1e-15));
        assertThat(value(run(4), QUARTER, lens)).isCloseTo(0.001, within(1e-15));
        assertThat(value(run, QUARTER, lens("kg/m3", Beyond.NONE, HALF, QUARTER)))
                .isCloseTo(2, within(1e-12));
        Quantity third = new Quantity("half", "half", "moisture / 3", "", "");
        assertThat(value(run, QUARTER, lens("", Beyond.NONE, third, QUARTER))).isCloseTo(0.008 / 6, within(1e-15));
        Quantity own = new Quantity("quarter", "quarter", "half / 8", "", "");
        assertThat(value(run, own, lens)).isCloseTo(0.0005, within(1e-15));
        assertThat(value(run, QUARTER, lens)).isCloseTo(0.002, within(1e-15));
    }

    @Test
    void whatLooksBeyondTheRunIsLookedUpAnew() {
        Run run = run(8);
        var asked = new AtomicInteger();
        Beyond beyond = new Beyond() {
            @Override
            public @Nullable Found reading(Run on, String name, EvaluationContext lens) {
                return name.equals("dryness")
                        ? new Found(
                                new Meaning.Known(new double[] {asked.incrementAndGet()}, Type.of(1, Unit.ONE)),
                                "",
                                Provenance.EMPTY)
                        : null;
            }
        };
        Quantity dry = new Quantity("dry", "dry", "moisture * dryness", "", "");
        EvaluationContext lens = lens("", beyond, HALF, dry);
        assertThat(value(run, dry, lens)).isCloseTo(0.008 * asked.get(), within(1e-12));
        int before = asked.get();
        assertThat(value(run, dry, lens)).isCloseTo(0.008 * asked.get(), within(1e-12));
        assertThat(asked.get()).isGreaterThan(before);
    }
}
