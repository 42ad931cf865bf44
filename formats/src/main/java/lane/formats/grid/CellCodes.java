package lane.formats.grid;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.base.Plain;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Makes a mesh of cells that are told by the type numbers of the VTK file formats. Strips become triangles and clouds of
 * vertices single ones; cells of an order that is not read are taken by their corners, with a remark.
 */
public final class CellCodes {
    private static final int POLY_VERTEX = 2;
    private static final int STRIP = 6;

    private CellCodes() {}

    /** @param source for each cell the one of the file that it came from, or null when they are the same */
    public record Made(Mesh mesh, int @Nullable [] source) {}

    /** Corners of a type that is only read simplified, or 0. */
    private static int corners(int code) {
        return switch (code) {
            case 35, 68, 75 -> 2;
            case 34, 69, 76 -> 3;
            case 30, 70, 77 -> 4;
            case 71, 78 -> 4;
            case 33, 72, 79 -> 8;
            case 31, 73, 80 -> 6;
            case 37, 74, 81 -> 5;
            default -> 0;
        };
    }

    private static CellShape simplified(int code) {
        return switch (code) {
            case 35, 68, 75 -> CellShape.LINE;
            case 34, 69, 76 -> CellShape.TRIANGLE;
            case 30, 70, 77 -> CellShape.QUAD;
            case 71, 78 -> CellShape.TETRAHEDRON;
            case 33, 72, 79 -> CellShape.HEXAHEDRON;
            case 31, 73, 80 -> CellShape.WEDGE;
            default -> CellShape.PYRAMID;
        };
    }

    /**
     * @param offsets where each cell's nodes begin in {@code nodes}; one more entry than cells
     * @param faceOffsets and {@code faceStream} of polyhedra, or null
     * @param remarks gets a line for what was made simpler
     */
    public static Made make(
            double[] xyz,
            int[] codes,
            int[] offsets,
            int[] nodes,
            int @Nullable [] faceOffsets,
            int @Nullable [] faceStream,
            List<String> remarks) {
        byte[] shapes = new byte[codes.length];
        int[] simpler = new int[90];
        boolean plain = true;
        int empty = 0;
        int filled = 0;
        for (int c = 0; c < codes.length; c++) {
            CellShape shape = CellShape.ofCode(codes[c]);
            boolean cloud = codes[c] == POLY_VERTEX || codes[c] == STRIP;
            if (shape != null) {
                shapes[c] = (byte) shape.ordinal();
            } else if (codes[c] == 0) {
                plain = false;
                empty++;
                filled += offsets[c + 1] > offsets[c] ? 1 : 0;
            } else if (cloud || corners(codes[c]) > 0) {
                plain = false;
                simpler[codes[c]]++;
            } else {
                throw new FormatError("cell " + c + " is of type " + codes[c]
                        + ", which is none of the linear and quadratic shapes that are read");
            }
        }
        if (plain) {
            return new Made(new Mesh(xyz, shapes, offsets, nodes, faceOffsets, faceStream), null);
        }
        if (empty > 0) {
            remarks.add(empty + " empty cells (type 0) were left out"
                    + (filled > 0 ? "; " + filled + " of them have nodes all the same." : "."));
        }
        if (simpler[POLY_VERTEX] > 0) {
            remarks.add(Plain.count(simpler[POLY_VERTEX], "cell")
                    + " of several points (type 2) are taken as single points, each with the cell's values.");
        }
        if (simpler[STRIP] > 0) {
            remarks.add(Plain.count(simpler[STRIP], "strip")
                    + " of triangles (type 6) are taken as triangles, each with the strip's values.");
        }
        for (int code = 0; code < simpler.length; code++) {
            if (simpler[code] > 0 && corners(code) > 0) {
                remarks.add(
                        simpler[code] + " cells of a higher order (type " + code
                                + ") are taken by their corners as linear cells: curved faces and the values between corners are lost.");
            }
        }
        return expand(xyz, codes, offsets, nodes, faceOffsets, faceStream);
    }

    private static Made expand(
            double[] xyz,
            int[] codes,
            int[] offsets,
            int[] nodes,
            int @Nullable [] faceOffsets,
            int @Nullable [] faceStream) {
        int most = 0;
        for (int c = 0; c < codes.length; c++) {
            int n = offsets[c + 1] - offsets[c];
            most = Math.addExact(most, codes[c] == POLY_VERTEX ? n : codes[c] == STRIP ? Math.max(0, n - 2) : 1);
        }
        byte[] shapes = new byte[most];
        int[] begins = new int[most + 1];
        int[] source = new int[most];
        int[] faces = faceOffsets == null ? null : new int[most + 1];
        int[] out = new int[Math.max(nodes.length, 3 * most)];
        int cells = 0;
        int at = 0;
        for (int c = 0; c < codes.length; c++) {
            int from = offsets[c];
            int n = offsets[c + 1] - from;
            int pieces = codes[c] == POLY_VERTEX ? n : codes[c] == STRIP ? Math.max(0, n - 2) : codes[c] == 0 ? 0 : 1;
            for (int p = 0; p < pieces; p++) {
                CellShape shape = codes[c] == POLY_VERTEX
                        ? CellShape.VERTEX
                        : codes[c] == STRIP
                                ? CellShape.TRIANGLE
                                : corners(codes[c]) > 0 ? simplified(codes[c]) : CellShape.ofCode(codes[c]);
                int size = codes[c] == POLY_VERTEX
                        ? 1
                        : codes[c] == STRIP ? 3 : corners(codes[c]) > 0 ? corners(codes[c]) : n;
                if (size > n) {
                    throw new FormatError("cell " + c + " has " + n + " nodes where its type needs " + size);
                }
                if (at + size > out.length) {
                    out = Arrays.copyOf(out, 2 * out.length + size);
                }
                for (int k = 0; k < size; k++) {
                    // Every second triangle of a strip is wound the other way.
                    int turned = codes[c] == STRIP && p % 2 == 1 && k < 2 ? 1 - k : k;
                    out[at++] = nodes[from + (codes[c] == POLY_VERTEX || codes[c] == STRIP ? p : 0) + turned];
                }
                shapes[cells] = (byte) Objects.requireNonNull(shape).ordinal();
                source[cells] = c;
                if (faces != null && faceOffsets != null) {
                    faces[cells] = faceOffsets[c];
                    faces[cells + 1] = faceOffsets[c + 1];
                }
                begins[++cells] = at;
            }
        }
        Mesh mesh = new Mesh(
                xyz,
                Arrays.copyOf(shapes, cells),
                Arrays.copyOf(begins, cells + 1),
                Arrays.copyOf(out, at),
                faces == null ? null : Arrays.copyOf(faces, cells + 1),
                faceStream);
        return new Made(mesh, Arrays.copyOf(source, cells));
    }
}
