package lane.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.Predicate;
import lane.base.BoundedMemo;
import lane.base.Fault;
import lane.base.Hashed;
import lane.base.LaneException;
import lane.base.Same;
import lane.base.Work;
import lane.estimate.Estimate;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Outside;
import lane.evaluation.StationResolver;
import lane.field.Partition;
import lane.field.Run;
import lane.provenance.Provenance;
import lane.reading.Elsewhere;
import lane.reading.Moments;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Scalar;
import lane.reference.Clocks;
import lane.reference.Curve;
import lane.reference.Formula;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The runs of a study, opened, and what its lanes answer to readings. An answer is remembered under all that it rests on, and
 * taken from {@link Answers} where it is kept there.
 */
final class Readout {
    // Keys: a run and a mesh count by what they hold, definitions by value. Two times on one mesh share their
    // placements.
    // A key holds what the result depends on and nothing else.
    private record ReadKey(Object source, Hashed asked, List<Object> extra) {}

    private final Study study;
    private final Library library;
    private final BoundedMemo memo;
    private final StationResolver places;
    private final Work work;
    private final Clocks clocks = new Clocks();
    private final Map<String, Run> runs = new LinkedHashMap<>();
    private final Map<String, LaneException> failures = new LinkedHashMap<>();
    /** Runs that are read one piece after the other. */
    private final Map<String, Partition> partitions = new LinkedHashMap<>();

    private final Map<String, Run> heads = new LinkedHashMap<>();
    /** What runs in pieces answered, all that was asked at once. */
    private final Map<String, Map<Reading, Outcome>> pieced = new HashMap<>();
    /** The times of each lane, one for all readings. */
    private final Map<String, Moments> moments = new HashMap<>();
    /** Lanes whose times know all that is going to be asked of them. */
    private final Set<String> joined = new HashSet<>();

    /** Lanes whose answers were computed elsewhere, from files that are not here. */
    private final Set<String> elsewhere = new HashSet<>();

    private final StudyBeyond beyond;
    private final EvaluationContext lens;
    private final Depends depends;

    /**
     * @param study with its stations as they stand in space
     * @param open lanes whose runs are opened; others count as not read
     */
    Readout(
            Study study,
            Library library,
            BoundedMemo memo,
            StationResolver places,
            Predicate<Source.Simulation> open,
            Work work) {
        this.study = study;
        this.library = library;
        this.memo = memo;
        this.places = places;
        this.work = work;
        for (Source source : study.sources()) {
            if (source instanceof Source.Simulation s && open.test(s)) {
                work.poll();
                open(s);
            }
        }
        beyond = new StudyBeyond(study, runs, library, places, memo, work);
        lens = EvaluationContext.of(study.quantities(), study.units(), study.axis(), beyond);
        depends = new Depends(study, beyond, lens, memo);
        beyond.elsewhere(run -> elsewhere(runs.entrySet().stream()
                .filter(e -> e.getValue().key().equals(run.key()))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("")));
    }

    private void open(Source.Simulation s) {
        try {
            Optional<Partition> pieces = library.partition(s, study.timeOf(s), work);
            if (pieces.isPresent()) {
                partitions.put(s.id(), pieces.get());
                heads.put(s.id(), pieces.get().head());
                failures.put(
                        s.id(),
                        new LaneException(
                                Fault.TOO_LARGE,
                                "It is read in " + pieces.get().size()
                                        + " pieces, one after the other: there is no picture of it, and what needs the run whole"
                                        + " is not computed."));
                return;
            }
            runs.put(s.id(), places.turned(library.run(s, study.timeOf(s), work), study.axis()));
        } catch (CancellationException e) {
            throw e;
        } catch (LaneException e) {
            failures.put(s.id(), e);
        } catch (RuntimeException e) {
            failures.put(
                    s.id(), new LaneException(Fault.PROGRAM, library.fault("Reading run \"" + s.name() + "\"", e), e));
        }
    }

