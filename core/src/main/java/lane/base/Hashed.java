package lane.base;

import org.jspecify.annotations.Nullable;

/** A key of many things that is hashed once: it stands in many others, and is looked up over and over. */
public final class Hashed implements Sized {
    private final Object of;
    private final int hash;
    /** Found when it is first asked for; whoever finds it at the same time finds the same. */
    private volatile long bytes = -1;

    private Hashed(Object of) {
        this.of = of;
        hash = of.hashCode();
    }

    /** @param key whose content does not change */
    public static Hashed of(Object key) {
        return key instanceof Hashed h ? h : new Hashed(key);
    }

    @Override
    public long bytes() {
        long known = bytes;
        if (known < 0) {
            known = Footprint.of(of);
            bytes = known;
        }
        return known;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other == this || other instanceof Hashed h && hash == h.hash && of.equals(h.of);
    }

    @Override
    public int hashCode() {
        return hash;
    }

    @Override
    public String toString() {
        return of.toString();
    }
}
