package lane.cut;

import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * The surface of constant radius about an axis, and its unrolled form. Nodes lie on the cylinder itself; areas are those
 * of the curved faces, so that the unrolled shell has the same area to round-off. What is left is the faceting of the
 * run's own boundary.
 */
public final class CylinderCut {
    private CylinderCut() {}

    /**
     * @param from and {@code to}: ends along the axis in metres, infinite for none
     */
    public static Cut of(Mesh mesh, Axis axis, double radius, double from, double to, Work work) {
        if (!(radius > 0)) {
            throw new lane.base.LaneException("A shell of radius " + radius + " m is none; give a positive radius.");
        }
        Cut cut = Slicer.cut(mesh, Level.cylinder(mesh, axis, radius), work);
        cut = limit(cut, axis, from, 1);
        cut = limit(cut, axis, -to, -1);
        Mesh m = cut.surface();
        if (mesh.dimension() < 3) {
            return cut;
        }
        double[] stretch = new double[cut.owner().length];
        double[] n = new double[3];
        for (int f = 0; f < stretch.length; f++) {
            Slicer.normal(m.xyz(), m.nodes(), m.begin(f), m.begin(f) + m.size(f), n);
            double flat = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            stretch[f] = flat == 0 ? 1 : 2 * unrolled(m, f, axis, radius) / flat;
        }
        return new Cut(m, cut.owner(), cut.stencil(), stretch);
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

    /** Area of a face laid flat, each corner within half a turn of the first. */
    private static double unrolled(Mesh m, int f, Axis axis, double radius) {
        double[] x = m.xyz();
        int first = 3 * m.nodes()[m.begin(f)];
        double zero = axis.angle(x[first], x[first + 1], x[first + 2]);
        double sum = 0;
        double ua = 0;
        double ha = axis.along(x[first], x[first + 1], x[first + 2]);
        double h0 = ha;
        for (int k = 1; k <= m.size(f); k++) {
            int i = 3 * m.nodes()[m.begin(f) + k % m.size(f)];
            double u = radius * Math.IEEEremainder(axis.angle(x[i], x[i + 1], x[i + 2]) - zero, 2 * Math.PI);
            double h = axis.along(x[i], x[i + 1], x[i + 2]) - h0;
            sum += (ua * h - u * (k == 1 ? 0 : ha)) / 2;
            ua = u;
            ha = h;
        }
        return Math.abs(sum);
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
        java.util.List<Integer> near = new java.util.ArrayList<>();
        java.util.List<Integer> rest = new java.util.ArrayList<>();
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

    private static int[] ints(java.util.List<Integer> list) {
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
