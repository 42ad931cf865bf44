package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Legacy files as programs of several ages write them, made up at random: old and new lists of cells, text and binary, arrays
 * in any order and of any kind. */
class RandomLegacyTest {
    @TempDir
    Path folder;

    private static final CellShape[] SHAPES = {
        CellShape.TETRAHEDRON, CellShape.HEXAHEDRON, CellShape.WEDGE, CellShape.PYRAMID, CellShape.VOXEL
    };

    private record Array(String name, Field.At at, int components, String type, double[] values) {}

    /** Writes numbers as text or in binary. */
    private static final class Out {
        private final boolean binary;
        private final Random random;
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        private final DataOutputStream data = new DataOutputStream(bytes);

        Out(boolean binary, Random random) {
            this.binary = binary;
            this.random = random;
        }

        Out line(String text) throws IOException {
            data.write((text + "\n").getBytes(StandardCharsets.UTF_8));
            return this;
        }

        Out numbers(String type, double... values) throws IOException {
            for (double v : values) {
                if (!binary) {
                    boolean whole = !type.equals("float") && !type.equals("double");
                    String text = whole
                            ? String.valueOf((long) v)
                            : type.equals("float") ? String.valueOf((float) v) : String.valueOf(v);
                    // Lines break anywhere.
                    data.write((text + (random.nextInt(7) == 0 ? "\n" : " ")).getBytes(StandardCharsets.US_ASCII));
                    continue;
                }
                switch (type) {
                    case "float" -> data.writeFloat((float) v);
                    case "double" -> data.writeDouble(v);
                    case "unsigned_char" -> data.writeByte((int) v);
                    case "int" -> data.writeInt((int) v);
                    default -> data.writeLong((long) v);
                }
            }
            return line("");
        }
    }

    private static double[] doubles(int[] v) {
        return java.util.Arrays.stream(v).asDoubleStream().toArray();
    }

