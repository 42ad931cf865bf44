package lane.formats.grid;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.field.Field;
import lane.field.Values;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Puts pieces together into one mesh with fields: ghost and hidden cells are left out, and nodes of different pieces at
 * one place become one, so that no boundary is left between the pieces.
 */
public final class Pieces {
    private static final Set<String> GHOSTS = Set.of("vtkGhostType", "vtkGhostLevels");
    private static final int DUPLICATE = 1;
    private static final int REFINED = 8;
    private static final int HIDDEN = 32;

    private final List<Mesh> meshes = new ArrayList<>();
    private final List<List<Field>> fields = new ArrayList<>();
    private final List<String> remarks;
    private final List<int[]> extents = new ArrayList<>();

    public Pieces(List<String> remarks) {
        this.remarks = remarks;
    }

    public void add(Mesh mesh, List<Field> its) {
        add(mesh, its, null);
    }

    /**
     * @param extent where a structured piece stands: first and last node along each direction, the first fastest; what an
     *     earlier piece holds too is taken once. Null for a piece without such a place
     */
    public void add(Mesh mesh, List<Field> its, int @Nullable [] extent) {
        if (mesh.cellCount() == 0 && mesh.nodeCount() == 0) {
            return;
        }
        boolean[] drop = new boolean[mesh.cellCount()];
        boolean any = false;
        int ghosts = 0;
        if (extent != null) {
            int twice = twice(extent, drop);
            any = twice > 0;
            if (any) {
                remarks.add(twice + " cells that another piece holds too were taken once.");
            }
            extents.add(extent);
        }
        for (Field f : its) {
            if (GHOSTS.contains(f.name())
                    && f.at() == Field.At.CELL
                    && f.components() == 1
                    && f.size() == drop.length) {
                for (int c = 0; c < drop.length; c++) {
                    int flag = (int) f.values().get(c);
                    boolean ghost =
                            f.name().equals("vtkGhostLevels") ? flag > 0 : (flag & (DUPLICATE | REFINED | HIDDEN)) != 0;
                    ghosts += ghost && !drop[c] ? 1 : 0;
                    drop[c] |= ghost;
                    any |= ghost;
                }
            }
        }
        List<Field> kept = its.stream().filter(f -> !GHOSTS.contains(f.name())).toList();
        if (ghosts > 0) {
            remarks.add(ghosts + " ghost or hidden cells were left out.");
        }
        if (any) {
            without(mesh, kept, drop);
        } else {
            meshes.add(mesh);
            fields.add(kept);
        }
    }

    /** A structured piece that is not read: what it holds too is not taken of later ones. */
    public void elsewhere(int[] extent) {
        extents.add(extent);
    }

    /** Marks the cells of a structured piece that lie in an earlier one; says how many. */
    private int twice(int[] e, boolean[] drop) {
        int[] wide = new int[3];
        long cells = 1;
        for (int d = 0; d < 3; d++) {
            wide[d] = Math.max(1, e[2 * d + 1] - e[2 * d]);
            cells *= wide[d];
        }
        if (cells != drop.length) {
            throw new FormatError(
                    "a piece has " + drop.length + " cells, but its extent " + Arrays.toString(e) + " needs " + cells);
        }
        int count = 0;
        for (int[] other : extents) {
            int[] from = new int[3];
            int[] to = new int[3];
            for (int d = 0; d < 3; d++) {
                boolean flat = e[2 * d + 1] == e[2 * d];
                from[d] = Math.max(e[2 * d], other[2 * d]) - e[2 * d];
                // A direction of one node has one cell there, if the other one reaches it.
                to[d] = Math.min(e[2 * d + 1], other[2 * d + 1]) - e[2 * d] + (flat ? 1 : 0);
            }
            for (int k = from[2]; k < to[2]; k++) {
                for (int j = from[1]; j < to[1]; j++) {
                    for (int i = from[0]; i < to[0]; i++) {
                        int c = i + wide[0] * (j + wide[1] * k);
                        count += drop[c] ? 0 : 1;
                        drop[c] = true;
                    }
                }
            }
        }
        return count;
    }

