package lane.formats;

import static lane.formats.Known.measure;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.hdf.XdmfWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The ways in which XDMF says a grid, its numbers and its times, each written by hand with known answers. */
class XdmfTest {
    @TempDir
    Path folder;

    private static final String TETRAHEDRON = "0 0 0 1 0 0 0 1 0 0 0 1";

    private static String grid(String topology, String geometry, String more) {
        return "<Grid Name=\"g\">" + topology + geometry + more + "</Grid>";
    }

    private Dataset read(String grids) throws IOException {
        Path file = folder.resolve("a.xdmf");
        Files.writeString(file, "<?xml version=\"1.0\"?><Xdmf Version=\"3.0\"><Domain>" + grids + "</Domain></Xdmf>");
        return Both.read(file, Work.QUIET);
    }

    private static String item(String size, String numbers) {
        return "<DataItem Dimensions=\"" + size + "\">" + numbers + "</DataItem>";
    }

    private static String cells(String type, String more, String size, String numbers) {
        return "<Topology TopologyType=\"" + type + "\" " + more + "><DataItem NumberType=\"Int\" Dimensions=\"" + size
                + "\">" + numbers + "</DataItem></Topology>";
    }

    private static String points(String type, String items) {
        return "<Geometry GeometryType=\"" + type + "\">" + items + "</Geometry>";
    }

    private static String one() {
        return cells("Tetrahedron", "NumberOfElements=\"1\"", "4", "0 1 2 3") + points("XYZ", item("4 3", TETRAHEDRON));
    }

    private static String attribute(String type, String center, String item) {
        return "<Attribute Name=\"q\" AttributeType=\"" + type + "\" Center=\"" + center + "\">" + item
                + "</Attribute>";
    }

