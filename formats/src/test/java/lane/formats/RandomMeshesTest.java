package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.hdf.XdmfWriter;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Meshes of cells of all shapes with fields of all kinds, made up at random: what is written is read back to the bit. */
class RandomMeshesTest {
    @TempDir
    Path folder;

    private static final CellShape[] SHAPES = {
        CellShape.TETRAHEDRON,
        CellShape.HEXAHEDRON,
        CellShape.WEDGE,
        CellShape.PYRAMID,
        CellShape.HEXAHEDRON20,
        CellShape.TETRAHEDRON10,
        CellShape.VOXEL
    };

    /** Boxes of several shapes, apart from each other, cells in any order, as one mesh. */
    private static Mesh mesh(Random random, boolean voxels) {
        List<Mesh> boxes = new ArrayList<>();
        for (int i = 0; i < 1 + random.nextInt(3); i++) {
            CellShape shape = SHAPES[random.nextInt(SHAPES.length - (voxels ? 0 : 1))];
            int[] n = {1 + random.nextInt(2), 1 + random.nextInt(2), 1 + random.nextInt(2)};
            boxes.add(BoxMesh.of(shape, n, new double[] {1, 1, 1}, 0.1, random.nextLong()));
        }
        int points = boxes.stream().mapToInt(Mesh::nodeCount).sum();
        double[] xyz = new double[3 * points];
        List<int[]> cells = new ArrayList<>();
        List<CellShape> shapes = new ArrayList<>();
        int at = 0;
        for (Mesh box : boxes) {
            for (int i = 0; i < 3 * box.nodeCount(); i++) {
                xyz[3 * at + i] = box.xyz()[i] + (i % 3 == 0 ? 2.0 * at : 0);
            }
            for (int c = 0; c < box.cellCount(); c++) {
                int first = at;
                cells.add(Arrays.stream(box.nodes(), box.begin(c), box.begin(c) + box.size(c))
                        .map(v -> v + first)
                        .toArray());
                shapes.add(box.shape(c));
            }
            at += box.nodeCount();
        }
        for (int i = cells.size() - 1; i > 0; i--) {
            int k = random.nextInt(i + 1);
            java.util.Collections.swap(cells, i, k);
            java.util.Collections.swap(shapes, i, k);
        }
        byte[] kinds = new byte[cells.size()];
        int[] offsets = new int[cells.size() + 1];
        for (int c = 0; c < kinds.length; c++) {
            kinds[c] = (byte) shapes.get(c).ordinal();
            offsets[c + 1] = offsets[c] + cells.get(c).length;
        }
        return new Mesh(
                xyz, kinds, offsets, cells.stream().flatMapToInt(Arrays::stream).toArray());
    }

    private static final String[] NAMES = {
        "humidity", "T [degC]", "u & v", "a <b>", "\"quoted\"", "Größe µ", "濃度", "x", "with  two blanks", "tab\tin it"
    };

    private static List<Field> fields(Mesh mesh, Random random) {
        List<Field> out = new ArrayList<>();
        int first = random.nextInt(NAMES.length);
        for (int f = 0; f < 1 + random.nextInt(5); f++) {
            Field.At at = random.nextBoolean() ? Field.At.NODE : Field.At.CELL;
            int components = new int[] {1, 1, 3, 9, 2}[random.nextInt(5)];
            int n = components * (at == Field.At.NODE ? mesh.nodeCount() : mesh.cellCount());
            Values values =
                    switch (random.nextInt(3)) {
                        case 0 -> {
                            double[] v = random.doubles(n, -1e9, 1e9).toArray();
                            special(v, random);
                            yield new Values.Doubles(v);
                        }
                        case 1 -> {
                            float[] v = new float[n];
                            for (int i = 0; i < n; i++) {
                                v[i] = (float) (random.nextGaussian() * Math.pow(10, random.nextInt(60) - 30));
                            }
                            yield new Values.Floats(v);
                        }
                        default -> new Values.Ints(random.ints(n).toArray());
                    };
            out.add(new Field(NAMES[(first + f) % NAMES.length], at, components, Unit.UNKNOWN, values));
        }
        return out;
    }

    /** What stands at the edges of a double. */
    private static void special(double[] v, Random random) {
        double[] edges = {
            Double.NaN,
            Double.POSITIVE_INFINITY,
            Double.NEGATIVE_INFINITY,
            -0.0,
            Double.MIN_VALUE,
            Double.MAX_VALUE,
            0.1 + 0.2
        };
        for (double e : edges) {
            v[random.nextInt(v.length)] = e;
        }
    }

    private static void same(Mesh mesh, List<Field> fields, Dataset read, String what) {
        assertThat(read.mesh().xyz()).as(what).containsExactly(mesh.xyz());
        assertThat(read.mesh().cellCount()).as(what).isEqualTo(mesh.cellCount());
        for (int c = 0; c < mesh.cellCount(); c++) {
            assertThat(read.mesh().shape(c)).as("%s, cell %d", what, c).isEqualTo(mesh.shape(c));
            assertThat(cell(read.mesh(), c)).as("%s, cell %d", what, c).containsExactly(cell(mesh, c));
        }
        assertThat(read.fields().stream().map(Field::name).sorted().toList())
                .as(what)
                .isEqualTo(fields.stream().map(Field::name).sorted().toList());
        for (Field f : fields) {
            Field g = read.fields().stream()
                    .filter(o -> o.name().equals(f.name()))
                    .findFirst()
                    .orElseThrow();
            String which = what + ", " + f.name();
            assertThat(g.at()).as(which).isEqualTo(f.at());
            assertThat(g.components()).as(which).isEqualTo(f.components());
            assertThat(g.values().now()).as(which).hasSameClassAs(f.values());
            for (int i = 0; i < f.values().length(); i++) {
                assertThat(Double.doubleToLongBits(g.values().get(i)))
                        .as("%s at %d", which, i)
                        .isEqualTo(Double.doubleToLongBits(f.values().get(i)));
            }
        }
    }

    private static int[] cell(Mesh mesh, int c) {
        return Arrays.copyOfRange(mesh.nodes(), mesh.begin(c), mesh.begin(c) + mesh.size(c));
    }

    @Test
    void whatIsWrittenIsReadBackToTheBit() throws IOException {
        var random = new Random(12);
        for (int trial = 0; trial < 120; trial++) {
            // XDMF has no voxels.
            boolean both = trial % 4 == 0;
            Mesh mesh = mesh(random, !both);
            List<Field> fields = fields(mesh, random);
            var encoding = VtkXmlWriter.Encoding.values()[random.nextInt(VtkXmlWriter.Encoding.values().length)];
            var options = new VtkXmlWriter.Options(
                    encoding,
                    random.nextBoolean() && encoding != VtkXmlWriter.Encoding.ASCII,
                    random.nextBoolean() ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN,
                    random.nextBoolean());
            Path file = folder.resolve("some " + trial + ".vtu");
            VtkXmlWriter.writeGrid(file, mesh, fields, options);
            same(mesh, fields, read(file), "trial " + trial + " as " + options);
            if (both) {
                Path other = folder.resolve("some " + trial + ".xdmf");
                XdmfWriter.write(other, mesh, fields);
                same(mesh, fields, read(other), "trial " + trial + " as XDMF");
            }
        }
    }

    private static Dataset read(Path file) {
        return DatasetReader.read(file, TimeSelector.LAST, Work.QUIET);
    }
}
