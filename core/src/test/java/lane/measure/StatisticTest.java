package lane.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Statistic.What;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.reading.Tally;
import lane.reading.TallyReader;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Placer;
import lane.station.Sampling;
import lane.station.Station;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How values are spread in a kiln of 2 x 3 x 1 m, of 4 x 3 x 2 cells, against exact numbers. */
class StatisticTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 3, 2}, new double[] {2, 3, 1}, 0, 1);
    private static final int[] ALL = IntStream.range(0, MESH.cellCount()).toArray();
    private static final Run RUN = run();
    private static final EvaluationContext LENS = EvaluationContext.of(
            List.of(
                    new Quantity("x", "x", "a", "", ""),
                    new Quantity("turned", "turned", "-a", "", ""),
                    new Quantity("odd", "odd", "a - 1 \"m\"", "", ""),
                    new Quantity("low", "low", "a < 0.5 \"m\"", "", ""),
                    new Quantity("hot", "hot", "300 \"K\" + 10 * a * 1 \"K/m\"", "degF", "")),
            List.of(),
            Axis.Z);

    private static Run run() {
        double[] number = new double[MESH.cellCount()];
        double[] x = new double[MESH.nodeCount()];
        for (int i = 0; i < number.length; i++) {
            number[i] = i == 7 ? Double.NaN : i;
        }
        double[] whole = IntStream.range(0, number.length).asDoubleStream().toArray();
        for (int i = 0; i < x.length; i++) {
            x[i] = MESH.xyz()[3 * i];
        }
        return new Run(
                MESH,
                List.of(
                        new Field("n", Field.At.CELL, 1, Unit.of("Pa"), Values.of(number)),
                        new Field("w", Field.At.CELL, 1, Unit.of("Pa"), Values.of(whole)),
                        new Field("a", Field.At.NODE, 1, Unit.of("m"), Values.of(x))),
                List.of(new PartBuilder(MESH).whole("skin")),
                List.of(),
                List.of());
    }

    private static Tally region(What what, String quantity, double share) {
        return TallyReader.read(RUN, ALL, new Statistic(what, quantity, share), "all", LENS, "", Provenance.EMPTY);
    }

    private static double skin(What what, String quantity, double share) {
        return TallyReader.read(
                        RUN, RUN.parts(), new Statistic(what, quantity, share), LENS, "", Provenance.EMPTY, Memo.NONE)
                .value();
    }

    @ParameterizedTest
    @CsvSource({
        // Even between 0 and 2.
        "DEVIATION, x, 0, 0.5773502691896258",
        "DEVIATION, turned, 0, 0.5773502691896258",
        "UNIFORMITY, x, 0, 0.75",
        "UNIFORMITY, turned, 0, 0.75",
        "SHARE, low, 0, 0.25",
        // 24 cells of one size, 0 to 23.
        "PERCENTILE, w, 0, 0",
        "PERCENTILE, w, 0.5, 11",
        "PERCENTILE, w, 0.51, 12",
        "PERCENTILE, w, 0.95, 22",
        "PERCENTILE, w, 1, 23",
    })
    void overARegion(What what, String quantity, double share, double expected) {
        assertThat(region(what, quantity, share).value()).isCloseTo(expected, within(1e-12));
    }

    @Test
    void overASurfaceAndALine() {
        // Two faces of 3 m2 at x = 0 and 2, and 16 m2 over which x is even.
        assertThat(skin(What.DEVIATION, "x", 0)).isCloseTo(Math.sqrt((6 + 16 / 3.0) / 22), within(1e-12));
        assertThat(skin(What.SHARE, "low", 0)).isCloseTo((3 + 4) / 22.0, within(1e-12));
        assertThat(skin(What.PERCENTILE, "x", 0.1)).isCloseTo(0, within(1e-12));
        assertThat(skin(What.PERCENTILE, "turned", 0.1)).isCloseTo(-2, within(1e-12));
        var line = new Line(new Point(0, 1.5, 0.5), new Point(2, 1.5, 0.5), new Sampling.Even(2001), Abscissa.ARC);
        Tally half = TallyReader.read(
                RUN,
                Placer.path(RUN.locator(), line, Work.QUIET),
                new Station("l", "l", line),
                new Statistic(What.PERCENTILE, "x", 0.5),
                LENS,
                "",
                Provenance.EMPTY);
        assertThat(half.value()).isCloseTo(1, within(1e-3));
    }

    @Test
    void unitsAndWords() {
        Tally deviation = region(What.DEVIATION, "hot", 0);
        // Of temperatures a deviation is a difference: 5.77 K are 10.39 in degF, with no offset.
        assertThat(deviation.unit().fromSi(deviation.value())).isCloseTo(1.8 * 10 / Math.sqrt(3), within(1e-9));
        assertThat(new Statistic(What.PERCENTILE, "x", 0.995).word()).isEqualTo("percentile at 99.5 % of x");
        assertThat(region(What.PERCENTILE, "hot", 1).unit().label()).isEqualTo("degF");
        assertThat(region(What.UNIFORMITY, "x", 0).unit()).isEqualTo(Unit.ONE);
    }

    @Test
    void whatIsAbsentOrHasNoMeaningIsTold() {
        // One cell has no number: nothing is said of all.
        assertThat(region(What.DEVIATION, "n", 0).value()).isNaN();
        assertThat(region(What.PERCENTILE, "n", 0.5).value()).isNaN();
        assertThatThrownBy(() -> region(What.UNIFORMITY, "odd", 0))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("is zero here");
        assertThatThrownBy(() -> region(What.SHARE, "x", 0)).hasMessageContaining("\"x\" is a number");
        assertThatThrownBy(() -> region(What.DEVIATION, "low", 0)).hasMessageContaining("is a condition");
        assertThatThrownBy(() -> new Statistic(What.PERCENTILE, "x", 1.5)).hasMessageContaining("0 to 1");
    }
}
