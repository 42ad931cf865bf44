package lane.formats;

import java.io.IOException;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.study.StudyJson;
import lane.formats.table.TableReader;
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
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/** Every reader against damaged files of its format. */
@Execution(ExecutionMode.CONCURRENT)
class FuzzTest {
    @TempDir(factory = InMemory.class)
    Path folder;

    private static List<Field> fields(Mesh mesh) {
        double[] p = new double[mesh.nodeCount()];
        int[] region = new int[mesh.cellCount()];
        for (int i = 0; i < p.length; i++) {
            p[i] = mesh.xyz()[3 * i] * 1e5;
        }
        for (int i = 0; i < region.length; i++) {
            region[i] = i % 3;
        }
        return List.of(
                new Field("p", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(p)),
                new Field("region", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Ints(region)));
    }

    private List<byte[]> xml(CellShape shape, int n) throws IOException {
        Mesh mesh = BoxMesh.of(shape, new int[] {n, n, n}, new double[] {1, 1, 1}, 0.1, 2);
        List<byte[]> seeds = new ArrayList<>();
        for (Encoding e : Encoding.values()) {
            for (boolean zlib : new boolean[] {false, true}) {
                Path file = folder.resolve("seed.vtu");
                VtkXmlWriter.writeGrid(file, mesh, fields(mesh), new Options(e, zlib, ByteOrder.LITTLE_ENDIAN, zlib));
                seeds.add(Files.readAllBytes(file));
            }
        }
        return seeds;
    }

    @Test
    void vtu() throws IOException {
        List<byte[]> seeds = xml(CellShape.HEXAHEDRON, 4);
        seeds.addAll(xml(CellShape.POLYHEDRON, 2));
        // What is read must also be sound enough to look for its boundary.
        Fuzz.same(folder, ".vtu", seeds, f -> {
            Dataset d = VtkXmlReader.read(f, Work.QUIET);
            new PartBuilder(d.mesh());
            return d;
        });
    }

