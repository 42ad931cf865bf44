package lane.mesh;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.Parallel;
import lane.mesh.Finding.Severity;
import org.jspecify.annotations.Nullable;

/** Looks a mesh over: coordinates, volumes, nodes that are double or unused, faces that too many cells share, islands. */
public final class MeshHealth {
    private static final int BLOCK = 4096;
    /** Cells of less than this share of their box are flat. */
    private static final double FLAT = 1e-12;

    private MeshHealth() {}

    /**
     * Sizes and findings of a mesh.
     *
     * @param volume of all solid cells in cubic metres, by magnitude
     * @param area of all surface cells in square metres
     * @param quality shape of the cells
     */
    public record Report(double volume, double area, CellQuality quality, List<Finding> findings) {}

    public static Report of(Mesh mesh) {
        List<Finding> findings = new ArrayList<>();
        double[] measure = measures(mesh);
        coordinates(mesh, findings);
        var volume = new lane.base.Sum();
        var area = new lane.base.Sum();
        for (int c = 0; c < measure.length; c++) {
            switch (mesh.shape(c).dimension()) {
                case 3 -> volume.add(Math.abs(measure[c]));
                case 2 -> area.add(measure[c]);
                default -> {}
            }
        }
        volumes(mesh, measure, findings);
        nodes(mesh, findings);
        if (mesh.dimension() >= 2) {
            Topology.Boundary boundary = Topology.boundary(mesh);
            if (mesh.dimension() == 2 && boundary.size() > 0 && !CellMeasures.flat(mesh)) {
                int node = boundary.nodes()[0];
                findings.add(new Finding(
                        Severity.NOTE,
                        "edges of the surface have a face on one side only: it is open there",
                        boundary.size(),
                        place(mesh, node)));
            }
            if (boundary.shared() > 0) {
                findings.add(new Finding(
                        Severity.WARNING,
                        "faces belong to more than two cells: cells overlap or the mesh is folded",
                        boundary.shared(),
                        null));
            }
        }
        int islands = islands(mesh);
        if (islands > 1) {
            findings.add(new Finding(
                    Severity.NOTE, "pieces of the mesh are not connected with each other by a node", islands, null));
        }
        CellQuality quality = CellQuality.of(mesh);
        findings.addAll(quality.findings());
        kind(mesh, findings);
        return new Report(volume.value(), area.value(), quality, findings);
    }

    /** Plane meshes, and solids that are one cell thick: across a direction, or around an axis. */
    private static void kind(Mesh mesh, List<Finding> findings) {
        String[] axis = {"x", "y", "z"};
        double size = mesh.modelSize();
        if (mesh.dimension() == 2 && CellMeasures.flat(mesh)) {
            findings.add(new Finding(
                    Severity.NOTE,
                    "plane mesh: integrals are taken for a depth of 1 m, unless another depth or a full turn about the axis is stated",
                    mesh.cellCount(),
                    null));
        }
        if (mesh.dimension() != 3 || mesh.nodeCount() < 8) {
            return;
        }
        double[] b = mesh.bounds();
        double[] x = mesh.xyz();
        for (int d = 0; d < 3; d++) {
            double span = b[2 * d + 1] - b[2 * d];
            boolean two = span > 0 && span < 0.5 * size;
            for (int i = 0; two && i < mesh.nodeCount(); i++) {
                double v = x[3 * i + d];
                two = Math.min(v - b[2 * d], b[2 * d + 1] - v) <= 1e-6 * span;
            }
            if (two) {
                findings.add(new Finding(
                        Severity.NOTE,
                        "one cell thick along " + axis[d] + ", over " + Finding.number(span, 4)
                                + " m: a plane flow? Integrals hold for this span",
                        mesh.cellCount(),
                        null));
                return;
            }
        }
        for (int d = 0; d < 3; d++) {
            double angle = wedge(mesh, d);
            if (angle > 0) {
                findings.add(new Finding(
                        Severity.NOTE,
                        "one cell thick around the " + axis[d] + " axis, a wedge of "
                                + Finding.number(Math.toDegrees(angle), 4)
                                + " degrees: an axisymmetric flow? Integrals hold for the wedge, unless it is stated that it stands for"
                                + " the full turn, " + Finding.number(2 * Math.PI / angle, 4) + " times as much",
                        mesh.cellCount(),
                        null));
                return;
            }
        }
    }

