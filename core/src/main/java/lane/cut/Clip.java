package lane.cut;

import java.util.Arrays;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/**
 * Keeps the side of a cut where a level at its nodes is not negative, or parts its faces there. Faces are cut along their
 * edges; the new nodes lie between the old ones, in space and in the stencil. Exact for convex faces.
 */
final class Clip {
    private final Cut from;
    private final double[] level;
    private final Between between;
    private double[] xyz;
    private int points;
    private final StencilBuilder stencil;
    private final EdgeNumbers made = new EdgeNumbers(64);
    private int[] nodes = new int[64];
    private int[] offsets = new int[16];
    private int[] owner = new int[16];
    private int used;
    private int faces;

    /** Where the new node between two old ones lies. */
    interface Between {
        void place(int a, int b, double t, double[] out);
    }

    private Clip(Cut from, double[] level, Between between) {
        this.from = from;
        this.level = level;
        this.between = between;
        points = from.surface().nodeCount();
        xyz = Arrays.copyOf(from.surface().xyz(), 3 * points + 96);
        stencil = new StencilBuilder(points + 32);
        for (int i = 0; i < points; i++) {
            stencil.copy(from.stencil(), i, 1).next();
        }
    }

    static Cut keep(Cut from, double[] level) {
        double[] x = from.surface().xyz();
        var clip = new Clip(from, level, (a, b, t, out) -> {
            for (int d = 0; d < 3; d++) {
                out[d] = (1 - t) * x[3 * a + d] + t * x[3 * b + d];
            }
        });
        for (int f = 0; f < from.owner().length; f++) {
            clip.half(f, 1);
        }
        Cut all = clip.build();
        return all.pick(java.util.stream.IntStream.range(0, all.owner().length).toArray());
    }

    /** Both sides, each in faces of its own. */
    static Cut part(Cut from, double[] level, Between between) {
        var clip = new Clip(from, level, between);
        for (int f = 0; f < from.owner().length; f++) {
            clip.half(f, 1);
            clip.half(f, -1);
        }
        return clip.build();
    }

    private void half(int f, int side) {
        Mesh m = from.surface();
        int n = m.size(f);
        int begin = m.begin(f);
        boolean line = n == 2;
        int first = used;
        boolean off = false;
        for (int k = 0; k < n; k++) {
            int a = m.nodes()[begin + k];
            int b = m.nodes()[begin + (k + 1) % n];
            double va = side * level[a];
            double vb = side * level[b];
            if (va >= 0) {
                add(a);
            }
            off |= va != 0;
            if ((va > 0 && vb < 0 || va < 0 && vb > 0) && !(line && k == 1)) {
                add(crossing(a, b));
            }
        }
        int count = used - first;
        // A face that only touches with its rim, or lies in the parting itself on the other side, is left out.
        if (count < (line ? 2 : 3) || side < 0 && !off || !any(first, side)) {
            used = first;
            return;
        }
        if (faces + 2 > offsets.length) {
            offsets = Arrays.copyOf(offsets, 2 * offsets.length);
            owner = Arrays.copyOf(owner, 2 * owner.length);
        }
        owner[faces] = from.owner()[f];
        offsets[++faces] = used;
    }

    private boolean any(int first, int side) {
        boolean all = true;
        for (int i = first; i < used; i++) {
            boolean old = nodes[i] < from.surface().nodeCount();
            if (old && side * level[nodes[i]] > 0) {
                return true;
            }
            all &= old && level[nodes[i]] == 0;
        }
        return all && side > 0;
    }

    private void add(int node) {
        if (used == nodes.length) {
            nodes = Arrays.copyOf(nodes, 2 * used);
        }
        nodes[used++] = node;
    }

    private int crossing(int a, int b) {
        int low = Math.min(a, b);
        int high = Math.max(a, b);
        int before = made.size();
        int number = made.of((long) low << 32 | high);
        int node = from.surface().nodeCount() + number;
        if (number == before) {
            double t = level[low] / (level[low] - level[high]);
            if (3 * points + 3 > xyz.length) {
                xyz = Arrays.copyOf(xyz, 2 * xyz.length);
            }
            double[] p = new double[3];
            between.place(low, high, t, p);
            System.arraycopy(p, 0, xyz, 3 * points++, 3);
            stencil.copy(from.stencil(), low, 1 - t)
                    .copy(from.stencil(), high, t)
                    .next();
        }
        return node;
    }

    private Cut build() {
        byte[] shapes = new byte[faces];
        for (int f = 0; f < faces; f++) {
            shapes[f] = (byte) shape(offsets[f + 1] - offsets[f]).ordinal();
        }
        return new Cut(
                new Mesh(
                        Arrays.copyOf(xyz, 3 * points),
                        shapes,
                        Arrays.copyOf(offsets, faces + 1),
                        Arrays.copyOf(nodes, used)),
                Arrays.copyOf(owner, faces),
                stencil.build(),
                from.round(),
                from.coverage());
    }

    static CellShape shape(int nodes) {
        return switch (nodes) {
            case 2 -> CellShape.LINE;
            case 3 -> CellShape.TRIANGLE;
            case 4 -> CellShape.QUAD;
            default -> CellShape.POLYGON;
        };
    }
}
