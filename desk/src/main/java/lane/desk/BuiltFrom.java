package lane.desk;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Remembers what a piece of the window was last built from, so that it is built anew only when that changed. */
public final class BuiltFrom {
    private @Nullable List<Object> last;

    /** Whether anything differs from the call before; what is given must have a meaningful {@code equals}. */
    public boolean changed(Object... now) {
        List<Object> next = List.of(now);
        boolean differs = !next.equals(last);
        last = next;
        return differs;
    }
}
