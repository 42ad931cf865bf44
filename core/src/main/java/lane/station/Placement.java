package lane.station;

import lane.field.Field;
import lane.mesh.Point;

/**
 * A line resolved on one mesh: sample places, and a sparse stencil that is applied to every field. Made once, used often.
 *
 * @param xyz sample places in metres, three to a sample (as asked for, not as moved)
 * @param arc distance from end A in metres
 * @param weight share of the line's length in metres that a sample stands for; their sum is the covered length
 * @param cell the cell of each sample, or -1 where it is absent
 * @param start where a sample's entries begin in {@code node} and {@code share}; one more entry than samples
 * @param node node numbers of the stencil
 * @param share interpolation weights of the stencil, summing to 1 a sample
 * @param miss how far each sample was moved onto the boundary, in metres; 0 for one in a cell
 */
public record Placement(
        double[] xyz,
        double[] arc,
        double[] weight,
        int[] cell,
        int[] start,
        int[] node,
        double[] share,
        double[] miss) {
    public int size() {
        return cell.length;
    }

    /** Number of samples that found a cell. */
    public int found() {
        int n = 0;
        for (int c : cell) {
            n += c >= 0 ? 1 : 0;
        }
        return n;
    }

    /** Number of samples that were moved onto the boundary. */
    public int moved() {
        int n = 0;
        for (double m : miss) {
            n += m > 0 ? 1 : 0;
        }
        return n;
    }

    /** The largest such move, in metres. */
    public double largestMove() {
        double most = 0;
        for (double m : miss) {
            most = Math.max(most, m);
        }
        return most;
    }

    public Point place(int i) {
        return new Point(xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]);
    }

    /**
     * One component of a field at all samples: nodes by shape functions, cells as stored.
     *
     * @return one value a sample; NaN where the sample is absent (look at {@code cell}, a stored NaN looks the same)
     */
    public double[] apply(Field field, int component) {
        double[] out = new double[size()];
        int c = field.components();
        for (int i = 0; i < out.length; i++) {
            if (cell[i] < 0) {
                out[i] = Double.NaN;
            } else if (field.at() == Field.At.CELL) {
                out[i] = field.values().get(cell[i] * c + component);
            } else {
                double v = 0;
                for (int k = start[i]; k < start[i + 1]; k++) {
                    v += share[k] * field.values().get(node[k] * c + component);
                }
                out[i] = v;
            }
        }
        return out;
    }
}
