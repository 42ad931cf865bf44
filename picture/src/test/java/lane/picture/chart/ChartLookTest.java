package lane.picture.chart;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.check.Difference;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.picture.Export;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.study.ChartLook;
import lane.study.ChartLook.AxisLook;
import lane.study.ChartLook.Scale;
import lane.study.ChartLook.Spot;
import lane.study.ChartLook.Strip;
import lane.study.ChartLook.TextSize;
import lane.study.Source;
import lane.unit.Unit;
import org.jfree.data.Range;
import org.junit.jupiter.api.Test;

/** How a residual that falls by a power of ten every ten steps, and its like, are drawn. */
class ChartLookTest {
    private static final List<LaneStyle> STYLES = LaneStyle.of(
            List.of(
                    new Source.Simulation("a", "fine", "a", List.of(), "", ""),
                    new Source.Simulation("b", "coarse", "b", List.of(), "", "")),
            Palette.LIGHT);

    private static Profile curve(double... y) {
        double[] x = new double[y.length];
        Arrays.setAll(x, i -> i);
        return new Profile(x, y, List.of(), "step", Unit.ONE, Unit.of("W"), false, y.length, "", Provenance.EMPTY);
    }

    private static final Profile FALLING = falling(41);

    private static Profile falling(int n) {
        double[] y = new double[n];
        Arrays.setAll(y, i -> Math.pow(10, -i / 10.0));
        return curve(y);
    }

    private record Drawn(ChartLayout layout, String svg) {}

    private static Drawn draw(ChartLook look, ProfileChart.View view, Profile... curves) throws Exception {
        List<ProfileChart.Curve> all = new java.util.ArrayList<>();
        for (int i = 0; i < curves.length; i++) {
            all.add(new ProfileChart.Curve(
                    i == 0 ? "fine" : "coarse",
                    STYLES.get(i),
                    curves[i],
                    i == 0 ? null : Difference.of(curves[i], curves[0])));
        }
        var panel = new ProfileChart.Panel("flux", Unit.of("W"), all, List.of(), Double.NaN, "fine", null);
        var chart = new ProfileChart(List.of(panel), Unit.ONE, "step", 0.3, look, view, Palette.LIGHT);
        var layout = new ChartLayout[1];
        var out = new ByteArrayOutputStream();
        Export.svg(800, 600, g -> layout[0] = chart.paint(g, 800, 600), out);
        return new Drawn(layout[0], out.toString(StandardCharsets.UTF_8));
    }

    private static Drawn draw(ChartLook look, Profile... curves) throws Exception {
        return draw(look, ProfileChart.View.ALL, curves);
    }

    private static final ChartLook USUAL = ChartLook.of("r");

    @Test
    void aLogarithmicAxisLeavesOutWhatIsNotAboveZeroAndSaysSo() throws Exception {
        Drawn made = draw(USUAL.y(a -> a.by(Scale.LOG)), FALLING);
        ChartLayout.Plot plot = made.layout.plots().getFirst();
        // Every power of ten takes the same height.
        double first = plot.pixel(0.1) - plot.pixel(1);
        assertThat(plot.pixel(0.01) - plot.pixel(0.1)).isCloseTo(first, within(1e-9));
        assertThat(first).isPositive();
        assertThat(plot.up().si(plot.place(plot.pixel(0.002)))).isCloseTo(0.002, within(1e-12));
        assertThat(made.svg).contains("0.01").doesNotContain("not above zero");
        assertThat(draw(USUAL.y(a -> a.by(Scale.LOG)), curve(1, 0, -3, 5)).svg)
                .contains("2 values not above zero have no place on a logarithmic axis");
    }

