package lane.mesh;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.base.Content;
import lane.base.LaneException;
import lane.base.Sized;
import lane.base.Work;
import org.jspecify.annotations.Nullable;

/**
 * A mesh: node coordinates and cells of mixed shape in flat arrays. It holds data only; {@link Cell} walks over it,
 * {@link Topology} knows neighbours and the boundary, {@link CellLocator} finds cells. The arrays are shared, not copied,
 * and must not change afterwards.
 */
public final class Mesh implements Sized {
    private final double[] xyz;
    private final byte[] shapes;
    private final int[] offsets;
    private final int[] nodes;
    private final int @Nullable [] faceOffsets;
    private final int @Nullable [] faceStream;
    private volatile double @Nullable [] bounds;
    /** Negative as long as nobody asked. */
    private volatile int dimension = -1;

    private volatile @Nullable CellLocator locator;
    private volatile @Nullable Key key;
    /** Where it meets other pieces of one mesh; null for a mesh that is whole. */
    private final @Nullable Joints joints;

    /**
     * A mesh without polyhedra.
     *
     * @param xyz coordinates in metres, three to a node
     * @param shapes one ordinal of {@link CellShape} a cell
     * @param offsets where each cell's nodes begin in {@code nodes}; one more entry than cells
     * @param nodes node numbers of all cells
     */
    public Mesh(double[] xyz, byte[] shapes, int[] offsets, int[] nodes) {
        this(xyz, shapes, offsets, nodes, null, null);
    }

    /**
     * A mesh that may hold polyhedra.
     *
     * @param faceOffsets where each cell's faces begin in {@code faceStream} (one more entry than cells), or null
     * @param faceStream for each polyhedron: the number of faces, then for each face its number of nodes and their
     *     global numbers; or null
     * @throws LaneException when sizes do not fit together or a node number is out of range
     */
    public Mesh(
            double[] xyz,
            byte[] shapes,
            int[] offsets,
            int[] nodes,
            int @Nullable [] faceOffsets,
            int @Nullable [] faceStream) {
        this.xyz = xyz;
        this.shapes = shapes;
        this.offsets = offsets;
        this.nodes = nodes;
        this.faceOffsets = faceOffsets;
        this.faceStream = faceStream;
        joints = null;
        MeshCheck.check(this);
    }

    private Mesh(Mesh of, Joints joints, Key known) {
        xyz = of.xyz;
        shapes = of.shapes;
        offsets = of.offsets;
        nodes = of.nodes;
        faceOffsets = of.faceOffsets;
        faceStream = of.faceStream;
        this.joints = joints;
        key = known;
    }

    /**
     * This mesh as a piece of a larger one: where it meets others there is no boundary.
     *
     * @param known what this piece and where it meets others are known by
     */
    public Mesh joined(Joints others, Key known) {
        return new Mesh(this, others, known);
    }

    /** Where this piece of a mesh meets others; null for a mesh that is whole. */
    public @Nullable Joints joints() {
        return joints;
    }

    /** What a mesh is known by; equal for the same nodes and cells, also when they were read twice. */
    public record Key(List<Content> of) {}

    /** What this mesh is known by; computed when first asked for. */
    public Key key() {
        Key k = key;
        if (k == null) {
            k = new Key(List.of(
                    Content.of(xyz),
                    Content.of(shapes),
                    Content.of(offsets),
                    Content.of(nodes),
                    Content.of(faceStream == null ? new int[0] : faceStream)));
            key = k;
        }
        return k;
    }

    /** Whether the locator is there already, so that looking up a place costs next to nothing. */
    public boolean located() {
        return locator != null;
    }

    /**
     * Finds cells; made once, when first asked for.
     *
     * @throws java.util.concurrent.CancellationException when cancelled while it is made
     */
    public CellLocator locator(Work work) {
        CellLocator made = locator;
        if (made == null) {
            synchronized (this) {
                made = locator;
                if (made == null) {
                    made = new CellLocator(this, work);
                    locator = made;
                }
            }
        }
        return made;
    }

    /** This mesh with all coordinates times a factor. */
    public Mesh scaled(double factor) {
        double[] to = new double[xyz.length];
        for (int i = 0; i < to.length; i++) {
            to[i] = factor * xyz[i];
        }
        return withNodes(to);
    }

    /** The same cells over other places of the nodes. */
    public Mesh withNodes(double[] places) {
        return new Mesh(places, shapes, offsets, nodes, faceOffsets, faceStream);
    }

