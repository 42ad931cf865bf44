package lane.check;

import java.util.LinkedHashMap;
import lane.base.LaneException;
import lane.reading.Outcome;
import org.jspecify.annotations.Nullable;

/** Goes through the lanes of a check: what each comparison says, and the worst verdict of those that are judged. */
final class CheckEvaluator {
    private CheckEvaluator() {}

    /** Compares one lane. */
    @FunctionalInterface
    interface Compare {
        /**
         * @return null where there is nothing to compare
         * @throws LaneException with the reason
         */
        CheckResult.@Nullable Lane lane(String lane, Outcome value, boolean judged);
    }

    /** Says why a judged lane has nothing to compare. */
    @FunctionalInterface
    interface Missing {
        String why(String lane, Outcome value);
    }

    /** @param datum key of the lane compared with, which is no lane of the result; blank for none */
    static CheckResult byLane(Crossing on, String datum, Compare compare, Missing missing) {
        var lanes = new LinkedHashMap<String, CheckResult.Lane>();
        String why = "";
        Verdict worst = null;
        for (var entry : on.outcomes().entrySet()) {
            boolean judged = on.judged().contains(entry.getKey());
            String trouble = "";
            CheckResult.Lane lane = null;
            try {
                lane = entry.getKey().equals(datum) ? null : compare.lane(entry.getKey(), entry.getValue(), judged);
            } catch (LaneException e) {
                trouble = e.getMessage();
            }
            if (lane != null) {
                lanes.put(entry.getKey(), lane);
            }
            if (!judged) {
                continue;
            }
            Verdict verdict = lane == null || lane.verdict() == null ? Verdict.NO_DATA : lane.verdict();
            if (worst == null || rank(verdict) > rank(worst)) {
                worst = verdict;
                why = lane != null
                        ? lane.sentence()
                        : trouble.isEmpty() ? missing.why(entry.getKey(), entry.getValue()) : trouble;
            }
        }
        return new CheckResult(datum, lanes, worst == null ? Verdict.NO_DATA : worst, why);
    }

    /** The one that counts, of two demands on one lane. */
    static Verdict worse(Verdict a, Verdict b) {
        return rank(b) > rank(a) ? b : a;
    }

    private static int rank(Verdict v) {
        return switch (v) {
            case WITHIN -> 0;
            case UNDECIDED -> 1;
            case NO_DATA -> 2;
            case OUT -> 3;
        };
    }
}
