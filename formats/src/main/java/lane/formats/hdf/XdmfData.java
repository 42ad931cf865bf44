package lane.formats.hdf;

import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.StringTokenizer;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.Values;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.formats.io.FormatError;
import lane.formats.io.Looks;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/** The numbers of an XDMF file: in the XML itself, in HDF5 or binary files below its folder, or a part of other numbers. */
final class XdmfData {
    private final Path file;
    private final Work work;
    private final Set<Path> files = new LinkedHashSet<>();
    private final Set<String> notes = new LinkedHashSet<>();
    private final XdmfPaths paths = new XdmfPaths();

    XdmfData(Path file, Work work) {
        this.file = file;
        this.work = work;
    }

    /** What is to be said of the numbers that were read so far. */
    List<String> notes() {
        return List.copyOf(notes);
    }

    /** What was said since. */
    List<String> notes(List<String> before) {
        return notes.stream().filter(n -> !before.contains(n)).toList();
    }

    /** The other files that numbers were read from so far. */
    Set<Path> files() {
        return files;
    }

    static List<Element> children(Element parent, String tag) {
        List<Element> out = new ArrayList<>();
        for (Node n = parent.getFirstChild(); n != null; n = n.getNextSibling()) {
            if (n instanceof Element e
                    && e.getLocalName() == null
                    && e.getTagName().equals(tag)) {
                out.add(e);
            }
        }
        return out;
    }

    static @Nullable Element child(Element parent, String tag) {
        List<Element> all = children(parent, tag);
        return all.isEmpty() ? null : all.getFirst();
    }

    static String word(Element e, String... names) {
        for (String name : names) {
            if (e.hasAttribute(name)) {
                return e.getAttribute(name).strip();
            }
        }
        return "";
    }

    /** The element that this one stands for: itself, or the one at its reference. */
    Element referred(Element e) {
        if (!e.hasAttribute("Reference")) {
            return e;
        }
        String path = e.getAttribute("Reference").strip();
        if (path.equalsIgnoreCase("XML")) {
            path = e.getTextContent().strip();
        }
        if (path.length() > 500) {
            throw new FormatError("it has a reference of more than 500 characters");
        }
        List<Element> found = paths.find(path, e.getOwnerDocument());
        if (!found.isEmpty() && found.getFirst() != e && !found.getFirst().hasAttribute("Reference")) {
            return found.getFirst();
        }
        throw nowhere(path);
    }

    /**
     * A child element, or the one that an include of the same document puts in its place: {@code <xi:include
     * xpointer="xpointer(PATH)"/>} without a file. Null for neither.
     */
    @Nullable
    Element childOrIncluded(Element parent, String name) {
        Element own = child(parent, name);
        if (own != null) {
            return referred(own);
        }
        for (Node n = parent.getFirstChild(); n != null; n = n.getNextSibling()) {
            boolean include = n instanceof Element e
                    && (e.getTagName().equals("include") || e.getTagName().endsWith(":include"));
            if (!include) {
                continue;
            }
            var e = (Element) n;
            String pointer = e.getAttribute("xpointer").strip();
            if (!e.getAttribute("href").isBlank()) {
                throw FormatError.unsupported("it includes another file, \"" + cut(e.getAttribute("href"))
                        + "\"; only parts of the same file are included");
            }
            if (pointer.length() > 500 || !pointer.startsWith("xpointer(") || !pointer.endsWith(")")) {
                throw FormatError.unsupported("it includes \"" + cut(pointer) + "\", which is not understood");
            }
            String path = pointer.substring("xpointer(".length(), pointer.length() - 1)
                    .strip();
            for (Element there : paths.find(path, e.getOwnerDocument())) {
                if (there.getTagName().equals(name)) {
                    return referred(there);
                }
            }
        }
        return null;
    }

    private static String cut(String text) {
        return text.substring(0, Math.min(80, text.length()));
    }

    private static FormatError nowhere(String path) {
        return new FormatError("it refers to \"" + cut(path) + "\", which is not there");
    }

    static double real(String text) {
        try {
            return Double.parseDouble(text.strip());
        } catch (NumberFormatException e) {
            throw new FormatError(
                    "it gives \"" + text.substring(0, Math.min(40, text.length())) + "\" where a number belongs");
        }
    }

