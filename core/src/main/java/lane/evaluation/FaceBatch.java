package lane.evaluation;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.base.Content;
import lane.base.LaneException;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Program;
import lane.formula.Spot;
import lane.mesh.Cell;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Roundness;
import org.jspecify.annotations.Nullable;

/** Points of faces, computed a block at a time; those of a full turn as they stand at four angles of it. One thread's own. */
final class FaceBatch {
    /** A field on a part with the way from a face's nodes to its values. */
    record Seen(
            Values values,
            Field.At at,
            int components,
            int @Nullable [] node,
            int @Nullable [] owner,
            @Nullable Mesh within,
            Values stored) {
        /** Equal where it gives the same numbers. */
        Object key() {
            return List.of(stored, components, way());
        }

        /** Equal where values stand at the same nodes or cells, whatever they are. */
        Object way() {
            return new Way(
                    at,
                    node == null ? null : Content.of(node),
                    owner == null ? null : Content.of(owner),
                    within == null ? null : within.key());
        }
    }

    private record Way(
            Field.At at, @Nullable Content node, @Nullable Content owner, Mesh.@Nullable Key within) {}

    /**
     * Quantities on a part, and the fields that they are made of.
     *
     * @param leaf number of the field of each leaf of each quantity; -1 for none
     */
    record Asked(BoundQuantity[] ready, Seen[] fields, int[][] leaf) {
        boolean within() {
            return Arrays.stream(fields).anyMatch(s -> s.within != null);
        }

        /** Which components of its one stored field a quantity is as they are; none where it is more than that. */
        int[] plain() {
            List<Program.Leaf> leaves = ready[0].program().plain();
            return fields.length == 1 && leaves.stream().allMatch(l -> ready[0].field(l) != null)
                    ? leaves.stream().mapToInt(Program.Leaf::component).toArray()
                    : new int[0];
        }

        boolean wants(Spot spot) {
            return Arrays.stream(ready)
                    .flatMap(r -> r.program().leaves().stream())
                    .anyMatch(l -> l.key() == spot);
        }
    }

    private final Asked asked;
    private final SurfaceIntegral.Integrand integrand;
    private final Sum[] sums;
    private final MeshSpan span;
    private final Program.Bench[] bench;
    private final int[] part;
    private final @Nullable Cell view;
    private final FaceQuadrature rule;
    private final @Nullable Roundness round;
    private final boolean placed;
    private final boolean wantsFace;
    private final boolean wantsVolume;
    /** What each leaf of each quantity takes: place and normal as 0 to 5, face and cell as 6 and 7; -1 for a field or a lane. */
    private final int[][] spots;

    private final int[][] components;
    /** Values at the nodes of the face that is looked at, or its one value. */
    private final double[][] local;
    /** Field values at the point that is added. */
    private final double[][] raw;
    /** The quadrature point and its area vector, on the cylinder where the part stands for one. */
    private final double[] here = new double[3];

    private final double[] facing = new double[3];
    private final double[] own = new double[8];
    private final FlatTriangles flat;
    /** Over triangles, where the integrand is linear in a stored field. */
    private final @Nullable TriangleMoments moments;
    /** Where values of nodes of triangles stand, and the values. */
    private final int[] index = new int[3 * Program.BLOCK];

    private final double[] value = new double[3 * Program.BLOCK];
    private final SurfacePoints at;

    FaceBatch(
            Run run,
            Part part,
            Asked asked,
            SurfaceIntegral.Integrand integrand,
            Sum[] sums,
            MeshSpan span,
            FaceQuadrature rule) {
        this.part = part.owner();
        this.round = part.round();
        this.asked = asked;
        this.integrand = integrand;
        this.sums = sums;
        this.span = span;
        this.rule = rule;
        flat = new FlatTriangles(rule);
        int q = asked.ready.length;
        at = new SurfacePoints(q);
        moments = moments();
        bench = new Program.Bench[q];
        spots = new int[q][];
        components = new int[q][];
        for (int i = 0; i < q; i++) {
            Program program = asked.ready[i].program();
            bench[i] = program.bench();
            at.value[i] = new double[program.components()][];
            List<Program.Leaf> leaves = program.leaves();
            components[i] = leaves.stream().mapToInt(Program.Leaf::component).toArray();
            spots[i] = leaves.stream().mapToInt(FaceBatch::spot).toArray();
        }
        placed = integrand.placed()
                || asked.wants(Spot.PLACE)
                || Arrays.stream(asked.ready)
                        .flatMap(r -> r.program().leaves().stream())
                        .anyMatch(l -> l.key() instanceof Anywhere);
        wantsFace = asked.wants(Spot.FACE_AREA);
        wantsVolume = asked.wants(Spot.CELL_VOLUME);
        view = asked.within() || wantsVolume ? new Cell(run.mesh()) : null;
        raw = new double[asked.fields.length][];
        local = new double[raw.length][27];
        for (int i = 0; i < raw.length; i++) {
            raw[i] = new double[asked.fields[i].components];
        }
    }

