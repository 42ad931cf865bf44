package lane.station;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;
import lane.cut.LineCuts;
import lane.mesh.Axis;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** Resolves lines and lists of points on a mesh. */
public final class Placer {
    /** A point this far outside, as part of the model size, is moved onto the boundary. */
    public static final double TOLERANCE = 1e-6;

    private static final int BLOCK = 2048;

    private Placer() {}

    /** Places a path on the mesh behind the locator. */
    public static Placement path(CellLocator locator, Shape.Path path, Work work) {
        return path(locator, path, null, work);
    }

    /**
     * Places a path on a mesh, or on one that lies in the half plane of angle zero of an axis and stands for the full
     * turn: places are then looked up where they come to lie when turned about the axis.
     *
     * @param turned the axis of the full turn; null for a mesh that stands for itself
     */
    public static Placement path(CellLocator locator, Shape.Path path, @Nullable Axis turned, Work work) {
        if (!(path.sampling() instanceof Sampling.CellExact)) {
            PathSamples s = PathSamples.of(path);
            return points(locator, s.xyz(), null, s.arc(), s.weight(), turned, work);
        }
        var exact = new Exact();
        List<Point> corners = path.corners();
        double before = 0;
        for (int i = 0; i + 1 < corners.size(); i++) {
            work.poll();
            var line = new Line(corners.get(i), corners.get(i + 1), path.sampling(), path.abscissa());
            exact.add(line, turned == null ? cuts(locator, line) : turnedCuts(locator, line, turned), before);
            before += line.length();
        }
        return points(locator, exact.xyz(), exact.probe(), exact.arc(), exact.weight(), turned, work);
    }

    /** Where places come to lie when turned into the half plane of angle zero. */
    private static double[] turn(double[] xyz, Axis axis) {
        double[] out = new double[xyz.length];
        for (int i = 0; i < xyz.length; i += 3) {
            Point p = turn(new Point(xyz[i], xyz[i + 1], xyz[i + 2]), axis);
            out[i] = p.x();
            out[i + 1] = p.y();
            out[i + 2] = p.z();
        }
        return out;
    }

    private static Point turn(Point p, Axis axis) {
        return axis.place(axis.radius(p.x(), p.y(), p.z()), 0, axis.along(p.x(), p.y(), p.z()));
    }

    /**
     * A line in a plane with the axis stays straight in the half plane, up to where it crosses the axis: each side of
     * that is cut at every face on its own.
     */
    private static double[] turnedCuts(CellLocator locator, Line line, Axis axis) {
        Point d = line.b().minus(line.a());
        Point across = d.minus(axis.direction().times(d.dot(axis.direction())));
        Point off = line.a().minus(axis.origin());
        off = off.minus(axis.direction().times(off.dot(axis.direction())));
        if (off.cross(across).norm() > 1e-9 * line.length() * locator.mesh().modelSize()) {
            throw new LaneException("The line lies in no plane with the axis, so in an axisymmetric "
                    + "run it cannot be cut at every cell; sample it evenly.");
        }
        double at = across.norm() == 0 ? -1 : -off.dot(across) / across.dot(across);
        boolean crosses = at > 1e-12 && at < 1 - 1e-12;
        double[] ends = crosses ? new double[] {0, at, 1} : new double[] {0, 1};
        var all = new ArrayList<double[]>();
        for (int i = 0; i + 1 < ends.length; i++) {
            var piece = new Line(
                    turn(along(line.a(), line.b(), ends[i]), axis),
                    turn(along(line.a(), line.b(), ends[i + 1]), axis),
                    line.sampling(),
                    line.abscissa());
            double[] cuts = LineCuts.of(locator, piece.a(), piece.b());
            settle(locator, piece, cuts);
            double from = ends[i];
            double span = ends[i + 1] - from;
            all.add(Arrays.stream(cuts).map(c -> from + c * span).toArray());
        }
        double[] cuts = all.getFirst();
        if (crosses) {
            cuts = Arrays.copyOf(cuts, cuts.length + all.get(1).length - 1);
            System.arraycopy(all.get(1), 1, cuts, all.getFirst().length, all.get(1).length - 1);
        }
        return cuts;
    }

