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
import lane.mesh.CellShape;
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

    /**
     * Quantities on a part, and the fields that they are made of.
     *
     * @param leaf number of the field of each leaf of each quantity; -1 for none
     */
    record Asked(BoundQuantity[] ready, Seen[] fields, int[][] leaf) {
        boolean within() {
            return Arrays.stream(fields).anyMatch(s -> s.within != null);
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
        int q = asked.ready.length;
        at = new SurfacePoints(q);
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
        wantsFace = asked.wants(Spot.FACE_AREA);
        wantsVolume = asked.wants(Spot.CELL_VOLUME);
        view = asked.within() || wantsVolume ? new Cell(run.mesh()) : null;
        raw = new double[asked.fields.length][];
        local = new double[raw.length][27];
        for (int i = 0; i < raw.length; i++) {
            raw[i] = new double[asked.fields[i].components];
        }
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
        for (int f = from; f < to; f++) {
            if (plain && mesh.shape(f) == CellShape.TRIANGLE) {
                triangle(mesh, f);
            } else {
                face(f);
            }
        }
        flush();
    }

    /** The points of a flat triangle at once: its normal is the same at all of them. */
    private void triangle(Mesh mesh, int f) {
        int points = rule.triangle().length / 3;
        if (at.n + points > Program.BLOCK) {
            flush();
        }
        int n = at.n;
        int begin = mesh.begin(f);
        int a = mesh.nodes()[begin];
        int b = mesh.nodes()[begin + 1];
        int c = mesh.nodes()[begin + 2];
        double[] xyz = mesh.xyz();
        double ax = xyz[3 * a];
        double ay = xyz[3 * a + 1];
        double az = xyz[3 * a + 2];
        double ux = xyz[3 * b] - ax;
        double uy = xyz[3 * b + 1] - ay;
        double uz = xyz[3 * b + 2] - az;
        double vx = xyz[3 * c] - ax;
        double vy = xyz[3 * c + 1] - ay;
        double vz = xyz[3 * c + 2] - az;
        double nx = uy * vz - uz * vy;
        double ny = uz * vx - ux * vz;
        double nz = ux * vy - uy * vx;
        double[] shares = rule.triangle();
        double[] weights = rule.triangleWeights();
        for (int q = 0; q < points; q++) {
            double w = weights[q];
            at.nx[n + q] = w * nx;
            at.ny[n + q] = w * ny;
            at.nz[n + q] = w * nz;
            double s = shares[3 * q + 1];
            double t = shares[3 * q + 2];
            at.x[n + q] = ax + s * ux + t * vx;
            at.y[n + q] = ay + s * uy + t * vy;
            at.z[n + q] = az + s * uz + t * vz;
        }
        for (int p = 0; p < bench.length; p++) {
            for (int i = 0; i < spots[p].length; i++) {
                double[] to = bench[p].leaf(i);
                int field = asked.leaf[p][i];
                if (field >= 0) {
                    corners(asked.fields[field], components[p][i], f, a, b, c, points, to);
                } else if (spots[p][i] >= 0) {
                    double size = Math.sqrt(nx * nx + ny * ny + nz * nz);
                    for (int q = 0; q < points; q++) {
                        to[n + q] = switch (spots[p][i]) {
                            case 0 -> at.x[n + q];
                            case 1 -> at.y[n + q];
                            case 2 -> at.z[n + q];
                            case 3 -> nx / size;
                            case 4 -> ny / size;
                            default -> nz / size;
                        };
                    }
                }
            }
        }
        at.n += points;
        // Faces of other shapes add one point after the other, and take it that there is room for it.
        if (at.n == Program.BLOCK) {
            flush();
        }
    }

    private void corners(Seen seen, int component, int f, int a, int b, int c, int points, double[] to) {
        int n = at.n;
        int all = seen.components;
        if (seen.at == Field.At.CELL) {
            int cell = seen.owner == null ? f : seen.owner[f];
            Arrays.fill(to, n, n + points, seen.values.get(cell * all + component));
            return;
        }
        int[] map = seen.node;
        int i = (map == null ? a : map[a]) * all + component;
        int j = (map == null ? b : map[b]) * all + component;
        int k = (map == null ? c : map[c]) * all + component;
        double va;
        double vb;
        double vc;
        if (seen.values instanceof Values.Doubles d) {
            va = d.array()[i];
            vb = d.array()[j];
            vc = d.array()[k];
        } else {
            va = seen.values.get(i);
            vb = seen.values.get(j);
            vc = seen.values.get(k);
        }
        double[] shares = rule.triangle();
        for (int q = 0; q < points; q++) {
            to[n + q] = shares[3 * q] * va + shares[3 * q + 1] * vb + shares[3 * q + 2] * vc;
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
        for (int i = 0; i < n; i++) {
            at.area[i] = Math.sqrt(at.nx[i] * at.nx[i] + at.ny[i] * at.ny[i] + at.nz[i] * at.nz[i]);
        }
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
        at.n = 0;
    }
}
