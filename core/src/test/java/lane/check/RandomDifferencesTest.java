package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Differences of curves that are made up at random against plain loops, and what they must not hang on. */
class RandomDifferencesTest {
    private static final Unit M = Unit.of("m");
    private static final Unit SPEED = Unit.of("m/s");

    private static Profile profile(double[] x, double[] y) {
        return new Profile(x, y, List.of(), "height", M, SPEED, false, x.length, "", Provenance.EMPTY);
    }

    /** Ascending, unevenly, from about the first to about the last. */
    private static double[] places(Random random, double from, double to) {
        int n = 3 + random.nextInt(30);
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = from + (to - from) * (i + 0.8 * random.nextDouble()) / n;
        }
        return x;
    }

    private static double[] values(Random random, double[] x) {
        double a = random.nextDouble();
        double b = 4 * random.nextDouble();
        return Arrays.stream(x)
                .map(v -> 3 + a * Math.sin(b * v) + 0.2 * random.nextGaussian())
                .toArray();
    }

    private static double linear(double[] x, double[] y, double at) {
        int i = 0;
        while (i + 2 < x.length && x[i + 1] < at) {
            i++;
        }
        return y[i] + (y[i + 1] - y[i]) * (at - x[i]) / (x[i + 1] - x[i]);
    }

    /** What is known of a difference, by loops alone. */
    private record Plain(double[] at, double[] value, double l1, double l2, double linf, double bias) {
        static Plain of(double[] x, double[] y, double[] to, double[] datum) {
            int[] in = java.util.stream.IntStream.range(0, to.length)
                    .filter(i -> to[i] >= x[0] && to[i] <= x[x.length - 1])
                    .toArray();
            double[] at = new double[in.length];
            double[] value = new double[in.length];
            for (int k = 0; k < in.length; k++) {
                at[k] = to[in[k]];
                value[k] = linear(x, y, at[k]) - datum[in[k]];
            }
            double length = at[at.length - 1] - at[0];
            double one = 0;
            double two = 0;
            double most = 0;
            double sum = 0;
            for (int k = 0; k < at.length; k++) {
                double half = (at[Math.min(at.length - 1, k + 1)] - at[Math.max(0, k - 1)]) / 2 / length;
                one += half * Math.abs(value[k]);
                two += half * value[k] * value[k];
                sum += half * value[k];
                most = Math.max(most, Math.abs(value[k]));
            }
            return new Plain(at, value, one, Math.sqrt(two), most, sum);
        }
    }

    private interface Pair {
        void see(double[] x, double[] y, double[] to, double[] datum);
    }

    private static void pairs(int trials, long seed, Pair then) {
        var random = new Random(seed);
        for (int trial = 0; trial < trials; trial++) {
            double from = random.nextDouble();
            double[] x = places(random, from - 0.3 * random.nextDouble(), from + 2 + random.nextDouble());
            double[] to = places(random, from, from + 2);
            if (Arrays.stream(to).filter(v -> v >= x[0] && v <= x[x.length - 1]).count() > 2) {
                then.see(x, values(random, x), to, values(random, to));
            }
        }
    }

    @Test
    void normsAreThoseOfPlainLoops() {
        int[] seen = new int[1];
        pairs(800, 1, (x, y, to, datum) -> {
            Plain p = Plain.of(x, y, to, datum);
            Difference d = Difference.of(profile(x, y), profile(to, datum));
            assertThat(d.abscissa()).containsExactly(p.at);
            for (int i = 0; i < p.at.length; i++) {
                assertThat(d.value()[i]).isCloseTo(p.value[i], within(1e-13));
            }
            assertThat(d.l1()).isCloseTo(p.l1, within(1e-13));
            assertThat(d.l2()).isCloseTo(p.l2, within(1e-13));
            assertThat(d.linf()).isCloseTo(p.linf, within(1e-13));
            assertThat(d.bias()).isCloseTo(p.bias, within(1e-13));
            assertThat(Math.abs(d.signed())).isEqualTo(d.linf());
            int worst = java.util.stream.IntStream.range(0, p.at.length)
                    .boxed()
                    .max(java.util.Comparator.comparingDouble(i -> Math.abs(d.value()[i])))
                    .orElseThrow();
            assertThat(d.linfAt()).isEqualTo(p.at[worst]);
            assertThat(Arrays.stream(d.weight()).sum()).isCloseTo(1, within(1e-13));
            // Norms of one curve are ordered.
            assertThat(Math.abs(d.bias())).isLessThanOrEqualTo(d.l1() + 1e-14);
            assertThat(d.l1()).isLessThanOrEqualTo(d.l2() + 1e-14);
            assertThat(d.l2()).isLessThanOrEqualTo(d.linf() + 1e-14);
            seen[0]++;
        });
        assertThat(seen[0]).isGreaterThan(500);
    }

    private static double[] mapped(double[] v, java.util.function.DoubleUnaryOperator f) {
        return Arrays.stream(v).map(f).toArray();
    }

    private static double[] reversed(double[] v) {
        double[] out = new double[v.length];
        Arrays.setAll(out, i -> v[v.length - 1 - i]);
        return out;
    }

    @Test
    void whereOneBeginsToCountDoesNotMatter() {
        pairs(300, 2, (x, y, to, datum) -> {
            Difference d = Difference.of(profile(x, y), profile(to, datum));
            Difference moved = Difference.of(profile(mapped(x, v -> v + 7), y), profile(mapped(to, v -> v + 7), datum));
            assertThat(moved.l2()).isCloseTo(d.l2(), within(1e-12));
            assertThat(moved.linfAt()).isCloseTo(d.linfAt() + 7, within(1e-12));
            Difference lifted =
                    Difference.of(profile(x, mapped(y, v -> v - 40)), profile(to, mapped(datum, v -> v - 40)));
            assertThat(lifted.l1()).isCloseTo(d.l1(), within(1e-12));
            assertThat(lifted.bias()).isCloseTo(d.bias(), within(1e-12));
        });
    }

    @Test
    void scalesAndSignsGoAlong() {
        pairs(300, 3, (x, y, to, datum) -> {
            Difference d = Difference.of(profile(x, y), profile(to, datum));
            Difference larger =
                    Difference.of(profile(x, mapped(y, v -> 1000 * v)), profile(to, mapped(datum, v -> 1000 * v)));
            assertThat(larger.l2()).isCloseTo(1000 * d.l2(), within(1e-9));
            for (Scale scale : Scale.values()) {
                if (scale == Scale.UNCERTAINTY) {
                    // Nothing is stated here.
                    continue;
                }
                double own = d.scale(scale);
                double other = larger.scale(scale);
                // What is relative to the datum stays; what is absolute has no scale to grow.
                assertThat(other / own)
                        .as(scale.name())
                        .satisfiesAnyOf(r -> assertThat(r).isCloseTo(1000, within(1e-6)), r -> assertThat(r)
                                .isCloseTo(1, within(1e-12)));
            }
            Difference turned = Difference.of(profile(x, mapped(y, v -> -v)), profile(to, mapped(datum, v -> -v)));
            assertThat(turned.bias()).isCloseTo(-d.bias(), within(1e-13));
            assertThat(turned.signed()).isCloseTo(-d.signed(), within(1e-13));
            assertThat(turned.l1()).isCloseTo(d.l1(), within(1e-13));
        });
    }

    @Test
    void whichWayTheyWereWrittenDoesNotMatter() {
        pairs(300, 4, (x, y, to, datum) -> {
            Difference d = Difference.of(profile(x, y), profile(to, datum));
            for (Difference other : List.of(
                    Difference.of(profile(reversed(x), reversed(y)), profile(to, datum)),
                    Difference.of(profile(x, y), profile(reversed(to), reversed(datum))),
                    Difference.of(profile(reversed(x), reversed(y)), profile(reversed(to), reversed(datum))))) {
                assertThat(other.l1()).isCloseTo(d.l1(), within(1e-13));
                assertThat(other.l2()).isCloseTo(d.l2(), within(1e-13));
                assertThat(other.linf()).isCloseTo(d.linf(), within(1e-13));
                assertThat(other.bias()).isCloseTo(d.bias(), within(1e-13));
                assertThat(other.linfAt()).isEqualTo(d.linfAt());
            }
        });
    }

    /** A point that is told twice as often, in the middle of a piece that is straight, changes no norm of a straight difference. */
    @Test
    void aFinerCurveOfTheSameShapeIsTheSame() {
        pairs(300, 5, (x, y, to, datum) -> {
            double[] finer = new double[2 * x.length - 1];
            double[] same = new double[finer.length];
            for (int i = 0; i < finer.length; i++) {
                finer[i] = i % 2 == 0 ? x[i / 2] : (x[i / 2] + x[i / 2 + 1]) / 2;
                same[i] = i % 2 == 0 ? y[i / 2] : (y[i / 2] + y[i / 2 + 1]) / 2;
            }
            Difference d = Difference.of(profile(x, y), profile(to, datum));
            Difference f = Difference.of(profile(finer, same), profile(to, datum));
            assertThat(f.l1()).isCloseTo(d.l1(), within(1e-12));
            assertThat(f.l2()).isCloseTo(d.l2(), within(1e-12));
            assertThat(f.linf()).isCloseTo(d.linf(), within(1e-12));
        });
    }

    @Test
    void aCurveAgainstItselfHasNoDifference() {
        pairs(200, 6, (x, y, to, datum) -> {
            Difference d = Difference.of(profile(x, y), profile(x, y));
            assertThat(d.linf()).isZero();
            assertThat(d.l2()).isZero();
            assertThat(d.bias()).isZero();
        });
    }
}
