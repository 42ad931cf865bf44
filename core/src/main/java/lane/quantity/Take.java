package lane.quantity;

import lane.mesh.Axis;

/** What is taken of a field with several components. */
public enum Take {
    /** All components; a scalar's only one. */
    ALL("as stored"),
    X("x component"),
    Y("y component"),
    Z("z component"),
    MAGNITUDE("magnitude"),
    /** Component away from the axis. */
    RADIAL("radial component"),
    /** Component around the axis, right-hand rule. */
    SWIRL("component around the axis"),
    /** Component along the axis. */
    AXIAL("component along the axis");

    private final String word;

    Take(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /** Whether it needs a vector of three components. */
    public boolean needsVector() {
        return this != ALL && this != MAGNITUDE;
    }

    /**
     * The taken number of a vector {@code v} at place {@code (x,y,z)}; on the axis itself radial and around are not
     * defined and give NaN.
     */
    public double of(double[] v, double x, double y, double z, Axis axis) {
        return switch (this) {
            case ALL, X -> v[0];
            case Y -> v[1];
            case Z -> v[2];
            case MAGNITUDE -> {
                double sum = 0;
                for (double c : v) {
                    sum += c * c;
                }
                yield v.length == 1 ? Math.abs(v[0]) : Math.sqrt(sum);
            }
            case AXIAL ->
                v[0] * axis.direction().x()
                        + v[1] * axis.direction().y()
                        + v[2] * axis.direction().z();
            case RADIAL, SWIRL -> around(v, x, y, z, axis);
        };
    }

    private double around(double[] v, double x, double y, double z, Axis axis) {
        var d = axis.direction();
        double px = x - axis.origin().x();
        double py = y - axis.origin().y();
        double pz = z - axis.origin().z();
        double along = px * d.x() + py * d.y() + pz * d.z();
        px -= along * d.x();
        py -= along * d.y();
        pz -= along * d.z();
        double r = Math.sqrt(px * px + py * py + pz * pz);
        if (this == RADIAL) {
            return (v[0] * px + v[1] * py + v[2] * pz) / r;
        }
        double tx = d.y() * pz - d.z() * py;
        double ty = d.z() * px - d.x() * pz;
        double tz = d.x() * py - d.y() * px;
        return (v[0] * tx + v[1] * ty + v[2] * tz) / r;
    }
}
