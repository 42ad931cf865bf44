package lane.formats.vtk;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.zip.Deflater;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.Values;
import lane.formats.io.AtomicFile;
import lane.formats.io.XmlText;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/** Writes {@code .vtu} and {@code .vtp} files in every encoding of the format; appended raw with zlib by default. */
public final class VtkXmlWriter {
    /** How numbers are written. */
    public enum Encoding {
        ASCII("ascii"),
        INLINE("binary"),
        APPENDED_BASE64("appended"),
        APPENDED_RAW("appended");

        final String format;

        Encoding(String format) {
            this.format = format;
        }
    }

    /** @param wideHeader sizes as 64-bit numbers */
    public record Options(Encoding encoding, boolean zlib, ByteOrder order, boolean wideHeader) {
        public static final Options DEFAULT = new Options(Encoding.APPENDED_RAW, true, ByteOrder.LITTLE_ENDIAN, true);

        /** Read quickest, at the price of larger files. */
        public static final Options UNPACKED = new Options(Encoding.APPENDED_RAW, false, ByteOrder.LITTLE_ENDIAN, true);
    }

    private static final int BLOCK = 1 << 15;

    private final Options options;
    private final StringBuilder xml = new StringBuilder();
    private final ByteArrayOutputStream appended = new ByteArrayOutputStream();

    private VtkXmlWriter(Options options) {
        this.options = options;
    }

    /** Writes an unstructured mesh with its fields. */
    public static void writeGrid(Path file, Mesh mesh, List<Field> fields, Options options) {
        new VtkXmlWriter(options).write(file, mesh, fields, true);
    }

    /**
     * Writes a surface of triangles, quads and polygons with its fields.
     *
     * @throws LaneException when a cell is no polygon
     */
    public static void writeSurface(Path file, Mesh mesh, List<Field> fields, Options options) {
        new VtkXmlWriter(options).write(file, mesh, fields, false);
    }

    private void write(Path file, Mesh mesh, List<Field> fields, boolean grid) {
        String type = grid ? "UnstructuredGrid" : "PolyData";
        // The boundary of a plane run is made of lines.
        boolean lines = !grid && mesh.dimension() == 1;
        String section = grid ? "Cells" : lines ? "Lines" : "Polys";
        xml.append("<?xml version=\"1.0\"?>\n<VTKFile type=\"")
                .append(type)
                .append("\" version=\"1.0\" byte_order=\"")
                .append(options.order == ByteOrder.LITTLE_ENDIAN ? "LittleEndian" : "BigEndian")
                .append("\" header_type=\"")
                .append(options.wideHeader ? "UInt64" : "UInt32")
                .append('"')
                .append(options.zlib ? " compressor=\"vtkZLibDataCompressor\"" : "")
                .append(">\n<")
                .append(type)
                .append(">\n<Piece NumberOfPoints=\"")
                .append(mesh.nodeCount());
        xml.append("\" NumberOf")
                .append(section)
                .append("=\"")
                .append(mesh.cellCount())
                .append("\">\n");
        section(
                "PointData",
                fields.stream().filter(f -> f.at() == Field.At.NODE).toList());
        section("CellData", fields.stream().filter(f -> f.at() == Field.At.CELL).toList());
        xml.append("<Points>\n");
        array("Points", "Float64", 3, Values.of(mesh.xyz()));
        xml.append("</Points>\n<").append(section).append(">\n");
        cells(mesh, grid, lines ? 1 : 2);
        xml.append("</").append(section).append(">\n</Piece>\n</").append(type).append(">\n");
        AtomicFile.write(file, out -> {
            out.write(xml.toString().getBytes(StandardCharsets.UTF_8));
            if (options.encoding.format.equals("appended")) {
                boolean raw = options.encoding == Encoding.APPENDED_RAW;
                ascii(out, "<AppendedData encoding=\"" + (raw ? "raw" : "base64") + "\">\n_");
                appended.writeTo(out);
                ascii(out, "\n</AppendedData>\n");
            }
            ascii(out, "</VTKFile>\n");
        });
    }

    private static void ascii(OutputStream out, String text) throws IOException {
        out.write(text.getBytes(StandardCharsets.US_ASCII));
    }

    private void section(String name, List<Field> fields) {
        xml.append('<').append(name).append(">\n");
        for (Field f : fields) {
            String type = f.values() instanceof Values.Floats
                    ? "Float32"
                    : f.values() instanceof Values.Ints ? "Int32" : "Float64";
            array(f.name(), type, f.components(), f.values());
        }
        xml.append("</").append(name).append(">\n");
    }