    private @Nullable TriangleMoments moments() {
        if (integrand instanceof LinearIntegrand || integrand instanceof SizeIntegrand) {
            int[] take = asked.plain();
            return take.length == 0 ? null : new TriangleMoments(integrand, asked.fields[0], take, at);
        }
        return null;
    }

    private static int spot(Program.Leaf leaf) {
        if (!(leaf.key() instanceof Spot spot)) {
            return -1;
        }
        return switch (spot) {
            case PLACE -> leaf.component();
            case NORMAL -> 3 + leaf.component();
            case FACE_AREA -> 6;
            case CELL_VOLUME -> 7;
            default -> throw new LaneException("\"" + ((Spot) leaf.key()).word() + "\" is not known on this surface.");
        };
    }

    /** Adds the points of faces. */
    void faces(Mesh mesh, int from, int to) {
        boolean plain = round == null && span.axis() == null && view == null && !wantsFace;
        int f = from;
        while (f < to) {
            int end = plain ? FlatTriangles.end(mesh, f, to) : f;
            if (end > f && moments != null) {
                flush();
                moments.add(mesh, f, end, sums);
                f = end;
            } else if (end > f) {
                triangles(mesh, f, end);
                f = end;
            } else {
                face(f++);
            }
        }
        flush();
    }

    /** The points of flat triangles, as many at once as there is room for: reading one node after the other waits for each. */
    private void triangles(Mesh mesh, int from, int to) {
        int points = flat.points();
        int f = from;
        while (f < to) {
            int room = (Program.BLOCK - at.n) / points;
            if (room == 0) {
                flush();
                continue;
            }
            int many = Math.min(room, to - f);
            flat.place(mesh, f, many, placed, at);
            for (int p = 0; p < bench.length; p++) {
                for (int i = 0; i < spots[p].length; i++) {
                    double[] leaf = bench[p].leaf(i);
                    int field = asked.leaf[p][i];
                    if (field >= 0) {
                        corners(asked.fields[field], components[p][i], f, many, points, leaf);
                    } else if (spots[p][i] >= 0) {
                        spot(spots[p][i], many * points, leaf);
                    }
                }
            }
            at.n += many * points;
            f += many;
            // Faces of other shapes add one point after the other, and take it that there is room for it.
            if (at.n == Program.BLOCK) {
                flush();
            }
        }
    }

    /** What is of a place or a normal at the points that are there, from the first that is not yet counted on. */
    private void spot(int which, int many, double[] to) {
        int n = at.n;
        if (which < 3) {
            System.arraycopy(which == 0 ? at.x : which == 1 ? at.y : at.z, n, to, n, many);
            return;
        }
        double[] along = which == 3 ? at.nx : which == 4 ? at.ny : at.nz;
        for (int k = n; k < n + many; k++) {
            to[k] = along[k] / Math.sqrt(at.nx[k] * at.nx[k] + at.ny[k] * at.ny[k] + at.nz[k] * at.nz[k]);
        }
    }

    private void corners(Seen seen, int component, int f, int many, int points, double[] to) {
        int n = at.n;
        int all = seen.components;
        if (seen.at == Field.At.CELL) {
            for (int j = 0; j < many; j++) {
                int cell = seen.owner == null ? f + j : seen.owner[f + j];
                Arrays.fill(to, n, n + points, seen.values.get(cell * all + component));
                n += points;
            }
            return;
        }
        int[] map = seen.node;
        for (int k = 0; k < 3 * many; k++) {
            int node = map == null ? flat.corner[k] : map[flat.corner[k]];
            index[k] = node * all + component;
        }
        if (seen.values instanceof Values.Doubles d) {
            double[] from = d.array();
            for (int k = 0; k < 3 * many; k++) {
                value[k] = from[index[k]];
            }
        } else {
            for (int k = 0; k < 3 * many; k++) {
                value[k] = seen.values.get(index[k]);
            }
        }
        double[] shares = rule.triangle();
        for (int j = 0; j < many; j++) {
            double va = value[3 * j];
            double vb = value[3 * j + 1];
            double vc = value[3 * j + 2];
            for (int q = 0; q < points; q++) {
                to[n++] = shares[3 * q] * va + shares[3 * q + 1] * vb + shares[3 * q + 2] * vc;
            }
        }
    }

