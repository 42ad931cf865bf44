package lane.reference;

import java.util.List;
import lane.base.LaneException;
import lane.trail.Trail;

/**
 * Measured or digitised columns.
 *
 * @param headers column names
 * @param units one a column as the file says, blank where it does not
 * @param columns numbers, NaN where missing; all of one length
 * @param recipe what was found out about the file, for people: separator, decimal mark, header lines
 */
public record Table(
        List<String> headers, List<String> units, List<double[]> columns, String recipe, Trail.Input input) {
    public Table {
        headers = List.copyOf(headers);
        units = List.copyOf(units);
        columns = List.copyOf(columns);
    }

    public int rows() {
        return columns.isEmpty() ? 0 : columns.getFirst().length;
    }

    /** @throws LaneException naming the columns there are */
    public double[] column(String header) {
        int i = headers.indexOf(header);
        if (i < 0) {
            throw new LaneException("The table " + input.path() + " has no column \"" + header + "\"; its columns are "
                    + String.join(", ", headers) + ".");
        }
        return columns.get(i);
    }

    /** The unit of a column: as the file says, or the given one if that is not blank. */
    public String unit(String header, String stated) {
        column(header);
        return stated.isBlank() ? units.get(headers.indexOf(header)) : stated;
    }
}
