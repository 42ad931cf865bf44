package lane.transfer;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Sum;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Cell;
import lane.mesh.CellQuadrature;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.NodeCells;
import lane.mesh.Quadrature;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.ConjugateGradient;
import org.hipparchus.linear.RealLinearOperator;
import org.hipparchus.linear.RealVector;

/**
 * Values at nodes whose interpolation is next to the source's field in the mean square and has its integral: the mass matrix of the
 * target's shape functions times the values is the integral of each shape function times the field over what is common (J. T. Oden and
 * J. N. Reddy (1976), An Introduction to the Mathematical Theory of Finite Elements). Linear fields are kept exactly where the source
 * covers the target; beside jumps the values overshoot.
 */
final class ToNodes {
    private static final int BLOCK = 1 << 11;

    private final Mesh source;
    private final Mesh target;
    private final List<Field> fields;
    private final int components;
    private final Values.Held[] values;
    private final double[] covered;
    private final double[] size;
    /** For each target cell: its shape functions times each other, and times the fields. */
    private final double[][] mass;

    private final double[][] right;
    private final Quadrature rule;
    private final Remainder.Pairs[] pairs;
    private double[] lacking = {};

    ToNodes(Mesh source, Mesh target, List<Field> fields) {
        this.source = source;
        this.target = target;
        this.fields = fields;
        components = fields.stream().mapToInt(Field::components).sum();
        values = fields.stream().map(f -> f.values().now()).toArray(Values.Held[]::new);
        covered = new double[target.cellCount()];
        size = new double[target.cellCount()];
        mass = new double[target.cellCount()][];
        right = new double[target.cellCount()][];
        pairs = new Remainder.Pairs[target.cellCount()];
        rule = Quadrature.of(CellShape.TETRAHEDRON, degree(target) + Math.max(degree(target), degree(source)));
    }

    /** Degree of the shape functions of straight cells in space. */
    private static int degree(Mesh mesh) {
        int most = 1;
        for (int c = 0; c < mesh.cellCount(); c++) {
            CellShape s = mesh.shape(c);
            most = Math.max(
                    most,
                    s.dimension() != mesh.dimension() || Basis.inParts(s)
                            ? 1
                            : s.quadratic()
                                    ? 3
                                    : switch (s) {
                                        case TRIANGLE, TETRAHEDRON -> 1;
                                        case QUAD, PIXEL, WEDGE -> 2;
                                        default -> 3;
                                    });
        }
        return most;
    }

    void run(Work work) {
        new Overlap(source, target).run(true, true, Taken::new, work);
        lacking = new Remainder(source, fields, work).total(pairs, components);
    }

    Common common() {
        return Common.of(covered, size);
    }

    private final class Taken implements Overlap.Taker {
        private final CellBody here;
        private final CellBody there;
        private final double[] from = new double[3];
        private final double[] value = new double[components];
        private final double[] sums = new double[components];
        private final Remainder.Pairs bent = new Remainder.Pairs(components);
        private double[] own = new double[64];
        private double[] f = new double[8 * 3];
        private double[] source = new double[27];
        private double[] shape = new double[27];
        private double volume;
        private int cell;

        Taken(CellBody here, CellBody there) {
            this.here = here;
            this.there = there;
        }

        @Override
        public void begin(double[] origin) {
            System.arraycopy(origin, 0, from, 0, 3);
            int n = there.cell.size();
            if (own.length < n * n) {
                own = Arrays.copyOf(own, 2 * n * n);
            }
            if (f.length < n * components) {
                f = Arrays.copyOf(f, 2 * n * components);
            }
            source = source.length < here.cell.size() ? new double[2 * here.cell.size()] : source;
            shape = shape.length < n ? new double[2 * n] : shape;
        }

        @Override
        public void piece(int s, int body, int targetBody, Piece piece, double sign) {
            cell = s;
            double share = sign / here.thickness;
            volume += share * piece.volume;
            Arrays.fill(sums, 0);
            piece.tetrahedra((x, a, b, c, e, v) -> points(body, targetBody, x, a, b, c, e, v * share));
            if (!here.parts) {
                bent.add(s, share * piece.volume, sums);
            }
        }

