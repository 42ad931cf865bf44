package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;
import java.util.zip.DeflaterOutputStream;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.formats.grid.Dataset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a damaged or clever file could slip past a reader: each is refused, or said. */
class StrictReadersTest {
    @TempDir
    Path folder;

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private void refused(Path file, String... words) {
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContainingAll(words);
    }

    private static String base64(byte[]... parts) {
        var all = new ByteArrayOutputStream();
        for (byte[] p : parts) {
            all.writeBytes(p);
        }
        return Base64.getEncoder().encodeToString(all.toByteArray());
    }

    private static byte[] ints(int... v) {
        ByteBuffer out = ByteBuffer.allocate(4 * v.length).order(ByteOrder.LITTLE_ENDIAN);
        Arrays.stream(v).forEach(out::putInt);
        return out.array();
    }

    private static byte[] doubles(double... v) {
        ByteBuffer out = ByteBuffer.allocate(8 * v.length).order(ByteOrder.LITTLE_ENDIAN);
        Arrays.stream(v).forEach(out::putDouble);
        return out.array();
    }

    /** A tetrahedron with one field, whose numbers stand as given. */
    private static String tetrahedron(String packing, String field) {
        return "<VTKFile type=\"UnstructuredGrid\" byte_order=\"LittleEndian\" header_type=\"UInt32\"" + packing
                + "><UnstructuredGrid><Piece NumberOfPoints=\"4\" NumberOfCells=\"1\"><PointData>"
                + "<DataArray type=\"Float64\" Name=\"clay\" format=\"binary\">" + field
                + "</DataArray></PointData><Points>"
                + "<DataArray type=\"Float64\" NumberOfComponents=\"3\" format=\"ascii\">0 0 0 1 0 0 0 1 0 0 0 1</DataArray>"
                + "</Points><Cells><DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3</DataArray>"
                + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">4</DataArray>"
                + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">10</DataArray></Cells></Piece>"
                + "</UnstructuredGrid></VTKFile>";
    }

    @Test
    void base64IsWholeAndHoldsWhatItSays() throws IOException {
        byte[] four = doubles(1, 2, 3, 4);
        String right = base64(ints(32), four);
        Dataset d = DatasetReader.read(file("right.vtu", tetrahedron("", right)), Work.QUIET);
        assertThat(d.fields().getFirst().values().get(3)).isEqualTo(4);
        refused(file("more.vtu", tetrahedron("", base64(ints(32), four, new byte[3]))), "clay", "3 bytes more");
        refused(file("letter.vtu", tetrahedron("", right.substring(0, 20) + "#" + right.substring(21))), "character");
        refused(file("cut.vtu", tetrahedron("", right + "A")), "cut off in the middle of a group");
        refused(file("pad.vtu", tetrahedron("", "=" + right.substring(1))), "clay");
    }

