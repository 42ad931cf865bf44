package lane.formats.vtk;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.function.Supplier;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import lane.base.Work;
import lane.formats.io.Budget;
import lane.formats.io.FormatError;
import lane.formats.vtk.Numbers.Type;
import org.jspecify.annotations.Nullable;

/**
 * The XML of a file, read as a stream: pieces with their data arrays, decoded where they stand or noted with their place
 * in the appended data. No document type and no entity is taken.
 */
final class XmlParts {
    private static final XMLInputFactory FACTORY = new com.ctc.wstx.stax.WstxInputFactory();

    static {
        FACTORY.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        FACTORY.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        FACTORY.setProperty(XMLInputFactory.IS_COALESCING, false);
        // Errors come when they are met, not later from an innocent call.
        FACTORY.setProperty(com.ctc.wstx.api.WstxInputProperties.P_LAZY_PARSING, false);
        FACTORY.setXMLResolver((publicId, systemId, base, namespace) -> {
            throw new XMLStreamException("external entities are not taken");
        });
    }

    /** Elements that a file's type names. */
    private static final Set<String> KINDS = Set.of(
            "UnstructuredGrid",
            "StructuredGrid",
            "RectilinearGrid",
            "ImageData",
            "PolyData",
            "PUnstructuredGrid",
            "PStructuredGrid",
            "PRectilinearGrid",
            "PImageData",
            "PPolyData",
            "vtkMultiBlockDataSet",
            "vtkPartitionedDataSet",
            "vtkPartitionedDataSetCollection",
            "Collection");

    /** Elements that say what they say by those inside. */
    private static final Set<String> STRUCTURE = Set.of(
            "PPointData",
            "PCellData",
            "PPoints",
            "PCells",
            "PCoordinates",
            "PDataArray",
            "PFieldData",
            "vtkMultiPieceDataSet");

    /** Elements that say nothing of the numbers. */
    private static final Set<String> KNOWN =
            Set.of("DataAssembly", "Assembly", "InformationKey", "InformationKeys", "Value");

    /** A data array: decoded, or waiting at an offset of the appended data. */
    static final class Array {
        String name = "";
        String section = "";
        Type type = Type.FLOAT32;
        int components = 1;
        long offset = -1;
        /** Null as long as nobody asked, and for texts. */
        @Nullable
        Numbers numbers;

        /** Decodes the numbers; null where they stand in the XML and are decoded at once. */
        @Nullable
        Supplier<Numbers> decode;

        boolean text;
        /** Eight values a byte, the first in the highest bit, where they are stored as bytes. */
        boolean bits;
        /** What keeps it from being read, such as its kind; blank for nothing. */
        String unread = "";

        /** Its place among all arrays of the file. */
        int index;
        /** How many numbers its piece has room for; -1 when nobody says. */
        long room = -1;
        /** Which stored component is x, y and z; null for as they stand. */
        int @Nullable [] order;

        /** The numbers, decoded now if they were not; null for a text. */
        @Nullable
        Numbers numbers() {
            if (numbers == null && decode != null && !text) {
                numbers = decode.get();
            }
            return numbers;
        }

        /** How many numbers are stored at most, packed bits as bytes; -1 when nobody says. */
        long stored() {
            return bits && room >= 0 ? (room + 7) / 8 : room;
        }

        /** Bits that were stored as bytes become numbers. */
        void unpack() {
            if (numbers != null) {
                numbers = unpacked(numbers);
            }
        }

        Numbers unpacked(Numbers stored) {
            return bits ? stored.bits(room < 0 ? 8L * stored.size() : room) : stored;
        }

        /** The same without its numbers, and without what they would be read from. */
        Array bare() {
            var out = new Array();
            out.name = name;
            out.section = section;
            out.type = type;
            out.components = components;
            out.offset = offset;
            out.text = text;
            out.bits = bits;
            out.unread = unread;
            out.index = index;
            out.room = room;
            out.order = order;
            return out;
        }

        boolean ofField() {
            return section.equals("PointData") || section.equals("CellData");
        }
    }

    /** A piece: its counts and arrays. */
    static final class Piece {
        final Map<String, Long> counts = new HashMap<>();
        final Map<String, String> attributes = new HashMap<>();
        final List<Array> arrays = new ArrayList<>();
    }

    /** A file that this one refers to, with the names of the blocks around it. */
    record Leaf(List<String> blocks, String name, String file, double time) {}

    final List<Piece> pieces = new ArrayList<>();
    final List<Leaf> leaves = new ArrayList<>();
    /** Attributes of the element that is named like the file's type. */
    final Map<String, String> attributes = new HashMap<>();

    /** Entries of a set that name no file, as empty blocks do. */
    int nameless;

