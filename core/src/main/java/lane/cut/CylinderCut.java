package lane.cut;

import java.util.ArrayList;
import java.util.List;
import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.CellLocator;
import lane.mesh.CellMeasures;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Roundness;

/**
 * The surface of constant radius about an axis, and its unrolled form. In a run with volume the cylinder is cut as a prism
 * of {@value #FACETS} sides with corners on it, laid into the cells as a sheet is, whatever their size; then its pieces
 * are moved onto the cylinder, so that areas are those of the curved surface and values those at its radius. Where a
 * piece ends on a face of the mesh, that end is off by at most the sagitta of a side, R (1 - cos 0.5°).
 */
public final class CylinderCut {
    private static final int FACETS = 360;
    /** Rings of the prism are so many sides high, or a usual cell: longer faces of an inclined one meet the boxes of too many cells. */
    private static final double RING = 8;

    private CylinderCut() {}

    /**
     * @param from and {@code to}: ends along the axis in metres, infinite for those of the run
     * @throws lane.base.LaneException when the radius is not positive
     */
    public static Cut of(CellLocator locator, Axis axis, double radius, double from, double to, Work work) {
        if (!(radius > 0)) {
            throw new lane.base.LaneException("A shell of radius " + radius + " m is none; give a positive radius.");
        }
        Mesh mesh = locator.mesh();
        double[] ends = ends(mesh, axis, from, to);
        var round = new Roundness(axis, radius);
        if (mesh.dimension() < 3) {
            return plane(locator, round, from, to, ends, work);
        }
        if (!(ends[0] < ends[1])) {
            return Cut.join(List.of()).covering(0);
        }
        double usual = mesh.modelSize() / Math.cbrt(mesh.cellCount());
        return LaidSheet.conformed(locator, prism(round, ends[0], ends[1], usual), round, work)
                .cut();
    }

    private static double[] ends(Mesh mesh, Axis axis, double from, double to) {
        double[] ends = {Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY};
        double[] x = mesh.xyz();
        for (int i = 0; i < x.length; i += 3) {
            double along = axis.along(x[i], x[i + 1], x[i + 2]);
            ends[0] = Math.min(ends[0], along);
            ends[1] = Math.max(ends[1], along);
        }
        return new double[] {
            Double.isInfinite(from) ? ends[0] : from, Double.isInfinite(to) ? ends[1] : to,
        };
    }

    private static Mesh prism(Roundness round, double from, double to, double cell) {
        double side = 2 * Math.PI * round.radius() / FACETS;
        int rings = (int) Math.clamp(Math.ceil((to - from) / Math.max(RING * side, cell)), 1, 100);
        double[] xyz = new double[3 * FACETS * (rings + 1)];
        for (int h = 0, at = 0; h <= rings; h++) {
            double along = h == rings ? to : from + (to - from) * h / rings;
            for (int k = 0; k < FACETS; k++) {
                Point p = round.axis().place(round.radius(), 2 * Math.PI * k / FACETS, along);
                xyz[at++] = p.x();
                xyz[at++] = p.y();
                xyz[at++] = p.z();
            }
        }
        int[] nodes = new int[4 * FACETS * rings];
        for (int h = 0, at = 0; h < rings; h++) {
            for (int k = 0; k < FACETS; k++) {
                int next = (k + 1) % FACETS;
                nodes[at++] = h * FACETS + k;
                nodes[at++] = h * FACETS + next;
                nodes[at++] = (h + 1) * FACETS + next;
                nodes[at++] = (h + 1) * FACETS + k;
            }
        }
        return Mesh.uniform(xyz, CellShape.QUAD, nodes);
    }

    /**
     * In a plane run the cylinder is a circle about an axis square to it, or lines along an axis in it, laid into the
     * cells likewise; a surface that is bent, or stands obliquely, is cut where edges of cells pass it.
     */
    private static Cut plane(CellLocator locator, Roundness round, double from, double to, double[] ends, Work work) {
        Mesh mesh = locator.mesh();
        List<Point> corners = corners(mesh, round, ends);
        if (corners.isEmpty()) {
            Cut cut = Slicer.cut(mesh, Level.cylinder(mesh, round.axis(), round.radius()), work);
            cut = limit(limit(cut, round.axis(), from, 1), round.axis(), -to, -1);
            return new Cut(cut.surface(), cut.owner(), cut.stencil(), round, Double.NaN);
        }
        return LaidLines.of(locator, corners, round, work);
    }

