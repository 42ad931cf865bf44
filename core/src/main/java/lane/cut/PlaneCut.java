package lane.cut;

import java.util.ArrayList;
import java.util.List;
import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

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

    /**
     * What lies in a box.
     *
     * @param box least and greatest x, y and z in a frame, in metres
     */
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

    /**
     * How much of a plane a box holds: an area, or with a second plane the length of the line where both meet.
     *
     * @param other normal of the plane of a plane run through {@code on}; null for a run with volume
     * @return infinity where the box is open along the plane
     */
    public static double size(
            Point point, Point normal, @Nullable Point other, @Nullable Point on, double[] box, Axis frame) {
        Point n = normal.unit();
        double reach = 0;
        for (double b : box) {
            reach = Math.max(reach, Double.isInfinite(b) ? 0 : Math.abs(b));
        }
        reach = 4 * (reach + point.minus(frame.origin()).norm() + 1e-300);
        List<Point> outline = new ArrayList<>();
        if (other == null || on == null) {
            Axis plane = new Axis(point, n);
            for (int k = 0; k < 4; k++) {
                outline.add(point.plus(plane.zero().times(k == 0 || k == 3 ? -reach : reach))
                        .plus(plane.quarter().times(k < 2 ? -reach : reach)));
            }
        } else {
            Point m = other.unit();
            Point along = n.cross(m);
            if (along.norm() < 1e-12) {
                return Double.NaN;
            }
            // From the point of the first plane within it towards the second.
            Point towards = m.minus(n.times(n.dot(m)));
            Point start = point.plus(towards.times(m.dot(on.minus(point)) / towards.dot(m)));
            outline.add(start.plus(along.unit().times(-reach)));
            outline.add(start.plus(along.unit().times(reach)));
        }
        Point[] axes = {frame.zero(), frame.quarter(), frame.direction()};
        for (int d = 0; d < 3; d++) {
            for (int side = 0; side < 2; side++) {
                double bound = box[2 * d + side];
                if (!Double.isInfinite(bound)) {
                    Point inwards = axes[d].times(side == 0 ? 1 : -1);
                    outline = inside(outline, frame.origin().plus(axes[d].times(bound)), inwards, other == null);
                }
            }
        }
        double size = 0;
        if (other == null) {
            for (int i = 2; i < outline.size(); i++) {
                Point a = outline.get(i - 1).minus(outline.getFirst());
                size += a.cross(outline.get(i).minus(outline.getFirst())).dot(n) / 2;
            }
        } else if (outline.size() == 2) {
            size = outline.get(1).minus(outline.get(0)).norm();
        }
        double far = 0.99 * reach;
        return outline.stream().anyMatch(p -> p.minus(point).norm() > far) ? Double.POSITIVE_INFINITY : size;
    }

    /** The part of a convex outline, or of a line, on the inner side of a plane. */
    private static List<Point> inside(List<Point> outline, Point on, Point inwards, boolean closed) {
        List<Point> out = new ArrayList<>();
        int n = outline.size();
        for (int i = 0; i < n; i++) {
            Point a = outline.get(i);
            double da = inwards.dot(a.minus(on));
            if (da >= 0) {
                out.add(a);
            }
            if (i + 1 < n || closed) {
                Point b = outline.get((i + 1) % n);
                double db = inwards.dot(b.minus(on));
                if (da > 0 && db < 0 || da < 0 && db > 0) {
                    out.add(a.plus(b.minus(a).times(da / (da - db))));
                }
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
