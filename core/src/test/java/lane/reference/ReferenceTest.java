package lane.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Random;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Tally;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Station;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReferenceTest {
    private static final ProfileOf PROFILE = new ProfileOf("line", "q");
    private static final Station LINE = new Station(
            "l", "gap", new Line(new Point(0, 3, 1), new Point(0, 5, 1), new Sampling.Even(3), Abscissa.RADIUS));

    @ParameterizedTest
    @CsvSource({
        "1+2*3, 7",
        "2^3^2, 512",
        "-2^2, -4",
        "2^-1, 0.5",
        "(1+2)*3, 9",
        "8/4/2, 1",
        "5-3-1, 1",
        "sqrt(16)+ln(exp(2)), 6",
        "'atan2(0, -1)/pi', 1",
        "'max(a, b) - min(a,b)', 1",
        "1.5e3/1e-3, 1.5e6",
        "abs(-a), 2",
        "--3, 3",
        "a*b+c_1, 16",
        ".5*2, 1"
    })
    void formulas(String text, double value) {
        assertThat(Formula.of(text).value(Map.of("a", 2.0, "b", 3.0, "c_1", 10.0)))
                .isCloseTo(value, within(1e-12 * Math.abs(value)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1+; ends too early",
                "2*(3; \")\" is missing",
                "4 $ 5; has no meaning",
                "1..2; does not belong",
                "sqrt(2,3); 1 argument",
                "); cannot stand here"
            })
    void wrongFormulasAreRefusedWithTheirPlace(String text, String reason) {
        assertThatThrownBy(() -> Formula.of(text))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("character")
                .hasMessageContaining(reason);
    }

    @Test
    void noInputBreaksTheFormulaParser() {
        var random = new Random(5);
        String letters = "0123.eE+-*/^(), absqrtlnpi";
        for (int i = 0; i < 20_000; i++) {
            var text = new StringBuilder();
            for (int k = random.nextInt(20); k >= 0; k--) {
                text.append(letters.charAt(random.nextInt(letters.length())));
            }
            try {
                Formula.of(text.toString()).value(Map.of());
            } catch (LaneException e) {
                assertThat(e.getMessage()).endsWith(".");
            }
        }
        assertThatThrownBy(() -> Formula.of("(".repeat(1500)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("deep");
        assertThatThrownBy(() -> Formula.of("-".repeat(1500) + "1"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("deep");
        assertThatThrownBy(() -> Formula.of("x+q").value(Map.of("x", 1.0))).hasMessageContaining("\"q\"");
    }

    @Test
    void aTheoryIsComputedAtTheLinesPlaces() {
        var curve = new Curve.ByFormula("r", "k*r + s + z", "mm/s");
        Profile p = ReferenceReader.profile(curve, Map.of("k", 10.0), Double.NaN, PROFILE, LINE, Axis.Z, "");
        assertThat(p.abscissa()).containsExactly(3, 4, 5);
        assertThat(p.value()).containsExactly(new double[] {0.031, 0.042, 0.053}, within(1e-15));
        assertThat(p.formula()).isTrue();
        assertThatThrownBy(() -> ReferenceReader.profile(
                        new Curve.ByFormula("r", "r", ""), Map.of(), Double.NaN, PROFILE, LINE, Axis.Z, ""))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("unit");
        assertThatThrownBy(
                        () -> ReferenceReader.profile(curve, Map.of("k", 1.0), Double.NaN, PROFILE, LINE, Axis.Z, "K"))
                .hasMessageContaining("mm/s and K");
        assertThat(ReferenceReader.tally(new Curve.ByFormula("r", "2*k", "mN m"), Map.of("k", 4.0), Double.NaN, "")
                        .value())
                .isEqualTo(0.008);
        assertThat(ReferenceReader.tally(new Curve.HandValue("r", 20, "degC", 1, "by hand"), "K")
                        .value())
                .isEqualTo(293.15);
    }

    private static Table table(double[]... columns) {
        return new Table(
                List.of("r", "T", "u"),
                List.of("mm", "degC", ""),
                List.of(columns),
                "",
                new Provenance.Input("t.csv", "00", 1));
    }

    @Test
    void aTableIsConvertedSortedAndItsGapsLeftOut() {
        Table t = table(new double[] {5000, 3000, 4000}, new double[] {20, 10, Double.NaN}, new double[] {1, 2, 3});
        Profile p = ReferenceReader.profile(
                t, new Curve.Columns("r", "t.csv", "r", "", "T", "", ColumnUncertainty.of("u")), PROFILE, LINE, "");
        assertThat(p.abscissa()).containsExactly(3, 5);
        assertThat(p.value()).containsExactly(283.15, 293.15);
        assertThat(p.uncertainty()).containsExactly(2, 1);
        assertThatThrownBy(() -> ReferenceReader.profile(
                        t,
                        new Curve.Columns("r", "t.csv", "x", "", "T", "", ColumnUncertainty.NONE),
                        PROFILE,
                        LINE,
                        ""))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no column \"x\"");
        assertThatThrownBy(() -> ReferenceReader.profile(
                        t,
                        new Curve.Columns("r", "t.csv", "r", "s", "T", "", ColumnUncertainty.NONE),
                        PROFILE,
                        LINE,
                        ""))
                .hasMessageContaining("s and m");
    }

    @Test
    void theUncertaintyOfAMeanAllowsForSlowDrift() {
        var random = new Random(4);
        // Its square is the variance of the mean, without bias: the average over many series comes close to it.
        double squares = 0;
        for (int k = 0; k < 200; k++) {
            squares += Math.pow(
                            ReferenceReader.standardError(
                                    random.doubles(400, -1, 1).toArray()),
                            2)
                    / 200;
        }
        assertThat(squares).isBetween(0.9 / (3 * 400.0), 1.1 / (3 * 400.0));
        double[] slow = new double[4000];
        for (int i = 1; i < 4000; i++) {
            slow[i] = 0.98 * slow[i - 1] + 0.2 * (2 * random.nextDouble() - 1);
        }
        double sd = Math.sqrt(
                java.util.Arrays.stream(slow).map(v -> v * v).average().orElseThrow());
        assertThat(ReferenceReader.standardError(slow)).isGreaterThan(3 * sd / Math.sqrt(4000));
        assertThat(ReferenceReader.standardError(new double[5])).isNaN();
        double[] time = new double[100];
        java.util.Arrays.setAll(time, i -> i);
        double[] value = time.clone();
        Table t = new Table(
                List.of("t", "M"),
                List.of("s", "mN m"),
                List.of(time, value),
                "",
                new Provenance.Input("t.csv", "00", 1));
        Tally mean = ReferenceReader.tally(t, new Curve.WindowMean("r", "t.csv", "M", "", "t", 50, 59), "");
        assertThat(mean.value()).isCloseTo(0.0545, within(1e-15));
        // What never changes is known without scatter: none is stated, rather than one of zero or NaN.
        Table still = new Table(
                List.of("t", "M"),
                List.of("s", "mN m"),
                List.of(
                        time,
                        java.util.stream.DoubleStream.generate(() -> 3)
                                .limit(100)
                                .toArray()),
                "",
                new Provenance.Input("t.csv", "00", 1));
        Tally constant = ReferenceReader.tally(still, new Curve.WindowMean("r", "t.csv", "M", "", "t", 0, 99), "");
        assertThat(constant.value()).isCloseTo(0.003, within(1e-18));
        assertThat(constant.uncertainty()).isNaN();
        assertThatThrownBy(
                        () -> ReferenceReader.tally(t, new Curve.WindowMean("r", "t.csv", "M", "", "t", 500, 600), ""))
                .hasMessageContaining("widen");
    }

    @Test
    void aTheoryMayDependOnTheTimeWhereThereIsOne() {
        var curve = new Curve.ByFormula("r", "r*exp(-time)", "m/s");
        Profile p = ReferenceReader.profile(curve, Map.of(), 2, PROFILE, LINE, Axis.Z, "");
        assertThat(p.value()[0]).isCloseTo(3 * Math.exp(-2), within(1e-15));
        assertThat(ReferenceReader.tally(new Curve.ByFormula("r", "time^2", "s2"), Map.of(), 3, "")
                        .value())
                .isEqualTo(9);
        assertThatThrownBy(() -> ReferenceReader.profile(curve, Map.of(), Double.NaN, PROFILE, LINE, Axis.Z, ""))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no run of the study has one");
        // A constant of the name goes before.
        assertThat(ReferenceReader.profile(curve, Map.of("time", 0.0), 2, PROFILE, LINE, Axis.Z, "")
                        .value()[0])
                .isEqualTo(3);
    }

    @Test
    void aHandCalculationShowsItsInputs() {
        var hand = new Curve.HandValue(
                "r",
                0,
                "kPa",
                0,
                "hydrostatic",
                "rho*g*h",
                List.of(
                        new Curve.Given("rho", 0.85, "kg/L", "data sheet"),
                        new Curve.Given("g", 9.81, "m/s2", ""),
                        new Curve.Given("h", 20, "cm", "drawing")));
        var tally = ReferenceReader.tally(hand, "Pa");
        // The formula is in SI units and its result is taken in the stated unit.
        assertThat(tally.value()).isCloseTo(1000 * 850 * 9.81 * 0.2, within(1e-6));
        assertThat(tally.trail().steps().getFirst().settings())
                .containsEntry("h", "20.0 cm, drawing")
                .containsEntry("formula", "rho*g*h");
    }

    private static Profile with(ColumnUncertainty uncertainty, String unit, double[] half, double[] up) {
        var t = new Table(
                List.of("r", "T", "u", "v"),
                List.of("m", "mm/s", unit, unit),
                List.of(new double[] {3, 4}, new double[] {200, -400}, half, up),
                "",
                new Provenance.Input("t.csv", "00", 1));
        return ReferenceReader.profile(
                t, new Curve.Columns("r", "t.csv", "r", "", "T", "", uncertainty), PROFILE, LINE, "");
    }

    @Test
    void uncertaintiesOfEveryKindBecomeHalfWidthsWithCoverageTwo() {
        double[] half = {10, 20};
        double[] up = {30, 5};
        double[] two = {0.01, 0.02};
        assertThat(with(ColumnUncertainty.of("u"), "", half, up).uncertainty())
                .as("in the value's unit")
                .containsExactly(two, within(1e-15));
        assertThat(with(ColumnUncertainty.of("u"), "cm/s", half, up).uncertainty())
                .as("in a unit of its own")
                .containsExactly(new double[] {0.1, 0.2}, within(1e-15));
        var standard = new ColumnUncertainty(ColumnUncertainty.Kind.ABSOLUTE, "u", "", 0, "", 1);
        assertThat(with(standard, "", half, up).uncertainty())
                .as("standard, k = 1")
                .containsExactly(new double[] {0.02, 0.04}, within(1e-15));
        var expanded = new ColumnUncertainty(ColumnUncertainty.Kind.ABSOLUTE, "u", "", 0, "", 4);
        assertThat(with(expanded, "", half, up).uncertainty())
                .as("expanded, k = 4")
                .containsExactly(new double[] {0.005, 0.01}, within(1e-15));
        var share = new ColumnUncertainty(ColumnUncertainty.Kind.RELATIVE, "u", "", 0, "", 2);
        assertThat(with(share, "%", half, up).uncertainty())
                .as("percent of the value, of either sign")
                .containsExactly(new double[] {0.02, 0.08}, within(1e-15));
        var all = new ColumnUncertainty(ColumnUncertainty.Kind.RELATIVE, "", "", 5, "%", 0);
        assertThat(with(all, "", half, up).uncertainty())
                .as("one share for all")
                .containsExactly(new double[] {0.01, 0.02}, within(1e-15));
        var sides = new ColumnUncertainty(ColumnUncertainty.Kind.ABSOLUTE, "u", "v", 0, "", 0);
        Profile p = with(sides, "", half, up);
        assertThat(p.uncertainty()).containsExactly(two, within(1e-15));
        assertThat(p.upwards()).containsExactly(new double[] {0.03, 0.005}, within(1e-15));
        assertThatThrownBy(() -> with(share, "mm/s", half, up)).hasMessageContaining("no share");
        Table warm = table(new double[] {3000}, new double[] {20}, new double[] {5});
        assertThatThrownBy(() -> ReferenceReader.profile(
                        warm, new Curve.Columns("r", "t.csv", "r", "", "T", "", all), PROFILE, LINE, ""))
                .hasMessageContaining("where its scale begins");
        assertThatThrownBy(() -> with(ColumnUncertainty.of("u"), "Pa", half, up))
                .isInstanceOf(LaneException.class);
        assertThatThrownBy(() -> new ColumnUncertainty(ColumnUncertainty.Kind.ABSOLUTE, "", "v", 0, "", 0))
                .isInstanceOf(LaneException.class);
    }
}
