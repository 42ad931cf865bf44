package lane.evaluation;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import lane.base.Content;
import lane.base.Memo;
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
        int[] among = among(byNode, mesh, cells, memo);
        double[] bounds = among.length < values.length() ? new double[] {1, 0} : bounds(values);
        if (!(bounds[0] <= bounds[1])) {
            return Optional.empty();
        }
        var cell = new Cell(mesh);
        List<Optional<RegionIntegral.Located>> both = Arrays.stream(bounds)
                .map(v -> ready.factor() * v + ready.offset())
                .mapToObj(v -> located(mesh, cell, first(values, among, ready.factor(), ready.offset(), v), byNode, v))
                .toList();
        return Optional.of(new RegionExtremes(both.getFirst(), both.getLast()));
    }

    /** The first that is a value in SI units; -1 for none. */
    private static int first(Values.Held values, int[] among, double factor, double offset, double wanted) {
        switch (values) {
            case Values.Doubles(double[] all) -> {
                for (int index : among) {
                    if (factor * all[index] + offset == wanted) {
                        return index;
                    }
                }
            }
            case Values.Floats(float[] all) -> {
                for (int index : among) {
                    if (factor * all[index] + offset == wanted) {
                        return index;
                    }
                }
            }
            case Values.Ints(int[] all) -> {
                for (int index : among) {
                    if (factor * all[index] + offset == wanted) {
                        return index;
                    }
                }
            }
        }
        return -1;
    }

    /** The least and the greatest; no numbers where one is none. */
    private static double[] bounds(Values.Held values) {
        return switch (values) {
            case Values.Doubles(double[] all) -> {
                double least = Double.POSITIVE_INFINITY;
                double greatest = Double.NEGATIVE_INFINITY;
                for (double value : all) {
                    least = Math.min(least, value);
                    greatest = Math.max(greatest, value);
                }
                yield new double[] {least, greatest};
            }
            case Values.Floats(float[] all) -> {
                float least = Float.POSITIVE_INFINITY;
                float greatest = Float.NEGATIVE_INFINITY;
                for (float value : all) {
                    least = Math.min(least, value);
                    greatest = Math.max(greatest, value);
                }
                yield new double[] {least, greatest};
            }
            case Values.Ints(int[] all) -> {
                int least = Integer.MAX_VALUE;
                int greatest = Integer.MIN_VALUE;
                for (int value : all) {
                    least = Math.min(least, value);
                    greatest = Math.max(greatest, value);
                }
                yield new double[] {least, greatest};
            }
        };
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
