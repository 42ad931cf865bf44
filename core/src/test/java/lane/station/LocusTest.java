package lane.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.CutCurve.Extent;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Places along stations of every kind are found again at the same abscissa, also after a station is moved or framed. */
class LocusTest {
    private static final Axis TILTED = new Axis(new Point(0.2, -0.1, 0.4), new Point(1, 2, 2), new Point(0, 1, -1));

    private static Station arc(double from, double to, Abscissa abscissa) {
        return new Station("s", "s", new Arc(TILTED, 0.7, 0.3, from, to, new Sampling.Even(23), abscissa));
    }

    static Stream<Station> stations() {
        var bend = List.of(new Point(0, 0, 0), new Point(1, 0, 0), new Point(1, 2, 0), new Point(1, 2, 0.5));
        return Stream.of(
                new Station(
                        "s",
                        "s",
                        new Line(new Point(1, 2, 3), new Point(-1, 2.5, 3), new Sampling.Even(11), Abscissa.ARC)),
                arc(0, 90, Abscissa.ARC),
                arc(300, 20, Abscissa.ARC),
                arc(-170, 185, Abscissa.ARC),
                new Station("s", "s", new Polyline(bend, new Sampling.Even(31), Abscissa.ARC)),
                new Station("s", "s", new Points(bend)),
                new Station("s", "s", new Sweep(TILTED, -1, 2, 9, 0.5)),
                new Station("s", "s", new Sweep(TILTED, 2, -1, 9, 0)),
                new Station("s", "s", new Shell(TILTED, 0.5, -1.0, 3.0, 0)),
                new Station("s", "s", new Shell(TILTED, 0.5, null, null, 130)),
                new Station("s", "s", new Shell(Axis.Z, 2, null, null, -90)));
    }

    private static double[][] parted(double[] xyz) {
        int n = xyz.length / 3;
        double[][] out = new double[3][n];
        for (int i = 0; i < xyz.length; i++) {
            out[i % 3][i / 3] = xyz[i];
        }
        return out;
    }

    private static void found(Station on, double[] xyz, CurveAxis.Samples expected) {
        double[][] p = parted(xyz);
        Locus.Found f = Locus.of(on, Axis.Z).find(p[0], p[1], p[2], xyz.length / 3);
        for (int i = 0; i < f.arc().length; i++) {
            assertThat(f.arc()[i]).as(on + " arc " + i).isCloseTo(expected.arc()[i], within(1e-9));
            assertThat(f.abscissa()[i]).as(on + " abscissa " + i).isCloseTo(expected.abscissa()[i], within(1e-9));
        }
    }

    static Stream<Station> againstEverything() {
        var line = new Line(new Point(1, -2, 3), new Point(-0.5, 2.5, 3.5), new Sampling.Even(11), Abscissa.ARC);
        return Stream.of(Abscissa.Kind.values())
                .filter(k -> k != Abscissa.Kind.FORMULA)
                .map(k -> new Abscissa(k, "", null, ""))
                .flatMap(a -> Stream.of(
                        new Station("s", "s", new Line(line.a(), line.b(), line.sampling(), a)),
                        arc(-170, 185, a),
                        arc(200, -100, a),
                        new Station("s", "s", new Arc(Axis.Z, 2, 0.5, -90, 260, new Sampling.Even(40), a))));
    }

    @ParameterizedTest
    @MethodSource({"stations", "againstEverything"})
    void samplesAreFoundAgain(Station s) {
        CurveAxis.Samples samples = CurveAxis.samples(s, Axis.Z);
        found(s, samples.xyz(), samples);
    }

    @ParameterizedTest
    @MethodSource("stations")
    void aMovedStationHasTheSamePlacesFurtherOn(Station s) {
        var by = new Point(0.3, -2, 0.7);
        CurveAxis.Samples before = CurveAxis.samples(s, Axis.Z);
        CurveAxis.Samples after = CurveAxis.samples(s.moved(by), Axis.Z);
        for (int i = 0; i < before.xyz().length; i++) {
            double d = i % 3 == 0 ? by.x() : i % 3 == 1 ? by.y() : by.z();
            assertThat(after.xyz()[i]).isCloseTo(before.xyz()[i] + d, within(1e-12));
        }
        found(s.moved(by), after.xyz(), before);
    }

