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
import lane.evaluation.StoredValues.At;
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
        return region(new Statistic(what, quantity, share));
    }

    private static Tally region(Measure measure) {
        return TallyReader.read(RUN, ALL, measure, "all", LENS, "", Provenance.EMPTY);
    }

    private static double skin(What what, String quantity, double share) {
        return skin(new Statistic(what, quantity, share));
    }

    private static double skin(Measure measure) {
        return TallyReader.read(RUN, RUN.parts(), measure, LENS, "", Provenance.EMPTY, Memo.NONE)
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

    @ParameterizedTest
    @CsvSource({
        // Five sheets of nodes at 0, 0.5, ... 2 m, four of cells between them.
        "DEVIATION, x, 0, NODES, 0.7071067811865476",
        "DEVIATION, x, 0, CELLS, 0.5590169943749475",
        "DEVIATION, x, 0, SIZE, 0.5590169943749475",
        "UNIFORMITY, x, 0, NODES, 0.7",
        "UNIFORMITY, x, 0, CELLS, 0.75",
        "PERCENTILE, x, 0.5, NODES, 1",
        "PERCENTILE, x, 0.2, NODES, 0",
        "PERCENTILE, x, 1, CELLS, 1.75",
        "SHARE, low, 0, NODES, 0.2",
        "SHARE, low, 0, CELLS, 0.25",
        // Without the cell that has no number: 0 to 23 but 7.
        "PERCENTILE, n, 1, CELLS, 23",
        "DEVIATION, n, 0, CELLS, 7.005803697238056"
    })
    void ofValuesOneByOne(What what, String quantity, double share, By values, double expected) {
        Tally made = region(new Statistic(what, quantity, share, values));
        assertThat(made.value()).isCloseTo(expected, within(1e-9));
        assertThat(made.note()).contains(values.note());
        assertThat(made.note().contains("1 of 24 values absent and left out")).isEqualTo(quantity.equals("n"));
    }

    @Test
    void overASurfaceFacesCountBySizeOrAlike() {
        // Ends: 12 faces of 0.5 m2. Sides along y: 16 of 0.25 m2, along z 24 of 0.5 m2; of both a quarter is low.
        var share = new Statistic(What.SHARE, "low", 0);
        assertThat(skin(share.by(By.CELLS).orElseThrow())).isCloseTo((6 + 4 + 6) / 52.0, within(1e-12));
        assertThat(skin(share.by(By.SIZE).orElseThrow())).isCloseTo((3 + 1 + 3) / 22.0, within(1e-12));
    }

    @Test
    void whoseValuesTheyAreCanBeTurnedFromOneToAnother() {
        for (Measure m : List.of(
                new Mean("x"), new Integral("x"), new Extreme("x", true), new Statistic(What.DEVIATION, "x", 0))) {
            for (By other : By.values()) {
                m.by(other).ifPresent(there -> {
                    assertThat(there.by()).contains(other);
                    assertThat(there.quantities()).containsExactly("x");
                    assertThat(there.by(m.by().orElseThrow())).contains(m);
                });
            }
        }
        assertThat(new Mean("x").by(By.STORED)).isEmpty();
        assertThat(new Integral("x").by(By.NODES)).isEmpty();
        assertThat(new Area().by()).isEmpty();
        // What must hold is not dropped on the way.
        var warm = new Stored(Stored.Take.MEAN, At.CELLS, "x", "low");
        assertThat(warm.by(By.QUADRATURE)).isEmpty();
        assertThat(warm.by(By.NODES)).contains(new Stored(Stored.Take.MEAN, At.NODES, "x", "low"));
        assertThatThrownBy(() -> new Statistic(What.SHARE, "low", 0, By.STORED)).hasMessageContaining("over nodes");
    }

    @Test
    void aMeanIsAnotherNumberOverNodesAndSaysSo() {
        assertThat(region(new Mean("x")).note()).contains("by quadrature");
        Tally least = region(new Extreme("x", false).by(By.CELLS).orElseThrow());
        assertThat(least.value()).isEqualTo(0.25);
        assertThat(least.note()).contains("one value a cell", "at (0.25000, 0.50000, 0.25000) m");
        assertThat(region(new Extreme("turned", false).by(By.NODES).orElseThrow())
                        .value())
                .isEqualTo(-2);
    }

    @Test
    void alongALineThereAreNoCells() {
        var line = new Line(new Point(0, 1.5, 0.5), new Point(2, 1.5, 0.5), new Sampling.Even(5), Abscissa.ARC);
        assertThatThrownBy(() -> TallyReader.read(
                        RUN,
                        Placer.path(RUN.locator(), line, Work.QUIET),
                        new Station("l", "l", line),
                        new Statistic(What.DEVIATION, "x", 0, By.NODES),
                        LENS,
                        "",
                        Provenance.EMPTY))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no nodes");
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

    @Test
    void aUnitThatItsNameAloneStandsForIsSaidInTheTrail() {
        var kelvin = new Field("T", Field.At.CELL, 1, Unit.of("K"), Values.of(new double[MESH.cellCount()]));
        var run = new Run(MESH, List.of(kelvin), List.of(), List.of(), List.of());
        for (boolean stated : new boolean[] {false, true}) {
            var lens = EvaluationContext.of(
                    List.of(new Quantity("T", "warmth", "T", "", "")),
                    List.of(new lane.quantity.FieldUnit("T", "K", stated)),
                    Axis.Z);
            Tally made = TallyReader.read(run, ALL, new Mean("T"), "all", lens, "", Provenance.EMPTY);
            assertThat(made.trail().toString().contains("K, as its name is usual for"))
                    .isEqualTo(!stated);
        }
    }
}
