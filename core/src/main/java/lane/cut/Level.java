package lane.cut;

import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * A function whose zero is cut out: negative below, positive above. Values so near to zero that only round-off keeps them
 * off it are given as zero, so that a surface through nodes goes through them.
 */
public interface Level {
    /** Values at nodes {@code from} to {@code to}. */
    void at(int from, int to, double[] out);

    /**
     * Where the level is zero between two nodes of different sign.
     *
     * @return share of the way from node {@code a} to node {@code b}, 0 to 1
     */
    default double root(int a, int b, double atA, double atB) {
        return atA / (atA - atB);
    }

    /** Distance from a plane, in metres. */
    static Level plane(Mesh mesh, Point point, Point normal) {
        Point n = normal.unit();
        double d = n.dot(point);
        double zero = 1e-12 * Math.max(mesh.modelSize(), Math.abs(d));
        double[] x = mesh.xyz();
        return (from, to, out) -> {
            double nx = n.x();
            double ny = n.y();
            double nz = n.z();
            for (int i = from; i < to; i++) {
                double v = nx * x[3 * i] + ny * x[3 * i + 1] + nz * x[3 * i + 2] - d;
                out[i] = Math.abs(v) <= zero ? 0 : v;
            }
        };
    }

    /** Distance from a cylinder about an axis; the zero along an edge is where the edge itself meets the cylinder. */
    static Level cylinder(Mesh mesh, Axis axis, double radius) {
        double[] x = mesh.xyz();
        double zero = 1e-12 * Math.max(mesh.modelSize(), radius);
        return new Level() {
            @Override
            public void at(int from, int to, double[] out) {
                for (int i = from; i < to; i++) {
                    double v = axis.radius(x[3 * i], x[3 * i + 1], x[3 * i + 2]) - radius;
                    out[i] = Math.abs(v) <= zero ? 0 : v;
                }
            }

            @Override
            public double root(int a, int b, double atA, double atB) {
                Point p = off(a);
                Point q = off(b).minus(p);
                // |p + t q|^2 = radius^2, the root between 0 and 1, without cancellation.
                double qa = q.dot(q);
                double qb = p.dot(q);
                double qc = p.dot(p) - radius * radius;
                double s = Math.sqrt(Math.max(0, qb * qb - qa * qc));
                double far = -qb - Math.copySign(s, qb);
                double one = far / qa;
                double other = far == 0 ? one : qc / far;
                double middle = atA / (atA - atB);
                double t = Math.abs(one - middle) < Math.abs(other - middle) ? one : other;
                return t >= 0 && t <= 1 ? t : middle;
            }

            private Point off(int i) {
                Point p = new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]).minus(axis.origin());
                return p.minus(axis.direction().times(p.dot(axis.direction())));
            }
        };
    }

    /** Values at nodes less a value. */
    static Level of(double[] values, double less) {
        return (from, to, out) -> {
            for (int i = from; i < to; i++) {
                out[i] = values[i] - less;
            }
        };
    }
}