    /**
     * Pairs of places on the cylinder in the plane of a run, in the order that lets lines look away from the axis; none where
     * that is no circle and no line.
     */
    private static List<Point> corners(Mesh mesh, Roundness round, double[] ends) {
        Axis axis = round.axis();
        double[] x = mesh.xyz();
        double[] n = CellMeasures.plane(mesh);
        Point normal = new Point(n[0], n[1], n[2]);
        Point first = new Point(x[0], x[1], x[2]);
        double near = 1e-9 * mesh.modelSize();
        for (int i = 0; i < x.length; i += 3) {
            if (Math.abs(normal.dot(new Point(x[i], x[i + 1], x[i + 2]).minus(first))) > near) {
                return List.of();
            }
        }
        List<Point> out = new ArrayList<>();
        if (axis.direction().cross(normal).norm() < 1e-9) {
            double along = axis.along(x[0], x[1], x[2]);
            for (int k = 0; k < FACETS; k++) {
                Point a = axis.place(round.radius(), 2 * Math.PI * k / FACETS, along);
                Point b = axis.place(round.radius(), 2 * Math.PI * ((k + 1) % FACETS) / FACETS, along);
                boolean with = axis.direction().dot(normal) > 0;
                out.add(with ? a : b);
                out.add(with ? b : a);
            }
        } else if (Math.abs(axis.direction().dot(normal)) < 1e-9
                && Math.abs(normal.dot(axis.origin().minus(first))) <= near
                && ends[0] < ends[1]) {
            Point across = normal.cross(axis.direction());
            for (int side = -1; side <= 1; side += 2) {
                Point aside = across.times(side);
                boolean there = false;
                for (int i = 0; i < x.length && !there; i += 3) {
                    there = aside.dot(new Point(x[i], x[i + 1], x[i + 2]).minus(axis.origin())) > near;
                }
                if (there) {
                    Point foot = axis.origin().plus(aside.times(round.radius()));
                    out.add(foot.plus(axis.direction().times(ends[side > 0 ? 1 : 0])));
                    out.add(foot.plus(axis.direction().times(ends[side > 0 ? 0 : 1])));
                }
            }
        }
        return out;
    }

    private static Cut limit(Cut cut, Axis axis, double bound, int side) {
        if (Double.isInfinite(bound) || cut.empty()) {
            return cut;
        }
        double[] x = cut.surface().xyz();
        double[] level = new double[cut.surface().nodeCount()];
        double zero = 1e-12 * cut.surface().modelSize();
        for (int i = 0; i < level.length; i++) {
            double v = side * axis.along(x[3 * i], x[3 * i + 1], x[3 * i + 2]) - bound;
            level[i] = Math.abs(v) <= zero ? 0 : v;
        }
        return Clip.keep(cut, level);
    }

    /**
     * The shell laid flat: x is the angle in radians from the seam (0 to 2 pi) or that times the radius, y the length
     * along the axis. Faces that reach over the seam are cut there.
     *
     * @param seam angle about the axis in radians
     * @param arc whether x is an arc length in metres
     */
    public static Cut unrolled(Cut shell, Axis axis, double radius, double seam, boolean arc) {
        Mesh m = shell.surface();
        double[] x = m.xyz();
        double[] angle = new double[m.nodeCount()];
        for (int i = 0; i < angle.length; i++) {
            double a = Math.IEEEremainder(axis.angle(x[3 * i], x[3 * i + 1], x[3 * i + 2]) - seam, 2 * Math.PI);
            angle[i] = Math.abs(a) < 1e-12 ? 0 : a;
        }
        // Faces near the seam are parted there; those half a turn away have angles of both signs too, but far from
        // zero.
        double[] level = new double[angle.length];
        List<Integer> near = new ArrayList<>();
        List<Integer> rest = new ArrayList<>();
        for (int f = 0; f < shell.owner().length; f++) {
            boolean below = false;
            boolean above = false;
            double most = 0;
            for (int k = 0; k < m.size(f); k++) {
                double a = angle[m.nodes()[m.begin(f) + k]];
                below |= a < 0;
                above |= a > 0;
                most = Math.max(most, Math.abs(a));
            }
            (below && above && most < Math.PI / 2 ? near : rest).add(f);
        }
        System.arraycopy(angle, 0, level, 0, level.length);
        Cut parted = Clip.part(
                shell.pick(ints(near)),
                pickLevels(shell, ints(near), level),
                between(shell.pick(ints(near)).surface(), axis, radius, seam));
        return flat(new Cut[] {shell.pick(ints(rest)), parted}, axis, radius, seam, arc);
    }

