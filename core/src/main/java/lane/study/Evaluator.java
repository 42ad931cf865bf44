package lane.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.BoundedMemo;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Same;
import lane.base.Work;
import lane.check.CheckResult;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Laid;
import lane.evaluation.StationResolver;
import lane.field.Run;
import lane.reading.Ask;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.reading.Several;
import lane.reference.Clocks;
import lane.reference.Curve;
import lane.station.Placement;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;

/**
 * Computes a study. Every result is remembered under all that it depends on, so an edit recomputes only what it touches, and
 * undo nothing; a run counts by what it holds, so one that is read again costs only the reading. Thread-safe: one evaluation
 * at a time, the next waits.
 */
public final class Evaluator {
    private static final int SEVERAL = 8;

    private final Library library;
    private final BoundedMemo memo;
    private final StationResolver places;

    public Evaluator(Library library) {
        this(library, BoundedMemo.share(0.25));
    }

    /** @param memo where results are remembered */
    public Evaluator(Library library, BoundedMemo memo) {
        this.library = library;
        this.memo = memo;
        places = new StationResolver(library, memo);
    }

    private volatile Set<String> looked = Set.of();

    /** Stations, by key, that somebody looks at: these are laid into the runs even if no reading asks for them. */
    public void look(Set<String> stations) {
        looked = Set.copyOf(stations);
    }

    /** Number of placements, readings and checks that were really computed since the start. */
    public int computed() {
        return memo.made();
    }

    /**
     * Computes everything in the study, switched-off lanes too, so that switching on costs nothing.
     *
     * @throws java.util.concurrent.CancellationException when cancelled; what is remembered stays valid
     */
    public Results evaluate(Study asked, Work work) {
        return evaluate(asked, work, r -> {});
    }

    /**
     * The same, telling what is known so far before it reads stored times one after the other, which may take long.
     *
     * @param sofar takes the results without the answers over time; not called where these are known
     */
    public synchronized Results evaluate(Study asked, Work work, Consumer<Results> sofar) {
        library.begin(asked);
        Study study = inSpace(asked);
        library.foreseeTables(tables(study), study.recipes(), work);
        var readout = new Readout(study, library, memo, places, s -> true, work);
        Map<String, Run> runs = readout.runs();
        EvaluationContext lens = readout.lens();
        StudyBeyond beyond = readout.beyond();
        var placements = new LinkedHashMap<String, Map<String, Placement>>();
        var laid = new LinkedHashMap<String, Map<String, Laid>>();
        for (Station station : study.stations()) {
            if (station.shape() instanceof Shape.Sampled sampled) {
                var of = new LinkedHashMap<String, Placement>();
                runs.forEach((id, run) -> {
                    try {
                        of.put(id, places.placement(run, sampled, study.axis(), work));
                    } catch (CancellationException e) {
                        throw e;
                    } catch (RuntimeException e) {
                        // The reading on it meets the same and tells why.
                        of.remove(id);
                    }
                });
                placements.put(station.id(), of);
            } else if (looked.contains(station.id()) && !(station.shape() instanceof Sweep)) {
                var of = new LinkedHashMap<String, Laid>();
                runs.forEach((id, run) -> of.put(id, places.laid(run, station, lens, work)));
                laid.put(station.id(), of);
            }
        }
        var readings = new LinkedHashMap<String, Map<String, Outcome>>();
        var beside = new LinkedHashMap<String, Map<String, List<Scalar>>>();
        study.readings().forEach(r -> readings.put(r.id(), waiting(study)));
        // What goes over all times comes last, so that it keeps nobody waiting.
        List<Reading> order = new ArrayList<>(
                study.readings().stream().filter(r -> !r.ask().overTime()).toList());
        int quick = order.size();
        study.readings().stream().filter(r -> r.ask().overTime()).forEach(order::add);
        for (int i = 0; i < order.size(); i++) {
            Reading reading = order.get(i);
            work.poll();
            work.progress("Reading " + reading.name(), (double) i / order.size());
            if (i == quick) {
                beyond.beforeTimes(() -> sofar.accept(new Results(
                        asked,
                        runs,
                        readout.failures(),
                        readout.heads(),
                        placements,
                        laid,
                        new LinkedHashMap<>(readings),
                        new LinkedHashMap<>(beside),
                        new Judging(memo, library).judge(study, readings, runs, work),
                        lens.with(beyond.apart()))));
            }
            var of = new LinkedHashMap<String, Outcome>();
            var more = new LinkedHashMap<String, List<Scalar>>();
            Map<String, Answered> references = references(study, readout, reading, work);
            for (Source source : study.sources()) {
                Answered answer = references.containsKey(source.id())
                        ? references.get(source.id())
                        : readout.answer(source, reading);
                of.put(source.id(), answer.outcome());
                if (!answer.beside().isEmpty()) {
                    more.put(source.id(), answer.beside());
                }
            }
            readings.put(reading.id(), inOneUnit(of));
            beside.put(reading.id(), more);
        }
        Map<String, CheckResult> checks = new Judging(memo, library).judge(study, readings, runs, work);
        library.settled(study);
        return new Results(
                asked,
                runs,
                readout.failures(),
                readout.heads(),
                placements,
                laid,
                readings,
                beside,
                checks,
                lens.with(beyond.apart()));
    }