    private static void cells(Out out, Mesh mesh, boolean old, Random random) throws IOException {
        int n = mesh.cellCount();
        if (old) {
            out.line("CELLS " + n + " " + (n + mesh.nodes().length));
            double[] list = new double[n + mesh.nodes().length];
            int at = 0;
            for (int c = 0; c < n; c++) {
                list[at++] = mesh.size(c);
                for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                    list[at++] = mesh.nodes()[k];
                }
            }
            out.numbers("int", list);
        } else {
            String type = random.nextBoolean() ? "vtktypeint64" : "vtktypeint32";
            String each = type.endsWith("64") ? "long" : "int";
            out.line("CELLS " + (n + 1) + " " + mesh.nodes().length).line("OFFSETS " + type);
            double[] offsets = new double[n + 1];
            for (int c = 0; c < n; c++) {
                offsets[c + 1] = mesh.begin(c) + mesh.size(c);
            }
            out.numbers(each, offsets).line("CONNECTIVITY " + type).numbers(each, doubles(mesh.nodes()));
        }
        out.line("CELL_TYPES " + n);
        double[] codes = new double[n];
        for (int c = 0; c < n; c++) {
            codes[c] = mesh.shape(c).code();
        }
        out.numbers("int", codes);
    }

    private static List<Array> arrays(Mesh mesh, Random random) {
        List<Array> out = new ArrayList<>();
        String[] types = {"float", "double", "int", "unsigned_char", "long"};
        for (int i = 0; i < 1 + random.nextInt(5); i++) {
            Field.At at = random.nextBoolean() ? Field.At.NODE : Field.At.CELL;
            int components = new int[] {1, 1, 3, 9}[random.nextInt(4)];
            String type = components == 1 ? types[random.nextInt(5)] : types[random.nextInt(2)];
            double[] v = new double[components * (at == Field.At.NODE ? mesh.nodeCount() : mesh.cellCount())];
            for (int k = 0; k < v.length; k++) {
                v[k] = switch (type) {
                    case "float" -> (float) random.nextGaussian();
                    case "double" -> random.nextGaussian() * 1e5;
                    case "unsigned_char" -> random.nextInt(256);
                    default -> random.nextInt(2_000_000) - 1_000_000;
                };
            }
            out.add(new Array("field_" + i, at, components, type, v));
        }
        return out;
    }

    private static void write(Out out, List<Array> all, Field.At at, int count, Random random) throws IOException {
        List<Array> own = all.stream().filter(a -> a.at == at).toList();
        if (own.isEmpty()) {
            return;
        }
        out.line((at == Field.At.NODE ? "POINT_DATA " : "CELL_DATA ") + count);
        List<Array> listed = new ArrayList<>();
        for (Array a : own) {
            if (a.components == 1 && random.nextBoolean()) {
                out.line("SCALARS " + a.name + " " + a.type + (random.nextBoolean() ? " 1" : ""))
                        .line("LOOKUP_TABLE default")
                        .numbers(a.type, a.values);
            } else if (a.components == 3 && random.nextBoolean()) {
                out.line((random.nextBoolean() ? "VECTORS " : "NORMALS ") + a.name + " " + a.type)
                        .numbers(a.type, a.values);
            } else if (a.components == 9 && random.nextBoolean()) {
                out.line("TENSORS " + a.name + " " + a.type).numbers(a.type, a.values);
            } else {
                listed.add(a);
            }
        }
        if (!listed.isEmpty()) {
            out.line("FIELD more " + listed.size());
            for (Array a : listed) {
                out.line(a.name + " " + a.components + " " + count + " " + a.type)
                        .numbers(a.type, a.values);
            }
        }
    }

    @Test
    void whateverProgramWroteIt() throws IOException {
        var random = new Random(17);
        for (int trial = 0; trial < 200; trial++) {
            CellShape shape = SHAPES[random.nextInt(SHAPES.length)];
            Mesh mesh = BoxMesh.of(
                    shape,
                    new int[] {1 + random.nextInt(2), 1 + random.nextInt(2), 1 + random.nextInt(3)},
                    new double[] {1, 2, 0.5},
                    0.1,
                    trial);
            boolean binary = random.nextBoolean();
            boolean old = random.nextBoolean();
            var out = new Out(binary, random);
            out.line("# vtk DataFile Version " + (old ? "3.0" : "5.1"))
                    .line("a box of " + shape.word())
                    .line(binary ? "BINARY" : "ASCII")
                    .line("DATASET UNSTRUCTURED_GRID")
                    .line("POINTS " + mesh.nodeCount() + " double")
                    .numbers("double", mesh.xyz());
            cells(out, mesh, old, random);
            List<Array> arrays = arrays(mesh, random);
            boolean first = random.nextBoolean();
            write(
                    out,
                    arrays,
                    first ? Field.At.NODE : Field.At.CELL,
                    first ? mesh.nodeCount() : mesh.cellCount(),
                    random);
            write(
                    out,
                    arrays,
                    first ? Field.At.CELL : Field.At.NODE,
                    first ? mesh.cellCount() : mesh.nodeCount(),
                    random);
            Path file = Files.write(folder.resolve("t" + trial + ".vtk"), out.bytes.toByteArray());
            Dataset d = DatasetReader.read(file, TimeSelector.LAST, Work.QUIET);
            String what =
                    "trial " + trial + ", " + shape + (binary ? ", binary" : ", text") + (old ? ", old" : ", new");
            assertThat(d.mesh().xyz()).as(what).containsExactly(mesh.xyz());
            assertThat(d.mesh().nodes()).as(what).containsExactly(mesh.nodes());
            for (int c = 0; c < mesh.cellCount(); c++) {
                assertThat(d.mesh().shape(c)).as(what).isEqualTo(shape);
            }
            for (Array a : arrays) {
                Field f = d.fields().stream()
                        .filter(g -> g.name().equals(a.name))
                        .findFirst()
                        .orElseThrow(() -> new AssertionError(what + " lost " + a.name));
                assertThat(f.at()).as(what).isEqualTo(a.at);
                assertThat(f.components()).as(what).isEqualTo(a.components);
                for (int i = 0; i < a.values.length; i++) {
                    assertThat(f.values().get(i))
                            .as("%s, %s at %d", what, a.name, i)
                            .isEqualTo(a.values[i]);
                }
            }
            assertThat(d.fields()).as(what).hasSize(arrays.size());
        }
    }
}