    @Test
    void axesAreReversedEndedTitledAndToldInOtherUnits() throws Exception {
        Drawn made = draw(
                USUAL.x(a -> a.reversed(true).titled("round")).y(a -> a.in("kW").between(0.0, 0.002)), FALLING);
        assertThat(made.layout.left()).isEqualTo(40);
        assertThat(made.layout.right()).isZero();
        assertThat(made.layout.pixel(40)).isCloseTo(made.layout.curve().getMinX(), within(1e-9));
        assertThat(made.layout.plots().getFirst().y()).containsExactly(0, 0.002);
        assertThat(made.svg).contains("round").contains("kW");
        assertThatThrownBy(() -> AxisLook.USUAL.between(2.0, 1.0)).isInstanceOf(LaneException.class);
        assertThatThrownBy(() -> AxisLook.USUAL.by(Scale.LOG).between(-1.0, 1.0))
                .isInstanceOf(LaneException.class);
        assertThat(AxisLook.USUAL.between(-1.0, 1.0).by(Scale.LOG).from()).isNull();
    }

    @Test
    void normalisedCurvesFillTheSameRange() throws Exception {
        Drawn made = draw(USUAL.y(a -> a.by(Scale.SHARE)).with(Strip.NONE), curve(2, 4, 3), curve(100, 500, 200));
        double[] y = made.layout.plots().getFirst().y();
        assertThat(y[0]).isBetween(-0.1, 0.0);
        assertThat(y[1]).isBetween(1.0, 1.1);
        assertThat(made.svg).contains("share of the range of each");
        assertThat(made.layout.strip().getHeight()).isZero();
    }

    @Test
    void aLookAtAPartShowsItsSpikes() {
        double[] y = new double[100_000];
        y[50_123] = 1;
        y[70_000] = 5;
        Profile p = curve(y);
        var levels = new Levels(p.abscissa(), p.samples());
        var across = new AxisMap(Unit.ONE, Scale.LINEAR);
        CurvePoints part = CurvePoints.of(
                p.abscissa(), y, new double[0], new double[0], across, across, 50_000, 60_000, 300, levels);
        assertThat(part.x().length).isLessThanOrEqualTo(300);
        assertThat(part.x()[0]).isEqualTo(49_999);
        assertThat(part.x()[part.x().length - 1]).isEqualTo(60_000);
        assertThat(Arrays.stream(part.y()).max().orElseThrow()).isEqualTo(1);
        // Block by block finds what one after the other finds.
        int[] kept = levels.thin(0, 99_999, 400);
        assertThat(kept).contains(50_123, 70_000, 0, 99_999).isSorted();
    }

    @Test
    void zoomSetsTheEnds() throws Exception {
        Drawn made = draw(USUAL, new ProfileChart.View(new Range(10, 20), new Range(0, 0.5)), FALLING);
        assertThat(made.layout.left()).isEqualTo(10);
        assertThat(made.layout.abscissa(made.layout.curve().getMaxX())).isCloseTo(20, within(1e-9));
        assertThat(made.layout.plots().getFirst().y()).containsExactly(0, 0.5);
    }

    @Test
    void ratioAndErrorAreThoseToTheDatum() {
        Profile datum = curve(2, 4, 0, -4);
        Profile lane = curve(3, 3, 1, -3);
        Difference d = Difference.of(lane, datum);
        assertThat(Against.of(lane, d, Strip.RATIO)).containsExactly(1.5, 0.75, Double.NaN, 0.75);
        assertThat(Against.of(lane, d, Strip.ERROR)).containsExactly(50, -25, Double.NaN, 25);
    }

    @Test
    void temperaturesHaveNoRatio() throws Exception {
        Profile warm = new Profile(
                new double[] {0, 1},
                new double[] {300, 310},
                List.of(),
                "step",
                Unit.ONE,
                Unit.of("degC"),
                false,
                2,
                "",
                Provenance.EMPTY);
        var panel = new ProfileChart.Panel(
                "T",
                Unit.of("degC"),
                List.of(
                        new ProfileChart.Curve("a", STYLES.get(0), warm, null),
                        new ProfileChart.Curve("b", STYLES.get(1), warm, Difference.of(warm, warm))),
                List.of(),
                Double.NaN,
                "a",
                null);
        var out = new ByteArrayOutputStream();
        var chart = new ProfileChart(
                List.of(panel), Unit.ONE, "step", 0.3, USUAL.with(Strip.RATIO), ProfileChart.View.ALL, Palette.LIGHT);
        Export.svg(800, 600, g -> chart.paint(g, 800, 600), out);
        assertThat(out.toString(StandardCharsets.UTF_8))
                .contains("difference from a")
                .contains("where their scale begins");
    }

