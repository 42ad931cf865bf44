package lane.formats;

import static lane.formats.Known.node;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Topology;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files of every open format written by hand, with known counts, volumes and values. */
class OpenFormatsTest {
    @TempDir
    Path folder;

    private Path write(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private static Dataset read(Path file) {
        return Both.read(file, Work.QUIET);
    }

    private static double measure(Mesh mesh) {
        double sum = 0;
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            double v = cell.load(c).measure();
            assertThat(v).as("cell %d, a %s", c, cell.shape().word()).isPositive();
            sum += v;
        }
        return sum;
    }

    private static Field field(Dataset d, String name) {
        return d.fields().stream()
                .filter(f -> f.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static final String HEAD = "<VTKFile type=\"%s\" version=\"1.0\" byte_order=\"LittleEndian\">";

    @Test
    void anImageWithADirection() throws IOException {
        // Turned a quarter about z: i runs along y, j along -x.
        Dataset d = read(
                write(
                        "a.vti",
                        String.format(HEAD, "ImageData")
                                + "<ImageData WholeExtent=\"1 3 0 1 0 2\" Origin=\"10 0 0\" Spacing=\"1 2 0.5\" Direction=\"0 -1 0 1 0 0 0 0 1\">"
                                + "<Piece Extent=\"1 3 0 1 0 2\"><PointData><DataArray type=\"Float32\" Name=\"a\" format=\"ascii\">"
                                + "0 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15 16 17</DataArray></PointData></Piece></ImageData></VTKFile>"));
        assertThat(d.mesh().cellCount()).isEqualTo(4);
        assertThat(d.mesh().nodeCount()).isEqualTo(18);
        assertThat(measure(d.mesh())).isCloseTo(2 * 2 * 1, within(1e-12));
        // Index (2, 1, 0): x = 10 - 2, y = 2.
        int node = 1 + 3;
        assertThat(java.util.Arrays.copyOfRange(d.mesh().xyz(), 3 * node, 3 * node + 3))
                .containsExactly(8, 2, 0);
    }

    @Test
    void rectilinearAndStructuredGridsWithFlatDirections() throws IOException {
        Dataset r = read(
                write(
                        "r.vtr",
                        String.format(HEAD, "RectilinearGrid")
                                + "<RectilinearGrid WholeExtent=\"0 2 0 1 0 0\"><Piece Extent=\"0 2 0 1 0 0\"><CellData>"
                                + "<DataArray type=\"Int32\" Name=\"c\" format=\"ascii\">7 8</DataArray></CellData><Coordinates>"
                                + "<DataArray type=\"Float64\" format=\"ascii\">0 1 4</DataArray>"
                                + "<DataArray type=\"Float64\" format=\"ascii\">0 2</DataArray>"
                                + "<DataArray type=\"Float64\" format=\"ascii\">5</DataArray></Coordinates></Piece></RectilinearGrid></VTKFile>"));
        assertThat(r.mesh().dimension()).isEqualTo(2);
        assertThat(measure(r.mesh())).isCloseTo(8, within(1e-13));
        assertThat(field(r, "c").values().get(1)).isEqualTo(8);
        var points = new StringBuilder();
        for (int k = 0; k < 2; k++) {
            for (int j = 0; j < 3; j++) {
                for (int i = 0; i < 2; i++) {
                    points.append(i + 0.1 * k)
                            .append(' ')
                            .append(j)
                            .append(' ')
                            .append(2 * k)
                            .append('\n');
                }
            }
        }
        Dataset s = read(write(
                "s.vts",
                String.format(HEAD, "StructuredGrid")
                        + "<StructuredGrid WholeExtent=\"0 1 0 2 0 1\"><Piece Extent=\"0 1 0 2 0 1\"><Points>"
                        + "<DataArray type=\"Float32\" NumberOfComponents=\"3\" format=\"ascii\">" + points
                        + "</DataArray></Points></Piece></StructuredGrid></VTKFile>"));
        assertThat(s.mesh().shape(0)).isEqualTo(CellShape.HEXAHEDRON);
        assertThat(measure(s.mesh())).isCloseTo(4, within(1e-6));
    }

    private void piece(String name, double from, boolean ghost) {
        // Two cells along x, from the given place; the second is a ghost of the neighbour's first.
        Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        double[] xyz = box.xyz().clone();
        for (int i = 0; i < xyz.length; i += 3) {
            xyz[i] += from;
        }
        Mesh mesh = Mesh.uniform(xyz, CellShape.HEXAHEDRON, box.nodes());
        double[] p = new double[mesh.nodeCount()];
        for (int i = 0; i < p.length; i++) {
            p[i] = xyz[3 * i];
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name),
                mesh,
                List.of(
                        new Field("p", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(p)),
                        new Field("vtkGhostType", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Ints(new int[] {
                            0, ghost ? 1 : 0
                        })),
                        new Field("c", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(from, from + 1))),
                VtkXmlWriter.Options.DEFAULT);
    }

    @Test
    void aParallelFileLosesItsGhostsAndItsSeams() throws IOException {
        piece("p_0.vtu", 0, true);
        piece("p_1.vtu", 1, false);
        Dataset d = read(write(
                "p.pvtu",
                String.format(HEAD, "PUnstructuredGrid")
                        + "<PUnstructuredGrid GhostLevel=\"1\"><PPointData><PDataArray type=\"Float64\" Name=\"p\"/></PPointData>"
                        + "<Piece Source=\"p_0.vtu\"/><Piece Source=\"p_1.vtu\"/></PUnstructuredGrid></VTKFile>"));
        assertThat(d.mesh().cellCount()).isEqualTo(3);
        assertThat(d.mesh().nodeCount()).isEqualTo(16);
        assertThat(measure(d.mesh())).isCloseTo(3, within(1e-12));
        assertThat(Topology.boundary(d.mesh()).size()).isEqualTo(14);
        assertThat(d.fields()).extracting(Field::name).containsExactly("p", "c");
        assertThat(((Values.Doubles) field(d, "c").values()).array()).containsExactly(0, 1, 2);
        for (int i = 0; i < 16; i++) {
            assertThat(field(d, "p").values().get(i)).isEqualTo(d.mesh().xyz()[3 * i]);
        }
        assertThatThrownBy(
                        () -> read(
                                write(
                                        "evil.pvtu",
                                        String.format(HEAD, "PUnstructuredGrid")
                                                + "<PUnstructuredGrid><Piece Source=\"../../etc/passwd\"/></PUnstructuredGrid></VTKFile>")))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("outside its folder");
    }

    @Test
    void blocksAndACollectionOverTime() throws IOException {
        piece("b_0.vtu", 0, false);
        piece("b_1.vtu", 2, false);
        Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        Mesh skin = new PartBuilder(box).whole("skin").surface();
        VtkXmlWriter.writeSurface(folder.resolve("b_skin.vtp"), skin, List.of(), VtkXmlWriter.Options.DEFAULT);
        String blocks =
                "<vtkMultiBlockDataSet><Block index=\"0\" name=\"inside\"><DataSet index=\"0\" file=\"b_0.vtu\"/>"
                        + "<DataSet index=\"1\" file=\"b_1.vtu\"/></Block><Block index=\"1\" name=\"walls\">"
                        + "<DataSet index=\"0\" name=\"left wall\" file=\"b_skin.vtp\"/></Block></vtkMultiBlockDataSet></VTKFile>";
        Dataset d = read(write("b.vtm", String.format(HEAD, "vtkMultiBlockDataSet") + blocks));
        assertThat(d.mesh().cellCount()).isEqualTo(4);
        assertThat(d.mesh().nodeCount()).isEqualTo(20);
        assertThat(d.groups()).extracting(Dataset.Group::name).containsExactly("left wall");
        assertThat(d.groups().getFirst().surface().cellCount()).isEqualTo(10);
        Dataset t = read(write(
                "t.pvd",
                String.format(HEAD, "Collection")
                        + "<Collection><DataSet timestep=\"2.5\" file=\"b_1.vtu\"/><DataSet timestep=\"0.5\" file=\"b_0.vtu\"/>"
                        + "</Collection></VTKFile>"));
        assertThat(t.times()).containsExactly(0.5, 2.5);
        assertThat(t.time()).isEqualTo(2.5);
        assertThat(t.mesh().xyz()[0]).isEqualTo(2);
    }

    @Test
    void legacyFilesOldAndNewLayoutAsciiAndBinary() throws IOException {
        String points = "POINTS 5 float\n0 0 0 1 0 0 1 1 0 0 1 0 0.5 0.5 1\n";
        Dataset old = read(write(
                "old.vtk",
                "# vtk DataFile Version 3.0\nmade up\nASCII\nDATASET UNSTRUCTURED_GRID\n" + points
                        + "CELLS 2 10\n5 0 1 2 3 4\n3 0 1 2\nCELL_TYPES 2\n14 5\nCELL_DATA 2\nSCALARS c int 1\nLOOKUP_TABLE default\n"
                        + "4 5\nPOINT_DATA 5\nVECTORS u%20v float\n1 0 0 2 0 0 3 0 0 4 0 0 5 0 0\nFIELD more 1\nq 2 5 double\n"
                        + "1 2 3 4 5 6 7 8 9 10\n"));
        assertThat(old.mesh().cellCount()).isEqualTo(2);
        assertThat(new Cell(old.mesh()).load(0).measure()).isCloseTo(1.0 / 3, within(1e-7));
        assertThat(field(old, "u v").values().get(12)).isEqualTo(5);
        assertThat(field(old, "q").components()).isEqualTo(2);
        assertThat(field(old, "c").at()).isEqualTo(Field.At.CELL);
        Dataset fresh = read(
                write(
                        "new.vtk",
                        "# vtk DataFile Version 5.1\nmade up\nASCII\nDATASET UNSTRUCTURED_GRID\n" + points
                                + "METADATA\nINFORMATION 1\nNAME L2 LOCATION v\nDATA 1 2\n\n"
                                + "CELLS 3 8\nOFFSETS vtktypeint64\n0 5 8\nCONNECTIVITY vtktypeint64\n0 1 2 3 4 0 1 2\nCELL_TYPES 2\n14\n5\n"));
        assertThat(fresh.mesh().nodes()).containsExactly(0, 1, 2, 3, 4, 0, 1, 2);
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeBytes("# vtk DataFile Version 4.2\nmade up\nBINARY\nDATASET POLYDATA\nPOINTS 4 double\n");
        for (double v : new double[] {0, 0, 0, 2, 0, 0, 0, 2, 0, 2, 2, 0}) {
            out.writeDouble(v);
        }
        out.writeBytes("\nTRIANGLE_STRIPS 1 5\n");
        for (int v : new int[] {4, 0, 1, 2, 3}) {
            out.writeInt(v);
        }
        out.writeBytes("\nCELL_DATA 1\nSCALARS s unsigned_char\nLOOKUP_TABLE default\n");
        out.writeByte(200);
        out.writeBytes("\n");
        Path file = folder.resolve("strip.vtk");
        Files.write(file, bytes.toByteArray());
        Dataset strip = read(file);
        assertThat(strip.mesh().cellCount()).isEqualTo(2);
        assertThat(measure(strip.mesh())).isCloseTo(4, within(1e-14));
        assertThat(field(strip, "s").values().get(1)).isEqualTo(200);
        Dataset image = read(
                write(
                        "image.vtk",
                        "# vtk DataFile Version 2.0\nx\nASCII\nDATASET STRUCTURED_POINTS\n"
                                + "DIMENSIONS 2 3 1\nORIGIN 1 0 0\nSPACING 2 1 1\nPOINT_DATA 6\nSCALARS t float\nLOOKUP_TABLE default\n1 2 3 4 5 6\n"));
        assertThat(measure(image.mesh())).isCloseTo(4, within(1e-13));
    }

    @Test
    void surfacesInStlPlyAndObj() throws IOException {
        Dataset stl = read(write(
                "two.stl",
                "solid left\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\n"
                        + "vertex 0 1 0\nendloop\nendfacet\nendsolid left\nsolid right\nfacet normal 0 0 1\nouter loop\n"
                        + "vertex 1 0 0\nvertex 1 1 -0.0\nvertex 0 1 0\nendloop\nendfacet\nendsolid right\n"));
        assertThat(stl.mesh().nodeCount()).isEqualTo(4);
        assertThat(measure(stl.mesh())).isCloseTo(1, within(1e-13));
        assertThat(stl.groups()).extracting(Dataset.Group::name).containsExactly("left", "right");
        ByteBuffer b = ByteBuffer.allocate(84 + 100).order(ByteOrder.LITTLE_ENDIAN);
        b.put("solid in name only".getBytes(StandardCharsets.US_ASCII))
                .position(80)
                .putInt(2);
        for (float[] t : new float[][] {{0, 0, 0, 3, 0, 0, 0, 2, 0}, {3, 0, 0, 3, 2, 0, 0, 2, 0}}) {
            b.putFloat(0).putFloat(0).putFloat(1);
            for (float v : t) {
                b.putFloat(v);
            }
            b.putShort((short) 0);
        }
        Path file = folder.resolve("b.stl");
        Files.write(file, b.array());
        assertThat(measure(read(file).mesh())).isCloseTo(6, within(1e-13));
        assertThat(read(file).mesh().nodeCount()).isEqualTo(4);
        Dataset obj = read(write(
                "o.obj",
                "# made up\nv 0 0 0\nv 2 0 0\nv 2 1 0\nv 0 1 0\nv 3 0.5 0\ng plate\nf 1/1/1 2/2 3//3 4\n"
                        + "g tip\nf -4 -1 -3\n"));
        assertThat(measure(obj.mesh())).isCloseTo(2.5, within(1e-14));
        assertThat(obj.groups()).extracting(Dataset.Group::name).containsExactly("plate", "tip");
        Dataset ply = read(write(
                "p.ply",
                "ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\n"
                        + "property float z\nproperty float heat\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n"
                        + "0 0 0 1\n1 0 0 2\n1 1 0 3\n0 1 0 4\n4 0 1 2 3\n"));
        assertThat(measure(ply.mesh())).isCloseTo(1, within(1e-13));
        assertThat(field(ply, "heat").values().get(3)).isEqualTo(4);
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeBytes(
                "ply\nformat binary_big_endian 1.0\nelement vertex 3\nproperty double x\nproperty double y\n"
                        + "property double z\nelement face 1\nproperty list uchar int vertex_index\nproperty short k\nend_header\n");
        for (double v : new double[] {0, 0, 0, 4, 0, 0, 0, 1, 0}) {
            out.writeDouble(v);
        }
        out.writeByte(3);
        out.writeInt(0);
        out.writeInt(1);
        out.writeInt(2);
        out.writeShort(-9);
        Path big = folder.resolve("big.ply");
        Files.write(big, bytes.toByteArray());
        assertThat(measure(read(big).mesh())).isCloseTo(2, within(1e-13));
        assertThat(field(read(big), "k").values().get(0)).isEqualTo(-9);
    }

    @Test
    void cellsOfHigherOrderAreTakenByTheirCornersAndSayso() throws IOException {
        String grid = String.format(HEAD, "UnstructuredGrid")
                + "<UnstructuredGrid><Piece NumberOfPoints=\"6\" NumberOfCells=\"2\">"
                + "<CellData><DataArray type=\"Float32\" Name=\"c\" format=\"ascii\">1 2</DataArray></CellData><Points>"
                + "<DataArray type=\"Float32\" NumberOfComponents=\"3\" format=\"ascii\">0 0 0 2 0 0 0 2 0 1 -0.2 0 1 1 0 0 1 0</DataArray></Points>"
                + "<Cells><DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3 4 5 0 1 2 3 4 5</DataArray>"
                + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">6 12</DataArray>"
                + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">22 69</DataArray></Cells></Piece></UnstructuredGrid></VTKFile>";
        Dataset d = read(write("high.vtu", grid));
        assertThat(d.mesh().shape(0)).isEqualTo(CellShape.TRIANGLE6);
        assertThat(d.mesh().shape(1)).isEqualTo(CellShape.TRIANGLE);
        // The edge bulges by 0.2: a parabola adds two thirds of its height times its width.
        assertThat(new Cell(d.mesh()).load(0).measure()).isCloseTo(2 + 2.0 / 3 * 0.2 * 2, within(1e-6));
        assertThat(d.remarks()).anyMatch(r -> r.contains("by their corners"));
    }

    @Test
    void xdmfInlineMixedAndOverTime() throws IOException {
        String grid = "<Grid Name=\"g\" GridType=\"Uniform\"><Time Value=\"%s\"/>"
                + "<Topology TopologyType=\"Mixed\" NumberOfElements=\"2\"><DataItem Format=\"XML\" DataType=\"Int\" Dimensions=\"10\">"
                + "6 0 1 2 3 4 0 1 2 </DataItem></Topology>"
                + "<Geometry GeometryType=\"XYZ\"><DataItem Format=\"XML\" Dimensions=\"4 3\">0 0 0 1 0 0 0 1 0 0 0 1</DataItem></Geometry>"
                + "<Attribute Name=\"T\" Center=\"Node\"><DataItem Format=\"XML\" Dimensions=\"4\">%s 2 3 4</DataItem></Attribute></Grid>";
        String head = "<?xml version=\"1.0\"?><!DOCTYPE Xdmf SYSTEM \"Xdmf.dtd\" []><Xdmf Version=\"3.0\"><Domain>";
        Path file = write(
                "t.xdmf",
                head + "<Grid GridType=\"Collection\" CollectionType=\"Temporal\">"
                        + String.format(grid, "0.1", "7").replace("Dimensions=\"10\"", "Dimensions=\"9\"")
                        + String.format(grid, "0.3", "9").replace("Dimensions=\"10\"", "Dimensions=\"9\"")
                        + "</Grid></Domain></Xdmf>");
        Dataset d = read(file);
        assertThat(d.times()).containsExactly(0.1, 0.3);
        assertThat(d.mesh().cellCount()).isEqualTo(2);
        assertThat(new Cell(d.mesh()).load(0).measure()).isCloseTo(1.0 / 6, within(1e-15));
        assertThat(field(d, "T").values().get(0)).isEqualTo(9);
        Dataset grid3 = read(write(
                "s.xmf",
                head + "<Grid><Topology TopologyType=\"3DCoRectMesh\" Dimensions=\"2 3 4\"/>"
                        + "<Geometry GeometryType=\"ORIGIN_DXDYDZ\"><DataItem Dimensions=\"3\">0 0 1</DataItem>"
                        + "<DataItem Dimensions=\"3\">3 2 1</DataItem></Geometry></Grid></Domain></Xdmf>"));
        assertThat(grid3.mesh().cellCount()).isEqualTo(6);
        assertThat(measure(grid3.mesh())).isCloseTo(3 * 4 * 3, within(1e-12));
        assertThat(grid3.mesh().bounds()).containsExactly(1, 4, 0, 4, 0, 3);
    }

    private static double[] axis(Mesh mesh, int d) {
        double[] out = new double[mesh.nodeCount()];
        for (int i = 0; i < out.length; i++) {
            out[i] = mesh.xyz()[3 * i + d];
        }
        return out;
    }

    private static void coordinates(io.jhdf.api.WritableGroup zone, Mesh mesh) {
        var grid = node(zone, "GridCoordinates", "GridCoordinates_t", null);
        for (int d = 0; d < 3; d++) {
            node(grid, "Coordinate" + "XYZ".charAt(d), "DataArray_t", axis(mesh, d));
        }
    }

    @Test
    void cgnsUnstructuredWithConditionsAndSolutions() throws IOException {
        Path file = folder.resolve("u.cgns");
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            var zone = node(base, "blk", "Zone_t", new int[] {mesh.nodeCount(), mesh.cellCount(), 0});
            node(zone, "ZoneType", "ZoneType_t", "Unstructured");
            coordinates(zone, mesh);
            // In this format the first triangle of a prism looks inwards.
            int[] order = {0, 2, 1, 3, 5, 4};
            int[] ids = new int[6 * mesh.cellCount()];
            for (int i = 0; i < ids.length; i++) {
                ids[i] = 1 + mesh.nodes()[6 * (i / 6) + order[i % 6]];
            }
            var cells = node(zone, "prisms", "Elements_t", new int[] {14, 0});
            node(cells, "ElementRange", "IndexRange_t", new int[] {1, mesh.cellCount()});
            node(cells, "ElementConnectivity", "DataArray_t", ids);
            Topology.Boundary b = Topology.boundary(mesh);
            int f = java.util.stream.IntStream.range(0, b.size())
                    .filter(k -> b.offsets()[k + 1] - b.offsets()[k] == 4)
                    .findFirst()
                    .orElseThrow();
            int[] quad = new int[4];
            for (int k = 0; k < 4; k++) {
                quad[k] = 1 + b.nodes()[b.offsets()[f] + k];
            }
            var faces = node(zone, "faces", "Elements_t", new int[] {7, 0});
            node(faces, "ElementRange", "IndexRange_t", new int[] {mesh.cellCount() + 1, mesh.cellCount() + 1});
            node(faces, "ElementConnectivity", "DataArray_t", quad);
            var all = node(zone, "ZoneBC", "ZoneBC_t", null);
            var bc = node(all, "inlet", "BC_t", "BCInflow");
            node(bc, "GridLocation", "GridLocation_t", "FaceCenter");
            node(bc, "PointRange", "IndexRange_t", new int[] {mesh.cellCount() + 1, mesh.cellCount() + 1});
            var solution = node(zone, "sol", "FlowSolution_t", null);
            node(solution, "GridLocation", "GridLocation_t", "CellCenter");
            for (String c : List.of("VelocityX", "VelocityY", "VelocityZ", "Density")) {
                double[] v = new double[mesh.cellCount()];
                java.util.Arrays.fill(v, c.charAt(c.length() - 1));
                node(solution, c, "DataArray_t", v);
            }
        }
        Dataset d = read(file);
        assertThat(d.mesh().cellCount()).isEqualTo(4);
        assertThat(measure(d.mesh())).isCloseTo(2, within(1e-13));
        assertThat(field(d, "Velocity").components()).isEqualTo(3);
        assertThat(field(d, "Velocity").values().get(1)).isEqualTo('Y');
        assertThat(field(d, "Density").at()).isEqualTo(Field.At.CELL);
        assertThat(d.groups()).extracting(Dataset.Group::name).containsExactly("inlet");
        assertThat(new PartBuilder(d.mesh())
                        .place("inlet", d.groups().getFirst().surface(), List.of())
                        .unmatched())
                .isZero();
    }