    /** Cells that are not dropped, and the nodes that they or nobody used before. */
    private void without(Mesh mesh, List<Field> its, boolean[] drop) {
        boolean[] gone = new boolean[mesh.nodeCount()];
        for (int pass = 0; pass < 2; pass++) {
            for (int c = 0; c < drop.length; c++) {
                if (drop[c] == (pass == 0)) {
                    for (int k = 0; k < mesh.size(c); k++) {
                        gone[mesh.nodes()[mesh.begin(c) + k]] = pass == 0;
                    }
                }
            }
        }
        int[] to = new int[mesh.nodeCount()];
        int[] nodeFrom = new int[mesh.nodeCount()];
        int n = 0;
        for (int i = 0; i < to.length; i++) {
            nodeFrom[n] = i;
            to[i] = gone[i] ? -1 : n++;
        }
        nodeFrom = Arrays.copyOf(nodeFrom, n);
        int[] cellFrom = java.util.stream.IntStream.range(0, drop.length)
                .filter(c -> !drop[c])
                .toArray();
        double[] xyz = new double[3 * n];
        for (int i = 0; i < n; i++) {
            System.arraycopy(mesh.xyz(), 3 * nodeFrom[i], xyz, 3 * i, 3);
        }
        meshes.add(cells(mesh, cellFrom, to, xyz));
        List<Field> kept = new ArrayList<>();
        for (Field f : its) {
            kept.add(f.pick(f.at() == Field.At.NODE ? nodeFrom : cellFrom));
        }
        fields.add(kept);
    }

    /** Some cells of a mesh over other nodes. */
    private static Mesh cells(Mesh mesh, int[] from, int[] to, double[] xyz) {
        int size = 0;
        int faces = 0;
        for (int c : from) {
            size = Math.addExact(size, mesh.size(c));
            faces += mesh.shape(c) == CellShape.POLYHEDRON ? mesh.faceEnd(c) - mesh.faceBegin(c) : 0;
        }
        byte[] shapes = new byte[from.length];
        int[] offsets = new int[from.length + 1];
        int[] nodes = new int[size];
        int[] faceOffsets = mesh.hasPolyhedra() ? new int[from.length + 1] : null;
        int[] stream = mesh.hasPolyhedra() ? new int[faces] : null;
        int at = 0;
        int face = 0;
        for (int i = 0; i < from.length; i++) {
            int c = from[i];
            shapes[i] = (byte) mesh.shape(c).ordinal();
            for (int k = 0; k < mesh.size(c); k++) {
                nodes[at++] = to[mesh.nodes()[mesh.begin(c) + k]];
            }
            offsets[i + 1] = at;
            if (faceOffsets != null && stream != null) {
                if (mesh.shape(c) == CellShape.POLYHEDRON) {
                    int p = mesh.faceBegin(c);
                    int count = mesh.faceStream()[p++];
                    stream[face++] = count;
                    for (int f = 0; f < count; f++) {
                        int m = mesh.faceStream()[p++];
                        stream[face++] = m;
                        for (int k = 0; k < m; k++) {
                            stream[face++] = to[mesh.faceStream()[p++]];
                        }
                    }
                }
                faceOffsets[i + 1] = face;
            }
        }
        return new Mesh(xyz, shapes, offsets, nodes, faceOffsets, stream);
    }

    public boolean isEmpty() {
        return meshes.isEmpty();
    }

    /** Everything as one mesh; fields that not every piece has are named in a remark and left out. */
    public Dataset join() {
        if (meshes.isEmpty()) {
            return new Dataset(new Mesh(new double[0], new byte[0], new int[1], new int[0]), List.of(), remarks);
        }
        if (meshes.size() == 1) {
            return new Dataset(meshes.getFirst(), fields.getFirst(), remarks);
        }
        int total = 0;
        for (Mesh m : meshes) {
            total = Math.addExact(total, m.nodeCount());
        }
        // Nodes of one piece are never welded with each other: a slit in a mesh is meant.
        int[] to = new int[total];
        int[] nodeFrom = new int[total];
        int n = 0;
        int at = 0;
        int welded = 0;
        Map<Place, Integer> places = new HashMap<>();
        double step = step();
        for (Mesh m : meshes) {
            Map<Place, Integer> own = new HashMap<>();
            boolean[] rim = rim(m);
            for (int i = 0; i < m.nodeCount(); i++, at++) {
                Place place = rim[i] ? Place.of(m.xyz(), i, step) : null;
                Integer there = place == null ? null : places.get(place);
                if (there == null) {
                    nodeFrom[n] = at;
                    to[at] = n++;
                    if (place != null) {
                        own.putIfAbsent(place, to[at]);
                    }
                } else {
                    to[at] = there;
                    welded++;
                }
            }
            own.forEach(places::putIfAbsent);
        }
        nodeFrom = Arrays.copyOf(nodeFrom, n);
        if (welded > 0) {
            remarks.add(meshes.size() + " pieces were joined at " + welded + " nodes.");
        }
        double[] xyz = new double[3 * n];
        double[] all = new double[3 * total];
        List<Mesh> moved = new ArrayList<>();
        int base = 0;
        for (Mesh m : meshes) {
            System.arraycopy(m.xyz(), 0, all, 3 * base, m.xyz().length);
            base += m.nodeCount();
        }
        for (int i = 0; i < n; i++) {
            System.arraycopy(all, 3 * nodeFrom[i], xyz, 3 * i, 3);
        }
        base = 0;
        for (Mesh m : meshes) {
            int[] mine = Arrays.copyOfRange(to, base, base + m.nodeCount());
            int[] whole = new int[m.cellCount()];
            Arrays.setAll(whole, i -> i);
            moved.add(cells(m, whole, mine, xyz));
            base += m.nodeCount();
        }
        return new Dataset(one(moved, xyz), joined(nodeFrom), remarks);
    }

