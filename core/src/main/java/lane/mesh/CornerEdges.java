package lane.mesh;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Edges that leave a corner of a cell, by the cell's own node numbers: what a gradient at the corner is made of, as fields
 * are linear (or quadratic) along the edges of every shape.
 */
public final class CornerEdges {
    /** For each shape and corner: the other corners, then as many middles (-1 for none). */
    private static final int[][][] TABLE = new int[CellShape.values().length][][];

    static {
        for (CellShape shape : CellShape.values()) {
            if (shape.dimension() >= 2 && shape.nodes() > 0) {
                TABLE[shape.ordinal()] = table(shape);
            }
        }
    }

    private CornerEdges() {}

    private static int[][] table(CellShape shape) {
        int corners = shape.corners().nodes();
        int[][] loops = shape.dimension() == 3 ? shape.outlines() : new int[][] {rim(shape)};
        int[][] out = new int[corners][];
        for (int k = 0; k < corners; k++) {
            out[k] = edges(loops, k, shape.quadratic());
        }
        return out;
    }

    private static int[] rim(CellShape shape) {
        int[] rim = new int[shape.rim(shape.nodes())];
        Arrays.setAll(rim, shape::around);
        return rim;
    }

    private static int[] edges(int[][] loops, int corner, boolean quadratic) {
        List<Integer> others = new ArrayList<>();
        List<Integer> middles = new ArrayList<>();
        int step = quadratic ? 2 : 1;
        for (int[] loop : loops) {
            for (int i = 0; i < loop.length; i++) {
                if (loop[i] == corner) {
                    for (int sign : new int[] {-1, 1}) {
                        int other = loop[Math.floorMod(i + sign * step, loop.length)];
                        if (!others.contains(other)) {
                            others.add(other);
                            middles.add(quadratic ? loop[Math.floorMod(i + sign, loop.length)] : -1);
                        }
                    }
                }
            }
        }
        int[] out = new int[2 * others.size()];
        for (int i = 0; i < others.size(); i++) {
            out[i] = others.get(i);
            out[others.size() + i] = middles.get(i);
        }
        return out;
    }

    /** Other corners, then as many middles, of a corner. Not for polygons and polyhedra. */
    public static int[] of(CellShape shape, int corner) {
        return TABLE[shape.ordinal()][corner];
    }

    /**
     * The same of a cell whose shape has no table.
     *
     * @param corner among the cell's nodes
     */
    public static int[] of(Cell cell, int corner) {
        if (cell.shape() == CellShape.POLYGON) {
            int n = cell.size();
            return new int[] {(corner + n - 1) % n, (corner + 1) % n, -1, -1};
        }
        return edges(cell.faces(), corner, false);
    }

    public static boolean tabled(CellShape shape) {
        return TABLE[shape.ordinal()] != null;
    }

    /** The corners that a node after them stands between. */
    public static int[] between(CellShape shape, int node) {
        return shape.middles()[node - shape.corners().nodes()];
    }

    /** The cell's volume over that of the box that three edges of a corner span. */
    public static double share(CellShape shape) {
        return switch (shape.corners()) {
            case TRIANGLE -> 1 / 2.0;
            case TETRAHEDRON -> 1 / 6.0;
            case WEDGE -> 1 / 2.0;
            case PYRAMID -> 1 / 3.0;
            default -> 1;
        };
    }
}