    /** Elements that the format does not know. */
    final Set<String> unknown = new java.util.TreeSet<>();

    final List<Array> fieldData = new ArrayList<>();
    String fileType = "";
    ByteOrder order = ByteOrder.LITTLE_ENDIAN;
    boolean wideHeader;
    final Budget budget;
    /** Where the XML ends in the file; appended data follow. */
    final long end;

    private final boolean headOnly;
    /** Which arrays of fields that stand in the XML are decoded, by their index. */
    private final IntPredicate wanted;

    private int count;
    Payload.Packing packing = Payload.Packing.NONE;
    boolean appendedRaw;
    boolean hasAppended;

    /**
     * @param head the bytes of the XML up to and with the opening tag of the appended data, if there is any
     * @param end where the head ends in the file
     * @param headOnly whether to stop before the first piece
     * @param wanted which arrays of fields are decoded where they stand in the XML, by their place among all arrays
     * @param closing what closes the XML after it, or nothing
     */
    XmlParts(
            InputStream head,
            String closing,
            long end,
            boolean headOnly,
            IntPredicate wanted,
            Budget budget,
            Work work) {
        this.wanted = wanted;
        this.end = end;
        this.headOnly = headOnly;
        this.budget = budget;
        InputStream in = closing.isEmpty()
                ? head
                : new SequenceInputStream(head, new ByteArrayInputStream(closing.getBytes(StandardCharsets.US_ASCII)));
        try {
            XMLStreamReader xml = FACTORY.createXMLStreamReader(in);
            read(xml, work);
        } catch (XMLStreamException e) {
            String message = String.valueOf(e.getMessage());
            boolean ended = message.contains("end of document")
                    || message.contains("must start and end")
                    || message.contains("EOF")
                    || message.contains("must be terminated");
            int line = e.getLocation() == null ? 0 : e.getLocation().getLineNumber();
            throw new FormatError(
                    ended
                            ? "its XML ends too early, at line " + Math.max(1, line)
                            : line < 1 ? "it is no XML" : "its XML is damaged at line " + line);
        }
    }

