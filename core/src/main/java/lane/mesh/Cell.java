package lane.mesh;

import org.jspecify.annotations.Nullable;

/**
 * A moving view of one cell of a mesh: its nodes gathered into local arrays, its faces, measure and inverse map. One a
 * thread; {@link #load} before use. After {@link #locate} the fields {@code weights} hold the interpolation.
 */
public final class Cell {
    /** Slack of the inside test in reference coordinates, so that a point on a shared face is in one of its cells. */
    static final double SLACK = 1e-9;

    /** How far a quadratic cell can reach beyond the box of its nodes, as a share of it: an edge does by an eighth. */
    static final double BULGE = 0.25;

    private final Mesh mesh;
    private CellShape shape = CellShape.VERTEX;
    private int size;
    private int index = -1;
    private int[] ids = new int[27];
    private double[] x = new double[81];
    private double[] weights = new double[27];
    private int @Nullable [][] faces = {};
    private final InverseMap inverse = new InverseMap();

    public Cell(Mesh mesh) {
        this.mesh = mesh;
    }

    /** Moves to a cell. */
    public Cell load(int cell) {
        index = cell;
        shape = mesh.shape(cell);
        size = mesh.size(cell);
        if (ids.length < size) {
            ids = new int[2 * size];
            x = new double[6 * size];
            weights = new double[2 * size];
        }
        int begin = mesh.begin(cell);
        int[] nodes = mesh.nodes();
        double[] xyz = mesh.xyz();
        for (int i = 0; i < size; i++) {
            int node = nodes[begin + i];
            ids[i] = node;
            x[3 * i] = xyz[3 * node];
            x[3 * i + 1] = xyz[3 * node + 1];
            x[3 * i + 2] = xyz[3 * node + 2];
        }
        faces = shape == CellShape.POLYHEDRON ? null : shape.outlines();
        return this;
    }

    public int index() {
        return index;
    }

    public CellShape shape() {
        return shape;
    }

    /** Number of nodes. */
    public int size() {
        return size;
    }

    /** Global number of local node {@code i}. */
    public int node(int i) {
        return ids[i];
    }

    /** Local coordinates, three to a node; valid until the next {@link #load}. */
    public double[] x() {
        return x;
    }

    /** Interpolation weights of the last {@link #locate}, one a node; valid until the next call. */
    public double[] weights() {
        return weights;
    }

    /** Faces of a solid as loops of local node numbers, wound outwards if the cell's nodes stand in the format's order. */
    public int[][] faces() {
        if (faces == null) {
            int[] stream = mesh.faceStream();
            int at = mesh.faceBegin(index);
            int[][] made = new int[stream[at++]][];
            for (int f = 0; f < made.length; f++) {
                made[f] = new int[stream[at++]];
                for (int k = 0; k < made[f].length; k++) {
                    made[f][k] = local(stream[at++]);
                }
            }
            faces = made;
        }
        return faces;
    }

    private int local(int node) {
        for (int i = 0; i < size; i++) {
            if (ids[i] == node) {
                return i;
            }
        }
        throw new IllegalStateException("node " + node + " is not in cell " + index);
    }

    /** The mean of the nodes. */
    public void centre(double[] out) {
        out[0] = 0;
        out[1] = 0;
        out[2] = 0;
        for (int i = 0; i < size; i++) {
            out[0] += x[3 * i];
            out[1] += x[3 * i + 1];
            out[2] += x[3 * i + 2];
        }
        out[0] /= size;
        out[1] /= size;
        out[2] /= size;
    }

    /** Whether the point lies in the box around the nodes, widened by {@code margin} metres. */
    public boolean nearBox(double px, double py, double pz, double margin) {
        return within(px, 0, margin) && within(py, 1, margin) && within(pz, 2, margin);
    }

    private boolean within(double p, int d, double margin) {
        double least = x[d];
        double greatest = x[d];
        for (int i = 1; i < size; i++) {
            double v = x[3 * i + d];
            least = v < least ? v : least;
            greatest = v > greatest ? v : greatest;
        }
        // A curved cell bulges beyond its nodes.
        double wide = shape.quadratic() ? margin + BULGE * (greatest - least) : margin;
        return p >= least - wide && p <= greatest + wide;
    }

    /**
     * Finds the point in this cell and writes the weights of its nodes: shape functions, or for polygons and polyhedra
     * those of the simplices about the centre. Outside, the weights are those of a near point of the cell.
     *
     * @return 0 if the point is inside (a face belongs to both its cells), else the distance in metres to the point of
     *     the cell that the weights describe: never less than the true distance, and close to it when small
     */
    public double locate(double px, double py, double pz) {
        return inverse.locate(this, px, py, pz);
    }

    /** Length, area or volume; a solid whose nodes are wound the wrong way round has a negative volume. */
    public double measure() {
        return CellMeasures.of(this);
    }
}
