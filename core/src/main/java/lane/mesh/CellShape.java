package lane.mesh;

import org.jspecify.annotations.Nullable;

/**
 * The closed vocabulary of cell shapes, linear and quadratic. Only this package knows their nodes, faces, shape functions and rules.
 *
 * <p>Node order is that of the open VTK file formats. Reference domains: line, quad and hexahedron are {@code [0,1]^d};
 * triangle and tetrahedron are the unit simplices; the wedge is the unit triangle times {@code [0,1]}; the pyramid is
 * {@code 0 <= a,b <= 1 - t}. Pixel and voxel are a quad and a hexahedron with axis-aligned node order. Polyline, polygon
 * and polyhedron have no reference domain: they are cut into simplices about their centre, the mean of their nodes,
 * which reproduces linear fields exactly.
 *
 * <p>A quadratic shape has the corners and the reference domain of its linear one, then nodes in the middles of edges, of
 * faces and of the cell.
 */
public enum CellShape {
    VERTEX("vertex", 1, 0, 1),
    LINE("line", 3, 1, 2),
    POLYLINE("polyline", 4, 1, 0),
    TRIANGLE("triangle", 5, 2, 3),
    POLYGON("polygon", 7, 2, 0),
    PIXEL("pixel", 8, 2, 4),
    QUAD("quad", 9, 2, 4),
    TETRAHEDRON("tetrahedron", 10, 3, 4),
    VOXEL("voxel", 11, 3, 8),
    HEXAHEDRON("hexahedron", 12, 3, 8),
    WEDGE("wedge", 13, 3, 6),
    PYRAMID("pyramid", 14, 3, 5),
    POLYHEDRON("polyhedron", 42, 3, 0),
    LINE3("3-node line", 21, 1, 3),
    TRIANGLE6("6-node triangle", 22, 2, 6),
    QUAD8("8-node quad", 23, 2, 8),
    QUAD9("9-node quad", 28, 2, 9),
    TETRAHEDRON10("10-node tetrahedron", 24, 3, 10),
    PYRAMID13("13-node pyramid", 27, 3, 13),
    WEDGE15("15-node wedge", 26, 3, 15),
    WEDGE18("18-node wedge", 32, 3, 18),
    HEXAHEDRON20("20-node hexahedron", 25, 3, 20),
    HEXAHEDRON27("27-node hexahedron", 29, 3, 27);

    private static final CellShape[] ALL = values();
    private static final CellShape[] BY_CODE = new CellShape[64];

    static {
        for (CellShape shape : ALL) {
            BY_CODE[shape.code] = shape;
        }
    }