    private void read(XMLStreamReader xml, Work work) throws XMLStreamException {
        String section = "";
        Piece piece = null;
        int depth = 0;
        boolean inAppended = false;
        int other = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.DTD || event == XMLStreamConstants.ENTITY_REFERENCE) {
                throw FormatError.unsupported("it has a document type or an entity, which are not taken");
            }
            if ((event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)
                    && depth > 0
                    && !inAppended
                    && other == 0
                    && !xml.isWhiteSpace()
                    && !xml.getText().isBlank()) {
                String stray = xml.getText().strip();
                throw new FormatError("it has the text \"" + stray.substring(0, Math.min(40, stray.length()))
                        + "\" where an element belongs");
            }
            if (event == XMLStreamConstants.START_ELEMENT) {
                if (++depth > 50) {
                    throw new FormatError("its XML is nested more than 50 deep");
                }
                String tag = xml.getLocalName();
                if (depth == 1) {
                    root(xml, tag);
                    continue;
                }
                if (tag.equals(fileType)) {
                    attributes(xml, attributes);
                } else if (depth == 2 && KINDS.contains(tag)) {
                    throw new FormatError("it says that it is a " + fileType + " and holds a " + tag);
                }
                switch (tag) {
                    case "Piece" -> {
                        if (headOnly) {
                            hasAppended = true;
                            appendedRaw = true;
                            return;
                        }
                        piece = new Piece();
                        attributes(xml, piece.attributes);
                        for (Map.Entry<String, String> e : piece.attributes.entrySet()) {
                            if (e.getKey().startsWith("NumberOf")) {
                                piece.counts.put(e.getKey(), count(e.getValue()));
                            }
                        }
                        pieces.add(piece);
                    }
                    case "Block", "Partitions" -> {
                        String name = xml.getAttributeValue(null, "name");
                        blocks.add(name == null ? "block " + xml.getAttributeValue(null, "index") : name);
                        // Until something is found in it; what it stands in holds it.
                        bare.replaceAll(b -> false);
                        bare.add(true);
                    }
                    case "DataSet" -> {
                        bare.replaceAll(b -> false);
                        String file = xml.getAttributeValue(null, "file");
                        String name = xml.getAttributeValue(null, "name");
                        if (file != null && !file.isBlank()) {
                            leaves.add(new Leaf(
                                    List.copyOf(blocks),
                                    name == null ? "" : name,
                                    file,
                                    number(xml.getAttributeValue(null, "timestep"))));
                        } else {
                            nameless++;
                        }
                    }
                    case "PointData",
                            "CellData",
                            "Points",
                            "Cells",
                            "Verts",
                            "Lines",
                            "Strips",
                            "Polys",
                            "FieldData",
                            "Coordinates" -> section = tag;
                    case "DataArray", "Array" -> {
                        work.poll();
                        Array array = array(xml, section, piece);
                        depth--;
                        if (section.equals("FieldData")) {
                            fieldData.add(array);
                        } else if (piece != null) {
                            piece.arrays.add(array);
                        }
                    }
                    case "AppendedData" -> {
                        hasAppended = true;
                        inAppended = true;
                        appendedRaw = "raw".equals(xml.getAttributeValue(null, "encoding"));
                    }
                    default -> {
                        if (!STRUCTURE.contains(tag) && !KINDS.contains(tag) && other == 0) {
                            // What is in it, text too, is its own.
                            other = depth;
                        }
                        if (!KNOWN.contains(tag) && !STRUCTURE.contains(tag) && !KINDS.contains(tag)) {
                            unknown.add(tag.substring(0, Math.min(40, tag.length())));
                        }
                    }
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                other = depth == other ? 0 : other;
                depth--;
                if ((xml.getLocalName().equals("Block") || xml.getLocalName().equals("Partitions"))
                        && !blocks.isEmpty()) {
                    String name = blocks.removeLast();
                    if (bare.removeLast()) {
                        empty.add(name);
                    }
                }
            }
        }
    }

    private final List<String> blocks = new ArrayList<>();
    /** For each open block whether nothing was found in it yet. */
    private final List<Boolean> bare = new ArrayList<>();
    /** Names of blocks that hold nothing. */
    final List<String> empty = new ArrayList<>();

    private static void attributes(XMLStreamReader xml, Map<String, String> to) {
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            to.put(xml.getAttributeLocalName(i), xml.getAttributeValue(i));
        }
    }

    private static double number(String text) {
        try {
            return text == null ? Double.NaN : Double.parseDouble(text.strip());
        } catch (NumberFormatException e) {
            throw new FormatError("it gives the time \"" + text + "\", which is no number");
        }
    }

    private void root(XMLStreamReader xml, String tag) {
        if (!tag.equals("VTKFile")) {
            throw new FormatError("it begins with <" + tag + "> and not with <VTKFile>");
        }
        fileType = String.valueOf(xml.getAttributeValue(null, "type"));
        order = "BigEndian".equals(xml.getAttributeValue(null, "byte_order"))
                ? ByteOrder.BIG_ENDIAN
                : ByteOrder.LITTLE_ENDIAN;
        String header = xml.getAttributeValue(null, "header_type");
        wideHeader = "UInt64".equals(header);
        String compressor = xml.getAttributeValue(null, "compressor");
        packing = switch (compressor == null ? "" : compressor) {
            case "" -> Payload.Packing.NONE;
            case "vtkZLibDataCompressor" -> Payload.Packing.ZLIB;
            case "vtkLZ4DataCompressor" -> Payload.Packing.LZ4;
            case "vtkLZMADataCompressor" -> Payload.Packing.LZMA;
            default ->
                throw new FormatError("it is compressed with " + compressor + ", and only zlib, lz4 and lzma are read");
        };
    }

    private static long count(String text) {
        try {
            long n = Long.parseLong(text.strip());
            if (n >= 0 && n <= Integer.MAX_VALUE - 8) {
                return n;
            }
        } catch (NumberFormatException e) {
            // Falls through to the sentence below: not a number is as wrong as a number out of range.
        }
        throw new FormatError("it gives \"" + text + "\" as a number of points or cells");
    }

    private Array array(XMLStreamReader xml, String section, @Nullable Piece piece) throws XMLStreamException {
        var array = new Array();
        array.section = section;
        String name = xml.getAttributeValue(null, "Name");
        array.name = name == null ? "" : name;
        String type = String.valueOf(xml.getAttributeValue(null, "type"));
        String format = String.valueOf(xml.getAttributeValue(null, "format"));
        String what = "array \"" + array.name + "\"";
        if (type.equals("String")) {
            // Text of a whole file names things, such as its regions; it is stored letter by letter.
            array.text = true;
            array.type = Type.UINT8;
        } else if (type.equals("Bit")) {
            array.bits = true;
            array.type = Type.UINT8;
        } else {
            try {
                array.type = Type.valueOf(type.toUpperCase(java.util.Locale.ROOT));
            } catch (IllegalArgumentException e) {
                if (!array.ofField() && !section.equals("FieldData")) {
                    throw FormatError.unsupported(
                            what + " has the number type \"" + type + "\", which the format does not know");
                }
                // A field that cannot be read costs itself and not the file.
                array.unread = "is of the kind \"" + type + "\", which is not read,";
                array.text = true;
                array.index = count++;
                skip(xml);
                return array;
            }
        }
        String components = xml.getAttributeValue(null, "NumberOfComponents");
        if (components != null) {
            array.components = (int) Math.max(1, count(components));
        }
        array.order = ComponentOrder.of(array.components, c -> xml.getAttributeValue(null, "ComponentName" + c));
        array.room = room(array, piece);
        array.index = count++;
        if (format.equals("appended")) {
            String offset = xml.getAttributeValue(null, "offset");
            try {
                array.offset = Long.parseLong(String.valueOf(offset).strip());
            } catch (NumberFormatException e) {
                throw new FormatError(what + " has the offset \"" + offset + "\"");
            }
            if (array.offset < 0) {
                throw new FormatError(what + " has the offset \"" + offset + "\"");
            }
            skip(xml);
        } else if (array.text && !section.equals("FieldData")
                || array.ofField() && !array.bits && !wanted.test(array.index)) {
            skip(xml);
        } else {
            var numbers = new Numbers(array.type, what);
            array.numbers = numbers;
            if (format.equals("binary")) {
                binary(xml, array, numbers, what);
                array.unpack();
            } else {
                ascii(xml, numbers);
            }
        }
        return array;
    }

    /** Lists of names that the file carries as a whole, by the name of the list. */
    Map<String, List<String>> labels() {
        var out = new java.util.LinkedHashMap<String, List<String>>();
        for (Array a : fieldData) {
            if (a.text && a.numbers != null && a.numbers.size() > 0) {
                var bytes = new java.io.ByteArrayOutputStream();
                List<String> names = new ArrayList<>();
                for (double v : a.numbers.toDoubles()) {
                    if (v == 0) {
                        names.add(bytes.toString(StandardCharsets.UTF_8));
                        bytes.reset();
                    } else {
                        bytes.write((int) v);
                    }
                }
                if (bytes.size() > 0) {
                    names.add(bytes.toString(StandardCharsets.UTF_8));
                }
                out.put(a.name, List.copyOf(names));
            }
        }
        return out;
    }

    private static long room(Array array, @Nullable Piece piece) {
        String counted =
                switch (array.section) {
                    case "PointData", "Points" -> "NumberOfPoints";
                    case "CellData" -> "NumberOfCells";
                    default -> "";
                };
        Long n = piece == null ? null : piece.counts.get(counted);
        return n == null ? -1 : n * (array.section.equals("Points") ? 3 : array.components);
    }

    private static void skip(XMLStreamReader xml) throws XMLStreamException {
        for (int depth = 1; depth > 0; ) {
            int event = xml.next();
            depth += event == XMLStreamConstants.START_ELEMENT ? 1 : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
        }
    }

    private static void ascii(XMLStreamReader xml, Numbers out) throws XMLStreamException {
        char[] token = new char[400];
        int n = 0;
        for (int depth = 1; depth > 0; ) {
            int event = xml.next();
            if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
                if (depth > 1) {
                    continue;
                }
                char[] text = xml.getTextCharacters();
                int end = xml.getTextStart() + xml.getTextLength();
                for (int i = xml.getTextStart(); i < end; i++) {
                    if (text[i] > ' ') {
                        if (n == token.length) {
                            throw new FormatError("it has a number of more than 400 characters");
                        }
                        token[n++] = text[i];
                    } else if (n > 0) {
                        out.add(token, n);
                        n = 0;
                    }
                }
            } else {
                depth += event == XMLStreamConstants.START_ELEMENT
                        ? 1
                        : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
            }
        }
        if (n > 0) {
            out.add(token, n);
        }
    }

    private void binary(XMLStreamReader xml, Array array, Numbers into, String what) throws XMLStreamException {
        byte[] text = new byte[4096];
        int n = 0;
        for (int depth = 1; depth > 0; ) {
            int event = xml.next();
            if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
                if (depth > 1) {
                    continue;
                }
                int length = xml.getTextLength();
                if (n + length > text.length) {
                    text = java.util.Arrays.copyOf(text, Math.max(n + length, Math.min(2 * text.length, 1 << 30)));
                }
                char[] chars = xml.getTextCharacters();
                for (int i = 0; i < length; i++) {
                    text[n++] = (byte) chars[xml.getTextStart() + i];
                }
            } else {
                depth += event == XMLStreamConstants.START_ELEMENT
                        ? 1
                        : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
            }
        }
        java.nio.ByteBuffer bytes = Payload.base64(text, 0, n, what);
        new Payload(order, wideHeader, packing, budget, Work.QUIET).decode(bytes, into, array.stored(), what);
        if (bytes.hasRemaining()) {
            throw new FormatError(what + " has " + bytes.remaining() + " bytes more than it says");
        }
    }
}
