package lane.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import lane.base.BoundedMemo;
import lane.base.Hashed;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Plain;
import lane.base.Same;
import lane.base.Work;
import lane.estimate.Estimate;
import lane.evaluation.Anywhere;
import lane.evaluation.Beyond;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.InRun;
import lane.evaluation.Outside;
import lane.evaluation.StationResolver;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Printer;
import lane.formula.Scope;
import lane.formula.Type;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.provenance.Provenance;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.reading.Moments;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.Clocks;
import lane.station.Frame;
import lane.station.Points;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** What formulas see of a study beyond the place. Two are equal when the study and its runs are, but for names and checks. */
final class StudyBeyond implements Beyond {
    private java.util.function.Function<Run, lane.reading.Elsewhere> elsewhere = r -> lane.reading.Elsewhere.NONE;
    private final Study study;
    private final Map<String, Run> runs;
    private final Library library;
    private final StationResolver places;
    private final Memo memo;
    private final Work work;
    private final Hashed identity;
    /** The first reading of each name of a number. */
    private final Map<String, Reading> named = new LinkedHashMap<>();

    private final FieldSteps steps;
    private final ReferenceTables tables;
    /** Readings that are being computed for a formula, so that one that needs itself is told. */
    private final ThreadLocal<Set<String>> open = ThreadLocal.withInitial(HashSet::new);

    StudyBeyond(Study study, Map<String, Run> runs, Library library, StationResolver places, Memo memo, Work work) {
        this(study, runs, library, places, memo, work, null);
    }

    /** @param known what all of it is known by; null where that is to be found */
    private StudyBeyond(
            Study study,
            Map<String, Run> runs,
            Library library,
            StationResolver places,
            Memo memo,
            Work work,
            @Nullable Hashed known) {
        this.study = study;
        this.runs = runs;
        this.library = library;
        this.places = places;
        this.memo = memo;
        this.work = work;
        steps = new FieldSteps(memo);
        tables = new ReferenceTables(study, library);
        study.readings().forEach(r -> r.numbers().forEach(n -> named.putIfAbsent(n, r)));
        if (known != null) {
            identity = known;
            return;
        }
        List<Object> all = new ArrayList<>(List.of(
                study.axis(),
                study.recipes(),
                study.sources(),
                study.units(),
                study.quantities(),
                study.frames(),
                study.stations(),
                study.readings()));
        runs.values().forEach(r -> all.add(r.key()));
        tables.all().forEach(t -> all.add(Same.as(t)));
        Hashed now = Hashed.of(all);
        // The same object as long as nothing changes: it stands in many keys.
        identity = memo.of(now, () -> now);
    }

    private Runnable beforeTimes = () -> {};

    /** @param told once, before stored times are read one after the other */
    void beforeTimes(Runnable told) {
        beforeTimes = told;
    }

    /** Times are going to be read, and not known from before. */
    private void readingTimes() {
        Runnable once = beforeTimes;
        beforeTimes = () -> {};
        once.run();
    }

    /** The same for threads besides the evaluator's: what it makes is kept on its own. */
    StudyBeyond apart() {
        var keep = BoundedMemo.share(0.05);
        return new StudyBeyond(study, runs, library, new StationResolver(library, keep), keep, Work.QUIET, identity);
    }

    /** The same where a lane looks at another of its times: what all of it is known by is not looked through again. */
    StudyBeyond at(String lane, Run then) {
        var others = new LinkedHashMap<>(runs);
        if (then.equals(others.put(lane, then))) {
            return this;
        }
        return new StudyBeyond(
                study, others, library, places, memo, work, Hashed.of(List.of(identity, lane, then.key())));
    }

    @Override
    public Object key() {
        return identity;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof StudyBeyond b && identity.equals(b.identity);
    }

    @Override
    public int hashCode() {
        return identity.hashCode();
    }

    @Override
    public List<String> names() {
        return List.copyOf(named.keySet());
    }

    /** Whether one of the names may be that of a number of a reading. */
    boolean namesReading(Set<String> names) {
        return names.stream().anyMatch(named::containsKey);
    }

