package lane.evaluation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Parallel;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.formula.Program;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Roundness;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Integrals over boundary parts: at each quadrature point of each face the fields are interpolated, then the integrand
 * is formed, so the integral of a product is the product integrated. Rules are exact to degree 4 on flat triangles and
 * parallelograms; on other faces the error falls as h^5 or faster, that of the faceting itself as h^2. Sums are
 * compensated and merged in the order of the faces.
 */
public final class SurfaceIntegral {
    private static final int BLOCK = 8192;
    public static final int DEGREE = 4;

    private final Run run;
    private final List<Part> parts;
    private final EvaluationContext lens;
    private final Memo memo;
    private final int most;
    private final Exactness exact;

    /** @throws LaneException for curves and surfaces together, where metres would be added to square metres */
    public SurfaceIntegral(Run run, List<Part> parts, EvaluationContext lens, Memo memo) {
        this(run, parts, lens, memo, DEGREE);
    }

    /** @param most degree of the full rule */
    public SurfaceIntegral(Run run, List<Part> parts, EvaluationContext lens, Memo memo, int most) {
        this(run, parts, lens, memo, most, new Exactness());
    }

    private SurfaceIntegral(Run run, List<Part> parts, EvaluationContext lens, Memo memo, int most, Exactness exact) {
        if (parts.stream().map(p -> p.surface().dimension()).distinct().count() > 1 && !CellMeasures.flat(run.mesh())) {
            throw new LaneException(
                    "Of these parts some are surfaces and some are curves, so that areas would be added to lengths; take those and these"
                            + " in readings of their own.");
        }
        this.run = run;
        this.parts = parts;
        this.lens = lens;
        this.memo = memo;
        this.most = most;
        this.exact = exact;
    }

    /** Whether an integral that was taken so far depends on the rule. */
    public boolean inexact() {
        return exact.lost();
    }

    /** The same by the next rule, which tells how much the rule matters. */
    public SurfaceIntegral finer() {
        return new SurfaceIntegral(run, parts, lens, memo, most + 2);
    }

    public int degree() {
        return most;
    }

    public Run run() {
        return run;
    }

    public List<Part> parts() {
        return parts;
    }

    public EvaluationContext lens() {
        return lens;
    }

    /** The same parts seen through another lens. */
    public SurfaceIntegral through(EvaluationContext other) {
        return new SurfaceIntegral(run, parts, other, memo, most, exact);
    }

    /** Whether the parts are curves on a surface that bends, or its rims: what is taken over them is taken along a length. */
    public boolean alongCurves() {
        return parts.stream().allMatch(p -> p.surface().dimension() == 1) && !CellMeasures.flat(run.mesh());
    }

    /** @throws LaneException over curves of a curved surface, where a normal of one plane would be wrong */
    public void needsNormals(String what) {
        if (alongCurves()) {
            throw new LaneException(
                    "A " + what + " over a curve on a curved surface would need the direction across the curve at each"
                            + " place, which is not computed; take an integral of a quantity along it, or a part of a solid.");
        }
    }

    /** The unit that integrals over the parts are taken over: square metres, or metres along curves of a curved surface. */
    public Unit over() {
        return Unit.of(alongCurves() ? "m" : "m2");
    }

    /** Length of parts that are curves or rims, in metres, whatever depth their run stands for. */
    public double length() {
        if (!parts.stream().allMatch(p -> p.surface().dimension() == 1)) {
            throw new LaneException(
                    "These parts are surfaces and have an area; a length is that of rims, lines and curves.");
        }
        run.gather().needsWhole("The length of rims and curves");
        var sum = new Sum();
        for (Part part : parts) {
            var cell = new Cell(part.surface());
            for (int c = 0; c < part.surface().cellCount(); c++) {
                sum.add(cell.load(c).measure());
            }
        }
        return sum.value();
    }

    /** Adds its integrand times the area, of a block of points, to the sums. */
    @FunctionalInterface
    public interface Integrand {
        void add(SurfacePoints at, Sum[] sums);

        /** Whether it looks at where points are. */
        default boolean placed() {
            return true;
        }

