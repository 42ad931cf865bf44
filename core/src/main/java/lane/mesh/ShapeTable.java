package lane.mesh;

import java.util.concurrent.ConcurrentHashMap;

/**
 * Shape functions of a shape at the points of a rule, worked out once.
 *
 * @param values one a node for each point
 * @param derivatives by the three reference coordinates for each node, for each point
 */
record ShapeTable(CellShape shape, Quadrature rule, double[] values, double[] derivatives) {
    private static final ConcurrentHashMap<Integer, ShapeTable> MADE = new ConcurrentHashMap<>();

    static ShapeTable of(CellShape shape, int degree) {
        return MADE.computeIfAbsent(shape.ordinal() * 32 + degree, key -> make(shape, Quadrature.of(shape, degree)));
    }

    private static ShapeTable make(CellShape shape, Quadrature rule) {
        int n = shape.nodes();
        double[] values = new double[n * rule.size()];
        double[] derivatives = new double[3 * values.length];
        double[] v = new double[n];
        double[] d = new double[3 * n];
        for (int q = 0; q < rule.size(); q++) {
            double[] r = rule.points();
            ShapeFunctions.values(shape, r[3 * q], r[3 * q + 1], r[3 * q + 2], v);
            ShapeFunctions.derivatives(shape, r[3 * q], r[3 * q + 1], r[3 * q + 2], d);
            System.arraycopy(v, 0, values, n * q, n);
            System.arraycopy(d, 0, derivatives, 3 * n * q, 3 * n);
        }
        return new ShapeTable(shape, rule, values, derivatives);
    }

    /** Writes what values at the nodes are at the points of the rule, from a place on. */
    void interpolate(double[] v, double[] to, int from) {
        if (shape == CellShape.HEXAHEDRON && rule.size() == 8) {
            Hexahedron.interpolate(v, to, from);
            return;
        }
        int n = nodes();
        for (int q = 0; q < rule.size(); q++) {
            double sum = 0;
            for (int k = 0; k < n; k++) {
                sum += values[n * q + k] * v[k];
            }
            to[from + q] = sum;
        }
    }

    /** Adds to each node its share of what the points stand for. */
    void spread(double[] points, double[] nodes) {
        if (shape == CellShape.HEXAHEDRON && rule.size() == 8) {
            Hexahedron.spread(points, nodes);
            return;
        }
        int n = nodes();
        for (int q = 0; q < rule.size(); q++) {
            double w = points[q];
            for (int k = 0; k < n; k++) {
                nodes[k] += w * values[n * q + k];
            }
        }
    }

    /**
     * The determinants of the map from the reference domain at all points of the rule.
     *
     * @param x local coordinates of a cell, three to a node
     * @param place and {@code weights}: written over
     */
    void determinants(double[] x, double[] place, double[] weights, double[] out) {
        if (shape == CellShape.HEXAHEDRON && rule.size() == 8) {
            Hexahedron.determinants(x, out);
            return;
        }
        for (int q = 0; q < rule.size(); q++) {
            out[q] = at(q, x, place, weights);
        }
    }

    /**
     * Of a surface: writes the place, the nodes' weights, and the area vector of the map from the reference domain.
     *
     * @param x local coordinates of a cell, three to a node
     */
    void facing(int q, double[] x, double[] place, double[] weights, double[] normal) {
        int n = nodes();
        double px = 0;
        double py = 0;
        double pz = 0;
        double xr = 0;
        double xs = 0;
        double yr = 0;
        double ys = 0;
        double zr = 0;
        double zs = 0;
        for (int i = 0; i < n; i++) {
            double w = values[n * q + i];
            int k = 3 * (n * q + i);
            double dr = derivatives[k];
            double ds = derivatives[k + 1];
            double a = x[3 * i];
            double b = x[3 * i + 1];
            double c = x[3 * i + 2];
            weights[i] = w;
            px += w * a;
            py += w * b;
            pz += w * c;
            xr += a * dr;
            xs += a * ds;
            yr += b * dr;
            ys += b * ds;
            zr += c * dr;
            zs += c * ds;
        }
        place[0] = px;
        place[1] = py;
        place[2] = pz;
        normal[0] = yr * zs - zr * ys;
        normal[1] = zr * xs - xr * zs;
        normal[2] = xr * ys - yr * xs;
    }

    int nodes() {
        return shape.nodes();
    }

    /**
     * Writes the place of a point into {@code place} and its nodes' weights.
     *
     * @param x local coordinates of a cell, three to a node
     * @return the determinant of the map from the reference domain there
     */
    double at(int q, double[] x, double[] place, double[] weights) {
        int n = nodes();
        double px = 0;
        double py = 0;
        double pz = 0;
        double xr = 0;
        double xs = 0;
        double xt = 0;
        double yr = 0;
        double ys = 0;
        double yt = 0;
        double zr = 0;
        double zs = 0;
        double zt = 0;
        for (int i = 0; i < n; i++) {
            double w = values[n * q + i];
            int k = 3 * (n * q + i);
            double dr = derivatives[k];
            double ds = derivatives[k + 1];
            double dt = derivatives[k + 2];
            double a = x[3 * i];
            double b = x[3 * i + 1];
            double c = x[3 * i + 2];
            weights[i] = w;
            px += w * a;
            py += w * b;
            pz += w * c;
            xr += a * dr;
            xs += a * ds;
            xt += a * dt;
            yr += b * dr;
            ys += b * ds;
            yt += b * dt;
            zr += c * dr;
            zs += c * ds;
            zt += c * dt;
        }
        place[0] = px;
        place[1] = py;
        place[2] = pz;
        return xr * (ys * zt - yt * zs) - xs * (yr * zt - yt * zr) + xt * (yr * zs - ys * zr);
    }
}
