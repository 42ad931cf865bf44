package lane.reading;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.mesh.Axis;

/** A reading made of the answers to another one, which it holds: it looks at the same stations and quantities. */
public interface OfAnother extends Ask {
    Ask of();

    /** The same of another reading. */
    Ask of(Ask other);

    @Override
    default List<String> stations() {
        return of().stations();
    }

    @Override
    default Set<String> quantities() {
        return of().quantities();
    }

    @Override
    default boolean overTime() {
        return of().overTime();
    }

    @Override
    default Optional<AtTimes> atTimes(Reading reading, List<Double> stored) {
        return of().atTimes(reading, stored);
    }

    @Override
    default String frame() {
        return of().frame();
    }

    @Override
    default Ask placed(Axis frame) {
        return of(of().placed(frame));
    }
}