    private static double[] pickLevels(Cut shell, int[] faces, double[] level) {
        // The same order in which picking numbers the nodes.
        int[] to = new int[level.length];
        double[] out = new double[level.length];
        int points = 0;
        for (int f : faces) {
            for (int k = 0; k < shell.surface().size(f); k++) {
                int v = shell.surface().nodes()[shell.surface().begin(f) + k];
                if (to[v] == 0) {
                    out[points++] = level[v];
                    to[v] = points;
                }
            }
        }
        return java.util.Arrays.copyOf(out, points);
    }

    private static Clip.Between between(Mesh m, Axis axis, double radius, double seam) {
        double[] x = m.xyz();
        return (a, b, t, out) -> {
            double h = (1 - t) * axis.along(x[3 * a], x[3 * a + 1], x[3 * a + 2])
                    + t * axis.along(x[3 * b], x[3 * b + 1], x[3 * b + 2]);
            Point p = axis.place(radius, seam, h);
            out[0] = p.x();
            out[1] = p.y();
            out[2] = p.z();
        };
    }

    private static int[] ints(List<Integer> list) {
        return list.stream().mapToInt(i -> i).toArray();
    }

    /** Each face gets nodes of its own, as nodes on the seam lie at both ends. */
    private static Cut flat(Cut[] cuts, Axis axis, double radius, double seam, boolean arc) {
        int faces = 0;
        int corners = 0;
        for (Cut c : cuts) {
            faces += c.owner().length;
            corners += c.surface().nodes().length;
        }
        double[] xyz = new double[3 * corners];
        byte[] shapes = new byte[faces];
        int[] offsets = new int[faces + 1];
        int[] nodes = new int[corners];
        int[] owner = new int[faces];
        var stencil = new StencilBuilder(corners);
        int at = 0;
        int face = 0;
        for (Cut c : cuts) {
            Mesh m = c.surface();
            for (int f = 0; f < c.owner().length; f++) {
                double middle = middle(m, f, axis, seam);
                for (int k = 0; k < m.size(f); k++) {
                    int v = m.nodes()[m.begin(f) + k];
                    double[] x = m.xyz();
                    double a = axis.angle(x[3 * v], x[3 * v + 1], x[3 * v + 2]) - seam;
                    double near = middle + Math.IEEEremainder(a - middle, 2 * Math.PI);
                    xyz[3 * at] = (arc ? radius : 1) * (Math.abs(near) < 1e-12 ? 0 : near);
                    xyz[3 * at + 1] = axis.along(x[3 * v], x[3 * v + 1], x[3 * v + 2]);
                    stencil.copy(c.stencil(), v, 1).next();
                    nodes[at] = at;
                    at++;
                }
                owner[face] = c.owner()[f];
                shapes[face] = (byte) m.shape(f).ordinal();
                offsets[++face] = at;
            }
        }
        return new Cut(new Mesh(xyz, shapes, offsets, nodes), owner, stencil.build());
    }

    /** Mean angle of a face from the seam, 0 to 2 pi. */
    private static double middle(Mesh m, int f, Axis axis, double seam) {
        double[] x = m.xyz();
        int first = 3 * m.nodes()[m.begin(f)];
        double zero = axis.angle(x[first], x[first + 1], x[first + 2]) - seam;
        double sum = 0;
        for (int k = 0; k < m.size(f); k++) {
            int i = 3 * m.nodes()[m.begin(f) + k];
            sum += Math.IEEEremainder(axis.angle(x[i], x[i + 1], x[i + 2]) - seam - zero, 2 * Math.PI);
        }
        double mean = zero + sum / m.size(f);
        return mean - 2 * Math.PI * Math.floor(mean / (2 * Math.PI));
    }
}