    private static final int[][] TETRA_FACES = {{0, 2, 1}, {0, 1, 3}, {1, 2, 3}, {0, 3, 2}};
    private static final int[][] HEXA_FACES = {
        {0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}
    };
    private static final int[][] VOXEL_FACES = {
        {0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {1, 3, 7, 5}, {3, 2, 6, 7}, {2, 0, 4, 6}
    };
    private static final int[][] WEDGE_FACES = {{0, 1, 2}, {3, 5, 4}, {0, 3, 4, 1}, {1, 4, 5, 2}, {2, 5, 3, 0}};
    private static final int[][] PYRAMID_FACES = {{0, 3, 2, 1}, {0, 1, 4}, {1, 2, 4}, {2, 3, 4}, {3, 0, 4}};
    private static final int[][] NO_FACES = {};

    private static final int[][] LINE_MIDDLES = {{0, 1}};
    private static final int[][] TRIANGLE_MIDDLES = {{0, 1}, {1, 2}, {2, 0}};
    private static final int[][] QUAD_MIDDLES = {{0, 1}, {1, 2}, {2, 3}, {3, 0}};
    private static final int[][] QUAD9_MIDDLES = {{0, 1}, {1, 2}, {2, 3}, {3, 0}, {0, 1, 2, 3}};
    private static final int[][] TETRA_MIDDLES = {{0, 1}, {1, 2}, {2, 0}, {0, 3}, {1, 3}, {2, 3}};
    private static final int[][] PYRAMID_MIDDLES = {{0, 1}, {1, 2}, {2, 3}, {3, 0}, {0, 4}, {1, 4}, {2, 4}, {3, 4}};
    private static final int[][] WEDGE_MIDDLES = {{0, 1}, {1, 2}, {2, 0}, {3, 4}, {4, 5}, {5, 3}, {0, 3}, {1, 4}, {2, 5}
    };
    private static final int[][] WEDGE18_MIDDLES = {
        {0, 1}, {1, 2}, {2, 0}, {3, 4}, {4, 5}, {5, 3}, {0, 3}, {1, 4}, {2, 5}, {0, 1, 4, 3}, {1, 2, 5, 4}, {2, 0, 3, 5}
    };
    private static final int[][] HEXA_MIDDLES = {
        {0, 1}, {1, 2}, {2, 3}, {3, 0}, {4, 5}, {5, 6}, {6, 7}, {7, 4}, {0, 4}, {1, 5}, {2, 6}, {3, 7}
    };
    private static final int[][] HEXA27_MIDDLES = {
        {0, 1},
        {1, 2},
        {2, 3},
        {3, 0},
        {4, 5},
        {5, 6},
        {6, 7},
        {7, 4},
        {0, 4},
        {1, 5},
        {2, 6},
        {3, 7},
        {0, 3, 7, 4},
        {1, 2, 6, 5},
        {0, 1, 5, 4},
        {3, 2, 6, 7},
        {0, 1, 2, 3},
        {4, 5, 6, 7},
        {0, 1, 2, 3, 4, 5, 6, 7}
    };
    private static final int[] PIXEL_LOOP = {0, 1, 3, 2};
    private static final int[] TRIANGLE6_LOOP = {0, 3, 1, 4, 2, 5};
    private static final int[] QUAD8_LOOP = {0, 4, 1, 5, 2, 6, 3, 7};

    // Filled once below, when all shapes are there, and never written again.
    @SuppressWarnings("ImmutableEnumChecker")
    private int[][] faces = {};

    @SuppressWarnings("ImmutableEnumChecker")
    private int[][] outlines = {};

    static {
        for (CellShape shape : ALL) {
            shape.faces = shape.makeFaces();
            shape.outlines = shape.makeOutlines();
        }
    }

    private final String word;
    private final int code;
    private final int dimension;
    private final int nodes;

    CellShape(String word, int code, int dimension, int nodes) {
        this.word = word;
        this.code = code;
        this.dimension = dimension;
        this.nodes = nodes;
    }

    /** The shape of a cell type number of the VTK file formats, or {@code null} when it is none of these. */
    public static @Nullable CellShape ofCode(int code) {
        return code < 0 || code >= BY_CODE.length ? null : BY_CODE[code];
    }

    static CellShape ofOrdinal(int ordinal) {
        return ALL[ordinal];
    }

    /** Lower-case name for people. */
    public String word() {
        return word;
    }

    /** Cell type number in the VTK file formats. */
    public int code() {
        return code;
    }

    /** 0 for a vertex, 1 for lines, 2 for surfaces, 3 for solids. */
    public int dimension() {
        return dimension;
    }

    /** Number of nodes, or 0 where each cell has its own. */
    public int nodes() {
        return nodes;
    }

    /** The linear shape with the same corners and reference domain; itself for a linear one. */
    public CellShape corners() {
        return switch (this) {
            case LINE3 -> LINE;
            case TRIANGLE6 -> TRIANGLE;
            case QUAD8, QUAD9 -> QUAD;
            case TETRAHEDRON10 -> TETRAHEDRON;
            case PYRAMID13 -> PYRAMID;
            case WEDGE15, WEDGE18 -> WEDGE;
            case HEXAHEDRON20, HEXAHEDRON27 -> HEXAHEDRON;
            default -> this;
        };
    }

    public boolean quadratic() {
        return corners() != this;
    }

    /** For each node after the corners, the corners that it stands between; empty for a linear shape. */
    int[][] middles() {
        return switch (this) {
            case LINE3 -> LINE_MIDDLES;
            case TRIANGLE6 -> TRIANGLE_MIDDLES;
            case QUAD8 -> QUAD_MIDDLES;
            case QUAD9 -> QUAD9_MIDDLES;
            case TETRAHEDRON10 -> TETRA_MIDDLES;
            case PYRAMID13 -> PYRAMID_MIDDLES;
            case WEDGE15 -> WEDGE_MIDDLES;
            case WEDGE18 -> WEDGE18_MIDDLES;
            case HEXAHEDRON20 -> HEXA_MIDDLES;
            case HEXAHEDRON27 -> HEXA27_MIDDLES;
            default -> NO_FACES;
        };
    }

    /**
     * Local node numbers of the faces of a solid, wound so that the normal points out of a cell whose nodes stand in
     * the order of the format; those of a quadratic solid are quadratic faces, corners first. Empty for a polyhedron,
     * whose cells list their own faces, and for shapes without volume.
     */
    public int[][] faces() {
        return faces;
    }

    /** The same faces as closed loops: the middles of edges stand between their corners, those of faces are left out. */
    int[][] outlines() {
        return outlines;
    }

    private int[][] makeFaces() {
        int[][] linear =
                switch (corners()) {
                    case TETRAHEDRON -> TETRA_FACES;
                    case HEXAHEDRON -> HEXA_FACES;
                    case VOXEL -> VOXEL_FACES;
                    case WEDGE -> WEDGE_FACES;
                    case PYRAMID -> PYRAMID_FACES;
                    default -> NO_FACES;
                };
        if (!quadratic()) {
            return linear;
        }
        int[][] out = new int[linear.length][];
        for (int f = 0; f < linear.length; f++) {
            int[] face = linear[f];
            int n = face.length;
            int centre = middle(face);
            out[f] = new int[2 * n + (centre < 0 ? 0 : 1)];
            for (int k = 0; k < n; k++) {
                out[f][k] = face[k];
                out[f][n + k] = middle(face[k], face[(k + 1) % n]);
            }
            if (centre >= 0) {
                out[f][2 * n] = centre;
            }
        }
        return out;
    }

    private int[][] makeOutlines() {
        if (!quadratic()) {
            return faces;
        }
        int[][] out = new int[faces.length][];
        for (int f = 0; f < faces.length; f++) {
            int n = faces[f].length / 2;
            out[f] = new int[2 * n];
            for (int k = 0; k < n; k++) {
                out[f][2 * k] = faces[f][k];
                out[f][2 * k + 1] = faces[f][n + k];
            }
        }
        return out;
    }

    /** The node between exactly these corners, or -1. */
    private int middle(int... of) {
        int[] wanted = of.clone();
        java.util.Arrays.sort(wanted);
        int[][] all = middles();
        for (int i = 0; i < all.length; i++) {
            int[] have = all[i].clone();
            java.util.Arrays.sort(have);
            if (java.util.Arrays.equals(have, wanted)) {
                return corners().nodes() + i;
            }
        }
        return -1;
    }

    /** The node that stands at place {@code k} when one walks around a surface cell, middles of edges included. */
    public int around(int k) {
        return switch (this) {
            case PIXEL -> PIXEL_LOOP[k];
            case TRIANGLE6 -> TRIANGLE6_LOOP[k];
            case QUAD8, QUAD9 -> QUAD8_LOOP[k];
            case LINE3 -> k == 0 ? 0 : 3 - k;
            default -> k;
        };
    }

    /** How many nodes stand around a surface cell that has so many. */
    public int rim(int size) {
        return this == QUAD9 ? 8 : size;
    }

    /** The shape of a face with so many nodes of a solid or surface of this shape. */
    public CellShape face(int nodes) {
        if (dimension == 2) {
            return nodes == 3 ? LINE3 : LINE;
        }
        return switch (nodes) {
            case 3 -> TRIANGLE;
            case 4 -> QUAD;
            case 6 -> quadratic() ? TRIANGLE6 : POLYGON;
            case 8 -> quadratic() ? QUAD8 : POLYGON;
            case 9 -> quadratic() ? QUAD9 : POLYGON;
            default -> POLYGON;
        };
    }

    /** For each place, which node stands there when a face of this shape is turned over; null reverses the list. */
    public int @Nullable [] turned() {
        return switch (this) {
            case LINE3 -> new int[] {1, 0, 2};
            case TRIANGLE6 -> new int[] {0, 2, 1, 5, 4, 3};
            case QUAD8 -> new int[] {0, 3, 2, 1, 7, 6, 5, 4};
            case QUAD9 -> new int[] {0, 3, 2, 1, 7, 6, 5, 4, 8};
            default -> null;
        };
    }

    /** Whether the shape has a reference domain with shape functions; the others are cut into simplices. */
    public boolean hasReference() {
        return this != POLYLINE && this != POLYGON && this != POLYHEDRON;
    }
}
