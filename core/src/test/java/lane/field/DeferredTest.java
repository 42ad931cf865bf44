package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import lane.base.Fault;
import lane.base.LaneException;
import lane.unit.Unit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Isolated;

/** Numbers that wait in a file: read once, let go of by age, the same when they are read again. */
@Isolated("sets what the whole program may hold")
class DeferredTest {
    private static final long LIMIT = Shelf.limit();

    @AfterEach
    void limit() {
        Shelf.limit(LIMIT);
    }

    private static Deferred of(Object key, int n, AtomicInteger reads) {
        return new Deferred(key, n, () -> {
            reads.incrementAndGet();
            double[] out = new double[n];
            Arrays.setAll(out, i -> i + key.hashCode());
            return Values.of(out);
        });
    }

    @Test
    void numbersAreReadWhenTheyAreAskedForAndThenKept() {
        var reads = new AtomicInteger();
        var field = new Field("q", Field.At.NODE, 2, Unit.ONE, of(7, 10, reads));
        assertThat(field.size()).isEqualTo(5);
        assertThat(field.inMemory()).isFalse();
        assertThat(reads.get()).isZero();
        assertThat(field.values().get(3)).isEqualTo(10);
        assertThat(field.range(1)).containsExactly(8, 12, 16);
        assertThat(reads.get()).isEqualTo(1);
        assertThat(field.inMemory()).isTrue();
        // Made of it, and as late.
        Field picked = field.pick(new int[] {4, 0});
        assertThat(picked.values().get(0)).isEqualTo(15);
        assertThat(field.withUnit(Unit.of("K")).stored()).isEqualTo(field.stored());
    }

    @Test
    void arraysOfAFileThatWasOpenedTwiceAreBothLetGo() {
        Shelf.limit(10 * 800);
        var reads = new AtomicInteger();
        List<Deferred> all = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            Deferred d = of("one", 100, reads);
            d.now();
            all.add(d);
            assertThat(Shelf.bytes()).isLessThanOrEqualTo(10 * 800);
        }
        assertThat(all.stream().filter(Deferred::inMemory).count()).isLessThanOrEqualTo(10);
    }

    @Test
    void theOldestGoFirstWhenTheShelfIsFullAndAreReadAgain() {
        Shelf.limit(10 * 800);
        var reads = new AtomicInteger();
        List<Deferred> all = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            Deferred d = of(i, 100, reads);
            d.now();
            all.add(d);
            all.getFirst().now();
            assertThat(Shelf.bytes()).isLessThanOrEqualTo(10 * 800);
        }
        assertThat(reads.get()).as("the first was always in use").isEqualTo(30);
        assertThat(all.get(1).inMemory()).isFalse();
        assertThat(all.getLast().inMemory()).isTrue();
        assertThat(all.get(1).now().get(4)).isEqualTo(5);
        assertThat(reads.get()).isEqualTo(31);
    }

    @Test
    void equalKeysAreEqualNumbersAndOrdersOfComponentsAreKnownByTheirOrder() {
        var reads = new AtomicInteger();
        Deferred a = of("a", 6, reads);
        assertThat(a)
                .isEqualTo(of("a", 6, reads))
                .isNotEqualTo(of("b", 6, reads))
                .isNotEqualTo(of("a", 7, reads));
        assertThat(a.permuted(new int[] {2, 0, 1})).isEqualTo(of("a", 6, reads).permuted(new int[] {2, 0, 1}));
        assertThat(a.permuted(new int[] {2, 0, 1})).isNotEqualTo(a.permuted(new int[] {0, 2, 1}));
        assertThat(reads.get()).isZero();
        double first = a.get(0);
        assertThat(a.permuted(new int[] {2, 0, 1}).get(0)).isEqualTo(first + 2);
        assertThat(Values.join(List.of(a, Values.of(1, 2))).get(7)).isEqualTo(2);
    }

    @Test
    void aFileThatHoldsAnotherNumberOfThemIsRefused() {
        var short1 = new Deferred("s", 5, () -> Values.of(1, 2));
        assertThatThrownBy(short1::now)
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("2 numbers where its file announced 5")
                .satisfies(e -> assertThat(((LaneException) e).fault()).isEqualTo(Fault.DAMAGED));
    }
}