    @Test
    void vtp() throws IOException {
        Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 1, 1}, 0, 1);
        Mesh skin = new PartBuilder(box).whole("skin").surface();
        Path file = folder.resolve("seed.vtp");
        List<byte[]> seeds = new ArrayList<>();
        for (Encoding e : Encoding.values()) {
            VtkXmlWriter.writeSurface(file, skin, List.of(), new Options(e, true, ByteOrder.BIG_ENDIAN, false));
            seeds.add(Files.readAllBytes(file));
        }
        Fuzz.same(folder, ".vtp", seeds, f -> VtkXmlReader.read(f, Work.QUIET));
    }

    private void text(String ending, String... seeds) throws IOException {
        text(ending, true, seeds);
    }

    private void text(String ending, boolean explicit, String... seeds) throws IOException {
        List<byte[]> all = new ArrayList<>();
        for (String seed : seeds) {
            all.add(seed.getBytes(StandardCharsets.UTF_8));
        }
        Fuzz.same(folder, ending, all, explicit, Both.now());
    }

    @Test
    void legacy() throws IOException {
        String points = "POINTS 5 float\n0 0 0 1 0 0 1 1 0 0 1 0 0.5 0.5 1\n";
        text(
                ".vtk",
                "# vtk DataFile Version 3.0\nx\nASCII\nDATASET UNSTRUCTURED_GRID\n" + points
                        + "CELLS 2 10\n5 0 1 2 3 4\n3 0 1 2\nCELL_TYPES 2\n14 5\nCELL_DATA 2\nSCALARS c int 1\n"
                        + "LOOKUP_TABLE default\n4 5\nPOINT_DATA 5\nVECTORS u float\n1 0 0 2 0 0 3 0 0 4 0 0 5 0 0\n",
                "# vtk DataFile Version 5.1\nx\nASCII\nDATASET UNSTRUCTURED_GRID\n" + points
                        + "CELLS 3 8\nOFFSETS vtktypeint64\n0 5 8\nCONNECTIVITY vtktypeint64\n0 1 2 3 4 0 1 2\nCELL_TYPES 2\n14\n5\n");
        text(
                ".vtk",
                false,
                "# vtk DataFile Version 2.0\nx\nASCII\nDATASET STRUCTURED_POINTS\nDIMENSIONS 2 3 1\nORIGIN 1 0 0\n"
                        + "SPACING 2 1 1\nPOINT_DATA 6\nSCALARS t float\nLOOKUP_TABLE default\n1 2 3 4 5 6\n");
    }

    @Test
    void structuredXml() throws IOException {
        String head = "<VTKFile type=\"%s\" byte_order=\"LittleEndian\">";
        text(
                ".vti",
                false,
                String.format(head, "ImageData")
                        + "<ImageData WholeExtent=\"0 2 0 1 0 0\" Origin=\"0 0 0\" Spacing=\"1 1 1\"><Piece Extent=\"0 2 0 1 0 0\">"
                        + "<PointData><DataArray type=\"Float32\" Name=\"a\" format=\"ascii\">1 2 3 4 5 6</DataArray></PointData>"
                        + "</Piece></ImageData></VTKFile>",
                String.format(head, "RectilinearGrid")
                        + "<RectilinearGrid WholeExtent=\"0 2 0 1 0 0\"><Piece Extent=\"0 2 0 1 0 0\"><Coordinates>"
                        + "<DataArray type=\"Float64\" format=\"ascii\">0 1 4</DataArray><DataArray type=\"Float64\" format=\"ascii\">"
                        + "0 2</DataArray><DataArray type=\"Float64\" format=\"ascii\">5</DataArray></Coordinates></Piece>"
                        + "</RectilinearGrid></VTKFile>");
    }

    @Test
    void surfaces() throws IOException {
        // Corners of equal place are one node: damage that moves a corner changes how many nodes there are.
        Fuzz.run(
                folder,
                ".stl",
                List.of(
                        ("solid left\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n"
                                        + "endsolid left\n")
                                .getBytes(StandardCharsets.US_ASCII)),
                f -> Both.read(f, Work.QUIET));
        // Each line stands for itself: one that goes, or is drawn into a name, leaves a sound file with a line less.
        Fuzz.run(
                folder,
                ".obj",
                List.of("v 0 0 0\nv 2 0 0\nv 2 1 0\nv 0 1 0\ng plate\nf 1/1/1 2/2 3//3 4\ng tip\nf -4 -1 -3\n"
                        .getBytes(StandardCharsets.US_ASCII)),
                f -> Both.read(f, Work.QUIET));
        text(
                ".ply",
                "ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\nelement face 1\n"
                        + "property list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n1 1 0\n0 1 0\n4 0 1 2 3\n");
    }

    @Test
    void xdmf() throws IOException {
        text(
                ".xdmf",
                "<Xdmf><Domain><Grid><Topology TopologyType=\"Mixed\" NumberOfElements=\"2\"><DataItem DataType=\"Int\" "
                        + "Dimensions=\"9\">6 0 1 2 3 4 0 1 2</DataItem></Topology><Geometry GeometryType=\"XYZ\"><DataItem "
                        + "Dimensions=\"4 3\">0 0 0 1 0 0 0 1 0 0 0 1</DataItem></Geometry><Attribute Name=\"T\" Center=\"Node\">"
                        + "<DataItem Dimensions=\"4\">1 2 3 4</DataItem></Attribute></Grid></Domain></Xdmf>");
    }

    @Test
    void hdf() throws IOException {
        Path seed = folder.resolve("seed.vtkhdf");
        try (var hdf = io.jhdf.HdfFile.write(seed)) {
            var root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", "UnstructuredGrid");
            root.putDataset("NumberOfPoints", new long[] {4});
            root.putDataset("NumberOfCells", new long[] {1});
            root.putDataset("NumberOfConnectivityIds", new long[] {4});
            root.putDataset("Points", new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}});
            root.putDataset("Connectivity", new long[] {0, 1, 2, 3});
            root.putDataset("Offsets", new long[] {0, 4});
            root.putDataset("Types", new byte[] {10});
            root.putGroup("PointData").putDataset("T", new float[] {1, 2, 3, 4});
        }
        byte[] packed = Files.readAllBytes(Path.of(
                FuzzTest.class.getResource("/lane/formats/stored.vtkhdf").getPath()));
        Fuzz.same(folder, ".vtkhdf", List.of(Files.readAllBytes(seed), packed), Both.now());
    }

    private static io.jhdf.api.WritableGroup node(
            io.jhdf.api.WritableGroup parent, String name, String label, Object data) {
        io.jhdf.api.WritableGroup g = parent.putGroup(name);
        g.putAttribute("label", label);
        if (data != null) {
            g.putDataset(" data", data instanceof String t ? t.getBytes(StandardCharsets.US_ASCII) : data);
        }
        return g;
    }

    @Test
    void cgns() throws IOException {
        Path seed = folder.resolve("seed.cgns");
        try (var hdf = io.jhdf.HdfFile.write(seed)) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            var zone = node(base, "z", "Zone_t", new int[] {4, 1, 0});
            node(zone, "ZoneType", "ZoneType_t", "Unstructured");
            var grid = node(zone, "GridCoordinates", "GridCoordinates_t", null);
            node(grid, "CoordinateX", "DataArray_t", new double[] {0, 1, 0, 0});
            node(grid, "CoordinateY", "DataArray_t", new double[] {0, 0, 1, 0});
            node(grid, "CoordinateZ", "DataArray_t", new double[] {0, 0, 0, 1});
            var cells = node(zone, "cells", "Elements_t", new int[] {10, 0});
            node(cells, "ElementRange", "IndexRange_t", new int[] {1, 1});
            node(cells, "ElementConnectivity", "DataArray_t", new int[] {1, 2, 3, 4});
            var bc = node(node(zone, "ZoneBC", "ZoneBC_t", null), "wall", "BC_t", "BCWall");
            node(bc, "PointList", "IndexArray_t", new int[] {1, 2, 3});
            var solution = node(zone, "sol", "FlowSolution_t", null);
            node(solution, "P", "DataArray_t", new double[] {1, 2, 3, 4});
        }
        Fuzz.same(folder, ".cgns", List.of(Files.readAllBytes(seed)), Both.now());
    }

    @Test
    void binarySurfaces() throws IOException {
        var stl = java.nio.ByteBuffer.allocate(84 + 2 * 50).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        stl.putInt(80, 2);
        for (int t = 0; t < 2; t++) {
            for (int k = 0; k < 12; k++) {
                stl.putFloat(84 + 50 * t + 4 * k, k % 4 + t);
            }
        }
        Fuzz.run(folder, ".stl", List.of(stl.array()), f -> Both.read(f, Work.QUIET));
        String head =
                "ply\nformat binary_little_endian 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\n"
                        + "element face 1\nproperty list uchar int vertex_indices\nend_header\n";
        var ply = java.nio.ByteBuffer.allocate(head.length() + 48 + 17).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        ply.put(head.getBytes(StandardCharsets.US_ASCII));
        for (float v : new float[] {0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0}) {
            ply.putFloat(v);
        }
        ply.put((byte) 4).putInt(0).putInt(1).putInt(2).putInt(3);
        Fuzz.same(folder, ".ply", List.of(ply.array()), Both.now());
    }

    @Test
    void filesThatReferToOthers() throws IOException {
        String grid =
                "<VTKFile type=\"UnstructuredGrid\"><UnstructuredGrid><Piece NumberOfPoints=\"4\" NumberOfCells=\"1\"><Points>"
                        + "<DataArray type=\"Float64\" NumberOfComponents=\"3\" format=\"ascii\">0 0 0 1 0 0 0 1 0 0 0 1</DataArray></Points><Cells>"
                        + "<DataArray type=\"Int32\" Name=\"connectivity\" format=\"ascii\">0 1 2 3</DataArray>"
                        + "<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">4</DataArray>"
                        + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">10</DataArray></Cells></Piece></UnstructuredGrid></VTKFile>";
        Files.writeString(folder.resolve("one1.vtu"), grid);
        Files.writeString(folder.resolve("one2.vtu"), grid);
        Fuzz.same(
                folder,
                ".pvd",
                List.of(("<VTKFile type=\"Collection\"><Collection><DataSet timestep=\"1\" file=\"one1.vtu\"/>"
                                + "<DataSet timestep=\"2\" file=\"one2.vtu\"/></Collection></VTKFile>")
                        .getBytes(StandardCharsets.US_ASCII)),
                Both.now());
        Fuzz.same(
                folder,
                ".vtm",
                List.of(("<VTKFile type=\"vtkMultiBlockDataSet\"><vtkMultiBlockDataSet><Block index=\"0\" name=\"a\">"
                                + "<DataSet index=\"0\" name=\"b\" file=\"one1.vtu\"/></Block><DataSet index=\"1\" file=\"one2.vtu\"/>"
                                + "</vtkMultiBlockDataSet></VTKFile>")
                        .getBytes(StandardCharsets.US_ASCII)),
                Both.now());
        Fuzz.same(
                folder,
                ".pvtu",
                List.of(
                        ("<VTKFile type=\"PUnstructuredGrid\"><PUnstructuredGrid GhostLevel=\"0\"><PPoints><PDataArray type=\"Float64\" "
                                        + "NumberOfComponents=\"3\"/></PPoints><Piece Source=\"one1.vtu\"/><Piece Source=\"one2.vtu\"/>"
                                        + "</PUnstructuredGrid></VTKFile>")
                                .getBytes(StandardCharsets.US_ASCII)),
                Both.now());
    }

    @Test
    void csv() throws IOException {
        List<byte[]> seeds = List.of(
                "# made up\nradius [mm],temperature [degC],u\n30,40.1,0.2\n31,,0.2\n32,nan,0.3\n"
                        .getBytes(StandardCharsets.UTF_8),
                "Zeit;Drehmoment\ns;mN m\n0,1;24,1\n0,2;-\n\"0,3\";24,4\n".getBytes(StandardCharsets.ISO_8859_1),
                "a\tb\n1e5\t-2\n3\t4\n".getBytes(StandardCharsets.UTF_16));
        Fuzz.run(folder, ".csv", seeds.subList(0, 2), f -> TableReader.read(f, "damaged.csv"));
    }

    @Test
    void study() throws IOException {
        String seed = Files.readString(Path.of(
                FuzzTest.class.getResource("/lane/formats/study-seed.json").getPath()));
        Fuzz.run(folder, ".lane.json", List.of(seed.getBytes(StandardCharsets.UTF_8)), StudyJson::load);
    }

    @Test
    void claimsThatTheFileCannotBearAreRefusedBeforeAnythingIsAllocated() throws IOException {
        String head =
                "<VTKFile type=\"UnstructuredGrid\" byte_order=\"LittleEndian\" header_type=\"UInt32\"%s><UnstructuredGrid>"
                        + "<Piece NumberOfPoints=\"2000000000\" NumberOfCells=\"2000000000\"><Points>"
                        + "<DataArray type=\"Float64\" NumberOfComponents=\"3\" format=\"%s\">%s</DataArray></Points><Cells>"
                        + "<DataArray type=\"Int64\" Name=\"connectivity\" format=\"ascii\">0 1 2</DataArray>"
                        + "<DataArray type=\"Int64\" Name=\"offsets\" format=\"ascii\">3</DataArray>"
                        + "<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">5</DataArray></Cells></Piece>"
                        + "</UnstructuredGrid></VTKFile>";
        String[] files = {
            String.format(head, "", "ascii", "0 0 0 1 0 0 0 1 0"),
            // A size of four thousand million bytes, and as many blocks.
            String.format(head, "", "binary", "/////w=="),
            String.format(head, " compressor=\"vtkZLibDataCompressor\"", "binary", "////f////3////9/"),
            String.format(head, " compressor=\"vtkZLibDataCompressor\"", "binary", "AQAAAP///38AAAAACAAAAHicY2AAAA=="),
            "<VTKFile type=\"UnstructuredGrid\">" + "<a>".repeat(100_000),
            "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">]><VTKFile>&b;</VTKFile>",
            "<?xml version=\"1.0\"?><VTKFile type=\"" + "x".repeat(1 << 20) + "\"/>",
        };
        for (int i = 0; i < files.length; i++) {
            byte[] bytes = files[i].getBytes(StandardCharsets.US_ASCII);
            boolean refused = Fuzz.one(
                    folder.resolve("hostile.vtu"), bytes, "hostile " + i, f -> VtkXmlReader.read(f, Work.QUIET));
            org.assertj.core.api.Assertions.assertThat(refused)
                    .as("hostile " + i)
                    .isTrue();
        }
    }
}
