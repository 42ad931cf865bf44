package lane.evaluation;

import java.util.Arrays;
import lane.base.Parallel;
import lane.base.Sized;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Values;
import lane.formula.Program;
import lane.mesh.Cell;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Roundness;
import org.jspecify.annotations.Nullable;

/**
 * What each node, or each cell, counts in a {@link Linear} integral of a stored field over the faces of a part: the sum over the
 * points of the rule of what the integrand counts there times the point's share of the node. On a mesh that does not change it is
 * found once, and the integral at each time is one product; it differs from that by points by round-off. The same on any number
 * of threads.
 *
 * @param at numbers of the nodes or cells, in the order in which faces meet them
 * @param weight of each in each integral: {@code weight[sum][component][node]}, empty where a component never counts
 * @param ones the integrals of a first component that is one everywhere
 */
record FaceWeights(int[] at, double[][][] weight, double[] ones) implements Sized {
    private static final int BLOCK = 4096;
    /** Blocks whose shares are held at once. */
    private static final int WAVE = 16;

    private static final int PRODUCTS = 1 << 14;

    @Override
    public long bytes() {
        long arrays = Arrays.stream(weight)
                .flatMap(Arrays::stream)
                .filter(w -> w.length > 0)
                .count();
        return at.length * (4L + 8 * arrays);
    }

    /** What faces of a block count: numbers of nodes, and for each as many numbers as there are pairs of sum and component. */
    private static final class Shares {
        private final int row;
        int[] node = new int[4 * BLOCK];
        double[] share;
        int n;
        final double[] ones;

        Shares(int row, int sums) {
            this.row = row;
            share = new double[row * node.length];
            ones = new double[sums];
        }

        void room(int more) {
            if (n + more > node.length) {
                node = Arrays.copyOf(node, 2 * (n + more));
                share = Arrays.copyOf(share, row * node.length);
            }
        }
    }

    /** Adds up what faces of a block count for the same node, so that little is left to be done in the order of blocks. */
    private static void gather(Shares s) {
        int mask = Integer.highestOneBit(Math.max(16, 2 * s.n)) * 2 - 1;
        int[] slot = new int[mask + 1];
        int n = 0;
        for (int i = 0; i < s.n; i++) {
            int node = s.node[i];
            int at = node * 0x9E3779B9 >>> 7 & mask;
            while (slot[at] != 0 && s.node[slot[at] - 1] != node) {
                at = at + 1 & mask;
            }
            if (slot[at] == 0) {
                // What stands before has been read: there are never more of them than were looked at.
                s.node[n] = node;
                System.arraycopy(s.share, s.row * i, s.share, s.row * n, s.row);
                slot[at] = ++n;
                continue;
            }
            int to = s.row * (slot[at] - 1);
            for (int k = 0; k < s.row; k++) {
                s.share[to + k] += s.share[s.row * i + k];
            }
        }
        s.n = n;
    }

    /** Walks over faces, as many at once as there is room for their points. One thread's own. */
    private static final class Walk {
        private final Part part;
        private final FaceBatch.Seen seen;
        private final Linear linear;
        private final int columns;
        private final FaceQuadrature rule;
        private final FlatTriangles flat;
        private final @Nullable Cell view;
        private final SurfacePoints points = new SurfacePoints(0);
        private final double[] here = new double[3];
        private final double[] facing = new double[3];
        /** Shares of the points' nodes, one point after the other. */
        private double[] held = new double[8 * Program.BLOCK];
        /** Of each waiting face: how many points and nodes it has. Their nodes stand one after the other in the shares. */
        private final int[] size = new int[Program.BLOCK];

        private final int[] nodes = new int[Program.BLOCK];
        private int waiting;
        private int filled;
        private final Shares into;
        private final Sum[] ones;

        Walk(Part part, FaceBatch.Seen seen, Linear linear, int columns, FaceQuadrature rule, Shares into) {
            this.part = part;
            this.seen = seen;
            this.linear = linear;
            this.columns = columns;
            this.rule = rule;
            this.into = into;
            flat = new FlatTriangles(rule);
            Mesh within = seen.within();
            view = within == null ? null : new Cell(within);
            ones = Sum.fresh(linear.sums());
        }

        void faces(int from, int to) {
            Mesh mesh = part.surface();
            boolean plain = part.round() == null && seen.at() == Field.At.NODE && view == null;
            int f = from;
            while (f < to) {
                int end = plain ? FlatTriangles.end(mesh, f, to) : f;
                if (end > f) {
                    triangles(mesh, f, end);
                    f = end;
                } else {
                    face(f++);
                }
            }
            count();
            for (int k = 0; k < ones.length; k++) {
                into.ones[k] = ones[k].value();
            }
        }

