package lane.base;

import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;

/**
 * Loops over blocks on all cores. The blocks are a constant of the algorithm, never of the number of threads, so what
 * is summed per block and merged in block order has the same bits on any machine.
 */
public final class Parallel {
    private Parallel() {}

    /** Works on the half-open index range {@code [from, to)} of block {@code block}. */
    @FunctionalInterface
    public interface Block {
        void run(int block, int from, int to);
    }

    /** How many blocks are worked on at once. */
    public static int threads() {
        return ForkJoinPool.getCommonPoolParallelism() + 1;
    }

    /** The number of blocks of the given size that cover {@code n} items. */
    public static int blocks(int n, int size) {
        return (int) (((long) n + size - 1) / size);
    }

    /** Calls the body once for each block of {@code size} items out of {@code n}, in any order, on the common pool. */
    public static void forBlocks(int n, int size, Block body) {
        int blocks = blocks(n, size);
        if (blocks <= 1 || threads() == 1) {
            for (int b = 0; b < blocks; b++) {
                body.run(b, (int) ((long) b * size), (int) Math.min(n, (long) (b + 1) * size));
            }
            return;
        }
        // A shared counter keeps blocks of uneven cost balanced; which thread takes which block does not matter.
        var next = new AtomicInteger();
        int workers = Math.min(blocks, threads());
        IntStream.range(0, workers).parallel().forEach(w -> {
            for (int b = next.getAndIncrement(); b < blocks; b = next.getAndIncrement()) {
                body.run(b, (int) ((long) b * size), (int) Math.min(n, (long) (b + 1) * size));
            }
        });
    }
}
