package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.vtk.VtkXmlReader;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Encoding;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Reader against writer in all encodings, files written by hand, damaged and hostile files. */
class VtkXmlTest {
    @TempDir
    Path folder;

    static Stream<Options> options() {
        List<Options> all = new ArrayList<>();
        for (Encoding e : Encoding.values()) {
            for (boolean zlib : new boolean[] {false, true}) {
                for (ByteOrder order : new ByteOrder[] {ByteOrder.LITTLE_ENDIAN, ByteOrder.BIG_ENDIAN}) {
                    all.add(new Options(e, zlib, order, true));
                    all.add(new Options(e, zlib, order, false));
                }
            }
        }
        return all.stream();
    }

    private static List<Field> fields(Mesh mesh) {
        var random = new Random(1);
        float[] f = new float[3 * mesh.nodeCount()];
        for (int i = 0; i < f.length; i++) {
            f[i] = random.nextFloat() - 0.5f;
        }
        f[4] = Float.NaN;
        f[5] = Float.NEGATIVE_INFINITY;
        return List.of(
                new Field("velocity", Field.At.NODE, 3, Unit.of("m/s"), new Values.Floats(f)),
                new Field(
                        "p & \"q\" <Pa>",
                        Field.At.CELL,
                        1,
                        Unit.UNKNOWN,
                        Values.of(random.doubles(mesh.cellCount()).toArray())),
                new Field(
                        "region",
                        Field.At.CELL,
                        1,
                        Unit.ONE,
                        new Values.Ints(random.ints(mesh.cellCount(), -5, 5).toArray())));
    }

    private static void same(Dataset grid, Mesh mesh, List<Field> fields) {
        assertThat(grid.mesh().xyz()).isEqualTo(mesh.xyz());
        assertThat(grid.mesh().nodes()).isEqualTo(mesh.nodes());
        for (int c = 0; c < mesh.cellCount(); c++) {
            assertThat(grid.mesh().shape(c)).isEqualTo(mesh.shape(c));
        }
        assertThat(grid.fields()).hasSize(fields.size());
        for (int i = 0; i < fields.size(); i++) {
            Field read = grid.fields().get(i);
            Field wrote = fields.get(i);
            assertThat(read.name()).isEqualTo(wrote.name());
            assertThat(read.at()).isEqualTo(wrote.at());
            assertThat(read.components()).isEqualTo(wrote.components());
            switch (wrote.values().now()) {
                case Values.Floats f ->
                    assertThat(((Values.Floats) read.values()).array()).isEqualTo(f.array());
                case Values.Doubles d ->
                    assertThat(((Values.Doubles) read.values()).array()).isEqualTo(d.array());
                case Values.Ints n ->
                    assertThat(((Values.Ints) read.values()).array()).isEqualTo(n.array());
            }
        }
    }