    /**
     * What lanes answer to a curve by columns of long tables that are not read yet, as far as that can be known before all of them
     * are: for whoever waits for it. What it was read from may not be proved yet ({@link lane.provenance.Provenance#proved}). Another thread may be
     * evaluating the study meanwhile.
     *
     * @return by source key; empty where there is nothing to be seen before
     */
    public Map<String, Outcome> firstLook(Study asked, Reading reading, Work work) {
        var out = new LinkedHashMap<String, Outcome>();
        if (reading.ask().form() != Ask.Form.CURVE) {
            return out;
        }
        Study study = inSpace(asked);
        var clocks = new Clocks();
        List<Source.Reference> all = study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .toList();
        Map<String, Outcome> found = new ConcurrentHashMap<>();
        Parallel.forBlocks(all.size(), 1, (b, i, end) -> {
            work.poll();
            Source.Reference one = all.get(i);
            firstLook(study, one, reading, clocks, work).ifPresent(o -> found.put(one.id(), o));
        });
        all.stream().filter(r -> found.containsKey(r.id())).forEach(r -> out.put(r.id(), found.get(r.id())));
        return out;
    }

    private Optional<Outcome> firstLook(
            Study study, Source.Reference reference, Reading reading, Clocks clocks, Work work) {
        Tables tables = (file, recipes) -> library.firstLook(file, recipes, columns(reference, reading), work)
                .orElseThrow();
        var answering = new Answering(study, reference, tables, Double.NaN, List.of(), clocks);
        try {
            return answering
                    .curve(reading)
                    .filter(Curve.Columns.class::isInstance)
                    .map(c -> answering.of(reading, c));
        } catch (LaneException | NoSuchElementException e) {
            // Whoever evaluates it tells why.
            return Optional.empty();
        }
    }

    /** The columns that a reference answers a reading by. */
    private static Set<String> columns(Source.Reference reference, Reading reading) {
        return reference.answers().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .filter(Curve.Columns.class::isInstance)
                .map(Curve.Columns.class::cast)
                .flatMap(c -> Stream.of(
                        c.abscissa(),
                        c.value(),
                        c.uncertainty().column(),
                        c.uncertainty().upper()))
                .filter(c -> !c.isBlank())
                .collect(Collectors.toSet());
    }

    /**
     * The work of a study as pieces that rest on no other. What is made of answers to other readings is none: it costs nothing.
     *
     * @param block how many stored times one piece reads at most
     */
    public synchronized List<Planned> plan(Study asked, int block, Work work) {
        library.begin(asked);
        Study study = inSpace(asked);
        var times = new LinkedHashMap<String, List<Double>>();
        var readout = new Readout(study, library, memo, places, s -> true, work);
        readout.runs().forEach((lane, run) -> times.put(lane, run.times()));
        readout.heads().forEach((lane, run) -> times.put(lane, run.times()));
        return Pieces.of(study, times, block, Readout::derived).stream()
                .map(p -> new Planned(p, readout.definition(p, simulation(study, p))))
                .toList();
    }