    /** Nodes that other pieces can share: those of the boundary; all of them for lines and points. */
    private static boolean[] rim(Mesh mesh) {
        boolean[] rim = new boolean[mesh.nodeCount()];
        if (mesh.dimension() < 2) {
            Arrays.fill(rim, true);
        } else {
            for (int node : lane.mesh.Topology.boundary(mesh).nodes()) {
                rim[node] = true;
            }
        }
        return rim;
    }

    /** A place to a thousand-millionth of the model: pieces of one mesh store the same numbers but for their last digits. */
    private record Place(long x, long y, long z) {
        static Place of(double[] xyz, int node, double step) {
            return new Place(
                    Math.round(xyz[3 * node] / step),
                    Math.round(xyz[3 * node + 1] / step),
                    Math.round(xyz[3 * node + 2] / step));
        }
    }

    private double step() {
        double size = 0;
        for (Mesh m : meshes) {
            size = Math.max(size, m.modelSize());
        }
        return Math.max(1e-9 * size, Double.MIN_NORMAL);
    }

    private static Mesh one(List<Mesh> parts, double[] xyz) {
        int cells = 0;
        int size = 0;
        int faces = 0;
        boolean poly = false;
        for (Mesh m : parts) {
            cells = Math.addExact(cells, m.cellCount());
            size = Math.addExact(size, m.nodes().length);
            faces = Math.addExact(faces, m.hasPolyhedra() ? m.faceStream().length : 0);
            poly |= m.hasPolyhedra();
        }
        byte[] shapes = new byte[cells];
        int[] offsets = new int[cells + 1];
        int[] nodes = new int[size];
        int[] faceOffsets = poly ? new int[cells + 1] : null;
        int[] stream = poly ? new int[faces] : null;
        int cell = 0;
        int at = 0;
        int face = 0;
        for (Mesh m : parts) {
            System.arraycopy(m.nodes(), 0, nodes, at, m.nodes().length);
            if (stream != null && m.hasPolyhedra()) {
                System.arraycopy(m.faceStream(), 0, stream, face, m.faceStream().length);
            }
            for (int c = 0; c < m.cellCount(); c++) {
                shapes[cell] = (byte) m.shape(c).ordinal();
                offsets[++cell] = at + m.begin(c) + m.size(c);
                if (faceOffsets != null) {
                    faceOffsets[cell] = face + (m.hasPolyhedra() ? m.faceEnd(c) : 0);
                }
            }
            at += m.nodes().length;
            face += m.hasPolyhedra() ? m.faceStream().length : 0;
        }
        return new Mesh(xyz, shapes, offsets, nodes, faceOffsets, stream);
    }

    private List<Field> joined(int[] nodeFrom) {
        List<Field> out = new ArrayList<>();
        var names = new LinkedHashSet<String>();
        for (int i = 0; i < fields.size(); i++) {
            fields.get(i).forEach(f -> names.add(f.at() + "/" + f.components() + "/" + f.name()));
        }
        for (String key : names) {
            List<Values> values = new ArrayList<>();
            Field first = null;
            boolean everywhere = true;
            for (int i = 0; i < fields.size(); i++) {
                Field found = fields.get(i).stream()
                        .filter(f -> (f.at() + "/" + f.components() + "/" + f.name()).equals(key))
                        .findFirst()
                        .orElse(null);
                if (found != null) {
                    values.add(found.stored());
                    first = first == null ? found : first;
                } else {
                    everywhere &= meshes.get(i).cellCount() == 0 && key.startsWith("CELL");
                }
            }
            if (first == null) {
                continue;
            }
            if (!everywhere) {
                remarks.add("Array \"" + first.name() + "\" is not in every piece and was not read.");
                continue;
            }
            Values whole = Values.join(values);
            out.add(new Field(
                    first.name(),
                    first.at(),
                    first.components(),
                    first.unit(),
                    first.at() == Field.At.NODE ? whole.pick(first.components(), nodeFrom) : whole));
        }
        return out;
    }
}
