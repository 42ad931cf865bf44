package lane.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.stream.IntStream;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Fits against certified values of published sets for linear regression: NIST Statistical Reference Datasets (StRD), Linear
 * Regression: Norris, Longley, Wampler1 to Wampler5, Filip.
 */
class LeastSquaresTest {
    private static void near(double[] found, double... certified) {
        assertThat(found).hasSameSizeAs(certified);
        for (int i = 0; i < found.length; i++) {
            assertThat(found[i]).as("number " + i).isCloseTo(certified[i], within(2e-14 * Math.abs(certified[i])));
        }
    }

    @Test
    void norris() {
        double[] x = {
            0.2, 337.4, 118.2, 884.6, 10.1, 226.5, 666.3, 996.3, 448.6, 777.0, 558.2, 0.4, 0.6, 775.5, 666.9, 338.0,
            447.5, 11.6, 556.0, 228.1, 995.8, 887.6, 120.2, 0.3, 0.3, 556.8, 339.1, 887.2, 999.0, 779.0, 11.1, 118.3,
            229.2, 669.1, 448.9, 0.5
        };
        double[] y = {
            0.1, 338.8, 118.1, 888.0, 9.2, 228.1, 668.5, 998.5, 449.1, 778.9, 559.2, 0.3, 0.1, 778.1, 668.8, 339.3,
            448.9, 10.8, 557.7, 228.3, 998.0, 888.8, 119.6, 0.3, 0.6, 557.6, 339.3, 888.0, 998.5, 778.9, 10.2, 117.6,
            228.9, 668.4, 449.2, 0.2
        };
        Fit fit = LeastSquares.polynomial(x, y, 1);
        near(fit.coefficients(), -0.262323073774029, 1.00211681802045);
        near(fit.standardErrors(), 0.232818234301152, 0.429796848199937e-3);
        near(new double[] {fit.residualDeviation(), fit.r2()}, 0.884796396144373, 0.999993745883712);
    }

    @Test
    void longley() {
        double[][] x = {
            {1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1},
            {83.0, 88.5, 88.2, 89.5, 96.2, 98.1, 99.0, 100.0, 101.2, 104.6, 108.4, 110.8, 112.6, 114.2, 115.7, 116.9},
            {
                234289, 259426, 258054, 284599, 328975, 346999, 365385, 363112, 397469, 419180, 442769, 444546, 482704,
                502601, 518173, 554894
            },
            {2356, 2325, 3682, 3351, 2099, 1932, 1870, 3578, 2904, 2822, 2936, 4681, 3813, 3931, 4806, 4007},
            {1590, 1456, 1616, 1650, 3099, 3594, 3547, 3350, 3048, 2857, 2798, 2637, 2552, 2514, 2572, 2827},
            {
                107608, 108632, 109773, 110929, 112075, 113270, 115094, 116219, 117388, 118734, 120445, 121950, 123366,
                125368, 127852, 130081
            },
            IntStream.rangeClosed(1947, 1962).asDoubleStream().toArray()
        };
        double[] y = {
            60323, 61122, 60171, 61187, 63221, 63639, 64989, 63761, 66019, 67857, 68169, 66513, 68655, 69564, 69331,
            70551
        };
        Fit fit = LeastSquares.of(x, y);
        near(
                fit.coefficients(),
                -3482258.63459582,
                15.0618722713733,
                -0.358191792925910e-1,
                -2.02022980381683,
                -1.03322686717359,
                -0.511041056535807e-1,
                1829.15146461355);
        near(
                fit.standardErrors(),
                890420.383607373,
                84.9149257747669,
                0.334910077722432e-1,
                0.488399681651699,
                0.214274163161675,
                0.226073200069370,
                455.478499142212);
        near(new double[] {fit.residualDeviation(), fit.r2()}, 304.854073561965, 0.995479004577296);
    }

    private static final double[] DELTA = {
        759, -2048, 2048, -2048, 2523, -2048, 2048, -2048, 1838, -2048, 2048, -2048, 1838, -2048, 2048, -2048, 2523,
        -2048, 2048, -2048, 759
    };

