package lane.evaluation;

import java.util.Optional;
import lane.base.Plain;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Scope;
import lane.formula.Type;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The same for checking: fields of parts are known, and nothing is computed. */
final class CheckingScope extends RunScope {
    CheckingScope(Run run, EvaluationContext lens) {
        super(run, null, lens);
    }

    @Override
    RunScope on(Run other) {
        return new CheckingScope(other, lens);
    }

    @Override
    public @Nullable Scope at(double time) {
        // Nothing is read for checking.
        return null;
    }

    @Override
    Optional<Field> field(String name) {
        return super.field(name).or(() -> run.parts().stream()
                .flatMap(p -> p.field(name).stream())
                .findFirst());
    }

    @Override
    Meaning.@Nullable Known reading(String name) {
        return lens.beyond()
                .readingUnit(name)
                .map(u -> new Meaning.Known(new double[] {Double.NaN}, Type.of(1, u)))
                .orElse(null);
    }

    @Override
    Meaning wallDistance() {
        return new Meaning.Stored("walls", 1, Unit.of("m"));
    }

    @Override
    public double time() {
        return 0;
    }

    @Override
    public Meaning.Stored step(Step step) {
        int c = step.type().components() * (step instanceof Step.Gradient ? 3 : 1);
        if (step instanceof Step.OfLane o && !lens.beyond().lanes().contains(o.lane())) {
            throw new Trouble("There is no lane \"" + o.lane() + "\" to take it from; the lanes are "
                    + Plain.names(lens.beyond().lanes()) + ".");
        }
        return new Meaning.Stored(step, c, step.type().unit().known() ? Unit.ONE : Unit.UNKNOWN);
    }

    @Override
    public double[] reduce(Node.Reduction reduction, Type body, String frame) {
        double[] out = new double[reduction.kind().equals("flow") ? 1 : body.components()];
        java.util.Arrays.fill(out, Double.NaN);
        return out;
    }
}