    /** Some of its cells over all of its nodes, in the given order. */
    public Mesh only(int[] cells) {
        byte[] kinds = new byte[cells.length];
        int[] begins = new int[cells.length + 1];
        int[] faces = faceStream == null ? null : new int[cells.length + 1];
        for (int i = 0; i < cells.length; i++) {
            kinds[i] = shapes[cells[i]];
            begins[i + 1] = begins[i] + size(cells[i]);
            if (faces != null) {
                faces[i + 1] = faces[i] + faceEnd(cells[i]) - faceBegin(cells[i]);
            }
        }
        int[] kept = new int[begins[cells.length]];
        int[] stream = faces == null ? null : new int[faces[cells.length]];
        for (int i = 0; i < cells.length; i++) {
            System.arraycopy(nodes, begin(cells[i]), kept, begins[i], size(cells[i]));
            if (faces != null && stream != null) {
                System.arraycopy(faceStream(), faceBegin(cells[i]), stream, faces[i], faces[i + 1] - faces[i]);
            }
        }
        return new Mesh(xyz, kinds, begins, kept, faces, stream);
    }

    /** A mesh of cells of one shape with a fixed number of nodes. */
    public static Mesh uniform(double[] xyz, CellShape shape, int[] nodes) {
        int n = nodes.length / shape.nodes();
        byte[] shapes = new byte[n];
        Arrays.fill(shapes, (byte) shape.ordinal());
        int[] offsets = new int[n + 1];
        Arrays.setAll(offsets, i -> i * shape.nodes());
        return new Mesh(xyz, shapes, offsets, nodes);
    }

    public int nodeCount() {
        return xyz.length / 3;
    }

    public int cellCount() {
        return shapes.length;
    }

    /** Coordinates in metres, three to a node. Shared: do not write. */
    public double[] xyz() {
        return xyz;
    }

    public CellShape shape(int cell) {
        return CellShape.ofOrdinal(shapes[cell]);
    }

    /** Where the cell's nodes begin in {@link #nodes}; the next cell's begin is its end. */
    public int begin(int cell) {
        return offsets[cell];
    }

    public int size(int cell) {
        return offsets[cell + 1] - offsets[cell];
    }

    /** Node numbers of all cells, one cell after the other. Shared: do not write. */
    public int[] nodes() {
        return nodes;
    }

    /** Where the faces of a polyhedron begin in {@link #faceStream}. */
    public int faceBegin(int cell) {
        return Objects.requireNonNull(faceOffsets)[cell];
    }

    public int faceEnd(int cell) {
        return Objects.requireNonNull(faceOffsets)[cell + 1];
    }

    public boolean hasPolyhedra() {
        return faceStream != null;
    }

    /** Faces of the polyhedra; empty where there are none. */
    public int[] faceStream() {
        return faceStream == null ? new int[0] : faceStream;
    }

    int[] offsets() {
        return offsets;
    }

    int @Nullable [] faceOffsets() {
        return faceOffsets;
    }

    /** The largest dimension of any cell; 0 for an empty mesh. */
    public int dimension() {
        int d = dimension;
        if (d < 0) {
            boolean[] seen = new boolean[CellShape.values().length];
            for (byte s : shapes) {
                seen[s] = true;
            }
            d = 0;
            for (CellShape shape : CellShape.values()) {
                d = seen[shape.ordinal()] ? Math.max(d, shape.dimension()) : d;
            }
            dimension = d;
        }
        return d;
    }

    /** {@code xmin, xmax, ymin, ymax, zmin, zmax} of the finite node coordinates; zeros for an empty mesh. */
    public double[] bounds() {
        double[] b = bounds;
        if (b == null) {
            b = new double[] {1, -1, 1, -1, 1, -1};
            for (int d = 0; d < 3; d++) {
                double least = Double.POSITIVE_INFINITY;
                double greatest = Double.NEGATIVE_INFINITY;
                for (int i = d; i < xyz.length; i += 3) {
                    if (Double.isFinite(xyz[i])) {
                        least = Math.min(least, xyz[i]);
                        greatest = Math.max(greatest, xyz[i]);
                    }
                }
                b[2 * d] = least <= greatest ? least : 0;
                b[2 * d + 1] = least <= greatest ? greatest : 0;
            }
            bounds = b;
        }
        return b.clone();
    }

    /** The length of the diagonal of the bounds: the model size that relative tolerances refer to. */
    public double modelSize() {
        double[] b = bounds();
        return Math.sqrt(square(b[1] - b[0]) + square(b[3] - b[2]) + square(b[5] - b[4]));
    }

    /** Bytes held by this mesh's arrays, without its locator. */
    @Override
    public long bytes() {
        return 8L * xyz.length
                + shapes.length
                + 4L * (offsets.length + nodes.length)
                + (faceStream == null || faceOffsets == null ? 0 : 4L * (faceStream.length + faceOffsets.length));
    }

    private static double square(double v) {
        return v * v;
    }
}