    static int[] sizes(String text) {
        if (text.isBlank()) {
            return new int[0];
        }
        String[] words = text.strip().split("[\\s,]+");
        int[] out = new int[words.length];
        for (int i = 0; i < out.length; i++) {
            double v = real(words[i]);
            if (v < 0 || v > Integer.MAX_VALUE - 16 || v != (int) v) {
                throw new FormatError("it gives \"" + text.substring(0, Math.min(40, text.length())) + "\" as a size");
            }
            out[i] = (int) v;
        }
        return out;
    }

    double[] doubles(Element item) {
        return Hdf.doubles(values(item));
    }

    int[] ints(Element item) {
        Values v = values(item);
        if (v instanceof Values.Ints i) {
            return i.array();
        }
        int[] out = new int[v.length()];
        for (int i = 0; i < out.length; i++) {
            out[i] = (int) v.get(i);
            if (out[i] != v.get(i)) {
                throw new FormatError("its topology must hold whole numbers below 2 147 483 648");
            }
        }
        return out;
    }

    /** What decides the numbers below an element: its words, and the files that it refers to as they are now. */
    Object looks(Element asked) {
        Element e = referred(asked);
        List<Object> out = new ArrayList<>();
        var words = e.getAttributes();
        for (int i = 0; i < words.getLength(); i++) {
            out.add(words.item(i).getNodeName() + "=" + words.item(i).getNodeValue());
        }
        List<Element> items = children(e, "DataItem");
        if (items.isEmpty()) {
            String text = e.getTextContent().strip();
            String format = word(e, "Format").toUpperCase(Locale.ROOT);
            switch (format) {
                case "HDF", "HDF5" -> out.add(stamp(text.substring(0, Math.max(0, text.lastIndexOf(':')))));
                case "BINARY" -> out.add(stamp(text));
                default -> {}
            }
            out.add(
                    format.isEmpty() || format.equals("XML")
                            ? Looks.of(MemorySegment.ofArray(text.getBytes(java.nio.charset.StandardCharsets.UTF_8)))
                            : text);
        }
        items.forEach(item -> out.add(looks(item)));
        return out;
    }

    /** A file that decides numbers, even if these were read before and are not read again. */
    private FileStamp stamp(String reference) {
        Path there = below(reference.strip());
        files.add(there);
        return FileStamp.of(there);
    }

    /** Numbers that are read when they are asked for, where they stand in a file of their own and say how many they are. */
    Values later(Element asked) {
        Element item = referred(asked);
        String format = word(item, "Format").toUpperCase(Locale.ROOT);
        boolean slab = word(item, "ItemType").equalsIgnoreCase("HyperSlab");
        boolean elsewhere = format.equals("HDF") || format.equals("HDF5") || format.equals("BINARY");
        if (!item.hasAttribute("Dimensions") || !elsewhere && !slab) {
            return values(asked);
        }
        List<FileStamp> stamps = new ArrayList<>();
        stamps(item, stamps);
        if (stamps.isEmpty()) {
            return values(asked);
        }
        long count = 1;
        for (int d : sizes(word(item, "Dimensions"))) {
            count = Math.multiplyExact(count, d);
        }
        look(item);
        Element alone = alone(item);
        return new Deferred(
                looks(item),
                Math.toIntExact(count),
                () -> FileErrors.of(file, () -> {
                    Supplier<Values> read = () -> new XdmfData(file, Work.QUIET).values(alone);
                    for (FileStamp s : stamps) {
                        Supplier<Values> inner = read;
                        read = () -> s.reading(inner);
                    }
                    return read.get();
                }));
    }

    /** The same numbers in a document of their own, so that the whole one is not held by whoever may ask for them. */
    private Element alone(Element item) {
        try {
            return copy(
                    DocumentBuilderFactory.newInstance().newDocumentBuilder().newDocument(), item);
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException("every Java makes documents", e);
        }
    }

    private Element copy(Document to, Element asked) {
        Element from = referred(asked);
        var out = (Element) to.importNode(from, false);
        List<Element> items = children(from, "DataItem");
        if (items.isEmpty()) {
            out.appendChild(to.createTextNode(from.getTextContent()));
        }
        items.forEach(item -> out.appendChild(copy(to, item)));
        return out;
    }

    private void stamps(Element asked, List<FileStamp> out) {
        Element item = referred(asked);
        String text = item.getTextContent().strip();
        switch (word(item, "Format").toUpperCase(Locale.ROOT)) {
            case "HDF", "HDF5" -> {
                int colon = text.lastIndexOf(':');
                if (colon > 0) {
                    out.add(stamp(text.substring(0, colon)));
                }
            }
            case "BINARY" -> out.add(stamp(text));
            default -> children(item, "DataItem").forEach(c -> stamps(c, out));
        }
    }

