package lane.check;

import java.util.List;
import java.util.Map;
import lane.reading.Outcome;

/**
 * What lanes answered to the reading of a check.
 *
 * @param outcomes by lane key, in lane order
 * @param datum key of the study's datum; blank for none
 * @param judged keys of the lanes that get a verdict
 * @param family keys of the runs of the judged lanes' family, coarse to fine
 */
public record Crossing(Map<String, Outcome> outcomes, String datum, List<String> judged, List<String> family) {
    public Crossing {
        judged = List.copyOf(judged);
        family = List.copyOf(family);
    }
}
