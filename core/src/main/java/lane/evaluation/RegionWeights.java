package lane.evaluation;

import java.util.Arrays;
import lane.base.Parallel;
import lane.base.Sized;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.CellQuadrature;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * What each node, or each cell, counts in the integral of a stored field over cells: the sum over the points of the rule of the
 * point's volume times its share of the node. On a mesh that does not change it is found once, and the integral at each time is
 * one product; it differs from that by points by round-off. The same on any number of threads.
 *
 * @param at numbers of the nodes or cells, ascending
 * @param weight of each, in m3
 * @param volume of the cells
 */
record RegionWeights(int[] at, double[] weight, double volume) implements Sized {
    private static final int BLOCK = 1024;
    /** Blocks whose shares are held at once. */
    private static final int WAVE = 128;

    /** Products that one thread adds up: fewer are not worth another one. */
    private static final int PRODUCTS = 1 << 18;

    /** Values that are looked up at once, where they are not there in a row. */
    private static final int ROW = 1 << 12;

    @Override
    public long bytes() {
        return 4L * at.length + 8L * weight.length;
    }

    /** Shares of the cells of a block, one cell after the other. */
    private static final class Shares {
        int[] node = new int[8 * BLOCK];
        double[] share = new double[8 * BLOCK];
        int n;

        void room(int more) {
            if (n + more > node.length) {
                node = Arrays.copyOf(node, 2 * (n + more));
                share = Arrays.copyOf(share, node.length);
            }
        }
    }

    /**
     * @param cells ascending
     * @param most degree of the full rule
     * @param linear degree that is enough in cells whose shape functions are linear in each direction
     */
    static RegionWeights of(Mesh mesh, int[] cells, int most, int linear, Field.At at) {
        boolean nodes = at == Field.At.NODE;
        double[] all = new double[nodes ? mesh.nodeCount() : mesh.cellCount()];
        boolean[] used = new boolean[all.length];
        int blocks = Parallel.blocks(cells.length, BLOCK);
        double[] volumes = new double[blocks];
        var shares = new Shares[Math.min(WAVE, blocks)];
        Arrays.setAll(shares, i -> new Shares());
        for (int wave = 0; wave < blocks; wave += WAVE) {
            int first = wave;
            int waves = Math.min(WAVE, blocks - wave);
            Parallel.forBlocks(waves, 1, (w, a, b) -> {
                int from = (first + w) * BLOCK;
                shares[w].n = 0;
                volumes[first + w] =
                        block(mesh, cells, from, Math.min(cells.length, from + BLOCK), most, linear, nodes, shares[w]);
            });
            for (int w = 0; w < waves; w++) {
                Shares s = shares[w];
                for (int i = 0; i < s.n; i++) {
                    all[s.node[i]] += s.share[i];
                    used[s.node[i]] = true;
                }
            }
        }
        int n = 0;
        int[] which = new int[all.length];
        for (int i = 0; i < all.length; i++) {
            if (used[i]) {
                which[n] = i;
                all[n++] = all[i];
            }
        }
        return new RegionWeights(Arrays.copyOf(which, n), Arrays.copyOf(all, n), Sum.of(volumes));
    }

    private static double block(
            Mesh mesh, int[] cells, int from, int to, int most, int linear, boolean nodes, Shares into) {
        var rule = new CellQuadrature(mesh, most, linear);
        var volume = new Sum();
        double[] local = new double[27];
        double[] weight = new double[64];
        // Volumes of points, many of which are added up at once.
        double[] stands = new double[8 * BLOCK];
        int held = 0;
        for (int i = from; i < to; i++) {
            rule.load(cells[i]);
            int corners = rule.cell().size();
            int points = rule.size();
            if (local.length < corners) {
                local = new double[2 * corners];
            }
            if (weight.length < points) {
                weight = new double[2 * points];
            }
            rule.spread(local, weight);
            if (held + points > stands.length) {
                volume.add(stands, held);
                held = 0;
            }
            if (points > stands.length) {
                volume.add(weight, points);
            } else {
                System.arraycopy(weight, 0, stands, held, points);
                held += points;
            }
            if (!nodes) {
                into.room(1);
                into.node[into.n] = cells[i];
                double sum = 0;
                for (int q = 0; q < points; q++) {
                    sum += weight[q];
                }
                into.share[into.n++] = sum;
                continue;
            }
            into.room(corners);
            for (int k = 0; k < corners; k++) {
                into.node[into.n] = rule.cell().node(k);
                into.share[into.n++] = local[k];
            }
        }
        volume.add(stands, held);
        return volume.value();
    }

    /** Integral of one component of a field, with compensated sums in the order of the nodes or cells. */
    double of(Field field, int component) {
        double[] partial = new double[Parallel.blocks(at.length, PRODUCTS)];
        boolean all = at.length == field.size();
        Values values = field.values();
        double @Nullable [] row =
                all && field.components() == 1 && values instanceof Values.Doubles(double[] array) ? array : null;
        Parallel.forBlocks(at.length, PRODUCTS, (b, from, to) -> {
            var sum = new Sum();
            if (row != null) {
                sum.addProducts(row, from, weight, from, to - from);
            } else {
                double[] v = new double[Math.min(ROW, to - from)];
                for (int first = from; first < to; first += ROW) {
                    int n = Math.min(ROW, to - first);
                    if (all) {
                        values.load(first, n, field.components(), component, v);
                    } else {
                        values.gather(at, first, n, field.components(), component, v);
                    }
                    sum.addProducts(v, 0, weight, first, n);
                }
            }
            partial[b] = sum.value();
        });
        return Sum.of(partial);
    }
}
