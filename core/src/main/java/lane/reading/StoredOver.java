package lane.reading;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.evaluation.RegionIntegral;
import lane.evaluation.StoredValues;
import lane.evaluation.StoredValues.At;
import lane.evaluation.SurfaceIntegral;
import lane.quantity.Quantity;
import lane.station.Region;
import lane.station.Station;
import org.jspecify.annotations.Nullable;

/** Values as meshes hold them, over regions or over surfaces. */
final class StoredOver {
    private StoredOver() {}

    /**
     * @param stations keys, taken together
     * @param quantity key; blank for none
     * @param condition key of what must hold; blank for all
     * @throws LaneException where there is none of them
     */
    static StoredValues of(
            ReadingContext on, Reading reading, List<String> stations, At at, String quantity, String condition) {
        List<Station> all = stations.stream().map(s -> on.station(s, reading)).toList();
        if (all.isEmpty()) {
            throw new LaneException("Reading \"" + reading.name() + "\" names no station; choose where it is taken.");
        }
        @Nullable Quantity value = quantity.isBlank() ? null : on.quantity(quantity);
        @Nullable Quantity holds = condition.isBlank() ? null : on.quantity(condition);
        if (all.stream().allMatch(s -> s.shape() instanceof Region)) {
            int[] cells = all.stream()
                    .flatMapToInt(s -> Arrays.stream(on.places()
                            .cells(on.run(), ((Region) s.shape()).within().whole(), on.lens())))
                    .sorted()
                    .distinct()
                    .toArray();
            return StoredValues.of(new RegionIntegral(on.run(), cells, on.lens()), at, value, holds);
        }
        var parts = stations.stream()
                .flatMap(s -> on.surface(s, on.fields(reading.quantities()), reading).stream())
                .toList();
        return StoredValues.of(new SurfaceIntegral(on.run(), parts, on.lens(), on.memo()), at, value, holds, true);
    }
}
