package lane.field;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lane.base.Sized;
import lane.base.Work;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Topology;
import org.jspecify.annotations.Nullable;

/**
 * Makes boundary parts on a run's mesh: from faces by node numbers, grouped by a region number, or from a surface file
 * matched by place. Faces are turned to point out of the run.
 */
public final class PartBuilder implements Sized {
    private final Mesh mesh;
    private final Topology.Boundary boundary;
    private final Map<Key, Integer> byNodes = new HashMap<>();
    private @Nullable NodeGrid grid;

    private record Key(long a, long b, int n) {}

    public PartBuilder(Mesh mesh) {
        this(mesh, Work.QUIET);
    }

    /** @throws java.util.concurrent.CancellationException when cancelled */
    public PartBuilder(Mesh mesh, Work work) {
        this.mesh = mesh;
        this.boundary = Topology.boundary(mesh, work);
        for (int f = 0; f < boundary.size(); f++) {
            byNodes.put(key(boundary.nodes(), boundary.offsets()[f], boundary.offsets()[f + 1]), f);
        }
    }

    public Topology.Boundary boundary() {
        return boundary;
    }

    /** Bytes that its boundary takes, near enough. */
    @Override
    public long bytes() {
        return 4L * boundary.nodes().length + 100L * boundary.size();
    }

    /** Order-free key of a node list: two independent sums of mixed numbers make a chance match a matter of 2^-64. */
    private static Key key(int[] nodes, int from, int to) {
        long a = 0;
        long b = 0;
        for (int i = from; i < to; i++) {
            long h = (nodes[i] + 0x9e3779b97f4a7c15L) * 0xbf58476d1ce4e5b9L;
            h ^= h >>> 31;
            a += h;
            b += h * h;
        }
        return new Key(a, b, to - from);
    }

    /** The whole boundary as one part. */
    public Part whole(String name) {
        int[] all = new int[boundary.size()];
        Arrays.setAll(all, i -> i);
        return ofBoundaryFaces(name, all);
    }

    /** The surface around some cells of a mesh, looking out of them; its faces belong to the cells inside. */
    public static Part around(Mesh mesh, String name, int[] cells) {
        Part skin = new PartBuilder(mesh.only(cells)).whole(name);
        int[] owner = Arrays.stream(skin.owner()).map(c -> cells[c]).toArray();
        return new Part(name, skin.surface(), skin.node(), owner, List.of(), 0, 0, Role.NONE);
    }

    /** Groups boundary faces by a number for each cell behind them; names are the prefix and the number. */
    public List<Part> byOwner(String prefix, Values region) {
        var groups = new java.util.TreeMap<Long, List<Integer>>();
        for (int f = 0; f < boundary.size(); f++) {
            groups.computeIfAbsent((long) region.get(boundary.owner()[f]), k -> new ArrayList<>())
                    .add(f);
        }
        List<Part> parts = new ArrayList<>();
        groups.forEach((number, faces) -> parts.add(ofBoundaryFaces(
                prefix + " " + number, faces.stream().mapToInt(i -> i).toArray())));
        return parts;
    }

    /** Groups the mesh's own face cells (one dimension below its solids) by a number for each. */
    public List<Part> byFaceCells(String prefix, Values region) {
        int below = mesh.dimension() - 1;
        var groups = new java.util.TreeMap<Long, List<Integer>>();
        for (int c = 0; c < mesh.cellCount(); c++) {
            if (mesh.shape(c).dimension() == below) {
                groups.computeIfAbsent((long) region.get(c), k -> new ArrayList<>())
                        .add(c);
            }
        }
        List<Part> parts = new ArrayList<>();
        groups.forEach((number, cells) -> {
            int[] offsets = new int[cells.size() + 1];
            int[] shapes = new int[cells.size()];
            var nodes = new IntList();
            for (int i = 0; i < shapes.length; i++) {
                int c = cells.get(i);
                shapes[i] = mesh.shape(c).ordinal();
                for (int k = 0; k < mesh.size(c); k++) {
                    nodes.add(mesh.nodes()[mesh.begin(c) + loop(mesh.shape(c), k)]);
                }
                offsets[i + 1] = nodes.size();
            }
            parts.add(build(prefix + " " + number, offsets, nodes.array(), List.of(), null));
        });
        return parts;
    }

    private static int loop(CellShape shape, int k) {
        return shape == CellShape.PIXEL && k >= 2 ? 5 - k : k;
    }

    private Part ofBoundaryFaces(String name, int[] faces) {
        int[] offsets = new int[faces.length + 1];
        var nodes = new IntList();
        for (int i = 0; i < faces.length; i++) {
            for (int k = boundary.offsets()[faces[i]]; k < boundary.offsets()[faces[i] + 1]; k++) {
                nodes.add(boundary.nodes()[k]);
            }
            offsets[i + 1] = nodes.size();
        }
        return build(name, offsets, nodes.array(), List.of(), null);
    }

