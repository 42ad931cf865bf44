package lane.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.evaluation.Anywhere;
import lane.evaluation.EvaluationContext;
import lane.formula.Bare;
import lane.formula.Compiler;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Scope;
import lane.formula.Type;
import lane.mesh.Axis;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reference.Answered;
import lane.reference.Curve;
import lane.station.Locus;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a formula sees of a theory or a measurement. Its names are those of readings that it answers, of the quantities of
 * such curves, and of its constants; other quantities are made of these. A formula that is the same for every reading of
 * a quantity counts at any place; one of several, one that counts along the line, and a table count on their stations.
 */
final class AnswerScope extends Bare {
    private final Answering answering;
    private final EvaluationContext lens;

    AnswerScope(Answering answering, EvaluationContext lens) {
        this.answering = answering;
        this.lens = lens;
    }

    @Override
    public boolean anywhere() {
        return true;
    }

    private Source.Reference reference() {
        return answering.reference();
    }

    @Override
    public @Nullable Meaning meaning(String name) {
        try {
            List<Reading> own = answered(r -> r.name().equals(name));
            List<Reading> asked = own.isEmpty() ? answered(r -> isOf(r, name)) : own;
            if (!asked.isEmpty()) {
                return asked.stream().allMatch(Reading::curve) ? curves(asked) : number(asked.getFirst());
            }
        } catch (LaneException e) {
            throw new Trouble(e);
        }
        Quantity q = lens.definitions().named(name).orElse(null);
        Node tree = q == null ? null : lens.definitions().tree(q);
        boolean own = tree instanceof Node.Name n && n.name().equals(name);
        if (q != null && tree != null && !own) {
            return new Meaning.Defined(q.name(), tree, Unit.of(q.unit()));
        }
        Double constant = reference().constants().get(name);
        if (constant != null) {
            return new Meaning.Known(new double[] {constant}, Type.of(1, Unit.UNKNOWN));
        }
        if (Compiler.builtIn(name)) {
            return null;
        }
        List<String> names = names();
        throw new Trouble(reference().name() + " says nothing about \"" + name + "\""
                + (names.isEmpty() ? "" : "; it knows " + Plain.names(names)) + ".");
    }

    private List<Reading> answered(java.util.function.Predicate<Reading> which) {
        return answering.study().readings().stream()
                .filter(which)
                .filter(r -> answering.curve(r).isPresent())
                .toList();
    }

    /** Whether a curve shows a quantity itself: along a line, or the mean over sections or along an axis. */
    private boolean isOf(Reading reading, String name) {
        return shown(reading)
                .map(lens::quantity)
                .filter(q -> q.id().equals(name) || q.name().equals(name) || isField(q, name))
                .isPresent();
    }

    /** Whether a quantity is a field under another name. */
    private boolean isField(Quantity q, String field) {
        return lens.definitions().tree(q) instanceof Node.Name n && n.name().equals(field);
    }

    private static Optional<String> shown(Reading reading) {
        return reading.ask().shows();
    }

    private Meaning number(Reading reading) {
        Outcome o = answering.of(reading, answering.curve(reading).orElseThrow());
        if (o.numbers().isEmpty()) {
            throw new Trouble(o instanceof Outcome.Absent a ? a.reason() : "It is no number.");
        }
        return new Meaning.Known(
                new double[] {o.numbers().getFirst().value()},
                Type.of(1, o.unit().si()));
    }

    private Meaning curves(List<Reading> asked) {
        List<Curve> curves =
                asked.stream().map(r -> answering.curve(r).orElseThrow()).toList();
        boolean one = curves.stream()
                        .map(c -> c instanceof Curve.ByFormula f ? f.formula() + "\0" + f.unit() : null)
                        .distinct()
                        .count()
                == 1;
        if (one && curves.getFirst() instanceof Curve.ByFormula f && !Answered.alongTheLine(f)) {
            return stored(List.of(formula(f, null)), Unit.of(f.unit()).si());
        }
        List<Answered.Piece> pieces = new ArrayList<>();
        Unit unit = null;
        for (int i = 0; i < curves.size(); i++) {
            Station on = answering.station(asked.get(i));
            Unit own;
            if (curves.get(i) instanceof Curve.ByFormula f) {
                pieces.add(formula(f, on));
                own = Unit.of(f.unit()).si();
            } else {
                Profile p = answering.of(asked.get(i), curves.get(i)).curve().orElseThrow();
                pieces.add(new Answered.Points(
                        p.trail().inputs().isEmpty()
                                ? reference().name()
                                : p.trail().inputs().getFirst().path(),
                        on.geometry(),
                        axis(),
                        p.abscissa(),
                        p.value()));
                own = p.unit().si();
            }
            Locus.of(on, axis());
            if (unit != null && !unit.dimension().equals(own.dimension())) {
                throw new Trouble(reference().name() + " gives it in " + unit.label() + " and in " + own.label()
                        + "; take one of its readings by name.");
            }
            unit = own;
        }
        return stored(pieces, Objects.requireNonNull(unit));
    }

    private Answered.Piece formula(Curve.ByFormula f, @Nullable Station on) {
        if (!Unit.of(f.unit()).known()) {
            throw new Trouble("The unit of formula \"" + f.formula() + "\" is not known; state it at Intake.");
        }
        return Answered.formula(
                f, reference().constants(), answering.time(), on == null ? null : on.geometry(), axis());
    }

    private Axis axis() {
        return answering.study().axis();
    }

    private Meaning stored(List<Answered.Piece> pieces, Unit unit) {
        Anywhere values = new Answered(reference().name(), pieces);
        return new Meaning.Stored(values, 1, unit);
    }

    @Override
    public List<String> names() {
        Stream<String> readings = answered(r -> true).stream()
                .flatMap(r ->
                        Stream.concat(shown(r).map(lens::quantity).map(Quantity::name).stream(), Stream.of(r.name())));
        return Stream.concat(readings, reference().constants().keySet().stream())
                .distinct()
                .collect(Collectors.toList());
    }

    @Override
    public @Nullable Axis frame(String name) {
        return name.isEmpty() ? axis() : lens.beyond().frame(name);
    }

    @Override
    public double time() {
        return answering.time();
    }

    @Override
    public @Nullable Scope lane(String name) {
        return lens.beyond().reference(name, answering.time(), lens);
    }

    @Override
    public Table table(String name, String column) {
        return lens.beyond().table(name, column);
    }

    @Override
    public Meaning.Stored step(Step step) {
        throw new Trouble(reference().name() + " has no mesh: write the gradient, run or time outside of \"of "
                + reference().name() + "\".");
    }

    @Override
    public int extent(String station) {
        return lens.beyond().extent(station);
    }

    @Override
    public double[] reduce(Node.Reduction reduction, Type body, String frame) {
        throw new Trouble(
                reference().name() + " has no mesh to take a " + reduction.kind() + " of; use the name of a reading.");
    }
}
