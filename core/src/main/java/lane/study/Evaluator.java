package lane.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.function.Supplier;
import lane.base.BoundedMemo;
import lane.base.Fault;
import lane.base.Hashed;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.CheckResult;
import lane.estimate.Estimate;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Laid;
import lane.evaluation.Outside;
import lane.evaluation.StationResolver;
import lane.field.Run;
import lane.field.Treatment;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Elsewhere;
import lane.reading.Moments;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Scalar;
import lane.reference.Curve;
import lane.reference.Formula;
import lane.station.Placement;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Computes a study. Every result is remembered under all that it depends on, so an edit recomputes only what it touches, and
 * undo nothing; a run counts by what it holds, so one that is read again costs only the reading. Thread-safe: one evaluation
 * at a time, the next waits.
 */
public final class Evaluator {
    private static final Method READ = new Method("files read, parts matched with the mesh", 1);

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

    // Keys: a run and a mesh count by what they hold, definitions by value. Two times on one mesh share their
    // placements.
    // A key holds what the result depends on and nothing else.
    private record ReadKey(Object source, Hashed asked, List<Object> extra) {}

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
        Study study = inSpace(asked);
        var runs = new LinkedHashMap<String, Run>();
        var failures = new LinkedHashMap<String, LaneException>();
        for (Source source : study.sources()) {
            if (source instanceof Source.Simulation s) {
                work.poll();
                try {
                    runs.put(s.id(), places.turned(library.run(s, study.timeOf(s), work), study.axis()));
                } catch (CancellationException e) {
                    throw e;
                } catch (LaneException e) {
                    failures.put(s.id(), e);
                } catch (RuntimeException e) {
                    failures.put(
                            s.id(),
                            new LaneException(Fault.PROGRAM, library.fault("Reading run \"" + s.name() + "\"", e), e));
                }
            }
        }
        var beyond = new StudyBeyond(study, runs, library, places, memo, work);
        EvaluationContext lens = EvaluationContext.of(study.quantities(), study.units(), study.axis(), beyond);
        var depends = new Depends(study, beyond, lens, memo);
        beyond.elsewhere(run -> elsewhere(
                study,
                runs.entrySet().stream()
                        .filter(e -> e.getValue().key().equals(run.key()))
                        .map(Map.Entry::getKey)
                        .findFirst()
                        .orElse(""),
                runs,
                failures,
                lens,
                depends,
                work));
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
        var told = new LinkedHashMap<String, String>();
        failures.forEach((id, e) -> told.put(id, e.getMessage()));
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
                        told,
                        placements,
                        laid,
                        new LinkedHashMap<>(readings),
                        new LinkedHashMap<>(beside),
                        new Judging(memo, library).judge(study, readings, runs, work),
                        lens.with(beyond.apart()))));
            }
            var of = new LinkedHashMap<String, Outcome>();
            var more = new LinkedHashMap<String, List<Scalar>>();
            for (Source source : study.sources()) {
                Answer answer = read(study, source, runs, failures, reading, lens, depends, work);
                of.put(source.id(), answer.outcome);
                if (!answer.beside.isEmpty()) {
                    more.put(source.id(), answer.beside);
                }
            }
            readings.put(reading.id(), of);
            beside.put(reading.id(), more);
        }
        Map<String, CheckResult> checks = new Judging(memo, library).judge(study, readings, runs, work);
        library.settled(study);
        return new Results(asked, runs, told, placements, laid, readings, beside, checks, lens.with(beyond.apart()));
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

    /**
     * What a lane answers.
     *
     * @param beside numbers that belong to the answer and are none of it
     */
    private record Answer(Outcome outcome, List<Scalar> beside) {
        Answer(Outcome outcome) {
            this(outcome, List.of());
        }
    }

    private Answer read(
            Study study,
            Source source,
            Map<String, Run> runs,
            Map<String, LaneException> failures,
            Reading reading,
            EvaluationContext lens,
            Depends beyond,
            Work work) {
        return answered(reading, source, () -> switch (source) {
            case Source.Simulation s -> {
                Run run = runs.get(s.id());
                yield run == null
                        ? new Answer(new Outcome.Absent(why(failures.get(s.id()))))
                        : readRun(
                                study,
                                run,
                                s,
                                reading,
                                lens,
                                beyond,
                                elsewhere(study, s.id(), runs, failures, lens, beyond, work),
                                work);
            }
            case Source.Reference r -> new Answer(readReference(study, r, reading, runs, beyond));
        });
    }

    private static LaneException why(@Nullable LaneException failure) {
        return failure != null ? failure : new LaneException(Fault.NOT_READ, "It was not read.");
    }

    /** An answer, or why there is none: a fault of the program costs the one answer and not the study. */
    private Answer answered(Reading reading, Source source, Supplier<Answer> make) {
        try {
            return make.get();
        } catch (CancellationException e) {
            throw e;
        } catch (LaneException e) {
            return new Answer(new Outcome.Absent(e));
        } catch (RuntimeException e) {
            String doing = "Reading \"" + reading.name() + "\" on \"" + source.name() + "\"";
            return new Answer(new Outcome.Absent(Fault.PROGRAM, library.fault(doing, e)));
        }
    }

    private Elsewhere elsewhere(
            Study study,
            String own,
            Map<String, Run> runs,
            Map<String, LaneException> failures,
            EvaluationContext lens,
            Depends beyond,
            Work work) {
        return new Elsewhere() {
            @Override
            public Outcome answer(String lane, Reading reading) {
                Source source = study.source(lane)
                        .orElseThrow(() -> new LaneException(
                                Fault.MISSING, "There is no lane \"" + lane + "\" to compare with; choose another."));
                return read(study, source, runs, failures, reading, lens, beyond, work).outcome;
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

    /** What is particular about a run: its time, and what was stated of it. */
    private static Map<String, String> facts(Run run, Source.Simulation source, boolean overTime) {
        Treatment treatment = source.treatment();
        var out = new LinkedHashMap<String, String>();
        out.put(
                "read",
                overTime
                        ? source.file()
                        : run.inputs().isEmpty()
                                ? "run in memory"
                                : run.inputs().getFirst().brief());
        if (!treatment.length().isBlank()) {
            out.put("coordinates in", treatment.length());
        } else if (!run.stated().length()) {
            out.put("coordinates in", "m, assumed: neither the file nor anybody says their unit");
        }
        treatment
                .order()
                .forEach((f, o) -> out.put(
                        "components of " + f, String.join(", ", Treatment.components(o.size())) + " from " + o));
        run.fields().stream()
                .filter(f -> run.remarks().contains(Treatment.assumed(f.name())))
                .forEach(f -> out.put("components of " + f.name(), "xx, yy, zz, xy, yz, xz, assumed"));
        treatment.parts().forEach(e -> out.merge("parts", e.toString(), (a, b) -> a + "; " + b));
        if (!Double.isNaN(run.time()) && !overTime) {
            out.put(
                    "time",
                    run.time()
                            + (run.times().size() > 1
                                    ? ", one of " + run.times().size()
                                    : ""));
        }
        if (run.stated().system() != null) {
            out.put("units", run.stated().system().name());
        }
        run.stated().units().forEach((f, u) -> out.put("unit of " + f, u.label() + ", stated for this run"));
        if (run.stated().depth() != 1) {
            out.put("depth", run.stated().depth() + " m");
        }
        if (run.stated().turn() != null) {
            out.put("stands for", run.stated().turn().word());
        }
        run.stated().onWall().forEach((f, w) -> out.put(f + " acts on", w ? "the wall" : "the fluid"));
        return out;
    }

    private Answer readRun(
            Study study,
            Run run,
            Source.Simulation source,
            Reading reading,
            EvaluationContext lens,
            Depends beyond,
            Elsewhere elsewhere,
            Work work) {
        boolean overTime = reading.ask().overTime();
        Moments moments = beyond.study.moments(run, lens);
        Provenance trail = beyond.trail(run, source, overTime);
        Needs needs = beyond.needs(reading);
        List<Object> more = new ArrayList<>();
        if (needs.beyond()) {
            // Over all times nobody has told yet what each of them looks up.
            needs.asked().forEach(q -> more.add(overTime ? lens.beyond().key() : beyond.of(run, q, lens)));
        }
        needs.sheets().forEach(f -> more.add(library.sheet(f).key()));
        // What was answered elsewhere is kept, too, so that the same answers are the same objects.
        for (String id : reading.ask().readings()) {
            Reading other = elsewhere.reading(id);
            more.add(elsewhere.answer(elsewhere.own(), other));
            reading.ask().lanes().forEach(l -> more.add(elsewhere.answer(l, other)));
        }
        if (reading.ask().readings().isEmpty()) {
            reading.ask().lanes().forEach(l -> more.add(beyond.key(l)));
        }
        Object of = overTime && moments instanceof StudyMoments m ? m.key() : run.key();
        // Names of readings do not change numbers but stand in the trail.
        var key = new ReadKey(of, beyond.asked(reading), more);
        return memo.counted(key, () -> {
            try {
                var on = new ReadingContext(
                        run,
                        lens,
                        places,
                        id -> study.station(id).orElse(null),
                        memo,
                        work,
                        trail,
                        moments,
                        true,
                        elsewhere);
                var outside = new Outside();
                Outcome made = outside.counting(() -> reading.ask().read(reading, on));
                List<Scalar> beside = outside.shares().entrySet().stream()
                        .map(e -> new Scalar(
                                "outside of " + e.getKey(),
                                new Estimate(e.getValue(), Unit.ONE),
                                "share of the places looked up in " + e.getKey() + " that lie outside of it"))
                        .toList();
                return new Answer(made, beside);
            } catch (LaneException e) {
                if (e.fault() == Fault.NOT_READ) {
                    // That says nothing of the content, which the key stands for: it is tried again the next time.
                    throw e;
                }
                return new Answer(new Outcome.Absent(e));
            }
        });
    }

    /** What formulas that look beyond the place take from there, found out once an evaluation. */
    private static final class Depends {
        private record Of(Object run, Quantity quantity) {}

        private final Map<Of, Object> known = new HashMap<>();
        private final IdentityHashMap<Reading, Needs> needs = new IdentityHashMap<>();
        private final IdentityHashMap<Reading, Hashed> asked = new IdentityHashMap<>();
        private final Map<List<Object>, Provenance> trails = new HashMap<>();
        private final Study of;
        private final StudyBeyond study;
        private final EvaluationContext lens;
        private final BoundedMemo memo;

        Depends(Study of, StudyBeyond study, EvaluationContext lens, BoundedMemo memo) {
            this.of = of;
            this.study = study;
            this.lens = lens;
            this.memo = memo;
        }

        /** What of the study a reading rests on: the same for all lanes. */
        Needs needs(Reading reading) {
            return needs.computeIfAbsent(reading, r -> Needs.of(of, r, lens, study));
        }

        /** The same as a key, which is the same object as long as it says the same. */
        Hashed asked(Reading reading) {
            return asked.computeIfAbsent(reading, r -> {
                Needs n = needs(r);
                return key(r, n.stations(), n.quantities(), n.units());
            });
        }

        /** The same for a reference, which asks no quantity. */
        Hashed asked(Reading reading, List<Station> stations) {
            return key(reading, stations, List.of(), List.of());
        }

        private Hashed key(Reading reading, List<Station> stations, List<Quantity> quantities, List<FieldUnit> units) {
            Hashed now = Hashed.of(List.of(reading, stations, quantities, units, of.axis()));
            return memo.of(now, () -> now);
        }

        /** How a run's trail begins: the same for all readings. */
        Provenance trail(Run run, Source.Simulation source, boolean overTime) {
            return trails.computeIfAbsent(List.of(source.id(), run.key(), overTime), k -> new Provenance(
                            overTime ? List.of() : run.inputs(), List.of())
                    .then("source", READ, "{read}", facts(run, source, overTime)));
        }

        /** What a lane's run is known by. */
        Object key(String lane) {
            Run run = study.run(lane);
            return run == null ? "no run of " + lane : run.key();
        }

        /** All that there is, where it cannot be told. */
        Object of(Run run, Quantity quantity, EvaluationContext lens) {
            var of = new Of(run.key(), quantity);
            Object there = known.get(of);
            if (there != null) {
                return there;
            }
            // What needs itself on the way meets all that there is.
            known.put(of, lens.beyond().key());
            Object found;
            try {
                found = BoundQuantity.of(run, quantity, lens).depends();
            } catch (LaneException e) {
                found = lens.beyond().key();
            }
            known.put(of, found);
            return found;
        }
    }

    private Outcome readReference(
            Study study, Source.Reference reference, Reading reading, Map<String, Run> runs, Depends beyond) {
        double time = Answering.time(runs);
        List<Double> times = Answering.times(runs);
        var answering = new Answering(study, reference, library, time, times);
        Curve curve = answering.curve(reading).orElse(null);
        if (curve == null) {
            return new Outcome.Absent(
                    Fault.NO_VALUE, reference.name() + " says nothing about \"" + reading.name() + "\".");
        }
        List<Object> tables = new ArrayList<>();
        if (curve instanceof Curve.Columns c) {
            tables.add(library.table(c.file(), study.recipes()));
        } else if (curve instanceof Curve.WindowMean w) {
            tables.add(library.table(w.file(), study.recipes()));
        }
        tables.add(curve);
        if (curve instanceof Curve.ByFormula f
                && Formula.of(f.formula()).names().contains("time")) {
            tables.add(time);
            tables.add(times);
        }
        var key = new ReadKey(reference.constants(), beyond.asked(reading, stations(study, reading)), tables);
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
