package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Flow along x between plates at z = 0 and 1; the upper one may move. The stress is given along x. */
class WallStressTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 4}, new double[] {1, 1, 1}, 0, 1);

    private static Field velocity(Field.At at, double lower, double upper) {
        boolean node = at == Field.At.NODE;
        int n = node ? MESH.nodeCount() : MESH.cellCount();
        double[] u = new double[3 * n];
        for (int i = 0; i < n; i++) {
            int layer = i / 4;
            double z = node ? MESH.xyz()[3 * i + 2] : (layer + 0.5) / 4;
            u[3 * i] = lower + (upper - lower) * z + 4 * z * (1 - z);
        }
        return new Field("u", at, 3, Unit.of("m/s"), Values.of(u));
    }

    private static Part part(double x, double y, double z, Field.At at) {
        Part skin = new PartBuilder(MESH).whole("skin");
        int n = at == Field.At.NODE
                ? skin.surface().nodeCount()
                : skin.surface().cellCount();
        double[] tau = new double[3 * n];
        for (int i = 0; i < n; i++) {
            tau[3 * i] = x;
            tau[3 * i + 1] = y;
            tau[3 * i + 2] = z;
        }
        return skin.with(List.of(new Field("tau", at, 3, Unit.of("Pa"), Values.of(tau))));
    }

    private static double along(Field velocity, Part part) {
        var fields = new ArrayList<Field>();
        if (velocity != null) {
            fields.add(velocity);
        }
        Run run = new Run(MESH, fields, List.of(part), List.of(), List.of(), List.of(), 0, Stated.NOTHING);
        return WallStress.alongFlow(run, "tau");
    }

    @ParameterizedTest
    @CsvSource({"NODE, NODE", "NODE, CELL", "CELL, NODE", "CELL, CELL"})
    void alongTheFlowItActsOnTheWallAgainstItOnTheFluid(Field.At of, Field.At stress) {
        Field u = velocity(of, 0, 0);
        assertThat(along(u, part(2, 0, 0, stress))).isCloseTo(1, within(1e-12));
        assertThat(along(u, part(-0.1, 0, 0, stress))).isCloseTo(-1, within(1e-12));
        assertThat(along(u, part(0, 1, 0, stress))).isCloseTo(0, within(1e-12));
        assertThat(along(u, part(3, 4, 0, stress))).isCloseTo(0.6, within(1e-12));
    }

    /** A plate that drags the fluid is braked by it: the flow relative to it counts, not the flow. */
    @Test
    void aMovingWallIsSeenFromTheWall() {
        Field dragged = velocity(Field.At.NODE, 0, 50);
        Part skin = new PartBuilder(MESH).whole("skin");
        double[] tau = new double[3 * skin.surface().nodeCount()];
        for (int i = 0; i < tau.length; i += 3) {
            // What the fluid does to the plates: it drags the lower one on and the upper one back.
            tau[i] = skin.surface().xyz()[i + 2] < 0.5 ? 1 : -1;
        }
        Part plates = skin.with(List.of(new Field("tau", Field.At.NODE, 3, Unit.of("Pa"), Values.of(tau))));
        assertThat(along(dragged, plates)).isGreaterThan(0.5);
    }

    @Test
    void withoutFlowOrStressNothingIsTold() {
        assertThat(along(null, part(1, 0, 0, Field.At.CELL))).isNaN();
        double[] none = new double[3 * MESH.nodeCount()];
        assertThat(along(
                        new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(none)),
                        part(1, 0, 0, Field.At.CELL)))
                .isNaN();
        assertThat(along(velocity(Field.At.NODE, 0, 0), new PartBuilder(MESH).whole("skin")))
                .isNaN();
        assertThat(along(
                        velocity(Field.At.NODE, 0, 0),
                        part(1, 0, 0, Field.At.CELL).with(Role.INLET)))
                .isNaN();
    }

    @Test
    void onlyVectorsOfPressureAreWallStresses() {
        assertThat(WallStress.is(new Field("t", Field.At.NODE, 3, Unit.of("kPa"), Values.of(new double[3]))))
                .isTrue();
        assertThat(WallStress.is(new Field("t", Field.At.NODE, 1, Unit.of("Pa"), Values.of(new double[3]))))
                .isFalse();
        assertThat(WallStress.is(new Field("t", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(new double[3]))))
                .isFalse();
        assertThat(WallStress.is(new Field("t", Field.At.NODE, 3, Unit.of("m/s"), Values.of(new double[3]))))
                .isFalse();
    }
}
