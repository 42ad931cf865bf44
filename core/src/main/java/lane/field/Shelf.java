package lane.field;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Where numbers that were read from files stand as long as there is room: at most so many bytes in this process. The least
 * recently used go first; who needs them again reads them again.
 */
public final class Shelf {
    private static final java.util.IdentityHashMap<Deferred, Long> STANDING = new java.util.IdentityHashMap<>();
    private static long bytes;
    private static long limit = Runtime.getRuntime().maxMemory() / 4;
    private static long reads;
    private static volatile long clock;

    private Shelf() {}

    /** How many bytes stand here. */
    public static synchronized long bytes() {
        return bytes;
    }

    /** How many arrays were read since the start. */
    public static synchronized long reads() {
        return reads;
    }

    /** @param most bytes; at once what is over goes */
    public static synchronized void limit(long most) {
        limit = most;
        clear(null);
    }

    public static synchronized long limit() {
        return limit;
    }

    static long time() {
        return clock;
    }

    static synchronized void take(Deferred one, long its) {
        clock++;
        reads++;
        Long before = STANDING.put(one, its);
        bytes += its - (before == null ? 0 : before);
        clear(one);
    }

    /** Down to three quarters, so that not every next one has to sort. */
    @SuppressWarnings("ReferenceEquality")
    private static void clear(@Nullable Deferred but) {
        if (bytes <= limit) {
            return;
        }
        // The times of asking change meanwhile; they are looked at once.
        var asked = new LinkedHashMap<Deferred, Long>();
        STANDING.keySet().forEach(d -> asked.put(d, d.asked()));
        List<Deferred> oldest = asked.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.naturalOrder()))
                .map(Map.Entry::getKey)
                .toList();
        for (Deferred d : oldest) {
            if (bytes <= limit / 4 * 3) {
                return;
            }
            if (d != but) {
                bytes -= Objects.requireNonNull(STANDING.remove(d));
                d.release();
            }
        }
    }
}
