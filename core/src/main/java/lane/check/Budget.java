package lane.check;

import java.util.List;

/**
 * What the uncertainty of a difference is made of: standard uncertainties in SI units, independent of each other.
 *
 * @param rows one a component
 */
public record Budget(List<Row> rows) {
    public static final Budget EMPTY = new Budget(List.of());

    /**
     * @param component what it is: {@code numerical}, {@code measured}, an input by its name
     * @param from where it comes from: a lane's key, or how it was found
     */
    public record Row(String component, String from, double standard) {}

    public Budget {
        rows = List.copyOf(rows);
    }

    /** All together, by the root of their squares. */
    public double combined() {
        double sum = 0;
        for (Row r : rows) {
            sum = Math.hypot(sum, r.standard);
        }
        return sum;
    }

    /** The share of a component in the square of all. */
    public double share(Row row) {
        double all = combined();
        return all == 0 ? 0 : row.standard * row.standard / (all * all);
    }
}
