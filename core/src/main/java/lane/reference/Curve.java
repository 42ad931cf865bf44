package lane.reference;

import java.util.Optional;
import java.util.function.UnaryOperator;

/** What a reference answers to a profile or tally reading. */
public sealed interface Curve {
    /** Key of the reading it answers. */
    String reading();

    /** The file of the table it stands in, if it stands in one. */
    default Optional<String> table() {
        return Optional.empty();
    }

    /** The same with the path of its file, if it has one, as a function gives it. */
    default Curve withFile(UnaryOperator<String> path) {
        return this;
    }

    /**
     * A formula of the place. Coordinates x, y, z, radius r about the study's axis, distance s along the line, all in
     * metres, the time in seconds where the study looks at one, and the source's constants.
     */
    record ByFormula(String reading, String formula, String unit) implements Curve {
        public ByFormula {
            Formula.of(formula);
            lane.unit.Unit.of(unit);
        }
    }

    /**
     * Two columns of a table, for a profile.
     *
     * @param uncertainty of the values
     * @param abscissaUnit and {@code unit}: blank follows the file
     */
    record Columns(
            String reading,
            String file,
            String abscissa,
            String abscissaUnit,
            String value,
            String unit,
            ColumnUncertainty uncertainty)
            implements Curve {
        public Columns {
            uncertainty = uncertainty == null ? ColumnUncertainty.NONE : uncertainty;
        }

        @Override
        public Optional<String> table() {
            return Optional.of(file);
        }

        @Override
        public Columns withFile(UnaryOperator<String> path) {
            return of(path.apply(file));
        }

        /** The same columns of another file. */
        public Columns of(String other) {
            return new Columns(reading, other, abscissa, abscissaUnit, value, unit, uncertainty);
        }
    }

    /**
     * Mean of a column over a window of another, for a tally: for example a torque over the settled time. Its
     * uncertainty is the standard error from the means of ten batches, doubled.
     */
    record WindowMean(String reading, String file, String value, String unit, String along, double from, double to)
            implements Curve {
        @Override
        public Optional<String> table() {
            return Optional.of(file);
        }

        @Override
        public WindowMean withFile(UnaryOperator<String> path) {
            return of(path.apply(file));
        }

        /** The same mean of another file. */
        public WindowMean of(String other) {
            return new WindowMean(reading, other, value, unit, along, from, to);
        }
    }

    /**
     * A number computed by hand or elsewhere.
     *
     * @param value in the unit; where there is a formula, what the formula gives counts instead
     * @param uncertainty half-width in the unit, NaN or 0 for none
     * @param formula of the inputs, in SI units; blank for none
     * @param inputs what the formula was given
     */
    record HandValue(
            String reading,
            double value,
            String unit,
            double uncertainty,
            String note,
            String formula,
            java.util.List<Given> inputs)
            implements Curve {
        public HandValue {
            note = note == null ? "" : note;
            formula = formula == null ? "" : formula;
            inputs = inputs == null ? java.util.List.of() : java.util.List.copyOf(inputs);
            lane.unit.Unit.of(unit);
            if (!formula.isBlank()) {
                Formula.of(formula);
            }
        }

        public HandValue(String reading, double value, String unit, double uncertainty, String note) {
            this(reading, value, unit, uncertainty, note, "", java.util.List.of());
        }
    }

    /**
     * An input of a hand calculation.
     *
     * @param note where it comes from
     */
    record Given(String name, double value, String unit, String note) {
        public Given {
            note = note == null ? "" : note;
            lane.unit.Unit.of(unit);
        }
    }
}
