package lane.evaluation;

import java.lang.ref.WeakReference;
import java.util.ArrayDeque;
import java.util.Map;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import org.jspecify.annotations.Nullable;

/**
 * Quantities that were made ready last and see nothing but the fields of their run, by thread: all readings of a time ask for the
 * same few again and again. Runs stay no longer for that.
 */
final class LatelyBound {
    private record Made(
            WeakReference<BoundQuantity> ready,
            Map<String, Quantity> quantities,
            Map<String, FieldUnit> units,
            Axis axis) {}

    private static final int SO_MANY = 16;
    private static final ThreadLocal<ArrayDeque<Made>> LAST = ThreadLocal.withInitial(ArrayDeque::new);

    private LatelyBound() {}

    /** One of the very same run, part and definitions; null for none. */
    @SuppressWarnings("ReferenceEquality")
    static @Nullable BoundQuantity find(Run run, @Nullable Part part, Quantity quantity, EvaluationContext lens) {
        for (Made m : LAST.get()) {
            BoundQuantity ready = m.ready.get();
            if (ready != null
                    && ready.run() == run
                    && ready.part() == part
                    && m.quantities == lens.quantities()
                    && m.units == lens.units()
                    && m.axis.equals(lens.axis())
                    && ready.quantity().equals(quantity)) {
                return ready;
            }
        }
        return null;
    }

    static void keep(BoundQuantity made, EvaluationContext lens) {
        ArrayDeque<Made> last = LAST.get();
        if (last.size() == SO_MANY) {
            last.removeLast();
        }
        last.addFirst(new Made(new WeakReference<>(made), lens.quantities(), lens.units(), lens.axis()));
    }
}