    private static double[] cuts(CellLocator locator, Line line) {
        double[] cuts = LineCuts.of(locator, line.a(), line.b());
        settle(locator, line, cuts);
        return cuts;
    }

    /** Collects three samples for each stretch between two cuts. */
    private static final class Exact {
        private double[] xyz = new double[96];
        private double[] probe = new double[96];
        private double[] arc = new double[32];
        private double[] weight = new double[32];
        private int count;

        void add(Line line, double[] cuts, double before) {
            double length = line.length();
            for (int i = 0; i + 1 < cuts.length; i++) {
                double span = (cuts[i + 1] - cuts[i]) * length;
                double middle = (cuts[i] + cuts[i + 1]) / 2;
                double[] at = {cuts[i], middle, cuts[i + 1]};
                while (count + 3 > arc.length) {
                    xyz = Arrays.copyOf(xyz, 2 * xyz.length);
                    probe = Arrays.copyOf(probe, 2 * probe.length);
                    arc = Arrays.copyOf(arc, 2 * arc.length);
                    weight = Arrays.copyOf(weight, 2 * weight.length);
                }
                for (int k = 0; k < 3; k++) {
                    put(xyz, count, line, at[k]);
                    // Ends are looked up in the cell of the middle, so the value is that of this cell on its own face.
                    put(probe, count, line, middle);
                    arc[count] = before + at[k] * length;
                    weight[count++] = span * (k == 1 ? 4 : 1) / 6;
                }
            }
        }

        private static void put(double[] xyz, int i, Line line, double f) {
            // Written so that f = 0 and f = 1 give the ends exactly.
            xyz[3 * i] = (1 - f) * line.a().x() + f * line.b().x();
            xyz[3 * i + 1] = (1 - f) * line.a().y() + f * line.b().y();
            xyz[3 * i + 2] = (1 - f) * line.a().z() + f * line.b().z();
        }

        double[] xyz() {
            return Arrays.copyOf(xyz, 3 * count);
        }

        double[] probe() {
            return Arrays.copyOf(probe, 3 * count);
        }

        double[] arc() {
            return Arrays.copyOf(arc, count);
        }

        double[] weight() {
            return Arrays.copyOf(weight, count);
        }
    }

    /**
     * A bent face is cut into triangles to find the crossings; the cells themselves end where their shape functions do.
     * Each crossing is moved there by halving the way between the middles of its two neighbours.
     */
    private static void settle(CellLocator locator, Line line, double[] cuts) {
        int n = cuts.length - 1;
        int[] cell = new int[n];
        var finder = locator.finder();
        for (int i = 0; i < n; i++) {
            Point p = along(line.a(), line.b(), (cuts[i] + cuts[i + 1]) / 2);
            cell[i] = finder.find(p.x(), p.y(), p.z(), 0);
        }
        var probe = new Cell(locator.mesh());
        for (int i = 1; i < n; i++) {
            int before = cell[i - 1];
            int after = cell[i];
            boolean bent = before != after
                    && (before >= 0 && !inside(probe.load(before), line, cuts[i])
                            || after >= 0 && !inside(probe.load(after), line, cuts[i]));
            if (!bent) {
                continue;
            }
            probe.load(before >= 0 ? before : after);
            double in = before >= 0 ? (cuts[i - 1] + cuts[i]) / 2 : (cuts[i] + cuts[i + 1]) / 2;
            double out = before >= 0 ? (cuts[i] + cuts[i + 1]) / 2 : (cuts[i - 1] + cuts[i]) / 2;
            for (int step = 0; step < 60 && Math.abs(in - out) > 1e-15; step++) {
                double middle = (in + out) / 2;
                if (inside(probe, line, middle)) {
                    in = middle;
                } else {
                    out = middle;
                }
            }
            cuts[i] = in;
        }
    }

    private static boolean inside(Cell cell, Line line, double f) {
        Point p = along(line.a(), line.b(), f);
        return cell.locate(p.x(), p.y(), p.z()) == 0;
    }

