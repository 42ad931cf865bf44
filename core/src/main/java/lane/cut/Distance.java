package lane.cut;

import lane.mesh.Mesh;
import lane.mesh.Point;

/** How far a place is from a face of a surface. */
final class Distance {
    private Distance() {}

    /** To the triangles of the fan about the face's first node, or to the line. */
    static double toFace(Mesh m, int f, Point p) {
        int begin = m.begin(f);
        Point a = node(m, begin);
        if (m.size(f) == 2) {
            return toSegment(a, node(m, begin + 1), p);
        }
        double best = Double.POSITIVE_INFINITY;
        for (int k = 1; k + 1 < m.size(f); k++) {
            best = Math.min(best, toTriangle(a, node(m, begin + k), node(m, begin + k + 1), p));
        }
        return best;
    }

    private static Point node(Mesh m, int at) {
        int i = 3 * m.nodes()[at];
        return new Point(m.xyz()[i], m.xyz()[i + 1], m.xyz()[i + 2]);
    }

    private static double toSegment(Point a, Point b, Point p) {
        Point u = b.minus(a);
        double uu = u.dot(u);
        double t = uu == 0 ? 0 : Math.clamp(p.minus(a).dot(u) / uu, 0, 1);
        return p.minus(a.plus(u.times(t))).norm();
    }

    private static double toTriangle(Point a, Point b, Point c, Point p) {
        Point n = b.minus(a).cross(c.minus(a));
        double nn = n.dot(n);
        if (nn > 0) {
            Point q = p.minus(a);
            double v = n.dot(q.cross(c.minus(a))) / nn;
            double w = n.dot(b.minus(a).cross(q)) / nn;
            if (v >= 0 && w >= 0 && v + w <= 1) {
                return Math.abs(q.dot(n)) / Math.sqrt(nn);
            }
        }
        return Math.min(toSegment(a, b, p), Math.min(toSegment(b, c, p), toSegment(c, a, p)));
    }
}
