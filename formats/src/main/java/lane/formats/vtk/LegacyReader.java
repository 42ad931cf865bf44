package lane.formats.vtk;

import java.net.URLDecoder;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import lane.base.Work;
import lane.field.Field;
import lane.formats.grid.CellCodes;
import lane.formats.grid.Dataset;
import lane.formats.grid.Pieces;
import lane.formats.grid.Structured;
import lane.formats.io.Bytes;
import lane.formats.io.FormatError;
import lane.formats.vtk.Numbers.Type;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Reads legacy {@code .vtk} files, ascii and binary, with cells in the old layout (sizes among the node numbers) and the
 * new one (offsets and connectivity): unstructured and structured grids, rectilinear grids, images and surfaces.
 */
public final class LegacyReader {
    private final Bytes bytes;
    private final Work work;
    private final List<String> remarks = new ArrayList<>();
    private final List<Field> fields = new ArrayList<>();
    private boolean binary;
    private double @Nullable [] xyz;
    private double[][] axes = new double[3][];
    private int @Nullable [] dims;
    private double[] origin = new double[3];
    private double[] spacing = {1, 1, 1};
    private int @Nullable [] connectivity;
    private int @Nullable [] offsets;
    private int @Nullable [] codes;
    private final List<int[][]> surfaces = new ArrayList<>();
    private final List<Integer> surfaceKinds = new ArrayList<>();
    private double time = Double.NaN;

    private LegacyReader(Bytes bytes, Work work) {
        this.bytes = bytes;
        this.work = work;
    }

    public static Dataset read(Path file, Work work) {
        return Bytes.read(file, bytes -> new LegacyReader(bytes, work).all().assuming());
    }

    private Dataset all() {
        if (!line().startsWith("# vtk DataFile")) {
            throw new FormatError("it does not begin with \"# vtk DataFile\"");
        }
        line();
        String how = line().strip().toUpperCase(Locale.ROOT);
        if (!how.equals("ASCII") && !how.equals("BINARY")) {
            throw new FormatError("its third line says \"" + brief(how) + "\" where ASCII or BINARY belongs");
        }
        binary = how.equals("BINARY");
        String kind = "";
        Field.At place = null;
        int count = 0;
        int arrays = 0;
        for (String word = word(); !word.isEmpty(); word = word()) {
            work.poll();
            switch (word.toUpperCase(Locale.ROOT)) {
                case "DATASET" -> kind = word().toUpperCase(Locale.ROOT);
                case "DIMENSIONS" -> dims = new int[] {size(), size(), size()};
                case "ORIGIN" -> origin = new double[] {real(), real(), real()};
                case "SPACING", "ASPECT_RATIO" -> spacing = new double[] {real(), real(), real()};
                case "POINTS" -> xyz = numbers(3L * size(), "its points").toDoubles();
                case "X_COORDINATES" ->
                    axes[0] = numbers(size(), "its x coordinates").toDoubles();
                case "Y_COORDINATES" ->
                    axes[1] = numbers(size(), "its y coordinates").toDoubles();
                case "Z_COORDINATES" ->
                    axes[2] = numbers(size(), "its z coordinates").toDoubles();
                case "CELLS" -> cells();
                case "CELL_TYPES" ->
                    codes = numbers(size(), Type.INT32, "its cell types").toInts();
                case "VERTICES" -> surface(0);
                case "LINES" -> surface(1);
                case "POLYGONS" -> surface(2);
                case "TRIANGLE_STRIPS" -> surface(3);
                case "POINT_DATA" -> {
                    announced(place, arrays);
                    arrays = fields.size();
                    place = Field.At.NODE;
                    count = size();
                }
                case "CELL_DATA" -> {
                    announced(place, arrays);
                    arrays = fields.size();
                    place = Field.At.CELL;
                    count = size();
                }
                case "METADATA" -> metadata();
                case "FIELD" -> fieldData(place, count);
                case "LOOKUP_TABLE" -> {
                    word();
                    numbers(4L * size(), binary ? Type.UINT8 : Type.FLOAT32, "a colour table");
                }
                default -> attribute(word.toUpperCase(Locale.ROOT), place, count);
            }
        }
        announced(place, arrays);
        return build(kind);
    }

