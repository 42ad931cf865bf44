package lane.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Heat that leaves a drying shed over a day, against closed forms and series of known memory. */
class SettlingTest {
    private static Series series(int n, double step, DoubleUnaryOperator f) {
        double[] t = IntStream.range(0, n).mapToDouble(i -> i * step).toArray();
        return Series.of(
                t, IntStream.range(0, n).mapToDouble(i -> f.applyAsDouble(t[i])).toArray());
    }

    private static Settling judged(Series s) {
        return Settling.of(s, Settling.WINDOW, Settling.TOLERANCE, Double.NaN, 0);
    }

    @Test
    void aStraightLineDriftsAndScattersNot() {
        Settling made = judged(series(101, 1, t -> 3 + 0.01 * t));
        assertThat(made.from()).isEqualTo(80);
        assertThat(made.to()).isEqualTo(100);
        assertThat(made.samples()).isEqualTo(21);
        assertThat(made.mean()).isCloseTo(3.9, within(1e-12));
        assertThat(made.drift()).isCloseTo(0.2, within(1e-12));
        assertThat(made.scatter()).isCloseTo(0, within(1e-12));
        assertThat(made.settled()).isFalse();
        assertThat(made.why())
                .startsWith("It still drifts by 5.1 % of the mean over the window, which is more than 0.1 %");
    }

    @Test
    void aWaveScattersAndDriftsHardly() {
        // Ten whole periods in the window.
        Settling made = judged(series(10_001, 0.01, t -> 50 + 0.02 * Math.cos(Math.PI * t)));
        assertThat(made.mean()).isCloseTo(50, within(2e-5));
        assertThat(made.scatter()).isCloseTo(0.02 / Math.sqrt(2), within(2e-5));
        assertThat(Math.abs(made.drift())).isLessThan(1e-3);
        assertThat(made.settled()).isTrue();
        assertThat(made.why())
                .isEqualTo("Over the window it drifts by "
                        + made.why().replaceAll(".*drifts by ([^ ]+ %).*", "$1")
                        + " of the mean and scatters by 0.028 %, both at most 0.1 %.");
        Settling wide = judged(series(10_001, 0.01, t -> 50 + Math.cos(Math.PI * t)));
        assertThat(wide.settled()).isFalse();
        assertThat(wide.why()).startsWith("It scatters by 1.4 % of the mean, which is more than 0.1 %");
    }

    /** x[i] = phi x[i-1] + e[i] + theta e[i-1], of variance one in e. */
    private static double[] remembering(double phi, double theta, int n, long seed) {
        var random = new Random(seed);
        double[] out = new double[n];
        double before = random.nextGaussian();
        double x = before / Math.sqrt(1 - phi * phi);
        for (int i = 0; i < n; i++) {
            double e = random.nextGaussian();
            x = phi * x + e + theta * before;
            before = e;
            out[i] = 20 + x;
        }
        return out;
    }

    @ParameterizedTest
    @CsvSource({
        // Independent; remembering for some, many, very many values; swinging to and fro; of a moving mean.
        "0, 0",
        "0.5, 0",
        "0.9, 0",
        "0.97, 0",
        "-0.5, 0",
        "0, 0.8",
        "0.7, -0.4"
    })
    void theStandardErrorOfValuesThatRememberIsKnown(double phi, double theta) {
        int n = 20_000;
        // The spectrum at frequency zero, over the number in the window.
        double known = (1 + theta) / (1 - phi) / Math.sqrt(n / 5.0);
        double product = 1;
        for (long seed = 1; seed <= 6; seed++) {
            Settling made = judged(Series.ofRows(remembering(phi, theta, n, seed)));
            assertThat(made.standardError()).as("seed " + seed).isBetween(known / 1.5, known * 1.5);
            double independent = square(deviation(phi, theta) / known);
            assertThat(made.effectiveSamples()).isBetween(independent / 2.3, independent * 2.3);
            product *= made.standardError() / known;
        }
        // All together they are not off to one side.
        assertThat(Math.pow(product, 1 / 6.0)).isBetween(0.8, 1.2);
    }

    private static double square(double v) {
        return v * v;
    }

    private static double deviation(double phi, double theta) {
        return Math.sqrt((1 + 2 * phi * theta + theta * theta) / (1 - phi * phi));
    }