    @Override
    public List<String> lanes() {
        List<String> out = new ArrayList<>(runs.keySet());
        study.sources().stream()
                .filter(s -> runs.containsKey(s.id()) || s instanceof Source.Reference)
                .forEach(s -> out.add(s.name()));
        return out.stream().distinct().toList();
    }

    @Override
    public @Nullable Run run(String lane) {
        return study.sources().stream()
                .filter(s -> s.name().equals(lane))
                .map(Source::id)
                .findFirst()
                .map(runs::get)
                .orElse(runs.get(lane));
    }

    @Override
    public @Nullable Scope reference(String lane, double time, EvaluationContext lens) {
        double at = Double.isNaN(time) ? Answering.time(runs) : time;
        List<Double> times = Answering.times(runs);
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(s -> s.name().equals(lane) || s.id().equals(lane))
                .findFirst()
                .map(s -> new AnswerScope(new Answering(study, s, library::table, at, times, new Clocks()), lens))
                .orElse(null);
    }

    @Override
    public List<String> stations() {
        return study.stations().stream()
                .map(Station::name)
                .filter(n -> extent(n) >= 0)
                .toList();
    }

    @Override
    public java.util.Optional<Unit> readingUnit(String name) {
        return java.util.Optional.ofNullable(named.get(name)).map(r -> Unit.of(r.unit()));
    }

    @Override
    public @Nullable Axis frame(String name) {
        return study.frames().stream()
                .filter(f -> f.name().equals(name) || f.id().equals(name))
                .map(Frame::id)
                .findFirst()
                .map(study::placed)
                .orElse(null);
    }

    private @Nullable Station station(String name) {
        return study.stations().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .or(() -> study.station(name))
                .orElse(null);
    }

    @Override
    public int extent(String name) {
        Station found = station(name);
        return switch (found == null ? null : found.shape()) {
            case null -> -1;
            case Points _ -> 0;
            case Shape.Path _ -> 1;
            case Shape.Surface _ -> 2;
            case Region _ -> 3;
            default -> -1;
        };
    }

