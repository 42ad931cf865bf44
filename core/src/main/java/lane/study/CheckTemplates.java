package lane.study;

import java.util.ArrayList;
import java.util.List;
import lane.check.Check;

/** The checks of one family of runs, made for another. */
public final class CheckTemplates {
    private CheckTemplates() {}

    /** Families whose lanes some check judges. */
    public static List<String> families(Study study) {
        return study.checks().stream()
                .flatMap(c -> lanes(study, c).stream())
                .map(id -> family(study, id))
                .distinct()
                .toList();
    }

    /**
     * The study with a check for a lane of another family beside each that there is; those that judge that family already, or would
     * compare the lane with itself, are not made again.
     *
     * @param lane that the new ones judge
     */
    public static Study same(Study study, String lane) {
        String to = family(study, lane);
        List<Check> more = new ArrayList<>();
        for (Check c : study.checks()) {
            boolean own =
                    lanes(study, c).stream().anyMatch(id -> family(study, id).equals(to));
            boolean itself = c.rule().comparesWithDatum()
                    && (c.rule().datum().isBlank() ? study.datum() : c.rule().datum()).equals(lane);
            boolean there = study.checks().stream()
                    .anyMatch(x -> x.reading().equals(c.reading())
                            && x.rule().equals(c.rule())
                            && x.judged().equals(List.of(lane)));
            if (!own && !itself && !there) {
                List<String> taken =
                        new ArrayList<>(study.checks().stream().map(Check::id).toList());
                more.forEach(m -> taken.add(m.id()));
                String id = Study.freshId(c.id() + "-" + lane, taken);
                more.add(new Check(id, c.reading(), c.rule(), List.of(lane), c.doubts(), c.group(), null));
            }
        }
        return study.withChecks(l -> {
            var all = new ArrayList<>(l);
            all.addAll(more);
            return all;
        });
    }

    private static List<String> lanes(Study study, Check c) {
        return c.judged().isEmpty() ? study.judged(c) : c.judged();
    }

    private static String family(Study study, String lane) {
        return study.source(lane)
                .map(s -> s instanceof Source.Simulation r ? r.family() : "")
                .orElse("");
    }
}
