package lane.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Memo;
import lane.evaluation.EvaluationContext;
import lane.evaluation.StoredValues.At;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Stored.Take;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.Tally;
import lane.reading.TallyReader;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Counts and sums over a box of 4 x 3 x 2 cells, 2 x 3 x 1 m, against what is counted by hand. */
class StoredTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 3, 2}, new double[] {2, 3, 1}, 0, 1);
    private static final int[] ALL = IntStream.range(0, MESH.cellCount()).toArray();
    private static final Run RUN = run();
    private static final EvaluationContext LENS = EvaluationContext.of(
            List.of(
                    new Quantity("low", "low", "x < 1 \"m\"", "", ""),
                    new Quantity("ends", "ends", "abs(x - 1 \"m\") > 0.6 \"m\"", "", ""),
                    new Quantity("warm", "warm", "t", "degC", ""),
                    new Quantity("square", "square", "a ^ 2", "", ""),
                    new Quantity("never", "never", "x < -1 \"m\"", "", "")),
            List.of(),
            Axis.Z);

    private static Run run() {
        double[] number = new double[MESH.cellCount()];
        double[] kelvin = new double[number.length];
        double[] x = new double[MESH.nodeCount()];
        for (int i = 0; i < number.length; i++) {
            number[i] = i == 5 ? Double.NaN : i;
            kelvin[i] = 300 + i;
        }
        for (int i = 0; i < x.length; i++) {
            x[i] = MESH.xyz()[3 * i];
        }
        return new Run(
                MESH,
                List.of(
                        new Field("n", Field.At.CELL, 1, Unit.of("Pa"), Values.of(number)),
                        new Field("t", Field.At.CELL, 1, Unit.of("K"), Values.of(kelvin)),
                        new Field("a", Field.At.NODE, 1, Unit.of("m"), Values.of(x))),
                List.of(new PartBuilder(MESH).whole("skin")),
                List.of(),
                List.of());
    }

    private static Tally region(Measure measure) {
        return TallyReader.read(RUN, ALL, measure, "all", LENS, "", Provenance.EMPTY);
    }

    private static Tally region(Take take, At at, String quantity, String condition) {
        return region(new Stored(take, at, quantity, condition));
    }

    private static double skin(Take take, At at, String quantity, String condition) {
        var measure = new Stored(take, at, quantity, condition);
        return TallyReader.read(RUN, RUN.parts(), measure, LENS, "", Provenance.EMPTY, Memo.NONE)
                .value();
    }

    @ParameterizedTest
    @CsvSource({
        "COUNT, CELLS, , , 24",
        "COUNT, NODES, , , 60",
        // Of four cells along x the middles of two lie below 1 m, of five nodes two.
        "COUNT, CELLS, , low, 12",
        "COUNT, NODES, , low, 24",
        "COUNT, CELLS, , never, 0",
        "PIECES, CELLS, , , 1",
        "PIECES, CELLS, , ends, 2",
        "PIECES, NODES, , ends, 2",
        "PIECES, CELLS, , never, 0",
        // 0 to 23 without the one that is no number.
        "SUM, CELLS, n, , 271",
        "MEAN, CELLS, n, , 11.782608695652174",
        "SUM, NODES, a, , 60",
        "MEAN, NODES, a, low, 0.25",
        // A node field in a cell is the mean of its nodes.
        "SUM, CELLS, a, , 24",
        "INTEGRAL, CELLS, n, , 67.75",
        "SIZE_MEAN, CELLS, n, , 11.782608695652174"
    })
    void overCellsAndNodesOfARegion(Take take, At at, String quantity, String condition, double expected) {
        Tally made = region(take, at, quantity == null ? "" : quantity, condition == null ? "" : condition);
        assertThat(made.value()).isCloseTo(expected, within(1e-12));
    }

    @Test
    void whatIsLeftOutIsSaid() {
        assertThat(region(Take.SUM, At.CELLS, "n", "").note()).contains("1 of 24 values absent and left out");
        assertThat(region(Take.SUM, At.CELLS, "t", "").note()).doesNotContain("absent");
    }

    @Test
    void overFacesAndNodesOfASurface() {
        assertThat(skin(Take.COUNT, At.CELLS, "", "")).isEqualTo(2 * (12 + 8 + 6));
        assertThat(skin(Take.COUNT, At.NODES, "", "")).isEqualTo(60 - 3 * 2);
        assertThat(skin(Take.PIECES, At.CELLS, "", "ends")).isEqualTo(2);
        // One value a face, times its area: x at the middles of faces is exact for a linear field.
        assertThat(skin(Take.INTEGRAL, At.CELLS, "a", "")).isCloseTo(2 * (2 * 3 + 2 * 1) + 2 * 3, within(1e-12));
        assertThat(skin(Take.SIZE_MEAN, At.CELLS, "a", "")).isCloseTo(1, within(1e-12));
    }

    @Test
    void unitsFollowWhatIsDone() {
        assertThat(region(Take.COUNT, At.CELLS, "", "").unit()).isEqualTo(Unit.ONE);
        assertThat(region(Take.SUM, At.CELLS, "n", "").unit().symbol()).isEqualTo("Pa");
        assertThat(region(Take.INTEGRAL, At.CELLS, "n", "").unit().comparable(Unit.of("Pa m3")))
                .isTrue();
        Tally mean = region(Take.MEAN, At.CELLS, "warm", "");
        assertThat(mean.unit().fromSi(mean.value())).isCloseTo(311.5 - 273.15, within(1e-9));
        // A sum of temperatures is none: it is shown in kelvin, or degrees that begin at zero.
        assertThat(region(Take.SUM, At.CELLS, "warm", "").unit().offset()).isZero();
    }

    @Test
    void oneValueACellIsNotTheQuadrature() {
        assertThat(region(new Integral("square")).value()).isCloseTo(8, within(1e-12));
        // A node field in a cell is the mean of its nodes, squared: of x the middle, so short by h^2 / 12 a cell.
        double cells = region(Take.INTEGRAL, At.CELLS, "square", "").value();
        assertThat(cells).isCloseTo(8 - 3 * 2 * 0.25 / 12, within(1e-12));
    }

    @Test
    void whatHasNoMeaningIsRefusedWithTheWay() {
        assertThatThrownBy(() -> region(Take.SUM, At.NODES, "n", ""))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("take it over cells");
        assertThatThrownBy(() -> new Stored(Take.INTEGRAL, At.NODES, "n", "")).hasMessageContaining("take cells");
        assertThatThrownBy(() -> new Stored(Take.SUM, At.CELLS, "", "")).hasMessageContaining("needs a quantity");
        assertThatThrownBy(() -> region(Take.MEAN, At.CELLS, "n", "never")).hasMessageContaining("no value");
        assertThatThrownBy(() -> region(new Length())).hasMessageContaining("length");
    }
}