        private void points(int body, int targetBody, double[] x, int a, int b, int c, int e, double volume) {
            double[] p = rule.points();
            double[] w = rule.weights();
            int n = there.cell.size();
            for (int q = 0; q < w.length; q++) {
                double r = p[3 * q];
                double s = p[3 * q + 1];
                double t = p[3 * q + 2];
                double o = 1 - r - s - t;
                double px = o * x[3 * a] + r * x[3 * b] + s * x[3 * c] + t * x[3 * e];
                double py = o * x[3 * a + 1] + r * x[3 * b + 1] + s * x[3 * c + 1] + t * x[3 * e + 1];
                double pz = o * x[3 * a + 2] + r * x[3 * b + 2] + s * x[3 * c + 2] + t * x[3 * e + 2];
                weights(here, body, px, py, pz, source);
                weights(there, targetBody, px, py, pz, shape);
                fields(here.cell);
                double weight = 6 * volume * w[q];
                for (int k = 0; k < components; k++) {
                    sums[k] += weight * value[k];
                }
                for (int i = 0; i < n; i++) {
                    double wi = weight * shape[i];
                    for (int j = 0; j < n; j++) {
                        own[i * n + j] += wi * shape[j];
                    }
                    for (int k = 0; k < components; k++) {
                        f[i * components + k] += wi * value[k];
                    }
                }
            }
        }

        private void weights(CellBody of, int body, double px, double py, double pz, double[] out) {
            if (of.parts) {
                of.weights(body, px, py, pz, out);
            } else {
                of.cell.locate(px + from[0], py + from[1], pz + from[2]);
                System.arraycopy(of.cell.weights(), 0, out, 0, of.cell.size());
            }
        }

        private void fields(Cell at) {
            int k = 0;
            for (int i = 0; i < values.length; i++) {
                Field field = fields.get(i);
                int m = field.components();
                for (int d = 0; d < m; d++, k++) {
                    value[k] = 0;
                    if (field.at() == Field.At.CELL) {
                        value[k] = values[i].get(cell * m + d);
                        continue;
                    }
                    for (int v = 0; v < at.size(); v++) {
                        value[k] += source[v] * values[i].get(at.node(v) * m + d);
                    }
                }
            }
        }

        @Override
        public void end(int c, double measure) {
            covered[c] = volume;
            size[c] = measure;
            if (volume > Overlap.NOTHING * measure) {
                int n = there.cell.size();
                mass[c] = Arrays.copyOf(own, n * n);
                right[c] = Arrays.copyOf(f, n * components);
            }
            pairs[c] = bent.taken();
            volume = 0;
            Arrays.fill(own, 0);
            Arrays.fill(f, 0);
        }
    }

    /**
     * All components at each node; NaN at those of no covered cell.
     *
     * @throws LaneException when the equations cannot be solved
     */
    double[] solve(Common common, Work work) {
        whole(common, work);
        NodeCells cells = NodeCells.of(target);
        int nodes = target.nodeCount();
        double[] out = new double[nodes * components];
        Arrays.fill(out, Double.NaN);
        var solver = new ConjugateGradient(2000, 1e-14, true);
        double[] weight = weights(work);
        for (int k = 0; k < components; k++) {
            work.poll();
            double[] b = new double[nodes];
            for (int c = 0; c < right.length; c++) {
                for (int v = 0; right[c] != null && v < target.size(c); v++) {
                    b[target.nodes()[target.begin(c) + v]] += right[c][v * components + k];
                }
            }
            double[] x;
            try {
                x = solver.solve(operator(cells), diagonal(cells), new ArrayRealVector(b, false))
                        .toArray();
            } catch (org.hipparchus.exception.MathRuntimeException e) {
                throw new LaneException(
                        "The values at nodes that keep the integral could not be found; transfer to cells instead.", e);
            }
            keep(x, weight, overlap(k));
            for (int v = 0; v < nodes; v++) {
                if (touched(cells, v)) {
                    out[v * components + k] = x[v];
                }
            }
            work.progress("values at nodes", (k + 1.0) / components);
        }
        return out;
    }

    /** A cell that is covered in part counts whole, so that what lies outside holds nothing. */
    private void whole(Common common, Work work) {
        Parallel.forBlocks(mass.length, BLOCK, (block, from, to) -> {
            work.poll();
            var quadrature = new CellQuadrature(target, 6);
            for (int c = from; c < to; c++) {
                if (mass[c] == null || common.share()[c] == 1) {
                    continue;
                }
                int n = target.size(c);
                double[] m = new double[n * n];
                quadrature.load(c);
                for (int q = 0; q < quadrature.size(); q++) {
                    quadrature.at(q);
                    for (int i = 0; i < n; i++) {
                        for (int j = 0; j < n; j++) {
                            m[i * n + j] += quadrature.weight()
                                    * quadrature.weights()[i]
                                    * quadrature.weights()[j];
                        }
                    }
                }
                mass[c] = m;
            }
        });
    }

