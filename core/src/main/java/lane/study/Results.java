package lane.study;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.check.CheckResult;
import lane.estimate.Estimate;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Laid;
import lane.field.Run;
import lane.reading.Outcome;
import lane.reading.Scalar;
import lane.station.Placement;
import lane.unit.ReaderUnits;
import lane.unit.Unit;

/**
 * Everything that was computed for one study.
 *
 * @param study the study it belongs to
 * @param runs loaded runs by source key; a run that could not be loaded is missing here and named in {@code failures}
 * @param failures one sentence by source key
 * @param inPieces what stands for runs that are read one piece after the other, by source key: it knows their files, times and
 *     fields, and of the mesh the first piece alone; a sentence in {@code failures} says that there is none to look at
 * @param placements by station key, then by source key
 * @param laid those of the other stations that are looked at, by station key, then by source key
 * @param readings by reading key, then by source key in lane order
 * @param beside numbers that belong to answers and are none of them, such as how much lies outside of another lane; keyed alike
 * @param checks by check key
 * @param lens how quantities were seen
 */
public record Results(
        Study study,
        Map<String, Run> runs,
        Map<String, String> failures,
        Map<String, Run> inPieces,
        Map<String, Map<String, Placement>> placements,
        Map<String, Map<String, Laid>> laid,
        Map<String, Map<String, Outcome>> readings,
        Map<String, Map<String, List<Scalar>>> beside,
        Map<String, CheckResult> checks,
        EvaluationContext lens) {
    public static Results none(Study study) {
        return new Results(
                study,
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                EvaluationContext.of(study.quantities(), study.units(), study.axis()));
    }

    /** The same with what is known of one more reading of a study that was not computed yet. */
    public Results with(Study now, String reading, Map<String, Outcome> known) {
        var all = new LinkedHashMap<>(readings);
        all.put(reading, known);
        return new Results(now, runs, failures, inPieces, placements, laid, all, beside, checks, lens);
    }

    /** Why runs are not read, by lane; one that is read in pieces is read. */
    public Map<String, String> unread() {
        var out = new LinkedHashMap<>(failures);
        out.keySet().removeAll(inPieces.keySet());
        return out;
    }

    /** All runs, and what stands for those that are read in pieces: for whoever asks for names, units and times. */
    public Stream<Run> known() {
        return Stream.concat(runs.values().stream(), inPieces.values().stream());
    }

    /** A lane's run, or what stands for one that is read in pieces; empty for what was not read. */
    public Optional<Run> standing(String source) {
        Run whole = runs.get(source);
        return Optional.ofNullable(whole != null ? whole : inPieces.get(source));
    }

    /** All numbers that a lane told of a reading, in the order of the ledger. */
    public List<Scalar> scalars(String reading, String source) {
        List<Scalar> all = new ArrayList<>(outcome(reading, source).scalars());
        all.addAll(beside.getOrDefault(reading, Map.of()).getOrDefault(source, List.of()));
        return all;
    }

    /**
     * The numbers of all lanes' answers, as {@link Outcome#numbers}, each in one unit for all lanes: to write one beside the word
     * for another's unit would be a wrong number. What does not compare with the answer itself, such as the time of a peak, is in
     * the unit of the first lane that tells it.
     *
     * @return by source key
     */
    public Map<String, List<Estimate>> numbers(String reading) {
        Unit answer = unit(reading);
        Map<Integer, Unit> others = new HashMap<>();
        var out = new LinkedHashMap<String, List<Estimate>>();
        readings.getOrDefault(reading, Map.of()).forEach((lane, o) -> {
            List<Estimate> told = new ArrayList<>();
            for (Estimate e : o.numbers()) {
                Unit own = e.unit();
                Unit first = others.computeIfAbsent(told.size(), k -> own);
                told.add(e.in(own.shownIn(answer) ? answer : own.shownIn(first) ? first : own));
            }
            out.put(lane, told);
        });
        return out;
    }

    /** What a lane answered; absent if it was not asked. */
    public Outcome outcome(String reading, String source) {
        Outcome found = readings.getOrDefault(reading, Map.of()).get(source);
        return found == null ? new Outcome.Absent(Fault.NOT_READ, "This is not computed yet.") : found;
    }

    /**
     * The unit that a reading is shown in, in all lanes so that they compare: that of the first lane that answers. Where nobody
     * set a unit, for the reading or for what it reads, it has a prefix that suits the size of its numbers.
     */
    public Unit unit(String reading) {
        Map<String, Outcome> all = readings.getOrDefault(reading, Map.of());
        Unit first = all.values().stream()
                .map(Outcome::unit)
                .filter(Unit::known)
                .findFirst()
                .orElse(Unit.UNKNOWN);
        boolean set = study.reading(reading)
                .filter(r -> !r.unit().isBlank()
                        || r.quantities().stream()
                                .flatMap(q -> study.quantity(q).stream())
                                .anyMatch(q -> !q.unit().isBlank()))
                .isPresent();
        Unit unit = set ? first : ReaderUnits.of(first, size(all.values()));
        // What a run answers decides whether temperatures or their differences are told.
        return all.values().stream().anyMatch(o -> o.unit().interval()) ? unit.forInterval() : unit;
    }

    /** The greatest number of a reading's answers, in SI units. */
    private static double size(Collection<Outcome> outcomes) {
        double most = 0;
        for (Outcome o : outcomes) {
            if (o.curve().isPresent()) {
                most = Math.max(most, o.curve().get().most());
            } else {
                for (Estimate e : o.numbers()) {
                    most = Double.isFinite(e.value()) ? Math.max(most, Math.abs(e.value())) : most;
                }
            }
        }
        return most;
    }

    /** The unit in which lengths of the study are told: by the size of its largest run, unless it is set. */
    public Unit length() {
        if (!study.settings().length().isBlank()) {
            return Unit.of(study.settings().length());
        }
        double across = 0;
        for (Run run : runs.values()) {
            double[] b = run.mesh().bounds();
            for (int d = 0; d < 3; d++) {
                across = Math.max(across, b[2 * d + 1] - b[2 * d]);
            }
        }
        return ReaderUnits.length(across);
    }

    /** The unit that an abscissa is told in: lengths in that of the study, angles in degrees. */
    public Unit along(Unit own) {
        return own.equals(Unit.of("m")) ? length() : own.equals(Unit.of("rad")) ? Unit.of("deg") : own;
    }

    /** The unit that one lane's number is shown in: that of the reading, its own where the two do not compare. */
    public Unit shown(String reading, Unit own) {
        Unit unit = unit(reading);
        return own.shownIn(unit) ? unit : own;
    }
}
