package lane.check;

import java.util.List;
import java.util.Map;
import lane.reading.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * What lanes answered to the reading of a check.
 *
 * @param outcomes by lane key, in lane order
 * @param datum key of the study's datum; blank for none
 * @param judged keys of the lanes that get a verdict
 * @param family keys of the runs of the judged lanes' families, coarse to fine
 * @param families name of the family of each of these
 * @param sizes of the cells of each of these, in metres
 * @param doubts what the check takes into account of how well numbers are known
 * @param others what lanes answered to the other readings that the rule looks at, by their keys
 */
public record Crossing(
        Map<String, Outcome> outcomes,
        String datum,
        List<String> judged,
        List<String> family,
        Map<String, String> families,
        Map<String, Double> sizes,
        Doubts doubts,
        Map<String, Other> others) {
    /** Another reading. */
    public record Other(String name, Map<String, Outcome> outcomes) {}

    public Crossing {
        judged = List.copyOf(judged);
        family = List.copyOf(family);
    }

    /** One of a single reading, of runs whose sizes nobody asks for. */
    public Crossing(Map<String, Outcome> outcomes, String datum, List<String> judged, List<String> family) {
        this(outcomes, datum, judged, family, Map.of(), Map.of(), Doubts.USUAL, Map.of());
    }

    /** The size of a lane's cells or time steps: as the check states it, else as it is; null where nobody knows. */
    @Nullable
    Double size(String lane) {
        return doubts.sizes().isEmpty() ? sizes.get(lane) : doubts.sizes().get(lane);
    }

    /** The same with other answers to the reading itself. */
    public Crossing answering(Map<String, Outcome> now) {
        return new Crossing(now, datum, judged, family, families, sizes, doubts, others);
    }
}