    /** A file that is cut off behind the head of its data reads like one without any. */
    private void announced(Field.@Nullable At place, int before) {
        if (place != null && fields.size() == before) {
            remarks.add("It announces data of its " + place.word() + " and has no array of them that is read.");
        }
    }

    private void attribute(String word, Field.@Nullable At place, int count) {
        int components =
                switch (word) {
                    case "SCALARS", "TEXTURE_COORDINATES", "COLOR_SCALARS" -> 1;
                    case "VECTORS", "NORMALS" -> 3;
                    case "TENSORS" -> 9;
                    case "TENSORS6" -> 6;
                    case "GLOBAL_IDS", "PEDIGREE_IDS" -> 1;
                    default -> throw new FormatError("it has the word \"" + brief(word) + "\" where a section begins");
                };
        if (place == null) {
            throw new FormatError("it has " + word + " before POINT_DATA or CELL_DATA");
        }
        String name = decoded(word());
        if (word.equals("COLOR_SCALARS")) {
            int n = size();
            add(name, place, n, numbers((long) n * count, binary ? Type.UINT8 : Type.FLOAT32, name));
            return;
        }
        if (word.equals("TEXTURE_COORDINATES")) {
            components = size();
        }
        Type type = type(word());
        if (word.equals("SCALARS")) {
            String rest = restOfLine();
            if (!rest.isBlank()) {
                components = whole(rest.strip());
            }
            long before = bytes.at;
            if (word().equalsIgnoreCase("LOOKUP_TABLE")) {
                word();
            } else {
                bytes.at = before;
            }
        }
        add(name, place, components, numbers((long) components * count, type, name));
    }

    private void fieldData(Field.@Nullable At place, int count) {
        word();
        int arrays = size();
        for (int i = 0; i < arrays; i++) {
            String name = word();
            while (name.equalsIgnoreCase("METADATA")) {
                metadata();
                name = word();
            }
            int components = size();
            int tuples = size();
            String type = word();
            if (type.equalsIgnoreCase("string")) {
                skipTexts((long) components * tuples);
                continue;
            }
            Numbers n = numbers((long) components * tuples, type(type), name);
            if (place == null) {
                if (name.equalsIgnoreCase("TIME") || name.equals("TimeValue")) {
                    time = n.size() > 0 ? n.toDoubles()[0] : Double.NaN;
                }
            } else if (tuples == count) {
                add(decoded(name), place, components, n);
            } else {
                throw new FormatError("array \"" + brief(name) + "\" has " + tuples + " entries instead of " + count);
            }
        }
    }

    /** Texts are lines in ascii; in binary each begins with its length, whose first two bits say its width. */
    private void skipTexts(long count) {
        restOfLine();
        for (long k = 0; k < count; k++) {
            if (!binary) {
                line();
                continue;
            }
            int width = 1 << 3 - (next() >> 6);
            bytes.at--;
            long length = 0;
            for (int i = 0; i < width; i++) {
                length = length << 8 | (i == 0 ? next() & 0x3F : next());
            }
            if (length > bytes.left()) {
                throw new FormatError("a text of it is longer than the file");
            }
            bytes.at += length;
        }
    }

    private int next() {
        int b = bytes.peek();
        if (b < 0) {
            throw new FormatError("the file ends in the middle of a text");
        }
        bytes.at++;
        return b;
    }

    private void add(String name, Field.At place, int components, Numbers n) {
        if (components < 1 || components > 1000) {
            throw new FormatError("array \"" + brief(name) + "\" has " + components + " components");
        }
        fields.add(new Field(name, place, components, Unit.of(FieldUnit.guess(name)), n.values()));
    }

    private static String decoded(String name) {
        try {
            return URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            return name;
        }
    }

