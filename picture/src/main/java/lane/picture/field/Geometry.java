package lane.picture.field;

import lane.base.Parallel;
import org.jspecify.annotations.Nullable;

/**
 * What drawing wants to know of a surface's triangles whatever the view. It is made when it is first asked for and serves
 * as long as the triangles stay where they are.
 */
final class Geometry {
    /** Triangles in a run: neighbours as a rule, so that the box around them is small. */
    static final int RUN = 64;

    private final double[] xyz;
    private final int[] corners;
    private volatile double @Nullable [] boxes;
    private volatile float @Nullable [] normals;

    Geometry(double[] xyz, int[] corners) {
        this.xyz = xyz;
        this.corners = corners;
    }

    /**
     * Least and greatest x, y and z of each run of successive triangles, six numbers each, by which what is outside of a
     * picture or hidden is passed over; least above greatest where no corner has numbers.
     */
    double[] boxes() {
        double[] known = boxes;
        if (known == null) {
            known = new double[6 * Parallel.blocks(corners.length, 3 * RUN)];
            double[] made = known;
            Parallel.forBlocks(made.length / 6, 64, (block, first, last) -> {
                for (int run = first; run < last; run++) {
                    box(made, run);
                }
            });
            boxes = known;
        }
        return known;
    }

    private void box(double[] out, int run) {
        int end = Math.min(corners.length, (run + 1) * 3 * RUN);
        for (int axis = 0; axis < 3; axis++) {
            double low = Double.POSITIVE_INFINITY;
            double high = Double.NEGATIVE_INFINITY;
            for (int i = run * 3 * RUN; i < end; i++) {
                double v = xyz[3 * corners[i] + axis];
                // What is no number belongs to no triangle that is drawn.
                low = v < low ? v : low;
                high = v > high ? v : high;
            }
            out[6 * run + 2 * axis] = low;
            out[6 * run + 2 * axis + 1] = high;
        }
    }

    /** Unit normals, three numbers to a triangle; zero where it has no area. */
    float[] normals() {
        float[] known = normals;
        if (known == null) {
            known = new float[corners.length];
            float[] made = known;
            Parallel.forBlocks(made.length / 3, 1 << 12, (block, from, to) -> {
                for (int t = from; t < to; t++) {
                    normal(made, t);
                }
            });
            normals = known;
        }
        return known;
    }

    private void normal(float[] out, int t) {
        int a = 3 * corners[3 * t];
        int b = 3 * corners[3 * t + 1];
        int c = 3 * corners[3 * t + 2];
        double ux = xyz[b] - xyz[a];
        double uy = xyz[b + 1] - xyz[a + 1];
        double uz = xyz[b + 2] - xyz[a + 2];
        double vx = xyz[c] - xyz[a];
        double vy = xyz[c + 1] - xyz[a + 1];
        double vz = xyz[c + 2] - xyz[a + 2];
        double nx = uy * vz - uz * vy;
        double ny = uz * vx - ux * vz;
        double nz = ux * vy - uy * vx;
        double length = Math.sqrt(nx * nx + ny * ny + nz * nz);
        if (length > 0) {
            out[3 * t] = (float) (nx / length);
            out[3 * t + 1] = (float) (ny / length);
            out[3 * t + 2] = (float) (nz / length);
        }
    }
}