        private void triangles(Mesh mesh, int from, int to) {
            int own = flat.points();
            double[] shares = rule.triangle();
            int[] map = seen.node();
            int f = from;
            while (f < to) {
                int many = Math.min((Program.BLOCK - points.n) / own, to - f);
                if (many == 0) {
                    count();
                    continue;
                }
                flat.place(mesh, f, many, linear.placed(), points);
                into.room(3 * many);
                for (int k = 0; k < 3 * many; k++) {
                    into.node[into.n++] = map == null ? flat.corner[k] : map[flat.corner[k]];
                }
                hold(many * shares.length);
                for (int j = 0; j < many; j++) {
                    System.arraycopy(shares, 0, held, filled, shares.length);
                    filled += shares.length;
                }
                Arrays.fill(size, waiting, waiting + many, own);
                Arrays.fill(nodes, waiting, waiting + many, 3);
                waiting += many;
                points.n += many * own;
                f += many;
            }
        }

        private void hold(int more) {
            if (filled + more > held.length) {
                held = Arrays.copyOf(held, 2 * (filled + more));
            }
        }

        private void face(int f) {
            rule.load(f);
            int all = rule.size();
            for (int q = 0; q < all; q += Program.BLOCK) {
                int n = Math.min(Program.BLOCK, all - q);
                if (points.n + n > Program.BLOCK) {
                    count();
                }
                int corners = nodes(f);
                for (int i = 0; i < n; i++) {
                    place(q + i, corners);
                }
                size[waiting] = n;
                nodes[waiting++] = corners;
            }
        }

        /** Writes which nodes or cell a face takes its values from. */
        private int nodes(int f) {
            int[] owner = seen.owner();
            if (view != null && owner != null) {
                if (view.index() != owner[f]) {
                    view.load(owner[f]);
                }
                into.room(view.size());
                for (int k = 0; k < view.size(); k++) {
                    into.node[into.n++] = view.node(k);
                }
                return view.size();
            }
            if (seen.at() == Field.At.CELL) {
                into.room(1);
                into.node[into.n++] = owner == null ? f : owner[f];
                return 1;
            }
            int[] map = seen.node();
            int n = rule.nodes();
            into.room(n);
            for (int k = 0; k < n; k++) {
                into.node[into.n++] = map == null ? rule.node(k) : map[rule.node(k)];
            }
            return n;
        }

        /** Adds a point of the loaded face, and the shares of its nodes. */
        private void place(int q, int corners) {
            rule.at(q);
            int i = points.n++;
            if (part.round() == null) {
                points.x[i] = rule.x();
                points.y[i] = rule.y();
                points.z[i] = rule.z();
                points.nx[i] = rule.nx();
                points.ny[i] = rule.ny();
                points.nz[i] = rule.nz();
            } else {
                onto(part.round(), i);
            }
            hold(corners);
            if (view != null) {
                view.locate(points.x[i], points.y[i], points.z[i]);
                System.arraycopy(view.weights(), 0, held, filled, corners);
            } else if (seen.at() == Field.At.CELL) {
                held[filled] = 1;
            } else {
                System.arraycopy(rule.weights(), 0, held, filled, corners);
            }
            filled += corners;
        }

        private void onto(Roundness round, int i) {
            here[0] = rule.x();
            here[1] = rule.y();
            here[2] = rule.z();
            facing[0] = rule.nx();
            facing[1] = rule.ny();
            facing[2] = rule.nz();
            round.onto(here, facing);
            points.x[i] = here[0];
            points.y[i] = here[1];
            points.z[i] = here[2];
            points.nx[i] = facing[0];
            points.ny[i] = facing[1];
            points.nz[i] = facing[2];
        }

        /** Counts the points that wait for the nodes of their faces. */
        private void count() {
            int first = into.n;
            for (int w = 0; w < waiting; w++) {
                first -= nodes[w];
            }
            Arrays.fill(into.share, into.row * first, into.row * into.n, 0);
            for (int k = 0; k < linear.sums(); k++) {
                for (int c = 0; c < columns; c++) {
                    double[] counts = linear.counts(points, k, c);
                    if (counts == null) {
                        continue;
                    }
                    share(counts, into.row * first + k * columns + c);
                    if (c == 0) {
                        ones[k].add(counts, points.n);
                    }
                }
            }
            points.begin();
            waiting = 0;
            filled = 0;
        }

        private void share(double[] counts, int first) {
            double[] to = into.share;
            int row = into.row;
            int at = first;
            int point = 0;
            int share = 0;
            for (int w = 0; w < waiting; w++) {
                int corners = nodes[w];
                for (int end = point + size[w]; point < end; point++) {
                    double counted = counts[point];
                    for (int j = 0; j < corners; j++) {
                        to[at + row * j] += counted * held[share++];
                    }
                }
                at += row * corners;
            }
        }
    }

