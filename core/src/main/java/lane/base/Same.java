package lane.base;

import java.lang.ref.WeakReference;
import org.jspecify.annotations.Nullable;

/**
 * A thing as itself, in keys: equal to nothing but itself, whatever it holds, and not held by the key. For what is large and kept
 * elsewhere as one object as long as it stays what it is, such as a table.
 */
public final class Same {
    private final WeakReference<Object> of;
    private final int hash;

    private Same(Object of) {
        this.of = new WeakReference<>(of);
        hash = System.identityHashCode(of);
    }

    public static Same as(Object thing) {
        return new Same(thing);
    }

    // The very thing, not one that equals it.
    @Override
    @SuppressWarnings("ReferenceEquality")
    public boolean equals(@Nullable Object other) {
        if (this == other) {
            return true;
        }
        Object own = of.get();
        return own != null && other instanceof Same s && own == s.of.get();
    }

    @Override
    public int hashCode() {
        return hash;
    }
}
