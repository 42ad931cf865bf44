package lane.evaluation;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import lane.base.Content;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Parallel;
import lane.base.Sum;
import lane.cut.BoxedCell;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Program;
import lane.formula.Spot;
import lane.mesh.Cell;
import lane.mesh.CellQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Box;
import org.jspecify.annotations.Nullable;

/**
 * Integrals over cells: the integrand is formed at quadrature points of degree 4; sums are compensated and merged in the
 * order of the cells. A plane run's cells count for its depth, or for the full turn that it stands for.
 *
 * @param cells numbers of the cells, ascending
 * @param most degree of the full rule
 * @param exact what is known of integrals that were taken
 * @param box what the cells are cut by; null where they count whole
 * @param memo where it is kept what nodes and cells count on a mesh, so that it need not be found for each time
 * @param ready quantities that were made ready so far, which takes longer than a product
 */
public record RegionIntegral(
        Run run,
        int[] cells,
        EvaluationContext lens,
        int most,
        Exactness exact,
        @Nullable Box box,
        Memo memo,
        Map<Quantity, BoundQuantity> ready) {
    private static final int BLOCK = 1024;
    public static final int DEGREE = 4;

    public RegionIntegral(Run run, int[] cells, EvaluationContext lens) {
        this(run, cells, lens, DEGREE);
    }

    public RegionIntegral(Run run, int[] cells, EvaluationContext lens, int most) {
        this(run, cells, lens, most, new Exactness(), null, Memo.NONE, new HashMap<>());
    }

    /** The same with the part of each cell that lies in a box. */
    public RegionIntegral in(@Nullable Box sides) {
        return new RegionIntegral(run, cells, lens, most, exact, sides, memo, ready);
    }

    /** The same that keeps what it finds out about the mesh. */
    public RegionIntegral keeping(Memo in) {
        return new RegionIntegral(run, cells, lens, most, exact, box, in, ready);
    }

    /** A quantity made ready on the run, once. */
    public BoundQuantity ready(Quantity quantity) {
        // What it needs may be made ready meanwhile.
        BoundQuantity there = ready.get(quantity);
        if (there == null) {
            there = BoundQuantity.of(run, quantity, lens);
            ready.put(quantity, there);
        }
        return there;
    }

    /** Whether an integral that was taken so far depends on the rule. */
    public boolean inexact() {
        return exact.lost();
    }

    /** The same by the next rule, which tells how much the rule matters. */
    public RegionIntegral finer() {
        return new RegionIntegral(run, cells, lens, most + 2, new Exactness(), box, memo, ready);
    }

    /**
     * Integral of the quantity and volume, in SI units.
     *
     * @param quantity null for the volume alone
     */
    public double[] sums(@Nullable Quantity quantity) {
        BoundQuantity bound = quantity == null ? null : ready(quantity).number();
        String name = quantity == null ? "" : quantity.name();
        Field stored = bound == null ? null : stored(bound);
        double[] made = bound != null && stored != null
                ? byWeights(name, bound, stored)
                : added(name, bound, 1, bound == null ? 0 : bound.degree(), SUM);
        double factor = bound == null ? 1 : bound.factor();
        double offset = bound == null ? 0 : bound.offset();
        return new double[] {factor * made[0] + offset * made[1], made[1]};
    }

    /** The field that a quantity is as it is stored, where its integral is one product; null for another. */
    private @Nullable Field stored(BoundQuantity bound) {
        Program.Leaf leaf = memo == Memo.NONE || box != null || run.stated().turn() != null
                ? null
                : bound.program().alone();
        return leaf == null ? null : bound.field(leaf);
    }

    private record WeightsKey(Mesh.Key mesh, Content cells, int most, int linear, Field.At at) {}

    /** Of one component of a field, as it is stored at a time. */
    private record ProductKey(WeightsKey weights, Values stored, int components, int component) {}

    /** Integral in the unit of the file, and volume. */
    private double[] byWeights(String name, BoundQuantity bound, Field field) {
        int linear = Math.min(most, bound.degree());
        exact.of(bound.degree() <= most);
        double depth = MeshSpan.of(run, lens.axis()).factor();
        return run.gather().sums(List.of("by weights", name), () -> {
            var key = new WeightsKey(run.mesh().key(), Content.of(cells), most, linear, field.at());
            RegionWeights weights = memo.of(key, () -> RegionWeights.of(run.mesh(), cells, most, linear, field.at()));
            int component = Objects.requireNonNull(bound.program().alone()).component();
            double product = memo.of(
                    new ProductKey(key, field.stored(), field.components(), component),
                    () -> weights.of(field, component));
            return new double[] {depth * product, depth * weights.volume()};
        });
    }

    /** A value at a place. */
    public record Located(double value, Point place) {}

    /** Least or greatest value at nodes, or in cells. */
    public Located extreme(Quantity quantity, boolean greatest) {
        return run.gather()
                .of(
                        List.of("extreme", quantity.name(), greatest),
                        () -> here(quantity, greatest),
                        all -> best(all, greatest))
                .orElseThrow(
                        () -> new LaneException("Quantity \"" + quantity.name() + "\" has no value in the region."));
    }

    /** The values of a quantity at the quadrature points of the cells, with their volume. */
    public Weighted weighted(Quantity quantity) {
        BoundQuantity bound = ready(quantity).number();
        double factor = bound.factor();
        double offset = bound.offset();
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                double[] all =
                        added(List.of(quantity.name(), what), bound, n, Program.NO_POLYNOMIAL, (v, w, count, sums) -> {
                            for (int i = 0; i < count; i++) {
                                each.add(factor * v[i] + offset, w[i], sums);
                            }
                        });
                return Arrays.copyOf(all, n);
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    /** What a block of values adds to the sums, with the volumes that they stand for. */
    private interface Terms {
        void add(double[] values, double[] weights, int n, Sum[] sums);
    }

    private static final Terms SUM = (v, w, n, sums) -> sums[0].addProducts(v, w, n);

    /**
     * Sums of what each value adds, in the unit that its program gives, and last the volume.
     *
     * @param what tells these sums from others over the same cells, by value
     * @param degree of the integrand as a polynomial within a cell
     */
    private double[] added(Object what, @Nullable BoundQuantity bound, int n, int degree, Terms terms) {
        MeshSpan span = MeshSpan.of(run, lens.axis());
        int linear = span.turned() ? most : Math.min(most, degree);
        // In a part of a cell a shape function counts with all three directions.
        int inSpace = Math.min(most, 3 * degree);
        exact.of(!span.turned() && (box == null ? degree : 3 * degree) <= most);
        return run.gather().sums(List.of("over cells", what), () -> here(bound, n, linear, inSpace, terms, span));
    }

    /** Of the cells of this run, or of this piece of it. */
    private double[] here(@Nullable BoundQuantity bound, int n, int linear, int inSpace, Terms terms, MeshSpan span) {
        double[][] partial = new double[Parallel.blocks(cells.length, BLOCK)][];
        Parallel.forBlocks(cells.length, BLOCK, (block, from, to) -> {
            var rule = new CellQuadrature(run.mesh(), most, linear);
            Sum[] own = Sum.fresh(n);
            var volume = new Sum();
            var batch = new CellBatch(bound, terms, own, volume, span);
            BoxedCell boxed = box == null ? null : new BoxedCell(box.bounds(), box.frame());
            for (int i = from; i < to; i++) {
                rule.load(cells[i]);
                BoxedCell.Side side = boxed == null ? BoxedCell.Side.INSIDE : boxed.side(rule.cell());
                if (side == BoxedCell.Side.INSIDE) {
                    batch.cell(rule, cells[i]);
                } else if (side == BoxedCell.Side.ACROSS && boxed != null) {
                    batch.part(rule, cells[i], boxed, inSpace);
                }
            }
            batch.flush();
            partial[block] = Arrays.copyOf(Sum.values(own), n + 1);
            partial[block][n] = volume.value();
        });
        Sum[] total = Sum.fresh(n + 1);
        for (double[] p : partial) {
            for (int i = 0; i <= n; i++) {
                total[i].add(p[i]);
            }
        }
        return Sum.values(total);
    }

    /** Quadrature points of cells, computed a block at a time. */
    private static final class CellBatch {
        private final Program.@Nullable Bench bench;
        private final Field[] fields;
        private final Program.Leaf[] leaves;
        private final double[] weight = new double[Program.BLOCK];
        private final Terms terms;
        private final Sum[] sums;
        private final Sum volume;
        private final MeshSpan span;
        /** Values of node fields at the nodes of the cell that is looked at, or its one value. */
        private final double[][] local;
        /** Whether the places of points are wanted: of leaves, of other lanes, or for the weight. */
        private final boolean places;

        private final boolean wantsVolume;
        private final double[][] place = new double[3][Program.BLOCK];
        private int n;

        CellBatch(@Nullable BoundQuantity ready, Terms terms, Sum[] sums, Sum volume, MeshSpan span) {
            this.terms = terms;
            this.sums = sums;
            this.volume = volume;
            this.span = span;
            bench = ready == null ? null : ready.program().bench();
            leaves = ready == null
                    ? new Program.Leaf[0]
                    : ready.program().leaves().toArray(Program.Leaf[]::new);
            fields = new Field[leaves.length];
            local = new double[leaves.length][27];
            boolean where = span.turned();
            boolean size = false;
            for (int i = 0; i < leaves.length; i++) {
                fields[i] = Objects.requireNonNull(ready).field(leaves[i]);
                Object key = leaves[i].key();
                where |= key instanceof Anywhere || key == Spot.PLACE;
                size |= key == Spot.CELL_VOLUME;
                if (fields[i] == null && !(key instanceof Anywhere) && key != Spot.PLACE && key != Spot.CELL_VOLUME) {
                    throw new LaneException(
                            "\"" + ((Spot) key).word() + "\" is not known within a region; read it on a" + " surface.");
                }
            }
            places = where;
            wantsVolume = size;
        }

        /** Adds the points of a cell. */
        void cell(CellQuadrature rule, int at) {
            for (int i = 0; i < leaves.length; i++) {
                gather(i, rule, at);
            }
            double cellVolume = wantsVolume ? rule.cell().measure() : 0;
            double[] measures = places ? null : rule.measures();
            if (measures != null) {
                table(rule, measures, cellVolume);
                return;
            }
            int nodes = rule.cell().size();
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                double[] shares = rule.weights();
                weight[n] = rule.weight() * span.weight(rule.x(), rule.y(), rule.z());
                place[0][n] = rule.x();
                place[1][n] = rule.y();
                place[2][n] = rule.z();
                point(shares, nodes, cellVolume);
            }
        }

        /** Adds points in the part of a cell that lies in a box. */
        void part(CellQuadrature rule, int at, BoxedCell boxed, int degree) {
            for (int i = 0; i < leaves.length; i++) {
                gather(i, rule, at);
            }
            double cellVolume = wantsVolume ? rule.cell().measure() : 0;
            Cell cell = rule.cell();
            boolean interpolated = Arrays.stream(fields).anyMatch(f -> f != null && f.at() == Field.At.NODE);
            boxed.points(cell, degree, (x, y, z, volume) -> {
                if (interpolated) {
                    cell.locate(x, y, z);
                }
                weight[n] = volume * span.weight(x, y, z);
                place[0][n] = x;
                place[1][n] = y;
                place[2][n] = z;
                point(cell.weights(), cell.size(), cellVolume);
            });
        }

        /** Fills in the leaves of a point whose place is there. */
        private void point(double[] shares, int nodes, double cellVolume) {
            for (int i = 0; i < leaves.length; i++) {
                double[] to = Objects.requireNonNull(bench).leaf(i);
                Field f = fields[i];
                if (f != null && f.at() == Field.At.NODE) {
                    double sum = 0;
                    double[] v = local[i];
                    for (int k = 0; k < nodes; k++) {
                        sum += shares[k] * v[k];
                    }
                    to[n] = sum;
                } else if (f != null) {
                    to[n] = local[i][0];
                } else if (leaves[i].key() instanceof Spot spot) {
                    to[n] = spot == Spot.CELL_VOLUME ? cellVolume : place[leaves[i].component()][n];
                }
            }
            if (++n == Program.BLOCK) {
                flush();
            }
        }

        /** The points of a cell at once, where their shape functions stand in a table and no place is wanted. */
        private void table(CellQuadrature rule, double[] measures, double cellVolume) {
            int points = rule.size();
            if (n + points > Program.BLOCK) {
                flush();
            }
            for (int q = 0; q < points; q++) {
                weight[n + q] = measures[q] * span.factor();
            }
            for (int i = 0; i < leaves.length; i++) {
                double[] to = Objects.requireNonNull(bench).leaf(i);
                Field f = fields[i];
                if (f != null && f.at() == Field.At.NODE) {
                    rule.interpolate(local[i], to, n);
                } else {
                    Arrays.fill(to, n, n + points, f == null ? cellVolume : local[i][0]);
                }
            }
            n += points;
            // Cells of other shapes add one point after the other, and take it that there is room for it.
            if (n == Program.BLOCK) {
                flush();
            }
        }

        private void gather(int i, CellQuadrature rule, int at) {
            Field f = fields[i];
            if (f == null) {
                return;
            }
            int component = leaves[i].component();
            if (f.at() == Field.At.CELL) {
                local[i][0] = f.values().get(at * f.components() + component);
                return;
            }
            int size = rule.cell().size();
            if (local[i].length < size) {
                local[i] = new double[2 * size];
            }
            int c = f.components();
            double[] to = local[i];
            if (f.values() instanceof Values.Doubles d) {
                double[] from = d.array();
                for (int k = 0; k < size; k++) {
                    to[k] = from[rule.cell().node(k) * c + component];
                }
            } else {
                for (int k = 0; k < size; k++) {
                    to[k] = f.values().get(rule.cell().node(k) * c + component);
                }
            }
        }

        void flush() {
            volume.add(weight, n);
            if (bench != null) {
                for (int i = 0; i < leaves.length; i++) {
                    if (leaves[i].key() instanceof Anywhere a) {
                        a.at(place[0], place[1], place[2], n, bench.leaf(i));
                    }
                }
                bench.run(n);
                terms.add(bench.result(0), weight, n, sums);
            }
            n = 0;
        }
    }

    /** The first of the best. */
    public static Optional<Located> best(List<Optional<Located>> all, boolean greatest) {
        Optional<Located> best = Optional.empty();
        for (Optional<Located> one : all) {
            if (one.isPresent()
                    && (best.isEmpty()
                            || (greatest ? one.get().value > best.get().value : one.get().value < best.get().value))) {
                best = one;
            }
        }
        return best;
    }

    /** Of a stored field, which is known by what it holds. */
    private record ExtremesKey(
            Mesh.Key mesh,
            Content cells,
            Field.At at,
            Values stored,
            int components,
            int component,
            double factor,
            double offset) {}

    /** Of this run, or of this piece of it. Who asks for the one mostly asks for the other. */
    private Optional<Located> here(Quantity quantity, boolean greatest) {
        BoundQuantity bound = ready(quantity).number();
        Field field = stored(bound);
        RegionExtremes both = field == null
                ? RegionExtremes.of(bound, run, cells, box, memo)
                : memo.of(
                        new ExtremesKey(
                                run.mesh().key(),
                                Content.of(cells),
                                field.at(),
                                field.stored(),
                                field.components(),
                                Objects.requireNonNull(bound.program().alone()).component(),
                                bound.factor(),
                                bound.offset()),
                        () -> RegionExtremes.of(bound, run, cells, box, memo));
        return greatest ? both.greatest() : both.least();
    }
}
