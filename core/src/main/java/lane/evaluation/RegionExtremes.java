package lane.evaluation;

import java.util.Arrays;
import java.util.Optional;
import lane.base.Content;
import lane.base.Memo;
import lane.field.Run;
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
        double[] all = ready.values(byNode ? SamplePoints.nodes(run) : SamplePoints.cells(run))[0];
        var mesh = run.mesh();
        int[] among = !byNode ? cells : memo.of(new NodesKey(mesh.key(), Content.of(cells)), () -> nodes(mesh, cells));
        var cell = new Cell(mesh);
        if (box == null && among.length == all.length) {
            double[] bounds = bounds(all);
            if (bounds[0] <= bounds[1]) {
                return new RegionExtremes(
                        located(mesh, cell, first(all, among, bounds[0]), byNode, all),
                        located(mesh, cell, first(all, among, bounds[1]), byNode, all));
            }
        }
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
        return new RegionExtremes(located(mesh, cell, least, byNode, all), located(mesh, cell, greatest, byNode, all));
    }

    /** The least and the greatest; no numbers where one is none. */
    private static double[] bounds(double[] all) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double value : all) {
            least = Math.min(least, value);
            greatest = Math.max(greatest, value);
        }
        return new double[] {least, greatest};
    }

    private static int first(double[] all, int[] among, double wanted) {
        for (int index : among) {
            if (all[index] == wanted) {
                return index;
            }
        }
        return -1;
    }

    private static Optional<RegionIntegral.Located> located(
            Mesh mesh, Cell cell, int index, boolean byNode, double[] all) {
        if (index < 0) {
            return Optional.empty();
        }
        double[] at = new double[3];
        place(mesh, cell, index, byNode, at);
        return Optional.of(new RegionIntegral.Located(all[index], new Point(at[0], at[1], at[2])));
    }

    private static void place(Mesh mesh, Cell cell, int index, boolean byNode, double[] to) {
        if (byNode) {
            System.arraycopy(mesh.xyz(), 3 * index, to, 0, 3);
        } else {
            cell.load(index).centre(to);
        }
    }
}
