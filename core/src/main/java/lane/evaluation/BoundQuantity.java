package lane.evaluation;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.formula.Compiler;
import lane.formula.FormulaException;
import lane.formula.Node;
import lane.formula.Program;
import lane.formula.Spot;
import lane.formula.Type;
import lane.mesh.Axis;
import lane.provenance.Provenance;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A quantity made ready to be computed on one run, or on a part of it that has fields of its own. Its program gives values
 * that become SI values by {@link #factor} and {@link #offset}: what is taken of one field alone is computed in the unit of
 * the file, so that stating another unit computes nothing again.
 */
public final class BoundQuantity {
    /** A stored field by its name. */
    record Stored(String name) {}

    private final Run run;
    private final @Nullable Part part;
    private final Quantity quantity;
    private final Type type;
    private final Program program;
    private final double factor;
    private final double offset;
    private final List<String> notes;
    private final Object key;
    private final List<Provenance.Input> inputs;
    private final Map<String, Object> reached;
    /** Whether the components of a vector are along a frame's directions. */
    private final boolean framed;

    private BoundQuantity(
            Run run,
            @Nullable Part part,
            Quantity quantity,
            Type type,
            Program program,
            double factor,
            double offset,
            List<String> notes,
            Object key,
            Set<Provenance.Input> inputs,
            Map<String, Object> reached,
            boolean framed) {
        this.framed = framed;
        this.run = run;
        this.part = part;
        this.quantity = quantity;
        this.type = type;
        this.program = program;
        this.factor = factor;
        this.offset = offset;
        this.notes = notes;
        this.key = key;
        this.inputs = List.copyOf(inputs);
        this.reached = Collections.unmodifiableMap(new LinkedHashMap<>(reached));
    }

    /** @throws LaneException with what the run lacks, or what is wrong in the formula */
    public static BoundQuantity of(Run run, Quantity quantity, EvaluationContext lens) {
        return of(run, null, quantity, lens);
    }

    /** @param part whose own fields come before those of the run; null for none */
    public static BoundQuantity of(Run run, @Nullable Part part, Quantity quantity, EvaluationContext lens) {
        BoundQuantity known = LatelyBound.find(run, part, quantity, lens);
        if (known != null) {
            return known;
        }
        var scope = new RunScope(run, part, lens);
        BoundQuantity made = of(scope, part, quantity, lens);
        if (scope.alone()) {
            LatelyBound.keep(made, lens);
        }
        return made;
    }

    private static BoundQuantity of(RunScope scope, @Nullable Part part, Quantity quantity, EvaluationContext lens) {
        Run run = scope.run;
        Definitions definitions = lens.definitions();
        try {
            Node tree = definitions.tree(quantity);
            if (tree == null) {
                // Tells what is wrong with it.
                tree = lane.formula.Parser.parse(quantity.formula());
            }
            String self = quantity.self();
            boolean piece = quantity.id().startsWith("~");
            Compiler.Compiled made = Compiler.compile(tree, scope, self, "", !piece);
            boolean framed = framed(tree, self, definitions, 0);
            Type type = shown(made.type(), quantity);
            List<String> notes = notes(made.notes(), type.unit(), scope.remarks);
            Field alone = alone(tree, self, scope, 0);
            if (alone != null && lens.unit(run, alone).known()) {
                Unit unit = lens.unit(run, alone);
                Program raw =
                        Compiler.compile(tree, scope.raw(), self, "", !piece).program();
                boolean whole = alone.components() == 1 && raw.components() == 1;
                Object key = List.of(raw.identity(), lens.axis());
                return new BoundQuantity(
                        run,
                        part,
                        quantity,
                        type,
                        raw,
                        unit.factor(),
                        whole ? unit.offset() : 0,
                        notes,
                        key,
                        scope.inputs,
                        scope.reached,
                        framed);
            }
            // What has no unit of its own has the one that was given to it.
            Unit given = Unit.of(quantity.unit());
            boolean assert1 = !made.type().unit().known() && given.known();
            Object key = List.of(made.program().identity(), lens.axis());
            return new BoundQuantity(
                    run,
                    part,
                    quantity,
                    type,
                    made.program(),
                    assert1 ? given.factor() : 1,
                    assert1 && type.components() == 1 ? given.offset() : 0,
                    notes,
                    key,
                    scope.inputs,
                    scope.reached,
                    framed);
        } catch (FormulaException e) {
            throw new LaneException(e.fault(), sentence(run, quantity, e, lens), e);
        }
    }

    /**
     * The degree of its values as a polynomial within a cell or face whose shape functions are linear; {@link
     * Program#NO_POLYNOMIAL} or more for none.
     */
    public int degree() {
        return program.degree(leaf -> {
            Field f = field(leaf);
            return f != null
                    ? f.at() == Field.At.NODE ? 1 : 0
                    : leaf.key() == Spot.PLACE
                            ? 1
                            : leaf.key() == Spot.FACE_AREA || leaf.key() == Spot.CELL_VOLUME
                                    ? 0
                                    : Program.NO_POLYNOMIAL;
        });
    }

    /**
     * What a formula would be on a run, without computing any of it.
     *
     * @param self name of the quantity that it defines; blank for none
     * @throws FormulaException with the wrong token
     */
    public static Compiler.Compiled check(Run run, String formula, String self, EvaluationContext lens) {
        return Compiler.compile(lane.formula.Parser.parse(formula), new CheckingScope(run, lens), self, "");
    }

    /** The type that a quantity has on a run, in its own unit; empty where the run cannot compute it. */
    public static Optional<Type> type(Run run, Quantity quantity, EvaluationContext lens) {
        try {
            return Optional.of(
                    shown(check(run, quantity.formula(), quantity.self(), lens).type(), quantity));
        } catch (FormulaException | LaneException e) {
            return Optional.empty();
        }
    }

    /** Whether a quantity is one number on a run, wherever it is asked; told by its formula, nothing is computed. */
    public static boolean single(Run run, Quantity quantity, EvaluationContext lens) {
        try {
            return check(run, quantity.formula(), quantity.self(), lens)
                    .program()
                    .leaves()
                    .isEmpty();
        } catch (FormulaException | LaneException e) {
            return false;
        }
    }

    private static String sentence(Run run, Quantity quantity, FormulaException e, EvaluationContext lens) {
        String all = quantity.formula().strip();
        if (run.field(all).isPresent()) {
            return "The name of the field " + all + " is no single word; write it in quotation marks: \"" + all + "\".";
        }
        if (e.fault() == Fault.MISSING_FIELD && !lens.quantities().containsKey(quantity.id())) {
            // Nobody defined it, so either may have been meant.
            return e.getMessage().replaceFirst("^There is no field", "There is no quantity and no field");
        }
        boolean own = e.fault() == Fault.MISSING_FIELD || quantity.id().startsWith("~");
        return own ? e.getMessage() : e.of(quantity.name());
    }

    /** The field that a formula takes something of, and nothing else; null for none. */
    private static @Nullable Field alone(Node node, String self, RunScope scope, int depth) {
        Node inner =
                switch (node) {
                    case Node.Member m -> m.of();
                    case Node.Call c
                    when c.function().equals("norm") && c.arguments().size() == 1 ->
                        c.arguments().getFirst();
                    default -> node;
                };
        if (!(inner instanceof Node.Name n) || depth > 20) {
            return null;
        }
        Quantity q = scope.lens.definitions().named(n.name()).orElse(null);
        if (q == null || n.name().equals(self)) {
            return scope.field(n.name()).orElse(null);
        }
        Node tree = q == null ? null : scope.lens.definitions().tree(q);
        return q == null || tree == null ? null : alone(tree, q.name(), scope, depth + 1);
    }

    /** Functions whose result is a number whatever they are given. */
    private static final Set<String> NUMBERS = Set.of("norm", "trace", "det", "component", "invariant", "equivalent");

    /** Whether a formula hands on a vector that was taken in a frame, also of another lane or time or as a mean. */
    private static boolean framed(Node node, String self, Definitions definitions, int depth) {
        if (depth == 50) {
            return false;
        }
        return switch (node) {
            // Numbers in brackets make a vector of space.
            case Node.InFrame f -> !(f.body() instanceof Node.Vector);
            case Node.Name n ->
                !n.name().equals(self)
                        && definitions
                                .named(n.name())
                                .map(q -> {
                                    Node tree = definitions.tree(q);
                                    return tree != null && framed(tree, q.self(), definitions, depth + 1);
                                })
                                .orElse(false);
            // What makes a number of a vector hands on none.
            case Node.Member _, Node.Vector _ -> false;
            case Node.Call c when NUMBERS.contains(c.function()) -> false;
            default -> node.parts().stream().anyMatch(p -> framed(p, self, definitions, depth + 1));
        };
    }

    /** The type in the quantity's own unit. */
    private static Type shown(Type type, Quantity quantity) {
        Unit unit = Unit.of(quantity.unit());
        if (!unit.known()) {
            return type;
        }
        if (!type.unit().known()) {
            return new Type(
                    type.components(), type.truth(), unit, Type.of(1, unit).points());
        }
        type.unit().requireComparable(unit, "Quantity \"" + quantity.name() + "\"");
        if (type.points() != 0 || unit.offset() == 0) {
            return new Type(type.components(), type.truth(), unit, type.points());
        }
        // A difference of temperatures is no point on a scale.
        return new Type(type.components(), type.truth(), unit.difference(), 0);
    }

    Run run() {
        return run;
    }

    @Nullable
    Part part() {
        return part;
    }

    public Quantity quantity() {
        return quantity;
    }

    /** Components and the unit it is shown in. */
    public Type type() {
        return type;
    }

    /** That it is shown in; of a difference of temperatures one that says so. */
    public Unit unit() {
        return type.points() == 0 ? type.unit().forInterval() : type.unit();
    }

    public Program program() {
        return program;
    }

    public double factor() {
        return factor;
    }

    public double offset() {
        return offset;
    }

    /** With how the unit was read, where some mean something else by it. */
    private static List<String> notes(List<String> made, Unit unit, Set<String> remarks) {
        List<String> out = new ArrayList<>(made);
        out.addAll(remarks);
        unit.doubt().ifPresent(out::add);
        return List.copyOf(out);
    }

    /** Files that its formula reaches besides those of the run: other lanes and times, theories, tables. */
    public List<Provenance.Input> inputs() {
        return inputs;
    }

    /**
     * What its formula reaches beyond the place, by what it is called: times of runs as they were really read, stations,
     * readings and frames with their definitions.
     */
    public Map<String, Object> reached() {
        return reached;
    }

    /** What should be known about units, in sentences. */
    public List<String> notes() {
        return notes;
    }

    /** Equal for what gives equal values from equal fields. */
    public Object key() {
        return key;
    }

    /** Equal for what gives equal SI values. */
    public Object depends() {
        return List.of(key, factor, offset, fields().stream().map(Field::stored).toList());
    }

    /** The single number of a quantity; a vector taken whole has none. */
    public BoundQuantity number() {
        if (type.components() != 1) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" has " + type.components()
                    + " components; take one of them or the magnitude.");
        }
        return this;
    }

    public BoundQuantity vector() {
        if (type.components() != 3) {
            throw new LaneException(
                    "Quantity \"" + quantity.name() + "\" has " + lane.base.Plain.count(type.components(), "component")
                            + "; a flow or a wall shear needs a vector of 3.");
        }
        if (framed) {
            throw new LaneException("Quantity \"" + quantity.name()
                    + "\" is taken in a frame, so its numbers are components along the frame's directions; a flow or a wall shear needs"
                    + " the vector as it stands in space.");
        }
        return this;
    }

    /** The field behind a leaf of the program; null for what every place has. */
    public @Nullable Field field(Program.Leaf leaf) {
        return switch (leaf.key()) {
            case Stored s -> fieldOf(run, part, s.name()).orElseThrow();
            case Field f -> f;
            default -> null;
        };
    }

    /** A field of a name: the part's own, or else the run's. */
    static Optional<Field> fieldOf(Run run, @Nullable Part part, String name) {
        Optional<Field> own = part == null ? Optional.empty() : part.field(name);
        return own.or(() -> run.field(name));
    }

    /** Fields that it is made of. */
    public List<Field> fields() {
        List<Field> out = new ArrayList<>();
        for (Program.Leaf leaf : program.leaves()) {
            Field f = field(leaf);
            if (f != null && !out.contains(f)) {
                out.add(f);
            }
        }
        return out;
    }

    /** Whether it belongs to nodes: everything that it is made of does; else node values are taken to the cells. */
    public boolean byNode() {
        return fields().stream().allMatch(f -> f.at() == Field.At.NODE)
                && program.leaves().stream().noneMatch(l -> l.key() == Spot.CELL_VOLUME || l.key() == Spot.FACE_AREA);
    }

    /** What it takes of theories and measurements. */
    private List<Anywhere> anywhere() {
        return program.leaves().stream()
                .map(Program.Leaf::key)
                .filter(Anywhere.class::isInstance)
                .map(Anywhere.class::cast)
                .distinct()
                .toList();
    }

    /** Its only value in SI units where it is a constant; empty where it depends on the place. */
    public java.util.OptionalDouble constant() {
        if (!program.leaves().isEmpty() || program.components() != 1) {
            return java.util.OptionalDouble.empty();
        }
        Program.Bench bench = program.bench(1);
        bench.run(1);
        return java.util.OptionalDouble.of(factor * bench.result(0)[0] + offset);
    }

    /** Where its values come from, in words. */
    public String stand() {
        boolean node = fields().stream().anyMatch(f -> f.at() == Field.At.NODE);
        boolean cell = fields().stream().anyMatch(f -> f.at() == Field.At.CELL);
        return node && cell
                ? "node values interpolated, cell values as stored"
                : cell ? "cell values as stored" : "interpolated between nodes";
    }

    /** What it is made of, for trails. */
    public String made() {
        String made = java.util.stream.Stream.concat(
                        fields().stream().map(f -> "field " + f.name() + ", " + f.at().word()),
                        anywhere().stream().map(Anywhere::word))
                .collect(Collectors.joining("; "));
        return made.isEmpty() ? "no field" : made;
    }

    /** Where values are wanted. Called by several threads. */
    public interface Targets {
        int size();

        /**
         * Writes values of what a place has.
         *
         * @param field a component of it is wanted; null for {@code spot}
         */
        void load(@Nullable Field field, Object spot, int component, int from, int n, double[] into);
    }

    /** All components at all places, in SI units; NaN where something is absent. */
    public double[][] values(Targets points) {
        double[][] out = new double[program.components()][points.size()];
        Field[] fields = program.leaves().stream().map(this::field).toArray(Field[]::new);
        // Benches of a few blocks at a time, so that making one costs little.
        int many = 16 * Program.BLOCK;
        Parallel.forBlocks(points.size(), many, (block, begin, end) -> {
            Program.Bench bench = program.bench(Math.min(Program.BLOCK, end - begin));
            for (int from = begin; from < end; from += Program.BLOCK) {
                int n = Math.min(Program.BLOCK, end - from);
                double[][] place = null;
                for (int i = 0; i < fields.length; i++) {
                    Program.Leaf leaf = program.leaves().get(i);
                    if (leaf.key() instanceof Anywhere a) {
                        place = place == null ? places(points, from, n) : place;
                        a.at(leaf.component(), place[0], place[1], place[2], n, bench.leaf(i));
                    } else {
                        points.load(fields[i], leaf.key(), leaf.component(), from, n, bench.leaf(i));
                    }
                }
                bench.run(n);
                for (int c = 0; c < out.length; c++) {
                    double[] v = bench.result(c);
                    for (int i = 0; i < n; i++) {
                        out[c][from + i] = factor * v[i] + offset;
                    }
                }
            }
        });
        return out;
    }

    private static double[][] places(Targets points, int from, int n) {
        double[][] out = new double[3][n];
        for (int d = 0; d < 3; d++) {
            points.load(null, Spot.PLACE, d, from, n, out[d]);
        }
        return out;
    }

    /** All components on the run's mesh, at nodes or in cells, in SI units. */
    public double[][] onMesh() {
        return values(byNode() ? SamplePoints.nodes(run) : SamplePoints.cells(run));
    }

    /** All components on the faces of a part, in SI units. */
    public double[][] onFaces(Part of) {
        return values(SamplePoints.facesOf(run, of));
    }

    /**
     * All components at samples, in SI units; NaN where they are absent.
     *
     * @param turned see {@link SamplePoints#samples}
     */
    public double[][] at(lane.station.Placement placement, @Nullable Axis turned) {
        return values(SamplePoints.samples(run, placement, turned));
    }
}
