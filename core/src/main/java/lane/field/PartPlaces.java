package lane.field;

import lane.base.Sum;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** Places of a part that stations and frames are put at. */
public final class PartPlaces {
    private PartPlaces() {}

    /** The centroid of its faces; of the edges of a plane run by their length. */
    public static Point centre(Part part) {
        Mesh m = part.surface();
        var rule = new FaceQuadrature(m, 2, new double[] {0, 0, 1});
        Sum[] sum = {new Sum(), new Sum(), new Sum(), new Sum()};
        for (int f = 0; f < m.cellCount(); f++) {
            rule.load(f);
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                double w = Math.sqrt(rule.nx() * rule.nx() + rule.ny() * rule.ny() + rule.nz() * rule.nz());
                sum[0].add(w * rule.x());
                sum[1].add(w * rule.y());
                sum[2].add(w * rule.z());
                sum[3].add(w);
            }
        }
        double s = sum[3].value();
        return s == 0 ? new Point(0, 0, 0) : new Point(sum[0].value() / s, sum[1].value() / s, sum[2].value() / s);
    }

    /** The mean normal, out of the run; null where the part is closed or has no area. */
    public static @Nullable Point normal(Part part) {
        var cell = new Cell(part.surface());
        double[] sum = new double[3];
        double area = 0;
        for (int f = 0; f < part.surface().cellCount(); f++) {
            if (part.surface().shape(f).dimension() != 2) {
                return null;
            }
            double[] n = CellMeasures.areaVector(cell.load(f));
            for (int d = 0; d < 3; d++) {
                sum[d] += n[d];
            }
            area += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        }
        var mean = new Point(sum[0], sum[1], sum[2]);
        return mean.norm() <= 1e-6 * area ? null : mean.unit();
    }

    /**
     * The node with the least or greatest coordinate.
     *
     * @param direction 0 for x, 1 for y, 2 for z
     */
    public static Point extreme(Part part, int direction, boolean greatest) {
        double[] x = part.surface().xyz();
        int best = -1;
        for (int n : part.surface().nodes()) {
            double v = x[3 * n + direction];
            if (best < 0 || (greatest ? v > x[3 * best + direction] : v < x[3 * best + direction])) {
                best = n;
            }
        }
        return best < 0 ? new Point(0, 0, 0) : new Point(x[3 * best], x[3 * best + 1], x[3 * best + 2]);
    }
}
