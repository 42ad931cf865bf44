package lane.formats.hdf;

import io.jhdf.HdfFile;
import io.jhdf.WritableHdfFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.Values;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.XmlText;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/** Writes a mesh with fields as XDMF 3: the description as XML, the numbers in an HDF5 file of the same name beside it. */
public final class XdmfWriter {
    private XdmfWriter() {}

    /**
     * The numbers' file is named by its content and is there before the description that names it, so an older description goes
     * with its own numbers until the moment it is replaced; then those go.
     */
    public static void write(Path file, Mesh mesh, List<Field> fields) {
        String stem = FileNames.stem(file.toString());
        Path half = file.resolveSibling(AtomicFile.temporary());
        int[] topology = topology(mesh);
        Path numbers;
        try {
            try (WritableHdfFile hdf = HdfFile.write(half)) {
                hdf.putDataset("xyz", rows(new Values.Doubles(mesh.xyz()), 3));
                hdf.putDataset("cells", topology);
                for (int i = 0; i < fields.size(); i++) {
                    Field f = fields.get(i);
                    Values values = f.components() == 6 ? Tensor6.turned(f.values()) : f.values();
                    hdf.putDataset("field" + i, rows(values, f.components()));
                }
            }
            String hash = FileHash.of(half, "").sha256().substring(0, 8);
            numbers = file.resolveSibling(stem + "-" + hash + ".h5");
            AtomicFile.force(half);
            Files.move(half, numbers, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException | io.jhdf.exceptions.HdfException e) {
            throw new LaneException(
                    "The numbers of " + file + " could not be written: " + e.getMessage()
                            + "; what stood there before is unchanged.",
                    e);
        } finally {
            half.toFile().delete();
        }
        Optional<Path> before = numbers(file, stem);
        AtomicFile.write(
                file,
                out -> out.write(text(numbers.getFileName().toString(), mesh, topology.length, fields)
                        .getBytes(StandardCharsets.UTF_8)));
        before.filter(b -> !b.equals(numbers)).ifPresent(b -> b.toFile().delete());
    }

    /** The numbers that a description written here names, which are no other's. */
    private static Optional<Path> numbers(Path file, String stem) {
        try {
            Matcher m = Pattern.compile(Pattern.quote(stem) + "-[0-9a-f]{8}\\.h5(?=:)")
                    .matcher(Files.exists(file) ? Files.readString(file) : "");
            return m.find() ? Optional.of(file.resolveSibling(m.group())) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /** One row an entry, as other programs expect of vectors; plain numbers in one row. */
    private static Object rows(Values values, int components) {
        int n = values.length() / components;
        switch (values.now()) {
            case Values.Doubles v -> {
                if (components == 1) {
                    return v.array();
                }
                double[][] out = new double[n][components];
                for (int i = 0; i < n; i++) {
                    System.arraycopy(v.array(), i * components, out[i], 0, components);
                }
                return out;
            }
            case Values.Floats v -> {
                if (components == 1) {
                    return v.array();
                }
                float[][] out = new float[n][components];
                for (int i = 0; i < n; i++) {
                    System.arraycopy(v.array(), i * components, out[i], 0, components);
                }
                return out;
            }
            case Values.Ints v -> {
                if (components == 1) {
                    return v.array();
                }
                int[][] out = new int[n][components];
                for (int i = 0; i < n; i++) {
                    System.arraycopy(v.array(), i * components, out[i], 0, components);
                }
                return out;
            }
        }
    }

    private static final int[] VOXEL = {0, 1, 3, 2, 4, 5, 7, 6};
    private static final int[] PIXEL = {0, 1, 3, 2};

    private static int code(CellShape shape) {
        return switch (shape) {
            case VERTEX -> 1;
            case LINE, POLYLINE -> 2;
            case POLYGON -> 3;
            case TRIANGLE -> 4;
            case QUAD, PIXEL -> 5;
            case TETRAHEDRON -> 6;
            case PYRAMID -> 7;
            case WEDGE -> 8;
            case HEXAHEDRON, VOXEL -> 9;
            case POLYHEDRON -> 16;
            case LINE3 -> 34;
            case QUAD9 -> 35;
            case TRIANGLE6 -> 36;
            case QUAD8 -> 37;
            case TETRAHEDRON10 -> 38;
            case PYRAMID13 -> 39;
            case WEDGE15 -> 40;
            case WEDGE18 -> 41;
            case HEXAHEDRON20 -> 48;
            case HEXAHEDRON27 -> 50;
        };
    }

    /** Each cell's kind, where it is not fixed its number of nodes, and its nodes; of a polyhedron its faces. */
    private static int[] topology(Mesh mesh) {
        int[] out = new int[2 * mesh.cellCount() + mesh.nodes().length + mesh.faceStream().length];
        int at = 0;
        for (int c = 0; c < mesh.cellCount(); c++) {
            CellShape shape = mesh.shape(c);
            out[at++] = code(shape);
            if (shape == CellShape.POLYHEDRON) {
                int from = mesh.faceBegin(c);
                int n = mesh.faceEnd(c) - from;
                System.arraycopy(mesh.faceStream(), from, out, at, n);
                at += n;
                continue;
            }
            if (code(shape) <= 3) {
                out[at++] = mesh.size(c);
            }
            int[] order = shape == CellShape.VOXEL ? VOXEL : shape == CellShape.PIXEL ? PIXEL : null;
            for (int k = 0; k < mesh.size(c); k++) {
                out[at++] = mesh.nodes()[mesh.begin(c) + (order == null ? k : order[k])];
            }
        }
        return java.util.Arrays.copyOf(out, at);
    }

    private static String text(String numbers, Mesh mesh, int topology, List<Field> fields) {
        var out = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<Xdmf Version=\"3.0\"><Domain>\n"
                + "<Grid Name=\"run\" GridType=\"Uniform\">\n");
        out.append("<Topology TopologyType=\"Mixed\" NumberOfElements=\"")
                .append(mesh.cellCount())
                .append("\">\n");
        item(out, "Int", 4, String.valueOf(topology), numbers, "cells");
        out.append("</Topology>\n<Geometry GeometryType=\"XYZ\">\n");
        item(out, "Float", 8, mesh.nodeCount() + " 3", numbers, "xyz");
        out.append("</Geometry>\n");
        for (int i = 0; i < fields.size(); i++) {
            Field f = fields.get(i);
            int c = f.components();
            out.append("<Attribute Name=\"")
                    .append(XmlText.of(f.name()))
                    .append("\" AttributeType=\"")
                    .append(c == 1 ? "Scalar" : c == 3 ? "Vector" : c == 6 ? "Tensor6" : c == 9 ? "Tensor" : "Matrix")
                    .append("\" Center=\"")
                    .append(f.at() == Field.At.NODE ? "Node" : "Cell")
                    .append("\">\n");
            boolean whole = f.values() instanceof Values.Ints;
            int bytes = f.values() instanceof Values.Doubles ? 8 : 4;
            item(out, whole ? "Int" : "Float", bytes, f.size() + (c == 1 ? "" : " " + c), numbers, "field" + i);
            out.append("</Attribute>\n");
        }
        return out.append("</Grid>\n</Domain></Xdmf>\n").toString();
    }

    private static void item(StringBuilder out, String type, int bytes, String size, String file, String name) {
        out.append("<DataItem Format=\"HDF\" NumberType=\"")
                .append(type)
                .append("\" Precision=\"")
                .append(bytes)
                .append("\" Dimensions=\"")
                .append(size)
                .append("\">")
                .append(XmlText.of(file))
                .append(":/")
                .append(name)
                .append("</DataItem>\n");
    }
}
