package lane.formats.grid;

import java.util.Arrays;
import java.util.Map;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/** Cells of mixed shape, growing. */
public final class CellList {
    private byte[] shapes = new byte[64];
    private int[] offsets = new int[65];
    private int[] nodes = new int[512];
    private int[] faceOffsets = new int[65];
    private int[] stream = new int[0];
    private int face;
    private boolean poly;
    private int count;

    public void add(CellShape shape, int[] list) {
        if (count == shapes.length) {
            shapes = Arrays.copyOf(shapes, 2 * count);
            offsets = Arrays.copyOf(offsets, 2 * count + 1);
            faceOffsets = Arrays.copyOf(faceOffsets, 2 * count + 1);
        }
        int at = offsets[count];
        if (at + list.length > nodes.length) {
            nodes = Arrays.copyOf(nodes, 2 * nodes.length + list.length);
        }
        System.arraycopy(list, 0, nodes, at, list.length);
        shapes[count++] = (byte) shape.ordinal();
        offsets[count] = at + list.length;
        faceOffsets[count] = face;
    }

    /** @param signed face numbers, negative where the face looks into the cell */
    public void polyhedron(int[] signed, Map<Integer, int[]> polygons) {
        var own = new java.util.LinkedHashSet<Integer>();
        put(signed.length);
        for (int s : signed) {
            int[] polygon = polygons.get(Math.abs(s));
            if (polygon == null) {
                throw new FormatError("a cell refers to face " + Math.abs(s) + ", which is not there");
            }
            put(polygon.length);
            for (int k = 0; k < polygon.length; k++) {
                int node = polygon[s < 0 ? polygon.length - 1 - k : k];
                put(node);
                own.add(node);
            }
        }
        poly = true;
        add(CellShape.POLYHEDRON, own.stream().mapToInt(i -> i).toArray());
    }

    private void put(int v) {
        if (face == stream.length) {
            stream = Arrays.copyOf(stream, Math.max(256, 2 * face));
        }
        stream[face++] = v;
    }

    public int count() {
        return count;
    }

    public Mesh mesh(double[] xyz) {
        return new Mesh(
                xyz,
                Arrays.copyOf(shapes, count),
                Arrays.copyOf(offsets, count + 1),
                Arrays.copyOf(nodes, offsets[count]),
                poly ? Arrays.copyOf(faceOffsets, count + 1) : null,
                poly ? Arrays.copyOf(stream, face) : null);
    }
}
