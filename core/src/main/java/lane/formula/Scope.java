package lane.formula;

import java.util.List;
import lane.base.Fault;
import lane.base.LaneException;
import lane.mesh.Axis;
import org.jspecify.annotations.Nullable;

/**
 * What a formula sees: the names of a study, and in it of one run where it is computed. Bodies of formulas that are
 * computed elsewhere or as a whole (gradients, other lanes, means over stations) are handed over as trees.
 *
 * <p>Methods answer null or throw a {@link FormulaException} through {@link Trouble} for what is not there.
 */
public interface Scope {
    /** What a name stands for; null for nothing. */
    @Nullable
    Meaning meaning(String name);

    /** The stored values of a name, where a definition of the same name stands before them; null for none. */
    default @Nullable Meaning stored(String name) {
        return null;
    }

    /** What to say of a name without stored values that a definition of the same name needs. */
    default String lacks(String name) {
        return "There is no field \"" + name + "\" here.";
    }

    /** Names to suggest where one is wrong. */
    List<String> names();

    /** The study's axis for the blank name, else a frame's; null for none. */
    @Nullable
    Axis frame(String name);

    /** The time of the run in seconds; NaN for none. */
    double time();

    /** What a formula sees of another lane; null for no such lane. */
    default @Nullable Scope lane(String name) {
        return null;
    }

    /** What a formula sees of the run at another time, where it can be computed in place; null where it cannot. */
    default @Nullable Scope at(double time) {
        return null;
    }

    /** Whether names have values at any place, so that what is taken of this lane is computed where it is wanted. */
    default boolean anywhere() {
        return false;
    }

    /** What a step of another kind is asked for. */
    sealed interface Step {
        /** The formula it is about. */
        Node body();

        /** Its type. */
        Type type();

        /** The frame that it stands in; blank for none. */
        String frame();

        record Gradient(Node body, Type type, String frame) implements Step {}

        /** The greatest difference from the cells around, a value a cell. */
        record Jump(Node body, Type type, String frame) implements Step {}

        record OfLane(Node body, Type type, String frame, String lane) implements Step {}

        record AtTime(Node body, Type type, String frame, double time) implements Step {}
    }

    /**
     * Values of a step at every place.
     *
     * @throws Trouble with what is missing
     */
    Meaning.Stored step(Step step);

    /** 1 for curves, 2 for surfaces, 3 for regions, 0 for points; -1 if there is no such station. */
    int extent(String station);

    /**
     * One number a component over stations, in SI units; a component that has no value is NaN.
     *
     * @throws Trouble with what is missing
     */
    double[] reduce(Node.Reduction reduction, Type body, String frame);

    /** Two columns of a table, in SI units, ascending. */
    record Table(double[] x, double[] y, Type xType, Type yType) {}

    /**
     * A table by its name.
     *
     * @param column of its values; blank for the first after the abscissa
     * @throws Trouble with what is missing
     */
    Table table(String name, String column);

    /** Something that the scope does not have: a sentence without a place in the formula. */
    final class Trouble extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private final Fault fault;

        public Trouble(String sentence) {
            this(Fault.FORMULA, sentence);
        }

        public Trouble(Fault fault, String sentence) {
            super(sentence);
            this.fault = fault;
        }

        public Trouble(LaneException e) {
            this(e.fault(), e.getMessage());
        }

        public Fault fault() {
            return fault;
        }

        /** The sentence. */
        @Override
        public String getMessage() {
            return String.valueOf(super.getMessage());
        }
    }
}
