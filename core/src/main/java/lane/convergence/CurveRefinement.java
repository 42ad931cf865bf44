package lane.convergence;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * The same curve from three or more meshes, at the places of the finest one: a global order from the norms of its successive changes, and
 * with it a numerical uncertainty at each place. Orders at single places scatter wherever a change passes through zero, so they are told and
 * not counted upon (Celik et al. 2008).
 *
 * @param global what the norms of the changes say: root mean squares over the places, the finest three meshes
 * @param half numerical uncertainty at each place; NaN where a mesh has no value
 * @param order observed at each place; NaN where none can be told
 * @param oscillatory share of the places where the changes differ in sign
 */
public record CurveRefinement(Convergence global, double[] half, double[] order, double oscillatory) {
    /**
     * @param h sizes, finest first
     * @param values of each mesh at the same places, finest first
     */
    public static CurveRefinement of(double[] h, List<double[]> values, Refinement.Stated stated) {
        double[] fine = values.get(0);
        double[] medium = values.get(1);
        boolean two = values.size() == 2;
        double[] coarse = two ? medium : values.get(2);
        int[] known = IntStream.range(0, fine.length)
                .filter(i -> values.stream().allMatch(v -> Double.isFinite(v[i])))
                .toArray();
        double first = norm(fine, medium, known);
        double second = norm(medium, coarse, known);
        // A sequence whose changes are the norms has the order of the curve.
        double size = known.length == 0
                ? 0
                : Arrays.stream(known).mapToDouble(i -> Math.abs(fine[i])).max().orElse(0);
        double[] sequence =
                two ? new double[] {size, size + first} : new double[] {size, size + first, size + first + second};
        Convergence global = Refinement.of(Arrays.copyOf(h, sequence.length), sequence, stated);
        double[] half = new double[fine.length];
        double[] order = new double[fine.length];
        Arrays.fill(half, Double.NaN);
        Arrays.fill(order, Double.NaN);
        int swings = 0;
        boolean usable = !Double.isNaN(global.order());
        double grown = usable ? Math.pow(h[1] / h[0], stated.counted(global.order())) - 1 : Double.NaN;
        for (int i : known) {
            double change = medium[i] - fine[i];
            double before = coarse[i] - medium[i];
            swings += !two && change * before < 0 ? 1 : 0;
            if (usable) {
                half[i] = global.safety() * Math.abs(change) / grown;
            } else {
                double least = values.stream().mapToDouble(v -> v[i]).min().orElse(0);
                double most = values.stream().mapToDouble(v -> v[i]).max().orElse(0);
                half[i] = global.safety() * (most - least);
            }
            if (!two) {
                Convergence one =
                        Refinement.of(Arrays.copyOf(h, 3), new double[] {fine[i], medium[i], coarse[i]}, stated);
                order[i] = one.order();
            }
        }
        return new CurveRefinement(
                global, half, order, known.length == 0 ? Double.NaN : (double) swings / known.length);
    }

    private static double norm(double[] a, double[] b, int[] at) {
        double sum = 0;
        for (int i : at) {
            sum += (a[i] - b[i]) * (a[i] - b[i]);
        }
        return at.length == 0 ? 0 : Math.sqrt(sum / at.length);
    }
}
