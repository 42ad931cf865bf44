package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;

/** What is made behind the window: order, giving up, faults. The test's own thread stands for the interface thread. */
class BackgroundTest {
    private final BlockingQueue<Runnable> window = new LinkedBlockingQueue<>();
    private int told;
    private final Background background = new Background("test", () -> told++, window::add, e -> "a fault: " + e);

    private void arrive() throws InterruptedException {
        window.poll(20, TimeUnit.SECONDS).run();
    }

    @Test
    void whatIsAskedForLastIsMadeFirst() throws Exception {
        var gate = new CountDownLatch(1);
        List<String> order = java.util.Collections.synchronizedList(new ArrayList<>());
        var begun = new CountDownLatch(1);
        background.of("first", w -> {
            begun.countDown();
            await(gate);
            return order.add("first");
        });
        begun.await();
        background.of("old", w -> order.add("old"));
        background.of("new", w -> order.add("new"));
        gate.countDown();
        while (background.of("old", w -> "again") == null) {
            arrive();
        }
        assertThat(order).containsExactly("first", "new", "old");
        // Of what arrives together it is told once.
        assertThat(told).isBetween(1, 3);
        assertThat(background.of("new", w -> "again").thing()).isEqualTo(true);
    }

    @Test
    void whatNobodyAsksForIsGivenUpAndMayBeAskedForAgain() throws Exception {
        var begun = new CountDownLatch(1);
        background.of("long", w -> {
            begun.countDown();
            while (true) {
                w.poll();
                Thread.onSpinWait();
            }
        });
        begun.await();
        background.of("waits", w -> {
            throw new AssertionError("given up before it began");
        });
        background.settle();
        background.of("short", w -> "made");
        background.settle();
        arrive();
        assertThat(background.of("short", w -> "").thing()).isEqualTo("made");
        assertThat(background.of("long", w -> "this time")).isNull();
        arrive();
        assertThat(background.of("long", w -> "").thing()).isEqualTo("this time");
        assertThat(window).isEmpty();
    }

    @Test
    void everyFaultReachesThePlaceThatWaits() throws Exception {
        background.of("refused", w -> {
            throw new LaneException("No field of that name.");
        });
        arrive();
        background.of("broken", w -> {
            throw new IllegalStateException("never seen before");
        });
        arrive();
        background.of("worse", w -> {
            throw new StackOverflowError();
        });
        arrive();
        assertThat(background.of("refused", w -> "").trouble()).isEqualTo("No field of that name.");
        assertThat(background.of("broken", w -> "").trouble())
                .contains("a fault")
                .contains("never seen before");
        assertThat(background.of("worse", w -> "").trouble()).contains("a fault");
        assertThat(told).isEqualTo(3);
    }

    private static void await(CountDownLatch gate) {
        try {
            gate.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
