package lane.mesh;

/**
 * The map of a linear hexahedron at the two Gauss points of each direction. A derivative by one direction is bilinear in the other
 * two, so that each of its four values serves two points: a quarter of the work of summing over nodes at each point.
 */
final class Hexahedron {
    /** The first Gauss point of degree 3 on [0,1], and the second. */
    private static final double A = (1 - 1 / Math.sqrt(3)) / 2;

    private static final double B = 1 - A;

    private Hexahedron() {}

    /** Writes what values at the nodes are at the points: along the first direction, then the second, then the third. */
    static void interpolate(double[] v, double[] to, int from) {
        double e00 = B * v[0] + A * v[1];
        double f00 = A * v[0] + B * v[1];
        double e10 = B * v[3] + A * v[2];
        double f10 = A * v[3] + B * v[2];
        double e01 = B * v[4] + A * v[5];
        double f01 = A * v[4] + B * v[5];
        double e11 = B * v[7] + A * v[6];
        double f11 = A * v[7] + B * v[6];
        double ee0 = B * e00 + A * e10;
        double fe0 = B * f00 + A * f10;
        double ef0 = A * e00 + B * e10;
        double ff0 = A * f00 + B * f10;
        double ee1 = B * e01 + A * e11;
        double fe1 = B * f01 + A * f11;
        double ef1 = A * e01 + B * e11;
        double ff1 = A * f01 + B * f11;
        to[from] = B * ee0 + A * ee1;
        to[from + 1] = B * fe0 + A * fe1;
        to[from + 2] = B * ef0 + A * ef1;
        to[from + 3] = B * ff0 + A * ff1;
        to[from + 4] = A * ee0 + B * ee1;
        to[from + 5] = A * fe0 + B * fe1;
        to[from + 6] = A * ef0 + B * ef1;
        to[from + 7] = A * ff0 + B * ff1;
    }

    /** Adds to each node its share of what the points stand for: {@link #interpolate} the other way round. */
    static void spread(double[] p, double[] nodes) {
        double ee0 = B * p[0] + A * p[4];
        double ee1 = A * p[0] + B * p[4];
        double fe0 = B * p[1] + A * p[5];
        double fe1 = A * p[1] + B * p[5];
        double ef0 = B * p[2] + A * p[6];
        double ef1 = A * p[2] + B * p[6];
        double ff0 = B * p[3] + A * p[7];
        double ff1 = A * p[3] + B * p[7];
        double e00 = B * ee0 + A * ef0;
        double e10 = A * ee0 + B * ef0;
        double f00 = B * fe0 + A * ff0;
        double f10 = A * fe0 + B * ff0;
        double e01 = B * ee1 + A * ef1;
        double e11 = A * ee1 + B * ef1;
        double f01 = B * fe1 + A * ff1;
        double f11 = A * fe1 + B * ff1;
        nodes[0] += B * e00 + A * f00;
        nodes[1] += A * e00 + B * f00;
        nodes[2] += A * e10 + B * f10;
        nodes[3] += B * e10 + A * f10;
        nodes[4] += B * e01 + A * f01;
        nodes[5] += A * e01 + B * f01;
        nodes[6] += A * e11 + B * f11;
        nodes[7] += B * e11 + A * f11;
    }

    /**
     * @param x three coordinates a node, in the order of the format
     * @param out the determinants, the first direction running fastest
     */
    static void determinants(double[] x, double[] out) {
        // Edges along the first direction, (s,t) = (0,0), (1,0), (0,1), (1,1); along the second, (r,t); along the
        // third, (r,s).
        double xr00 = x[3] - x[0];
        double xr10 = x[6] - x[9];
        double xr01 = x[15] - x[12];
        double xr11 = x[18] - x[21];
        double yr00 = x[4] - x[1];
        double yr10 = x[7] - x[10];
        double yr01 = x[16] - x[13];
        double yr11 = x[19] - x[22];
        double zr00 = x[5] - x[2];
        double zr10 = x[8] - x[11];
        double zr01 = x[17] - x[14];
        double zr11 = x[20] - x[23];
        double xs00 = x[9] - x[0];
        double xs10 = x[6] - x[3];
        double xs01 = x[21] - x[12];
        double xs11 = x[18] - x[15];
        double ys00 = x[10] - x[1];
        double ys10 = x[7] - x[4];
        double ys01 = x[22] - x[13];
        double ys11 = x[19] - x[16];
        double zs00 = x[11] - x[2];
        double zs10 = x[8] - x[5];
        double zs01 = x[23] - x[14];
        double zs11 = x[20] - x[17];
        double xt00 = x[12] - x[0];
        double xt10 = x[15] - x[3];
        double xt01 = x[21] - x[9];
        double xt11 = x[18] - x[6];
        double yt00 = x[13] - x[1];
        double yt10 = x[16] - x[4];
        double yt01 = x[22] - x[10];
        double yt11 = x[19] - x[7];
        double zt00 = x[14] - x[2];
        double zt10 = x[17] - x[5];
        double zt01 = x[23] - x[11];
        double zt11 = x[20] - x[8];
        for (int k = 0; k < 2; k++) {
            double t1 = k == 0 ? A : B;
            double t0 = 1 - t1;
            double xr0 = t0 * xr00 + t1 * xr01;
            double xr1 = t0 * xr10 + t1 * xr11;
            double yr0 = t0 * yr00 + t1 * yr01;
            double yr1 = t0 * yr10 + t1 * yr11;
            double zr0 = t0 * zr00 + t1 * zr01;
            double zr1 = t0 * zr10 + t1 * zr11;
            double xs0 = t0 * xs00 + t1 * xs01;
            double xs1 = t0 * xs10 + t1 * xs11;
            double ys0 = t0 * ys00 + t1 * ys01;
            double ys1 = t0 * ys10 + t1 * ys11;
            double zs0 = t0 * zs00 + t1 * zs01;
            double zs1 = t0 * zs10 + t1 * zs11;
            for (int j = 0; j < 2; j++) {
                double s1 = j == 0 ? A : B;
                double s0 = 1 - s1;
                double xr = s0 * xr0 + s1 * xr1;
                double yr = s0 * yr0 + s1 * yr1;
                double zr = s0 * zr0 + s1 * zr1;
                double xt0 = s0 * xt00 + s1 * xt01;
                double xt1 = s0 * xt10 + s1 * xt11;
                double yt0 = s0 * yt00 + s1 * yt01;
                double yt1 = s0 * yt10 + s1 * yt11;
                double zt0 = s0 * zt00 + s1 * zt01;
                double zt1 = s0 * zt10 + s1 * zt11;
                for (int i = 0; i < 2; i++) {
                    double r1 = i == 0 ? A : B;
                    double r0 = 1 - r1;
                    double xs = r0 * xs0 + r1 * xs1;
                    double ys = r0 * ys0 + r1 * ys1;
                    double zs = r0 * zs0 + r1 * zs1;
                    double xt = r0 * xt0 + r1 * xt1;
                    double yt = r0 * yt0 + r1 * yt1;
                    double zt = r0 * zt0 + r1 * zt1;
                    out[4 * k + 2 * j + i] =
                            xr * (ys * zt - yt * zs) - xs * (yr * zt - yt * zr) + xt * (yr * zs - ys * zr);
                }
            }
        }
    }
}