    Values values(Element asked) {
        work.poll();
        Element item = referred(asked);
        String type = word(item, "ItemType");
        if (type.equalsIgnoreCase("HyperSlab")) {
            return slab(item);
        }
        if (!type.isEmpty() && !type.equalsIgnoreCase("Uniform")) {
            throw FormatError.unsupported("it has a data item of type \"" + type + "\", which is not read");
        }
        long count = 1;
        for (int d : sizes(word(item, "Dimensions"))) {
            count = Math.multiplyExact(count, d);
        }
        String format = word(item, "Format").toUpperCase(Locale.ROOT);
        String text = item.getTextContent();
        Values out =
                switch (format) {
                    case "HDF", "HDF5" -> hdf(text.strip());
                    case "BINARY" -> binary(item, text.strip(), count);
                    case "", "XML" -> inline(item, text);
                    default ->
                        throw FormatError.unsupported(
                                "it has a data item of format \"" + format + "\", which is not read");
                };
        if (item.hasAttribute("Dimensions") && out.length() != count) {
            throw new FormatError("a data item says it has " + count + " numbers, but holds " + out.length());
        }
        return out;
    }

    private static boolean whole(Element item) {
        String type = word(item, "NumberType", "DataType").toLowerCase(Locale.ROOT);
        return type.equals("int") || type.equals("uint") || type.equals("char") || type.equals("uchar");
    }

    private static Values inline(Element item, String text) {
        var words = new StringTokenizer(text);
        double[] out = new double[64];
        int n = 0;
        while (words.hasMoreTokens()) {
            if (n == out.length) {
                out = Arrays.copyOf(out, 2 * n);
            }
            out[n++] = real(words.nextToken());
        }
        if (!whole(item)) {
            return new Values.Doubles(Arrays.copyOf(out, n));
        }
        int[] ints = new int[n];
        for (int i = 0; i < n; i++) {
            ints[i] = (int) out[i];
            if (ints[i] != out[i]) {
                return new Values.Doubles(Arrays.copyOf(out, n));
            }
        }
        return new Values.Ints(ints);
    }

    /** The place of a referred file: below the folder of this one, and nowhere else. */
    private Path below(String reference) {
        try {
            Path folder =
                    Objects.requireNonNull(file.toAbsolutePath().normalize().getParent());
            Path there = folder.resolve(reference.replace('\\', '/')).normalize();
            if (there.startsWith(folder)
                    && (!Files.exists(there) || there.toRealPath().startsWith(folder.toRealPath()))) {
                return there;
            }
        } catch (java.nio.file.InvalidPathException | IOException e) {
            // Told below with the path.
        }
        throw new FormatError("it refers to \"" + reference.substring(0, Math.min(80, reference.length()))
                + "\", which is outside its folder");
    }

    /** Notes what is to be said of numbers in HDF5 that are read later. */
    private void look(Element asked) {
        Element item = referred(asked);
        String format = word(item, "Format").toUpperCase(Locale.ROOT);
        if (format.equals("HDF") || format.equals("HDF5")) {
            hdf(item.getTextContent().strip(), d -> {
                Hdf.sound(d);
                return true;
            });
        } else {
            children(item, "DataItem").forEach(this::look);
        }
    }

    private Values hdf(String reference) {
        return hdf(reference, Hdf::values);
    }

    private <T> T hdf(String reference, Function<io.jhdf.api.Dataset, T> use) {
        int colon = reference.lastIndexOf(':');
        if (colon < 1) {
            throw FormatError.unsupported("it refers to \"" + reference.substring(0, Math.min(80, reference.length()))
                    + "\", which is no HDF5 file with a path in it");
        }
        Path path = below(reference.substring(0, colon).strip());
        files.add(path);
        String inside = reference.substring(colon + 1).strip();
        return Hdf.read(path, h -> {
            io.jhdf.api.Group at = h;
            String[] names = inside.replaceAll("^/+", "").split("/+");
            for (int i = 0; i + 1 < names.length; i++) {
                at = Hdf.group(at, names[i]);
                if (at == null) {
                    throw new FormatError("it has no group \"" + names[i] + "\"");
                }
            }
            T read = use.apply(Hdf.need(at, names[names.length - 1]));
            notes.addAll(Hdf.notes());
            return read;
        });
    }

