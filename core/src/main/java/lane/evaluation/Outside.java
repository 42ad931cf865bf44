package lane.evaluation;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.atomic.LongAdder;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Counts, while something is read, how many of the places that were looked up in other runs lie outside of them. */
public final class Outside {
    private static final ThreadLocal<@Nullable Outside> NOW = new ThreadLocal<>();

    private record Count(LongAdder asked, LongAdder absent) {}

    private final Map<String, Count> lanes = new ConcurrentSkipListMap<>();

    /** Does a work whose formulas, compiled meanwhile by this thread, count here; others' work within counts there. */
    public <T> T counting(Supplier<T> work) {
        Outside before = NOW.get();
        NOW.set(this);
        try {
            return work.get();
        } finally {
            NOW.set(before);
        }
    }

    /** What counts now; null for nobody. */
    static @Nullable Outside now() {
        return NOW.get();
    }

    /** Called by several threads. */
    void add(String lane, long asked, long absent) {
        Count count = lanes.computeIfAbsent(lane, l -> new Count(new LongAdder(), new LongAdder()));
        count.asked.add(asked);
        count.absent.add(absent);
    }

    /** Counts here again what was counted when something was computed that is kept. */
    void add(Outside other) {
        other.lanes.forEach((lane, c) -> add(lane, c.asked.sum(), c.absent.sum()));
    }

    /**
     * Something that is computed once and kept for all who ask, with what was counted meanwhile.
     *
     * @param <T> what it is
     */
    public record Kept<T>(T value, Outside counted) {
        public static <T> Kept<T> of(Supplier<T> make) {
            var counted = new Outside();
            return new Kept<>(counted.counting(make), counted);
        }

        /** The value for one more who asks, who counts what it took. */
        public T taken() {
            Outside now = NOW.get();
            if (now != null) {
                now.add(counted);
            }
            return value;
        }
    }

    /** For each lane that was asked the share of the places that it does not have. */
    public Map<String, Double> shares() {
        Map<String, Double> out = new LinkedHashMap<>();
        lanes.forEach((lane, c) -> {
            if (c.asked.sum() > 0) {
                out.put(lane, c.absent.doubleValue() / c.asked.sum());
            }
        });
        return out;
    }
}
