package lane.formats.surface;

import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.io.Bytes;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Reads polygons from PLY files, ascii and binary in both byte orders; further numbers of vertices and faces become fields. */
public final class PlyReader {
    private record Property(String name, String type, String countType) {
        boolean list() {
            return !countType.isEmpty();
        }
    }

    private record Element(String name, int count, List<Property> properties) {}

    public static Dataset read(Path file, Work work) {
        return Bytes.read(file, bytes -> new PlyReader(bytes, work).all());
    }

    private final Bytes in;
    private final Work work;
    private boolean ascii;
    private ByteOrder order = ByteOrder.LITTLE_ENDIAN;

    private PlyReader(Bytes in, Work work) {
        this.in = in;
        this.work = work;
    }

    private Dataset all() {
        String first = in.line();
        if (first == null || !first.strip().equals("ply")) {
            throw new FormatError("it does not begin with \"ply\"");
        }
        List<Element> elements = header();
        double[] xyz = null;
        Mesh mesh = null;
        List<Field> fields = new ArrayList<>();
        List<String> remarks = new ArrayList<>();
        for (Element e : elements) {
            long least = e.properties.stream()
                    .mapToLong(p -> ascii ? 2 : bytes(p.list() ? p.countType : p.type))
                    .sum();
            if (e.count * least > in.left() + 1) {
                throw new FormatError(
                        "element " + e.name + " should have " + e.count + " entries, but the file ends before");
            }
            if (e.name.equals("vertex")) {
                double[][] columns = columns(e, null, null);
                for (String axis : List.of("x", "y", "z")) {
                    if (e.properties.stream().filter(p -> p.name.equals(axis)).count() != 1) {
                        throw new FormatError("its vertices have no property " + axis + " or more than one");
                    }
                }
                xyz = new double[3 * e.count];
                for (int k = 0; k < e.properties.size(); k++) {
                    String name = e.properties.get(k).name;
                    int axis = "xyz".indexOf(name);
                    if (name.length() == 1 && axis >= 0) {
                        for (int i = 0; i < e.count; i++) {
                            xyz[3 * i + axis] = columns[k][i];
                        }
                    } else if (columns[k] != null) {
                        fields.add(field(name, Field.At.NODE, columns[k]));
                    }
                }
            } else if (e.name.equals("face") && xyz != null) {
                int[] offsets = new int[e.count + 1];
                int[][] nodes = {new int[4 * Math.min(e.count, 1 << 20)]};
                double[][] columns = columns(e, offsets, nodes);
                byte[] shapes = new byte[e.count];
                for (int f = 0; f < e.count; f++) {
                    int n = offsets[f + 1] - offsets[f];
                    shapes[f] = (byte)
                            (n == 3 ? CellShape.TRIANGLE : n == 4 ? CellShape.QUAD : CellShape.POLYGON).ordinal();
                }
                mesh = new Mesh(xyz, shapes, offsets, Arrays.copyOf(nodes[0], offsets[e.count]));
                for (int k = 0; k < columns.length; k++) {
                    if (columns[k] != null) {
                        fields.add(field(e.properties.get(k).name, Field.At.CELL, columns[k]));
                    }
                }
            } else {
                columns(e, null, null);
                if (e.count > 0) {
                    remarks.add(e.count + " entries of its element " + e.name + " were not read.");
                }
            }
        }
        if (mesh == null) {
            throw new FormatError("it has no faces after its vertices");
        }
        if (odd > 0) {
            remarks.add("Its entries do not stand on a line each, " + odd
                    + " times; the numbers were taken one after another, which may not be what was meant.");
        }
        long left = in.left();
        if (left > 0 && !(ascii && in.word().isEmpty())) {
            remarks.add(left + " bytes behind its last element were not read.");
        }
        return new Dataset(mesh, fields, remarks);
    }

    private static Field field(String name, Field.At at, double[] values) {
        return new Field(name, at, 1, Unit.of(FieldUnit.guess(name)), Values.of(values));
    }