    private void metadata() {
        line();
        while (bytes.left() > 0 && !line().isBlank()) {
            work.poll();
        }
    }

    /** Node lists: offsets (one more than cells) and node numbers. */
    private int[][] lists() {
        int a = size();
        int b = size();
        restOfLine();
        long before = bytes.at;
        if (word().equalsIgnoreCase("OFFSETS")) {
            Type type = type(word());
            int[] begins = a == 0 ? new int[1] : numbers(a, type, "its offsets").toInts();
            if (!word().equalsIgnoreCase("CONNECTIVITY")) {
                throw new FormatError("it lacks the connectivity after its offsets");
            }
            int[] nodes = numbers(b, type(word()), "its connectivity").toInts();
            check(begins, nodes.length);
            return new int[][] {begins, nodes};
        }
        bytes.at = before;
        int[] mixed = numbers(b, Type.INT32, "its cells").toInts();
        int[] begins = new int[Math.min(a, mixed.length) + 1];
        int[] nodes = new int[Math.max(0, mixed.length - a)];
        int from = 0;
        int out = 0;
        for (int c = 0; c < a; c++) {
            int n = from < mixed.length ? mixed[from] : -1;
            if (n < 0 || n > mixed.length - from - 1 || n > nodes.length - out) {
                throw new FormatError("the sizes of its cells do not fit their number, at cell " + c);
            }
            System.arraycopy(mixed, from + 1, nodes, out, n);
            from += n + 1;
            out += n;
            begins[c + 1] = out;
        }
        return new int[][] {begins, java.util.Arrays.copyOf(nodes, out)};
    }

    private static void check(int[] begins, int nodes) {
        for (int i = 0; i < begins.length; i++) {
            if (begins[i] < (i == 0 ? 0 : begins[i - 1]) || begins[i] > nodes) {
                throw new FormatError("the offsets of its cells go backwards or too far at cell " + i);
            }
        }
        if (begins[0] != 0 || begins[begins.length - 1] != nodes) {
            throw new FormatError("the offsets of its cells do not fit their node list");
        }
    }

    private void cells() {
        int[][] lists = lists();
        offsets = lists[0];
        connectivity = lists[1];
    }

    private void surface(int kind) {
        surfaces.add(lists());
        surfaceKinds.add(kind);
    }

