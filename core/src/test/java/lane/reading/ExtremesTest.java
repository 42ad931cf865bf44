package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

class ExtremesTest {
    private static final double[] ODD = {
        Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, 0.0, -0.0, 3, -7, 3, Double.MIN_VALUE
    };

    /** The first of equals, by looking at each pair. */
    private static int first(double[] all, boolean greatest) {
        for (int i = 0; i < all.length; i++) {
            boolean end = !Double.isNaN(all[i]);
            for (double other : all) {
                end &= greatest ? !(other > all[i]) : !(other < all[i]);
            }
            if (end) {
                return i;
            }
        }
        return -1;
    }

    @Test
    void theFirstOfTheLeastAndOfTheGreatest() {
        var random = new Random(7);
        for (int round = 0; round < 3000; round++) {
            double[] all = new double[random.nextInt(9)];
            for (int i = 0; i < all.length; i++) {
                all[i] = ODD[random.nextInt(ODD.length)];
            }
            int finite =
                    (int) java.util.Arrays.stream(all).filter(Double::isFinite).count();
            assertThat(Extremes.of(all))
                    .as(java.util.Arrays.toString(all))
                    .isEqualTo(new Extremes(first(all, false), first(all, true), finite));
        }
    }

    /** Long ones are known by themselves, not by what others hold. */
    @Test
    void longOnesAreLookedOverOnce() {
        double[] one = new double[20_000];
        double[] other = new double[20_000];
        one[11_111] = -2;
        other[3] = 5;
        assertThat(Extremes.of(one)).isSameAs(Extremes.of(one)).isEqualTo(new Extremes(11_111, 0, 20_000));
        assertThat(Extremes.of(other)).isEqualTo(new Extremes(0, 3, 20_000));
    }
}
