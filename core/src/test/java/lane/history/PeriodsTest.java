package lane.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Periods of series whose sinusoids are known. */
class PeriodsTest {
    private static final double TURN = 2 * Math.PI;

    private static Series series(int n, double step, DoubleUnaryOperator of) {
        double[] t = new double[n];
        Arrays.setAll(t, i -> 12 + step * i);
        return new Series(t, Arrays.stream(t).map(of).toArray(), 0, 0);
    }

    /** Wherever the period lies between the lines of the spectrum, and however few of it there are. */
    @ParameterizedTest
    @ValueSource(doubles = {0.21, 0.5, 1.0, 3.3, 7.77, 19, 45})
    void oneSinusoidIsExact(double period) {
        Periods made = Periods.of(series(1000, 0.1, t -> 300 - 0.2 * t + 4 * Math.sin(TURN * t / period + 1)), 3);
        assertThat(made.strongest()).hasSize(1);
        assertThat(made.strongest().getFirst().period()).isCloseTo(period, within(1e-7 * period));
        assertThat(made.strongest().getFirst().amplitude()).isCloseTo(4, within(1e-6));
        assertThat(made.resampled()).isFalse();
    }

    @Test
    void twoCloseOnesAreToldApartAndTheWeakIsFoundBesideTheStrong() {
        Periods made = Periods.of(
                series(
                        2000,
                        0.05,
                        t -> 10 * Math.cos(TURN * t / 5)
                                + 3 * Math.cos(TURN * t / 5.6)
                                + 0.01 * Math.sin(TURN * t / 0.7)),
                3);
        assertThat(made.strongest())
                .extracting(p -> Math.round(100 * p.period()))
                .containsExactly(500L, 560L, 70L);
        assertThat(made.strongest().get(0).amplitude()).isCloseTo(10, within(1e-3));
        assertThat(made.strongest().get(2).amplitude()).isCloseTo(0.01, within(1e-4));
        assertThat(made.strongest().get(0).share()).isBetween(0.88, 0.96);
    }

    @Test
    void unevenRowsAreFittedOnTheirOwn() {
        var random = new Random(5);
        double[] t = new double[400];
        for (int i = 1; i < t.length; i++) {
            t[i] = t[i - 1] + 0.05 + 0.1 * random.nextDouble();
        }
        Series s = new Series(
                t, Arrays.stream(t).map(x -> Math.sin(TURN * x / 2.3)).toArray(), 0, 0);
        Periods made = Periods.of(s, 1);
        assertThat(made.resampled()).isTrue();
        assertThat(made.strongest().getFirst().period()).isCloseTo(2.3, within(1e-7));
        assertThat(made.strongest().getFirst().amplitude()).isCloseTo(1, within(1e-6));
    }

    @Test
    void noiseHasNoneButInOneOfFifty() {
        int found = 0;
        for (int seed = 0; seed < 60; seed++) {
            var random = new Random(seed);
            found += Periods.of(series(300, 1, t -> random.nextGaussian()), 3)
                            .strongest()
                            .isEmpty()
                    ? 0
                    : 1;
        }
        assertThat(found).isLessThanOrEqualTo(4);
        var random = new Random(1);
        Periods made = Periods.of(series(600, 1, t -> Math.sin(TURN * t / 17) + 0.7 * random.nextGaussian()), 3);
        assertThat(made.strongest().getFirst().period()).isCloseTo(17, within(0.05));
        assertThat(made.strongest().getFirst().amplitude()).isCloseTo(1, within(0.12));
    }

    @Test
    void whatIsStraightOrTooShortHasNone() {
        assertThat(Periods.of(series(50, 1, t -> 3 + 2 * t), 3).strongest()).isEmpty();
        assertThat(Periods.of(series(50, 1, t -> 7), 3).strongest()).isEmpty();
        assertThatThrownBy(() -> Periods.of(series(7, 1, Math::sin), 1))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("there are 7");
    }
}
