package lane.formats.vtk;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.function.Supplier;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.grid.Nested;
import lane.formats.grid.Opening;
import lane.formats.io.Budget;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.formats.io.FormatError;
import lane.formats.io.Looks;
import org.jspecify.annotations.Nullable;

/**
 * Reads the XML family of the VTK formats: unstructured and structured grids, surfaces, images, parallel files, blocks and
 * collections over time: ascii, inline base64, appended raw and base64,
 * zlib, lz4, lzma, both byte orders, both header widths, all number types, several pieces. What it does not read it names.
 */
public final class VtkXmlReader {
    private static final Set<String> GRIDS = new java.util.TreeSet<>(
            Set.of("UnstructuredGrid", "PolyData", "ImageData", "RectilinearGrid", "StructuredGrid"));

    private VtkXmlReader() {}

    public static Dataset read(Path file, Work work) {
        return read(file, TimeSelector.LAST, Opening.WHOLE, work, (other, o, w) -> {
            throw FormatError.unsupported("it refers to other files, which are not read here");
        });
    }

    /**
     * @param moment which time of a collection; a single file has only its own
     * @param nested reads the files that a collection refers to
     */
    public static Dataset read(Path file, TimeSelector moment, Opening opening, Work work, Nested nested) {
        return mapped(file, bytes -> read(bytes, file, moment, opening, work, nested));
    }

    /** The files that a collection has for each of its times; none for a file that is no collection over time. */
    public static Map<Double, List<Path>> files(Path file) {
        return mapped(file, bytes -> VtkSet.files(parse(bytes, false, i -> false, Work.QUIET), file));
    }

    /** All files that a set refers to; none for what is no set. */
    public static List<Path> named(Path file) {
        return mapped(file, bytes -> VtkSet.named(parse(bytes, false, i -> false, Work.QUIET), file));
    }

    private static <T> T mapped(Path file, Function<MemorySegment, T> use) {
        return mapped(file, Arena::ofShared, use);
    }

