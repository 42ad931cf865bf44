package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Values between the points of a curve, found in few steps where the abscissa grows. */
class BetweenTest {
    private static void same(double[] x, double[] y, double at) {
        Double wanted = Between.between(x, y, at);
        assertThat((Double) Between.sought(x, y, at))
                .as("%s in %s of %s", at, x, y)
                .isEqualTo(wanted);
    }

    @Test
    void bothWaysFindTheSame() {
        for (int seed = 0; seed < 200; seed++) {
            var r = new Random(seed);
            int n = 1 + r.nextInt(12);
            double[] x = IntStream.range(0, n)
                    .mapToDouble(i -> i - 4 + 0.5 * r.nextInt(2))
                    .toArray();
            for (int i = 0; i < n; i++) {
                x[i] = x[i] == 0 && seed % 2 == 0 ? -0.0 : x[i];
            }
            double[] y = IntStream.range(0, n)
                    .mapToDouble(i -> r.nextInt(5) == 0 ? Double.NaN : r.nextGaussian())
                    .toArray();
            for (double at = -5; at < 10; at += 0.25) {
                same(x, y, at);
            }
            same(x, y, -0.0);
        }
        same(new double[0], new double[0], 1);
        assertThat(Between.sought(new double[] {1, 3}, new double[] {10, 20}, 2.5))
                .isEqualTo(17.5);
        assertThat(Between.sought(new double[] {1, 3}, new double[] {10, 20}, 3.5))
                .isNaN();
    }
}