    @ParameterizedTest
    @CsvSource({
        "1, 2360.14502379268, 0.999995559025820",
        "100, 236014.502379268, 0.957478440825662",
        "10000, 23601450.2379268, 0.224668921574940e-2"
    })
    void wamplerThreeToFive(double times, double deviation, double r2) {
        double[] x = IntStream.rangeClosed(0, 20).asDoubleStream().toArray();
        double[] y = new double[21];
        for (int i = 0; i < 21; i++) {
            for (int k = 0; k <= 5; k++) {
                y[i] += Math.pow(i, k);
            }
            y[i] += times * DELTA[i];
        }
        Fit fit = LeastSquares.polynomial(x, y, 5);
        near(fit.coefficients(), 1, 1, 1, 1, 1, 1);
        near(
                Arrays.stream(fit.standardErrors()).map(e -> e / times).toArray(),
                2152.32624678170,
                2363.55173469681,
                779.343524331583,
                101.475507550350,
                5.64566512170752,
                0.112324854679312);
        near(new double[] {fit.residualDeviation(), fit.r2()}, deviation, r2);
    }

    @Test
    void wamplerOneAndTwoAreExact() {
        double[] x = IntStream.rangeClosed(0, 20).asDoubleStream().toArray();
        double[] one = Arrays.stream(x)
                .map(v -> 1 + v + v * v + Math.pow(v, 3) + Math.pow(v, 4) + Math.pow(v, 5))
                .toArray();
        Fit exact = LeastSquares.polynomial(x, one, 5);
        near(exact.coefficients(), 1, 1, 1, 1, 1, 1);
        assertThat(exact.residualDeviation()).isZero();
        assertThat(exact.standardErrors()).containsOnly(0);
        assertThat(exact.r2()).isEqualTo(1);
        // In tenths the values themselves are rounded to doubles.
        double[] two = Arrays.stream(x)
                .map(v ->
                        1 + v / 10 + v * v / 100 + Math.pow(v, 3) / 1000 + Math.pow(v, 4) / 1e4 + Math.pow(v, 5) / 1e5)
                .toArray();
        Fit near = LeastSquares.polynomial(x, two, 5);
        for (int k = 0; k <= 5; k++) {
            assertThat(near.coefficients()[k] * Math.pow(10, k)).isCloseTo(1, within(1e-11));
        }
        assertThat(near.residualDeviation()).isLessThan(1e-13);
    }