    @Test
    void cgnsStructuredZonesBecomeOneRun() throws IOException {
        Path file = folder.resolve("s.cgns");
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            for (int z = 0; z < 2; z++) {
                Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
                double[] xyz = mesh.xyz().clone();
                for (int i = 0; i < xyz.length; i += 3) {
                    xyz[i] = 1000 * (xyz[i] + 2 * z);
                    xyz[i + 1] *= 1000;
                    xyz[i + 2] *= 1000;
                }
                var zone = node(base, "zone " + z, "Zone_t", new int[] {3, 2, 2, 2, 1, 1, 0, 0, 0});
                node(zone, "ZoneType", "ZoneType_t", "Structured");
                coordinates(zone, Mesh.uniform(xyz, CellShape.HEXAHEDRON, mesh.nodes()));
                node(
                        zone,
                        "units",
                        "DimensionalUnits_t",
                        String.format(
                                "%-32s%-32s%-32s%-32s%-32s", "Kilogram", "Millimeter", "Second", "Kelvin", "Radian"));
                var all = node(zone, "ZoneBC", "ZoneBC_t", null);
                var bc = node(all, "wall " + z, "BC_t", "BCWall");
                node(bc, "PointRange", "IndexRange_t", new int[] {1, 1, 1, 3, 1, 2});
                node(bc, "FamilyName", "FamilyName_t", "walls");
                // The same side again, told by its faces instead of its nodes.
                var byFace = node(all, "low " + z, "BC_t", "BCWall");
                node(byFace, "GridLocation", "GridLocation_t", "JFaceCenter");
                node(byFace, "PointRange", "IndexRange_t", new int[] {1, 1, 1, 2, 1, 1});
                // The first of the faces across i alone.
                var end = node(all, "end " + z, "BC_t", "BCInflow");
                node(end, "GridLocation", "GridLocation_t", "IFaceCenter");
                node(end, "PointRange", "IndexRange_t", new int[] {3, 1, 1, 3, 1, 1});
            }
        }
        Dataset d = read(file);
        assertThat(d.mesh().cellCount()).isEqualTo(4);
        assertThat(d.mesh().nodeCount()).isEqualTo(20);
        assertThat(measure(d.mesh())).isCloseTo(4, within(1e-12));
        assertThat(d.groups())
                .extracting(Dataset.Group::name)
                .containsExactlyInAnyOrder("walls", "low 0", "low 1", "end 0", "end 1");
        for (Dataset.Group g : d.groups()) {
            double area = g.name().equals("walls") ? 4 : g.name().startsWith("low") ? 2 : 1;
            assertThat(measure(g.surface())).as(g.name()).isCloseTo(area, within(1e-12));
        }
    }

    @Test
    void xdmfIncludesTheMeshOfAnotherGridOfTheSameFile() throws IOException {
        String mesh = "<Grid Name=\"mesh\" GridType=\"Uniform\"><Topology TopologyType=\"Tetrahedron\""
                + " NumberOfElements=\"1\"><DataItem Format=\"XML\" DataType=\"Int\" Dimensions=\"1 4\">0 1 2 3</DataItem>"
                + "</Topology><Geometry GeometryType=\"XYZ\"><DataItem Format=\"XML\" Dimensions=\"4 3\">"
                + "0 0 0 1 0 0 0 1 0 0 0 1</DataItem></Geometry></Grid>";
        String series = "<Grid GridType=\"Collection\" CollectionType=\"Temporal\"><Grid><Time Value=\"2\"/>"
                + "<xi:include %s/><Attribute Name=\"T\" Center=\"Node\"><DataItem Format=\"XML\" Dimensions=\"4\">"
                + "1 2 3 4</DataItem></Attribute></Grid></Grid>";
        String file = "<Xdmf Version=\"3.0\" xmlns:xi=\"http://www.w3.org/2001/XInclude\"><Domain>" + series + mesh
                + "</Domain></Xdmf>";
        String path = "xpointer=\"xpointer(//Grid[@Name=&quot;mesh&quot;]/*[self::Topology or self::Geometry])\"";
        Dataset d = read(write("i.xdmf", String.format(file, path)));
        assertThat(measure(d.mesh())).isCloseTo(1.0 / 6, within(1e-15));
        assertThat(d.times()).containsExactly(2.0);
        for (String wrong : List.of("href=\"/etc/passwd\" parse=\"text\"", "xpointer=\"element(/1)\"", "")) {
            Path bad = write("bad.xdmf", String.format(file, wrong));
            assertThatThrownBy(() -> read(bad))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("bad.xdmf");
        }
    }

    @Test
    void vtkhdfWithPartsAndTimes() throws IOException {
        Path file = folder.resolve("h.vtkhdf");
        double[][] points = new double[10][];
        for (int p = 0; p < 2; p++) {
            for (int i = 0; i < 4; i++) {
                points[4 * p + i] = new double[] {p + (i == 1 ? 1 : 0), i == 2 ? 1 : 0, i == 3 ? 1 : 0};
            }
        }
        points[8] = new double[] {9, 9, 9};
        points[9] = new double[] {9, 9, 8};
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", "UnstructuredGrid");
            root.putAttribute("Version", new int[] {2, 1});
            root.putDataset("NumberOfPoints", new long[] {4, 4});
            root.putDataset("NumberOfCells", new long[] {1, 1});
            root.putDataset("NumberOfConnectivityIds", new long[] {4, 4});
            root.putDataset("Points", points);
            root.putDataset("Connectivity", new long[] {0, 1, 2, 3, 0, 1, 2, 3});
            root.putDataset("Offsets", new long[] {0, 4, 0, 4});
            root.putDataset("Types", new byte[] {10, 10});
            var data = root.putGroup("PointData");
            // Two times of eight nodes each.
            float[] t = new float[16];
            for (int i = 0; i < 16; i++) {
                t[i] = i;
            }
            data.putDataset("T", t);
            var steps = root.putGroup("Steps");
            steps.putAttribute("NSteps", 2);
            steps.putDataset("Values", new double[] {0, 0.5});
            steps.putDataset("PartOffsets", new long[] {0, 0});
            steps.putDataset("NumberOfParts", new long[] {2, 2});
            steps.putDataset("PointOffsets", new long[] {0, 0});
            steps.putDataset("CellOffsets", new long[] {0, 0});
            steps.putDataset("ConnectivityIdOffsets", new long[] {0, 0});
            steps.putGroup("PointDataOffsets").putDataset("T", new long[] {0, 8});
        }
        Dataset d = read(file);
        assertThat(d.times()).containsExactly(0.0, 0.5);
        assertThat(d.mesh().cellCount()).isEqualTo(2);
        // The corner at (1, 0, 0) belongs to both parts.
        assertThat(d.mesh().nodeCount()).isEqualTo(7);
        assertThat(measure(d.mesh())).isCloseTo(1.0 / 3, within(1e-14));
        assertThat(field(d, "T").values().get(0)).isEqualTo(8);
    }

    @Test
    void xdmfWithNumbersInHdf5() throws IOException {
        Path h5 = folder.resolve("x data.h5");
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {2, 2, 1}, new double[] {1, 1, 1}, 0.1, 4);
        double[][] points = new double[mesh.nodeCount()][3];
        for (int i = 0; i < points.length; i++) {
            System.arraycopy(mesh.xyz(), 3 * i, points[i], 0, 3);
        }
        try (var hdf = io.jhdf.HdfFile.write(h5)) {
            var m = hdf.putGroup("mesh");
            m.putDataset("points", points);
            m.putDataset("cells", mesh.nodes());
        }
        String text =
                "<Xdmf><Domain><Grid><Topology TopologyType=\"Tetrahedron\" NumberOfElements=\"" + mesh.cellCount()
                        + "\"><DataItem Format=\"HDF\" Dimensions=\"" + mesh.cellCount()
                        + " 4\">x data.h5:/mesh/cells</DataItem></Topology>"
                        + "<Geometry GeometryType=\"XYZ\"><DataItem Format=\"HDF\" Dimensions=\"" + mesh.nodeCount()
                        + " 3\">%s:/mesh/points</DataItem></Geometry></Grid></Domain></Xdmf>";
        Dataset d = read(write("x.xdmf", String.format(text, "x data.h5")));
        assertThat(measure(d.mesh())).isCloseTo(1, within(1e-13));
        assertThatThrownBy(() -> read(write("evil.xdmf", String.format(text, "../x data.h5"))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("outside its folder");
        assertThatThrownBy(() -> read(write("lost.xdmf", String.format(text, "none.h5"))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("none.h5");
    }

    @Test
    void aRunIsSavedWithItsFieldsAndItsSurface() {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {2, 3, 2}, new double[] {2, 3, 2}, 0, 1);
        var fields = List.of(new Field("x", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(axis(mesh, 0))));
        var run = new lane.field.Run(mesh, fields, List.of(), List.of(), List.of());
        for (String ending : List.of("vtu", "vtp", "stl")) {
            Path file = folder.resolve("saved." + ending);
            RunWriter.write(file, run);
            Dataset again = read(file);
            // A box of 2 x 3 x 2: volume 12, surface 32.
            assertThat(measure(again.mesh())).isCloseTo(ending.equals("vtu") ? 12 : 32, within(1e-5));
            assertThat(again.fields()).hasSize(ending.equals("vtu") ? 1 : 0);
        }
        assertThatThrownBy(() -> RunWriter.write(folder.resolve("saved.doc"), run))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining(".vtu, .xdmf, .vtp or .stl");
    }

    @Test
    void vtkhdfPolyhedraInTwoParts() throws IOException {
        Path file = folder.resolve("p.vtkhdf");
        Mesh mesh = BoxMesh.of(CellShape.POLYHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        int n = mesh.nodeCount();
        // The same two polyhedra twice, the second part moved away; each cell has its own faces.
        List<Integer> faceNodes = new java.util.ArrayList<>();
        List<Integer> faceEnds = new java.util.ArrayList<>(List.of(0));
        List<Integer> toFace = new java.util.ArrayList<>();
        List<Integer> ofCell = new java.util.ArrayList<>(List.of(0));
        for (int c = 0; c < mesh.cellCount(); c++) {
            int at = mesh.faceBegin(c);
            int faces = mesh.faceStream()[at++];
            for (int f = 0; f < faces; f++) {
                int size = mesh.faceStream()[at++];
                for (int k = 0; k < size; k++) {
                    faceNodes.add(mesh.faceStream()[at++]);
                }
                toFace.add(faceEnds.size() - 1);
                faceEnds.add(faceNodes.size());
            }
            ofCell.add(toFace.size());
        }
        double[][] points = new double[2 * n][];
        for (int i = 0; i < 2 * n; i++) {
            points[i] = java.util.Arrays.copyOfRange(mesh.xyz(), 3 * (i % n), 3 * (i % n) + 3);
            points[i][2] += i < n ? 0 : 5;
        }
        int cells = mesh.cellCount();
        int size = mesh.nodes().length;
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", "UnstructuredGrid");
            root.putDataset("NumberOfPoints", new int[] {n, n});
            root.putDataset("NumberOfCells", new int[] {cells, cells});
            root.putDataset("NumberOfConnectivityIds", new int[] {size, size});
            root.putDataset("NumberOfFaces", new int[] {toFace.size(), toFace.size()});
            root.putDataset("NumberOfFaceConnectivityIds", new int[] {faceNodes.size(), faceNodes.size()});
            root.putDataset("NumberOfPolyhedronToFaceIds", new int[] {toFace.size(), toFace.size()});
            root.putDataset("Points", points);
            root.putDataset(
                    "Connectivity",
                    twice(java.util.Arrays.stream(mesh.nodes()).boxed().toList()));
            int[] begins = new int[cells + 1];
            java.util.Arrays.setAll(begins, c -> c == cells ? size : mesh.begin(c));
            root.putDataset(
                    "Offsets", twice(java.util.Arrays.stream(begins).boxed().toList()));
            root.putDataset("Types", twice(java.util.Collections.nCopies(cells, 42)));
            root.putDataset("FaceConnectivity", twice(faceNodes));
            root.putDataset("FaceOffsets", twice(faceEnds));
            root.putDataset("PolyhedronToFaces", twice(toFace));
            root.putDataset("PolyhedronOffsets", twice(ofCell));
        }
        Dataset d = read(file);
        assertThat(d.mesh().cellCount()).isEqualTo(2 * cells);
        assertThat(d.mesh().shape(3)).isEqualTo(CellShape.POLYHEDRON);
        assertThat(measure(d.mesh())).isCloseTo(4, within(1e-12));
    }

    private static int[] twice(List<Integer> list) {
        return java.util.stream.Stream.concat(list.stream(), list.stream())
                .mapToInt(i -> i)
                .toArray();
    }

    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aRunSavedAsXdmfIsReadBackTheSame(CellShape shape) throws IOException {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 2, 2}, new double[] {1, 2, 3}, 0, 5);
        double[] p = new double[mesh.nodeCount()];
        float[] u = new float[3 * mesh.cellCount()];
        for (int i = 0; i < p.length; i++) {
            p[i] = mesh.xyz()[3 * i] / 3;
        }
        for (int i = 0; i < u.length; i++) {
            u[i] = i;
        }
        int[] region = new int[mesh.cellCount()];
        java.util.Arrays.setAll(region, i -> i % 4);
        var run = new lane.field.Run(
                mesh,
                List.of(
                        new Field("p <a> & \"b\"", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(p)),
                        new Field("u", Field.At.CELL, 3, Unit.UNKNOWN, new Values.Floats(u)),
                        new Field("region", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Ints(region))),
                List.of(),
                List.of(),
                List.of());
        Path file = folder.resolve("saved run.xdmf");
        RunWriter.write(file, run);
        assertThat(numbers()).hasSize(1).allMatch(n -> n.matches("saved run-[0-9a-f]{8}\\.h5"));
        Dataset d = read(file);
        assertThat(d.mesh().cellCount()).isEqualTo(mesh.cellCount());
        assertThat(d.mesh().xyz()).containsExactly(mesh.xyz());
        assertThat(measure(d.mesh())).isCloseTo(6, within(1e-12));
        for (int i = 0; i < p.length; i++) {
            assertThat(field(d, "p <a> & \"b\"").values().get(i)).isEqualTo(p[i]);
        }
        for (int i = 0; i < u.length; i++) {
            assertThat(field(d, "u").values().get(i)).isEqualTo(u[i]);
        }
        assertThat(field(d, "region").values().get(5)).isEqualTo(1);
    }

    @Test
    void arraysBeyondTwoGigabytesOfAFileAreRead() throws IOException {
        // A sparse file: the arrays stand at the end of 2.3 GB of nothing.
        Path file = folder.resolve("large.vtu");
        long far = 2_300_000_000L;
        String head =
                "<VTKFile type=\"UnstructuredGrid\" version=\"1.0\" byte_order=\"LittleEndian\" header_type=\"UInt64\">"
                        + "<UnstructuredGrid><Piece NumberOfPoints=\"4\" NumberOfCells=\"1\">"
                        + "<PointData><DataArray type=\"Float64\" Name=\"a\" format=\"appended\" offset=\""
                        + (far + 200) + "\"/></PointData>"
                        + "<Points><DataArray type=\"Float64\" NumberOfComponents=\"3\" format=\"appended\" offset=\""
                        + far
                        + "\"/></Points><Cells><DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3</DataArray>"
                        + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">4</DataArray>"
                        + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">10</DataArray></Cells></Piece></UnstructuredGrid>"
                        + "<AppendedData encoding=\"raw\">_";
        ByteBuffer points =
                ByteBuffer.allocate(8 + 96).order(ByteOrder.LITTLE_ENDIAN).putLong(96);
        for (double v : new double[] {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 6}) {
            points.putDouble(v);
        }
        ByteBuffer values =
                ByteBuffer.allocate(8 + 32).order(ByteOrder.LITTLE_ENDIAN).putLong(32);
        for (double v : new double[] {7, 8, 9, 10}) {
            values.putDouble(v);
        }
        try (var out = java.nio.channels.FileChannel.open(
                file,
                java.nio.file.StandardOpenOption.CREATE,
                java.nio.file.StandardOpenOption.WRITE,
                java.nio.file.StandardOpenOption.SPARSE)) {
            byte[] text = head.getBytes(StandardCharsets.US_ASCII);
            out.write(ByteBuffer.wrap(text));
            out.write(points.flip(), text.length + far);
            out.write(values.flip(), text.length + far + 200);
            out.write(
                    ByteBuffer.wrap("\n</AppendedData></VTKFile>".getBytes(StandardCharsets.US_ASCII)),
                    text.length + far + 300);
        }
        assertThat(Files.size(file)).isGreaterThan(1L << 31);
        Dataset d = read(file);
        assertThat(measure(d.mesh())).isCloseTo(1, within(1e-12));
        assertThat(field(d, "a").values().get(3)).isEqualTo(10);
        Files.delete(file);
    }

    private List<String> numbers() throws IOException {
        try (var all = Files.list(folder)) {
            return all.map(f -> f.getFileName().toString())
                    .filter(n -> n.endsWith(".h5"))
                    .sorted()
                    .toList();
        }
    }

    @Test
    void anXdmfThatIsWrittenAgainKeepsItsNumbersUntilItIsReplaced() throws IOException {
        Path file = folder.resolve("drum.xdmf");
        Mesh small = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {1, 1, 1}, new double[] {1, 1, 1}, 0, 1);
        Mesh large = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 1);
        Path foreign = Files.writeString(folder.resolve("drum.h5"), "somebody's");
        lane.formats.hdf.XdmfWriter.write(file, small, List.of());
        byte[] first = Files.readAllBytes(file);
        List<String> before = numbers();
        lane.formats.hdf.XdmfWriter.write(file, large, List.of());
        assertThat(numbers())
                .hasSize(2)
                .contains("drum.h5")
                .doesNotContainAnyElementsOf(
                        before.stream().filter(n -> !n.equals("drum.h5")).toList());
        assertThat(read(file).mesh().cellCount()).isEqualTo(2);
        assertThat(foreign).hasContent("somebody's");
        // Killed between the two: the old description with the new numbers beside it is still the old run.
        lane.formats.hdf.XdmfWriter.write(file, small, List.of());
        lane.formats.hdf.XdmfWriter.write(folder.resolve("other.xdmf"), large, List.of());
        Files.move(
                folder.resolve(numbers().stream()
                        .filter(n -> n.startsWith("other"))
                        .findFirst()
                        .orElseThrow()),
                folder.resolve("drum-00000000.h5"));
        assertThat(Files.readAllBytes(file)).isEqualTo(first);
        assertThat(read(file).mesh().cellCount()).isEqualTo(1);
    }
}
