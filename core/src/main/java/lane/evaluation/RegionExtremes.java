package lane.evaluation;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.DoublePredicate;
import lane.base.Content;
import lane.base.Memo;
import lane.base.Parallel;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Program;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.station.Box;
import org.jspecify.annotations.Nullable;

/** Least and greatest value of a quantity in cells of a run, found together; empty where there is none. */
record RegionExtremes(Optional<RegionIntegral.Located> least, Optional<RegionIntegral.Located> greatest) {
    private record NodesKey(Mesh.Key mesh, Content cells) {}

    /** The nodes of cells, each once, in the order in which the cells meet them. */
    private static int[] nodes(Mesh mesh, int[] cells) {
        boolean[] met = new boolean[mesh.nodeCount()];
        int[] out = new int[mesh.nodeCount()];
        int n = 0;
        for (int c : cells) {
            for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                int node = mesh.nodes()[k];
                if (!met[node]) {
                    met[node] = true;
                    out[n++] = node;
                }
            }
        }
        return Arrays.copyOf(out, n);
    }

    /**
     * Of what is stored or formed at nodes or cells; the first of equals.
     *
     * @param box within which they are looked for; null for none
     */
    static RegionExtremes of(BoundQuantity ready, Run run, int[] cells, @Nullable Box box, Memo memo) {
        boolean byNode = ready.byNode();
        Optional<RegionExtremes> quick = box == null ? stored(ready, run, cells, memo) : Optional.empty();
        if (quick.isPresent()) {
            return quick.get();
        }
        double[] all = ready.values(byNode ? SamplePoints.nodes(run) : SamplePoints.cells(run))[0];
        var mesh = run.mesh();
        int[] among = among(byNode, mesh, cells, memo);
        var cell = new Cell(mesh);
        double[] at = new double[3];
        int least = -1;
        int greatest = -1;
        for (int index : among) {
            double value = all[index];
            // The first that is a number is both; of what is none neither comparison holds.
            boolean first = least < 0 && !Double.isNaN(value);
            boolean less = first || least >= 0 && value < all[least];
            boolean greater = first || greatest >= 0 && value > all[greatest];
            if (!less && !greater) {
                continue;
            }
            if (box != null) {
                place(mesh, cell, index, byNode, at);
                if (!box.holds(at[0], at[1], at[2])) {
                    continue;
                }
            }
            least = less ? index : least;
            greatest = greater ? index : greatest;
        }
        return new RegionExtremes(
                located(mesh, cell, least, byNode, least < 0 ? Double.NaN : all[least]),
                located(mesh, cell, greatest, byNode, greatest < 0 ? Double.NaN : all[greatest]));
    }

    private static int[] among(boolean byNode, Mesh mesh, int[] cells, Memo memo) {
        return byNode ? memo.of(new NodesKey(mesh.key(), Content.of(cells)), () -> nodes(mesh, cells)) : cells;
    }

    /**
     * Of numbers as they are stored, where all of them are looked at and none is missing: least and greatest are found in the
     * unit of the file, then the first place that has them. Empty for others.
     */
    private static Optional<RegionExtremes> stored(BoundQuantity ready, Run run, int[] cells, Memo memo) {
        Program.Leaf leaf = ready.program().alone();
        Field field = leaf == null ? null : ready.field(leaf);
        if (field == null || field.components() > 1 || !(ready.factor() > 0)) {
            return Optional.empty();
        }
        Values.Held values = field.values().now();
        Mesh mesh = run.mesh();
        boolean byNode = ready.byNode();
        if (among(byNode, mesh, cells, memo).length < values.length()) {
            return Optional.empty();
        }
        double[][] bounds = bounds(values);
        double least = Arrays.stream(bounds[0]).reduce(Double.POSITIVE_INFINITY, Math::min);
        double greatest = Arrays.stream(bounds[1]).reduce(Double.NEGATIVE_INFINITY, Math::max);
        if (!(least <= greatest)) {
            return Optional.empty();
        }
        var cell = new Cell(mesh);
        double low = ready.factor() * least + ready.offset();
        double high = ready.factor() * greatest + ready.offset();
        int[] rank = !byNode
                ? null
                : memo.of(new RankKey(mesh.key(), Content.of(cells)), () -> rank(among(true, mesh, cells, memo)));
        int first = first(values, bounds[0], rank, v -> ready.factor() * v + ready.offset() == low);
        int last = first(values, bounds[1], rank, v -> ready.factor() * v + ready.offset() == high);
        return Optional.of(
                new RegionExtremes(located(mesh, cell, first, byNode, low), located(mesh, cell, last, byNode, high)));
    }

    /** Values that are looked at together. */
    private static final int ROW = 1 << 12;

    /** The least numbers of rows, and their greatest; NaN where one is missing. */
    private static double[][] bounds(Values.Held values) {
        int rows = Parallel.blocks(values.length(), ROW);
        double[][] out = new double[2][rows];
        double[] row = new double[Math.min(ROW, values.length())];
        for (int r = 0; r < rows; r++) {
            int n = Math.min(ROW, values.length() - r * ROW);
            values.load(r * ROW, n, 1, 0, row);
            double least = Double.POSITIVE_INFINITY;
            double greatest = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < n; i++) {
                double v = row[i];
                // Seldom; and always for a missing one, which compares with none.
                if (!(v >= least)) {
                    least = v;
                    if (Double.isNaN(v)) {
                        break;
                    }
                }
                if (v > greatest) {
                    greatest = v;
                }
            }
            out[0][r] = least;
            out[1][r] = greatest;
        }
        return out;
    }

    private record RankKey(Mesh.Key mesh, Content cells) {}

    /** For each of all nodes its place in an order. */
    private static int[] rank(int[] order) {
        int[] out = new int[order.length];
        for (int i = 0; i < order.length; i++) {
            out[order[i]] = i;
        }
        return out;
    }

    /**
     * The first that is wanted.
     *
     * @param best of each row the number that comes nearest to it: a row holds one where this is one
     * @param rank the place of each in the order in which they are looked at; null for as they stand
     */
    private static int first(Values.Held values, double[] best, int @Nullable [] rank, DoublePredicate wanted) {
        double[] row = new double[Math.min(ROW, values.length())];
        int found = -1;
        for (int r = 0; r < best.length; r++) {
            if (!wanted.test(best[r])) {
                continue;
            }
            int n = Math.min(ROW, values.length() - r * ROW);
            values.load(r * ROW, n, 1, 0, row);
            for (int i = 0; i < n; i++) {
                int index = r * ROW + i;
                if (wanted.test(row[i]) && (found < 0 || rank != null && rank[index] < rank[found])) {
                    found = index;
                }
            }
        }
        return found;
    }

    private static Optional<RegionIntegral.Located> located(
            Mesh mesh, Cell cell, int index, boolean byNode, double value) {
        if (index < 0) {
            return Optional.empty();
        }
        double[] at = new double[3];
        place(mesh, cell, index, byNode, at);
        return Optional.of(new RegionIntegral.Located(value, new Point(at[0], at[1], at[2])));
    }

    private static void place(Mesh mesh, Cell cell, int index, boolean byNode, double[] to) {
        if (byNode) {
            System.arraycopy(mesh.xyz(), 3 * index, to, 0, 3);
        } else {
            cell.load(index).centre(to);
        }
    }
}