    @Test
    void stripsLegendsNotesAndWordsForSlides() throws Exception {
        var look = USUAL.with(Strip.RATIO)
                .with(TextSize.SLIDE)
                .legendAt(new Spot(0.9, 0.05))
                .withNotes(List.of(new ChartLook.Note(1, 4, "turned on here"), new ChartLook.Note(99, 4, "outside")))
                .lane("a", new ChartLook.LaneLook("#123456", ChartLook.Dash.DOTTED, 3));
        Drawn made = draw(look, curve(2, 4, 3), curve(2.5, 4, 3));
        assertThat(made.svg)
                .contains("ratio to fine")
                .contains("turned on here")
                .doesNotContain("outside")
                .contains("coarse");
        // It stays within the plot, wherever it was put.
        assertThat(made.layout.legend()).isNotNull();
        assertThat(made.layout.legend().getMaxX())
                .isLessThanOrEqualTo(made.layout.curve().getMaxX() + 1e-6);
        assertThat(made.layout.curve().getMaxX()).isBetween(600.0, 800.0);
        LaneStyle style = STYLES.get(0).looking(look.lanes().get("a"));
        assertThat(style.colour()).isEqualTo(java.awt.Color.decode("#123456"));
        assertThat(style.width()).isEqualTo(3);
        assertThat(STYLES.get(0).looking(null)).isSameAs(STYLES.get(0));
    }

    @Test
    void lanesAreNamedByWhatDiffers() {
        assertThat(Differing.parts(List.of("probe_north_2025", "probe_south_2025")))
                .containsExactly("north", "south");
        assertThat(Differing.parts(List.of("run-a", "run-b"))).containsExactly("run-a", "run-b");
        assertThat(Differing.parts(List.of("coarse", "coarser"))).containsExactly("coarse", "coarser");
        assertThat(Differing.parts(List.of("sensor 1", "sensor 12", "sensor")))
                .hasSize(3)
                .contains("sensor");
    }

    @Test
    void measurementsAreToldApart() {
        var probe = Source.Kind.MEASUREMENT;
        List<LaneStyle> styles = LaneStyle.of(
                List.of(
                        new Source.Reference("n", "north", probe, List.of(), Map.of(), List.of()),
                        new Source.Reference("s", "south", probe, List.of(), Map.of(), List.of())),
                Palette.LIGHT);
        assertThat(styles.get(0).colour())
                .isEqualTo(Palette.LIGHT.measured())
                .isNotEqualTo(styles.get(1).colour());
    }

    @Test
    void aNumberOfEachLaneIsAMarkWithItsUncertainty() throws Exception {
        var rows = List.of(
                new NumberChart.Row("fine", STYLES.get(0), new Estimate(1234, Unit.of("W"))),
                new NumberChart.Row(
                        "rig",
                        STYLES.get(1),
                        new Estimate(1200, Unit.of("W"), Uncertainty.ofHalf(Uncertainty.Source.MEASURED, 25))));
        var chart = new NumberChart("Heat", Unit.of("kW"), rows, 1200, "rig", USUAL);
        var out = new ByteArrayOutputStream();
        Export.svg(500, (int) chart.height(), g -> chart.paint(g, 500, chart.height(), Palette.LIGHT), out);
        assertThat(out.toString(StandardCharsets.UTF_8))
                .contains("Heat")
                .contains("kW")
                .contains("fine")
                .contains("1.234")
                .contains("1.200");
    }

    @Test
    void powersAreWrittenShortly() {
        assertThat(PowerAxis.text(0, 1)).isEqualTo("1");
        assertThat(PowerAxis.text(-2, 5)).isEqualTo("0.05");
        assertThat(PowerAxis.text(3, 2)).isEqualTo("2000");
        assertThat(PowerAxis.text(-12, 1)).isEqualTo("10⁻¹²");
        assertThat(PowerAxis.text(6, 5)).isEqualTo("5·10⁶");
    }
}
