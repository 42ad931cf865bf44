package lane.base;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Keeps results up to a number of bytes and lets go of the least recently used. Keys hold by value all that a result depends
 * on, and never a run or its numbers. Thread-safe; what two threads ask for at the same time both may make.
 */
public final class BoundedMemo implements Memo {
    private record Kept(Object result, long bytes) {}

    private final Map<Object, Kept> kept = new LinkedHashMap<>(64, 0.75f, true);
    private final AtomicInteger counted = new AtomicInteger();
    private final long most;
    private long bytes;

    /** @param most bytes that results may take */
    public BoundedMemo(long most) {
        this.most = most;
    }

    /** One that takes a share of the memory that the program may have. */
    public static BoundedMemo share(double part) {
        return new BoundedMemo((long) (part * Runtime.getRuntime().maxMemory()));
    }

    @Override
    @SuppressWarnings("unchecked")
    public <T> T of(Object key, Supplier<T> make) {
        Kept there = look(key);
        return (T) (there != null ? there.result : put(key, make.get()));
    }

    @Override
    @SuppressWarnings("unchecked")
    public <T> T counted(Object key, Supplier<T> make) {
        Kept there = look(key);
        if (there != null) {
            return (T) there.result;
        }
        counted.incrementAndGet();
        return (T) put(key, make.get());
    }

    /** How many of what is counted were made since the start. */
    public int made() {
        return counted.get();
    }

    public synchronized long bytes() {
        return bytes;
    }

    private synchronized @Nullable Kept look(Object key) {
        return kept.get(key);
    }

    /** The result that is kept: another thread's, if that was first, so that all see the same object. */
    private Object put(Object key, Object result) {
        // Sizing walks over the result, and the key stands beside it.
        long size = 64 + Footprint.of(result) + Footprint.of(key);
        synchronized (this) {
            Kept first = kept.get(key);
            if (first != null) {
                return first.result;
            }
            if (size > most) {
                return result;
            }
            kept.put(key, new Kept(result, size));
            bytes += size;
            var oldest = kept.entrySet().iterator();
            while (bytes > most && oldest.hasNext()) {
                bytes -= oldest.next().getValue().bytes;
                oldest.remove();
            }
            return result;
        }
    }

    /** What is kept under a key at the moment. */
    public synchronized Optional<Object> kept(Object key) {
        return Optional.ofNullable(kept.get(key)).map(Kept::result);
    }
}
