package lane.formats.vtk;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import lane.field.Field;
import lane.field.Values;
import lane.formats.grid.CellCodes;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.grid.Pieces;
import lane.formats.grid.Structured;
import lane.formats.io.FormatError;
import lane.formats.vtk.XmlParts.Array;
import lane.formats.vtk.XmlParts.Piece;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Puts the arrays of all pieces together into one mesh with fields. */
final class GridBuilder {
    private final XmlParts xml;
    private final List<String> remarks = new ArrayList<>();

    /** Numbers of fields that stay in the file until they are asked for. */
    interface Waiting {
        /** How many numbers an array says it holds, without decoding it; -1 where that is not known. */
        long announced(Array array);

        Values values(Array array, int length);

        /** What a piece's grid looks like in the file, so that equal looks are equal grids; null where that is not known. */
        @Nullable
        Object looks(Piece piece);
    }

    private static final java.util.Set<String> STRUCTURED =
            java.util.Set.of("ImageData", "RectilinearGrid", "StructuredGrid");

    private final @Nullable Waiting waiting;
    private final Opening opening;

    /** @param waiting null to decode everything now */
    GridBuilder(XmlParts xml, @Nullable Waiting waiting, Opening opening) {
        this.xml = xml;
        this.waiting = waiting;
        this.opening = opening;
    }

    /**
     * The grid of a piece.
     *
     * @param source for each cell that was made of another, the one in the file; null for none
     */
    private record Grid(Mesh mesh, int @Nullable [] source, List<String> remarks) {}

    Dataset build() {
        if (xml.pieces.isEmpty()) {
            throw new FormatError("it has no piece");
        }
        var pieces = new Pieces(remarks);
        for (int k = 0; k < xml.pieces.size(); k++) {
            Piece piece = xml.pieces.get(k);
            if (!opening.wants(k)) {
                if (STRUCTURED.contains(xml.fileType)) {
                    pieces.elsewhere(extent(piece));
                }
                continue;
            }
            Object looks = waiting == null ? null : waiting.looks(piece);
            Grid grid = looks == null ? grid(piece) : opening.grids().of(looks, () -> grid(piece));
            Mesh mesh = grid.mesh;
            source = grid.source;
            remarks.addAll(grid.remarks);
            List<Field> fields = new ArrayList<>();
            fields(fields, piece, "PointData", Field.At.NODE, mesh.nodeCount());
            fields(fields, piece, "CellData", Field.At.CELL, mesh.cellCount());
            pieces.add(mesh, fields, STRUCTURED.contains(xml.fileType) ? extent(piece) : null);
        }
        return pieces.join().in(xml.pieces.size());
    }

    private Grid grid(Piece piece) {
        List<String> said = new ArrayList<>();
        CellCodes.Made made =
                switch (xml.fileType) {
                    case "PolyData" -> surface(piece, said);
                    case "UnstructuredGrid" -> cells(piece, said);
                    case "ImageData" -> new CellCodes.Made(Structured.mesh(image(piece), dims(piece)), null);
                    case "RectilinearGrid" ->
                        new CellCodes.Made(Structured.mesh(rectilinear(piece), dims(piece)), null);
                    default -> new CellCodes.Made(structured(piece), null);
                };
        return new Grid(made.mesh(), made.source(), said);
    }

    /** Of the piece that is being built. */
    private int @Nullable [] source;

    private int[] extent(Piece piece) {
        String text = piece.attributes.getOrDefault("Extent", xml.attributes.get("WholeExtent"));
        if (text == null) {
            throw new FormatError("a piece lacks its extent");
        }
        return extent(text);
    }

    /** First and last index along each direction. */
    static int[] extent(String text) {
        String[] words = text.strip().split("\\s+");
        int[] e = new int[6];
        try {
            for (int i = 0; i < 6; i++) {
                e[i] = Integer.parseInt(words[i]);
            }
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException x) {
            throw new FormatError("it gives the extent \"" + text + "\", which are not six whole numbers");
        }
        for (int d = 0; d < 3; d++) {
            if (e[2 * d + 1] < e[2 * d] || (long) e[2 * d + 1] - e[2 * d] > Integer.MAX_VALUE - 2) {
                throw new FormatError("it gives the extent \"" + text + "\", which runs backwards");
            }
        }
        return e;
    }