    @Test
    void memoryOfANumberOfKinds() {
        double[] white = remembering(0, 0, 50_000, 7);
        assertThat(Settling.memory(white, 20)).isBetween(1.0, 1.15);
        // (1 + phi) / (1 - phi).
        assertThat(Settling.memory(remembering(0.9, 0, 50_000, 7), 20)).isBetween(15.0, 23.0);
        assertThat(Settling.memory(new double[100], 0)).isEqualTo(1);
    }

    @Test
    void eachValueCountsWithItsTime() {
        // Ten times as many samples in the first half of the time.
        double[] t = new double[111];
        double[] v = new double[111];
        for (int i = 0; i < 111; i++) {
            t[i] = i <= 100 ? 0.1 * i : i - 90;
            v[i] = i <= 100 ? 1 : 3;
        }
        Series s = Series.of(t, v);
        assertThat(s.uneven()).isTrue();
        assertThat(Settling.of(s, 1, 0.1, Double.NaN, 0).mean()).isCloseTo(2, within(0.03));
        assertThat(series(50, 0.1, x -> x).uneven()).isFalse();
    }

    @Test
    void aRunThatWasRestartedCountsWhatItWroteLast() {
        Series s = Series.of(new double[] {0, 1, 2, 3, 2, 3, 4}, new double[] {5, 5, 7, 7, 6, 6, 6});
        assertThat(s.along()).containsExactly(0, 1, 2, 3, 4);
        assertThat(s.value()).containsExactly(5, 5, 6, 6, 6);
        assertThat(s.repeated()).isEqualTo(2);
        Series newestFirst = Series.of(new double[] {3, 2, Double.NaN, 1}, new double[] {30, 20, 5, 10});
        assertThat(newestFirst.along()).containsExactly(1, 2, 3);
        assertThat(newestFirst.value()).containsExactly(10, 20, 30);
        assertThat(newestFirst.repeated()).isZero();
        Series gaps = Series.ofRows(new double[] {1, Double.NaN, 3, Double.POSITIVE_INFINITY, 5});
        assertThat(gaps.along()).containsExactly(1, 3, 5);
        assertThat(gaps.absent()).isEqualTo(2);
    }

    @Test
    void batchesMayBeStated() {
        double[] v = remembering(0, 0, 400, 3);
        double[] means = IntStream.range(0, 8)
                .mapToDouble(b -> java.util.Arrays.stream(v, 50 * b, 50 * (b + 1))
                        .average()
                        .orElseThrow())
                .toArray();
        double mean = java.util.Arrays.stream(means).average().orElseThrow();
        double by = Math.sqrt(
                java.util.Arrays.stream(means).map(m -> square(m - mean)).sum() / 7 / 8);
        Settling made = Settling.of(Series.ofRows(v), 1, 0.5, Double.NaN, 8);
        assertThat(made.batches()).isEqualTo(8);
        assertThat(made.standardError()).isCloseTo(by, within(1e-12));
        assertThatThrownBy(() -> Settling.of(Series.ofRows(v), 1, 0.5, Double.NaN, 401))
                .hasMessageContaining("from 2 to 400");
    }

    @Test
    void whatCannotBeJudgedIsTold() {
        assertThatThrownBy(() -> judged(series(10, 1, t -> 1)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("has 2 of 10 values");
        assertThatThrownBy(() -> Settling.of(series(100, 1, t -> 1), 1.5, 1e-3, Double.NaN, 0))
                .hasMessageContaining("at most 1");
        assertThatThrownBy(() -> Settling.of(series(100, 1, t -> 1), 0.5, 0, Double.NaN, 0))
                .hasMessageContaining("above 0");
        double[] noise = remembering(0, 0, 1000, 5);
        java.util.Arrays.setAll(noise, i -> noise[i] - 20);
        Settling zero = judged(Series.ofRows(noise));
        assertThat(zero.settled()).isFalse();
        assertThat(zero.why()).contains("cannot be told from zero").contains("state a scale");
        // About a scale it is judged.
        assertThat(Settling.of(Series.ofRows(noise), 0.5, 0.1, 40, 0).settled()).isTrue();
    }

    @Test
    void whatStandsStillHasSettled() {
        Settling made = judged(series(100, 1, t -> 4.5));
        assertThat(made.settled()).isTrue();
        assertThat(made.standardError()).isZero();
        assertThat(made.effectiveSamples()).isEqualTo(made.samples());
        Settling nothing = judged(series(100, 1, t -> 0));
        assertThat(nothing.settled()).isTrue();
        assertThat(nothing.why()).isEqualTo("It is zero all through the window.");
    }
}
