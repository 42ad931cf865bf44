package lane.mesh;

/**
 * The closed vocabulary of linear cell shapes. Only this package knows their nodes, faces, shape functions and rules.
 *
 * <p>Node order is that of the open VTK file formats. Reference domains: line, quad and hexahedron are {@code [0,1]^d};
 * triangle and tetrahedron are the unit simplices; the wedge is the unit triangle times {@code [0,1]}; the pyramid is
 * {@code 0 <= a,b <= 1 - t}. Pixel and voxel are a quad and a hexahedron with axis-aligned node order. Polyline, polygon
 * and polyhedron have no reference domain: they are cut into simplices about their centre, the mean of their nodes,
 * which reproduces linear fields exactly.
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
    POLYHEDRON("polyhedron", 42, 3, 0);

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
    public static CellShape ofCode(int code) {
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

    /**
     * Local node numbers of the faces of a solid, wound so that the normal points out of a cell whose nodes stand in
     * the order of the format. Empty for a polyhedron, whose cells list their own faces, and for shapes without volume.
     */
    public int[][] faces() {
        return switch (this) {
            case TETRAHEDRON -> TETRA_FACES;
            case HEXAHEDRON -> HEXA_FACES;
            case VOXEL -> VOXEL_FACES;
            case WEDGE -> WEDGE_FACES;
            case PYRAMID -> PYRAMID_FACES;
            default -> NO_FACES;
        };
    }

    /** Whether the shape has a reference domain with shape functions; the others are cut into simplices. */
    public boolean hasReference() {
        return this != POLYLINE && this != POLYGON && this != POLYHEDRON;
    }
}