    @Override
    public Field step(Run run, Scope.Step step, EvaluationContext lens) {
        try {
            return switch (step) {
                case Scope.Step.Gradient g -> steps.gradient(run, g, lens);
                case Scope.Step.Jump j -> steps.jump(run, j, lens);
                // Of a run on the same mesh a formula is computed in place, and of another one at places.
                case Scope.Step.OfLane o ->
                    throw new Scope.Trouble("There is no lane \"" + o.lane() + "\" to take it from; the lanes are "
                            + Plain.names(lanes()) + ".");
                case Scope.Step.AtTime _ ->
                    throw new Scope.Trouble("Another time is known of the runs themselves only.");
            };
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    @Override
    public @Nullable Anywhere places(Run run, Scope.Step step, EvaluationContext lens) {
        try {
            boolean here = step instanceof Scope.Step.Gradient || step instanceof Scope.Step.Jump;
            Run other = here ? null : on(run, step);
            if (other == null) {
                return null;
            }
            String name = step instanceof Scope.Step.OfLane o ? o.lane() : "this run at another time";
            return new InRun(
                    name,
                    other,
                    BoundQuantity.of(other, FieldSteps.body(step.body(), step.frame()), lens),
                    lens.axis());
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    @Override
    public @Nullable Run at(Run run, double time) {
        try {
            return then(run, time);
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    @Override
    public List<Provenance.Input> inputs(Run run, Scope.Step step, EvaluationContext lens) {
        Run on = on(run, step);
        if (on == null) {
            return List.of();
        }
        Set<Provenance.Input> all = new LinkedHashSet<>(on == run ? List.of() : on.inputs());
        all.addAll(BoundQuantity.of(on, FieldSteps.body(step.body(), step.frame()), lens)
                .inputs());
        return List.copyOf(all);
    }

    @Override
    public Map<String, Object> reached(Run run, Scope.Step step, EvaluationContext lens) {
        Run on = on(run, step);
        if (on == null) {
            return Map.of();
        }
        Map<String, Object> all = new LinkedHashMap<>();
        String name =
                switch (step) {
                    case Scope.Step.Gradient _, Scope.Step.Jump _ -> "";
                    case Scope.Step.OfLane o -> Double.isNaN(on.time()) ? "" : "time of " + o.lane();
                    case Scope.Step.AtTime a -> "this run at " + a.time();
                };
        if (!name.isEmpty()) {
            all.put(name, on.time());
        }
        BoundQuantity.of(on, FieldSteps.body(step.body(), step.frame()), lens)
                .reached()
                .forEach((what, how) -> all.put(
                        on == run ? what : what + " in " + (step instanceof Scope.Step.OfLane o ? o.lane() : name),
                        how));
        return all;
    }

    /** The run that a step takes place on; null for a lane that there is not. */
    private @Nullable Run on(Run run, Scope.Step step) {
        return switch (step) {
            case Scope.Step.Gradient _, Scope.Step.Jump _ -> run;
            case Scope.Step.OfLane o -> run(o.lane());
            case Scope.Step.AtTime a -> then(run, a.time());
        };
    }

    @Override
    public List<Provenance.Input> inputs(String lane) {
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(s -> s.name().equals(lane) || s.id().equals(lane))
                .flatMap(s -> s.files().stream())
                .map(tables::input)
                .flatMap(List::stream)
                .toList();
    }

    @Override
    public List<Provenance.Input> tableInputs(String name) {
        return tables.input(tables.file(name));
    }

    @Override
    public Field wallDistance(Run run) {
        return steps.wallDistance(run);
    }

    /** The stored times of a run; none for what is no lane of the study. */
    Moments moments(Run run, EvaluationContext lens) {
        return study.sources().stream()
                .filter(s -> runs.get(s.id()) == run)
                .map(Source.Simulation.class::cast)
                .findFirst()
                .<Moments>map(s -> times(run, s, lens))
                .orElse(Moments.NONE);
    }

    /** The stored times of a lane. */
    StudyMoments times(Run run, Source.Simulation source, EvaluationContext lens) {
        return new StudyMoments(study, source, run, runs, library, places, memo, work, lens, this::readingTimes);
    }

    /** A run at another of its times. */
    private Run then(Run run, double time) {
        Source.Simulation source = study.sources().stream()
                .filter(s -> runs.get(s.id()) == run)
                .map(Source.Simulation.class::cast)
                .findFirst()
                .orElseThrow(() -> new Scope.Trouble("Another time is known of the runs themselves only."));
        return places.turned(library.run(source, new TimeSelector.At(time, 0), work), study.axis());
    }

    @Override
    public Reduced reduce(Run run, Node.Reduction r, Type body, String frame, EvaluationContext lens) {
        int components = r.kind().equals("flow") ? 1 : body.components();
        double[] out = new double[components];
        double coverage = Double.NaN;
        Provenance trail = Provenance.EMPTY;
        for (int k = 0; k < components; k++) {
            Node one = r.body();
            if (components > 1) {
                var number = new Node.Num(k + 1, "", one.span(), one.span());
                one = new Node.Call("component", List.of(one, number), one.span(), one.span());
            }
            Tally made = reduce(run, r, one, frame, lens);
            out[k] = made.value();
            coverage = made.coverage();
            trail = made.trail();
        }
        return new Reduced(out, coverage, trail);
    }

    private Tally reduce(Run run, Node.Reduction r, Node body, String frame, EvaluationContext lens) {
        Node weighted = r.weight() == null ? body : new Node.Binary("*", r.weight(), body, body.span(), body.span());
        Tally made = number(run, r, weighted, frame, lens);
        if (r.weight() == null || !r.kind().equals("mean")) {
            return made;
        }
        // Means of both share the same measure, which falls out.
        Tally weight = number(run, r, r.weight(), frame, lens);
        return new Tally(
                new Estimate(made.value() / weight.value(), Unit.UNKNOWN),
                Map.of(),
                "",
                made.note(),
                made.coverage(),
                made.trail().and(weight.trail()));
    }

    private Tally number(Run run, Node.Reduction r, Node body, String frame, EvaluationContext lens) {
        Quantity q = new Quantity(
                "~ " + Printer.text(body), "~", FieldSteps.body(body, frame).formula(), "", "");
        EvaluationContext with = lens.with(q);
        Measure measure =
                switch (r.kind()) {
                    case "mean" -> new Mean(q.id());
                    case "integral" -> new Integral(q.id());
                    case "min" -> new Extreme(q.id(), false);
                    case "max" -> new Extreme(q.id(), true);
                    default -> new Flow(q.id(), 1, "1", Carried.NOTHING, lens.axis());
                };
        List<String> stations = r.over().stream()
                .map(p -> Objects.requireNonNull(station(p.name())).id())
                .toList();
        var reading = new Reading("~", r.kind(), "", new TallyOf(stations, measure));
        // It is one number a lane, however many readings ask for it.
        Object key = List.of("reduction", run.key(), reading, depends(q, stations, with));
        try {
            return memo.of(
                            key,
                            () -> Outside.Kept.of(() -> (Tally) reading.ask().read(reading, context(run, with))))
                    .taken();
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    /** All that the number of a quantity over stations rests on, besides the run. */
    private Object depends(Quantity q, List<String> stations, EvaluationContext lens) {
        Definitions graph = lens.definitions();
        Set<String> leaves = graph.leaves(q);
        List<Object> all = new ArrayList<>(graph.needs(q));
        study.units().stream().filter(u -> leaves.contains(u.field())).forEach(all::add);
        stations.forEach(id -> study.station(id).map(study::placed).ifPresent(all::add));
        all.add(lens.axis());
        boolean formed = stations.stream()
                .flatMap(id -> study.station(id).stream())
                .anyMatch(s -> !s.shape().shapedBy().isBlank() || s.shape() instanceof Sheet);
        if (formed || graph.beyond(q) || namesReading(leaves)) {
            all.add(identity);
        }
        return all;
    }

    private ReadingContext context(Run run, EvaluationContext lens) {
        return new ReadingContext(
                run,
                lens,
                places,
                id -> study.station(id).orElse(null),
                memo,
                work,
                Provenance.EMPTY,
                moments(run, lens),
                false,
                elsewhere.apply(run));
    }

    /** How what other lanes answered is found out. */
    void elsewhere(java.util.function.Function<Run, lane.reading.Elsewhere> how) {
        elsewhere = how;
    }

    @Override
    public Scope.Table table(String name, String column) {
        try {
            return tables.columns(name, column);
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    @Override
    public @Nullable Found reading(Run run, String name, EvaluationContext lens) {
        Reading r = named.get(name);
        if (r == null) {
            return null;
        }
        int at = r.numbers().indexOf(name);
        Outcome made = outcome(run, r, lens);
        if (made.numbers().size() <= at) {
            throw new Scope.Trouble(
                    made instanceof Outcome.Absent a ? a.reason() : "\"" + name + "\" is no number here.");
        }
        var number = new Meaning.Known(new double[] {made.numbers().get(at).value()}, Type.of(1, made.unit()));
        return new Found(number, remark(r, made), made.trail());
    }

    /** What a formula that takes a number of a reading has to tell of it. */
    private static String remark(Reading reading, Outcome made) {
        return made.scalars().stream()
                .filter(s -> s.what().equals(Tally.COVERAGE)
                        && Part.lacking(s.estimate().value()))
                .findFirst()
                .map(s -> "Only " + Part.percent(s.estimate().value()) + " of what \"" + reading.name()
                        + "\" is taken over lies in the run.")
                .orElse("");
    }

    private Outcome outcome(Run run, Reading reading, EvaluationContext lens) {
        if (!open.get().add(reading.id())) {
            throw new Scope.Trouble(
                    lane.base.Fault.LOOP,
                    "\"" + reading.name() + "\" is defined by itself through a quantity; break the loop.");
        }
        try {
            return memo.of(List.of("reading for a formula", run.key(), reading, identity), () -> reading.ask()
                    .read(reading, context(run, lens)));
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        } finally {
            open.get().remove(reading.id());
        }
    }
}