    private Values binary(Element item, String name, long count) {
        Path path = below(name);
        files.add(path);
        String type = word(item, "NumberType", "DataType").toLowerCase(Locale.ROOT);
        String precision = word(item, "Precision");
        int size = !precision.isEmpty() ? (int) real(precision) : type.endsWith("char") ? 1 : 4;
        if (size != 8 && size != 4 && !(whole(item) && (size == 1 || size == 2))) {
            throw FormatError.unsupported("it has " + (type.isEmpty() ? "float" : type) + " numbers of " + precision
                    + " bytes in \"" + cut(name) + "\", which are not read");
        }
        String packed = word(item, "Compression");
        if (!packed.isEmpty() && !packed.equalsIgnoreCase("Raw")) {
            throw FormatError.unsupported("\"" + cut(name) + "\" is packed by " + cut(packed) + ", which is not read");
        }
        long seek = word(item, "Seek").isEmpty() ? 0 : (long) real(word(item, "Seek"));
        try {
            long have = Files.size(path);
            if (seek < 0 || count > (have - seek) / Math.max(1, size) || count > Integer.MAX_VALUE / 8 - 16) {
                throw new FormatError("\"" + cut(name) + "\" is too short for " + count + " numbers");
            }
            byte[] bytes = new byte[(int) (count * size)];
            try (var in = new java.io.RandomAccessFile(path.toFile(), "r")) {
                in.seek(seek);
                in.readFully(bytes);
            }
            ByteBuffer buffer = ByteBuffer.wrap(bytes)
                    .order(
                            word(item, "Endian").equalsIgnoreCase("Big")
                                    ? ByteOrder.BIG_ENDIAN
                                    : ByteOrder.LITTLE_ENDIAN);
            int n = (int) count;
            if (whole(item)) {
                boolean unsigned = type.startsWith("u");
                int[] out = new int[n];
                for (int i = 0; i < n; i++) {
                    long v =
                            switch (size) {
                                case 1 -> unsigned ? buffer.get() & 0xFFL : buffer.get();
                                case 2 -> unsigned ? buffer.getShort() & 0xFFFFL : buffer.getShort();
                                case 8 -> buffer.getLong();
                                default -> unsigned ? buffer.getInt() & 0xFFFFFFFFL : buffer.getInt();
                            };
                    out[i] = (int) v;
                    if (out[i] != v) {
                        throw new FormatError("\"" + name + "\" holds whole numbers beyond 2 147 483 647");
                    }
                }
                return new Values.Ints(out);
            }
            if (size == 8) {
                double[] out = new double[n];
                buffer.asDoubleBuffer().get(out);
                return new Values.Doubles(out);
            }
            float[] out = new float[n];
            buffer.asFloatBuffer().get(out);
            return new Values.Floats(out);
        } catch (IOException e) {
            throw FileHash.unreadable(path, e);
        }
    }

    /** Start, stride and count of a larger array. */
    private Values slab(Element item) {
        List<Element> items = children(item, "DataItem");
        if (items.size() != 2) {
            throw new FormatError("a hyperslab of it needs two data items");
        }
        int[] how = ints(items.get(0));
        Element from = referred(items.get(1));
        int[] dims = sizes(word(from, "Dimensions"));
        int n = dims.length;
        if (how.length != 3 * n || n == 0) {
            throw new FormatError("a hyperslab of it has " + how.length + " numbers for " + n + " dimensions");
        }
        Values all = values(from);
        long count = 1;
        for (int d = 0; d < n; d++) {
            long last = how[d] + (long) how[n + d] * (how[2 * n + d] - 1);
            if (how[d] < 0 || how[n + d] < 1 || how[2 * n + d] < 1 || last >= dims[d]) {
                throw new FormatError("a hyperslab of it reaches beyond its array");
            }
            count *= how[2 * n + d];
        }
        int[] pick = new int[Math.toIntExact(count)];
        int[] at = new int[n];
        for (int i = 0; i < pick.length; i++) {
            long index = 0;
            for (int d = 0; d < n; d++) {
                index = index * dims[d] + how[d] + (long) how[n + d] * at[d];
            }
            pick[i] = Math.toIntExact(index);
            for (int d = n - 1; d >= 0 && ++at[d] == how[2 * n + d]; d--) {
                at[d] = 0;
            }
        }
        return all.pick(1, pick);
    }
}