    private boolean touched(NodeCells cells, int node) {
        for (int k = cells.start()[node]; k < cells.start()[node + 1]; k++) {
            if (mass[cells.cell()[k]] != null) {
                return true;
            }
        }
        return false;
    }

    private RealLinearOperator operator(NodeCells cells) {
        int nodes = target.nodeCount();
        return new RealLinearOperator() {
            @Override
            public int getRowDimension() {
                return nodes;
            }

            @Override
            public int getColumnDimension() {
                return nodes;
            }

            @Override
            public RealVector operate(RealVector of) {
                double[] x = of.toArray();
                double[] y = new double[nodes];
                Parallel.forBlocks(nodes, BLOCK, (block, from, to) -> {
                    for (int v = from; v < to; v++) {
                        boolean any = false;
                        for (int k = cells.start()[v]; k < cells.start()[v + 1]; k++) {
                            int c = cells.cell()[k];
                            double[] m = mass[c];
                            if (m == null) {
                                continue;
                            }
                            any = true;
                            int n = target.size(c);
                            int row = cells.place()[k] * n;
                            int begin = target.begin(c);
                            for (int j = 0; j < n; j++) {
                                y[v] += m[row + j] * x[target.nodes()[begin + j]];
                            }
                        }
                        // A node of no covered cell stands for itself, so that there is one solution.
                        y[v] = any ? y[v] : x[v];
                    }
                });
                return new ArrayRealVector(y, false);
            }
        };
    }

    /** One over the diagonal, as an operator. */
    private RealLinearOperator diagonal(NodeCells cells) {
        int nodes = target.nodeCount();
        double[] d = new double[nodes];
        for (int v = 0; v < nodes; v++) {
            for (int k = cells.start()[v]; k < cells.start()[v + 1]; k++) {
                int c = cells.cell()[k];
                int n = target.size(c);
                d[v] += mass[c] == null ? 0 : mass[c][cells.place()[k] * (n + 1)];
            }
            d[v] = d[v] > 0 ? 1 / d[v] : 1;
        }
        return new RealLinearOperator() {
            @Override
            public int getRowDimension() {
                return nodes;
            }

            @Override
            public int getColumnDimension() {
                return nodes;
            }

            @Override
            public RealVector operate(RealVector of) {
                double[] y = of.toArray();
                for (int v = 0; v < nodes; v++) {
                    y[v] *= d[v];
                }
                return new ArrayRealVector(y, false);
            }
        };
    }

    /** What the solver, and the rule in bent cells, left of the integral is spread over all nodes. */
    private void keep(double[] x, double[] weight, double wanted) {
        var has = new Sum();
        var volume = new Sum();
        for (int v = 0; v < x.length; v++) {
            has.add(weight[v] * x[v]);
            volume.add(weight[v]);
        }
        double off = (wanted - has.value()) / volume.value();
        for (int v = 0; v < x.length && Double.isFinite(off); v++) {
            x[v] += off;
        }
    }

    /** The integral of each node's shape function over the cells that are covered, by the rule that integrals of fields are taken by. */
    private double[] weights(Work work) {
        double[] out = new double[target.nodeCount()];
        double[][] each = new double[target.cellCount()][];
        Parallel.forBlocks(target.cellCount(), BLOCK, (block, from, to) -> {
            work.poll();
            var rule = new CellIntegral(target);
            for (int c = from; c < to; c++) {
                if (mass[c] != null) {
                    rule.load(c);
                    each[c] = Arrays.copyOf(rule.weights(), target.size(c));
                }
            }
        });
        for (int c = 0; c < each.length; c++) {
            for (int v = 0; each[c] != null && v < each[c].length; v++) {
                out[target.nodes()[target.begin(c) + v]] += each[c][v];
            }
        }
        return out;
    }

    /** The integral over what is common. */
    double overlap(int component) {
        var sum = new Sum();
        for (int c = 0; c < right.length; c++) {
            for (int v = 0; right[c] != null && v < target.size(c); v++) {
                sum.add(right[c][v * components + component]);
            }
        }
        sum.add(lacking[component]);
        return sum.value();
    }
}