    private List<Element> header() {
        List<Element> elements = new ArrayList<>();
        for (String line = in.line(); ; line = in.line()) {
            if (line == null) {
                throw new FormatError("its header has no end");
            }
            String[] w = line.strip().split("\\s+");
            switch (w[0]) {
                case "format" -> {
                    String how = w.length > 1 ? w[1] : "";
                    ascii = how.equals("ascii");
                    order = how.equals("binary_big_endian") ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN;
                    if (!ascii && order == ByteOrder.LITTLE_ENDIAN && !how.equals("binary_little_endian")) {
                        throw FormatError.unsupported("it has the format \"" + how + "\", which PLY does not know");
                    }
                }
                case "element" -> {
                    int count = Bytes.whole(w.length > 2 ? w[2] : "");
                    if (count < 0 || count > Integer.MAX_VALUE / 4) {
                        throw new FormatError("it gives " + count + " as the number of a " + w[1]);
                    }
                    elements.add(new Element(w[1], count, new ArrayList<>()));
                }
                case "property" -> {
                    if (elements.isEmpty() || w.length < 3 || w[1].equals("list") && w.length < 5) {
                        throw new FormatError("its header has a property that is not whole");
                    }
                    boolean list = w[1].equals("list");
                    var p = list ? new Property(w[4], w[3], w[2]) : new Property(w[2], w[1], "");
                    bytes(p.type);
                    if (list) {
                        bytes(p.countType);
                    }
                    elements.getLast().properties.add(p);
                }
                case "end_header" -> {
                    return elements;
                }
                case "comment", "obj_info", "" -> {}
                default ->
                    throw new FormatError(
                            "its header has the word \"" + w[0].substring(0, Math.min(30, w[0].length())) + "\"");
            }
        }
    }

    private static int bytes(String type) {
        return switch (type.toLowerCase(Locale.ROOT)) {
            case "char", "uchar", "int8", "uint8" -> 1;
            case "short", "ushort", "int16", "uint16" -> 2;
            case "int", "uint", "float", "int32", "uint32", "float32" -> 4;
            case "double", "float64" -> 8;
            default ->
                throw FormatError.unsupported("it has the number type \""
                        + type.substring(0, Math.min(30, type.length())) + "\", which PLY does not know");
        };
    }

    /** Whether the next number is the first of an entry that another one stands before. */
    private boolean entry;
    /** Whether any entry was read; the first begins behind the header's line. */
    private boolean begun;
    /** Numbers that stand on another line than they should. */
    private int odd;

    /** Numbers of an element, one array a property; lists of vertex numbers go to {@code offsets} and {@code nodes}. */
    private double[][] columns(Element e, int @Nullable [] offsets, int @Nullable [][] nodes) {
        double[][] out = new double[e.properties.size()][];
        for (int k = 0; k < out.length; k++) {
            out[k] = e.properties.get(k).list() ? null : new double[e.count];
        }
        for (int i = 0; i < e.count; i++) {
            if ((i & 0xffff) == 0) {
                work.poll();
            }
            entry = i > 0 || begun;
            begun = true;
            for (int k = 0; k < out.length; k++) {
                Property p = e.properties.get(k);
                if (!p.list()) {
                    out[k][i] = number(p.type);
                    continue;
                }
                boolean corners = offsets != null && (p.name.equals("vertex_indices") || p.name.equals("vertex_index"));
                double count = number(p.countType);
                if (!(count >= 0) || count > in.left()) {
                    throw new FormatError("a list of " + e.name + " " + i + " claims " + count + " entries");
                }
                int base = corners ? Objects.requireNonNull(offsets)[i] : 0;
                for (int c = 0; c < count; c++) {
                    double v = number(p.type);
                    if (corners) {
                        int[][] to = Objects.requireNonNull(nodes);
                        if (base + c >= to[0].length) {
                            to[0] = Arrays.copyOf(to[0], Math.max(16, 2 * to[0].length));
                        }
                        to[0][base + c] = (int) v;
                    }
                }
                if (corners) {
                    Objects.requireNonNull(offsets)[i + 1] = base + (int) count;
                }
            }
        }
        return out;
    }

    private double number(String type) {
        if (ascii) {
            boolean ended = in.endsLine();
            // Between entries a line ends, within one it does not.
            odd += ended == entry ? 0 : 1;
            entry = false;
            String word = in.word();
            if (word.isEmpty()) {
                throw new FormatError("it ends before its last number");
            }
            return Bytes.real(word);
        }
        int size = bytes(type);
        if (in.left() < size) {
            throw new FormatError("it ends before its last number");
        }
        long at = in.at;
        in.at += size;
        return switch (type.toLowerCase(Locale.ROOT)) {
            case "char", "int8" -> in.all.get(ValueLayout.JAVA_BYTE, at);
            case "uchar", "uint8" -> in.all.get(ValueLayout.JAVA_BYTE, at) & 0xff;
            case "short", "int16" -> in.all.get(ValueLayout.JAVA_SHORT_UNALIGNED.withOrder(order), at);
            case "ushort", "uint16" -> in.all.get(ValueLayout.JAVA_SHORT_UNALIGNED.withOrder(order), at) & 0xffff;
            case "int", "int32" -> in.all.get(ValueLayout.JAVA_INT_UNALIGNED.withOrder(order), at);
            case "uint", "uint32" -> in.all.get(ValueLayout.JAVA_INT_UNALIGNED.withOrder(order), at) & 0xffffffffL;
            case "float", "float32" -> in.all.get(ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(order), at);
            default -> in.all.get(ValueLayout.JAVA_DOUBLE_UNALIGNED.withOrder(order), at);
        };
    }
}
