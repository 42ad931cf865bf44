package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.LaneException;
import lane.provenance.Provenance;
import lane.reading.FeatureOf.What;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbers of curves of a pressure over a length, against what can be seen by eye. */
class FeatureTest {
    private static final double NAN = Double.NaN;

    private static Profile curve(double[] x, double... y) {
        return new Profile(
                x, y, List.of(), "depth", Unit.of("m"), Unit.of("kPa"), false, x.length, "as made", Provenance.EMPTY);
    }

    private static Tally number(Profile p, What what, double at, int count, String unit, Double from, Double to) {
        boolean level = what.level();
        var ask =
                new FeatureOf(new ProfileOf("s", "q"), what, at, count, level ? unit : "", level ? "" : unit, from, to);
        return ask.of(new Reading("r", "r", "", ask), p);
    }

    private static double value(Profile p, What what, double at, int count) {
        return number(p, what, at, count, "", null, null).value();
    }

    /** Up to 4 at 2, down to -2 at 6, where nothing is known between 4 and 5, and up again. */
    private static final Profile WAVE =
            curve(new double[] {0, 1, 2, 3, 4, 4.5, 5, 6, 7, 8}, 0, 3, 4, 3, 1, NAN, -1, -2, 0, 0);

    @ParameterizedTest
    @CsvSource({
        "VALUE, 0.5, 1, 1.5",
        "VALUE, 3, 1, 3",
        "CROSSING, 2, 1, 0.6666666666666666",
        "CROSSING, 2, 2, 3.5",
        "CROSSINGS, 2, 1, 2",
        // A level that the curve only touches, or that it ends on, is not passed.
        "CROSSINGS, 4, 1, 0",
        "CROSSINGS, 0, 1, 0",
        "CROSSINGS, -1.5, 1, 2",
        "PEAK, 0, 1, 4",
        "PEAK_PLACE, 0, 1, 2",
        "LOW, 0, 1, -2.041666666666667",
        "WIDTH, 0.5, 1, 2.833333333333333",
        "SETTLED, 0.5, 1, 6.75",
        // Over 0 to 4 and 5 to 8: 10.5 and -2.5 of 7 in length.
        "INTEGRAL, 0, 1, 8",
        "MEAN, 0, 1, 1.1428571428571428",
        "RATE, 1, 1, 2",
        "RATE, 1.25, 1, 1.5",
        "RATE, 7, 1, 1",
        "SAMPLE, 3, 1, 3",
        "LAST, 0, 1, 0",
        "COUNT, 0, 1, 9",
        "MISSING, 0, 1, 1",
    })
    void numbersOfAWave(What what, double at, int count, double expected) {
        assertThat(value(WAVE, what, at, count)).isCloseTo(expected, within(1e-12));
    }

    /** The parabola finds the top of another one exactly, wherever its samples lie. */
    @Test
    void thePeakOfAParabolaIsExact() {
        double[] x = {0, 0.7, 1.1, 1.9, 2.6};
        double[] y = new double[5];
        for (int i = 0; i < 5; i++) {
            y[i] = 7 - 3 * (x[i] - 1.3) * (x[i] - 1.3);
        }
        assertThat(value(curve(x, y), What.PEAK, 0, 1)).isCloseTo(7, within(1e-12));
        assertThat(value(curve(x, y), What.PEAK_PLACE, 0, 1)).isCloseTo(1.3, within(1e-12));
        // At an end there is no parabola.
        Tally end = number(curve(x, y), What.PEAK_PLACE, 0, 1, "", 1.5, null);
        assertThat(end.value()).isEqualTo(1.9);
        assertThat(end.note()).contains("as the sample stands");
    }

    /** Third order in the distance of samples for the peak of any smooth curve. */
    @Test
    void thePeakConverges() {
        double[] error = new double[2];
        double top = Math.atan(10);
        for (int k = 0; k < 2; k++) {
            int n = 20 << k;
            // Wherever the samples lie about the peak.
            for (double shift = 0; shift < 1; shift += 0.05) {
                double[] x = new double[n + 1];
                double[] y = new double[n + 1];
                for (int i = 0; i <= n; i++) {
                    x[i] = 3 * (i + shift) / n;
                    y[i] = Math.sin(x[i]) * Math.exp(-0.1 * x[i]);
                }
                double off = value(curve(x, y), What.PEAK, 0, 1) - Math.sin(top) * Math.exp(-0.1 * top);
                error[k] = Math.max(error[k], Math.abs(off));
            }
        }
        assertThat(error[0]).isLessThan(1e-4);
        assertThat(error[1]).isLessThan(error[0] / 7);
    }