    Map<String, Run> runs() {
        return runs;
    }

    /** What stands for runs that are read in pieces, where no mesh is asked. */
    Map<String, Run> heads() {
        return heads;
    }

    /** What stands for a lane's run: itself, or of one in pieces its head. */
    private @Nullable Run standing(Source.Simulation source) {
        Run whole = runs.get(source.id());
        return whole != null ? whole : heads.get(source.id());
    }

    /** Why runs could not be opened, by lane: one sentence, and a second one where others had answered for it. */
    Map<String, String> failures() {
        var out = new LinkedHashMap<String, String>();
        failures.forEach((id, e) -> out.put(
                id,
                e.getMessage()
                        + (elsewhere.contains(id)
                                ? " What it answers was computed elsewhere, from files that are not here."
                                : "")));
        return out;
    }

    EvaluationContext lens() {
        return lens;
    }

    StudyBeyond beyond() {
        return beyond;
    }

    /** What a lane answers: a fault of the program costs the one answer and not the study. */
    Answered answer(Source source, Reading reading) {
        try {
            return switch (source) {
                case Source.Simulation s -> {
                    Run run = standing(s);
                    yield run == null ? withoutRun(s, reading) : onRun(run, s, reading);
                }
                case Source.Reference r -> new Answered(reference(r, reading));
            };
        } catch (CancellationException e) {
            throw e;
        } catch (LaneException e) {
            return new Answered(new Outcome.Absent(e));
        } catch (RuntimeException e) {
            String doing = "Reading \"" + reading.name() + "\" on \"" + source.name() + "\"";
            return new Answered(new Outcome.Absent(Fault.PROGRAM, library.fault(doing, e)));
        }
    }

    /** Where the files are not here, others may have read them. */
    private Answered withoutRun(Source.Simulation source, Reading reading) {
        LaneException failure = failures.get(source.id());
        Answers kept = library.answers();
        Optional<Answered> there = kept == Answers.NONE
                ? Optional.empty()
                : kept.of(source, depends.definition(reading, source, study.timeOf(source)), Double.NaN);
        there.ifPresent(a -> elsewhere.add(source.id()));
        return there.orElseGet(() -> new Answered(
                new Outcome.Absent(failure != null ? failure : new LaneException(Fault.NOT_READ, "It was not read."))));
    }

    /** Whether a reading is made of the answers to others. */
    static boolean derived(Reading reading) {
        return !reading.ask().readings().isEmpty();
    }

    /** Whether a piece rests on the one run that it reads. */
    boolean alone(Piece piece) {
        return readings(piece).stream().allMatch(depends::alone);
    }

    private List<Reading> readings(Piece piece) {
        return piece.readings().stream()
                .flatMap(id -> study.reading(id).stream())
                .toList();
    }

    /** All that a piece rests on but for the content of its files, by value. */
    List<Object> definition(Piece piece, Source.Simulation source) {
        List<Object> out = new ArrayList<>();
        out.add(piece.times().toString());
        Object when = study.timeOf(source);
        readings(piece).forEach(r -> out.addAll(depends.definition(r, source, when)));
        return out;
    }

    /**
     * Answers what a piece asks; the library keeps it.
     *
     * @throws LaneException where its run cannot be read
     */
    void make(Piece piece, Source.Simulation source) {
        Run run = standing(source);
        if (run == null) {
            LaneException why = failures.get(source.id());
            throw why != null ? why : new LaneException(Fault.NOT_READ, "The run was not read.");
        }
        if (piece.overTime()) {
            if (moments(run, source) instanceof StudyMoments m) {
                readings(piece).forEach(m::join);
                m.read(piece.times().stream().mapToInt(t -> place(t, m.times())).toArray());
            }
            return;
        }
        for (Reading reading : readings(piece)) {
            work.poll();
            if (answer(source, reading).outcome() instanceof Outcome.Absent a) {
                for (Fault passing : List.of(Fault.PROGRAM, Fault.NOT_READ)) {
                    if (a.brief().equals(passing.brief())) {
                        throw new LaneException(passing, a.reason());
                    }
                }
            }
        }
    }