    /**
     * @param columns how many components the quantity has
     * @param most degree of the full rule
     * @param linear degree that is enough on faces whose shape functions are linear
     * @param plane unit normal of a plane run
     */
    static FaceWeights of(
            Part part, FaceBatch.Seen seen, Linear what, int columns, int most, int linear, double[] plane) {
        Mesh mesh = part.surface();
        int row = what.sums() * columns;
        int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
        // Which of the nodes that are met a node is, from one; 0 for those that are not.
        int[] number = new int[seen.values().length() / seen.components()];
        int[] met = new int[Math.min(number.length, 1024)];
        double[] rows = new double[row * met.length];
        int n = 0;
        Sum[] ones = Sum.fresh(what.sums());
        for (int wave = 0; wave < blocks; wave += WAVE) {
            int start = wave;
            var shares = new Shares[Math.min(WAVE, blocks - wave)];
            Parallel.forBlocks(shares.length, 1, (w, a, b) -> {
                int from = (start + w) * BLOCK;
                var own = new Shares(row, what.sums());
                var rule = new FaceQuadrature(mesh, most, linear, plane);
                new Walk(part, seen, what, columns, rule, own).faces(from, Math.min(mesh.cellCount(), from + BLOCK));
                gather(own);
                shares[w] = own;
            });
            for (Shares s : shares) {
                for (int i = 0; i < s.n; i++) {
                    int at = number[s.node[i]] - 1;
                    if (at < 0) {
                        if (n == met.length) {
                            met = Arrays.copyOf(met, (int) Math.min(number.length, 2L * n));
                            rows = Arrays.copyOf(rows, row * met.length);
                        }
                        at = n++;
                        number[s.node[i]] = n;
                        met[at] = s.node[i];
                    }
                    for (int k = 0; k < row; k++) {
                        rows[row * at + k] += s.share[row * i + k];
                    }
                }
                for (int k = 0; k < ones.length; k++) {
                    ones[k].add(s.ones[k]);
                }
            }
        }
        return new FaceWeights(Arrays.copyOf(met, n), columns(rows, n, what, columns), Sum.values(ones));
    }

    /** One array for each pair of sum and component that counts. */
    private static double[][][] columns(double[] rows, int n, Linear what, int columns) {
        var points = new SurfacePoints(0);
        double[][][] out = new double[what.sums()][columns][0];
        for (int k = 0; k < out.length; k++) {
            for (int c = 0; c < columns; c++) {
                if (what.counts(points, k, c) != null) {
                    out[k][c] = new double[n];
                    for (int i = 0; i < n; i++) {
                        out[k][c][i] = rows[out.length * columns * i + k * columns + c];
                    }
                }
            }
        }
        return out;
    }

    /**
     * The sum of the sizes of a number or vector, with what its first component counts in the first integral.
     *
     * @param shift added to each component times the factor
     */
    double size(FaceBatch.Seen seen, int[] take, double factor, double shift) {
        Values values = seen.values().now();
        double[] first = weight[0][0];
        double[] partial = new double[Parallel.blocks(at.length, PRODUCTS)];
        Parallel.forBlocks(at.length, PRODUCTS, (b, from, to) -> {
            int n = to - from;
            double[] v = new double[n];
            double[] square = new double[n];
            for (int component : take) {
                values.gather(at, from, n, seen.components(), component, v);
                for (int i = 0; i < n; i++) {
                    square[i] += (factor * v[i] + shift) * (factor * v[i] + shift);
                }
            }
            for (int i = 0; i < n; i++) {
                square[i] = Math.sqrt(square[i]);
            }
            var sum = new Sum();
            sum.addProducts(square, first, from, n);
            partial[b] = sum.value();
        });
        return Sum.of(partial);
    }

    /**
     * The integrals, with compensated sums in the order of the nodes or cells.
     *
     * @param seen the field
     * @param take which component of the field stands for each of those that are counted
     */
    double[] of(FaceBatch.Seen seen, int[] take) {
        Values values = seen.values().now();
        double[][] partial = new double[Parallel.blocks(at.length, PRODUCTS)][];
        Parallel.forBlocks(at.length, PRODUCTS, (b, from, to) -> {
            int n = to - from;
            Sum[] sums = Sum.fresh(weight.length);
            double[] v = new double[n];
            for (int c = 0; c < take.length; c++) {
                values.gather(at, from, n, seen.components(), take[c], v);
                for (int k = 0; k < weight.length; k++) {
                    double[] w = weight[k][c];
                    if (w.length > 0) {
                        sums[k].addProducts(v, w, from, n);
                    }
                }
            }
            partial[b] = Sum.values(sums);
        });
        Sum[] total = Sum.fresh(weight.length);
        for (double[] p : partial) {
            for (int k = 0; k < p.length; k++) {
                total[k].add(p[k]);
            }
        }
        return Sum.values(total);
    }
}