    @ParameterizedTest
    @MethodSource("stations")
    void aStationInAFrameHasThePlacesOfTheFrame(Station s) {
        CurveAxis.Samples before = CurveAxis.samples(s, Axis.Z);
        Station placed = s.shaped(s.shape().through(TILTED));
        double[] xyz = before.xyz().clone();
        for (int i = 0; i < xyz.length; i += 3) {
            Point p = TILTED.out(new Point(xyz[i], xyz[i + 1], xyz[i + 2]));
            xyz[i] = p.x();
            xyz[i + 1] = p.y();
            xyz[i + 2] = p.z();
        }
        found(placed, xyz, before);
        assertThat(placed.id()).isEqualTo(s.id());
        assertThat(placed.word()).isEqualTo(s.word());
    }

    @Test
    void whatIsNotOnAPathIsNotFound() {
        var line = new Station(
                "s", "s", new Line(new Point(0, 0, 0), new Point(1, 0, 0), new Sampling.Even(5), Abscissa.ARC));
        double[] x = {0.5, 0.5, 1.2, -0.2, Double.NaN};
        double[] y = {0, 0.1, 0, 0, 0};
        double[] arc = Locus.of(line, Axis.Z).find(x, y, new double[5], 5).arc();
        assertThat(arc).containsExactly(0.5, Double.NaN, Double.NaN, Double.NaN, Double.NaN);
        Station quarter = new Station("s", "s", new Arc(Axis.Z, 1, 0, 0, 90, new Sampling.Even(5), Abscissa.ARC));
        double[] far = Locus.of(quarter, Axis.Z)
                .find(new double[] {-1, 0, 1.1, 1}, new double[] {0, -1, 0, 0}, new double[] {0, 0, 0, 0.2}, 4)
                .arc();
        assertThat(far).containsOnly(Double.NaN);
        var taps = new Station("s", "s", new Points(List.of(new Point(0, 0, 0), new Point(0, 0, 1))));
        double[] numbers = Locus.of(taps, Axis.Z)
                .find(new double[3], new double[3], new double[] {1, 0.5, 0}, 3)
                .arc();
        assertThat(numbers).containsExactly(2, Double.NaN, 1);
    }

    @Test
    void anArcEndsAndBeginsWhereItSays() {
        Station whole = new Station("s", "s", new Arc(Axis.Z, 1, 0, 30, 390, new Sampling.Even(5), Abscissa.ARC));
        double c = Math.cos(Math.toRadians(30));
        double[] start = Locus.of(whole, Axis.Z)
                .find(new double[] {c}, new double[] {0.5}, new double[1], 1)
                .arc();
        assertThat(start[0] % (2 * Math.PI)).isCloseTo(0, within(1e-9));
        // Backwards, the arc grows as the angle falls.
        Station back = new Station("s", "s", new Arc(Axis.Z, 2, 0, 90, 0, new Sampling.Even(5), Abscissa.ARC));
        double[] at = Locus.of(back, Axis.Z)
                .find(new double[] {0, Math.sqrt(2), 2}, new double[] {2, Math.sqrt(2), 0}, new double[3], 3)
                .arc();
        assertThat(at[0]).isCloseTo(0, within(1e-9));
        assertThat(at[1]).isCloseTo(Math.PI / 2, within(1e-9));
        assertThat(at[2]).isCloseTo(Math.PI, within(1e-9));
    }