    /** The angle between two half planes through an axis that all nodes lie on; 0 where they do not. */
    private static double wedge(Mesh mesh, int d) {
        double[] x = mesh.xyz();
        int a = (d + 1) % 3;
        int b = (d + 2) % 3;
        double tiny = 1e-6 * mesh.modelSize();
        double first = Double.NaN;
        double second = Double.NaN;
        for (int i = 0; i < mesh.nodeCount(); i++) {
            double r = Math.hypot(x[3 * i + a], x[3 * i + b]);
            if (r > tiny) {
                double angle = Math.atan2(x[3 * i + b], x[3 * i + a]);
                double slack = Math.max(1e-6, tiny / r);
                if (Double.isNaN(first)) {
                    first = angle;
                } else if (Math.abs(Math.IEEEremainder(angle - first, 2 * Math.PI)) > slack) {
                    if (Double.isNaN(second)) {
                        second = angle;
                    } else if (Math.abs(Math.IEEEremainder(angle - second, 2 * Math.PI)) > slack) {
                        return 0;
                    }
                }
            }
        }
        double between = Math.abs(Math.IEEEremainder(second - first, 2 * Math.PI));
        return between < Math.PI / 2 ? between : 0;
    }

    private static double[] measures(Mesh mesh) {
        double[] measure = new double[mesh.cellCount()];
        Parallel.forBlocks(measure.length, BLOCK, (block, from, to) -> {
            var cell = new Cell(mesh);
            for (int c = from; c < to; c++) {
                measure[c] = mesh.shape(c).dimension() >= 2 ? cell.load(c).measure() : 0;
            }
        });
        return measure;
    }

    private static void coordinates(Mesh mesh, List<Finding> findings) {
        int bad = 0;
        for (int i = 0; i < mesh.nodeCount(); i++) {
            for (int d = 0; d < 3; d++) {
                if (!Double.isFinite(mesh.xyz()[3 * i + d])) {
                    bad++;
                    break;
                }
            }
        }
        if (bad > 0) {
            findings.add(new Finding(Severity.ERROR, "nodes have coordinates that are no numbers", bad, null));
        }
    }

    private static void volumes(Mesh mesh, double[] measure, List<Finding> findings) {
        int wedges = 0;
        int turnedWedges = 0;
        for (int c = 0; c < measure.length; c++) {
            if (mesh.shape(c).corners() == CellShape.WEDGE) {
                wedges++;
                turnedWedges += measure[c] < 0 ? 1 : 0;
            }
        }
        // Programs disagree on which way a wedge's first triangle looks: one way for all is no fault.
        boolean wedgesTurned = turnedWedges == wedges;
        int inverted = 0;
        int flat = 0;
        double worst = 0;
        int worstCell = -1;
        int flatCell = -1;
        var cell = new Cell(mesh);
        for (int c = 0; c < measure.length; c++) {
            CellShape shape = mesh.shape(c);
            if (shape.dimension() < 2) {
                continue;
            }
            double v = wedgesTurned && shape.corners() == CellShape.WEDGE ? -measure[c] : measure[c];
            cell.load(c);
            double size = size(cell);
            double scale = shape.dimension() == 3 ? size * size * size : size * size;
            if (!(Math.abs(v) > FLAT * scale)) {
                flat++;
                flatCell = flatCell < 0 ? c : flatCell;
            } else if (v < 0) {
                inverted++;
                if (v < worst) {
                    worst = v;
                    worstCell = c;
                }
            }
        }
        if (inverted > 0) {
            findings.add(new Finding(
                    Severity.ERROR,
                    "cells have a negative volume: they are inverted or their nodes stand in the wrong order",
                    inverted,
                    centre(mesh, worstCell)));
        }
        if (flat > 0) {
            findings.add(new Finding(
                    Severity.ERROR,
                    "cells have no volume or no area: they are degenerate",
                    flat,
                    centre(mesh, flatCell)));
        }
    }

