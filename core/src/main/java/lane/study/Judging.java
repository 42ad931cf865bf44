package lane.study;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.CancellationException;
import lane.base.BoundedMemo;
import lane.base.LaneException;
import lane.base.Sized;
import lane.base.Work;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Crossing;
import lane.check.Verdict;
import lane.field.Run;
import lane.mesh.CellSize;
import lane.reading.Outcome;

/** Carries out the checks of a study on what its lanes answered; one whose answers did not change is not judged anew. */
final class Judging {
    private final BoundedMemo memo;
    private final Library library;

    Judging(BoundedMemo memo, Library library) {
        this.memo = memo;
        this.library = library;
    }

    Map<String, CheckResult> judge(
            Study study, Map<String, Map<String, Outcome>> readings, Map<String, Run> runs, Work work) {
        var checks = new LinkedHashMap<String, CheckResult>();
        Map<String, Double> sizes = study.checks().isEmpty() ? Map.of() : sizes(runs, work);
        for (Check check : study.checks()) {
            Map<String, Outcome> outcomes = readings.getOrDefault(check.reading(), Map.of());
            checks.put(check.id(), judged(check, study.crossing(check, outcomes, sizes, readings)));
        }
        return checks;
    }

    /** The representative size of each run's cells, found once for a mesh. */
    private Map<String, Double> sizes(Map<String, Run> runs, Work work) {
        var out = new LinkedHashMap<String, Double>();
        runs.forEach((id, run) -> {
            double h = memo.of(new SizeKey(run.mesh().key()), () -> CellSize.of(run.mesh(), work));
            if (h > 0) {
                out.put(id, h);
            }
        });
        return out;
    }

    private record SizeKey(Object mesh) {}

    private CheckResult judged(Check check, Crossing on) {
        return memo.counted(new CheckKey(check, on), () -> {
            try {
                return check.judge(on);
            } catch (CancellationException e) {
                throw e;
            } catch (RuntimeException e) {
                String why = e instanceof LaneException l ? l.getMessage() : library.fault("A check", e);
                return new CheckResult("", Map.of(), Verdict.NO_DATA, why);
            }
        });
    }

    /**
     * A check and what it is carried out on. Answers are kept, so the same ones are the same objects: to compare all that is in them, for a
     * thousand checks at every edit, takes far longer than the checks do.
     */
    private record CheckKey(Check check, Crossing on) implements Sized {
        /** Answers are kept anyway. */
        @Override
        public long bytes() {
            return 1 << 10;
        }

        @Override
        public int hashCode() {
            int hash = check.hashCode();
            for (Outcome o : on.outcomes().values()) {
                // What is absent is told anew each time.
                hash = 31 * hash + (o instanceof Outcome.Absent ? o.hashCode() : System.identityHashCode(o));
            }
            return hash;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof CheckKey k
                    && check.equals(k.check)
                    && same(on.outcomes(), k.on.outcomes())
                    && on.datum().equals(k.on.datum())
                    && on.judged().equals(k.on.judged())
                    && on.families().equals(k.on.families())
                    && on.sizes().equals(k.on.sizes())
                    && on.family().equals(k.on.family())
                    && others(on.others(), k.on.others());
        }

        private static boolean others(Map<String, Crossing.Other> a, Map<String, Crossing.Other> b) {
            for (var e : a.entrySet()) {
                Crossing.Other its = b.get(e.getKey());
                if (its == null
                        || !e.getValue().name().equals(its.name())
                        || !same(e.getValue().outcomes(), its.outcomes())) {
                    return false;
                }
            }
            return a.size() == b.size();
        }

        private static boolean same(Map<String, Outcome> a, Map<String, Outcome> b) {
            if (a.size() != b.size()) {
                return false;
            }
            for (var e : a.entrySet()) {
                Outcome own = e.getValue();
                Outcome other = b.get(e.getKey());
                if (own != other && !(own instanceof Outcome.Absent && own.equals(other))) {
                    return false;
                }
            }
            return true;
        }
    }
}
