package lane.formats.vtk;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.XmlParts.Array;
import lane.formats.vtk.XmlParts.Piece;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;

/** Puts the arrays of all pieces together into one mesh with fields. */
final class GridBuilder {
    private final XmlParts xml;
    private final List<String> remarks = new ArrayList<>();

    GridBuilder(XmlParts xml) {
        this.xml = xml;
    }

    VtkXmlReader.Grid build() {
        if (xml.pieces.isEmpty()) {
            throw new VtkError("it has no piece");
        }
        List<Mesh> meshes = new ArrayList<>();
        for (Piece piece : xml.pieces) {
            meshes.add(xml.fileType.equals("PolyData") ? surface(piece) : grid(piece));
        }
        Mesh mesh = meshes.size() == 1 ? meshes.getFirst() : join(meshes);
        List<Field> fields = new ArrayList<>();
        fields(fields, "PointData", Field.At.NODE, mesh.nodeCount());
        fields(fields, "CellData", Field.At.CELL, mesh.cellCount());
        return new VtkXmlReader.Grid(mesh, fields, remarks);
    }

    private static Array need(Piece piece, String section, String name) {
        for (Array array : piece.arrays) {
            if (array.section.equals(section) && (name.isEmpty() || array.name.equals(name)) && array.numbers != null) {
                return array;
            }
        }
        throw new VtkError("a piece lacks its " + (name.isEmpty() ? section : section + " " + name));
    }

    private static int[] optional(Piece piece, String name) {
        for (Array array : piece.arrays) {
            if (array.section.equals("Cells") && array.name.equals(name) && array.numbers != null) {
                return array.numbers.toInts();
            }
        }
        return null;
    }

    private static double[] points(Piece piece) {
        long n = piece.counts.getOrDefault("NumberOfPoints", 0L);
        if (n == 0) {
            return new double[0];
        }
        double[] xyz = need(piece, "Points", "").numbers.toDoubles();
        if (xyz.length != 3 * n) {
            throw new VtkError(
                    "a piece says it has " + n + " points, but its coordinates are " + xyz.length + " numbers");
        }
        return xyz;
    }

    private static Mesh grid(Piece piece) {
        double[] xyz = points(piece);
        int cells = piece.counts.getOrDefault("NumberOfCells", 0L).intValue();
        if (cells == 0) {
            return new Mesh(xyz, new byte[0], new int[1], new int[0]);
        }
        int[] connectivity = need(piece, "Cells", "connectivity").numbers.toInts();
        int[] ends = need(piece, "Cells", "offsets").numbers.toInts();
        int[] types = need(piece, "Cells", "types").numbers.toInts();
        if (ends.length != cells || types.length != cells) {
            throw new VtkError("a piece says it has " + cells + " cells, but gives " + ends.length + " offsets and "
                    + types.length + " types");
        }
        byte[] shapes = new byte[cells];
        boolean poly = false;
        for (int i = 0; i < cells; i++) {
            CellShape shape = CellShape.ofCode(types[i]);
            if (shape == null) {
                throw new VtkError(
                        "cell " + i + " is of type " + types[i] + ", which is none of the linear shapes that are read");
            }
            shapes[i] = (byte) shape.ordinal();
            poly |= shape == CellShape.POLYHEDRON;
        }
        int[] offsets = begins(ends);
        if (!poly) {
            return new Mesh(xyz, shapes, offsets, connectivity);
        }
        return polyhedral(piece, xyz, shapes, offsets, connectivity);
    }

    private static int[] begins(int[] ends) {
        int[] offsets = new int[ends.length + 1];
        System.arraycopy(ends, 0, offsets, 1, ends.length);
        for (int i = 0; i < ends.length; i++) {
            if (offsets[i + 1] < offsets[i]) {
                throw new VtkError("the offsets of its cells go backwards at cell " + i);
            }
        }
        return offsets;
    }