    private static byte[] zlib(byte[] plain) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var z = new DeflaterOutputStream(out)) {
            z.write(plain);
        }
        return out.toByteArray();
    }

    @Test
    void packedBlocksEndWhereTheySayWithTheSumTheyCarry() throws IOException {
        String packing = " compressor=\"vtkZLibDataCompressor\"";
        byte[] sound = zlib(doubles(1, 2, 3, 4));
        Dataset d = DatasetReader.read(
                file("right.vtu", tetrahedron(packing, base64(ints(1, 32, 32, sound.length)) + base64(sound))),
                Work.QUIET);
        assertThat(d.fields().getFirst().values().get(2)).isEqualTo(3);
        byte[] sum = sound.clone();
        sum[sum.length - 1] ^= 1;
        refused(
                file("sum.vtu", tetrahedron(packing, base64(ints(1, 32, 32, sum.length)) + base64(sum))),
                "clay",
                "zlib");
        byte[] more = zlib(doubles(1, 2, 3, 4, 5));
        refused(
                file("more.vtu", tetrahedron(packing, base64(ints(1, 32, 32, more.length)) + base64(more))),
                "holds more than the 32 bytes it declares");
        byte[] tail = Arrays.copyOf(sound, sound.length + 2);
        refused(
                file("tail.vtu", tetrahedron(packing, base64(ints(1, 32, 32, tail.length)) + base64(tail))),
                "does not end where it says");
    }

    @Test
    void whatTheXmlHoldsBesideItsArraysIsRefusedOrSaid() throws IOException {
        String right = tetrahedron("", base64(ints(32), doubles(1, 2, 3, 4)));
        refused(file("stray.vtu", right.replace("<Points>", "ints><Points>")), "\"ints>\"", "where an element belongs");
        Dataset d = DatasetReader.read(file("odd.vtu", right.replace("<Points>", "<Colour/><Points>")), Work.QUIET);
        assertThat(d.remarks()).containsExactly("Its element <Colour> is not known to the format and was left out.");
        for (String own : new String[] {"DataAssembly encoding=\"base64\"", "InformationKey name=\"range\"", "Value"}) {
            String tag = own.split(" ")[0];
            Path file = file(
                    "own.vtu",
                    right.replace("<UnstructuredGrid>", "<" + own + ">PD94bWw=</" + tag + "><UnstructuredGrid>"));
            assertThat(DatasetReader.read(file, Work.QUIET).remarks()).as(tag).isEmpty();
        }
        Path told = file("told.vtu", right.replace("<Points>", "<Author>Nobody, <b>at night</b></Author><Points>"));
        assertThat(DatasetReader.read(told, Work.QUIET).remarks())
                .containsExactly(
                        "Its element <Author> is not known to the format and was left out.",
                        "Its element <b> is not known to the format and was left out.");
        refused(file("none.vtu", right.replace("NumberOfCells=\"1\"", "NumberOfCels=\"1\"")), "says it has no cells");
        Dataset empty = DatasetReader.read(
                file("empty.vtu", right.replace("format=\"ascii\">10<", "format=\"ascii\">0<")), Work.QUIET);
        assertThat(empty.remarks())
                .contains("1 empty cells (type 0) were left out; 1 of them have nodes all the same.");
    }

    /** A piece of a warehouse's air, cells of 1 x 1 x 2, whose value is the cell's place. */
    private void piece(String name, int x0, int x1) throws IOException {
        var points = new StringBuilder();
        var cells = new StringBuilder();
        for (int k = 0; k <= 2; k++) {
            for (int j = 3; j <= 5; j++) {
                for (int i = x0; i <= x1; i++) {
                    points.append(i).append(' ');
                    if (k < 2 && j < 5 && i < x1) {
                        cells.append(100 * i + 10 * j + k).append(' ');
                    }
                }
            }
        }
        String extent = x0 + " " + x1 + " 3 5 0 2";
        file(
                name,
                "<VTKFile type=\"ImageData\"><ImageData WholeExtent=\"" + extent
                        + "\" Origin=\"0 0 0\" Spacing=\"1 1 2\">"
                        + "<Piece Extent=\"" + extent
                        + "\"><PointData><DataArray type=\"Float64\" Name=\"x\" format=\"ascii\">"
                        + points
                        + "</DataArray></PointData><CellData><DataArray type=\"Float64\" Name=\"place\" format=\"ascii\">"
                        + cells + "</DataArray></CellData></Piece></ImageData></VTKFile>");
    }

    @Test
    void whatTwoStructuredPiecesBothHoldIsTakenOnceWhereItStands() throws IOException {
        piece("west.vti", -2, 2);
        piece("east.vti", 1, 4);
        Path set = file(
                "hall.pvti",
                "<VTKFile type=\"PImageData\"><PImageData WholeExtent=\"-2 4 3 5 0 2\" Origin=\"0 0 0\" Spacing=\"1 1 2\">"
                        + "<Piece Extent=\"-2 2 3 5 0 2\" Source=\"west.vti\"/><Piece Extent=\"1 4 3 5 0 2\" Source=\"east.vti\"/>"
                        + "</PImageData></VTKFile>");
        Dataset d = Both.read(set, Work.QUIET);
        assertThat(d.mesh().cellCount()).isEqualTo(6 * 2 * 2);
        assertThat(d.mesh().nodeCount()).isEqualTo(7 * 3 * 3);
        assertThat(d.remarks()).contains("4 cells that another piece holds too were taken once.");
        Field x = d.fields().stream()
                .filter(f -> f.name().equals("x"))
                .findFirst()
                .orElseThrow();
        Field place = d.fields().stream()
                .filter(f -> f.name().equals("place"))
                .findFirst()
                .orElseThrow();
        for (int i = 0; i < d.mesh().nodeCount(); i++) {
            assertThat(x.values().get(i)).isEqualTo(d.mesh().xyz()[3 * i]);
        }
        for (int c = 0; c < d.mesh().cellCount(); c++) {
            int node = d.mesh().nodes()[d.mesh().begin(c)];
            double[] p = Arrays.copyOfRange(d.mesh().xyz(), 3 * node, 3 * node + 3);
            assertThat(place.values().get(c)).isEqualTo(100 * p[0] + 10 * p[1] + p[2] / 2);
        }
        refused(
                file("wrong.pvti", Files.readString(set).replace("1 4 3 5 0 2", "1 5 3 5 0 2")),
                "a piece has 12 cells, but its extent [1, 5, 3, 5, 0, 2] needs 16");
    }

    private static String xdmf(String inside) {
        return "<Xdmf><Domain>" + inside + "</Domain></Xdmf>";
    }

    private static final String GRID =
            "<Grid Name=\"%s\"><Topology TopologyType=\"Triangle\" NumberOfElements=\"1\"><DataItem Dimensions=\"3\" "
                    + "DataType=\"Int\">0 1 2</DataItem></Topology><Geometry GeometryType=\"XYZ\"><DataItem Dimensions=\"3 3\">"
                    + "0 0 0 1 0 0 0 1 0</DataItem></Geometry>%s</Grid>";

    @ParameterizedTest
    @ValueSource(
            strings = {
                "//*[count(//*) > 0]",
                "/Xdmf/Domain/Grid[count(preceding::*) = 0]/Attribute/DataItem",
                "//DataItem[//DataItem = 1]",
                "/Xdmf/../Xdmf",
                "id('x')",
                "//Grid | //DataItem",
                "Domain/Grid"
            })
    void pathsThatCountAreNotFollowed(String path) throws IOException {
        String field = "<Attribute Name=\"T\"><DataItem Reference=\"" + path + "\"/></Attribute>";
        refused(file("counts.xdmf", xdmf(String.format(GRID, "g", field))), "only paths of names");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/Xdmf/Domain/DataItem[@Name=&quot;wet&quot;]",
                "/Xdmf/Domain/DataItem[2]",
                "/Xdmf/Domain/DataItem[last()]",
                "//DataItem[@Name='wet']",
                "/Xdmf/*/DataItem[ position() = 2 ]",
                "//*[self::Topology or self::DataItem][@Name='wet']"
            })
    void simplePathsAre(String path) throws IOException {
        String items = "<DataItem Name=\"dry\" Dimensions=\"3\">7 8 9</DataItem>"
                + "<DataItem Name=\"wet\" Dimensions=\"3\">1 2 3</DataItem>";
        String field = "<Attribute Name=\"T\"><DataItem Reference=\"" + path + "\"/></Attribute>";
        Dataset d = Both.read(file("simple.xdmf", xdmf(items + String.format(GRID, "g", field))), Work.QUIET);
        assertThat(d.fields().getFirst().values().get(2)).isEqualTo(3);
    }

    @Test
    void referencesThatFanOutAreCountedInAll() throws IOException {
        var all = new StringBuilder(String.format(GRID, "level0", ""));
        for (int level = 1; level <= 3; level++) {
            all.append("<Grid Name=\"level" + level + "\" GridType=\"Collection\" CollectionType=\"Spatial\">");
            all.append(("<Grid Reference=\"//Grid[@Name='level" + (level - 1) + "']\"/>").repeat(30));
            all.append("</Grid>");
        }
        refused(file("fan.xdmf", xdmf(all.toString())), "refers to its grids more than 1000 times over");

        file("level0.vtu", tetrahedron("", base64(ints(32), doubles(1, 2, 3, 4))));
        for (int level = 1; level <= 3; level++) {
            String below = "level" + (level - 1) + (level == 1 ? ".vtu" : ".vtm");
            file(
                    "level" + level + ".vtm",
                    "<VTKFile type=\"vtkMultiBlockDataSet\"><vtkMultiBlockDataSet>"
                            + ("<DataSet index=\"0\" file=\"" + below + "\"/>").repeat(30)
                            + "</vtkMultiBlockDataSet></VTKFile>");
        }
        refused(folder.resolve("level3.vtm"), "again, which is more than is read at once");
    }

    @Test
    void surfacesAreWhole() throws IOException {
        refused(
                file("lid.stl", "solid lid\nfacet normal 0 0 1\nendloop\nendfacet\nendsolid lid\n"),
                "1 facets that begin, 1 that end and 0 corners");
        String ply = "ply\nformat %s 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float %s\n"
                + "element face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n";
        refused(file("flat.ply", String.format(ply, "ascii", "height")), "no property z");
        refused(file("order.ply", String.format(ply, "binary_bag_endian", "z")), "binary_bag_endian");
        Dataset d = DatasetReader.read(file("tail.ply", String.format(ply, "ascii", "z") + "4 4 4\n"), Work.QUIET);
        assertThat(d.remarks()).containsExactly("7 bytes behind its last element were not read.");
        Path cut = file(
                "cut.vtk",
                "# vtk DataFile Version 3.0\nx\nASCII\nDATASET POLYDATA\nPOINTS 3 float\n0 0 0 1 0 0 0 1 0\n"
                        + "POLYGONS 1 4\n3 0 1 2\nPOINT_DATA 3\n");
        assertThat(DatasetReader.read(cut, Work.QUIET).remarks())
                .contains("It announces data of its nodes and has no array of them that is read.");
        assertThat(new String(Files.readAllBytes(cut), StandardCharsets.US_ASCII))
                .endsWith("POINT_DATA 3\n");
    }
}
