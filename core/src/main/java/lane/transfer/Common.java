package lane.transfer;

/**
 * What two meshes have in common.
 *
 * @param share of each target cell that lies in the source, 0 to 1
 * @param overlap volume, or area of plane meshes
 * @param uncovered volume of the target that lies outside of the source
 * @param partly number of target cells that lie in the source in part
 */
public record Common(double[] share, double overlap, double uncovered, int partly) {
    /** Shares this close to 0 or 1 are these. */
    static final double SURE = 1e-9;

    static Common of(double[] covered, double[] size) {
        double[] share = new double[size.length];
        var in = new lane.base.Sum();
        var out = new lane.base.Sum();
        int partly = 0;
        for (int c = 0; c < size.length; c++) {
            double s = size[c] > 0 ? covered[c] / size[c] : 0;
            share[c] = s < SURE ? 0 : s > 1 - SURE ? 1 : s;
            partly += share[c] > 0 && share[c] < 1 ? 1 : 0;
            in.add(covered[c]);
            // What a cell lacks by round-off is no gap.
            out.add(share[c] == 1 ? 0 : size[c] - covered[c]);
        }
        return new Common(share, in.value(), out.value(), partly);
    }
}
