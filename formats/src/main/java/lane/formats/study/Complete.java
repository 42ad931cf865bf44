package lane.formats.study;

import java.util.Collection;
import java.util.Map;
import lane.base.Component;
import lane.base.Fault;
import lane.base.LaneException;
import lane.check.Rule;
import lane.reading.Ask;
import lane.station.Shape;
import org.jspecify.annotations.Nullable;

/**
 * Sees that a study that was read lacks nothing: what may be missing is annotated so in its record, and what has a default got it
 * when the record was made.
 */
final class Complete {
    private Complete() {}

    /** @throws LaneException naming the first place where something is missing */
    static void check(@Nullable Object value, String path, String file) {
        switch (value) {
            case Record r -> {
                for (Component c : Component.of(r.getClass())) {
                    if (c.type().isPrimitive()) {
                        continue;
                    }
                    Object inner = c.in(r);
                    // These are written into the object that has them.
                    boolean flat = inner instanceof Shape || inner instanceof Ask || inner instanceof Rule;
                    String at = flat ? path : path.isEmpty() ? c.name() : path + "." + c.name();
                    if (inner == null && !c.optional()) {
                        throw new LaneException(
                                Fault.DAMAGED, "The study " + file + " cannot be used at " + at + ": it is missing.");
                    }
                    check(inner, at, file);
                }
            }
            case Collection<?> all -> {
                int i = 0;
                for (Object o : all) {
                    check(o, path + "[" + i++ + "]", file);
                }
            }
            case Map<?, ?> map -> map.forEach((k, v) -> check(v, path + "." + k, file));
            case null, default -> {}
        }
    }
}