    private static double[] q(Dataset d) {
        return Known.values(d, d.fields().getFirst().name());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "XY; <DataItem Dimensions='4 2'>0 0 2 0 2 3 0 3</DataItem>; 6",
                "X_Y; <DataItem Dimensions='4'>0 2 2 0</DataItem><DataItem Dimensions='4'>0 0 3 3</DataItem>; 6",
                "X_Y_Z; <DataItem Dimensions='4'>0 2 2 0</DataItem><DataItem Dimensions='4'>0 0 0 0</DataItem>"
                        + "<DataItem Dimensions='4'>0 0 3 3</DataItem>; 6",
            })
    void coordinatesInOneArrayOrInSeveral(String type, String items, double area) throws IOException {
        Dataset d =
                read(grid(cells("Quadrilateral", "NumberOfElements=\"1\"", "4", "0 1 2 3"), points(type, items), ""));
        assertThat(measure(d.mesh())).isCloseTo(area, within(1e-14));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "3DRectMesh; 2 3 4; VXVYVZ; <DataItem>0 1 2 4</DataItem><DataItem>0 1 5</DataItem><DataItem>0 2</DataItem>; 6; 40",
                "2DRectMesh; 3 2; VXVY; <DataItem>0 3</DataItem><DataItem>0 1 5</DataItem>; 2; 15",
                "2DCoRectMesh; 3 2; ORIGIN_DXDY; <DataItem>1 0</DataItem><DataItem>2 3</DataItem>; 2; 12",
                "3DSMesh; 2 2 2; XYZ; <DataItem>0 0 0 1 0 0 0 1 0 1 1 0 0 0 2 1 0 2 0 1 2 1 1 2</DataItem>; 1; 2",
            })
    void structuredGrids(String type, String dims, String geometry, String items, int cells, double size)
            throws IOException {
        Dataset d = read(grid(
                "<Topology TopologyType=\"" + type + "\" Dimensions=\"" + dims + "\"/>", points(geometry, items), ""));
        assertThat(d.mesh().cellCount()).isEqualTo(cells);
        assertThat(measure(d.mesh())).isCloseTo(size, within(1e-13));
    }

    @Test
    void curvesPointsAndPolygonsAndNodesCountedFromOne() throws IOException {
        String square = points("XYZ", item("4 3", "0 0 0 1 0 0 1 1 0 0 1 0"));
        Dataset polygon = read(grid(
                cells("Polygon", "NumberOfElements=\"1\" NodesPerElement=\"4\" BaseOffset=\"1\"", "4", "1 2 3 4"),
                square,
                ""));
        assertThat(measure(polygon.mesh())).isEqualTo(1);
        Dataset curve =
                read(grid(cells("Polyline", "NumberOfElements=\"1\" NodesPerElement=\"3\"", "3", "0 1 2"), square, ""));
        assertThat(measure(curve.mesh())).isEqualTo(2);
        Dataset loose = read(grid(cells("Polyvertex", "NumberOfElements=\"4\"", "4", "0 1 2 3"), square, ""));
        assertThat(loose.mesh().cellCount()).isEqualTo(4);
        // A line of two nodes, a triangle and a polygon, with and without their numbers of nodes.
        Dataset mixed = read(grid(
                cells("Mixed", "NumberOfElements=\"3\" BaseOffset=\"1\"", "14", "2 2 1 2 4 1 2 3 3 4 1 2 3 4"),
                square,
                attribute("Scalar", "Cell", item("3", "5 6 7"))));
        assertThat(mixed.mesh().cellCount()).isEqualTo(3);
        assertThat(measure(mixed.mesh())).isEqualTo(1 + 0.5 + 1);
        assertThat(q(mixed)).containsExactly(5, 6, 7);
    }

    @Test
    void aPolyhedronByItsFaces() throws IOException {
        Dataset d = read(grid(
                cells("Mixed", "NumberOfElements=\"1\"", "18", "16 4 3 0 2 1 3 0 1 3 3 1 2 3 3 0 3 2"),
                points("XYZ", item("4 3", TETRAHEDRON)),
                ""));
        assertThat(measure(d.mesh())).isCloseTo(1.0 / 6, within(1e-15));
    }

    @ParameterizedTest
    @ValueSource(strings = {"2 2 0 9 4 0", "99 0 1 2", "2 3 0 1", "6 0 1 2 9", "16 4 3 0 2"})
    void topologyThatIsWrongIsToldAndNothingIsRead(String numbers) {
        int n = numbers.split(" ").length;
        assertThatThrownBy(() -> read(grid(
                        cells("Mixed", "NumberOfElements=\"1\"", String.valueOf(n), numbers),
                        points("XYZ", item("4 3", TETRAHEDRON)),
                        "")))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("a.xdmf");
    }

    /** Two numbers of head, then values, in each width and order of bytes. */
    @ParameterizedTest
    @CsvSource({
        "Float,4,Little",
        "Float,8,Big",
        "Float,8,Little",
        "Int,1,Little",
        "Int,2,Big",
        "Int,4,Little",
        "Int,8,Big",
        "UInt,2,Little",
        "UChar,1,Big",
        "UInt,4,Big",
    })
    void numbersInAFileOfTheirOwn(String type, int size, String endian) throws IOException {
        long[] values = {3, -1, 200, 40_000};
        boolean unsigned = type.startsWith("U");
        ByteBuffer b = ByteBuffer.allocate(2 * size + 4 * size)
                .order(endian.equals("Big") ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN);
        b.position(2 * size);
        double[] expected = new double[4];
        for (int i = 0; i < 4; i++) {
            long v = values[i];
            if (type.equals("Float")) {
                expected[i] = v;
                b = size == 4 ? b.putFloat(v) : b.putDouble(v);
                continue;
            }
            v = size == 1 ? Math.min(v, unsigned ? 200 : 100) : size == 2 && !unsigned ? Math.min(v, 30_000) : v;
            v = unsigned ? Math.abs(v) : v;
            expected[i] = v;
            b = switch (size) {
                case 1 -> b.put((byte) v);
                case 2 -> b.putShort((short) v);
                case 4 -> b.putInt((int) v);
                default -> b.putLong(v);
            };
        }
        Files.write(folder.resolve("v.bin"), b.array());
        String item = "<DataItem Format=\"Binary\" NumberType=\"" + type + "\" Precision=\"" + size + "\" Endian=\""
                + endian + "\" Seek=\"" + 2 * size + "\" Dimensions=\"4\">v.bin</DataItem>";
        assertThat(q(read(grid(one(), "", attribute("Scalar", "Node", item))))).containsExactly(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "Precision='4' Dimensions='9'; v.bin; too short",
                "Precision='3' Dimensions='4'; v.bin; 3 bytes",
                "Precision='2' Dimensions='4'; v.bin; 2 bytes",
                "Precision='4' Dimensions='4' Seek='-8'; v.bin; too short",
                "Precision='4' Dimensions='4' Compression='Zlib'; v.bin; packed by Zlib",
                "Precision='4' Dimensions='4'; none.bin; none.bin",
                "Precision='4' Dimensions='4'; ../v.bin; outside its folder",
            })
    void numbersThatCannotBeReadAreTold(String words, String name, String told) throws IOException {
        Files.write(folder.resolve("v.bin"), new byte[16]);
        String item = "<DataItem Format='Binary' NumberType='Float' " + words + ">" + name + "</DataItem>";
        assertThatThrownBy(() -> read(grid(one(), "", attribute("Scalar", "Node", item))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining(told);
    }

    @Test
    void aSlabIsTakenOutOfALargerArray() throws IOException {
        String all = item("3 6", "0 1 2 3 4 5 10 11 12 13 14 15 20 21 22 23 24 25");
        String slab =
                "<DataItem ItemType=\"HyperSlab\" Dimensions=\"2 2\"><DataItem NumberType=\"Int\" Dimensions=\"3 2\">"
                        + "%s</DataItem>" + all + "</DataItem>";
        // Starts, strides and counts: rows 0 and 2, columns 1 and 4.
        Dataset d = read(grid(one(), "", attribute("Scalar", "Node", String.format(slab, "0 1 2 3 2 2"))));
        assertThat(q(d)).containsExactly(1, 4, 21, 24);
        assertThatThrownBy(() -> read(grid(one(), "", attribute("Scalar", "Node", String.format(slab, "0 1 2 5 2 2")))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("beyond its array");
    }

    @Test
    void aReferenceStandsForWhatIsElsewhere() throws IOException {
        String stored = "<DataItem Name=\"kept\" Dimensions=\"4\">1 2 3 4</DataItem>";
        String by = "<DataItem Reference=\"%s\"/>";
        String path = "/Xdmf/Domain/DataItem[@Name='kept']";
        Dataset d = read(stored + grid(one(), "", attribute("Scalar", "Node", String.format(by, path))));
        assertThat(q(d)).containsExactly(1, 2, 3, 4);
        String inside = "<DataItem Reference=\"XML\">" + path + "</DataItem>";
        assertThat(q(read(stored + grid(one(), "", attribute("Scalar", "Node", inside)))))
                .containsExactly(1, 2, 3, 4);
        for (String wrong : List.of("/Xdmf/Nowhere", "//[", "/".repeat(600))) {
            assertThatThrownBy(
                            () -> read(stored + grid(one(), "", attribute("Scalar", "Node", String.format(by, wrong)))))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("a.xdmf");
        }
    }

    /** The format's order of a symmetric tensor is by rows, xx xy xz yy yz zz; here it is xx yy zz xy yz xz. */
    @Test
    void symmetricTensorsTakeTheOrderOfTheFormat() throws IOException {
        Dataset d = read(grid(one(), "", attribute("Tensor6", "Cell", item("1 6", "11 12 13 22 23 33"))));
        assertThat(q(d)).containsExactly(11, 22, 33, 12, 23, 13);
        Dataset plain = read(grid(one(), "", attribute("Matrix", "Cell", item("1 6", "1 2 3 4 5 6"))));
        assertThat(q(plain)).containsExactly(1, 2, 3, 4, 5, 6);
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {1, 1, 1}, new double[] {1, 1, 1}, 0, 1);
        float[] six = new float[6 * mesh.nodeCount()];
        for (int i = 0; i < six.length; i++) {
            six[i] = i;
        }
        var stress = new Field("stress", Field.At.NODE, 6, Unit.of("Pa"), new Values.Floats(six));
        Path file = folder.resolve("saved.xdmf");
        XdmfWriter.write(file, mesh, List.of(stress));
        double[] back = q(Both.read(file, Work.QUIET));
        for (int i = 0; i < six.length; i++) {
            assertThat(back[i]).isEqualTo(six[i]);
        }
    }

    @Test
    void vectorsInAPlaneGetAThirdComponent() throws IOException {
        Dataset d = read(grid(one(), "", attribute("Vector", "Node", item("4 2", "1 2 3 4 5 6 7 8"))));
        assertThat(d.fields().getFirst().components()).isEqualTo(3);
        assertThat(q(d)).containsExactly(1, 2, 0, 3, 4, 0, 5, 6, 0, 7, 8, 0);
    }

    @Test
    void whatIsStoredByFaceIsLeftOutWithARemark() throws IOException {
        Dataset d = read(grid(one(), "", attribute("Scalar", "Face", item("4", "1 2 3 4"))));
        assertThat(d.fields()).isEmpty();
        assertThat(d.remarks()).anyMatch(r -> r.contains("stored by face"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "<Time TimeType='List'><DataItem Dimensions='3'>0.5 1.5 4</DataItem></Time>; 0.5 1.5 4",
                "<Time TimeType='HyperSlab'><DataItem Dimensions='3'>1 0.25 3</DataItem></Time>; 1 1.25 1.5",
                "<Time TimeType='Range'><DataItem Dimensions='2'>2 3</DataItem></Time>; 2 2.5 3",
                "''; 0 1 2",
            })
    void timesOfACollection(String time, String expected) throws IOException {
        String grids = "";
        for (int i = 0; i < 3; i++) {
            grids += grid(one(), "", attribute("Scalar", "Node", item("4", i + " 0 0 0")));
        }
        Dataset d = read("<Grid GridType='Collection' CollectionType='Temporal'>" + time + grids + "</Grid>");
        double[] times = java.util.Arrays.stream(expected.split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
        assertThat(d.times().stream().mapToDouble(t -> t).toArray()).containsExactly(times);
        assertThat(d.time()).isEqualTo(times[2]);
        assertThat(q(d)[0]).isEqualTo(2);
    }

    @Test
    void severalGridsBecomeOneRun() throws IOException {
        String other = cells("Tetrahedron", "NumberOfElements=\"1\"", "4", "0 1 2 3")
                + points("XYZ", item("4 3", "0 0 0 0 1 0 -2 0 0 0 0 1"));
        String field = attribute("Scalar", "Cell", item("1", "%s"));
        for (String type :
                List.of("", "<Grid GridType='Collection' CollectionType='Spatial'>", "<Grid GridType='Tree'>")) {
            String end = type.isEmpty() ? "" : "</Grid>";
            Dataset d = read(type
                    + grid(one(), "", String.format(field, "1"))
                    + grid(other, "", String.format(field, "2"))
                    + end);
            assertThat(d.mesh().cellCount()).isEqualTo(2);
            assertThat(measure(d.mesh())).isCloseTo(1.0 / 6 + 1.0 / 3, within(1e-14));
            assertThat(q(d)).containsExactly(1, 2);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "<Grid><Geometry/></Grid>; lacks its topology",
                "''; no grid",
                "<Grid GridType='Collection'/>; is empty",
                "<Grid><Topology TopologyType='Blob'><DataItem>0</DataItem></Topology><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; blob",
                "<Grid><Topology TopologyType='Triangle'/><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; no numbers",
                "<Grid><Topology TopologyType='Triangle'><DataItem NumberType='Int'>0 1</DataItem></Topology><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; no multiple of 3",
                "<Grid><Topology TopologyType='Triangle'><DataItem>0 1 2.5</DataItem></Topology><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; whole numbers",
                "<Grid><Topology TopologyType='3DSMesh' Dimensions='2 2 2'/><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; do not fit",
                "<Grid><Topology TopologyType='Triangle'><DataItem Format='Tape'>0 1 2</DataItem></Topology><Geometry><DataItem>0 0 0</DataItem></Geometry></Grid>; TAPE",
                "<Grid><Topology TopologyType='Triangle'><DataItem>0 1 2</DataItem></Topology><Geometry GeometryType='Polar'><DataItem>0 0 0</DataItem></Geometry></Grid>; POLAR",
            })
    void faultsAreToldInOneSentence(String grids, String told) {
        assertThatThrownBy(() -> read(grids))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("a.xdmf")
                .hasMessageContaining(told);
    }
}
