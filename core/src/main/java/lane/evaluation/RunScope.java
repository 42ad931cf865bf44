package lane.evaluation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Near;
import lane.base.Plain;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.formula.Compiler;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Scope;
import lane.formula.Spot;
import lane.formula.Type;
import lane.mesh.Axis;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** What names mean on a run. */
class RunScope implements Scope {
    final Run run;
    private final @Nullable Part part;
    final EvaluationContext lens;
    private boolean inUnitsOfFile;
    private boolean alone = true;
    private @Nullable RunScope raw;
    /** Files that were reached; of one compilation with all that it needs. */
    Set<Provenance.Input> inputs = new LinkedHashSet<>();
    /** What was found out about what was reached; likewise. */
    Set<String> remarks = new LinkedHashSet<>();
    /** What was reached beyond the place, with its definition; likewise. */
    Map<String, Object> reached = new LinkedHashMap<>();

    RunScope(Run run, @Nullable Part part, EvaluationContext lens) {
        this.run = run;
        this.part = part;
        this.lens = lens;
    }

    /** What it sees beyond the fields of its run. */
    private Beyond beyond() {
        alone = false;
        return lens.beyond();
    }

    /** Whether nothing was looked for but the fields of its run. */
    boolean alone() {
        return alone && (raw == null || raw.alone);
    }

    /** The same with fields in the units of the file. */
    RunScope raw() {
        var out = new RunScope(run, part, lens);
        out.inUnitsOfFile = true;
        raw = out;
        out.inputs = inputs;
        out.remarks = remarks;
        out.reached = reached;
        return out;
    }

    Optional<Field> field(String name) {
        return BoundQuantity.fieldOf(run, part, name);
    }

    @Override
    public @Nullable Meaning meaning(String name) {
        Quantity q = lens.definitions().named(name).orElse(null);
        if (q != null) {
            Node tree = lens.definitions().tree(q);
            if (tree == null) {
                throw new Trouble("Quantity \"" + name + "\" has a formula that cannot be read; correct it first.");
            }
            return new Meaning.Defined(q.name(), tree, inUnitsOfFile ? Unit.UNKNOWN : Unit.of(q.unit()));
        }
        Meaning stored = stored(name);
        if (stored != null) {
            return stored;
        }
        if (name.equals(Spot.WALL_DISTANCE.word())) {
            return wallDistance();
        }
        Meaning reading = reading(name);
        if (reading == null && !Compiler.builtIn(name)) {
            throw new Trouble(Fault.MISSING_FIELD, lacks(name));
        }
        return reading;
    }

    @Override
    public String lacks(String name) {
        String near =
                Near.of(name, names()).map(n -> "is \"" + n + "\" meant? The").orElse("the");
        return "There is no field \"" + name + "\" here; " + near + " run has "
                + Plain.names(run.fields().stream().map(Field::name).toList()) + ".";
    }

    /** What a number that was computed for the formula rests on is what the formula rests on. */
    private void reached(String what, Provenance trail) {
        inputs.addAll(trail.inputs());
        List<Object> steps = new ArrayList<>();
        trail.steps().forEach(s -> steps.add(s.settings()));
        reach(what, steps);
    }

    /** Two of one kind over the same stations differ in what is under them: neither takes the other's place. */
    private void reach(String what, Object how) {
        String name = what;
        for (int k = 2; reached.containsKey(name) && !how.equals(reached.get(name)); k++) {
            name = what + " (" + k + ")";
        }
        reached.put(name, how);
    }

    Meaning wallDistance() {
        try {
            run.gather().needsWhole("The distance to the wall");
            return new Meaning.Stored(beyond().wallDistance(run), 1, Unit.of("m"));
        } catch (LaneException e) {
            throw new Trouble(e);
        }
    }

    /** Of a piece of a run nothing is known of what lies beyond it. */
    private void needsWhole(String what) {
        try {
            run.gather().needsWhole(what);
        } catch (LaneException e) {
            throw new Trouble(e);
        }
    }

    Meaning.@Nullable Known reading(String name) {
        Beyond.Found found = run.gather().whole() ? beyond().reading(run, name, lens) : null;
        if (found == null) {
            if (beyond().names().contains(name)) {
                needsWhole("The number of the reading \"" + name + "\" within a formula");
            }
            return null;
        }
        reached("reading " + name, found.trail());
        if (!found.remark().isBlank()) {
            remarks.add(found.remark());
        }
        return found.number();
    }