    /** Places a list of points; abscissa is their number and weight 1. */
    public static Placement points(CellLocator locator, double[] xyz, Work work) {
        return points(locator, xyz, null, work);
    }

    /**
     * The same in a mesh that stands for a full turn.
     *
     * @param turned its axis; null for one that stands for itself
     */
    public static Placement points(CellLocator locator, double[] xyz, @Nullable Axis turned, Work work) {
        double[] arc = new double[xyz.length / 3];
        double[] weight = new double[arc.length];
        Arrays.setAll(arc, i -> i);
        Arrays.fill(weight, 1);
        return points(locator, xyz, null, arc, weight, turned, work);
    }

    private static Placement points(
            CellLocator locator,
            double[] xyz,
            double @Nullable [] probe,
            double[] arc,
            double[] weight,
            @Nullable Axis turned,
            Work work) {
        int n = arc.length;
        double[] places = turned == null ? xyz : turn(xyz, turned);
        double[] look = probe == null ? places : turned == null ? probe : turn(probe, turned);
        Mesh mesh = locator.mesh();
        double tolerance = TOLERANCE * mesh.modelSize();
        int[] order = n > 4 * BLOCK ? order(mesh, places, n) : null;
        int[] cell = new int[n];
        int blocks = Parallel.blocks(n, BLOCK);
        int[][] blockNodes = new int[blocks][];
        double[][] blockShares = new double[blocks][];
        int[] count = new int[n];
        double[] miss = new double[n];
        Parallel.forBlocks(n, BLOCK, (block, from, to) -> {
            if (work.cancelled()) {
                return;
            }
            var finder = locator.finder();
            int[] nodes = new int[(to - from) * 8];
            double[] shares = new double[(to - from) * 8];
            int at = 0;
            for (int k = from; k < to; k++) {
                int i = order == null ? k : order[k];
                int found = finder.find(look[3 * i], look[3 * i + 1], look[3 * i + 2], tolerance);
                cell[i] = found;
                if (found < 0) {
                    continue;
                }
                Cell c = finder.cell();
                if (probe != null) {
                    c.locate(places[3 * i], places[3 * i + 1], places[3 * i + 2]);
                }
                miss[i] = finder.miss();
                if (at + c.size() > nodes.length) {
                    nodes = Arrays.copyOf(nodes, 2 * (at + c.size()));
                    shares = Arrays.copyOf(shares, nodes.length);
                }
                for (int v = 0; v < c.size(); v++) {
                    nodes[at] = c.node(v);
                    shares[at++] = c.weights()[v];
                }
                count[i] = c.size();
            }
            blockNodes[block] = nodes;
            blockShares[block] = shares;
        });
        work.poll();
        int[] start = new int[n + 1];
        for (int i = 0; i < n; i++) {
            start[i + 1] = Math.addExact(start[i], count[i]);
        }
        int[] node = new int[start[n]];
        double[] share = new double[start[n]];
        for (int b = 0; b < blocks; b++) {
            int at = 0;
            for (int k = b * BLOCK; k < Math.min(n, (b + 1) * BLOCK); k++) {
                int i = order == null ? k : order[k];
                System.arraycopy(blockNodes[b], at, node, start[i], count[i]);
                System.arraycopy(blockShares[b], at, share, start[i], count[i]);
                at += count[i];
            }
            blockNodes[b] = null;
            blockShares[b] = null;
        }
        return new Placement(xyz, arc, weight, cell, start, node, share, miss);
    }

    /** Many points in any order are looked up along a space-filling curve: neighbours share cells and caches. */
    private static int[] order(Mesh mesh, double[] xyz, int n) {
        double[] b = mesh.bounds();
        long[] keys = new long[n];
        Parallel.forBlocks(n, 1 << 14, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                keys[i] = CellLocator.curve(b, xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]) << 32 | i;
            }
        });
        Arrays.parallelSort(keys);
        int[] order = new int[n];
        for (int i = 0; i < n; i++) {
            order[i] = (int) keys[i];
        }
        return order;
    }

    /** The point of the segment at fraction {@code f}. */
    static Point along(Point a, Point b, double f) {
        return a.times(1 - f).plus(b.times(f));
    }
}