    @ParameterizedTest
    @MethodSource("options")
    void whatIsWrittenIsReadAgainBitForBit(Options options) {
        // Large enough for several compressed blocks.
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {9, 8, 12}, new double[] {1, 2, 3}, 0.2, 3);
        List<Field> fields = fields(mesh);
        Path file = folder.resolve("a.vtu");
        VtkXmlWriter.writeGrid(file, mesh, fields, options);
        same(VtkXmlReader.read(file, Work.QUIET), mesh, fields);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void everyShapeSurvives(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {2, 2, 2}, new double[] {1, 2, 3}, 0.1, 3);
        VtkXmlWriter.writeGrid(folder.resolve("a.vtu"), mesh, List.of(), Options.DEFAULT);
        Mesh read = VtkXmlReader.read(folder.resolve("a.vtu"), Work.QUIET).mesh();
        assertThat(read.faceStream()).isEqualTo(mesh.faceStream());
        assertThat(read.nodes()).isEqualTo(mesh.nodes());
    }

    private Path write(String text) throws Exception {
        Path file = folder.resolve("hand.vtu");
        Files.writeString(file, text, StandardCharsets.ISO_8859_1);
        return file;
    }

    private static String grid(String inside) {
        return "<?xml version=\"1.0\"?>\n<VTKFile type=\"UnstructuredGrid\" version=\"0.1\" byte_order=\"LittleEndian\">\n"
                + "<UnstructuredGrid>" + inside + "</UnstructuredGrid></VTKFile>";
    }

    private static String piece(String types, String fields) {
        return "<Piece NumberOfPoints=\"4\" NumberOfCells=\"1\"><Points><DataArray type=\"Float32\" NumberOfComponents=\"3\" format=\"ascii\">"
                + "0 0 0 1 0 0\n0 1 0 0 0 1</DataArray></Points><Cells>"
                + "<DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3</DataArray>"
                + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">4</DataArray>"
                + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">" + types + "</DataArray></Cells>" + fields
                + "</Piece>";
    }

    @Test
    void allNumberTypesAndSeveralPieces() throws Exception {
        var arrays = new StringBuilder("<PointData>");
        for (String t : List.of(
                "Int8", "UInt8", "Int16", "UInt16", "Int32", "UInt32", "Int64", "UInt64", "Float32", "Float64")) {
            arrays.append("<DataArray type=\"")
                    .append(t)
                    .append("\" Name=\"")
                    .append(t)
                    .append("\" format=\"ascii\">1 2 3 ")
                    .append(
                            t.equals("UInt64")
                                    ? "18446744073709551615"
                                    : t.equals("UInt32") ? "4294967295" : t.startsWith("F") ? "nan" : "100")
                    .append("</DataArray>");
        }
        arrays.append("<DataArray type=\"String\" Name=\"note\" format=\"ascii\">72 105</DataArray></PointData>");
        var grid = VtkXmlReader.read(
                write(grid(piece("10", arrays.toString()) + piece("10", arrays.toString()))), Work.QUIET);
        // Both pieces stand at one place: their nodes become one.
        assertThat(grid.mesh().nodeCount()).isEqualTo(4);
        assertThat(grid.mesh().nodes()).containsExactly(0, 1, 2, 3, 0, 1, 2, 3);
        assertThat(grid.fields()).hasSize(10);
        assertThat(grid.fields().get(7).values().get(3)).isEqualTo(0x1p64);
        assertThat(grid.fields().get(5).values().get(3)).isEqualTo(4294967295.0);
        assertThat(grid.fields().get(9).values().get(3)).isNaN();
        assertThat(grid.remarks()).anyMatch(r -> r.contains("note"));
    }

    @Test
    void base64WithSizeAndDataEncodedApartIsReadToo() throws Exception {
        // Four bytes of size, padded, then eight bytes of data.
        String apart =
                "<PointData><DataArray type=\"UInt8\" Name=\"a\" format=\"binary\">BAAAAA==AQIDBA==</DataArray></PointData>";
        assertThat(VtkXmlReader.read(write(grid(piece("10", apart))), Work.QUIET)
                        .fields()
                        .getFirst()
                        .values()
                        .get(3))
                .isEqualTo(4);
        String together =
                "<PointData><DataArray type=\"UInt8\" Name=\"a\" format=\"binary\"> BAAAAAEC AwQ= </DataArray></PointData>";
        assertThat(VtkXmlReader.read(write(grid(piece("10", together))), Work.QUIET)
                        .fields()
                        .getFirst()
                        .values()
                        .get(3))
                .isEqualTo(4);
    }

    private void refused(String text, String... words) throws Exception {
        assertThatThrownBy(() -> VtkXmlReader.read(write(text), Work.QUIET))
                .as(text.substring(0, Math.min(200, text.length())))
                .isInstanceOf(LaneException.class)
                .message()
                .contains("hand.vtu")
                .contains(words)
                .hasSizeLessThan(400);
    }

    @Test
    void wrongFilesGetOneClearSentence() throws Exception {
        refused("", "XML");
        refused("hello", "XML");
        refused("<html></html>", "<html>");
        refused(grid(""), "no piece");
        refused(grid(piece("10", "")).replace("UnstructuredGrid", "ImageData"), "extent");
        refused(grid(piece("22", "")), "6-node triangle with 4 nodes");
        refused(grid(piece("55", "")), "type 55");
        refused(grid(piece("12", "")), "hexahedron with 4 nodes");
        refused(grid(piece("10", "").replace("0 1 2 3<", "0 1 2 9<")), "node 9");
        refused(grid(piece("10", "").replace("0 1 2 3<", "0 1 2 x<")), "\"x\"");
        refused(grid(piece("10", "").replace("0 1 0 0 0 1", "0 1 0 0 0")), "4 points");
        refused(grid(piece("10", "").replace("\"connectivity\"", "\"conn\"")), "connectivity");
        refused(grid(piece("10", "").replace("NumberOfCells=\"1\"", "NumberOfCells=\"-1\"")), "-1");
        refused(grid(piece("10", "").replace("NumberOfPoints=\"4\"", "NumberOfPoints=\"2000000000\"")), "points");
        refused(
                grid(
                        piece(
                                "10",
                                "<PointData><DataArray type=\"Float32\" Name=\"p\" format=\"ascii\">1 2 3</DataArray></PointData>")),
                "\"p\"",
                "4");
        refused(
                grid(piece("10", "")).replace("byte_order", "compressor=\"otherCompressor\" byte_order"),
                "only zlib, lz4 and lzma");
        refused("<!DOCTYPE a [<!ENTITY b \"c\">]>" + grid(piece("10", "")).substring(22), "");
        refused(
                grid(piece(
                                "10",
                                "<PointData><DataArray type=\"Float32\" Name=\"p\" format=\"appended\" offset=\"99\"/></PointData>"))
                        .replace("</VTKFile>", "<AppendedData encoding=\"raw\">_abc</AppendedData></VTKFile>"),
                "beyond");
        assertThatThrownBy(() -> VtkXmlReader.read(folder.resolve("none.vtu"), Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("does not exist");
        assertThatThrownBy(() -> VtkXmlReader.read(folder, Work.QUIET)).isInstanceOf(LaneException.class);
    }

    @Test
    void sizesThatAFileOnlyClaimsAreNotBelieved() throws Exception {
        String head = grid(piece(
                        "10",
                        "<PointData><DataArray type=\"Float64\" Name=\"p\" format=\"appended\" offset=\"0\"/></PointData>"))
                .replace("version=\"0.1\"", "version=\"1.0\" header_type=\"UInt64\"");
        byte[] huge = {(byte) 0xff, (byte) 0xff, (byte) 0xff, (byte) 0xff, (byte) 0xff, 0, 0, 0, 1, 2, 3};
        refused(
                head.replace(
                        "</VTKFile>",
                        "<AppendedData encoding=\"raw\">_" + new String(huge, StandardCharsets.ISO_8859_1)
                                + "</AppendedData></VTKFile>"),
                "bytes");
        String packed = head.replace("byte_order", "compressor=\"vtkZLibDataCompressor\" byte_order");
        byte[] blocks = new byte[40];
        Arrays.fill(blocks, 0, 6, (byte) 0x7f);
        refused(
                packed.replace(
                        "</VTKFile>",
                        "<AppendedData encoding=\"raw\">_" + new String(blocks, StandardCharsets.ISO_8859_1)
                                + "</AppendedData></VTKFile>"),
                "blocks");
        byte[] bomb = new byte[48];
        bomb[0] = 1;
        bomb[11] = 0x40;
        bomb[24] = 8;
        refused(
                packed.replace(
                        "</VTKFile>",
                        "<AppendedData encoding=\"raw\">_" + new String(bomb, StandardCharsets.ISO_8859_1)
                                + "</AppendedData></VTKFile>"),
                "has room for 4 numbers");
    }

    @ParameterizedTest
    @MethodSource("options")
    void aTruncatedOrDamagedFileIsRefusedOrReadAndNeverCrashes(Options options) throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 2, 3}, 0.2, 3);
        Path file = folder.resolve("whole.vtu");
        VtkXmlWriter.writeGrid(file, mesh, fields(mesh), options);
        byte[] whole = Files.readAllBytes(file);
        var random = new Random(7);
        int refused = 0;
        for (int k = 0; k < 60; k++) {
            byte[] bad = Arrays.copyOf(whole, k < 30 ? whole.length * k / 30 : whole.length);
            for (int m = 0; k >= 30 && m < 1 + k % 5; m++) {
                bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
            }
            Path damaged = folder.resolve("damaged.vtu");
            Files.write(damaged, bad);
            try {
                VtkXmlReader.read(damaged, Work.QUIET);
            } catch (LaneException e) {
                refused++;
                assertThat(e.getMessage()).contains("damaged.vtu").endsWith(".");
            }
        }
        assertThat(refused).isGreaterThanOrEqualTo(options.encoding() == Encoding.APPENDED_RAW ? 25 : 28);
    }

    /** Numbers of one array in two blocks, packed by hand. */
    private static String packed(String compressor, double... values) throws Exception {
        var plain = java.nio.ByteBuffer.allocate(8 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        for (double v : values) {
            plain.putDouble(v);
        }
        int first = 8 * (values.length / 2);
        byte[][] blocks = {
            Arrays.copyOf(plain.array(), first), Arrays.copyOfRange(plain.array(), first, plain.capacity())
        };
        var header = java.nio.ByteBuffer.allocate(20).order(ByteOrder.LITTLE_ENDIAN);
        header.putInt(2).putInt(first).putInt(blocks[1].length == first ? 0 : blocks[1].length);
        var body = new java.io.ByteArrayOutputStream();
        for (byte[] block : blocks) {
            byte[] small;
            if (compressor.equals("vtkLZ4DataCompressor")) {
                small = net.jpountz.lz4.LZ4Factory.safeInstance()
                        .fastCompressor()
                        .compress(block);
            } else {
                var out = new java.io.ByteArrayOutputStream();
                try (var xz = new org.tukaani.xz.XZOutputStream(out, new org.tukaani.xz.LZMA2Options(0))) {
                    xz.write(block);
                }
                small = out.toByteArray();
            }
            header.putInt(small.length);
            body.writeBytes(small);
        }
        var base64 = java.util.Base64.getEncoder();
        return base64.encodeToString(header.array()) + base64.encodeToString(body.toByteArray());
    }

    @ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(strings = {"vtkLZ4DataCompressor", "vtkLZMADataCompressor"})
    void lz4AndLzmaBlocksAreReadAndDamagedOnesRefused(String compressor) throws Exception {
        double[] values = {1, 2.5, -3, Double.MAX_VALUE};
        String good = packed(compressor, values);
        String text = "<PointData><DataArray type=\"Float64\" Name=\"a\" format=\"binary\">%s</DataArray></PointData>";
        String head = grid(piece("10", String.format(text, good)))
                .replace("byte_order", "compressor=\"" + compressor + "\" byte_order");
        var read =
                VtkXmlReader.read(write(head), Work.QUIET).fields().getFirst().values();
        for (int i = 0; i < values.length; i++) {
            assertThat(read.get(i)).isEqualTo(values[i]);
        }
        // The header stays, the blocks are cut off or full of nonsense.
        refused(head.replace(good, good.substring(0, 32)), "\"a\"");
        refused(head.replace(good, good.substring(0, 28) + "/".repeat(good.length() - 28)), "\"a\"");
    }

    @Test
    void aPackedArrayLargerThanItsPieceIsRefusedBeforeItIsUnpacked() throws Exception {
        // 64 MB of zeros pack to 64 kB, for a piece of four points.
        Mesh mesh = Mesh.uniform(
                new double[] {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1}, CellShape.TETRAHEDRON, new int[] {0, 1, 2, 3});
        Path file = folder.resolve("a.vtu");
        VtkXmlWriter.writeGrid(
                file,
                BoxMesh.of(CellShape.HEXAHEDRON, new int[] {40, 40, 40}, new double[] {1, 1, 1}, 0, 1),
                List.of(new Field("p", Field.At.NODE, 100, Unit.UNKNOWN, Values.of(new double[100 * 41 * 41 * 41]))),
                Options.DEFAULT);
        byte[] bytes = Files.readAllBytes(file);
        String head = new String(bytes, StandardCharsets.ISO_8859_1);
        byte[] bomb = head.replace("NumberOfPoints=\"68921\"", "NumberOfPoints=\"" + mesh.nodeCount() + "\"")
                .getBytes(StandardCharsets.ISO_8859_1);
        boolean refused = Fuzz.one(folder.resolve("bomb.vtu"), bomb, "bomb", f -> {
            try {
                VtkXmlReader.read(f, Work.QUIET);
            } catch (LaneException e) {
                assertThat(e.getMessage()).contains("room for");
                throw e;
            }
        });
        assertThat(refused).isTrue();
    }

    @Test
    void aFileWhoseSoundLookingCountsUnpackToFarMoreThanItHoldsIsRefused() throws Exception {
        // Nine fields of zeros, 1000 components each: 72 MB that pack to 80 kB.
        Mesh mesh = Mesh.uniform(new double[3 * 1000], CellShape.VERTEX, new int[] {0});
        List<Field> zeros = java.util.stream.IntStream.range(0, 9)
                .mapToObj(i -> new Field("p" + i, Field.At.NODE, 1000, Unit.UNKNOWN, Values.of(new double[1_000_000])))
                .toList();
        Path file = folder.resolve("a.vtu");
        VtkXmlWriter.writeGrid(file, mesh, zeros, Options.DEFAULT);
        assertThatThrownBy(() -> VtkXmlReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("unpacks to more than")
                .hasMessageContaining("without compression");
        VtkXmlWriter.writeGrid(file, mesh, zeros, Options.UNPACKED);
        assertThat(VtkXmlReader.read(file, Work.QUIET).fields()).hasSize(9);
    }

    private Dataset tensor(String names, int components, String numbers) throws Exception {
        Path file = folder.resolve("tensor.vtu");
        Files.writeString(
                file,
                "<VTKFile type=\"UnstructuredGrid\"><UnstructuredGrid><Piece NumberOfPoints=\"4\" NumberOfCells=\"1\"><CellData>"
                        + "<DataArray type=\"Float64\" Name=\"S\" NumberOfComponents=\"" + components + "\" " + names
                        + " format=\"ascii\">" + numbers + "</DataArray></CellData><Points>"
                        + "<DataArray type=\"Float64\" NumberOfComponents=\"3\" format=\"ascii\">0 0 0 1 0 0 0 1 0 0 0 1</DataArray></Points>"
                        + "<Cells><DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3</DataArray>"
                        + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">4</DataArray>"
                        + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">10</DataArray></Cells></Piece></UnstructuredGrid></VTKFile>");
        return VtkXmlReader.read(file, Work.QUIET);
    }

    private static double[] numbers(Dataset d) {
        double[] out = new double[d.fields().getFirst().values().length()];
        Arrays.setAll(out, d.fields().getFirst().values()::get);
        return out;
    }

    private static String named(String... names) {
        var out = new StringBuilder();
        for (int c = 0; c < names.length; c++) {
            out.append("ComponentName").append(c).append("=\"").append(names[c]).append("\" ");
        }
        return out.toString();
    }

    @Test
    void componentsOfTensorsStandWhereTheirNamesSay() throws Exception {
        // By rows: 11 is xx, 12 is xy and so on.
        Dataset rows = tensor(named("S_xx", "S_xy", "S_xz", "S_yy", "S_yz", "S_zz"), 6, "11 12 13 22 23 33");
        assertThat(numbers(rows)).containsExactly(11, 22, 33, 12, 23, 13);
        assertThat(rows.remarks()).anyMatch(r -> r.contains("read as xx, yy, zz, xy, yz, xz by their names"));
        // The lower half is the same tensor.
        assertThat(numbers(tensor(named("XX", "YX", "YY", "ZX", "ZY", "ZZ"), 6, "11 12 22 13 23 33")))
                .containsExactly(11, 22, 33, 12, 23, 13);
        Dataset usual = tensor(named("XX", "YY", "ZZ", "XY", "YZ", "XZ"), 6, "11 22 33 12 23 13");
        assertThat(numbers(usual)).containsExactly(11, 22, 33, 12, 23, 13);
        assertThat(usual.remarks()).isEmpty();
        Dataset columns =
                tensor(named("xx", "yx", "zx", "xy", "yy", "zy", "xz", "yz", "zz"), 9, "11 21 31 12 22 32 13 23 33");
        assertThat(numbers(columns)).containsExactly(11, 12, 13, 21, 22, 23, 31, 32, 33);
    }

    @Test
    void tensorsOfSixWithoutNamesAreToldUntilTheirOrderIsStated() throws Exception {
        Dataset bare = tensor("", 6, "11 22 33 12 13 23");
        assertThat(bare.remarks()).singleElement().isEqualTo(lane.field.Treatment.assumed("S"));
        // Names that name nothing, or one twice, decide nothing.
        assertThat(tensor(named("a", "b", "c", "d", "e", "f"), 6, "1 2 3 4 5 6").remarks())
                .hasSize(1);
        assertThat(tensor(named("XX", "YY", "ZZ", "XY", "YX", "XZ"), 6, "1 2 3 4 5 6")
                        .remarks())
                .hasSize(1);
        var run = new lane.field.Run(bare.mesh(), bare.fields(), List.of(), List.of(), bare.remarks());
        var said = lane.field.Treatment.NONE
                .withOrder("S", List.of(0, 1, 2, 3, 5, 4))
                .apply(run);
        assertThat(said.remarks()).isEmpty();
        double[] v = new double[6];
        Arrays.setAll(v, said.fields().getFirst().values()::get);
        assertThat(v).containsExactly(11, 22, 33, 12, 23, 13);
        for (List<Integer> wrong : List.of(List.of(0, 1, 2, 3, 4, 4), List.of(0, 1, 2, 3), List.of(1, 2, 3, 4, 5, 6))) {
            assertThatThrownBy(() -> lane.field.Treatment.NONE.withOrder("S", wrong))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("components of \"S\"");
        }
    }
}