        /** The same where it does not, which saves making places. */
        default Integrand anywhere() {
            Integrand own = this;
            return new Integrand() {
                @Override
                public void add(SurfacePoints at, Sum[] sums) {
                    own.add(at, sums);
                }

                @Override
                public boolean placed() {
                    return false;
                }
            };
        }
    }

    /** The degree of an integrand as a polynomial within a face, from those of the quantities. */
    @FunctionalInterface
    public interface Degree {
        int of(int... quantities);
    }

    private record Key(
            Object what,
            List<Mesh.Key> surfaces,
            List<Object> formulas,
            List<Object> seen,
            @Nullable MeshSpan turn,
            int most) {}

    /** A quantity on the first part. */
    public BoundQuantity ready(String quantity) {
        return BoundQuantity.of(run, parts.getFirst(), lens.quantity(quantity), lens);
    }

    /** Of any integrand, by the full rule. */
    public double[] of(Object what, List<String> quantities, int sums, Integrand integrand) {
        return of(what, quantities, sums, q -> Program.NO_POLYNOMIAL, integrand);
    }

    /**
     * Integrates over the parts in order, in the units that programs give, so that stating another unit integrates nothing
     * again. A polynomial is integrated by the rule that is exact for it, where that is less than the full one.
     *
     * @param what tells this integrand from all others over the same parts and quantities, by value
     * @param sums number of results
     */
    public double[] of(Object what, List<String> quantities, int sums, Degree degree, Integrand integrand) {
        List<FaceBatch.Asked> all = parts.stream().map(p -> ask(p, quantities)).toList();
        MeshSpan span = MeshSpan.of(run, lens.axis());
        List<Object> formulas = new ArrayList<>();
        List<Object> seen = new ArrayList<>();
        for (FaceBatch.Asked a : all) {
            for (BoundQuantity r : a.ready()) {
                formulas.add(r.key());
            }
            Arrays.stream(a.fields()).map(FaceBatch.Seen::key).forEach(seen::add);
        }
        var key = new Key(
                what,
                parts.stream().map(p -> p.surface().key()).toList(),
                formulas,
                seen,
                span.turned() ? span : null,
                most);
        exact.of(exactly(all, degree, span));
        double[] perDepth = run.gather()
                .sums(
                        List.of("over faces", what, quantities),
                        () -> memo.of(key, () -> integrate(all, sums, degree, integrand, span)));
        double depth = span.turned() ? 1 : span.factor();
        return depth == 1
                ? perDepth
                : Arrays.stream(perDepth).map(v -> depth * v).toArray();
    }

    /**
     * Integrals that are linear in a quantity, in the unit that its program gives. Of a stored field over several times they are
     * products with what its nodes or cells count, which is kept as long as there is room.
     *
     * @param ones whether the same integrals of one in place of its first component follow
     */
    public double[] linear(String quantity, Linear what, boolean ones) {
        List<FaceBatch.Asked> all =
                parts.stream().map(p -> ask(p, List.of(quantity))).toList();
        if (!weighing(all)) {
            var each = new LinearIntegrand(what, ones);
            return of(each, List.of(quantity), each.sums(), q -> what.degree(q[0]), each);
        }
        exact.of(exactly(all, q -> what.degree(q[0]), MeshSpan.of(run, lens.axis())));
        return run.gather().sums(List.of("by weights", what, quantity, ones), () -> byWeights(all, what, ones));
    }

    /**
     * How large a number or vector is wherever it points, times the area, in SI units: what sums are small against when they
     * cancel. Of a stored field it is taken at nodes or cells, between which it is a bit less.
     *
     * @param about what counts as none
     */
    public double size(String quantity, double about) {
        List<FaceBatch.Asked> all =
                parts.stream().map(p -> ask(p, List.of(quantity))).toList();
        BoundQuantity bound = ready(quantity);
        double factor = bound.factor();
        double shift = bound.offset() - about;
        if (!weighing(all)) {
            var size = new SizeIntegrand(factor, shift);
            return of(size, List.of(quantity), 1, size)[0];
        }
        return run.gather()
                .sums(List.of("size by weights", quantity, about), () -> {
                    double depth = MeshSpan.of(run, lens.axis()).factor();
                    var sum = new Sum();
                    for (int p = 0; p < parts.size(); p++) {
                        FaceBatch.Asked asked = all.get(p);
                        WeightsKey key = weightsKey(parts.get(p), asked, new Linear.Area(), 1);
                        sum.add(weights(key, parts.get(p), asked)
                                .size(asked.fields()[0], asked.plain(), factor, shift));
                    }
                    return new double[] {depth * sum.value()};
                })[0];
    }

