package lane.field;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/** Parts made of parts: several joined to one, one taken apart at its edges. */
final class PartPieces {
    private PartPieces() {}

    /** One part with the faces of all; fields of their own stay where all have them alike. */
    static Part merge(List<Part> parts, String name) {
        int faces = parts.stream().mapToInt(p -> p.surface().cellCount()).sum();
        int points = parts.stream().mapToInt(p -> p.surface().nodeCount()).sum();
        int corners = parts.stream().mapToInt(p -> p.surface().nodes().length).sum();
        double[] xyz = new double[3 * points];
        byte[] shapes = new byte[faces];
        int[] offsets = new int[faces + 1];
        int[] nodes = new int[corners];
        int[] node = new int[points];
        int[] owner = new int[faces];
        int f = 0;
        int point = 0;
        int corner = 0;
        for (Part p : parts) {
            Mesh m = p.surface();
            System.arraycopy(m.xyz(), 0, xyz, 3 * point, m.xyz().length);
            System.arraycopy(p.node(), 0, node, point, p.node().length);
            System.arraycopy(p.owner(), 0, owner, f, p.owner().length);
            for (int c = 0; c < m.cellCount(); c++) {
                shapes[f] = (byte) m.shape(c).ordinal();
                for (int k = 0; k < m.size(c); k++) {
                    nodes[corner++] = m.nodes()[m.begin(c) + k] + point;
                }
                offsets[++f] = corner;
            }
            point += m.nodeCount();
        }
        List<Field> fields = new ArrayList<>();
        for (Field one : parts.getFirst().fields()) {
            List<Field> alike = parts.stream()
                    .flatMap(p -> p.field(one.name()).stream())
                    .filter(x -> x.at() == one.at() && x.components() == one.components())
                    .toList();
            if (alike.size() == parts.size()) {
                fields.add(new Field(
                        one.name(),
                        one.at(),
                        one.components(),
                        one.unit(),
                        Values.join(alike.stream().map(Field::values).toList())));
            }
        }
        return new Part(
                name,
                new Mesh(xyz, shapes, offsets, nodes),
                node,
                owner,
                fields,
                parts.stream().mapToInt(Part::turned).sum(),
                parts.stream().mapToInt(Part::unmatched).sum(),
                parts.stream().map(Part::role).distinct().count() == 1
                        ? parts.getFirst().role()
                        : Role.NONE);
    }

    /** Pieces of a part whose neighbouring faces bend by no more than an angle in degrees, the largest first. */
    static List<Part> split(Part part, double angle) {
        Mesh m = part.surface();
        int n = m.cellCount();
        double[] normal = new double[3 * n];
        double[] area = new double[n];
        for (int f = 0; f < n; f++) {
            double[] own = new double[3];
            if (m.shape(f).dimension() == 1) {
                // Edges of a plane run bend as their tangents do.
                int a = 3 * m.nodes()[m.begin(f)];
                int b = 3 * m.nodes()[m.begin(f) + 1];
                for (int d = 0; d < 3; d++) {
                    own[d] = m.xyz()[b + d] - m.xyz()[a + d];
                }
            } else {
                normal(m, f, null, own);
            }
            System.arraycopy(own, 0, normal, 3 * f, 3);
            area[f] = Math.sqrt(dot(normal, f, f));
        }
        int[] group = new int[n];
        Arrays.setAll(group, i -> i);
        double least = Math.cos(Math.toRadians(angle)) - 1e-12;
        Map<Long, Integer> first = new HashMap<>(2 * m.nodes().length);
        for (int f = 0; f < n; f++) {
            boolean line = m.shape(f).dimension() == 1;
            int rim = line ? 2 : m.shape(f).rim(m.size(f));
            for (int k = 0; k < rim; k++) {
                long a = corner(m, f, k, line);
                long b = line ? a : corner(m, f, (k + 1) % rim, false);
                Integer other = first.putIfAbsent(Math.min(a, b) << 32 | Math.max(a, b), f);
                if (other != null && dot(normal, f, other) >= least * area[f] * area[other]) {
                    group[root(group, f)] = root(group, other);
                }
            }
        }
        Map<Integer, List<Integer>> pieces = new HashMap<>();
        for (int f = 0; f < n; f++) {
            pieces.computeIfAbsent(root(group, f), k -> new ArrayList<>()).add(f);
        }
        List<List<Integer>> sorted = new ArrayList<>(pieces.values());
        sorted.sort(Comparator.<List<Integer>>comparingDouble(
                        l -> -l.stream().mapToDouble(f -> area[f]).sum())
                .thenComparing(List::getFirst));
        if (sorted.size() < 2) {
            return List.of(part);
        }
        List<Part> out = new ArrayList<>();
        for (int i = 0; i < sorted.size(); i++) {
            int[] faces = sorted.get(i).stream().mapToInt(f -> f).toArray();
            out.add(pick(part, faces, part.name() + " " + (i + 1)));
        }
        return out;
    }