    /**
     * A piece of the plan.
     *
     * @param definition all that it rests on but for the content of files
     */
    public record Planned(Piece piece, List<Object> definition) {}

    /**
     * Makes one piece; the library's {@link Answers} and journals keep it.
     *
     * @throws LaneException where its run cannot be read
     */
    public synchronized void make(Study asked, Piece piece, Work work) {
        library.begin(asked);
        Study study = inSpace(asked);
        Source.Simulation source = simulation(study, piece);
        boolean alone = new Readout(study, library, memo, places, s -> false, work).alone(piece);
        new Readout(study, library, memo, places, s -> !alone || s.id().equals(source.id()), work).make(piece, source);
    }

    private static Source.Simulation simulation(Study study, Piece piece) {
        return study.source(piece.lane())
                .filter(Source.Simulation.class::isInstance)
                .map(Source.Simulation.class::cast)
                .orElseThrow(() -> new LaneException(
                        Fault.MISSING, "The study has no run \"" + piece.lane() + "\"; make the plan again."));
    }

    private record ShownAs(Same answer, Same other) {}

    /** The answers of all lanes in the units of the first: what is judged by a tolerance is judged by the same one in all. */
    private Map<String, Outcome> inOneUnit(Map<String, Outcome> of) {
        Outcome first =
                of.values().stream().filter(o -> o.unit().known()).findFirst().orElse(null);
        if (first != null) {
            of.replaceAll((lane, o) -> alike(first, o) || !o.unit().shownIn(first.unit())
                    ? o
                    : memo.of(new ShownAs(Same.as(o), Same.as(first)), () -> o.as(first)));
        }
        return of;
    }

    private static boolean alike(Outcome first, Outcome o) {
        return !o.unit().known()
                || o.unit().equals(first.unit())
                        && (!(o instanceof Several a)
                                || !(first instanceof Several b)
                                || a.units().equals(b.units()));
    }

    /** What references answer, found on all cores where there are several; they rest on no other answer. */
    private static Map<String, Answered> references(Study study, Readout readout, Reading reading, Work work) {
        List<Source> all = study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .toList();
        if (all.size() < SEVERAL) {
            return Map.of();
        }
        Map<String, Answered> out = new ConcurrentHashMap<>();
        Parallel.forBlocks(all.size(), 1, (b, i, end) -> {
            work.poll();
            out.put(all.get(i).id(), readout.answer(all.get(i), reading));
        });
        return out;
    }

    /** Files of the tables that readings ask for. */
    private static List<String> tables(Study study) {
        Set<String> asked = study.readings().stream().map(Reading::id).collect(Collectors.toSet());
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .flatMap(s -> ((Source.Reference) s).answers().stream())
                .filter(c -> asked.contains(c.reading()))
                .flatMap(c -> c.table().stream())
                .distinct()
                .toList();
    }

    /** What lanes answer as long as they are being read. */
    private static Map<String, Outcome> waiting(Study study) {
        var out = new LinkedHashMap<String, Outcome>();
        study.sources()
                .forEach(s -> out.put(
                        s.id(),
                        new Outcome.Absent("being read", "The stored times are being read, one after the other.")));
        return out;
    }

    /** The study with its stations as they stand in space; one that cannot be placed is left out, so who needs it says so. */
    private static Study inSpace(Study study) {
        return stationsInSpace(study).withReadings(list -> list.stream()
                .map(r -> {
                    try {
                        String frame = r.ask().frame();
                        return frame.isBlank() ? r : r.asking(r.ask().placed(study.placed(frame)));
                    } catch (LaneException e) {
                        // It finds no frame when it is read, and says so.
                        return r;
                    }
                })
                .toList());
    }

    private static Study stationsInSpace(Study study) {
        return study.withStations(list -> {
            List<Station> out = new ArrayList<>();
            for (Station s : list) {
                try {
                    out.add(study.placed(s));
                } catch (LaneException e) {
                    // Who needs the station finds it missing and says so.
                }
            }
            return out;
        });
    }
}