    @Test
    void filip() {
        double[] xy = {
            0.8116,
            -6.860120914,
            0.9072,
            -4.324130045,
            0.9052,
            -4.358625055,
            0.9039,
            -4.358426747,
            0.8053,
            -6.955852379,
            0.8377,
            -6.661145254,
            0.8667,
            -6.355462942,
            0.8809,
            -6.118102026,
            0.7975,
            -7.115148017,
            0.8162,
            -6.815308569,
            0.8515,
            -6.519993057,
            0.8766,
            -6.204119983,
            0.8885,
            -5.853871964,
            0.8859,
            -6.109523091,
            0.8959,
            -5.79832982,
            0.8913,
            -5.482672118,
            0.8959,
            -5.171791386,
            0.8971,
            -4.851705903,
            0.9021,
            -4.517126416,
            0.909,
            -4.143573228,
            0.9139,
            -3.709075441,
            0.9199,
            -3.499489089,
            0.8692,
            -6.300769497,
            0.8872,
            -5.953504836,
            0.89,
            -5.642065153,
            0.891,
            -5.031376979,
            0.8977,
            -4.680685696,
            0.9035,
            -4.329846955,
            0.9078,
            -3.928486195,
            0.7675,
            -8.56735134,
            0.7705,
            -8.363211311,
            0.7713,
            -8.107682739,
            0.7736,
            -7.823908741,
            0.7775,
            -7.522878745,
            0.7841,
            -7.218819279,
            0.7971,
            -6.920818754,
            0.8329,
            -6.628932138,
            0.8641,
            -6.323946875,
            0.8804,
            -5.991399828,
            0.7668,
            -8.781464495,
            0.7633,
            -8.663140179,
            0.7678,
            -8.473531488,
            0.7697,
            -8.247337057,
            0.77,
            -7.971428747,
            0.7749,
            -7.676129393,
            0.7796,
            -7.352812702,
            0.7897,
            -7.072065318,
            0.8131,
            -6.774174009,
            0.8498,
            -6.478861916,
            0.8741,
            -6.159517513,
            0.8061,
            -6.835647144,
            0.846,
            -6.53165267,
            0.8751,
            -6.224098421,
            0.8856,
            -5.910094889,
            0.8919,
            -5.598599459,
            0.8934,
            -5.290645224,
            0.894,
            -4.974284616,
            0.8957,
            -4.64454848,
            0.9047,
            -4.290560426,
            0.9129,
            -3.885055584,
            0.9209,
            -3.408378962,
            0.9219,
            -3.13200249,
            0.7739,
            -8.726767166,
            0.7681,
            -8.66695597,
            0.7665,
            -8.511026475,
            0.7703,
            -8.165388579,
            0.7702,
            -7.886056648,
            0.7761,
            -7.588043762,
            0.7809,
            -7.283412422,
            0.7961,
            -6.995678626,
            0.8253,
            -6.691862621,
            0.8602,
            -6.392544977,
            0.8809,
            -6.067374056,
            0.8301,
            -6.684029655,
            0.8664,
            -6.378719832,
            0.8834,
            -6.065855188,
            0.8898,
            -5.752272167,
            0.8964,
            -5.132414673,
            0.8963,
            -4.811352704,
            0.9074,
            -4.098269308,
            0.9119,
            -3.66174277,
            0.9228,
            -3.2644011
        };
        double[] x = new double[82];
        double[] y = new double[82];
        for (int i = 0; i < 82; i++) {
            y[i] = xy[2 * i];
            x[i] = xy[2 * i + 1];
        }
        Fit fit = LeastSquares.polynomial(x, y, 10);
        double[] certified = {
            -1467.48961422980,
            -2772.17959193342,
            -2316.37108160893,
            -1127.97394098372,
            -354.478233703349,
            -75.1242017393757,
            -10.8753180355343,
            -1.06221498588947,
            -0.670191154593408e-1,
            -0.246781078275479e-2,
            -0.402962525080404e-4
        };
        for (int k = 0; k <= 10; k++) {
            assertThat(fit.coefficients()[k] / certified[k])
                    .as("coefficient " + k)
                    .isCloseTo(1, within(1e-9));
        }
        assertThat(fit.residualDeviation()).isCloseTo(0.334801051324544e-2, within(1e-11));
        assertThat(fit.r2()).isCloseTo(0.996727416185620, within(1e-11));
        assertThat(fit.standardErrors()[0]).isCloseTo(298.084530995537, within(1e-6));
    }

    /** Far from zero the powers are nearly alike; the coefficients keep their digits all the same. */
    @Test
    void abscissasFarFromZero() {
        double[] x = IntStream.range(0, 200).mapToDouble(i -> 1e6 + i / 8.0).toArray();
        double[] y = Arrays.stream(x)
                .map(v -> 3 * (v - 1e6) * (v - 1e6) - 7 * (v - 1e6) + 2)
                .toArray();
        Fit fit = LeastSquares.polynomial(x, y, 2);
        near(fit.coefficients(), 3e12 + 7e6 + 2, -6e6 - 7, 3);
        assertThat(fit.residualDeviation()).isZero();
        assertThat(fit.freedom()).isEqualTo(197);
    }

    @Test
    void whatCannotBeFittedIsOneSentence() {
        double[] two = {1, 2};
        assertThatThrownBy(() -> LeastSquares.polynomial(new double[] {5, 5}, two, 1))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("2 coefficients, but the samples have 1 abscissa");
        assertThatThrownBy(() -> LeastSquares.polynomial(two, two, 21)).hasMessageContaining("from 0 to 20");
        assertThatThrownBy(() -> LeastSquares.polynomial(two, new double[] {1, Double.NaN}, 1))
                .hasMessageContaining("finite");
        assertThatThrownBy(() -> LeastSquares.of(new double[][] {{1, 1, 1}, {2, 2, 2}}, new double[] {1, 2, 3}))
                .hasMessageContaining("cannot be told apart");
        assertThatThrownBy(() -> LeastSquares.of(new double[][] {{1}, {2}}, new double[] {1}))
                .hasMessageContaining("at least as many samples");
        // Through as many samples as coefficients it goes exactly, and nothing tells how well.
        Fit through = LeastSquares.polynomial(two, new double[] {5, 7}, 1);
        near(through.coefficients(), 3, 2);
        assertThat(through.residualDeviation()).isNaN();
        assertThat(through.standardErrors()).containsOnly(Double.NaN);
        assertThat(LeastSquares.polynomial(two, new double[] {4, 4}, 0).r2()).isNaN();
    }
}
