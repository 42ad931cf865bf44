package lane.evaluation;

import java.util.Arrays;
import java.util.Objects;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Program;
import lane.formula.Spot;
import lane.mesh.CellQuadrature;
import lane.mesh.Point;
import lane.quantity.Quantity;
import org.jspecify.annotations.Nullable;

/**
 * Integrals over cells: the integrand is formed at quadrature points of degree 4; sums are compensated and merged in the
 * order of the cells. A plane run's cells count for its depth, or for the full turn that it stands for.
 *
 * @param cells numbers of the cells, ascending
 */
public record RegionIntegral(Run run, int[] cells, EvaluationContext lens) {
    private static final int BLOCK = 1024;
    public static final int DEGREE = 4;

    /**
     * Integral of the quantity and volume, in SI units.
     *
     * @param quantity null for the volume alone
     */
    public double[] sums(@Nullable Quantity quantity) {
        return sums(run, cells, quantity, lens);
    }

    /** A value at a place. */
    public record Located(double value, Point place) {}

    /** Least or greatest value at nodes, or in cells. */
    public Located extreme(Quantity quantity, boolean greatest) {
        return extreme(run, cells, quantity, lens, greatest);
    }

    /** The values of a quantity at the quadrature points of the cells, with their volume. */
    public Weighted weighted(Quantity quantity) {
        BoundQuantity bound = BoundQuantity.of(run, quantity, lens).number();
        double factor = bound.factor();
        double offset = bound.offset();
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                return added(run, cells, bound, lens, n, (v, w, sums) -> each.add(factor * v + offset, w, sums))[0];
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    private static double[] sums(Run run, int[] cells, @Nullable Quantity quantity, EvaluationContext lens) {
        BoundQuantity ready =
                quantity == null ? null : BoundQuantity.of(run, quantity, lens).number();
        double[][] made = added(run, cells, ready, lens, 1, (v, w, sums) -> sums[0].add(w * v));
        double factor = ready == null ? 1 : ready.factor();
        double offset = ready == null ? 0 : ready.offset();
        return new double[] {factor * made[0][0] + offset * made[1][0], made[1][0]};
    }

    /** Sums of what each value adds, in the unit that its program gives, and the volume. */
    private static double[][] added(
            Run run, int[] cells, @Nullable BoundQuantity ready, EvaluationContext lens, int n, Weighted.Each each) {
        MeshSpan span = MeshSpan.of(run, lens.axis());
        double[][] partial = new double[Parallel.blocks(cells.length, BLOCK)][];
        Parallel.forBlocks(cells.length, BLOCK, (block, from, to) -> {
            var rule = new CellQuadrature(run.mesh(), DEGREE);
            Sum[] own = Sum.fresh(n);
            var volume = new Sum();
            var batch = ready == null ? null : new CellBatch(ready, each, own);
            for (int i = from; i < to; i++) {
                rule.load(cells[i]);
                double size = batch != null && batch.wantsVolume() ? rule.cell().measure() : 0;
                for (int q = 0; q < rule.size(); q++) {
                    rule.at(q);
                    double w = rule.weight() * span.weight(rule.x(), rule.y(), rule.z());
                    volume.add(w);
                    if (batch != null) {
                        batch.add(rule, cells[i], w, size);
                    }
                }
            }
            if (batch != null) {
                batch.flush();
            }
            partial[block] = Arrays.copyOf(Sum.values(own), n + 1);
            partial[block][n] = volume.value();
        });
        Sum[] total = Sum.fresh(n + 1);
        for (double[] p : partial) {
            for (int i = 0; i <= n; i++) {
                total[i].add(p[i]);
            }
        }
        double[] all = Sum.values(total);
        return new double[][] {Arrays.copyOf(all, n), {all[n]}};
    }

    /** Quadrature points of cells, computed a block at a time. */
    private static final class CellBatch {
        private final Program.Bench bench;
        private final Field[] fields;
        private final Program.Leaf[] leaves;
        private final double[] weight = new double[Program.BLOCK];
        private final Weighted.Each each;
        private final Sum[] sums;
        /** Values of node fields at the nodes of the cell that is looked at. */
        private final double[][] local;
        /** Of the points, where a theory wants them; else null. */
        private double @Nullable [][] place;

        private int cell = -1;
        private int n;

        CellBatch(BoundQuantity ready, Weighted.Each each, Sum[] sums) {
            this.each = each;
            this.sums = sums;
            bench = ready.program().bench();
            leaves = ready.program().leaves().toArray(Program.Leaf[]::new);
            fields = new Field[leaves.length];
            local = new double[leaves.length][27];
            for (int i = 0; i < leaves.length; i++) {
                fields[i] = ready.field(leaves[i]);
                Object key = leaves[i].key();
                if (key instanceof Anywhere) {
                    place = new double[3][Program.BLOCK];
                } else if (fields[i] == null && key != Spot.PLACE && key != Spot.CELL_VOLUME) {
                    throw new LaneException(
                            "\"" + ((Spot) key).word() + "\" is not known within a region; read it on a" + " surface.");
                }
            }
        }

        boolean wantsVolume() {
            for (Program.Leaf leaf : leaves) {
                if (leaf.key() == Spot.CELL_VOLUME) {
                    return true;
                }
            }
            return false;
        }

        void add(CellQuadrature rule, int at, double w, double volume) {
            if (at != cell) {
                cell = at;
                gather(rule);
            }
            for (int i = 0; i < leaves.length; i++) {
                bench.leaf(i)[n] = value(i, rule, volume);
            }
            if (place != null) {
                place[0][n] = rule.x();
                place[1][n] = rule.y();
                place[2][n] = rule.z();
            }
            weight[n++] = w;
            if (n == Program.BLOCK) {
                flush();
            }
        }

        private void gather(CellQuadrature rule) {
            int size = rule.cell().size();
            for (int i = 0; i < leaves.length; i++) {
                Field f = fields[i];
                if (f == null || f.at() == Field.At.CELL) {
                    continue;
                }
                if (local[i].length < size) {
                    local[i] = new double[2 * size];
                }
                for (int k = 0; k < size; k++) {
                    local[i][k] = f.values().get(rule.cell().node(k) * f.components() + leaves[i].component());
                }
            }
        }

        private double value(int i, CellQuadrature rule, double volume) {
            int component = leaves[i].component();
            Field f = fields[i];
            if (f == null) {
                return leaves[i].key() == Spot.CELL_VOLUME
                        ? volume
                        : component == 0 ? rule.x() : component == 1 ? rule.y() : rule.z();
            }
            if (f.at() == Field.At.CELL) {
                return f.values().get(cell * f.components() + component);
            }
            double sum = 0;
            double[] v = local[i];
            double[] shares = rule.weights();
            for (int k = 0; k < rule.cell().size(); k++) {
                sum += shares[k] * v[k];
            }
            return sum;
        }

        void flush() {
            for (int i = 0; i < leaves.length; i++) {
                if (leaves[i].key() instanceof Anywhere a) {
                    double[][] at = Objects.requireNonNull(place);
                    a.at(at[0], at[1], at[2], n, bench.leaf(i));
                }
            }
            bench.run(n);
            double[] v = bench.result(0);
            for (int i = 0; i < n; i++) {
                each.add(v[i], weight[i], sums);
            }
            n = 0;
        }
    }

    private static Located extreme(Run run, int[] cells, Quantity quantity, EvaluationContext lens, boolean greatest) {
        BoundQuantity ready = BoundQuantity.of(run, quantity, lens).number();
        boolean byNode = ready.byNode();
        double[] all = ready.values(byNode ? SamplePoints.nodes(run) : SamplePoints.cells(run))[0];
        var mesh = run.mesh();
        var cell = new lane.mesh.Cell(mesh);
        double[] at = new double[3];
        double best = Double.NaN;
        Point place = null;
        for (int c : cells) {
            for (int k = 0; k < (byNode ? mesh.size(c) : 1); k++) {
                int index = byNode ? mesh.nodes()[mesh.begin(c) + k] : c;
                double value = all[index];
                if (!Double.isNaN(value) && (Double.isNaN(best) || (greatest ? value > best : value < best))) {
                    best = value;
                    if (byNode) {
                        System.arraycopy(mesh.xyz(), 3 * index, at, 0, 3);
                    } else {
                        cell.load(c).centre(at);
                    }
                    place = new Point(at[0], at[1], at[2]);
                }
            }
        }
        if (place == null) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" has no value in the region.");
        }
        return new Located(best, place);
    }
}
