package lane.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.reading.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * A question with a verdict.
 *
 * @param id stable key within the study
 * @param reading key of the reading that is judged
 * @param rule what must hold
 * @param judged keys of the lanes that get a verdict; empty takes the finest run of the study
 * @param doubts what is taken into account of how well the numbers are known
 * @param group heading that it stands under on the board; blank for none
 * @param decision what somebody said of it; null for nothing
 */
public record Check(
        String id,
        String reading,
        Rule rule,
        List<String> judged,
        Doubts doubts,
        String group,
        @Nullable Decision decision) {
    public Check {
        judged = List.copyOf(judged);
    }

    public Check(String id, String reading, Rule rule, List<String> judged) {
        this(id, reading, rule, judged, Doubts.USUAL, "", null);
    }

    /** A comparison with a datum. */
    public Check(
            String id, String reading, Norm norm, Scale scale, double tolerance, String datum, List<String> judged) {
        this(id, reading, new AgainstDatum(norm, scale, tolerance, datum), judged);
    }

    public Check of(String otherReading) {
        return new Check(id, otherReading, rule, judged, doubts, group, decision);
    }

    public Check by(Rule other) {
        return new Check(id, reading, other, judged, doubts, group, decision);
    }

    public Check judging(List<String> lanes) {
        return new Check(id, reading, rule, lanes, doubts, group, decision);
    }

    public Check doubting(Doubts other) {
        return new Check(id, reading, rule, judged, other, group, decision);
    }

    public Check under(String heading) {
        return new Check(id, reading, rule, judged, doubts, heading, decision);
    }

    public Check decided(@Nullable Decision other) {
        return new Check(id, reading, rule, judged, doubts, group, other);
    }

    /** Carries it out, with what the family of each run and the inputs say of its uncertainty. */
    public CheckResult judge(Crossing on) {
        if (!rule.countsDoubts()) {
            return rule.judge(on);
        }
        String datum = rule.datum().isBlank() ? on.datum() : rule.datum();
        Map<String, Outcome> seen = new LinkedHashMap<>();
        on.outcomes()
                .forEach((lane, value) -> seen.put(
                        lane,
                        on.family().contains(lane) && !(rule.comparesWithDatum() && lane.equals(datum))
                                ? Doubted.of(lane, value, on, doubts)
                                : Doubted.covered(value, doubts)));
        Crossing now = on.answering(seen);
        CheckResult made = rule.judge(now);
        Map<String, CheckResult.Lane> lanes = new LinkedHashMap<>();
        made.lanes().forEach((lane, l) -> lanes.put(lane, evident(lane, l, now, made.datum())));
        String why = made.why();
        for (var e : lanes.entrySet()) {
            CheckResult.Lane before = made.lanes().get(e.getKey());
            if (before != null && before.sentence().equals(why)) {
                why = e.getValue().sentence();
                break;
            }
        }
        return new CheckResult(made.datum(), lanes, made.verdict(), why);
    }

    private CheckResult.Lane evident(String lane, CheckResult.Lane l, Crossing on, String datum) {
        Outcome value = on.outcomes().get(lane);
        Outcome against = on.outcomes().get(datum);
        double at =
                l.curve() == null ? Double.NaN : l.curve().abscissa()[l.curve().largest()];
        List<Budget.Row> rows = new java.util.ArrayList<>();
        if (value != null) {
            rows.addAll(Doubted.rows(lane, value, at));
        }
        if (against != null && rule.comparesWithDatum()) {
            rows.addAll(Doubted.rows(datum, against, at));
        }
        Refined refined = value instanceof Doubted d && d.refined() != null
                ? d.refined()
                : l.evidence().refined();
        String note = value instanceof Doubted d ? d.note() : "";
        return l.with(new CheckResult.Evidence(l.evidence().measures(), refined, new Budget(rows)), note);
    }
}
