package lane.evaluation;

import java.util.Arrays;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Values;
import lane.formula.Program;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Integrals over flat triangles of what is linear in a stored field: with shape functions that sum to one the mean of a value is
 * that of its nodes, and the mean of it times the place is (sum of v r + sum of v times sum of r) / 12 (Zienkiewicz and Taylor,
 * area coordinates), so that no points are needed. Exact. How large a field is, is integrated from its size at the corners.
 */
final class TriangleMoments {
    private static final double TWELFTH = 1.0 / 12;

    private final SurfaceIntegral.Integrand integrand;
    private final FaceBatch.Seen seen;
    private final int[] take;
    private final SurfacePoints at;
    private final double[] mean = new double[Program.BLOCK];
    private final double[] value = new double[3 * Program.BLOCK];

    /**
     * @param take which component of the field stands for each of the quantity's
     * @param at room for moments, where no points stand
     */
    TriangleMoments(SurfaceIntegral.Integrand integrand, FaceBatch.Seen seen, int[] take, SurfacePoints at) {
        this.at = at;
        this.integrand = integrand;
        this.seen = seen;
        this.take = take;
    }

    /** Adds triangles that follow each other. */
    void add(Mesh mesh, int from, int to, Sum[] sums) {
        for (int f = from; f < to; f += Program.BLOCK) {
            at.begin();
            at.n = Math.min(Program.BLOCK, to - f);
            switch (integrand) {
                case LinearIntegrand linear -> linear(linear, mesh, f, sums);
                case SizeIntegrand size -> size(size, mesh, f, sums);
                default -> throw new IllegalStateException("no integrand over triangles: " + integrand);
            }
        }
        at.begin();
    }

    private void linear(LinearIntegrand linear, Mesh mesh, int first, Sum[] sums) {
        for (int c = 0; c < take.length; c++) {
            if (seen.at() == Field.At.NODE && seen.values().now() instanceof Values.Doubles held) {
                place(mesh, first, held.array(), seen.node(), seen.components(), take[c]);
            } else {
                values(mesh, first, take[c]);
                place(mesh, first, value, null, 0, 0);
            }
            linear.addMoments(at, mean, c, sums, 0);
        }
        if (linear.ones()) {
            Arrays.fill(value, 0, 3 * at.n, 1);
            place(mesh, first, value, null, 0, 0);
            linear.addMoments(at, mean, 0, sums, linear.what().sums());
        }
    }

    /** The size is taken at the corners, between which it is a bit less. */
    private void size(SizeIntegrand size, Mesh mesh, int first, Sum[] sums) {
        double[] all = new double[3 * at.n];
        for (int component : take) {
            values(mesh, first, component);
            size.addSquares(value, all, all.length);
        }
        SizeIntegrand.roots(all, all.length);
        place(mesh, first, all, null, 0, 0);
        at.addTimesArea(mean, sums[0]);
    }

    /** Looks up the values at the corners, or that of the cell three times. */
    private void values(Mesh mesh, int first, int component) {
        int all = seen.components();
        Values.Held held = seen.values().now();
        int[] nodes = mesh.nodes();
        int begin = mesh.begin(first);
        int[] way = seen.at() == Field.At.CELL ? seen.owner() : seen.node();
        for (int k = 0; k < 3 * at.n; k++) {
            int one = seen.at() == Field.At.CELL ? first + k / 3 : nodes[begin + k];
            value[k] = held.get((way == null ? one : way[one]) * all + component);
        }
    }

    /**
     * Writes area vectors, means and first moments. All of a triangle is read at once: to look up one after the other waits for each.
     *
     * @param from values; of each corner in turn where there are no components
     * @param map from nodes of the surface to those that have values; null where they are the same
     */
    private void place(Mesh mesh, int first, double[] from, int @Nullable [] map, int components, int component) {
        int[] nodes = mesh.nodes();
        double[] xyz = mesh.xyz();
        int begin = mesh.begin(first);
        boolean placed = integrand.placed();
        double[] x = at.x;
        double[] y = at.y;
        double[] z = at.z;
        double[] nx = at.nx;
        double[] ny = at.ny;
        double[] nz = at.nz;
        int n = at.n;
        for (int j = 0; j < n; j++) {
            int k = begin + 3 * j;
            int a = nodes[k];
            int b = nodes[k + 1];
            int c = nodes[k + 2];
            double p;
            double q;
            double r;
            if (components == 0) {
                p = from[3 * j];
                q = from[3 * j + 1];
                r = from[3 * j + 2];
            } else {
                p = from[(map == null ? a : map[a]) * components + component];
                q = from[(map == null ? b : map[b]) * components + component];
                r = from[(map == null ? c : map[c]) * components + component];
            }
            double ax = xyz[3 * a];
            double ay = xyz[3 * a + 1];
            double az = xyz[3 * a + 2];
            double bx = xyz[3 * b];
            double by = xyz[3 * b + 1];
            double bz = xyz[3 * b + 2];
            double cx = xyz[3 * c];
            double cy = xyz[3 * c + 1];
            double cz = xyz[3 * c + 2];
            nx[j] = 0.5 * ((by - ay) * (cz - az) - (bz - az) * (cy - ay));
            ny[j] = 0.5 * ((bz - az) * (cx - ax) - (bx - ax) * (cz - az));
            nz[j] = 0.5 * ((bx - ax) * (cy - ay) - (by - ay) * (cx - ax));
            double all = p + q + r;
            // So that what is the same at all three is that to the bit.
            mean[j] = p + ((q - p) + (r - p)) / 3;
            if (placed) {
                p += all;
                q += all;
                r += all;
                x[j] = TWELFTH * (p * ax + q * bx + r * cx);
                y[j] = TWELFTH * (p * ay + q * by + r * cy);
                z[j] = TWELFTH * (p * az + q * bz + r * cz);
            }
        }
    }
}
