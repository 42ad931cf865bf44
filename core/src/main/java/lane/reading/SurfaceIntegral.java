package lane.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Cell;
import lane.mesh.FaceQuadrature;
import lane.mesh.Measures;
import lane.mesh.Mesh;

/**
 * Integrals over boundary parts: at each quadrature point of each face the fields are interpolated, then the integrand
 * is formed, so the integral of a product is the product integrated. Rules are exact to degree 4 on flat triangles and
 * parallelograms; on other faces the error falls as h^5 or faster, that of the faceting itself as h^2. Sums are
 * compensated and merged in the order of the faces.
 */
final class SurfaceIntegral {
    private static final int BLOCK = 2048;
    static final int DEGREE = 4;

    private final Run run;
    private final List<Part> parts;
    private final Lens lens;
    private final Memo memo;

    SurfaceIntegral(Run run, List<Part> parts, Lens lens, Memo memo) {
        this.run = run;
        this.parts = parts;
        this.lens = lens;
        this.memo = memo;
    }

    Run run() {
        return run;
    }

    List<Part> parts() {
        return parts;
    }

    Lens lens() {
        return lens;
    }

    /** One point of a face: place, area vector (its length is the weight in square metres) and field values. */
    static final class At {
        double x;
        double y;
        double z;
        double nx;
        double ny;
        double nz;
        double area;
        /** Values of the asked fields in the units they are stored in: {@code value[field][component]}. */
        double[][] value;
    }

    /** Adds its integrand times the area to the sums. */
    @FunctionalInterface
    interface Integrand {
        void add(At at, Sum[] sums);
    }

    /** A field on a part with the way from a face's nodes to its values; equal where it gives the same numbers. */
    private record Seen(Values values, Field.At at, int components, int[] node, int[] owner, Mesh within) {}

    private record Key(Object what, List<Mesh> surfaces, List<Seen> seen, Span turn) {}

    /**
     * Integrates over the parts in order, in the units that the fields are stored in, so that stating another unit
     * integrates nothing again.
     *
     * @param what tells this integrand from all others over the same parts and quantities, by value
     * @param sums number of results
     */
    double[] of(Object what, List<String> quantities, int sums, Integrand integrand) {
        List<Seen> all = new ArrayList<>();
        for (Part part : parts) {
            quantities.forEach(q -> all.add(see(part, q)));
        }
        Span span = Span.of(run, lens.axis());
        var key = new Key(what, parts.stream().map(Part::surface).toList(), all, span.turned() ? span : null);
        double[] perDepth = memo.of(key, () -> integrate(all, quantities.size(), sums, integrand, span));
        double depth = span.turned() ? 1 : span.factor();
        return depth == 1
                ? perDepth
                : Arrays.stream(perDepth).map(v -> depth * v).toArray();
    }

    /** Adds a place as it stands at four angles of a full turn, each with a quarter of its weight. */
    private static void around(At at, Span span, Integrand integrand, At turned, Sum[] sums) {
        var axis = span.axis();
        double share = span.weight(at.x, at.y, at.z) / Span.ANGLES;
        double[] v = {
            at.x - axis.origin().x(),
            at.y - axis.origin().y(),
            at.z - axis.origin().z()
        };
        double[] n = {share * at.nx, share * at.ny, share * at.nz};
        double[] out = new double[3];
        turned.area = share * at.area;
        for (int k = 0; k < Span.ANGLES; k++) {
            double angle = 2 * Math.PI * k / Span.ANGLES;
            axis.turn(angle, v, out);
            turned.x = axis.origin().x() + out[0];
            turned.y = axis.origin().y() + out[1];
            turned.z = axis.origin().z() + out[2];
            axis.turn(angle, n, out);
            turned.nx = out[0];
            turned.ny = out[1];
            turned.nz = out[2];
            for (int i = 0; i < at.value.length; i++) {
                if (at.value[i].length == 3) {
                    axis.turn(angle, at.value[i], turned.value[i]);
                } else {
                    turned.value[i] = at.value[i];
                }
            }
            integrand.add(turned, sums);
        }
    }

    private double[] integrate(List<Seen> all, int fields, int sums, Integrand integrand, Span span) {
        double[] plane = Measures.plane(run.mesh());
        Sum[] total = fresh(sums);
        for (int p = 0; p < parts.size(); p++) {
            Part part = parts.get(p);
            Seen[] seen = all.subList(p * fields, (p + 1) * fields).toArray(Seen[]::new);
            Mesh mesh = part.surface();
            int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
            double[][] partial = new double[blocks][];
            Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
                Sum[] own = fresh(sums);
                var at = new At();
                at.value = new double[seen.length][];
                for (int i = 0; i < seen.length; i++) {
                    at.value[i] = new double[seen[i].components];
                }
                var turned = new At();
                turned.value = new double[seen.length][3];
                var rule = new FaceQuadrature(mesh, DEGREE, plane);
                Cell view = Arrays.stream(seen).anyMatch(s -> s.within != null) ? new Cell(run.mesh()) : null;
                for (int f = from; f < to; f++) {
                    rule.load(f);
                    for (int q = 0; q < rule.size(); q++) {
                        rule.at(q);
                        at.x = rule.x();
                        at.y = rule.y();
                        at.z = rule.z();
                        at.nx = rule.nx();
                        at.ny = rule.ny();
                        at.nz = rule.nz();
                        if (part.stretch() != null) {
                            at.nx *= part.stretch()[f];
                            at.ny *= part.stretch()[f];
                            at.nz *= part.stretch()[f];
                        }
                        at.area = Math.sqrt(at.nx * at.nx + at.ny * at.ny + at.nz * at.nz);
                        for (int i = 0; i < seen.length; i++) {
                            if (seen[i].within == null) {
                                sample(seen[i], rule, mesh, f, at.value[i]);
                            } else {
                                within(seen[i], view, f, at);
                                at.value[i] = inCell(seen[i], view, at.value[i]);
                            }
                        }
                        if (span.turned()) {
                            around(at, span, integrand, turned, own);
                        } else {
                            integrand.add(at, own);
                        }
                    }
                }
                partial[block] = values(own);
            });
            for (double[] own : partial) {
                for (int i = 0; i < sums; i++) {
                    total[i].add(own[i]);
                }
            }
        }
        return values(total);
    }

    private Seen see(Part part, String quantity) {
        Field field = lens.onPart(run, part, lens.quantity(quantity));
        boolean own = part.field(field.name()).isPresent();
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
                within ? run.mesh() : null);
    }

    private static void within(Seen seen, Cell view, int face, At at) {
        if (view.index() != seen.owner[face]) {
            view.load(seen.owner[face]);
        }
        view.locate(at.x, at.y, at.z);
    }

    private static double[] inCell(Seen seen, Cell view, double[] out) {
        for (int c = 0; c < seen.components; c++) {
            double v = 0;
            for (int k = 0; k < view.size(); k++) {
                v += view.weights()[k] * seen.values.get(view.node(k) * seen.components + c);
            }
            out[c] = v;
        }
        return out;
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

    private static Sum[] fresh(int n) {
        Sum[] sums = new Sum[n];
        for (int i = 0; i < n; i++) {
            sums[i] = new Sum();
        }
        return sums;
    }

    private static double[] values(Sum[] sums) {
        double[] out = new double[sums.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = sums[i].value();
        }
        return out;
    }
}
