package lane.evaluation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.base.Content;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Parallel;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Program;
import lane.formula.Spot;
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
    private static final int BLOCK = 2048;
    public static final int DEGREE = 4;

    private final Run run;
    private final List<Part> parts;
    private final EvaluationContext lens;
    private final Memo memo;

    /** @throws LaneException for curves and surfaces together, where metres would be added to square metres */
    public SurfaceIntegral(Run run, List<Part> parts, EvaluationContext lens, Memo memo) {
        if (parts.stream().map(p -> p.surface().dimension()).distinct().count() > 1 && !CellMeasures.flat(run.mesh())) {
            throw new LaneException(
                    "Of these parts some are surfaces and some are curves, so that areas would be added to lengths; take those and these"
                            + " in readings of their own.");
        }
        this.run = run;
        this.parts = parts;
        this.lens = lens;
        this.memo = memo;
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
        var sum = new Sum();
        for (Part part : parts) {
            var cell = new Cell(part.surface());
            for (int c = 0; c < part.surface().cellCount(); c++) {
                sum.add(cell.load(c).measure());
            }
        }
        return sum.value();
    }

    /** One point of a face: place, area vector (its length is the weight in square metres) and field values. */
    public static final class At {
        public double x;
        public double y;
        public double z;
        public double nx;
        public double ny;
        public double nz;
        public double area;
        /** Values of the asked quantities as their programs give them: {@code value[quantity][component]}. */
        public double[][] value = {};
    }

    /** Adds its integrand times the area to the sums. */
    @FunctionalInterface
    public interface Integrand {
        void add(At at, Sum[] sums);
    }

    /** A field on a part with the way from a face's nodes to its values. */
    private record Seen(
            Values values,
            Field.At at,
            int components,
            int @Nullable [] node,
            int @Nullable [] owner,
            @Nullable Mesh within,
            Values stored) {
        /** Equal where it gives the same numbers. */
        Object key() {
            return new SeenKey(
                    stored,
                    at,
                    components,
                    node == null ? null : Content.of(node),
                    owner == null ? null : Content.of(owner),
                    within == null ? null : within.key());
        }
    }

    private record SeenKey(
            Values values,
            Field.At at,
            int components,
            @Nullable Content node,
            @Nullable Content owner,
            Mesh.@Nullable Key within) {}

    /** Quantities on a part, and the fields that they are made of. */
    private record Asked(BoundQuantity[] ready, Seen[] fields, int[][] leaf) {}

    private record Key(
            Object what,
            List<Mesh.Key> surfaces,
            List<Object> formulas,
            List<Object> seen,
            @Nullable MeshSpan turn) {}

    /** A quantity on the first part. */
    public BoundQuantity ready(String quantity) {
        return BoundQuantity.of(run, parts.getFirst(), lens.quantity(quantity), lens);
    }

    /**
     * Integrates over the parts in order, in the units that programs give, so that stating another unit integrates nothing
     * again.
     *
     * @param what tells this integrand from all others over the same parts and quantities, by value
     * @param sums number of results
     */
    public double[] of(Object what, List<String> quantities, int sums, Integrand integrand) {
        List<Asked> all = parts.stream().map(p -> ask(p, quantities)).toList();
        MeshSpan span = MeshSpan.of(run, lens.axis());
        List<Object> formulas = new ArrayList<>();
        List<Object> seen = new ArrayList<>();
        for (Asked a : all) {
            for (BoundQuantity r : a.ready) {
                formulas.add(r.key());
            }
            Arrays.stream(a.fields).map(Seen::key).forEach(seen::add);
        }
        var key = new Key(
                what, parts.stream().map(p -> p.surface().key()).toList(), formulas, seen, span.turned() ? span : null);
        double[] perDepth = memo.of(key, () -> integrate(all, sums, integrand, span));
        double depth = span.turned() ? 1 : span.factor();
        return depth == 1
                ? perDepth
                : Arrays.stream(perDepth).map(v -> depth * v).toArray();
    }

    /** The values of a quantity at the quadrature points of the faces, with their area. */
    public Weighted weighted(String quantity) {
        BoundQuantity bound = ready(quantity).number();
        double factor = bound.factor();
        double offset = bound.offset();
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                return of(
                        List.of("weighted", what, factor, offset),
                        List.of(quantity),
                        n,
                        (at, sums) -> each.add(factor * at.value[0][0] + offset, at.area, sums));
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    private Asked ask(Part part, List<String> quantities) {
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
        return new Asked(ready, fields.stream().map(f -> see(part, f)).toArray(Seen[]::new), leaf);
    }

    private double[] integrate(List<Asked> all, int sums, Integrand integrand, MeshSpan span) {
        double[] plane = CellMeasures.plane(run.mesh());
        Sum[] total = Sum.fresh(sums);
        for (int p = 0; p < parts.size(); p++) {
            Part part = parts.get(p);
            Asked asked = all.get(p);
            Mesh mesh = part.surface();
            int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
            double[][] partial = new double[blocks][];
            Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
                Sum[] own = Sum.fresh(sums);
                var batch = new Batch(asked, integrand, own, span, part.round());
                var rule = new FaceQuadrature(mesh, DEGREE, plane);
                Cell view = Arrays.stream(asked.fields).anyMatch(s -> s.within != null) || batch.wantsVolume
                        ? new Cell(run.mesh())
                        : null;
                for (int f = from; f < to; f++) {
                    rule.load(f);
                    batch.face(rule, view, part.owner()[f]);
                    for (int q = 0; q < rule.size(); q++) {
                        batch.at(rule, q);
                        for (int i = 0; i < asked.fields.length; i++) {
                            Seen seen = asked.fields[i];
                            if (seen.within == null || view == null) {
                                sample(seen, rule, mesh, f, batch.raw[i]);
                            } else {
                                within(seen, view, f, batch.here[0], batch.here[1], batch.here[2]);
                                inCell(seen, view, batch.raw[i]);
                            }
                        }
                        batch.add();
                    }
                }
                batch.flush();
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

    /** Points of faces, computed a block at a time; those of a full turn as they stand at four angles of it. */
    private static final class Batch {
        private final Asked asked;
        private final Integrand integrand;
        private final Sum[] sums;
        private final MeshSpan span;
        private final Program.Bench[] bench;
        /** Field values at the point that is added. */
        final double[][] raw;

        final boolean wantsVolume;
        /** The quadrature point and its area vector, on the cylinder where the part stands for one. */
        final double[] here = new double[3];

        private final double[] facing = new double[3];
        private final @Nullable Roundness round;
        private final double[][] place = new double[7][Program.BLOCK];
        private final At at = new At();
        private double faceArea;
        private double cellVolume;
        private int n;

        Batch(Asked asked, Integrand integrand, Sum[] sums, MeshSpan span, @Nullable Roundness round) {
            this.round = round;
            this.asked = asked;
            this.integrand = integrand;
            this.sums = sums;
            this.span = span;
            int q = asked.ready.length;
            bench = new Program.Bench[q];
            at.value = new double[q][];
            boolean volume = false;
            for (int i = 0; i < q; i++) {
                Program program = asked.ready[i].program();
                bench[i] = program.bench();
                at.value[i] = new double[program.components()];
                volume |= program.leaves().stream().anyMatch(l -> l.key() == Spot.CELL_VOLUME);
            }
            wantsVolume = volume;
            raw = new double[asked.fields.length][];
            for (int i = 0; i < raw.length; i++) {
                raw[i] = new double[asked.fields[i].components];
            }
        }

        void face(FaceQuadrature rule, @Nullable Cell view, int owner) {
            faceArea = 0;
            for (int q = 0; q < rule.size(); q++) {
                at(rule, q);
                faceArea += Math.sqrt(facing[0] * facing[0] + facing[1] * facing[1] + facing[2] * facing[2]);
            }
            cellVolume =
                    wantsVolume && view != null && owner >= 0 ? view.load(owner).measure() : Double.NaN;
        }

        void at(FaceQuadrature rule, int q) {
            rule.at(q);
            here[0] = rule.x();
            here[1] = rule.y();
            here[2] = rule.z();
            facing[0] = rule.nx();
            facing[1] = rule.ny();
            facing[2] = rule.nz();
            if (round != null) {
                round.onto(here, facing);
            }
        }

        void add() {
            var axis = span.axis();
            if (axis == null) {
                put(here[0], here[1], here[2], facing[0], facing[1], facing[2], raw);
                return;
            }
            double share = span.weight(here[0], here[1], here[2]) / MeshSpan.ANGLES;
            double[] v = {
                here[0] - axis.origin().x(),
                here[1] - axis.origin().y(),
                here[2] - axis.origin().z()
            };
            double[] normal = {share * facing[0], share * facing[1], share * facing[2]};
            double[] x = new double[3];
            double[] m = new double[3];
            double[][] turned = new double[raw.length][];
            for (int k = 0; k < MeshSpan.ANGLES; k++) {
                double angle = 2 * Math.PI * k / MeshSpan.ANGLES;
                axis.turn(angle, v, x);
                axis.turn(angle, normal, m);
                for (int i = 0; i < raw.length; i++) {
                    turned[i] = raw[i];
                    if (raw[i].length == 3) {
                        turned[i] = new double[3];
                        axis.turn(angle, raw[i], turned[i]);
                    }
                }
                put(
                        axis.origin().x() + x[0],
                        axis.origin().y() + x[1],
                        axis.origin().z() + x[2],
                        m[0],
                        m[1],
                        m[2],
                        turned);
            }
        }

        private void put(double x, double y, double z, double nx, double ny, double nz, double[][] fields) {
            double area = Math.sqrt(nx * nx + ny * ny + nz * nz);
            double[] own = {x, y, z, nx, ny, nz, area};
            for (int d = 0; d < 7; d++) {
                place[d][n] = own[d];
            }
            for (int q = 0; q < bench.length; q++) {
                List<Program.Leaf> leaves = asked.ready[q].program().leaves();
                for (int i = 0; i < leaves.size(); i++) {
                    int component = leaves.get(i).component();
                    int field = asked.leaf[q][i];
                    if (field >= 0) {
                        bench[q].leaf(i)[n] = fields[field][component];
                    } else if (leaves.get(i).key() instanceof Spot) {
                        bench[q].leaf(i)[n] = spot(leaves.get(i), own);
                    }
                }
            }
            if (++n == Program.BLOCK) {
                flush();
            }
        }

        private double spot(Program.Leaf leaf, double[] own) {
            return switch ((Spot) leaf.key()) {
                case PLACE -> own[leaf.component()];
                case NORMAL -> own[3 + leaf.component()] / own[6];
                case FACE_AREA -> faceArea;
                case CELL_VOLUME -> cellVolume;
                default ->
                    throw new LaneException("\"" + ((Spot) leaf.key()).word() + "\" is not known on this surface.");
            };
        }

        void flush() {
            for (int q = 0; q < bench.length; q++) {
                List<Program.Leaf> leaves = asked.ready[q].program().leaves();
                for (int i = 0; i < leaves.size(); i++) {
                    if (leaves.get(i).key() instanceof Anywhere a) {
                        a.at(place[0], place[1], place[2], n, bench[q].leaf(i));
                    }
                }
                bench[q].run(n);
            }
            for (int i = 0; i < n; i++) {
                at.x = place[0][i];
                at.y = place[1][i];
                at.z = place[2][i];
                at.nx = place[3][i];
                at.ny = place[4][i];
                at.nz = place[5][i];
                at.area = place[6][i];
                for (int q = 0; q < bench.length; q++) {
                    for (int c = 0; c < at.value[q].length; c++) {
                        at.value[q][c] = bench[q].result(c)[i];
                    }
                }
                integrand.add(at, sums);
            }
            n = 0;
        }
    }

    private Seen see(Part part, Field field) {
        boolean own = part.fields().contains(field);
        // A surface cut out of the run takes its values within the cells that own its faces.
        boolean within = !own
                && field.at() == Field.At.NODE
                && part.cut()
                && Arrays.stream(part.owner()).allMatch(v -> v >= 0);
        if (!own && !within) {
            boolean known = field.at() == Field.At.NODE
                    // Nodes that no face uses do not matter: surface files often carry a volume's nodes along.
                    ? Arrays.stream(part.surface().nodes()).allMatch(v -> part.node()[v] >= 0)
                    : Arrays.stream(part.owner()).allMatch(v -> v >= 0);
            if (!known) {
                throw new LaneException("Part \"" + part.name() + "\" does not lie on the run's boundary everywhere ("
                        + part.unmatched() + " faces do not), so field \"" + field.name()
                        + "\" is not known there; give the part the field, or a surface of the same mesh.");
            }
        }
        boolean byNode = field.at() == Field.At.NODE;
        return new Seen(
                field.values(),
                field.at(),
                field.components(),
                own || within || !byNode ? null : part.node(),
                own || byNode && !within ? null : part.owner(),
                within ? run.mesh() : null,
                field.stored());
    }

    private static void within(Seen seen, Cell view, int face, double x, double y, double z) {
        int owner = Objects.requireNonNull(seen.owner)[face];
        if (view.index() != owner) {
            view.load(owner);
        }
        view.locate(x, y, z);
    }

    private static void inCell(Seen seen, Cell view, double[] out) {
        for (int c = 0; c < seen.components; c++) {
            double v = 0;
            for (int k = 0; k < view.size(); k++) {
                v += view.weights()[k] * seen.values.get(view.node(k) * seen.components + c);
            }
            out[c] = v;
        }
    }

    private static void sample(Seen seen, FaceQuadrature rule, Mesh mesh, int face, double[] out) {
        int components = seen.components;
        if (seen.at == Field.At.CELL) {
            int cell = seen.owner == null ? face : seen.owner[face];
            for (int c = 0; c < components; c++) {
                out[c] = seen.values.get(cell * components + c);
            }
            return;
        }
        int begin = mesh.begin(face);
        for (int c = 0; c < components; c++) {
            double v = 0;
            for (int k = 0; k < mesh.size(face); k++) {
                int local = mesh.nodes()[begin + k];
                int node = seen.node == null ? local : seen.node[local];
                v += rule.weights()[k] * seen.values.get(node * components + c);
            }
            out[c] = v;
        }
    }

    /** The sum of the area vectors and, last, the area. */
    public double[] geometry() {
        return of("geometry", List.of(), 4, (at, sums) -> {
            sums[0].add(at.nx);
            sums[1].add(at.ny);
            sums[2].add(at.nz);
            sums[3].add(at.area);
        });
    }

    /** |sum of area vectors| / sum of areas: round-off for a closed surface. */
    public double closure() {
        double[] s = geometry();
        return s[3] == 0 ? 1 : Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]) / s[3];
    }
}