    private static long corner(Mesh m, int face, int k, boolean line) {
        return m.nodes()[m.begin(face) + (line ? k : m.shape(face).around(k))];
    }

    private static int root(int[] group, int i) {
        int r = i;
        while (group[r] != r) {
            group[r] = group[group[r]];
            r = group[r];
        }
        return r;
    }

    private static double dot(double[] v, int a, int b) {
        return v[3 * a] * v[3 * b] + v[3 * a + 1] * v[3 * b + 1] + v[3 * a + 2] * v[3 * b + 2];
    }

    /**
     * Area vector by the corners; of an edge of a plane run its length, across.
     *
     * @param plane unit normal of the plane run, which only edges need
     */
    static void normal(Mesh m, int f, double @Nullable [] plane, double[] out) {
        double[] x = m.xyz();
        java.util.Arrays.fill(out, 0);
        if (m.shape(f).dimension() == 1) {
            Objects.requireNonNull(plane, "edges have a normal in the plane of their run only");
            int a = 3 * m.nodes()[m.begin(f)];
            int b = 3 * m.nodes()[m.begin(f) + 1];
            for (int d = 0; d < 3; d++) {
                int e = (d + 1) % 3;
                int g = (d + 2) % 3;
                out[d] = (x[b + e] - x[a + e]) * plane[g] - (x[b + g] - x[a + g]) * plane[e];
            }
            CellMeasures.asLong(out, x[b] - x[a], x[b + 1] - x[a + 1], x[b + 2] - x[a + 2]);
            return;
        }
        int rim = m.shape(f).rim(m.size(f));
        int o = 3 * (int) corner(m, f, 0, false);
        for (int k = 1; k + 1 < rim; k++) {
            int a = 3 * (int) corner(m, f, k, false);
            int b = 3 * (int) corner(m, f, k + 1, false);
            for (int d = 0; d < 3; d++) {
                int e = (d + 1) % 3;
                int g = (d + 2) % 3;
                out[d] += 0.5
                        * ((x[a + e] - x[o + e]) * (x[b + g] - x[o + g])
                                - (x[a + g] - x[o + g]) * (x[b + e] - x[o + e]));
            }
        }
    }

    /** Some faces of a part, with the nodes they use. */
    static Part pick(Part part, int[] faces, String name) {
        Mesh m = part.surface();
        int[] local = new int[m.nodeCount()];
        Arrays.fill(local, -1);
        int[] used = new int[m.nodeCount()];
        int points = 0;
        byte[] shapes = new byte[faces.length];
        int[] offsets = new int[faces.length + 1];
        int[] owner = new int[faces.length];
        for (int i = 0; i < faces.length; i++) {
            offsets[i + 1] = offsets[i] + m.size(faces[i]);
        }
        int[] nodes = new int[offsets[faces.length]];
        for (int i = 0; i < faces.length; i++) {
            int f = faces[i];
            shapes[i] = (byte) m.shape(f).ordinal();
            owner[i] = part.owner()[f];
            for (int k = 0; k < m.size(f); k++) {
                int v = m.nodes()[m.begin(f) + k];
                if (local[v] < 0) {
                    local[v] = points;
                    used[points++] = v;
                }
                nodes[offsets[i] + k] = local[v];
            }
        }
        int[] from = Arrays.copyOf(used, points);
        double[] xyz = new double[3 * points];
        int[] node = new int[points];
        for (int i = 0; i < points; i++) {
            System.arraycopy(m.xyz(), 3 * from[i], xyz, 3 * i, 3);
            node[i] = part.node()[from[i]];
        }
        List<Field> fields = part.fields().stream()
                .map(x -> x.pick(x.at() == Field.At.NODE ? from : faces))
                .toList();
        int unmatched = (int) Arrays.stream(owner).filter(o -> o < 0).count();
        // Which faces were turned is no longer known face by face; the whole part's count was told before.
        return new Part(
                name,
                new Mesh(xyz, shapes, offsets, nodes),
                node,
                owner,
                fields,
                0,
                unmatched,
                part.role(),
                part.round(),
                part.coverage());
    }
}