    @Override
    public @Nullable Meaning stored(String name) {
        return field(name)
                .map(f -> new Meaning.Stored(
                        foreign ? f : new BoundQuantity.Stored(f.name()),
                        f.components(),
                        inUnitsOfFile ? Unit.ONE : lens.unit(run, f)))
                .orElse(null);
    }

    @Override
    public List<String> names() {
        List<String> out = new ArrayList<>(
                lens.quantities().values().stream().map(Quantity::name).toList());
        run.fields().forEach(f -> out.add(f.name()));
        out.addAll(beyond().names());
        return out;
    }

    @Override
    public @Nullable Axis frame(String name) {
        if (name.isEmpty()) {
            return lens.axis();
        }
        Axis found = beyond().frame(name);
        if (found != null) {
            reached.put("frame " + name, found);
        }
        return found;
    }

    @Override
    public double time() {
        return run.time();
    }

    @Override
    public @Nullable Scope lane(String name) {
        run.gather().needsWhole("What another lane holds at the same place");
        Run other = beyond().run(name);
        if (other == null) {
            inputs.addAll(beyond().inputs(name));
            return beyond().reference(name, run.time(), lens);
        }
        inputs.addAll(other.inputs());
        if (!Double.isNaN(other.time())) {
            reached.put("time of " + name, other.time());
        }
        return sharing(on(other), other);
    }

    @Override
    public @Nullable Scope at(double time) {
        run.gather().needsWhole("What the run holds at another time");
        Run other = beyond().at(run, time);
        if (other == null || !other.mesh().key().equals(run.mesh().key())) {
            return null;
        }
        inputs.addAll(other.inputs());
        reached.put("this run at " + time, other.time());
        return sharing(on(other), other);
    }

    private RunScope sharing(RunScope there, Run other) {
        there.inputs = inputs;
        there.remarks = remarks;
        there.reached = reached;
        there.foreign = foreign || other != run;
        there.inPlace = other == run || other.mesh().key().equals(run.mesh().key());
        return there;
    }

    /** The same on another run. */
    RunScope on(Run other) {
        return new RunScope(other, null, lens);
    }

    /** Whether the fields are those of another run than the one where the formula is computed. */
    private boolean foreign;

    @Override
    public boolean anywhere() {
        return inPlace;
    }

    /** Whether what is taken of this lane is computed in place: of the run itself, or of one on the same mesh. */
    private boolean inPlace;

    @Override
    public Meaning.Stored step(Step step) {
        needsWhole("What a formula takes from around the place or over time, such as a gradient,");
        inputs.addAll(beyond().inputs(run, step, lens));
        beyond().reached(run, step, lens).forEach(this::reach);
        Unit unit = step.type().unit().known() ? Unit.ONE : Unit.UNKNOWN;
        Anywhere places = beyond().places(run, step, lens);
        if (places != null) {
            return new Meaning.Stored(places, step.type().components(), unit);
        }
        Field made = beyond().step(run, step, lens);
        return new Meaning.Stored(made, made.components(), unit);
    }

    @Override
    public int extent(String station) {
        return beyond().extent(station);
    }

    @Override
    public double[] reduce(Node.Reduction reduction, Type body, String frame) {
        needsWhole("The " + reduction.kind() + " within a formula");
        Beyond.Reduced made = beyond().reduce(run, reduction, body, frame, lens);
        reached(
                reduction.kind() + " over "
                        + reduction.over().stream().map(p -> p.name()).collect(Collectors.joining(" + ")),
                made.trail());
        if (Part.lacking(made.coverage())) {
            remarks.add("Only " + Part.percent(made.coverage()) + " of "
                    + reduction.over().stream().map(p -> "\"" + p.name() + "\"").collect(Collectors.joining(", "))
                    + " lies in the run; the " + reduction.kind() + " over it knows nothing of the rest.");
        }
        return made.values();
    }

    @Override
    public Table table(String name, String column) {
        inputs.addAll(beyond().tableInputs(name));
        return beyond().table(name, column);
    }
}