    /** Adds the points of a face. */
    private void face(int f) {
        rule.load(f);
        int points = rule.size();
        if (wantsFace) {
            double area = 0;
            for (int q = 0; q < points; q++) {
                place(q);
                area += Math.sqrt(facing[0] * facing[0] + facing[1] * facing[1] + facing[2] * facing[2]);
            }
            own[6] = area;
        }
        if (wantsVolume) {
            own[7] = part[f] >= 0 ? Objects.requireNonNull(view).load(part[f]).measure() : Double.NaN;
        }
        for (int i = 0; i < raw.length; i++) {
            gather(asked.fields[i], f, i);
        }
        for (int q = 0; q < points; q++) {
            place(q);
            for (int i = 0; i < raw.length; i++) {
                sample(asked.fields[i], f, local[i], raw[i]);
            }
            if (span.axis() == null) {
                put(here[0], here[1], here[2], facing[0], facing[1], facing[2], raw);
            } else {
                turn(span.axis());
            }
        }
    }

    private void place(int q) {
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

    private void gather(Seen seen, int face, int i) {
        int c = seen.components;
        if (seen.within != null) {
            return;
        }
        if (seen.at == Field.At.CELL) {
            int cell = seen.owner == null ? face : seen.owner[face];
            for (int k = 0; k < c; k++) {
                raw[i][k] = seen.values.get(cell * c + k);
            }
            return;
        }
        int n = rule.nodes();
        if (local[i].length < n * c) {
            local[i] = new double[2 * n * c];
        }
        double[] to = local[i];
        int[] map = seen.node;
        if (seen.values instanceof Values.Doubles d) {
            double[] from = d.array();
            for (int k = 0; k < n; k++) {
                int node = map == null ? rule.node(k) : map[rule.node(k)];
                for (int m = 0; m < c; m++) {
                    to[k * c + m] = from[node * c + m];
                }
            }
            return;
        }
        for (int k = 0; k < n; k++) {
            int node = map == null ? rule.node(k) : map[rule.node(k)];
            for (int m = 0; m < c; m++) {
                to[k * c + m] = seen.values.get(node * c + m);
            }
        }
    }

    private void sample(Seen seen, int face, double[] values, double[] out) {
        int c = seen.components;
        if (seen.within != null) {
            inCell(seen, face, out);
        } else if (seen.at == Field.At.NODE) {
            double[] w = rule.weights();
            int n = rule.nodes();
            for (int m = 0; m < c; m++) {
                double v = 0;
                for (int k = 0; k < n; k++) {
                    v += w[k] * values[k * c + m];
                }
                out[m] = v;
            }
        }
    }

    /** A surface cut out of the run takes its values within the cells that own its faces. */
    private void inCell(Seen seen, int face, double[] out) {
        Cell cell = Objects.requireNonNull(view);
        int owner = Objects.requireNonNull(seen.owner)[face];
        if (cell.index() != owner) {
            cell.load(owner);
        }
        cell.locate(here[0], here[1], here[2]);
        for (int c = 0; c < seen.components; c++) {
            double v = 0;
            for (int k = 0; k < cell.size(); k++) {
                v += cell.weights()[k] * seen.values.get(cell.node(k) * seen.components + c);
            }
            out[c] = v;
        }
    }

    private void turn(lane.mesh.Axis axis) {
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
        int n = at.n;
        at.x[n] = x;
        at.y[n] = y;
        at.z[n] = z;
        at.nx[n] = nx;
        at.ny[n] = ny;
        at.nz[n] = nz;
        for (int q = 0; q < bench.length; q++) {
            int[] spot = spots[q];
            for (int i = 0; i < spot.length; i++) {
                int field = asked.leaf[q][i];
                if (field >= 0) {
                    bench[q].leaf(i)[n] = fields[field][components[q][i]];
                } else if (spot[i] >= 0) {
                    bench[q].leaf(i)[n] = at(spot[i], x, y, z, nx, ny, nz);
                }
            }
        }
        if (++at.n == Program.BLOCK) {
            flush();
        }
    }

    private double at(int spot, double x, double y, double z, double nx, double ny, double nz) {
        return switch (spot) {
            case 0 -> x;
            case 1 -> y;
            case 2 -> z;
            case 3 -> nx / Math.sqrt(nx * nx + ny * ny + nz * nz);
            case 4 -> ny / Math.sqrt(nx * nx + ny * ny + nz * nz);
            case 5 -> nz / Math.sqrt(nx * nx + ny * ny + nz * nz);
            default -> own[spot];
        };
    }

    /** Computes what is waiting, and adds it to the sums. */
    private void flush() {
        int n = at.n;
        for (int q = 0; q < bench.length; q++) {
            List<Program.Leaf> leaves = asked.ready[q].program().leaves();
            for (int i = 0; i < leaves.size(); i++) {
                if (leaves.get(i).key() instanceof Anywhere a) {
                    a.at(at.x, at.y, at.z, n, bench[q].leaf(i));
                }
            }
            bench[q].run(n);
            for (int c = 0; c < at.value[q].length; c++) {
                at.value[q][c] = bench[q].result(c);
            }
        }
        if (n > 0) {
            integrand.add(at, sums);
        }
        at.begin();
    }
}