    /**
     * Whether what nodes and cells count can be kept, of stored fields over what no axis turns, and is worth it: for other times,
     * or where points are looked up in cells, which costs as much as finding out what nodes count. It must not hang on what
     * was asked before, so that a number is the same to the bit on whatever machine it is computed.
     */
    private boolean weighing(List<FaceBatch.Asked> all) {
        return memo != Memo.NONE
                && run.stated().turn() == null
                && all.stream().allMatch(a -> a.plain().length > 0)
                && (run.times().size() > 1 || all.stream().allMatch(FaceBatch.Asked::within));
    }

    private record WeightsKey(
            Linear what,
            Mesh.Key surface,
            Object way,
            @Nullable Roundness round,
            int columns,
            int most,
            int linear) {}

    private double[] byWeights(List<FaceBatch.Asked> all, Linear what, boolean ones) {
        int sums = what.sums();
        double depth = MeshSpan.of(run, lens.axis()).factor();
        Sum[] total = Sum.fresh(ones ? 2 * sums : sums);
        for (int p = 0; p < parts.size(); p++) {
            FaceBatch.Asked asked = all.get(p);
            int[] take = asked.plain();
            WeightsKey key = weightsKey(parts.get(p), asked, what, take.length);
            FaceWeights weights = weights(key, parts.get(p), asked);
            FaceBatch.Seen seen = asked.fields()[0];
            double[] made = memo.of(
                    List.of(
                            key,
                            seen.stored(),
                            seen.components(),
                            Arrays.stream(take).boxed().toList()),
                    () -> weights.of(seen, take));
            for (int k = 0; k < sums; k++) {
                total[k].add(depth * made[k]);
                if (ones) {
                    total[sums + k].add(depth * weights.ones()[k]);
                }
            }
        }
        return Sum.values(total);
    }

    /** By the rule that points would be taken by, so that both give the same. */
    private WeightsKey weightsKey(Part part, FaceBatch.Asked asked, Linear what, int columns) {
        FaceBatch.Seen seen = asked.fields()[0];
        int linear = part.round() == null && seen.within() == null
                ? Math.min(most, what.degree(asked.ready()[0].degree()))
                : most;
        return new WeightsKey(what, part.surface().key(), seen.way(), part.round(), columns, most, linear);
    }

    private FaceWeights weights(WeightsKey key, Part part, FaceBatch.Asked asked) {
        return memo.of(
                key,
                () -> FaceWeights.of(
                        part,
                        asked.fields()[0],
                        key.what,
                        key.columns,
                        most,
                        key.linear,
                        CellMeasures.plane(run.mesh())));
    }