    private int[] dims(Piece piece) {
        int[] e = extent(piece);
        return new int[] {e[1] - e[0] + 1, e[3] - e[2] + 1, e[5] - e[4] + 1};
    }

    /** Structured counts are checked against the arrays of the piece before any node is made. */
    private void bear(Piece piece, int[] dims) {
        int nodes = Structured.nodes(new long[] {dims[0], dims[1], dims[2]});
        long cells = (long) Math.max(1, dims[0] - 1) * Math.max(1, dims[1] - 1) * Math.max(1, dims[2] - 1);
        long held = 0;
        for (Array a : piece.arrays) {
            if (!a.text && a.ofField()) {
                long wanted = a.components * (a.section.equals("PointData") ? nodes : cells);
                long has = size(a, wanted);
                if (has != wanted) {
                    throw new FormatError(
                            "array \"" + a.name + "\" has " + has + " numbers, but its extent needs " + wanted);
                }
                held = Math.max(held, has);
            }
        }
        if (held == 0 && nodes > MOST_BARE) {
            throw new FormatError("its extent claims " + nodes + " nodes, but it has no array for them");
        }
    }

    /** The numbers of an array that has some. */
    private static Numbers decoded(Array a) {
        return Objects.requireNonNull(a.numbers());
    }

    /** How many numbers an array holds, as it says itself where they still wait. */
    private long size(Array a, long wanted) {
        if (a.numbers == null && waiting != null) {
            long announced = waiting.announced(a);
            // What stands in the XML says no size: it is read to know.
            return announced < 0
                    ? waiting.values(a, Math.toIntExact(wanted)).now().length()
                    : announced;
        }
        return decoded(a).size();
    }

    /** Nodes of an image without any array: enough for a small one, no reason to fill the memory. */
    private static final int MOST_BARE = 100_000;

    private static double[] three(@Nullable String text, double[] otherwise) {
        if (text == null) {
            return otherwise;
        }
        String[] words = text.strip().split("\\s+");
        double[] out = otherwise.clone();
        try {
            for (int i = 0; i < out.length; i++) {
                out[i] = Double.parseDouble(words[i]);
            }
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            throw new FormatError("it gives \"" + text + "\" where " + otherwise.length + " numbers belong");
        }
        return out;
    }

