package lane.cut;

import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.mesh.Point;

/** Plane sections, whole or limited; faces look along the plane's normal. */
public final class PlaneCut {
    private PlaneCut() {}

    /** The section of the cells of the highest dimension by the plane through a point, square to a normal. */
    public static Cut of(Mesh mesh, Point point, Point normal, Work work) {
        return Slicer.cut(mesh, Level.plane(mesh, point, normal), work);
    }

    /** The same with a locator of the mesh that is there already: only the cells near the plane are looked at. */
    public static Cut of(CellLocator locator, Point point, Point normal, Work work) {
        Point n = normal.unit();
        Mesh mesh = locator.mesh();
        return Slicer.cut(mesh, Level.plane(mesh, point, normal), locator.meeting(n, n.dot(point)), work);
    }

    /** What lies in a box. @param box least and greatest x, y and z in a frame, in metres */
    public static Cut within(Cut cut, double[] box, Axis frame) {
        Point[] along = {frame.zero(), frame.quarter(), frame.direction()};
        Cut out = cut;
        for (int d = 0; d < 3; d++) {
            for (int side = 0; side < 2; side++) {
                double bound = box[2 * d + side];
                if (Double.isInfinite(bound) || out.empty()) {
                    continue;
                }
                double[] x = out.surface().xyz();
                double zero = 1e-12 * out.surface().modelSize();
                double[] level = new double[out.surface().nodeCount()];
                for (int i = 0; i < level.length; i++) {
                    double at = (x[3 * i] - frame.origin().x()) * along[d].x()
                            + (x[3 * i + 1] - frame.origin().y()) * along[d].y()
                            + (x[3 * i + 2] - frame.origin().z()) * along[d].z();
                    double v = side == 0 ? at - bound : bound - at;
                    level[i] = Math.abs(v) <= zero ? 0 : v;
                }
                out = Clip.keep(out, level);
            }
        }
        return out;
    }

    /** The connected piece nearest to a place. */
    public static Cut nearest(Cut cut, Point place) {
        if (cut.empty()) {
            return cut;
        }
        int[] piece = cut.pieces();
        double best = Double.POSITIVE_INFINITY;
        int wanted = 0;
        for (int f = 0; f < piece.length; f++) {
            double d = Distance.toFace(cut.surface(), f, place);
            if (d < best) {
                best = d;
                wanted = piece[f];
            }
        }
        int chosen = wanted;
        return cut.pick(java.util.stream.IntStream.range(0, piece.length)
                .filter(f -> piece[f] == chosen)
                .toArray());
    }
}
