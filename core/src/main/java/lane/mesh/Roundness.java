package lane.mesh;

/**
 * The circular cylinder that faces with corners on it stand for. Places are moved to it square to the axis. The area
 * vector N of a piece at distance r from the axis becomes that of the piece of the cylinder above it, (N·e) R / r along
 * e, the direction away from the axis: dθ dh = (N·e) / r is closed as a form, so that pieces whose rims agree give
 * the cylinder's own area to the error of the quadrature, whatever the chords between their corners.
 *
 * @param radius in metres
 */
public record Roundness(Axis axis, double radius) {
    /** Moves a place and the area vector there. A place on the axis itself has no direction and stays. */
    public void onto(double[] place, double[] area) {
        Point o = axis.origin();
        Point d = axis.direction();
        double along = axis.along(place[0], place[1], place[2]);
        double x = place[0] - o.x() - along * d.x();
        double y = place[1] - o.y() - along * d.y();
        double z = place[2] - o.z() - along * d.z();
        double r = Math.sqrt(x * x + y * y + z * z);
        if (r == 0) {
            return;
        }
        double share = radius / r;
        place[0] += (share - 1) * x;
        place[1] += (share - 1) * y;
        place[2] += (share - 1) * z;
        double size = (area[0] * x + area[1] * y + area[2] * z) * share / (r * r);
        area[0] = size * x;
        area[1] = size * y;
        area[2] = size * z;
    }

    /**
     * Area of the cylinder above all faces of a surface, in square metres; of lines, their lengths.
     *
     * @param plane unit normal of the plane mesh that lines bound, as {@link CellMeasures#plane} tells it
     */
    public double area(Mesh surface, double[] plane) {
        var sum = new lane.base.Sum();
        var rule = new FaceQuadrature(surface, 4, plane);
        double[] place = new double[3];
        double[] area = new double[3];
        for (int f = 0; f < surface.cellCount(); f++) {
            rule.load(f);
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                set(place, rule.x(), rule.y(), rule.z());
                set(area, rule.nx(), rule.ny(), rule.nz());
                onto(place, area);
                sum.add(Math.sqrt(area[0] * area[0] + area[1] * area[1] + area[2] * area[2]));
            }
        }
        return sum.value();
    }

    private static void set(double[] to, double x, double y, double z) {
        to[0] = x;
        to[1] = y;
        to[2] = z;
    }
}
