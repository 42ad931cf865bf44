package lane.check;

import java.util.List;

/**
 * A question with a verdict.
 *
 * @param id stable key within the study
 * @param reading key of the reading that is judged
 * @param rule what must hold
 * @param judged keys of the lanes that get a verdict; empty takes the finest run of the study
 */
public record Check(String id, String reading, Rule rule, List<String> judged) {
    public Check {
        judged = List.copyOf(judged);
    }

    /** A comparison with a datum. */
    public Check(
            String id, String reading, Norm norm, Scale scale, double tolerance, String datum, List<String> judged) {
        this(id, reading, new AgainstDatum(norm, scale, tolerance, datum), judged);
    }

    public Check of(String otherReading) {
        return new Check(id, otherReading, rule, judged);
    }

    public Check by(Rule other) {
        return new Check(id, reading, other, judged);
    }

    public Check judging(List<String> lanes) {
        return new Check(id, reading, rule, lanes);
    }
}
