package lane.cut;

import java.util.Arrays;
import lane.base.Parallel;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Cell;
import lane.mesh.CellLocator;

/**
 * Lines along a vector field, by the embedded Runge-Kutta pair of orders 5 and 4 of Dormand and Prince (1980): the fifth
 * order result is kept, the step follows the difference. A line ends where it leaves the mesh (found by halving), where
 * the field vanishes, or at a length. Seeds are independent, so the lines are the same for any number of threads.
 *
 * @param offsets where each line's points begin; one more entry than seeds
 * @param xyz places, in order along the field
 * @param time from the seed, negative before it, in the unit of length over that of the field
 * @param length from the seed along the line, negative before it, in metres
 * @param stencil from the run's nodes to the points; empty for a point on a line of no length
 * @param cell the cell of each point
 */
public record Streamlines(int[] offsets, double[] xyz, double[] time, double[] length, Stencil stencil, int[] cell) {
    private static final int MOST_STEPS = 20_000;
    private static final double[][] A = {
        {},
        {1 / 5.0},
        {3 / 40.0, 9 / 40.0},
        {44 / 45.0, -56 / 15.0, 32 / 9.0},
        {19372 / 6561.0, -25360 / 2187.0, 64448 / 6561.0, -212 / 729.0},
        {9017 / 3168.0, -355 / 33.0, 46732 / 5247.0, 49 / 176.0, -5103 / 18656.0},
        {35 / 384.0, 0, 500 / 1113.0, 125 / 192.0, -2187 / 6784.0, 11 / 84.0}
    };
    private static final double[] E = {
        71 / 57600.0, 0, -71 / 16695.0, 71 / 1920.0, -17253 / 339200.0, 22 / 525.0, -1 / 40.0
    };

    public int count() {
        return offsets.length - 1;
    }

    /** Which way from the seeds. */
    public enum Way {
        FORWARD,
        BACKWARD,
        BOTH
    }

    /**
     * @param field three components, at nodes or in cells
     * @param seeds places, three numbers each; one outside gives a line without points
     * @param tolerance of a step, in metres
     * @param longest length each way, in metres
     * @param step largest step, in metres
     */
    public static Streamlines of(
            CellLocator locator,
            Field field,
            double[] seeds,
            Way way,
            double tolerance,
            double longest,
            double step,
            Work work) {
        if (field.components() != 3) {
            throw new lane.base.LaneException("Field \"" + field.name() + "\" has " + field.components()
                    + " component(s); streamlines need a vector of 3.");
        }
        int n = seeds.length / 3;
        var traces = new Trace[n];
        Parallel.forBlocks(n, 16, (block, from, to) -> {
            work.poll();
            var tracer = new Tracer(locator, field, tolerance, longest, step);
            for (int i = from; i < to; i++) {
                var back = new Trace();
                var forth = new Trace();
                if (way != Way.FORWARD) {
                    tracer.trace(seeds, 3 * i, -1, back);
                }
                if (way != Way.BACKWARD) {
                    tracer.trace(seeds, 3 * i, 1, forth);
                }
                traces[i] = Trace.join(back, forth);
            }
        });
        work.poll();
        return gather(traces);
    }

    private static Streamlines gather(Trace[] traces) {
        int points = 0;
        for (Trace t : traces) {
            points += t.count;
        }
        int[] offsets = new int[traces.length + 1];
        double[] xyz = new double[3 * points];
        double[] time = new double[points];
        double[] length = new double[points];
        int[] cell = new int[points];
        var stencil = new StencilBuilder(4 * points);
        int at = 0;
        for (int i = 0; i < traces.length; i++) {
            Trace t = traces[i];
            System.arraycopy(t.xyz, 0, xyz, 3 * at, 3 * t.count);
            System.arraycopy(t.time, 0, time, at, t.count);
            System.arraycopy(t.length, 0, length, at, t.count);
            System.arraycopy(t.cell, 0, cell, at, t.count);
            for (int k = 0; k < t.count; k++) {
                for (int j = t.start[k]; j < t.start[k + 1]; j++) {
                    stencil.add(t.node[j], t.share[j]);
                }
                stencil.next();
            }
            at += t.count;
            offsets[i + 1] = at;
        }
        return new Streamlines(offsets, xyz, time, length, stencil.build(), cell);
    }

    /** Points of one line, one way. */
    private static final class Trace {
        private int count;
        private double[] xyz = new double[96];
        private double[] time = new double[32];
        private double[] length = new double[32];
        private int[] cell = new int[32];
        private int[] start = new int[33];
        private int[] node = new int[256];
        private double[] share = new double[256];

        void add(double[] p, double t, double s, Cell view) {
            grow();
            int at = start[count];
            if (at + view.size() > node.length) {
                node = Arrays.copyOf(node, 2 * (at + view.size()));
                share = Arrays.copyOf(share, node.length);
            }
            for (int v = 0; v < view.size(); v++) {
                node[at + v] = view.node(v);
                share[at + v] = view.weights()[v];
            }
            System.arraycopy(p, 0, xyz, 3 * count, 3);
            time[count] = t;
            length[count] = s;
            cell[count] = view.index();
            start[++count] = at + view.size();
        }

