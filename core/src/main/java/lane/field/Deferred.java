package lane.field;

import java.util.List;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/**
 * Numbers that are read when they are first asked for, and let go of when memory is short ({@link Shelf}); then they are
 * read again. Two are equal when their keys are, so that what was computed from them is found again after they were read
 * anew.
 */
public final class Deferred implements Values {
    private final Object key;
    private final int length;
    private final Supplier<Values> read;
    private volatile @Nullable Held held;
    /** When it was last asked for, by the shelf's clock. */
    private long asked;

    /**
     * @param key what decides the numbers, by value
     * @param length how many there are
     * @param read gives them, the same each time, or throws a {@link LaneException}
     */
    public Deferred(Object key, int length, Supplier<Values> read) {
        this.key = key;
        this.length = length;
        this.read = read;
    }

    @Override
    public Held now() {
        Held there = held;
        if (there == null) {
            synchronized (this) {
                there = held;
                if (there == null) {
                    there = read();
                    held = there;
                    Shelf.take(this, there.bytes());
                }
            }
        }
        asked = Shelf.time();
        return there;
    }

    /** The numbers, without keeping them here: for others that are made of them and kept themselves. */
    Held read() {
        Held there = held;
        if (there != null) {
            return there;
        }
        Held made = read.get().now();
        if (made.length() != length) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "An array holds " + made.length() + " numbers where its file announced " + length
                            + "; the file is damaged or changed while it was read: write it again, or reload.");
        }
        return made;
    }

    long asked() {
        return asked;
    }

    boolean inMemory() {
        return held != null;
    }

    void release() {
        held = null;
    }

    @Override
    public int length() {
        return length;
    }

    @Override
    public double get(int i) {
        return now().get(i);
    }

    /** What is held at the moment. */
    @Override
    public long bytes() {
        Values there = held;
        return there == null ? 0 : there.bytes();
    }

    /** The same numbers under a key that says better what decides them. */
    public static Deferred named(Object key, Values values) {
        if (values instanceof Deferred d) {
            return new Deferred(key, d.length, d::read);
        }
        var there = new Deferred(key, values.length(), () -> values);
        there.held = values.now();
        return there;
    }

    /** Numbers that are there already, and can be let go of and read again. */
    public static Deferred held(Object key, Values values, Supplier<Values> read) {
        var there = new Deferred(key, values.length(), read);
        there.held = values.now();
        Shelf.take(there, values.bytes());
        return there;
    }

    @Override
    public Values pick(int components, int[] from) {
        return new Deferred(
                new Object(), Math.multiplyExact(components, from.length), () -> read().pick(components, from));
    }

    @Override
    public Values permuted(int[] from) {
        Object order = java.util.Arrays.stream(from).boxed().toList();
        return new Deferred(List.of(key, "components", order), length, () -> read().permuted(from));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Deferred d && key.equals(d.key) && length == d.length;
    }

    @Override
    public int hashCode() {
        return key.hashCode();
    }
}