    private static int place(double time, List<Double> stored) {
        int i = stored.indexOf(time);
        if (i < 0) {
            throw new LaneException(
                    Fault.MISSING, "The run does not hold the time " + time + " any more; make the plan again.");
        }
        return i;
    }

    private Elsewhere elsewhere(String own) {
        return new Elsewhere() {
            @Override
            public Outcome answer(String lane, Reading reading) {
                Source source = study.source(lane)
                        .orElseThrow(() -> new LaneException(
                                Fault.MISSING, "There is no lane \"" + lane + "\" to compare with; choose another."));
                return Readout.this.answer(source, reading).outcome();
            }

            @Override
            public String own() {
                return own;
            }

            @Override
            public Reading reading(String id) {
                return study.reading(id)
                        .orElseThrow(() -> new LaneException(
                                Fault.MISSING, "The reading \"" + id + "\" is not in the study; choose another."));
            }
        };
    }

    private ReadKey key(Run run, Source.Simulation source, Reading reading, Elsewhere elsewhere) {
        boolean overTime = reading.ask().overTime();
        Needs needs = depends.needs(reading);
        List<Object> more = new ArrayList<>();
        if (needs.beyond()) {
            // Over all times nobody has told yet what each of them looks up.
            needs.asked().forEach(q -> more.add(overTime ? lens.beyond().key() : depends.of(run, q, lens)));
        }
        needs.sheets().forEach(f -> more.add(library.sheet(f).key()));
        // What was answered elsewhere is kept, too, so that the same answers are the same objects.
        for (String id : reading.ask().readings()) {
            Reading other = elsewhere.reading(id);
            more.add(elsewhere.answer(elsewhere.own(), other));
            reading.ask().lanes().forEach(l -> more.add(elsewhere.answer(l, other)));
        }
        if (reading.ask().readings().isEmpty()) {
            reading.ask().lanes().forEach(l -> more.add(depends.key(l)));
        }
        Object of = overTime && moments(run, source) instanceof StudyMoments m ? m.key() : run.key();
        // Names of readings do not change numbers but stand in the trail.
        return new ReadKey(of, depends.asked(reading), more);
    }

    private Answered onRun(Run run, Source.Simulation source, Reading reading) {
        Elsewhere elsewhere = elsewhere(source.id());
        Provenance trail = depends.trail(run, source, reading.ask().overTime());
        return memo.counted(key(run, source, reading, elsewhere), () -> {
            Answers kept = library.answers();
            List<?> definition =
                    kept == Answers.NONE ? List.of() : depends.definition(reading, source, study.timeOf(source));
            return kept.of(source, definition, run.time()).orElseGet(() -> {
                // What others compute is waited for, but not what is made of their answers; what goes over times asks
                // for
                // each of them.
                if (!derived(reading) && !reading.ask().overTime()) {
                    require(kept, source);
                }
                Answered made = made(run, source, reading, trail, elsewhere);
                kept.keep(source, definition, made);
                return made;
            });
        });
    }

    /** @throws LaneException where others compute what is missing, and it is not computed here */
    static void require(Answers kept, Source.Simulation source) {
        kept.awaited(source).ifPresent(why -> {
            throw new LaneException(Fault.NOT_READ, why);
        });
    }