        private void grow() {
            if (count == time.length) {
                xyz = Arrays.copyOf(xyz, 6 * count);
                time = Arrays.copyOf(time, 2 * count);
                length = Arrays.copyOf(length, 2 * count);
                cell = Arrays.copyOf(cell, 2 * count);
                start = Arrays.copyOf(start, 2 * count + 1);
            }
        }

        private void copy(Trace from, int k) {
            int n = from.start[k + 1] - from.start[k];
            grow();
            int at = start[count];
            if (at + n > node.length) {
                node = Arrays.copyOf(node, 2 * (at + n));
                share = Arrays.copyOf(share, node.length);
            }
            System.arraycopy(from.node, from.start[k], node, at, n);
            System.arraycopy(from.share, from.start[k], share, at, n);
            System.arraycopy(from.xyz, 3 * k, xyz, 3 * count, 3);
            time[count] = from.time[k];
            length[count] = from.length[k];
            cell[count] = from.cell[k];
            start[++count] = at + n;
        }

        /** The first turned round, then the second; the seed stands once. */
        static Trace join(Trace back, Trace forth) {
            if (back.count < 2) {
                return forth.count == 0 ? back : forth;
            }
            var out = new Trace();
            for (int k = back.count - 1; k >= 0; k--) {
                out.copy(back, k);
            }
            for (int k = 1; k < forth.count; k++) {
                out.copy(forth, k);
            }
            return out;
        }
    }

    private static final class Tracer {
        private final CellLocator.Finder finder;
        private final Field field;
        private final double tolerance;
        private final double longest;
        private final double widest;
        private final double near;
        private final double[][] k = new double[7][3];
        private final double[] p = new double[3];
        private final double[] q = new double[3];

        Tracer(CellLocator locator, Field field, double tolerance, double longest, double step) {
            finder = locator.finder();
            near = 1e-9 * locator.mesh().modelSize();
            this.field = field;
            this.tolerance = tolerance;
            this.longest = longest;
            this.widest = step;
        }

        /** The field at a place; false outside the mesh or where it is no number. */
        private boolean at(double[] place, double sign, double[] out) {
            int c = finder.find(place[0], place[1], place[2], near);
            if (c < 0) {
                return false;
            }
            Values v = field.values();
            if (field.at() == Field.At.CELL) {
                for (int d = 0; d < 3; d++) {
                    out[d] = sign * v.get(3 * c + d);
                }
            } else {
                Cell cell = finder.cell();
                double x = 0;
                double y = 0;
                double z = 0;
                for (int i = 0; i < cell.size(); i++) {
                    double w = cell.weights()[i];
                    int n = 3 * cell.node(i);
                    x += w * v.get(n);
                    y += w * v.get(n + 1);
                    z += w * v.get(n + 2);
                }
                out[0] = sign * x;
                out[1] = sign * y;
                out[2] = sign * z;
            }
            return Double.isFinite(out[0] + out[1] + out[2]);
        }

        void trace(double[] seeds, int from, double sign, Trace out) {
            System.arraycopy(seeds, from, p, 0, 3);
            if (!at(p, sign, k[0])) {
                return;
            }
            out.add(p, 0, 0, finder.cell());
            double time = 0;
            double length = 0;
            double h = 0.25 * widest / Math.max(norm(k[0]), Double.MIN_NORMAL);
            for (int step = 0; step < MOST_STEPS && length < longest; step++) {
                double speed = norm(k[0]);
                if (!(speed > 0) || h * speed < 1e-12 * widest) {
                    return;
                }
                h = Math.min(h, Math.min(widest, longest - length) / speed);
                if (!stages(sign, h)) {
                    // The step leaves the mesh: take half of it, down to the boundary.
                    if (h * speed < tolerance) {
                        return;
                    }
                    h /= 2;
                    continue;
                }
                double error = error(h);
                if (error > tolerance) {
                    h *= Math.max(0.2, 0.9 * Math.pow(tolerance / error, 0.2));
                    continue;
                }
                double moved = Math.sqrt(
                        (q[0] - p[0]) * (q[0] - p[0]) + (q[1] - p[1]) * (q[1] - p[1]) + (q[2] - p[2]) * (q[2] - p[2]));
                time += h;
                length += moved;
                System.arraycopy(q, 0, p, 0, 3);
                out.add(p, sign * time, sign * length, finder.cell());
                System.arraycopy(k[6], 0, k[0], 0, 3);
                h *= Math.min(4, 0.9 * Math.pow(tolerance / Math.max(error, 1e-30), 0.2));
            }
        }

        /** Leaves the new place in q and the field there in the last stage. */
        private boolean stages(double sign, double h) {
            for (int s = 1; s < 7; s++) {
                for (int d = 0; d < 3; d++) {
                    double sum = 0;
                    for (int j = 0; j < s; j++) {
                        sum += A[s][j] * k[j][d];
                    }
                    q[d] = p[d] + h * sum;
                }
                if (!at(q, sign, k[s])) {
                    return false;
                }
            }
            return true;
        }

        private double error(double h) {
            double sum = 0;
            for (int d = 0; d < 3; d++) {
                double e = 0;
                for (int s = 0; s < 7; s++) {
                    e += E[s] * k[s][d];
                }
                sum += h * e * h * e;
            }
            return Math.sqrt(sum);
        }

        private static double norm(double[] v) {
            return Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
        }
    }
}
