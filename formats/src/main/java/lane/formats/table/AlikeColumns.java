package lane.formats.table;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.lang.ref.WeakReference;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * Columns of kept tables that hold the same numbers, as the times of many logs mostly do: these are one array, which takes no
 * memory a second time, and of which what was found is known. Thread-safe.
 */
final class AlikeColumns {
    private static final int MOST = 10_000;

    private record Key(int rows, long sum) {}

    private final Map<Key, WeakReference<double[]>> known = new ConcurrentHashMap<>();

    /**
     * The numbers of a column, in an array that must not change.
     *
     * @param sum a checksum of its bytes, which are compared as well
     * @param as how a number stands in these
     */
    double[] of(int rows, long sum, MemorySegment bytes, ValueLayout.OfDouble as) {
        var key = new Key(rows, sum);
        double[] there = held(known.get(key));
        if (there != null && MemorySegment.ofArray(there).mismatch(bytes) < 0) {
            return there;
        }
        double[] made = bytes.toArray(as);
        if (known.size() >= MOST) {
            known.values().removeIf(r -> r.get() == null);
        }
        if (known.size() < MOST) {
            known.put(key, new WeakReference<>(made));
        }
        return made;
    }

    private static double @Nullable [] held(@Nullable WeakReference<double[]> reference) {
        return reference == null ? null : reference.get();
    }
}