    private void cells(Mesh mesh, boolean grid, int dimension) {
        int n = mesh.cellCount();
        int[] ends = new int[n];
        int[] types = new int[n];
        for (int c = 0; c < n; c++) {
            ends[c] = mesh.begin(c) + mesh.size(c);
            types[c] = mesh.shape(c).code();
            if (!grid && mesh.shape(c).dimension() != dimension || !grid && mesh.shape(c) == CellShape.PIXEL) {
                throw new LaneException("Cell " + c + " is a " + mesh.shape(c).word()
                        + "; a surface file holds triangles, quads and polygons, or lines alone.");
            }
        }
        array("connectivity", "Int32", 1, new Values.Ints(mesh.nodes()));
        array("offsets", "Int32", 1, new Values.Ints(ends));
        if (grid) {
            array("types", "UInt8", 1, new Values.Ints(types));
        }
        if (grid && mesh.hasPolyhedra()) {
            int[] faceEnds = new int[n];
            for (int c = 0; c < n; c++) {
                faceEnds[c] = mesh.shape(c) == CellShape.POLYHEDRON ? mesh.faceEnd(c) : -1;
            }
            array("faces", "Int64", 1, new Values.Ints(mesh.faceStream()));
            array("faceoffsets", "Int64", 1, new Values.Ints(faceEnds));
        }
    }

    private void array(String name, String type, int components, Values values) {
        xml.append("<DataArray type=\"")
                .append(type)
                .append("\" Name=\"")
                .append(escape(name))
                .append("\" NumberOfComponents=\"")
                .append(components)
                .append("\" format=\"")
                .append(options.encoding.format)
                .append('"');
        if (options.encoding == Encoding.ASCII) {
            xml.append(">\n");
            for (int i = 0; i < values.length(); i++) {
                xml.append(text(values, i)).append(i % 12 == 11 ? '\n' : ' ');
            }
            xml.append("\n</DataArray>\n");
            return;
        }
        byte[] data = bytes(values, type);
        if (options.encoding == Encoding.INLINE) {
            xml.append(">\n")
                    .append(new String(base64(data), StandardCharsets.US_ASCII))
                    .append("\n</DataArray>\n");
        } else {
            xml.append(" offset=\"").append(appended.size()).append("\"/>\n");
            if (options.encoding == Encoding.APPENDED_RAW) {
                for (byte[] part : parts(data)) {
                    appended.writeBytes(part);
                }
            } else {
                appended.writeBytes(base64(data));
            }
        }
    }

    private static String text(Values values, int i) {
        return switch (values.now()) {
            case Values.Ints v -> String.valueOf(v.array()[i]);
            case Values.Floats v -> String.valueOf(v.array()[i]);
            case Values.Doubles v -> String.valueOf(v.array()[i]);
        };
    }

    private static String escape(String name) {
        return XmlText.of(name);
    }

    private byte[] bytes(Values values, String type) {
        int width =
                switch (type) {
                    case "Float64", "Int64" -> 8;
                    case "UInt8" -> 1;
                    default -> 4;
                };
        ByteBuffer out =
                ByteBuffer.allocate(Math.multiplyExact(width, values.length())).order(options.order);
        IntConsumer put =
                switch (type) {
                    case "Float64" -> i -> out.putDouble(values.get(i));
                    case "Float32" -> i -> out.putFloat((float) values.get(i));
                    case "Int64" -> i -> out.putLong((long) values.get(i));
                    case "UInt8" -> i -> out.put((byte) values.get(i));
                    default -> i -> out.putInt((int) values.get(i));
                };
        int n = values.length();
        for (int i = 0; i < n; i++) {
            put.accept(i);
        }
        return out.array();
    }

    private byte[] base64(byte[] data) {
        var out = new ByteArrayOutputStream();
        for (byte[] part : parts(data)) {
            out.writeBytes(Base64.getEncoder().encode(part));
        }
        return out.toByteArray();
    }

    /** The pieces that are encoded apart: one of size and data, or the block sizes and the packed blocks. */
    @SuppressWarnings("ByteBufferBackingArray")
    private List<byte[]> parts(byte[] data) {
        if (!options.zlib) {
            ByteBuffer all = header(1, data.length);
            put(all, data.length);
            all.put(data);
            return List.of(all.array());
        }
        List<byte[]> blocks = new ArrayList<>();
        int total = 0;
        for (int at = 0; at < data.length; at += BLOCK) {
            byte[] packed = deflate(data, at, Math.min(BLOCK, data.length - at));
            blocks.add(packed);
            total += packed.length;
        }
        ByteBuffer header = header(3 + blocks.size(), 0);
        put(header, blocks.size());
        put(header, BLOCK);
        put(header, data.length % BLOCK);
        blocks.forEach(b -> put(header, b.length));
        ByteBuffer body = ByteBuffer.allocate(total);
        blocks.forEach(body::put);
        return List.of(header.array(), body.array());
    }

    private ByteBuffer header(int numbers, int more) {
        return ByteBuffer.allocate(numbers * (options.wideHeader ? 8 : 4) + more)
                .order(options.order);
    }

    private void put(ByteBuffer out, long v) {
        if (options.wideHeader) {
            out.putLong(v);
        } else {
            out.putInt((int) v);
        }
    }

    private static byte[] deflate(byte[] data, int from, int length) {
        var deflater = new Deflater(Deflater.DEFAULT_COMPRESSION);
        try {
            deflater.setInput(data, from, length);
            deflater.finish();
            byte[] out = new byte[length + 64 + length / 1000];
            int n = 0;
            while (!deflater.finished()) {
                n += deflater.deflate(out, n, out.length - n);
            }
            return java.util.Arrays.copyOf(out, n);
        } finally {
            deflater.end();
        }
    }
}
