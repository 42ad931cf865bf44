package lane.field;

import lane.base.Sum;
import lane.mesh.Cell;
import lane.mesh.Measures;
import lane.mesh.Mesh;
import lane.mesh.Point;

/** Places of a part that stations and frames are put at. */
public final class PartPlaces {
    private PartPlaces() {}

    /** The mean of the middles of its faces, weighted by area; of their lengths for the edges of a plane run. */
    public static Point centre(Part part) {
        Mesh m = part.surface();
        var cell = new Cell(m);
        double[] c = new double[3];
        Sum[] sum = {new Sum(), new Sum(), new Sum(), new Sum()};
        for (int f = 0; f < m.cellCount(); f++) {
            double size = cell.load(f).measure();
            cell.centre(c);
            for (int d = 0; d < 3; d++) {
                sum[d].add(size * c[d]);
            }
            sum[3].add(size);
        }
        double s = sum[3].value();
        return s == 0 ? new Point(0, 0, 0) : new Point(sum[0].value() / s, sum[1].value() / s, sum[2].value() / s);
    }

    /** The mean normal, out of the run; null where the part is closed or has no area. */
    public static Point normal(Part part) {
        var cell = new Cell(part.surface());
        double[] sum = new double[3];
        double area = 0;
        for (int f = 0; f < part.surface().cellCount(); f++) {
            if (part.surface().shape(f).dimension() != 2) {
                return null;
            }
            double[] n = Measures.areaVector(cell.load(f));
            for (int d = 0; d < 3; d++) {
                sum[d] += n[d];
            }
            area += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        }
        var mean = new Point(sum[0], sum[1], sum[2]);
        return mean.norm() <= 1e-6 * area ? null : mean.unit();
    }

    /** The node with the least or greatest coordinate. @param direction 0 for x, 1 for y, 2 for z */
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
