package lane.study;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
import lane.base.BoundedMemo;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.estimate.Estimate;
import lane.evaluation.Anywhere;
import lane.evaluation.Beyond;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.InRun;
import lane.evaluation.Outside;
import lane.evaluation.SamplePoints;
import lane.evaluation.StationResolver;
import lane.field.Field;
import lane.field.Gradient;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formula.Compiler;
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
import lane.mesh.Neighbours;
import lane.provenance.Provenance;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.Table;
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
    private final Study study;
    private final Map<String, Run> runs;
    private final Library library;
    private final StationResolver places;
    private final Memo memo;
    private final Work work;
    private final Identity identity;
    /** Readings that are being computed for a formula, so that one that needs itself is told. */
    private final ThreadLocal<Set<String>> open = ThreadLocal.withInitial(HashSet::new);

    StudyBeyond(Study study, Map<String, Run> runs, Library library, StationResolver places, Memo memo, Work work) {
        this.study = study;
        this.runs = runs;
        this.library = library;
        this.places = places;
        this.memo = memo;
        this.work = work;
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
        all.addAll(tables());
        identity = new Identity(all, all.hashCode());
    }

    /** All of a study, hashed once: it stands in many keys. */
    private record Identity(List<Object> of, int hash) {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == this || other instanceof Identity i && hash == i.hash && of.equals(i.of);
        }

        @Override
        public int hashCode() {
            return hash;
        }
    }

    /** Tables of references that can be read, so that a changed file counts. */
    private List<Table> tables() {
        List<Table> out = new ArrayList<>();
        for (Source s : study.sources()) {
            for (String file : s instanceof Source.Reference r ? r.files() : List.<String>of()) {
                try {
                    out.add(library.table(file, study.recipes()));
                } catch (LaneException e) {
                    // Whoever reads it is told why it cannot be.
                }
            }
        }
        return out;
    }

    /** The same for threads besides the evaluator's: what it makes is kept on its own. */
    StudyBeyond apart() {
        var keep = BoundedMemo.share(0.05);
        return new StudyBeyond(study, runs, library, new StationResolver(library, keep), keep, Work.QUIET);
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

    /** Whether one of the names may be that of a number of a reading. */
    static boolean namesReading(Study study, Set<String> names) {
        return study.readings().stream().flatMap(r -> r.numbers().stream()).anyMatch(names::contains);
    }

    @Override
    public List<String> names() {
        return study.readings().stream().flatMap(r -> r.numbers().stream()).toList();
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
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(s -> s.name().equals(lane) || s.id().equals(lane))
                .findFirst()
                .map(s -> new AnswerScope(new Answering(study, s, library, at), lens))
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
        return study.readings().stream()
                .filter(r -> r.numbers().contains(name))
                .findFirst()
                .map(r -> Unit.of(r.unit()));
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

    private record StepKey(Object run, List<Object> depends, String kind, Object other) {}

    @Override
    public Field step(Run run, Scope.Step step, EvaluationContext lens) {
        try {
            return switch (step) {
                case Scope.Step.Gradient g -> gradient(run, g, lens);
                case Scope.Step.Jump j -> jump(run, j, lens);
                // Of a run on the same mesh a formula is computed in place, and of another one at places.
                case Scope.Step.OfLane o ->
                    throw new Scope.Trouble("There is no lane \"" + o.lane() + "\" to take it from; the lanes are "
                            + String.join(", ", lanes()) + ".");
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
            return new InRun(name, other, BoundQuantity.of(other, body(step.body(), step.frame()), lens), lens.axis());
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

    /** The body of a step as a quantity of its own. */
    private static Quantity body(Node node, String frame) {
        Node seen = new Node.Call(Compiler.SEEN, List.of(node), node.span(), node.span());
        Node framed = frame.isEmpty() ? node : new Node.InFrame(seen, frame, node.span(), node.span());
        return new Quantity("~", "~", Printer.text(framed), "", "");
    }

    /** A computed field, known by what it was computed from, so that it may be let go of and made again. */
    private Field kept(StepKey key, Supplier<Field> make) {
        return memo.of(key, make).named(key);
    }

    private static Field field(String name, double[][] components, boolean byNode) {
        int c = components.length;
        double[] all = new double[c * components[0].length];
        for (int k = 0; k < c; k++) {
            for (int i = 0; i < components[k].length; i++) {
                all[i * c + k] = components[k][i];
            }
        }
        return new Field(name, byNode ? Field.At.NODE : Field.At.CELL, c, Unit.ONE, Values.of(all));
    }

    @Override
    public List<Provenance.Input> inputs(Run run, Scope.Step step, EvaluationContext lens) {
        Run on = on(run, step);
        if (on == null) {
            return List.of();
        }
        Set<Provenance.Input> all = new LinkedHashSet<>(on == run ? List.of() : on.inputs());
        all.addAll(BoundQuantity.of(on, body(step.body(), step.frame()), lens).inputs());
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
        BoundQuantity.of(on, body(step.body(), step.frame()), lens)
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
                .map(this::input)
                .flatMap(List::stream)
                .toList();
    }

    private List<Provenance.Input> input(String file) {
        try {
            return List.of(library.table(file, study.recipes()).input());
        } catch (LaneException e) {
            // Whoever reads it is told why it cannot be.
            return List.of();
        }
    }

    @Override
    public List<Provenance.Input> tableInputs(String name) {
        return input(tableFile(name));
    }

    @Override
    public Field wallDistance(Run run) {
        return kept(new StepKey(run.key(), List.of(), "wall distance", ""), () -> lane.cut.WallDistance.of(run));
    }

    private Field jump(Run run, Scope.Step.Jump j, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, body(j.body(), j.frame()), lens);
        return kept(new StepKey(run.key(), List.of(ready.depends()), "jump", Printer.text(j.body())), () -> {
            double[] v = ready.values(SamplePoints.cells(run))[0];
            return new Field(
                    "jump of " + Printer.text(j.body()),
                    Field.At.CELL,
                    1,
                    Unit.ONE,
                    Values.of(Neighbours.of(run.mesh()).greatest(v)));
        });
    }

    private Field gradient(Run run, Scope.Step.Gradient g, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, body(g.body(), g.frame()), lens);
        return kept(new StepKey(run.key(), List.of(ready.depends()), "grad", ""), () -> {
            Field f = field("body", ready.onMesh(), ready.byNode());
            double[] v = ((Values.Doubles) f.values()).array();
            int c = f.components();
            double[] made = ready.byNode()
                    ? Gradient.atNodes(run.mesh(), v, c)
                    : Gradient.inCells(run.mesh(), v, c, boundary(run, ready, g, lens));
            String name = "gradient of " + Printer.text(g.body());
            return new Field(name, f.at(), 3 * c, Unit.ONE, Values.of(made));
        });
    }

    /** Values on the faces of parts that have the fields themselves. */
    private Gradient.OnBoundary boundary(Run run, BoundQuantity ready, Scope.Step.Gradient g, EvaluationContext lens) {
        List<int[]> owners = new ArrayList<>();
        List<double[]> xyz = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        int c = ready.type().components();
        for (Part part : run.parts()) {
            boolean own =
                    ready.fields().stream().allMatch(f -> part.field(f.name()).isPresent());
            if (!own || part.unmatched() > 0) {
                continue;
            }
            BoundQuantity there = BoundQuantity.of(run, part, body(g.body(), g.frame()), lens);
            double[][] v = there.onFaces(part);
            owners.add(part.owner());
            double[] places = new double[3 * part.owner().length];
            double[] all = new double[c * part.owner().length];
            var cell = new lane.mesh.Cell(part.surface());
            double[] m = new double[3];
            for (int f = 0; f < part.owner().length; f++) {
                cell.load(f).centre(m);
                System.arraycopy(m, 0, places, 3 * f, 3);
                for (int k = 0; k < c; k++) {
                    all[f * c + k] = v[k][f];
                }
            }
            xyz.add(places);
            values.add(all);
        }
        return new Gradient.OnBoundary(
                owners.stream().flatMapToInt(Arrays::stream).toArray(),
                xyz.stream().flatMapToDouble(Arrays::stream).toArray(),
                values.stream().flatMapToDouble(Arrays::stream).toArray());
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
                both(made.trail(), weight.trail()));
    }

    private static Provenance both(Provenance a, Provenance b) {
        List<Provenance.Step> steps = new ArrayList<>(a.steps());
        steps.addAll(b.steps());
        return new Provenance(a.with(b).inputs(), steps);
    }

    private Tally number(Run run, Node.Reduction r, Node body, String frame, EvaluationContext lens) {
        Quantity q =
                new Quantity("~ " + Printer.text(body), "~", body(body, frame).formula(), "", "");
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
        if (formed || graph.beyond(q) || namesReading(study, leaves)) {
            all.add(identity);
        }
        return all;
    }

    private ReadingContext context(Run run, EvaluationContext lens) {
        return new ReadingContext(
                run, lens, places, id -> study.station(id).orElse(null), memo, work, Provenance.EMPTY);
    }

    @Override
    public Scope.Table table(String name, String column) {
        try {
            return columns(library.table(tableFile(name), study.recipes()), column);
        } catch (LaneException e) {
            throw new Scope.Trouble(e);
        }
    }

    private String tableFile(String name) {
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(s -> s.name().equals(name) || s.id().equals(name))
                .flatMap(s -> s.files().stream())
                .findFirst()
                .or(() -> study.sources().stream()
                        .filter(Source.Reference.class::isInstance)
                        .flatMap(s -> ((Source.Reference) s).files().stream())
                        .filter(f -> f.equals(name)
                                || f.replaceAll(".*/", "")
                                        .replaceAll("\\.[^.]*$", "")
                                        .equals(name))
                        .findFirst())
                .orElseThrow(() -> new Scope.Trouble("There is no table \"" + name
                        + "\"; name a reference of the study, or one of its files without its ending."));
    }

    private static Scope.Table columns(Table table, String column) {
        List<String> names = table.headers();
        if (names.size() < 2) {
            throw new Scope.Trouble("The table has fewer than two columns of numbers.");
        }
        String value = column.isEmpty() ? names.get(1) : column;
        Unit xUnit =
                table.unit(names.getFirst(), "").isEmpty() ? Unit.UNKNOWN : Unit.of(table.unit(names.getFirst(), ""));
        Unit yUnit = table.unit(value, "").isEmpty() ? Unit.UNKNOWN : Unit.of(table.unit(value, ""));
        double[] x = table.column(names.getFirst());
        double[] y = table.column(value);
        int[] rows = java.util.stream.IntStream.range(0, table.rows())
                .filter(i -> Double.isFinite(x[i]) && Double.isFinite(y[i]))
                .boxed()
                .sorted(java.util.Comparator.comparingDouble(i -> x[i]))
                .mapToInt(i -> i)
                .toArray();
        if (rows.length == 0) {
            throw new Scope.Trouble("The table has no row with numbers in both columns.");
        }
        return new Scope.Table(
                Arrays.stream(rows).mapToDouble(i -> xUnit.toSi(x[i])).toArray(),
                Arrays.stream(rows).mapToDouble(i -> yUnit.toSi(y[i])).toArray(),
                Type.of(1, xUnit),
                Type.of(1, yUnit));
    }

    @Override
    public @Nullable Found reading(Run run, String name, EvaluationContext lens) {
        for (Reading r : study.readings()) {
            int at = r.numbers().indexOf(name);
            if (at >= 0) {
                Outcome made = outcome(run, r, lens);
                if (made.numbers().size() <= at) {
                    throw new Scope.Trouble(
                            made instanceof Outcome.Absent a ? a.reason() : "\"" + name + "\" is no number here.");
                }
                var number =
                        new Meaning.Known(new double[] {made.numbers().get(at).value()}, Type.of(1, made.unit()));
                return new Found(number, remark(r, made), made.trail());
            }
        }
        return null;
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