    /** @param open where all that looks at the bytes is one thread, one for this thread: to close it, no other is asked */
    private static <T> T mapped(Path file, Supplier<Arena> open, Function<MemorySegment, T> use) {
        return FileErrors.of(file, () -> {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
                    Arena arena = open.get()) {
                return use.apply(channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), arena));
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            }
        });
    }

    private static Dataset read(
            MemorySegment bytes, Path file, TimeSelector moment, Opening opening, Work work, Nested nested) {
        XmlParts xml = parse(bytes, false, i -> !opening.onDemand(), work);
        if (VtkSet.KINDS.contains(xml.fileType)) {
            return VtkSet.read(xml, file, moment, opening, work, nested).saying(unknown(xml));
        }
        if (!GRIDS.contains(xml.fileType)) {
            throw FormatError.unsupported("it holds a \"" + xml.fileType + "\", which is not read; known are " + GRIDS
                    + " and " + VtkSet.KINDS);
        }
        if (xml.hasAppended) {
            long start = find(bytes, "_", xml.end);
            List<XmlParts.Array> all = new ArrayList<>(xml.fieldData);
            xml.pieces.forEach(p -> all.addAll(p.arrays));
            long data = bytes.byteSize() - start;
            for (XmlParts.Array array : all) {
                // Arrays stand one after the other: where one begins and the next one does is its share of the file.
                long end = all.stream()
                        .mapToLong(o -> o.offset)
                        .filter(o -> o > array.offset)
                        .min()
                        .orElse(data);
                Work own = work.stretch((double) array.offset / data, (double) end / data);
                array.decode = array.offset < 0
                        ? null
                        : () -> {
                            own.progress("Reading " + array.name, 0);
                            appended(bytes, start, array, xml, xml.budget, own);
                            return array.numbers;
                        };
                if (!opening.onDemand() || array.section.equals("FieldData")) {
                    array.numbers();
                }
            }
        }
        var stored = opening.onDemand() ? new StoredArrays(bytes, xml, FileStamp.of(file)) : null;
        Dataset made = new GridBuilder(xml, stored, opening).build();
        double time = time(xml);
        made = made.labelled(xml.labels()).saying(unknown(xml));
        return Double.isNaN(time) ? made : made.at(List.of(time), time);
    }

    /** What was left out of the XML. */
    private static List<String> unknown(XmlParts xml) {
        List<String> out = new ArrayList<>();
        for (String tag : xml.unknown) {
            out.add("Its element <" + tag + "> is not known to the format and was left out.");
        }
        if (!xml.empty.isEmpty()) {
            out.add(Plain.count(xml.empty.size(), "block") + " of it hold nothing: "
                    + Plain.line(String.join(", ", xml.empty.subList(0, Math.min(5, xml.empty.size()))))
                    + (xml.empty.size() > 5 ? " and others." : "."));
        }
        if (xml.nameless > 0) {
            out.add(xml.nameless + " of its blocks name no file and are taken as empty.");
        }
        return out;
    }

    /** Numbers of a file's fields that wait in it, and what its grid looks like without decoding it. */
    private record StoredArrays(MemorySegment bytes, XmlParts xml, FileStamp stamp) implements GridBuilder.Waiting {
        @Override
        public long announced(XmlParts.Array array) {
            if (array.offset < 0) {
                return -1;
            }
            long start = find(bytes, "_", xml.end);
            ByteBuffer in = encoded(bytes, start, array, xml, 64);
            long size = new Payload(xml.order, xml.wideHeader, xml.packing, xml.budget, Work.QUIET)
                    .announced(in, "array \"" + array.name + "\"");
            return size / array.type.bytes;
        }

        @Override
        public Values values(XmlParts.Array array, int length) {
            // Nothing of the mapped file may be held: it is mapped again when the numbers are asked for.
            FileStamp as = stamp;
            int index = array.index;
            boolean known = array.offset >= 0 && xml.appendedRaw && !array.text;
            long start = !known ? -1 : find(bytes, "_", xml.end);
            if (start < 0) {
                return new Deferred(List.of(as, index), length, () -> as.reading(() -> one(as.file(), index)));
            }
            var place = new Place(array.bare(), start, xml.order, xml.wideHeader, xml.packing);
            return new Deferred(List.of(as, index), length, () -> as.reading(() -> place.values(as.file())));
        }

        @Override
        public @Nullable Object looks(XmlParts.Piece piece) {
            List<Long> looks = new ArrayList<>();
            List<Object> heads = new ArrayList<>();
            long start = find(bytes, "_", xml.end);
            for (XmlParts.Array a : piece.arrays) {
                if (a.ofField()) {
                    continue;
                }
                if (a.offset < 0 || start < 0) {
                    return null;
                }
                long from = start + 1 + a.offset;
                long end = Math.min(bytes.byteSize(), from + Math.max(0, room(a)));
                looks.add(Looks.of(end > from ? bytes.asSlice(from, end - from) : MemorySegment.NULL));
                heads.add(List.of(a.name, a.section, a.type, a.components));
            }
            return List.of(
                    xml.fileType,
                    xml.attributes,
                    piece.attributes,
                    heads,
                    xml.order.toString(),
                    xml.wideHeader,
                    xml.packing,
                    looks);
        }

        /** Bytes until the next array begins, or the data end. */
        private long room(XmlParts.Array array) {
            return java.util.stream.Stream.concat(
                                    xml.fieldData.stream(), xml.pieces.stream().flatMap(p -> p.arrays.stream()))
                            .mapToLong(o -> o.offset)
                            .filter(o -> o > array.offset)
                            .min()
                            .orElse(Long.MAX_VALUE / 2)
                    - array.offset;
        }
    }

    /**
     * Where the bytes of an array stand in a file that is as it was, so that nothing of it need be parsed again.
     *
     * @param array without its numbers
     * @param start of the appended data
     */
    private record Place(
            XmlParts.Array array, long start, ByteOrder order, boolean wideHeader, Payload.Packing packing) {
        Values values(Path file) {
            boolean alone = packing == Payload.Packing.NONE;
            return mapped(file, alone ? Arena::ofConfined : Arena::ofShared, bytes -> {
                String what = "array \"" + array.name + "\"";
                var numbers = new Numbers(array.type, what);
                new Payload(order, wideHeader, packing, new Budget(bytes.byteSize()), Work.QUIET)
                        .decode(
                                rest(bytes, start, array, Integer.MAX_VALUE - 16)
                                        .asByteBuffer(),
                                numbers,
                                array.stored(),
                                what);
                return array.unpacked(numbers).values();
            });
        }
    }

    /** The numbers of one array of a file, by its place among all of them. */
    private static Values one(Path file, int index) {
        return mapped(file, bytes -> {
            XmlParts xml = parse(bytes, false, i -> i == index, Work.QUIET);
            XmlParts.Array array = xml.pieces.stream()
                    .flatMap(p -> p.arrays.stream())
                    .filter(a -> a.index == index)
                    .findFirst()
                    .orElseThrow(() -> new FormatError("an array that it had is there no more"));
            if (array.numbers == null) {
                long size = bytes.byteSize();
                appended(bytes, find(bytes, "_", xml.end), array, xml, new Budget(size), Work.QUIET);
            }
            return Objects.requireNonNull(array.numbers).values();
        });
    }

    private static XmlParts parse(MemorySegment bytes, boolean headOnly, IntPredicate wanted, Work work) {
        long appended = plain(bytes) ? -1 : find(bytes, "<AppendedData", 0);
        long tagEnd = appended < 0 ? -1 : find(bytes, ">", appended);
        if (appended >= 0 && tagEnd < 0) {
            throw new FormatError("it ends inside the tag of its appended data");
        }
        long xmlEnd = appended < 0 ? bytes.byteSize() : tagEnd + 1;
        boolean closed = appended >= 0 && bytes.get(ValueLayout.JAVA_BYTE, tagEnd - 1) == '/';
        return new XmlParts(
                new BufferedInputStream(new SegmentStream(bytes, xmlEnd), 1 << 16),
                appended < 0 ? "" : closed ? "</VTKFile>" : "</AppendedData></VTKFile>",
                xmlEnd,
                headOnly,
                wanted,
                new Budget(bytes.byteSize()),
                work);
    }

    /** Whether the last words are those of a file without appended data: looking through all of it takes time. */
    private static boolean plain(MemorySegment bytes) {
        int n = (int) Math.min(256, bytes.byteSize());
        byte[] tail = new byte[n];
        MemorySegment.copy(bytes, ValueLayout.JAVA_BYTE, bytes.byteSize() - n, tail, 0, n);
        String words = new String(tail, StandardCharsets.ISO_8859_1);
        return words.stripTrailing().endsWith("</VTKFile>")
                && words.contains("</Piece>")
                && !words.contains("AppendedData");
    }

    private static double time(XmlParts xml) {
        return xml.fieldData.stream()
                .filter(a -> a.name.equals("TimeValue") && a.numbers != null && a.numbers.size() == 1)
                .mapToDouble(a -> a.numbers.toDoubles()[0])
                .findFirst()
                .orElse(Double.NaN);
    }

    /** The time that a file says it holds, without reading its mesh and fields; NaN when it does not say. */
    public static double time(Path file) {
        return FileErrors.of(file, () -> {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
                    Arena arena = Arena.ofConfined()) {
                MemorySegment bytes = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), arena);
                XmlParts xml = parse(bytes, true, i -> false, Work.QUIET);
                for (XmlParts.Array a : xml.fieldData) {
                    if (a.name.equals("TimeValue") && a.offset >= 0) {
                        appended(bytes, find(bytes, "_", xml.end), a, xml, xml.budget, Work.QUIET);
                    }
                }
                return time(xml);
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            }
        });
    }

    private static void appended(
            MemorySegment bytes, long start, XmlParts.Array array, XmlParts xml, Budget budget, Work work) {
        if (array.offset < 0 || array.text && !array.section.equals("FieldData")) {
            return;
        }
        work.poll();
        String what = "array \"" + array.name + "\"";
        ByteBuffer in = encoded(bytes, start, array, xml, Integer.MAX_VALUE - 16);
        array.numbers = new Numbers(array.type, what);
        new Payload(xml.order, xml.wideHeader, xml.packing, budget, work)
                .decode(in, array.numbers, array.stored(), what);
        array.unpack();
    }

    /**
     * The bytes that an array begins with.
     *
     * @param most bytes that are needed
     */
    private static ByteBuffer encoded(MemorySegment bytes, long start, XmlParts.Array array, XmlParts xml, long most) {
        MemorySegment rest = rest(bytes, start, array, most);
        return xml.appendedRaw ? rest.asByteBuffer() : base64(rest, array.offset, xml);
    }

    private static MemorySegment rest(MemorySegment bytes, long start, XmlParts.Array array, long most) {
        if (start < 0 || array.offset > bytes.byteSize() - start - 1) {
            throw new FormatError("array \"" + array.name + "\" begins at byte " + array.offset
                    + " of the appended data, which is beyond the file's end");
        }
        long from = start + 1 + array.offset;
        return bytes.asSlice(from, Math.min(bytes.byteSize() - from, most));
    }

    /** The text of one array ends where the next one's begins, or at the end of the data. */
    private static ByteBuffer base64(MemorySegment rest, long offset, XmlParts xml) {
        long next = Long.MAX_VALUE;
        for (var piece : xml.pieces) {
            for (var other : piece.arrays) {
                next = other.offset > offset ? Math.min(next, other.offset) : next;
            }
        }
        for (var other : xml.fieldData) {
            next = other.offset > offset ? Math.min(next, other.offset) : next;
        }
        long size = Math.min(rest.byteSize(), next - offset);
        byte[] text = rest.asSlice(0, size).toArray(ValueLayout.JAVA_BYTE);
        return Payload.base64(text, 0, text.length);
    }

    private static long find(MemorySegment bytes, String text, long from) {
        // Mostly it is near: more is looked at once only where it is not.
        byte[] block = new byte[1 << 10];
        byte first = (byte) text.charAt(0);
        for (long start = from; start + text.length() <= bytes.byteSize(); ) {
            if (start > from && block.length < 1 << 16) {
                block = new byte[1 << 16];
            }
            int n = (int) Math.min(block.length, bytes.byteSize() - start);
            MemorySegment.copy(bytes, ValueLayout.JAVA_BYTE, start, block, 0, n);
            for (int i = 0; i + text.length() <= n; i++) {
                int k = block[i] == first ? 1 : 0;
                while (k > 0 && k < text.length() && block[i + k] == text.charAt(k)) {
                    k++;
                }
                if (k == text.length()) {
                    return start + i;
                }
            }
            // What begins in the last bytes may go on in the next block.
            start += n - text.length() + 1;
        }
        return -1;
    }

    /** The first bytes of a mapped file as a stream. */
    private static final class SegmentStream extends InputStream {
        private final MemorySegment bytes;
        private final long end;
        private long at;

        SegmentStream(MemorySegment bytes, long end) {
            this.bytes = bytes;
            this.end = end;
        }

        @Override
        public int read() {
            return at < end ? bytes.get(ValueLayout.JAVA_BYTE, at++) & 0xff : -1;
        }

        @Override
        public int read(byte[] out, int offset, int length) {
            if (at >= end) {
                return -1;
            }
            int n = (int) Math.min(length, end - at);
            MemorySegment.copy(bytes, ValueLayout.JAVA_BYTE, at, out, offset, n);
            at += n;
            return n;
        }
    }
}