    private Dataset build(String kind) {
        Mesh mesh;
        int[] source = null;
        switch (kind) {
            case "UNSTRUCTURED_GRID" -> {
                if (xyz == null || offsets == null || codes == null || connectivity == null) {
                    throw new FormatError("it lacks its points, cells or cell types");
                }
                CellCodes.Made made = unstructured(xyz, codes, offsets, connectivity);
                mesh = made.mesh();
                source = made.source();
            }
            case "POLYDATA" -> {
                CellCodes.Made made = polygons();
                mesh = made.mesh();
                source = made.source();
            }
            case "STRUCTURED_GRID" -> {
                if (dims == null || xyz == null || xyz.length != 3L * nodes()) {
                    throw new FormatError("its points do not fit its dimensions");
                }
                mesh = Structured.mesh(xyz, dims);
            }
            case "RECTILINEAR_GRID" -> {
                if (dims == null) {
                    throw new FormatError("it lacks its dimensions");
                }
                for (int d = 0; d < 3; d++) {
                    if (axes[d] == null || axes[d].length != dims[d]) {
                        throw new FormatError("its coordinates do not fit its dimensions");
                    }
                }
                bear();
                mesh = Structured.mesh(Structured.product(axes[0], axes[1], axes[2]), dims);
            }
            case "STRUCTURED_POINTS" -> {
                if (dims == null) {
                    throw new FormatError("it lacks its dimensions");
                }
                bear();
                mesh = Structured.mesh(
                        Structured.image(new int[3], dims, origin, spacing, new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1}),
                        dims);
            }
            default ->
                throw FormatError.unsupported(
                        kind.isEmpty()
                                ? "it has no DATASET line"
                                : "it holds a \"" + brief(kind) + "\", which is not read");
        }
        List<Field> out = new ArrayList<>();
        for (Field f : fields) {
            Field put = f;
            if (f.at() == Field.At.CELL && source != null) {
                for (int c : source) {
                    if (c >= f.size()) {
                        throw new FormatError("array \"" + brief(f.name()) + "\" has too few entries");
                    }
                }
                put = f.pick(source);
            }
            int expected = f.at() == Field.At.NODE ? mesh.nodeCount() : mesh.cellCount();
            if (put.size() != expected) {
                throw new FormatError("array \"" + brief(f.name()) + "\" has " + put.size() + " entries for " + expected
                        + " " + f.at().word());
            }
            out.add(put);
        }
        var pieces = new Pieces(remarks);
        pieces.add(mesh, out);
        Dataset made = pieces.join();
        return Double.isNaN(time) ? made : made.at(List.of(time), time);
    }

    private int nodes() {
        int[] n = Objects.requireNonNull(dims);
        return Structured.nodes(new long[] {n[0], n[1], n[2]});
    }

    /** A grid of more nodes than the file has bytes would be made of nothing. */
    private void bear() {
        if (nodes() > Math.max(100_000, bytes.all.byteSize())) {
            throw new FormatError("its dimensions claim " + nodes() + " nodes, more than the file has bytes");
        }
    }

    private CellCodes.Made unstructured(double[] xyz, int[] codes, int[] offsets, int[] connectivity) {
        int cells = offsets.length - 1;
        if (codes.length != cells) {
            throw new FormatError("it has " + cells + " cells, but " + codes.length + " cell types");
        }
        boolean poly = java.util.Arrays.stream(codes).anyMatch(c -> c == 42);
        if (!poly) {
            return CellCodes.make(xyz, codes, offsets, connectivity, null, null, remarks);
        }
        // A polyhedron's list holds its faces: their number, then for each its size and nodes.
        int[] faceOffsets = new int[cells + 1];
        int[] stream = new int[connectivity.length];
        int[] begins = new int[cells + 1];
        int[] nodes = new int[connectivity.length];
        int face = 0;
        int out = 0;
        for (int c = 0; c < cells; c++) {
            int n = offsets[c + 1] - offsets[c];
            if (codes[c] == 42) {
                System.arraycopy(connectivity, offsets[c], stream, face, n);
                var own = new java.util.LinkedHashSet<Integer>();
                int p = offsets[c] + 1;
                while (p < offsets[c + 1]) {
                    int size = connectivity[p++];
                    for (int k = 0; k < size && p < offsets[c + 1]; k++) {
                        own.add(connectivity[p++]);
                    }
                }
                face += n;
                for (int node : own) {
                    nodes[out++] = node;
                }
            } else {
                System.arraycopy(connectivity, offsets[c], nodes, out, n);
                out += n;
            }
            faceOffsets[c + 1] = face;
            begins[c + 1] = out;
        }
        return CellCodes.make(
                xyz,
                codes,
                begins,
                java.util.Arrays.copyOf(nodes, out),
                faceOffsets,
                java.util.Arrays.copyOf(stream, face),
                remarks);
    }

    private CellCodes.Made polygons() {
        if (xyz == null) {
            throw new FormatError("it lacks its points");
        }
        int cells = 0;
        int size = 0;
        for (int[][] s : surfaces) {
            cells = Math.addExact(cells, s[0].length - 1);
            size = Math.addExact(size, s[1].length);
        }
        int[] kinds = new int[cells];
        int[] begins = new int[cells + 1];
        int[] nodes = new int[size];
        int c = 0;
        int out = 0;
        for (int order = 0; order < 4; order++) {
            for (int i = 0; i < surfaces.size(); i++) {
                if (surfaceKinds.get(i) == order) {
                    int[][] s = surfaces.get(i);
                    System.arraycopy(s[1], 0, nodes, out, s[1].length);
                    for (int k = 0; k + 1 < s[0].length; k++) {
                        int n = s[0][k + 1] - s[0][k];
                        kinds[c] = switch (order) {
                            case 0 -> n == 1 ? 1 : 2;
                            case 1 -> n == 2 ? 3 : 4;
                            case 3 -> 6;
                            default -> n == 3 ? 5 : n == 4 ? 9 : 7;
                        };
                        begins[++c] = out + s[0][k + 1];
                    }
                    out += s[1].length;
                }
            }
        }
        return CellCodes.make(xyz, kinds, begins, nodes, null, null, remarks);
    }

    // Words, lines and numbers.

    /** The next line; blank at the end of the file. */
    private String line() {
        String line = bytes.line();
        return line == null ? "" : line;
    }

    /** What is left of the line; the next read begins on the next one. */
    private String restOfLine() {
        return line();
    }

    private String word() {
        return bytes.word();
    }

    private int size() {
        return whole(word());
    }

    private static int whole(String text) {
        try {
            int n = Integer.parseInt(text);
            if (n >= 0 && n < Integer.MAX_VALUE - 16) {
                return n;
            }
        } catch (NumberFormatException e) {
            // Told below: no number is as wrong as one out of range.
        }
        throw new FormatError("it gives \"" + brief(text) + "\" where a count belongs");
    }

    private double real() {
        return Bytes.real(word());
    }

    private static String brief(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    private static Type type(String word) {
        return switch (word.toLowerCase(Locale.ROOT)) {
            case "float" -> Type.FLOAT32;
            case "double" -> Type.FLOAT64;
            case "char", "signed_char" -> Type.INT8;
            case "unsigned_char" -> Type.UINT8;
            case "short" -> Type.INT16;
            case "unsigned_short" -> Type.UINT16;
            // Writers of the format store their own index type as 32-bit numbers.
            case "int", "vtkidtype", "vtktypeint32" -> Type.INT32;
            case "unsigned_int", "vtktypeuint32" -> Type.UINT32;
            case "long", "vtktypeint64" -> Type.INT64;
            case "unsigned_long", "vtktypeuint64" -> Type.UINT64;
            default ->
                throw FormatError.unsupported("it has the number type \"" + brief(word) + "\", which is not read");
        };
    }

    private Numbers numbers(long count, String what) {
        return numbers(count, type(word()), what);
    }

    private Numbers numbers(long count, Type type, String what) {
        long left = bytes.left();
        if (count > Integer.MAX_VALUE - 16 || count * (binary ? type.bytes : 1L) > left) {
            throw new FormatError(
                    "\"" + brief(what) + "\" should have " + count + " numbers, but the file ends before");
        }
        var out = new Numbers(type, "\"" + brief(what) + "\"");
        if (!binary) {
            for (long i = 0; i < count; i++) {
                if ((i & 0xffff) == 0) {
                    work.poll();
                }
                String token = word();
                if (token.isEmpty()) {
                    throw new FormatError(
                            "\"" + brief(what) + "\" should have " + count + " numbers, but the file ends before");
                }
                out.add(token);
            }
            return out;
        }
        // The numbers begin on a line of their own, which may have begun already.
        if (bytes.before() != '\n') {
            while (bytes.peek() == ' ' || bytes.peek() == '\r' || bytes.peek() == '\t') {
                bytes.at++;
            }
            if (bytes.peek() == '\n') {
                bytes.at++;
            }
        }
        long size = count * type.bytes;
        if (size > bytes.left()) {
            throw new FormatError(
                    "\"" + brief(what) + "\" should have " + count + " numbers, but the file ends before");
        }
        for (long done = 0; done < size; ) {
            work.poll();
            int n = (int) Math.min(size - done, 1 << 24);
            ByteBuffer block =
                    bytes.all.asSlice(bytes.at + done, n).asByteBuffer().order(ByteOrder.BIG_ENDIAN);
            out.add(block, (int) count, count);
            done += n;
        }
        bytes.at += size;
        return out;
    }
}
