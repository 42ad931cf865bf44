package lane.study;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.evaluation.StationResolver;
import lane.field.Partition;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.provenance.Provenance;
import lane.reading.Ask;
import lane.reading.Instant;
import lane.reading.Moments;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import org.jspecify.annotations.Nullable;

/**
 * The stored times of a run of a study. One is open at a time, the next is opened beside it; what was read stays, in the
 * {@link Journal}, as long as the files of its time look the same.
 */
final class StudyMoments implements Moments {
    private final Study study;
    private final Source.Simulation source;
    private final Map<String, Run> runs;
    private final Run run;
    private final Library library;
    private final StationResolver places;
    private final Memo memo;
    private final Work work;
    private final EvaluationContext lens;
    /** Told before a time is read. */
    private final Runnable reading;

    /** What was read at the time that was open last and tells how it came about. */
    private final Map<Reading, Outcome> whole = new HashMap<>();

    private int open = -1;
    private @Nullable StudyBeyond beyond;
    private @Nullable Depends depends;
    /** What is asked over the times, each with what is known of it: its name does not matter to numbers. */
    private final Map<Ask, Row> rows = new LinkedHashMap<>();

    /** What was answered at the times. */
    private static final class Row {
        final Set<Reading> asked = new LinkedHashSet<>();
        final BitSet wanted = new BitSet();
        final Map<Integer, Instant> known = new HashMap<>();
        final Journal journal;

        Row(Journal journal) {
            this.journal = journal;
        }
    }

    StudyMoments(
            Study study,
            Source.Simulation source,
            Run run,
            Map<String, Run> runs,
            Library library,
            StationResolver places,
            Memo memo,
            Work work,
            EvaluationContext lens,
            Runnable reading) {
        this.reading = reading;
        this.study = study;
        this.source = source;
        this.runs = runs;
        this.run = run;
        this.library = library;
        this.places = places;
        this.memo = memo;
        this.work = work;
        this.lens = lens;
    }

    @Override
    public List<Double> times() {
        return run.times();
    }

    /** What all times are known by. */
    Object key() {
        return List.of(source.regions(), source.treatment().at(null), library.recorded(source, run));
    }

    private Run at(int i) {
        double time = times().get(i);
        return time == run.time()
                ? run
                : places.turned(library.passing(source, new TimeSelector.At(time, 0), work), study.axis());
    }

    /** Tells that a reading is going to be asked over times, so that a time that is opened is read for all that want it. */
    void join(Reading reading) {
        try {
            reading.ask().atTimes(reading, times()).ifPresent(each -> Arrays.stream(each.times())
                    .forEach(row(each.reading()).wanted::set));
        } catch (LaneException e) {
            // It says so when it is read.
        }
    }

    @Override
    public Outcome answer(int i, Reading asked) {
        if (open == i && whole.containsKey(asked)) {
            return Objects.requireNonNull(whole.get(asked));
        }
        Answers kept = library.answers();
        if (kept == Answers.NONE) {
            return told(i, asked);
        }
        return kept.of(source, whole(asked, i), times().get(i))
                .map(Answered::outcome)
                .orElseGet(() -> told(i, asked));
    }

    private Outcome told(int i, Reading asked) {
        return Objects.requireNonNull(read(i, Set.of(asked), true).get(asked));
    }

    private List<Object> whole(Reading asked, int i) {
        return depends().definition(asked, source, times().get(i));
    }

    /** Keeps what was answered at a time whole, for whoever needs its trail. */
    private void keep(Reading asked, int i, Outcome made) {
        Answers kept = library.answers();
        if (kept != Answers.NONE) {
            kept.keep(
                    source,
                    whole(asked, i),
                    new Answered(made, List.of(), times().get(i), made.trail().inputs()));
        }
    }

    /**
     * Reads at some of the times what of it is not known, for whoever goes over all of them later.
     *
     * @param block places among the stored times, ascending
     */
    void read(int[] block) {
        for (Row row : List.copyOf(rows.values())) {
            int last = -1;
            for (int i : block) {
                work.poll();
                if (row.wanted.get(i)
                        && instant(i, row, i == block[block.length - 1]).why().isBlank()) {
                    last = i;
                }
            }
            for (Reading asked : last < 0 ? Set.<Reading>of() : row.asked) {
                keep(asked, last, answer(last, asked));
            }
        }
    }