    private static Mesh polyhedral(Piece piece, double[] xyz, byte[] shapes, int[] offsets, int[] connectivity) {
        int cells = shapes.length;
        int[] faceOffsets = new int[cells + 1];
        int[] stream = optional(piece, "faces");
        int[] faceEnds = optional(piece, "faceoffsets");
        if (stream != null && faceEnds != null && faceEnds.length == cells) {
            for (int i = 0; i < cells; i++) {
                faceOffsets[i + 1] = faceEnds[i] < 0 ? faceOffsets[i] : faceEnds[i];
            }
            return new Mesh(xyz, shapes, offsets, connectivity, faceOffsets, stream);
        }
        int[] toFaces = optional(piece, "polyhedron_to_faces");
        int[] polyEnds = optional(piece, "polyhedron_offsets");
        int[] faceNodes = optional(piece, "face_connectivity");
        int[] nodeEnds = optional(piece, "face_offsets");
        if (toFaces == null || polyEnds == null || faceNodes == null || nodeEnds == null || polyEnds.length != cells) {
            throw new VtkError("it has polyhedra but lacks their faces");
        }
        int[] faces = begins(polyEnds);
        int[] nodes = begins(nodeEnds);
        int[] out = new int[cells + toFaces.length + faceNodes.length];
        int at = 0;
        for (int c = 0; c < cells; c++) {
            if (faces[c + 1] > faces[c]) {
                out = room(out, at + 1);
                out[at++] = faces[c + 1] - faces[c];
                for (int f = faces[c]; f < faces[c + 1]; f++) {
                    int from = nodes[toFaces[f]];
                    int n = nodes[toFaces[f] + 1] - from;
                    out = room(out, at + n + 1);
                    out[at++] = n;
                    System.arraycopy(faceNodes, from, out, at, n);
                    at += n;
                }
            }
            faceOffsets[c + 1] = at;
        }
        return new Mesh(xyz, shapes, offsets, connectivity, faceOffsets, Arrays.copyOf(out, at));
    }

    private static int[] room(int[] array, int size) {
        return size <= array.length ? array : Arrays.copyOf(array, Math.max(size, 2 * array.length));
    }

    private Mesh surface(Piece piece) {
        double[] xyz = points(piece);
        List<int[]> connectivities = new ArrayList<>();
        List<int[]> ends = new ArrayList<>();
        List<CellShape> shapes = new ArrayList<>();
        String[] sections = {"Verts", "Lines", "Strips", "Polys"};
        for (String section : sections) {
            if (piece.counts.getOrDefault("NumberOf" + section, 0L) == 0) {
                continue;
            }
            if (section.equals("Strips")) {
                throw new VtkError("it has triangle strips, which are not read; write single triangles");
            }
            connectivities.add(need(piece, section, "connectivity").numbers.toInts());
            ends.add(need(piece, section, "offsets").numbers.toInts());
            shapes.add(
                    section.equals("Verts")
                            ? CellShape.VERTEX
                            : section.equals("Lines") ? CellShape.POLYLINE : CellShape.POLYGON);
        }
        int cells = ends.stream().mapToInt(e -> e.length).sum();
        int[] nodes = connectivities.stream().flatMapToInt(Arrays::stream).toArray();
        byte[] kind = new byte[cells];
        int[] offsets = new int[cells + 1];
        int c = 0;
        int base = 0;
        for (int s = 0; s < ends.size(); s++) {
            for (int end : ends.get(s)) {
                offsets[c + 1] = base + end;
                int n = offsets[c + 1] - offsets[c];
                CellShape shape = shapes.get(s);
                if (shape == CellShape.VERTEX && n != 1) {
                    throw new VtkError(
                            "it has a vertex cell of " + n + " points, which is not read; write single points");
                }
                shape = shape == CellShape.POLYGON && n == 3
                        ? CellShape.TRIANGLE
                        : shape == CellShape.POLYGON && n == 4
                                ? CellShape.QUAD
                                : shape == CellShape.POLYLINE && n == 2 ? CellShape.LINE : shape;
                kind[c++] = (byte) shape.ordinal();
            }
            base += connectivities.get(s).length;
        }
        return new Mesh(xyz, kind, offsets, nodes);
    }