    private double[] image(Piece piece) {
        int[] e = extent(piece);
        int[] dims = dims(piece);
        bear(piece, dims);
        return Structured.image(
                new int[] {e[0], e[2], e[4]},
                dims,
                three(xml.attributes.get("Origin"), new double[3]),
                three(xml.attributes.get("Spacing"), new double[] {1, 1, 1}),
                three(xml.attributes.get("Direction"), new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1}));
    }

    private double[] rectilinear(Piece piece) {
        int[] dims = dims(piece);
        List<double[]> axes = new ArrayList<>();
        for (Array a : piece.arrays) {
            if (a.section.equals("Coordinates") && a.numbers() != null) {
                axes.add(a.numbers().toDoubles());
            }
        }
        if (axes.size() != 3) {
            throw new FormatError("a piece has " + axes.size() + " coordinate arrays instead of three");
        }
        for (int d = 0; d < 3; d++) {
            if (axes.get(d).length != dims[d]) {
                throw new FormatError("a piece's coordinates along axis " + (d + 1) + " are " + axes.get(d).length
                        + " numbers, but its extent has " + dims[d]);
            }
        }
        bear(piece, dims);
        return Structured.product(axes.get(0), axes.get(1), axes.get(2));
    }

    private Mesh structured(Piece piece) {
        int[] dims = dims(piece);
        double[] xyz = decoded(need(piece, "Points", "")).toDoubles();
        if (xyz.length != 3L * Structured.nodes(new long[] {dims[0], dims[1], dims[2]})) {
            throw new FormatError("a piece has " + xyz.length / 3 + " points, which do not fit its extent");
        }
        return Structured.mesh(xyz, dims);
    }

    private static Array need(Piece piece, String section, String name) {
        for (Array array : piece.arrays) {
            if (array.section.equals(section)
                    && (name.isEmpty() || array.name.equals(name))
                    && array.numbers() != null) {
                return array;
            }
        }
        throw new FormatError("a piece lacks its " + (name.isEmpty() ? section : section + " " + name));
    }

    private static int @Nullable [] optional(Piece piece, String name) {
        for (Array array : piece.arrays) {
            if (array.section.equals("Cells") && array.name.equals(name) && array.numbers() != null) {
                return array.numbers().toInts();
            }
        }
        return null;
    }

    private static double[] points(Piece piece) {
        long n = piece.counts.getOrDefault("NumberOfPoints", 0L);
        if (n == 0) {
            empty(piece, "Points", "points");
            return new double[0];
        }
        double[] xyz = decoded(need(piece, "Points", "")).toDoubles();
        if (xyz.length != 3 * n) {
            throw new FormatError(
                    "a piece says it has " + n + " points, but its coordinates are " + xyz.length + " numbers");
        }
        return xyz;
    }

    /** A count that is missing or damaged must not make a mesh go without a word. */
    private static void empty(Piece piece, String section, String what) {
        for (Array a : piece.arrays) {
            if (a.section.equals(section)
                    && !a.text
                    && a.numbers() != null
                    && decoded(a).size() > 0) {
                throw new FormatError("a piece says it has no " + what + ", but its array \"" + a.name
                        + "\" of them has " + decoded(a).size() + " numbers");
            }
        }
    }

    private static void behind(int[] connectivity, int[] offsets, List<String> said) {
        int more = connectivity.length - offsets[offsets.length - 1];
        if (more > 0) {
            said.add(more + " node numbers behind those of the last cell were left out.");
        }
    }

    private CellCodes.Made cells(Piece piece, List<String> said) {
        double[] xyz = points(piece);
        int cells = piece.counts.getOrDefault("NumberOfCells", 0L).intValue();
        if (cells == 0) {
            empty(piece, "Cells", "cells");
            return new CellCodes.Made(new Mesh(xyz, new byte[0], new int[1], new int[0]), null);
        }
        int[] connectivity = decoded(need(piece, "Cells", "connectivity")).toInts();
        int[] ends = decoded(need(piece, "Cells", "offsets")).toInts();
        int[] types = decoded(need(piece, "Cells", "types")).toInts();
        if (ends.length != cells || types.length != cells) {
            throw new FormatError("a piece says it has " + cells + " cells, but gives " + ends.length + " offsets and "
                    + types.length + " types");
        }
        int[] offsets = begins(ends);
        behind(connectivity, offsets, said);
        boolean poly = Arrays.stream(types).anyMatch(t -> t == CellShape.POLYHEDRON.code());
        int[][] faces = poly ? faces(piece, cells) : new int[2][];
        return CellCodes.make(xyz, types, offsets, connectivity, faces[0], faces[1], said);
    }

    private static int[] begins(int[] ends) {
        int[] offsets = new int[ends.length + 1];
        System.arraycopy(ends, 0, offsets, 1, ends.length);
        for (int i = 0; i < ends.length; i++) {
            if (offsets[i + 1] < offsets[i]) {
                throw new FormatError("the offsets of its cells go backwards at cell " + i);
            }
        }
        return offsets;
    }

    /** Face offsets and face stream. */
    private static int[][] faces(Piece piece, int cells) {
        int[] faceOffsets = new int[cells + 1];
        int[] stream = optional(piece, "faces");
        int[] faceEnds = optional(piece, "faceoffsets");
        if (stream != null && faceEnds != null && faceEnds.length == cells) {
            for (int i = 0; i < cells; i++) {
                faceOffsets[i + 1] = faceEnds[i] < 0 ? faceOffsets[i] : faceEnds[i];
            }
            return new int[][] {faceOffsets, stream};
        }
        int[] toFaces = optional(piece, "polyhedron_to_faces");
        int[] polyEnds = optional(piece, "polyhedron_offsets");
        int[] faceNodes = optional(piece, "face_connectivity");
        int[] nodeEnds = optional(piece, "face_offsets");
        if (toFaces == null || polyEnds == null || faceNodes == null || nodeEnds == null || polyEnds.length != cells) {
            throw new FormatError("it has polyhedra but lacks their faces");
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
        return new int[][] {faceOffsets, Arrays.copyOf(out, at)};
    }

    private static int[] room(int[] array, int size) {
        return size <= array.length ? array : Arrays.copyOf(array, Math.max(size, 2 * array.length));
    }

    private CellCodes.Made surface(Piece piece, List<String> said) {
        double[] xyz = points(piece);
        List<int[]> connectivities = new ArrayList<>();
        List<int[]> ends = new ArrayList<>();
        List<String> kinds = new ArrayList<>();
        String[] sections = {"Verts", "Lines", "Polys", "Strips"};
        for (String section : sections) {
            long count = piece.counts.getOrDefault("NumberOf" + section, 0L);
            if (count == 0) {
                empty(piece, section, section.toLowerCase(java.util.Locale.ROOT));
                continue;
            }
            int[] its = decoded(need(piece, section, "connectivity")).toInts();
            int[] last = decoded(need(piece, section, "offsets")).toInts();
            if (last.length != count) {
                throw new FormatError("a piece says it has " + count + " " + section.toLowerCase(java.util.Locale.ROOT)
                        + ", but gives " + last.length + " offsets");
            }
            behind(its, begins(last), said);
            connectivities.add(its);
            ends.add(last);
            kinds.add(section);
        }
        int cells = ends.stream().mapToInt(e -> e.length).sum();
        int[] nodes = connectivities.stream().flatMapToInt(Arrays::stream).toArray();
        int[] codes = new int[cells];
        int[] offsets = new int[cells + 1];
        int c = 0;
        int base = 0;
        for (int s = 0; s < ends.size(); s++) {
            for (int end : ends.get(s)) {
                offsets[c + 1] = base + end;
                int n = offsets[c + 1] - offsets[c];
                if (n < 0) {
                    throw new FormatError("the offsets of its cells go backwards at cell " + c);
                }
                codes[c++] = switch (kinds.get(s)) {
                    case "Verts" -> n == 1 ? 1 : 2;
                    case "Lines" -> n == 2 ? 3 : 4;
                    case "Strips" -> 6;
                    default -> n == 3 ? 5 : n == 4 ? 9 : 7;
                };
            }
            base += connectivities.get(s).length;
        }
        return CellCodes.make(xyz, codes, offsets, nodes, null, null, said);
    }

    /** Those of an array; where they wait, only their number is known. */
    private Values values(Array a, Piece piece, int expected) {
        if (a.bits || a.numbers != null || waiting == null) {
            return decoded(a).values();
        }
        long announced = waiting.announced(a);
        // What stands in the XML has as many as its piece has room for, or is found out to be damaged when it is read.
        long entries = a.section.equals("CellData") && source != null ? cellsInFile(piece) : expected;
        return waiting.values(a, Math.toIntExact(announced < 0 ? entries * a.components : announced));
    }

    private static long cellsInFile(Piece piece) {
        return piece.counts.containsKey("NumberOfCells")
                ? piece.counts.get("NumberOfCells")
                : List.of("Verts", "Lines", "Polys", "Strips").stream()
                        .mapToLong(s -> piece.counts.getOrDefault("NumberOf" + s, 0L))
                        .sum();
    }

    private void fields(List<Field> out, Piece piece, String section, Field.At at, int expected) {
        for (Array a : piece.arrays) {
            if (!a.section.equals(section)) {
                continue;
            }
            if (a.text) {
                remarks.add("Array \"" + a.name + "\" "
                        + (a.unread.isEmpty() ? "holds text and was not read." : a.unread + " and was left out."));
                continue;
            }
            Values values = values(a, piece, expected);
            if (at == Field.At.CELL && source != null && values.length() % a.components == 0) {
                int most = values.length() / a.components;
                if (Arrays.stream(source).allMatch(c -> c < most)) {
                    values = values.pick(a.components, source);
                }
            }
            if (values.length() != (long) expected * a.components) {
                throw new FormatError("array \"" + a.name + "\" has " + values.length() + " numbers, but " + expected
                        + " " + at.word() + " with " + a.components + " component(s) need "
                        + (long) expected * a.components);
            }
            String name = a.name.isEmpty() ? "unnamed" : a.name;
            if (a.order != null && !lane.field.Treatment.stored(a.order)) {
                values = values.permuted(a.order);
                remarks.add("The components of \"" + name + "\" stand in another order in the file and are read as "
                        + String.join(", ", lane.field.Treatment.components(a.components)) + " by their names.");
            } else if (a.order == null && a.components == 6) {
                remarks.add(lane.field.Treatment.assumed(name));
            }
            out.add(new Field(name, at, a.components, Unit.of(FieldUnit.guess(name)), values));
        }
    }
}
