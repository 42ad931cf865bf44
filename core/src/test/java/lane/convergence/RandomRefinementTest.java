package lane.convergence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import lane.convergence.Refinement.Stated;
import org.junit.jupiter.api.Test;

/** Families of meshes that are made up at random with a known order and limit, and what their numbers must not hang on. */
class RandomRefinementTest {
    private record Family(double[] h, double[] values, double order, double limit, double factor) {}

    private static Family family(Random r, int meshes) {
        double order = 0.7 + 3 * r.nextDouble();
        double limit = 20 * r.nextDouble() - 10;
        double factor = (r.nextBoolean() ? 1 : -1) * (0.5 + 2 * r.nextDouble());
        double[] h = new double[meshes];
        h[0] = Math.pow(10, r.nextInt(5) - 3) * (0.5 + r.nextDouble());
        for (int i = 1; i < meshes; i++) {
            h[i] = h[i - 1] * (1.2 + 1.2 * r.nextDouble());
        }
        double finest = h[0];
        double[] values = Arrays.stream(h)
                .map(x -> limit + factor * Math.pow(x / finest, order))
                .toArray();
        return new Family(h, values, order, limit, factor);
    }

    @Test
    void theOrderAndTheLimitAreFound() {
        var random = new Random(1);
        for (int trial = 0; trial < 400; trial++) {
            Family f = family(random, 3);
            Convergence c = Refinement.of(f.h, f.values, Stated.NOTHING);
            String what = "trial " + trial + ": " + f;
            assertThat(c.kind()).as(what).isEqualTo(Kind.MONOTONE);
            assertThat(c.order()).as(what).isCloseTo(f.order, within(1e-7));
            assertThat(c.extrapolated()).as(what).isCloseTo(f.limit, within(1e-6));
            // The error of the finest is the factor itself; the doubt covers it with its safety.
            assertThat(c.half()).as(what).isCloseTo(c.safety() * Math.abs(f.factor), within(1e-5));
        }
    }

    @Test
    void moreMeshesOfOneLawSayTheSame() {
        var random = new Random(2);
        for (int trial = 0; trial < 60; trial++) {
            Family f = family(random, 4 + random.nextInt(3));
            Convergence c = Refinement.of(f.h, f.values, Stated.NOTHING);
            assertThat(c.kind()).isEqualTo(Kind.MONOTONE);
            assertThat(c.order()).as("trial %d", trial).isCloseTo(f.order, within(1e-4));
            assertThat(c.extrapolated()).as("trial %d", trial).isCloseTo(f.limit, within(1e-4));
        }
    }

    @Test
    void unitsOrderAndSignsDoNotMatter() {
        var random = new Random(3);
        for (int trial = 0; trial < 200; trial++) {
            Family f = family(random, 3);
            Convergence c = Refinement.of(f.h, f.values, Stated.NOTHING);
            // Sizes in millimetres, in any order.
            int[] order = {2, 0, 1};
            double[] h = Arrays.stream(order).mapToDouble(i -> 1000 * f.h[i]).toArray();
            double[] v = Arrays.stream(order).mapToDouble(i -> f.values[i]).toArray();
            Convergence turned = Refinement.of(h, v, Stated.NOTHING);
            assertThat(turned.order()).isCloseTo(c.order(), within(1e-9));
            assertThat(turned.extrapolated()).isCloseTo(c.extrapolated(), within(1e-9));
            // Values in another unit, with the other sign.
            double[] scaled = Arrays.stream(f.values).map(x -> -250 * x).toArray();
            Convergence other = Refinement.of(f.h, scaled, Stated.NOTHING);
            assertThat(other.order()).isCloseTo(c.order(), within(1e-9));
            assertThat(other.extrapolated()).isCloseTo(-250 * c.extrapolated(), within(1e-6));
            assertThat(other.half()).isCloseTo(250 * c.half(), within(1e-6));
            // Counted from elsewhere: the order and the absolute doubt stay.
            double[] lifted = Arrays.stream(f.values).map(x -> x + 5).toArray();
            Convergence up = Refinement.of(f.h, lifted, Stated.NOTHING);
            assertThat(up.order()).isCloseTo(c.order(), within(1e-7));
            assertThat(up.extrapolated()).isCloseTo(c.extrapolated() + 5, within(1e-6));
        }
    }

    @Test
    void aStatedOrderIsTakenAndTwoMeshesNeedOne() {
        var random = new Random(4);
        for (int trial = 0; trial < 100; trial++) {
            Family f = family(random, 2);
            Convergence c = Refinement.of(f.h, f.values, new Stated(f.order, Double.NaN));
            assertThat(c.kind()).isEqualTo(Kind.TWO);
            assertThat(c.extrapolated()).isCloseTo(f.limit, within(1e-8));
            Convergence other = Refinement.of(f.h, f.values, new Stated(f.order + 1, Double.NaN));
            assertThat(other.extrapolated()).isNotCloseTo(f.limit, within(1e-3 * Math.abs(f.factor)));
        }
    }

    @Test
    void againstAnExactValueTheOrderIsThatOfTheErrors() {
        var random = new Random(5);
        for (int trial = 0; trial < 200; trial++) {
            Family f = family(random, 2 + random.nextInt(4));
            AgainstExact a = AgainstExact.of(f.h, f.values, f.limit);
            assertThat(a.order()).as("trial %d", trial).isCloseTo(f.order, within(1e-7));
            for (double between : a.between()) {
                assertThat(between).isCloseTo(f.order, within(1e-7));
            }
        }
    }
}