    @Test
    void straightLinesHaveStandardErrors() {
        Profile line = curve(new double[] {1, 2, 3, 4}, 5.1, 6.9, 9.1, 10.9);
        Tally slope = number(line, What.SLOPE, 0, 1, "", null, null);
        assertThat(slope.value()).isCloseTo(1.96, within(1e-12));
        assertThat(slope.unit().label()).isEqualTo("kPa/m");
        // Residuals 0.04 -0.12 0.12 -0.04: s = sqrt(0.032 / 2), divided by sqrt(5).
        assertThat(slope.estimate().uncertainty().combined()).isCloseTo(Math.sqrt(0.016 / 5), within(1e-12));
        assertThat(slope.estimate().uncertainty().freedom()).isEqualTo(2);
        assertThat(number(line, What.CONSTANT, 0, 1, "", null, null).value()).isCloseTo(3.1, within(1e-12));
        assertThat(number(line, What.SLOPE, 0, 1, "cm", 150.0, 350.0).value()).isCloseTo(2.2, within(1e-12));
    }

    @Test
    void placesAndLevelsAreInTheUnitsThatAreNamed() {
        Profile ramp = curve(new double[] {0, 2}, 0, 2000);
        assertThat(number(ramp, What.CROSSING, 5, 1, "mbar", null, null).value())
                .isCloseTo(0.5, within(1e-12));
        assertThat(number(ramp, What.VALUE, 25, 1, "cm", null, null).value()).isCloseTo(250, within(1e-12));
        assertThat(number(ramp, What.VALUE, 25, 1, "cm", null, null).unit().label())
                .isEqualTo("kPa");
        assertThatThrownBy(() -> number(ramp, What.CROSSING, 5, 1, "mm", null, null))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("The level");
    }

    /** Half of 360 K lies at no temperature that anybody means. */
    @Test
    void aShareOfATemperatureIsRefused() {
        double[] x = {0, 1, 2};
        double[] y = {300, 360, 300};
        var point =
                new Profile(x, y, List.of(), "depth", Unit.of("m"), Unit.of("degC"), false, 3, "", Provenance.EMPTY);
        assertThatThrownBy(() -> value(point, What.WIDTH, 0.9, 1)).hasMessageContaining("where its scale begins");
        var rise = new Profile(
                x,
                new double[] {0, 60, 0},
                List.of(),
                "depth",
                Unit.of("m"),
                Unit.of("K").forInterval(),
                false,
                3,
                "",
                Provenance.EMPTY);
        assertThat(value(rise, What.WIDTH, 0.5, 1)).isCloseTo(1, within(1e-12));
    }

    @Test
    void whatIsNotThereIsTold() {
        assertThatThrownBy(() -> value(WAVE, What.CROSSING, 2, 3)).hasMessageContaining("passes this level 2 times");
        assertThatThrownBy(() -> value(WAVE, What.VALUE, 4.7, 1)).hasMessageContaining("no value at 4.7 of its depth");
        assertThatThrownBy(() -> value(WAVE, What.VALUE, 11, 1)).hasMessageContaining("no value at 11");
        assertThatThrownBy(() -> number(WAVE, What.PEAK, 0, 1, "", 20.0, 30.0))
                .hasMessageContaining("no value in the part that counts");
        assertThatThrownBy(() -> value(curve(new double[] {0, 1}, 1, 2), What.WIDTH, 0.6, 1))
                .hasMessageContaining("on both sides");
        assertThatThrownBy(() -> value(WAVE, What.SETTLED, 0, 1)).hasMessageContaining("a positive one");
        assertThatThrownBy(() -> value(WAVE, What.WIDTH, 1.5, 1)).hasMessageContaining("between 0 and 1");
        assertThatThrownBy(() -> number(WAVE, What.PEAK, 0, 1, "", 3.0, 2.0)).hasMessageContaining("is empty");
    }
}