    /** The values of a quantity at the quadrature points of the faces, with their area. */
    public Weighted weighted(String quantity) {
        BoundQuantity bound = ready(quantity).number();
        double factor = bound.factor();
        double offset = bound.offset();
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                return of(List.of("weighted", what, factor, offset), List.of(quantity), n, (at, sums) -> {
                    for (int i = 0; i < at.n; i++) {
                        each.add(factor * at.value[0][0][i] + offset, at.area()[i], sums);
                    }
                });
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    private FaceBatch.Asked ask(Part part, List<String> quantities) {
        BoundQuantity[] ready = new BoundQuantity[quantities.size()];
        int[][] leaf = new int[ready.length][];
        List<Field> fields = new ArrayList<>();
        for (int q = 0; q < ready.length; q++) {
            ready[q] = BoundQuantity.of(run, part, lens.quantity(quantities.get(q)), lens);
            List<Program.Leaf> leaves = ready[q].program().leaves();
            leaf[q] = new int[leaves.size()];
            for (int i = 0; i < leaf[q].length; i++) {
                Field f = ready[q].field(leaves.get(i));
                if (f == null) {
                    leaf[q][i] = -1;
                    continue;
                }
                if (!fields.contains(f)) {
                    fields.add(f);
                }
                leaf[q][i] = fields.indexOf(f);
            }
        }
        return new FaceBatch.Asked(ready, fields.stream().map(f -> see(part, f)).toArray(FaceBatch.Seen[]::new), leaf);
    }

    /** Whether the rule is exact: for polynomials on faces that nothing bends or turns. */
    private boolean exactly(List<FaceBatch.Asked> all, Degree degree, MeshSpan span) {
        for (int p = 0; p < parts.size(); p++) {
            FaceBatch.Asked asked = all.get(p);
            if (!straight(parts.get(p), asked, span) || degree.of(degrees(asked)) > most) {
                return false;
            }
        }
        return true;
    }

    /** On a cylinder, over a turn and within cut cells nothing is a polynomial of the face's own coordinates. */
    private static boolean straight(Part part, FaceBatch.Asked asked, MeshSpan span) {
        return part.round() == null && !span.turned() && !asked.within();
    }

    private static int[] degrees(FaceBatch.Asked asked) {
        return Arrays.stream(asked.ready()).mapToInt(BoundQuantity::degree).toArray();
    }

    private double[] integrate(List<FaceBatch.Asked> all, int sums, Degree degree, Integrand integrand, MeshSpan span) {
        double[] plane = CellMeasures.plane(run.mesh());
        Sum[] total = Sum.fresh(sums);
        for (int p = 0; p < parts.size(); p++) {
            Part part = parts.get(p);
            FaceBatch.Asked asked = all.get(p);
            int linear = straight(part, asked, span) ? Math.min(most, degree.of(degrees(asked))) : most;
            Mesh mesh = part.surface();
            double[][] partial = new double[Parallel.blocks(mesh.cellCount(), BLOCK)][];
            Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
                Sum[] own = Sum.fresh(sums);
                var rule = new FaceQuadrature(mesh, most, linear, plane);
                var batch = new FaceBatch(run, part, asked, integrand, own, span, rule);
                batch.faces(mesh, from, to);
                partial[block] = Sum.values(own);
            });
            for (double[] own : partial) {
                for (int i = 0; i < sums; i++) {
                    total[i].add(own[i]);
                }
            }
        }
        return Sum.values(total);
    }

    private FaceBatch.Seen see(Part part, Field field) {
        boolean own = part.fields().contains(field);
        // A surface cut out of the run takes its values within the cells that own its faces.
        boolean within = !own && field.at() == Field.At.NODE && part.cut() && known(part.owner());
        if (!own && !within) {
            boolean known = field.at() == Field.At.NODE
                    // Nodes that no face uses do not matter: surface files often carry a volume's nodes along.
                    ? known(part.node())
                            || Arrays.stream(part.surface().nodes()).allMatch(v -> part.node()[v] >= 0)
                    : known(part.owner());
            if (!known) {
                throw new LaneException("Part \"" + part.name() + "\" does not lie on the run's boundary everywhere ("
                        + part.unmatched() + " faces do not), so field \"" + field.name()
                        + "\" is not known there; give the part the field, or a surface of the same mesh.");
            }
        }
        boolean byNode = field.at() == Field.At.NODE;
        return new FaceBatch.Seen(
                field.values(),
                field.at(),
                field.components(),
                own || within || !byNode ? null : part.node(),
                own || byNode && !within ? null : part.owner(),
                within ? run.mesh() : null,
                field.stored());
    }

    private static boolean known(int[] all) {
        for (int v : all) {
            if (v < 0) {
                return false;
            }
        }
        return true;
    }

    /** The sum of the area vectors and, last, the area. */
    public double[] geometry() {
        return of("geometry", List.of(), 4, q -> most, (at, sums) -> {
            sums[0].add(at.nx, at.n);
            sums[1].add(at.ny, at.n);
            sums[2].add(at.nz, at.n);
            at.addArea(sums[3]);
        });
    }

    /** |sum of area vectors| / sum of areas: round-off for a closed surface. */
    public double closure() {
        double[] s = geometry();
        return s[3] == 0 ? 1 : Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]) / s[3];
    }
}
