package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.estimate.Band;
import lane.estimate.Uncertainty;
import lane.mesh.Finding;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.CurveAxis;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A number at every stored time of a run.
 *
 * @param of what is read at each time; its answer is a number
 * @param timeUnit what the files count their times in; seconds where blank, {@code 1} for steps
 * @param from and {@code to}: times that count, as the files count them; null for all
 */
public record HistoryOf(
        Ask of,
        String timeUnit,
        @Nullable Double from,
        @Nullable Double to) implements OfAnother {
    static final Method TIMES = new Method("one answer for each stored time, none between them", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "history";
        }

        @Override
        public Class<HistoryOf> type() {
            return HistoryOf.class;
        }
    }

    public HistoryOf {
        timeUnit = timeUnit == null ? "" : timeUnit;
        axis(timeUnit);
        if (of != null && of.form() != Form.NUMBER) {
            throw new LaneException(
                    "A history is that of a number; of a curve over the times take a family of curves.");
        }
        if (of != null && of.overTime()) {
            throw new LaneException("A history of what is taken over all times is one value; take that itself.");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException("The times from " + from + " to " + to + " are none; give the earlier first.");
        }
    }

    @Override
    public HistoryOf of(Ask other) {
        return new HistoryOf(other, timeUnit, from, to);
    }

    @Override
    public Form form() {
        return Form.CURVE;
    }

    @Override
    public boolean overTime() {
        return true;
    }

    @Override
    public Optional<AtTimes> atTimes(Reading reading, List<Double> stored) {
        return Optional.of(each(reading, of, counted(stored, from, to, reading)));
    }

    @Override
    public Optional<CurveAxis> clock() {
        return Optional.of(axis(timeUnit));
    }

    /** @throws LaneException for a unit that counts no times */
    static CurveAxis axis(String timeUnit) {
        Unit unit = timeUnit.isBlank() ? Unit.of("s") : Unit.of(timeUnit);
        if (unit.comparable(Unit.ONE)) {
            return new CurveAxis("step", Unit.ONE);
        }
        unit.requireComparable(Unit.of("s"), "The unit of times");
        return new CurveAxis("time", unit);
    }

    /** Places among the stored times that count. */
    static int[] counted(List<Double> times, @Nullable Double from, @Nullable Double to, Reading reading) {
        if (times.isEmpty()) {
            throw new LaneException(
                    "Reading \"" + reading.name()
                            + "\" goes over stored times, and the files of this run know none; give a series of files or one that says its times.");
        }
        int[] kept = IntStream.range(0, times.size())
                .filter(i -> !(from != null && times.get(i) < from) && !(to != null && times.get(i) > to))
                .toArray();
        if (kept.length == 0) {
            throw new LaneException("None of the " + Plain.count(times.size(), "stored time") + " from "
                    + number(times.getFirst()) + " to " + number(times.getLast())
                    + " lies in the part that counts; choose another part.");
        }
        return kept;
    }

    static String number(double v) {
        return Finding.number(v, 6);
    }

    /** What was read at the times. */
    record Read(int[] kept, List<Instant> at, Outcome last) {
        Set<Provenance.Input> inputs() {
            var all = new LinkedHashSet<Provenance.Input>();
            at.forEach(i -> all.addAll(i.inputs()));
            return all;
        }

        /** How many have no answer, and each reason with how often and where first; blank for none. */
        String lacking(List<Double> times) {
            Map<String, List<Double>> why = new LinkedHashMap<>();
            for (int k = 0; k < kept.length; k++) {
                if (!at.get(k).why().isBlank()) {
                    why.computeIfAbsent(at.get(k).why(), w -> new ArrayList<>()).add(times.get(kept[k]));
                }
            }
            var out = new StringBuilder();
            why.forEach((reason, of) -> out.append("; ")
                    .append(of.size())
                    .append(" of them without a value, first at ")
                    .append(number(of.getFirst()))
                    .append(": ")
                    .append(reason));
            return out.toString();
        }
    }

    /**
     * Reads at the times one after the other; the last one that has an answer is read whole, for its unit and trail.
     *
     * @throws LaneException when there is no answer at any
     */
    static Read over(Reading reading, Ask of, int[] kept, ReadingContext on) {
        Reading inner = each(reading, of, kept).reading();
        List<Instant> all = new ArrayList<>();
        for (int k = 0; k < kept.length; k++) {
            on.work().poll();
            on.work()
                    .progress(
                            "Reading " + reading.name() + ", time " + (k + 1) + " of " + kept.length,
                            (double) k / kept.length);
            all.add(on.moments().instant(kept[k], inner));
        }
        for (int k = kept.length - 1; k >= 0; k--) {
            if (all.get(k).why().isBlank()) {
                return new Read(kept, all, on.moments().answer(kept[k], inner));
            }
        }
        throw new LaneException(all.getLast().why());
    }

    /** What is asked at each time. */
    static AtTimes each(Reading reading, Ask of, int[] kept) {
        return new AtTimes(reading.in("").asking(of), kept);
    }

    /** How the times are counted, for people. */
    static String told(String timeUnit, List<Double> times, int[] kept) {
        return Plain.count(kept.length, "time") + " from " + number(times.get(kept[0])) + " to "
                + number(times.get(kept[kept.length - 1]))
                + (timeUnit.isBlank() ? ", taken as seconds, which the files do not say" : in(timeUnit));
    }

    /** The unit of times, to stand behind one. */
    static String in(String timeUnit) {
        String symbol = timeUnit.isBlank() ? "" : Unit.of(timeUnit).label();
        return symbol.isBlank() || symbol.equals("1") ? "" : " " + symbol;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        List<Double> times = on.moments().times();
        int[] kept = counted(times, from, to, reading);
        Read made = over(reading, of, kept, on);
        CurveAxis axis = axis(timeUnit);
        Unit shown = Outcome.shown(reading.unit(), made.last.unit(), "Reading \"" + reading.name() + "\"");
        double[] at = IntStream.of(kept)
                .mapToDouble(i -> axis.unit().toSi(times.get(i)))
                .toArray();
        double[] value = made.at.stream().mapToDouble(Instant::number).toArray();
        double[] half = made.at.stream().mapToDouble(Instant::unsure).toArray();
        int found = (int) made.at.stream().filter(i -> i.why().isBlank()).count();
        boolean unsure = java.util.Arrays.stream(half).anyMatch(h -> h > 0);
        String note = told(timeUnit, times, kept) + made.lacking(times);
        Provenance trail = trail(
                made,
                on,
                Map.of(
                        "definition",
                        this,
                        "times",
                        told(timeUnit, times, kept),
                        "found",
                        found,
                        "unit",
                        shown.label()));
        return new Profile(
                at,
                value,
                unsure ? List.of(new Band(source(made.last), half, half, Uncertainty.USUAL)) : List.of(),
                axis.word(),
                axis.unit(),
                shown,
                false,
                found,
                note,
                trail);
    }

    /** Where the uncertainty of each of such answers comes from. */
    private static Uncertainty.Source source(Outcome one) {
        return one.numbers().getFirst().uncertainty().standard().keySet().stream()
                .findFirst()
                .orElse(Uncertainty.Source.QUADRATURE);
    }

    /** The trail of the last time, with the files of all. */
    static Provenance trail(Read made, ReadingContext on, Map<String, ?> settings) {
        Provenance whole = new Provenance(List.copyOf(made.inputs()), on.trail().steps());
        for (Provenance.Step step : made.last.trail().steps()) {
            whole = whole.then(step);
        }
        return whole.then("reading", TIMES, "over {times}", settings);
    }
}