    @Test
    void curvesAreDrawnAgainstWhatTheStationSays() {
        assertThat(CurveAxis.of(new Station("s", "s", new Sweep(Axis.Z, 0, 1, 5, 0)))
                        .unit())
                .isEqualTo(Unit.of("m"));
        assertThat(CurveAxis.of(new Station("s", "s", new Shell(Axis.Z, 1, null, null, 0)))
                        .unit())
                .isEqualTo(Unit.of("rad"));
        for (Extent e : Extent.values()) {
            var c = new Station(
                    "s",
                    "s",
                    new CutCurve(new Point(0, 0, 0), new Point(0, 0, 1), List.of(), e, new Point(1, 0, 0), 1));
            boolean share = e == Extent.SHARE;
            assertThat(CurveAxis.of(c).unit()).isEqualTo(share ? Unit.ONE : Unit.of("m"));
            if (share) {
                double[] s = CurveAxis.samples(c, Axis.Z).abscissa();
                assertThat(s[0]).isZero();
                assertThat(s[s.length - 1]).isEqualTo(1);
                assertThat(Arrays.stream(s).sorted().toArray()).isEqualTo(s);
            } else {
                assertThatThrownBy(() -> CurveAxis.samples(c, Axis.Z))
                        .isInstanceOf(LaneException.class)
                        .hasMessageContaining("share of its extent");
            }
            assertThatThrownBy(() -> Locus.of(c, Axis.Z)).hasMessageContaining("cannot be found again");
        }
        var section = new Station("s", "cut", new Section(new Point(0, 0, 0), new Point(0, 0, 1), null, null));
        assertThatThrownBy(() -> CurveAxis.of(section)).hasMessageContaining("carries no curve");
    }

    private static void refused(String told, Supplier<Station> make) {
        assertThatThrownBy(make::get).isInstanceOf(LaneException.class).hasMessageContaining(told);
    }

    @Test
    void stationsThatAreNoneAreToldByName() {
        var even = new Sampling.Even(5);
        var o = new Point(0, 0, 0);
        refused("positive radius", () -> new Station("s", "a", new Arc(Axis.Z, 0, 0, 0, 90, even, Abscissa.ARC)));
        refused("360 degrees", () -> new Station("s", "a", new Arc(Axis.Z, 1, 0, 0, 361, even, Abscissa.ARC)));
        refused("two angles", () -> new Station("s", "a", new Arc(Axis.Z, 1, 0, 9, 9, even, Abscissa.ARC)));
        refused("give at least 2", () -> new Station("s", "a", new Polyline(List.of(o), even, Abscissa.ARC)));
        refused("Points 1 and 2", () -> new Station("s", "a", new Polyline(List.of(o, o), even, Abscissa.ARC)));
        refused("no point", () -> new Station("s", "a", new Points(List.of())));
        refused("positive one", () -> new Station("s", "a", new Shell(Axis.Z, -1, null, null, 0)));
        refused("before it begins", () -> new Station("s", "a", new Shell(Axis.Z, 1, 2.0, 1.0, 0)));
        refused("2 to 10 000 places", () -> new Station("s", "a", new Sweep(Axis.Z, 0, 1, 1, 0)));
        refused("two different lengths", () -> new Station("s", "a", new Sweep(Axis.Z, 1, 1, 5, 0)));
        refused("no value", () -> new Station("s", "a", new Isosurface("q", List.of())));
        assertThatThrownBy(() -> new Facing(new Point(1, 0, 0), 190)).hasMessageContaining("0 to 180");
        assertThatThrownBy(() -> new Box(new Point(1, 0, 0), new Point(0, 1, 1)))
                .isInstanceOf(LaneException.class);
    }

    @Test
    void anAbscissaIsToldInTheUnitThatIsNamed() {
        Abscissa degrees = Abscissa.parse(" angle [deg]");
        assertThat(degrees.unit()).isEqualTo(Unit.of("deg"));
        assertThat(degrees.text()).isEqualTo("angle [deg]");
        assertThat(Abscissa.parse("arc [mm]").unit()).isEqualTo(Unit.of("mm"));
        assertThat(Abscissa.parse("angle").unit()).isEqualTo(Unit.of("rad"));
        // Its values stay in SI units.
        assertThat(degrees.of(new double[] {0}, 1, new double[] {0, 2, 0}, Axis.Z)[0])
                .isCloseTo(Math.PI / 2, within(1e-15));
        assertThatThrownBy(() -> Abscissa.parse("angle [m]"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("use deg or rad");
        assertThatThrownBy(() -> Abscissa.parse("x [deg]")).hasMessageContaining("a unit of length");
        assertThatThrownBy(() -> Abscissa.parse("angel [deg]")).hasMessageContaining("is not known");
    }
}
