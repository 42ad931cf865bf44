package lane.mesh;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Random;

/**
 * A box cut into cubes and those into cells of one shape: manufactured meshes with known volume, for benchmarks, tests
 * and examples. Tetrahedra are six to a cube about its diagonal, pyramids six about its middle, wedges two. Quadratic
 * shapes stand on the linear ones, their further nodes in the middle of the corners.
 */
public final class BoxMesh {
    private static final int[][] KUHN = {
        {0, 1, 2, 6}, {0, 2, 3, 6}, {0, 3, 7, 6}, {0, 7, 4, 6}, {0, 4, 5, 6}, {0, 5, 1, 6}
    };
    private static final int[][] HALVES = {{0, 2, 1, 4, 6, 5}, {0, 3, 2, 4, 7, 6}};

    private BoxMesh() {}

    /**
     * @param shape a solid shape
     * @param n cubes along x, y and z
     * @param size of the box in metres, from the origin
     * @param shake how far inner nodes are moved at random, as a share of a cube (0 to 0.3); a voxel's never are
     */
    public static Mesh of(CellShape shape, int[] n, double[] size, double shake, long seed) {
        if (shape.quadratic()) {
            return raised(of(shape.corners(), n, size, shake, seed), shape);
        }
        int nx = n[0] + 1;
        int ny = n[1] + 1;
        int nz = n[2] + 1;
        int cubes = n[0] * n[1] * n[2];
        boolean middles = shape == CellShape.PYRAMID;
        double[] xyz = new double[3 * (nx * ny * nz + (middles ? cubes : 0))];
        var random = new Random(seed);
        for (int k = 0; k < nz; k++) {
            for (int j = 0; j < ny; j++) {
                for (int i = 0; i < nx; i++) {
                    int at = 3 * ((k * ny + j) * nx + i);
                    int[] place = {i, j, k};
                    for (int d = 0; d < 3; d++) {
                        boolean inner = place[d] > 0 && place[d] < n[d];
                        double move = shape == CellShape.VOXEL ? 0 : shake * (2 * random.nextDouble() - 1);
                        xyz[at + d] = size[d] * (place[d] + (inner ? move : 0)) / n[d];
                    }
                }
            }
        }
        int each =
                switch (shape) {
                    case TETRAHEDRON, PYRAMID -> 6;
                    case WEDGE -> 2;
                    default -> 1;
                };
        int per = shape == CellShape.POLYHEDRON ? 8 : shape.nodes();
        int[] nodes = new int[cubes * each * per];
        int at = 0;
        for (int c = 0; c < cubes; c++) {
            int i = c % n[0];
            int j = c / n[0] % n[1];
            int k = c / (n[0] * n[1]);
            int o = (k * ny + j) * nx + i;
            int[] v = {
                o, o + 1, o + 1 + nx, o + nx, o + nx * ny, o + 1 + nx * ny, o + 1 + nx + nx * ny, o + nx + nx * ny
            };
            int middle = nx * ny * nz + c;
            if (middles) {
                for (int d = 0; d < 3; d++) {
                    for (int corner : v) {
                        xyz[3 * middle + d] += xyz[3 * corner + d] / 8;
                    }
                }
            }
            switch (shape) {
                case HEXAHEDRON, POLYHEDRON -> at = copy(v, new int[] {0, 1, 2, 3, 4, 5, 6, 7}, nodes, at);
                case VOXEL -> at = copy(v, new int[] {0, 1, 3, 2, 4, 5, 7, 6}, nodes, at);
                case TETRAHEDRON -> {
                    for (int[] t : KUHN) {
                        at = copy(v, t, nodes, at);
                    }
                }
                case WEDGE -> {
                    for (int[] w : HALVES) {
                        at = copy(v, w, nodes, at);
                    }
                }
                case PYRAMID -> {
                    for (int[] face : CellShape.HEXAHEDRON.faces()) {
                        // A face of the cube points outwards; the pyramid's base points away from its apex.
                        at = copy(v, new int[] {face[0], face[3], face[2], face[1]}, nodes, at);
                        nodes[at++] = middle;
                    }
                }
                default -> throw new IllegalArgumentException(shape + " is no solid shape");
            }
        }
        return shape == CellShape.POLYHEDRON ? polyhedra(xyz, nodes) : Mesh.uniform(xyz, shape, nodes);
    }

    /** The same cells with nodes in the middles of their edges, faces and themselves, as the shape has them. */
    private static Mesh raised(Mesh linear, CellShape shape) {
        int[][] middles = shape.middles();
        int corners = shape.corners().nodes();
        int cells = linear.cellCount();
        int[] nodes = new int[cells * shape.nodes()];
        double[] xyz = Arrays.copyOf(linear.xyz(), linear.xyz().length + 3 * cells * middles.length);
        int count = linear.nodeCount();
        var known = new HashMap<List<Integer>, Integer>();
        for (int c = 0; c < cells; c++) {
            int to = c * shape.nodes();
            System.arraycopy(linear.nodes(), linear.begin(c), nodes, to, corners);
            for (int m = 0; m < middles.length; m++) {
                int begin = linear.begin(c);
                List<Integer> between = Arrays.stream(middles[m])
                        .mapToObj(k -> linear.nodes()[begin + k])
                        .sorted()
                        .toList();
                Integer node = known.putIfAbsent(between, count);
                nodes[to + corners + m] = node == null ? count : node;
                if (node == null) {
                    for (int d = 0; d < 3; d++) {
                        for (int k : between) {
                            xyz[3 * count + d] += linear.xyz()[3 * k + d] / between.size();
                        }
                    }
                    count++;
                }
            }
        }
        return Mesh.uniform(Arrays.copyOf(xyz, 3 * count), shape, nodes);
    }

    private static int copy(int[] cube, int[] corners, int[] nodes, int at) {
        for (int c : corners) {
            nodes[at++] = cube[c];
        }
        return at;
    }

    private static Mesh polyhedra(double[] xyz, int[] nodes) {
        int cells = nodes.length / 8;
        byte[] shapes = new byte[cells];
        Arrays.fill(shapes, (byte) CellShape.POLYHEDRON.ordinal());
        int[] offsets = new int[cells + 1];
        int[] faceOffsets = new int[cells + 1];
        int[] stream = new int[31 * cells];
        int at = 0;
        for (int c = 0; c < cells; c++) {
            offsets[c + 1] = 8 * (c + 1);
            stream[at++] = 6;
            for (int[] face : CellShape.HEXAHEDRON.faces()) {
                stream[at++] = 4;
                for (int v : face) {
                    stream[at++] = nodes[8 * c + v];
                }
            }
            faceOffsets[c + 1] = at;
        }
        return new Mesh(xyz, shapes, offsets, nodes, faceOffsets, stream);
    }
}