    /**
     * What is answered at a time to some of the readings.
     *
     * @param told whether they tell how they came about, which takes longer than the numbers of a small run; else their files
     *     alone
     */
    private Map<Reading, Outcome> read(int i, Set<Reading> asked, boolean told) {
        reading.run();
        Readout.require(library.answers(), source);
        if (open != i) {
            whole.clear();
            open = i;
        }
        Map<Reading, Outcome> all = told ? whole : new HashMap<>();
        Run then;
        try {
            if (!run.gather().whole()) {
                // What is read in pieces takes long beside what it tells.
                whole.putAll(inPieces(i, asked));
                return whole;
            }
            double[] next = next(i);
            library.foresee(source, next);
            Arrays.stream(next).limit(AHEAD).forEach(time -> library.prepare(source, new TimeSelector.At(time, 0)));
            then = at(i);
        } catch (LaneException e) {
            asked.forEach(r -> all.put(r, new Outcome.Absent(e)));
            return all;
        }
        ReadingContext here = told ? on(then) : on(then).with(Provenance.ofFiles(then.inputs()));
        for (Reading r : asked) {
            work.poll();
            Outcome made;
            try {
                made = r.ask().read(r, here);
            } catch (LaneException e) {
                made = new Outcome.Absent(e);
            }
            all.put(r, made);
        }
        return all;
    }

    /** The same of a run that is read one piece after the other. */
    private Map<Reading, Outcome> inPieces(int i, Set<Reading> asked) {
        Partition then = library.partition(source, new TimeSelector.At(times().get(i), 0), work)
                .orElseThrow(() -> new LaneException(
                        Fault.NOT_READ,
                        "The run \"" + source.name() + "\" is read in pieces, but not at time " + times().get(i)
                                + "; state how it is to be read."));
        return new Piecewise(study, then, library, work).answer(asked, this::on);
    }

    /** What readings may look up at a time that is open, or on a piece of it. */
    private ReadingContext on(Run then) {
        return new ReadingContext(
                then,
                lens.with(beyond().at(source.id(), then)),
                places,
                id -> study.station(id).orElse(null),
                memo,
                work,
                new Provenance(then.inputs(), List.of()),
                NONE,
                false);
    }

    /** Times that are opened beside the one that is read: reading and proof of a file are one core's work. */
    private static final int AHEAD = 2;

    /** Times that are told before they are opened. */
    private static final int FORESEEN = 64;

    /** The times that will be opened next: those that somebody wants and nobody knows. */
    private double[] next(int i) {
        return IntStream.range(i + 1, times().size())
                .filter(n -> rows.values().stream()
                        .anyMatch(r -> r.wanted.get(n) && known(r, n).isEmpty()))
                .limit(FORESEEN)
                .mapToDouble(times()::get)
                .toArray();
    }

    private Optional<Instant> known(Row row, int i) {
        Instant there = row.known.get(i);
        if (there != null) {
            return Optional.of(there);
        }
        Optional<Instant> before = row.journal.of(times().get(i));
        before.ifPresent(b -> row.known.put(i, b));
        return before;
    }

    @Override
    public Instant instant(int i, Reading asked) {
        Row row = row(asked);
        // How all of them came about the last one tells.
        return instant(i, row, i == row.wanted.length() - 1);
    }

    private Instant instant(int i, Row row, boolean told) {
        Optional<Instant> known = known(row, i);
        if (known.isPresent()) {
            return known.get();
        }
        Map<Reading, Row> together = new LinkedHashMap<>();
        for (Row other : rows.values()) {
            if (other == row || other.wanted.get(i) && known(other, i).isEmpty()) {
                together.put(other.asked.iterator().next(), other);
            }
        }
        Map<Reading, Outcome> all = read(i, together.keySet(), told);
        together.forEach((r, of) -> {
            Instant made = Instant.of(Objects.requireNonNull(all.get(r)));
            of.known.put(i, made);
            of.journal.keep(times().get(i), made);
        });
        return Objects.requireNonNull(row.known.get(i));
    }

    private Row row(Reading reading) {
        Row there = rows.get(reading.ask());
        if (there == null) {
            there = new Row(library.journal(source, depends().definition(reading, source)));
            rows.put(reading.ask(), there);
        }
        there.asked.add(reading);
        return there;
    }

    /** What formulas see of the study as it is looked at. */
    private StudyBeyond beyond() {
        StudyBeyond there = beyond;
        if (there == null) {
            there = new StudyBeyond(study, runs, library, places, memo, work);
            beyond = there;
        }
        return there;
    }

    private Depends depends() {
        Depends there = depends;
        if (there == null) {
            StudyBeyond own = beyond();
            there = new Depends(study, own, lens.with(own), memo);
            depends = there;
        }
        return there;
    }
}