    private static Mesh join(List<Mesh> meshes) {
        int nodes = 0;
        int cells = 0;
        int size = 0;
        int faces = 0;
        for (Mesh m : meshes) {
            nodes = Math.addExact(nodes, m.nodeCount());
            cells = Math.addExact(cells, m.cellCount());
            size = Math.addExact(size, m.nodes().length);
            faces = Math.addExact(faces, m.hasPolyhedra() ? m.faceStream().length : 0);
        }
        double[] xyz = new double[Math.multiplyExact(3, nodes)];
        byte[] shapes = new byte[cells];
        int[] offsets = new int[cells + 1];
        int[] all = new int[size];
        int[] faceOffsets = faces == 0 ? null : new int[cells + 1];
        int[] stream = faces == 0 ? null : new int[faces];
        int node = 0;
        int cell = 0;
        int at = 0;
        int face = 0;
        for (Mesh m : meshes) {
            System.arraycopy(m.xyz(), 0, xyz, 3 * node, m.xyz().length);
            for (int c = 0; c < m.cellCount(); c++) {
                shapes[cell] = (byte) m.shape(c).ordinal();
                for (int k = 0; k < m.size(c); k++) {
                    all[at++] = node + m.nodes()[m.begin(c) + k];
                }
                if (m.shape(c) == CellShape.POLYHEDRON) {
                    int i = m.faceBegin(c);
                    int count = m.faceStream()[i++];
                    stream[face++] = count;
                    for (int f = 0; f < count; f++) {
                        int n = m.faceStream()[i++];
                        stream[face++] = n;
                        for (int k = 0; k < n; k++) {
                            stream[face++] = node + m.faceStream()[i++];
                        }
                    }
                }
                offsets[++cell] = at;
                if (faceOffsets != null) {
                    faceOffsets[cell] = face;
                }
            }
            node += m.nodeCount();
        }
        return new Mesh(xyz, shapes, offsets, all, faceOffsets, stream);
    }

    /** Fields that every piece has; the others are named in a remark. */
    private void fields(List<Field> out, String section, Field.At at, int expected) {
        for (Array first : xml.pieces.getFirst().arrays) {
            if (!first.section.equals(section)) {
                continue;
            }
            if (first.numbers == null) {
                remarks.add("Array \"" + first.name + "\" holds text and was not read.");
                continue;
            }
            List<Values> pieces = new ArrayList<>();
            for (Piece piece : xml.pieces) {
                for (Array array : piece.arrays) {
                    if (array.section.equals(section)
                            && array.name.equals(first.name)
                            && array.numbers != null
                            && array.components == first.components) {
                        pieces.add(array.numbers.values());
                        break;
                    }
                }
            }
            if (pieces.size() != xml.pieces.size()) {
                remarks.add("Array \"" + first.name + "\" is not in every piece and was not read.");
                continue;
            }
            Values values = pieces.size() == 1 ? pieces.getFirst() : concat(pieces);
            if (values.length() != (long) expected * first.components) {
                throw new VtkError("array \"" + first.name + "\" has " + values.length() + " numbers, but " + expected
                        + " " + at.word() + " with " + first.components + " component(s) need "
                        + (long) expected * first.components);
            }
            String name = first.name.isEmpty() ? "unnamed" : first.name;
            out.add(new Field(name, at, first.components, Unit.of(FieldUnit.guess(name)), values));
        }
    }

    private static Values concat(List<Values> pieces) {
        int n = pieces.stream().mapToInt(Values::length).sum();
        double[] all = new double[n];
        int at = 0;
        for (Values v : pieces) {
            for (int i = 0; i < v.length(); i++) {
                all[at++] = v.get(i);
            }
        }
        return new Values.Doubles(all);
    }
}
