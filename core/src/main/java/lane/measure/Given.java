package lane.measure;

import java.util.Locale;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.field.Run;
import lane.provenance.Method;
import lane.unit.Unit;

/**
 * A number that somebody typed: a pump's power, a heat that no field holds. It is the same in every lane, and is marked as typed
 * wherever it goes.
 *
 * @param value in the unit
 * @param source where it comes from, in words
 */
public record Given(double value, String unit, String source) implements Measure {

    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "given";
        }

        @Override
        public Class<Given> type() {
            return Given.class;
        }
    }

    public Given {
        unit = unit == null ? "" : unit;
        source = source == null ? "" : source.strip();
        if (!Double.isFinite(value)) {
            throw new LaneException("A typed value is a number; " + value + " is none.");
        }
        if (source.isEmpty()) {
            throw new LaneException(
                    "A typed value needs its source, such as a data sheet or a note; say where it is from.");
        }
    }

    @Override
    public String word() {
        return "typed value";
    }

    @Override
    public Method method() {
        return Method.TYPED;
    }

    @Override
    public boolean placeless() {
        return true;
    }

    @Override
    public Measured of(Run run, EvaluationContext lens) {
        Unit in = unit.isBlank() ? Unit.ONE : Unit.of(unit);
        return new Measured(in.toSi(value), in).also(String.format(Locale.ROOT, ", typed by hand; source: %s", source));
    }
}
