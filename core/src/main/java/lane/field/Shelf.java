package lane.field;

import java.util.Comparator;
import java.util.List;
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

    /**
     * The numbers of a run that nobody will ask for again, such as of a time that was passed by, make room at once. Who asks for
     * them all the same reads them again.
     */
    public static synchronized void leave(Run run) {
        run.fields().forEach(Shelf::leave);
        run.parts().forEach(p -> p.fields().forEach(Shelf::leave));
    }

    private static void leave(Field field) {
        if (field.stored() instanceof Deferred d && STANDING.remove(d) instanceof Long its) {
            bytes -= its;
            d.release();
        }
    }

    /** Down to three quarters, so that not every next one has to sort. */
    @SuppressWarnings("ReferenceEquality")
    private static void clear(@Nullable Deferred but) {
        if (bytes <= limit) {
            return;
        }
        // The times of asking change meanwhile; they are looked at once. Two that are equal, such as of a file that was
        // opened
        // twice, both stand here.
        record One(Deferred of, long asked) {}
        List<Deferred> oldest = STANDING.keySet().stream()
                .map(d -> new One(d, d.asked()))
                .sorted(Comparator.comparingLong(One::asked))
                .map(One::of)
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
