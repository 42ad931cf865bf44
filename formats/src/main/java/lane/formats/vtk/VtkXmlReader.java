package lane.formats.vtk;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Nested;
import lane.formats.io.Budget;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FormatError;

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
        return read(file, TimeSelector.LAST, work, (other, w) -> {
            throw new FormatError("it refers to other files, which are not read here");
        });
    }

    /**
     * @param moment which time of a collection; a single file has only its own
     * @param nested reads the files that a collection refers to
     */
    public static Dataset read(Path file, TimeSelector moment, Work work, Nested nested) {
        return FileErrors.of(file, () -> {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
                    Arena arena = Arena.ofShared()) {
                return read(
                        channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), arena),
                        file,
                        moment,
                        work,
                        nested);
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            }
        });
    }

    private static Dataset read(MemorySegment bytes, Path file, TimeSelector moment, Work work, Nested nested) {
        XmlParts xml = parse(bytes, false, work);
        if (VtkSet.KINDS.contains(xml.fileType)) {
            return VtkSet.read(xml, file, moment, work, nested);
        }
        if (!GRIDS.contains(xml.fileType)) {
            throw new FormatError("it holds a \"" + xml.fileType + "\", which is not read; known are " + GRIDS + " and "
                    + VtkSet.KINDS);
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
                own.progress("Reading " + array.name, 0);
                appended(bytes, start, array, xml, own);
            }
        }
        Dataset made = new GridBuilder(xml).build();
        double time = time(xml);
        made = made.labelled(xml.labels());
        return Double.isNaN(time) ? made : made.at(List.of(time), time);
    }

    private static XmlParts parse(MemorySegment bytes, boolean headOnly, Work work) {
        long appended = find(bytes, "<AppendedData", 0);
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
                new Budget(bytes.byteSize()),
                work);
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
                XmlParts xml = parse(bytes, true, Work.QUIET);
                for (XmlParts.Array a : xml.fieldData) {
                    if (a.name.equals("TimeValue") && a.offset >= 0) {
                        appended(bytes, find(bytes, "_", xml.end), a, xml, Work.QUIET);
                    }
                }
                return time(xml);
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            }
        });
    }

    private static void appended(MemorySegment bytes, long start, XmlParts.Array array, XmlParts xml, Work work) {
        if (array.offset < 0 || array.text && !array.section.equals("FieldData")) {
            return;
        }
        work.poll();
        String what = "array \"" + array.name + "\"";
        if (start < 0 || array.offset > bytes.byteSize() - start - 1) {
            throw new FormatError(
                    what + " begins at byte " + array.offset + " of the appended data, which is beyond the file's end");
        }
        long from = start + 1 + array.offset;
        MemorySegment rest = bytes.asSlice(from, Math.min(bytes.byteSize() - from, Integer.MAX_VALUE - 16));
        array.numbers = new Numbers(array.type, what);
        ByteBuffer in = xml.appendedRaw ? rest.asByteBuffer() : base64(rest, array.offset, xml);
        new Payload(xml.order, xml.wideHeader, xml.packing, xml.budget, work)
                .decode(in, array.numbers, array.room, what);
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
        long last = bytes.byteSize() - text.length();
        byte first = (byte) text.charAt(0);
        for (long i = from; i <= last; i++) {
            if (bytes.get(ValueLayout.JAVA_BYTE, i) == first) {
                int k = 1;
                while (k < text.length() && bytes.get(ValueLayout.JAVA_BYTE, i + k) == text.charAt(k)) {
                    k++;
                }
                if (k == text.length()) {
                    return i;
                }
            }
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
