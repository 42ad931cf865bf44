package lane.reference;

/** What a reference answers to a profile or tally reading. */
public sealed interface Curve {
    /** Key of the reading it answers. */
    String reading();

    /**
     * A formula of the place. Coordinates x, y, z, radius r about the study's axis, distance s along the line, all in
     * metres, and the source's constants.
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
     * @param uncertainty column with the half-width of each value in the value's unit, or blank
     * @param abscissaUnit and {@code unit}: blank follows the file
     */
    record Columns(
            String reading,
            String file,
            String abscissa,
            String abscissaUnit,
            String value,
            String unit,
            String uncertainty)
            implements Curve {}

    /**
     * Mean of a column over a window of another, for a tally: for example a torque over the settled time. Its
     * uncertainty is the standard error from the means of ten batches, doubled.
     */
    record WindowMean(String reading, String file, String value, String unit, String along, double from, double to)
            implements Curve {}

    /** A number computed elsewhere. @param uncertainty half-width in the unit, NaN or 0 for none */
    record HandValue(String reading, double value, String unit, double uncertainty, String note) implements Curve {}
}
