package lane.evaluation;

import java.util.List;
import lane.field.Run;
import lane.station.Placement;

/**
 * Samples of a path or points with their values, put together from the pieces of a run: each sample is that of the piece in
 * which it lies, the first of several; one beside the run by rounding that of the piece that it is nearest to.
 *
 * @param placement which samples were found, and how far beside; its cells and stencil mean nothing where the run is in pieces
 * @param values one a sample, for each quantity or component
 */
public record PieceSamples(Placement placement, double[][] values) {
    /** @param what tells these values from others at the same samples, by value */
    public static PieceSamples of(Run run, Object what, Placement own, double[][] values) {
        return run.gather().whole()
                ? new PieceSamples(own, values)
                : run.gather()
                        .of(List.of("samples", what), () -> new PieceSamples(own, values), PieceSamples::together);
    }

    private static PieceSamples together(List<PieceSamples> all) {
        Placement first = all.getFirst().placement;
        int n = first.size();
        int[] cell = new int[n];
        double[] miss = new double[n];
        double[][] values = new double[all.getFirst().values.length][n];
        for (int i = 0; i < n; i++) {
            PieceSamples from = null;
            for (PieceSamples one : all) {
                if (one.placement.cell()[i] >= 0
                        && (from == null
                                || one.placement.miss()[i] < from.placement.miss()[i])) {
                    from = one;
                }
            }
            cell[i] = from == null ? -1 : 0;
            miss[i] = from == null ? 0 : from.placement.miss()[i];
            for (int k = 0; k < values.length; k++) {
                values[k][i] = from == null ? Double.NaN : from.values[k][i];
            }
        }
        return new PieceSamples(
                new Placement(
                        first.xyz(),
                        first.arc(),
                        first.weight(),
                        cell,
                        new int[n + 1],
                        new int[0],
                        new double[0],
                        miss),
                values);
    }
}