    private static double size(Cell cell) {
        double most = 0;
        for (int d = 0; d < 3; d++) {
            double least = Double.POSITIVE_INFINITY;
            double greatest = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < cell.size(); i++) {
                least = Math.min(least, cell.x()[3 * i + d]);
                greatest = Math.max(greatest, cell.x()[3 * i + d]);
            }
            most = Math.max(most, greatest - least);
        }
        return most;
    }

    private static @Nullable Point centre(Mesh mesh, int cell) {
        double[] c = new double[3];
        new Cell(mesh).load(cell).centre(c);
        return finite(c[0], c[1], c[2]);
    }

    private static void nodes(Mesh mesh, List<Finding> findings) {
        boolean[] used = new boolean[mesh.nodeCount()];
        for (int node : mesh.nodes()) {
            used[node] = true;
        }
        int unused = 0;
        int first = -1;
        for (int i = 0; i < used.length; i++) {
            if (!used[i]) {
                unused++;
                first = first < 0 ? i : first;
            }
        }
        if (unused > 0) {
            findings.add(new Finding(Severity.NOTE, "nodes belong to no cell", unused, place(mesh, first)));
        }
        long[] found = doubles(mesh, used);
        if (found[0] > 0) {
            findings.add(new Finding(
                    Severity.WARNING,
                    "nodes stand where another node stands already: the mesh may be torn open there",
                    found[0],
                    place(mesh, (int) found[1])));
        }
    }

    private static @Nullable Point place(Mesh mesh, int node) {
        return finite(mesh.xyz()[3 * node], mesh.xyz()[3 * node + 1], mesh.xyz()[3 * node + 2]);
    }

    private static @Nullable Point finite(double x, double y, double z) {
        return Double.isFinite(x + y + z) ? new Point(x, y, z) : null;
    }

    /** Number of nodes at the place of an earlier one, to 1e-10 of the model, and one of them. */
    private static long[] doubles(Mesh mesh, boolean[] used) {
        double step = Math.max(1e-10 * mesh.modelSize(), Double.MIN_NORMAL);
        double[] x = mesh.xyz();
        int n = 0;
        long[] keys = new long[mesh.nodeCount()];
        int[] nodes = new int[mesh.nodeCount()];
        for (int i = 0; i < nodes.length; i++) {
            if (used[i] && Double.isFinite(x[3 * i] + x[3 * i + 1] + x[3 * i + 2])) {
                long h = Math.round(x[3 * i] / step) * 0x9e3779b97f4a7c15L;
                h = (h ^ h >>> 29) + Math.round(x[3 * i + 1] / step) * 0xbf58476d1ce4e5b9L;
                h = (h ^ h >>> 32) + Math.round(x[3 * i + 2] / step) * 0x94d049bb133111ebL;
                keys[n] = h ^ h >>> 31;
                nodes[n++] = i;
            }
        }
        long[] sorted = Arrays.copyOf(keys, n);
        Arrays.parallelSort(sorted);
        long count = 0;
        long one = -1;
        for (int i = 1; i < n; i++) {
            if (sorted[i] == sorted[i - 1]) {
                count++;
                one = sorted[i];
            }
        }
        for (int i = 0; i < n && count > 0; i++) {
            if (keys[i] == one) {
                return new long[] {count, nodes[i]};
            }
        }
        return new long[] {count, 0};
    }

    /** Number of sets of cells that are connected by common nodes. */
    private static int islands(Mesh mesh) {
        int[] parent = new int[mesh.nodeCount()];
        Arrays.setAll(parent, i -> i);
        int[] nodes = mesh.nodes();
        for (int c = 0; c < mesh.cellCount(); c++) {
            int begin = mesh.begin(c);
            for (int k = 1; k < mesh.size(c); k++) {
                int a = root(parent, nodes[begin]);
                int b = root(parent, nodes[begin + k]);
                parent[Math.max(a, b)] = Math.min(a, b);
            }
        }
        boolean[] seen = new boolean[parent.length];
        int count = 0;
        for (int c = 0; c < mesh.cellCount(); c++) {
            int r = root(parent, nodes[mesh.begin(c)]);
            count += seen[r] ? 0 : 1;
            seen[r] = true;
        }
        return count;
    }

    private static int root(int[] parent, int i) {
        while (parent[i] != i) {
            parent[i] = parent[parent[i]];
            i = parent[i];
        }
        return i;
    }
}
