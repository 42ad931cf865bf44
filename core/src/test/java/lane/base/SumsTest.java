package lane.base;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicIntegerArray;
import org.junit.jupiter.api.Test;

/** Sums against exact decimals, and loops over blocks: each once, the same sums on any number of threads. */
class SumsTest {
    private static double exact(double[] v, double[] w) {
        BigDecimal sum = BigDecimal.ZERO;
        for (int i = 0; i < v.length; i++) {
            sum = sum.add(new BigDecimal(w == null ? v[i] : w[i] * v[i]));
        }
        return sum.doubleValue();
    }

    @Test
    void whateverCancelsTheSumIsRight() {
        var random = new Random(1);
        for (int trial = 0; trial < 300; trial++) {
            int n = random.nextInt(70);
            double[] v = new double[n];
            double most = 0;
            for (int i = 0; i < n; i++) {
                v[i] = random.nextGaussian() * Math.pow(10, random.nextInt(12) - 6);
                if (i > 0 && random.nextInt(3) == 0) {
                    v[i] = -v[random.nextInt(i)];
                }
                most = Math.max(most, Math.abs(v[i]));
            }
            double expected = exact(v, null);
            // Twice the digits of a double are kept on the way.
            double slack = 1e-16 * Math.abs(expected) + 1e-30 * most * n + Double.MIN_VALUE;
            assertThat(Sum.of(v)).isCloseTo(expected, within(4 * slack));
            var one = new Sum();
            for (double x : v) {
                one.add(x);
            }
            assertThat(one.value()).isCloseTo(expected, within(4 * slack));
        }
    }

    @Test
    void productsWithWeightsThatBeginElsewhere() {
        var random = new Random(2);
        for (int trial = 0; trial < 200; trial++) {
            int n = random.nextInt(40);
            int from = random.nextInt(9);
            double[] v = random.doubles(n, -1, 1).toArray();
            double[] w = random.doubles(n + from + 3, -1, 1).toArray();
            var sum = new Sum();
            sum.addProducts(v, w, from, n);
            assertThat(sum.value()).isCloseTo(exact(v, Arrays.copyOfRange(w, from, from + n)), within(1e-15));
            var whole = new Sum();
            whole.addProducts(v, w, n);
            assertThat(whole.value()).isCloseTo(exact(v, Arrays.copyOf(w, n)), within(1e-15));
        }
    }

    /** From some thousands on sums run side by side. */
    @Test
    void manyProductsAreAsRightAsFew() {
        var random = new Random(3);
        for (int n : new int[] {4095, 4096, 4097, 9999, 20000}) {
            int from = random.nextInt(9);
            int first = random.nextInt(9);
            double[] v = random.doubles(n + first, -1, 1).toArray();
            double[] w = random.doubles(n + from, 0, 1).toArray();
            for (int i = 0; i + 7 < n; i += 7) {
                // Most of it cancels, from one place to another far away.
                v[first + n - 1 - i] = 1e9 * (v[first + i] + 1);
                w[from + n - 1 - i] = 1;
            }
            for (int i = 0; i + 14 < n; i += 14) {
                v[first + n - 1 - i] = -v[first + n - 8 - i];
            }
            double expected = exact(Arrays.copyOfRange(v, first, first + n), Arrays.copyOfRange(w, from, from + n));
            var sum = new Sum();
            sum.addProducts(v, first, w, from, n);
            assertThat(sum.value()).isCloseTo(expected, within(4e-16 * Math.abs(expected) + 1e-16));
        }
        double[] endless = new double[5000];
        endless[4000] = Double.POSITIVE_INFINITY;
        double[] one = new double[5000];
        Arrays.fill(one, 1);
        var sum = new Sum();
        sum.addProducts(endless, one, endless.length);
        assertThat(sum.value()).isEqualTo(Double.POSITIVE_INFINITY);
    }

    @Test
    void severalSumsSideBySide() {
        Sum[] all = Sum.fresh(3);
        for (int i = 0; i < 1000; i++) {
            all[i % 3].add(i);
        }
        assertThat(Sum.values(all)).containsExactly(166833, 166167, 166500);
    }

    @Test
    void everyBlockIsWorkedOnOnceWithItsOwnRange() {
        for (int n : new int[] {0, 1, 7, 8, 9, 1000, 1001}) {
            for (int size : new int[] {1, 8, 333, 5000}) {
                var times = new AtomicIntegerArray(n);
                var blocks = new ConcurrentLinkedQueue<Integer>();
                Parallel.forBlocks(n, size, (block, from, to) -> {
                    blocks.add(block);
                    assertThat(from).isEqualTo(block * size);
                    assertThat(to - from).isBetween(1, size);
                    for (int i = from; i < to; i++) {
                        times.incrementAndGet(i);
                    }
                });
                for (int i = 0; i < n; i++) {
                    assertThat(times.get(i)).isEqualTo(1);
                }
                assertThat(blocks).hasSize(Parallel.blocks(n, size)).doesNotHaveDuplicates();
            }
        }
        assertThat(Parallel.blocks(Integer.MAX_VALUE, 1 << 20)).isEqualTo(2048);
    }

    @Test
    void whatGoesWrongInABlockReachesWhoAsked() {
        assertThatThrownBy(() -> Parallel.forBlocks(100, 1, (block, from, to) -> {
                    if (block == 57) {
                        throw new LaneException("Block 57 is not well.");
                    }
                }))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("Block 57 is not well.");
    }

    /** The blocks are the algorithm's, so what is summed in them has the same bits however many work on it. */
    @Test
    void sumsOverBlocksAreTheSameToTheBit() {
        double[] v = new Random(3).doubles(200_003, -1e6, 1e6).toArray();
        double[] first = new double[Parallel.blocks(v.length, 1024)];
        for (int b = 0; b < first.length; b++) {
            var own = new Sum();
            own.add(
                    Arrays.copyOfRange(v, 1024 * b, Math.min(v.length, 1024 * (b + 1))),
                    Math.min(1024, v.length - 1024 * b));
            first[b] = own.value();
        }
        for (int round = 0; round < 5; round++) {
            double[] partial = new double[first.length];
            Parallel.forBlocks(v.length, 1024, (block, from, to) -> {
                var own = new Sum();
                own.add(Arrays.copyOfRange(v, from, to), to - from);
                partial[block] = own.value();
            });
            assertThat(partial).containsExactly(first);
        }
    }
}