    /**
     * Places a surface of its own on this mesh: nodes by position within 1e-5 of the model size, faces by their nodes.
     *
     * @param fields stored on the surface
     */
    public Part place(String name, Mesh surface, List<Field> fields) {
        if (grid == null) {
            grid = new NodeGrid(mesh, boundary.nodes(), 1e-5 * mesh.modelSize());
        }
        int[] to = new int[surface.nodeCount()];
        for (int i = 0; i < to.length; i++) {
            to[i] = grid.nearest(surface.xyz()[3 * i], surface.xyz()[3 * i + 1], surface.xyz()[3 * i + 2]);
        }
        int[] offsets = new int[surface.cellCount() + 1];
        int[] nodes = new int[surface.nodes().length];
        for (int c = 0; c < surface.cellCount(); c++) {
            offsets[c + 1] = surface.begin(c) + surface.size(c);
            for (int k = 0; k < surface.size(c); k++) {
                nodes[surface.begin(c) + k] = to[surface.nodes()[surface.begin(c) + loop(surface.shape(c), k)]];
            }
        }
        return build(name, offsets, nodes, fields, surface);
    }

    /** Faces by run nodes (may be -1 where {@code own} gives the surface itself); turned to point outwards. */
    private Part build(String name, int[] offsets, int[] runNodes, List<Field> fields, @Nullable Mesh own) {
        int count = offsets.length - 1;
        int[] owner = new int[count];
        int[] faceOf = new int[count];
        boolean[] turn = new boolean[count];
        int turned = 0;
        int unmatched = 0;
        for (int f = 0; f < count; f++) {
            Integer match = byNodes.get(key(runNodes, offsets[f], offsets[f + 1]));
            faceOf[f] = match == null ? -1 : match;
            owner[f] = match == null ? -1 : boundary.owner()[match];
            if (match == null) {
                unmatched++;
            } else {
                turn[f] = opposite(runNodes, offsets[f], offsets[f + 1], match);
                turned += turn[f] ? 1 : 0;
            }
        }
        int[] local = new int[runNodes.length];
        double[] xyz;
        int[] node;
        if (own == null) {
            var numbers = new HashMap<Integer, Integer>();
            for (int i = 0; i < runNodes.length; i++) {
                local[i] = numbers.computeIfAbsent(runNodes[i], k -> numbers.size());
            }
            xyz = new double[3 * numbers.size()];
            node = new int[numbers.size()];
            numbers.forEach((global, l) -> {
                node[l] = global;
                System.arraycopy(mesh.xyz(), 3 * global, xyz, 3 * l, 3);
            });
        } else {
            xyz = own.xyz();
            node = new int[own.nodeCount()];
            Arrays.fill(node, -1);
            for (int c = 0; c < count; c++) {
                for (int k = 0; k < own.size(c); k++) {
                    int at = own.begin(c) + k;
                    local[at] = own.nodes()[own.begin(c) + loop(own.shape(c), k)];
                    node[local[at]] = runNodes[at];
                }
            }
        }
        byte[] shapes = new byte[count];
        for (int f = 0; f < count; f++) {
            CellShape shape = faceShape(faceOf[f], own, f, offsets[f + 1] - offsets[f]);
            if (turn[f]) {
                turn(local, offsets[f], offsets[f + 1], shape);
            }
            shapes[f] = (byte) shape.ordinal();
        }
        return new Part(
                name, new Mesh(xyz, shapes, offsets, local), node, owner, fields, turned, unmatched, Role.guess(name));
    }

    private CellShape faceShape(int match, @Nullable Mesh own, int face, int nodes) {
        CellShape known = match >= 0 ? boundary.shape(match) : own != null ? own.shape(face) : null;
        if (known != null) {
            return known == CellShape.PIXEL ? CellShape.QUAD : known;
        }
        return switch (nodes) {
            case 1 -> CellShape.VERTEX;
            case 2 -> CellShape.LINE;
            case 3 -> CellShape.TRIANGLE;
            case 4 -> CellShape.QUAD;
            default -> CellShape.POLYGON;
        };
    }

    private static void turn(int[] nodes, int from, int to, CellShape shape) {
        int[] before = Arrays.copyOfRange(nodes, from, to);
        int[] order = shape.turned();
        for (int k = 0; k < before.length; k++) {
            nodes[from + k] = before[order == null ? before.length - 1 - k : order[k]];
        }
    }

    /** Whether a face runs around its corners the other way than the boundary face. */
    private boolean opposite(int[] nodes, int from, int to, int face) {
        CellShape shape = boundary.shape(face);
        int n = shape.quadratic() ? shape.corners().nodes() : to - from;
        int b = boundary.offsets()[face];
        if (n == 2) {
            return boundary.nodes()[b] != nodes[from];
        }
        for (int i = 0; i < n; i++) {
            if (boundary.nodes()[b + i] == nodes[from]) {
                return boundary.nodes()[b + (i + 1) % n] != nodes[from + 1];
            }
        }
        return false;
    }

    /** A growing list of numbers. */
    private static final class IntList {
        private int[] array = new int[64];
        private int size;

        void add(int v) {
            if (size == array.length) {
                array = Arrays.copyOf(array, 2 * size);
            }
            array[size++] = v;
        }

        int size() {
            return size;
        }

        int[] array() {
            return Arrays.copyOf(array, size);
        }
    }
}