    private Answered made(Run run, Source.Simulation source, Reading reading, Provenance trail, Elsewhere elsewhere) {
        Set<Provenance.Input> inputs = new LinkedHashSet<>(run.inputs());
        Outcome made;
        var outside = new Outside();
        try {
            var on = new ReadingContext(
                    run,
                    lens,
                    places,
                    id -> study.station(id).orElse(null),
                    memo,
                    work,
                    trail,
                    reading.ask().overTime() ? together(run, source) : moments(run, source),
                    true,
                    elsewhere);
            made = run.gather().whole() || reading.ask().overTime() || derived(reading)
                    ? outside.counting(() -> reading.ask().read(reading, on))
                    : inPieces(run, source, reading, on);
        } catch (LaneException e) {
            if (e.fault() == Fault.NOT_READ) {
                // That says nothing of the content, which the key stands for: it is tried again the next time.
                throw e;
            }
            made = new Outcome.Absent(e);
        }
        inputs.addAll(made.trail().inputs());
        List<Scalar> beside = outside.shares().entrySet().stream()
                .map(e -> new Scalar(
                        "outside of " + e.getKey(),
                        new Estimate(e.getValue(), Unit.ONE),
                        "share of the places looked up in " + e.getKey() + " that lie outside of it"))
                .toList();
        return new Answered(made, beside, run.time(), List.copyOf(inputs));
    }

    /** What a run in pieces answers; what else is still asked of it is answered with it, so that each piece is opened once. */
    private Outcome inPieces(Run head, Source.Simulation source, Reading reading, ReadingContext on) {
        Map<Reading, Outcome> there = pieced.computeIfAbsent(source.id(), k -> new HashMap<>());
        if (!there.containsKey(reading)) {
            Set<Reading> asked = new LinkedHashSet<>(List.of(reading));
            Answers kept = library.answers();
            study.readings().stream()
                    .filter(r -> !r.ask().overTime() && !derived(r) && !there.containsKey(r))
                    .filter(r -> memo.kept(key(head, source, r, elsewhere(source.id())))
                            .isEmpty())
                    .filter(r -> kept == Answers.NONE
                            || kept.of(source, depends.definition(r, source, study.timeOf(source)), head.time())
                                    .isEmpty())
                    .forEach(asked::add);
            there.putAll(new Piecewise(study, Objects.requireNonNull(partitions.get(source.id())), library, work)
                    .answer(asked, on::on));
        }
        return Objects.requireNonNull(there.get(reading));
    }

    /** The times of a run, whose readings that are still to be answered are read together, so that each is opened once. */
    private Moments together(Run run, Source.Simulation source) {
        Moments of = moments(run, source);
        if (of instanceof StudyMoments m && joined.add(source.id())) {
            study.readings().stream()
                    .filter(r -> r.ask().overTime())
                    .filter(r -> memo.kept(key(run, source, r, elsewhere(source.id())))
                            .isEmpty())
                    .forEach(m::join);
        }
        return of;
    }

    private Moments moments(Run run, Source.Simulation source) {
        return moments.computeIfAbsent(
                source.id(), k -> run.gather().whole() ? beyond.moments(run, lens) : beyond.times(run, source, lens));
    }

    private Outcome reference(Source.Reference reference, Reading reading) {
        var all = new LinkedHashMap<>(runs);
        all.putAll(heads);
        double time = Answering.time(all);
        List<Double> times = Answering.times(all);
        var answering = new Answering(study, reference, library::table, time, times, clocks);
        Curve curve = answering.curve(reading).orElse(null);
        if (curve == null) {
            return new Outcome.Absent(
                    Fault.NO_VALUE, reference.name() + " says nothing about \"" + reading.name() + "\".");
        }
        List<Object> tables = new ArrayList<>();
        curve.table().ifPresent(file -> tables.add(Same.as(library.table(file, study.recipes()))));
        tables.add(curve);
        if (curve instanceof Curve.ByFormula f
                && Formula.of(f.formula()).names().contains("time")) {
            tables.add(time);
            tables.add(times);
        }
        var key = new ReadKey(reference.constants(), depends.asked(reading, stations(study, reading)), tables);
        return memo.counted(key, () -> {
            try {
                return answering.of(reading, curve);
            } catch (LaneException e) {
                return new Outcome.Absent(e);
            }
        });
    }

    private static List<Station> stations(Study study, Reading reading) {
        List<String> ids = reading.stations();
        return study.stations().stream().filter(s -> ids.contains(s.id())).toList();
    }
}
