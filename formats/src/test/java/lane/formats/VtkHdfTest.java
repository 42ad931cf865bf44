package lane.formats;

import static lane.formats.Known.measure;
import static lane.formats.Known.values;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import io.jhdf.HdfFile;
import io.jhdf.api.WritableGroup;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.function.Consumer;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Images, surfaces and blocks in HDF5 by the open layout, with known sizes and values. */
class VtkHdfTest {
    @TempDir
    Path folder;

    private int files;

    private Path write(String type, Consumer<WritableGroup> what) {
        Path file = folder.resolve(files++ + "/a.vtkhdf");
        file.getParent().toFile().mkdirs();
        try (var hdf = HdfFile.write(file)) {
            WritableGroup root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", type);
            root.putAttribute("Version", new int[] {2, 1});
            what.accept(root);
        }
        return file;
    }

    private Dataset read(String type, Consumer<WritableGroup> what) {
        return Both.read(write(type, what), Work.QUIET);
    }

    /** Arrays of an image stand slowest first: z, y, x, then components. */
    private static void extent(WritableGroup g) {
        g.putAttribute("WholeExtent", new int[] {2, 4, 0, 1, -1, 0});
        g.putAttribute("Origin", new double[] {10, 20, 30});
        g.putAttribute("Spacing", new double[] {0.5, 2, 3});
        g.putAttribute("Direction", new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1});
    }

    private static double[][][] scalars(int z, int y, int x, double first) {
        double[][][] out = new double[z][y][x];
        for (int i = 0; i < z * y * x; i++) {
            out[i / (x * y)][i / x % y][i % x] = first + i;
        }
        return out;
    }

    @Test
    void anImageThatDoesNotBeginAtZero() {
        Dataset d = read("ImageData", g -> {
            extent(g);
            g.putGroup("PointData").putDataset("T", scalars(2, 2, 3, 0));
            double[][][][] v = new double[1][1][2][3];
            v[0][0][1] = new double[] {4, 5, 6};
            v[0][0][0] = new double[] {1, 2, 3};
            g.putGroup("CellData").putDataset("v", v);
        });
        assertThat(d.mesh().cellCount()).isEqualTo(2);
        assertThat(d.mesh().bounds()).containsExactly(11, 12, 20, 22, 27, 30);
        assertThat(measure(d.mesh())).isCloseTo(2 * 0.5 * 2 * 3, within(1e-12));
        double[] t = values(d, "T");
        for (int i = 0; i < t.length; i++) {
            double x = d.mesh().xyz()[3 * i];
            double y = d.mesh().xyz()[3 * i + 1];
            double z = d.mesh().xyz()[3 * i + 2];
            assertThat(t[i]).isCloseTo((x - 11) / 0.5 + 3 * (y - 20) / 2 + 6 * (z - 27) / 3, within(1e-9));
        }
        assertThat(values(d, "v")).containsExactly(1, 2, 3, 4, 5, 6);
    }

    @Test
    void anImageOverTime() {
        Path file = write("ImageData", g -> {
            extent(g);
            double[][][][] all = {scalars(2, 2, 3, 0), scalars(2, 2, 3, 100), scalars(2, 2, 3, 200)};
            g.putGroup("PointData").putDataset("T", all);
            WritableGroup steps = g.putGroup("Steps");
            steps.putAttribute("NSteps", 3);
            steps.putDataset("Values", new double[] {0, 1, 2});
            steps.putGroup("PointDataOffsets").putDataset("T", new long[] {0, 1, 2});
            // Cells count their steps on their own: the last time has the first entry.
            g.putGroup("CellData").putDataset("q", new double[][][][] {{{{7, 8}}}, {{{9, 10}}}, {{{11, 12}}}});
            steps.putGroup("CellDataOffsets").putDataset("q", new long[] {2, 1, 0});
        });
        Dataset last = Both.read(file, Work.QUIET);
        assertThat(last.times()).containsExactly(0.0, 1.0, 2.0);
        assertThat(Arrays.stream(values(last, "T")).min().orElseThrow()).isEqualTo(200);
        assertThat(values(last, "q")).containsExactly(7, 8);
        Dataset second = Both.read(file, new TimeSelector.At(1, 0), Work.QUIET);
        assertThat(values(second, "T")).hasSize(12);
        assertThat(Arrays.stream(values(second, "T")).max().orElseThrow()).isEqualTo(111);
    }

    private static void cells(WritableGroup g, String kind, long[] offsets, long[] nodes) {
        WritableGroup k = g.putGroup(kind);
        k.putDataset("NumberOfCells", new long[] {offsets.length - 1});
        k.putDataset("NumberOfConnectivityIds", new long[] {nodes.length});
        k.putDataset("Offsets", offsets);
        // Nothing is written as an array of nothing by this writer, so one unused number stands in its place.
        k.putDataset("Connectivity", nodes.length == 0 ? new long[1] : nodes);
    }

    @Test
    void aSurfaceOfPointsCurvesPolygonsAndStrips() {
        Dataset d = read("PolyData", g -> {
            g.putDataset("NumberOfPoints", new long[] {5});
            g.putDataset("Points", new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {1, 1, 0}, {0.5, 2, 0}});
            cells(g, "Vertices", new long[] {0, 1}, new long[] {4});
            cells(g, "Lines", new long[] {0, 2, 5}, new long[] {0, 1, 0, 1, 3});
            cells(g, "Polygons", new long[] {0, 3, 7}, new long[] {2, 3, 4, 0, 1, 3, 2});
            cells(g, "Strips", new long[] {0, 4}, new long[] {0, 1, 2, 3});
            g.putGroup("CellData").putDataset("k", new double[] {1, 2, 3, 4, 5, 6});
        });
        Mesh m = d.mesh();
        double[] k = values(d, "k");
        int seen = 0;
        for (int c = 0; c < m.cellCount(); c++) {
            switch (m.shape(c)) {
                case VERTEX -> assertThat(k[c]).isEqualTo(1);
                case LINE, POLYLINE -> assertThat(k[c]).isEqualTo(m.size(c) == 2 ? 2 : 3);
                case QUAD -> assertThat(k[c]).isEqualTo(5);
                case TRIANGLE -> assertThat(k[c]).isIn(4.0, 6.0);
                default -> throw new AssertionError(m.shape(c));
            }
            seen++;
        }
        assertThat(seen).isEqualTo(7);
    }

    private static void tetrahedron(WritableGroup g, double size, double value) {
        g.putAttribute("Type", "UnstructuredGrid");
        g.putAttribute("Version", new int[] {2, 1});
        g.putDataset("NumberOfPoints", new long[] {4});
        g.putDataset("NumberOfCells", new long[] {1});
        g.putDataset("NumberOfConnectivityIds", new long[] {4});
        g.putDataset("Points", new double[][] {{0, 0, 0}, {size, 0, 0}, {0, 1, 0}, {0, 0, size < 0 ? -1 : 1}});
        g.putDataset("Connectivity", new long[] {0, 1, 2, 3});
        g.putDataset("Offsets", new long[] {0, 4});
        g.putDataset("Types", new byte[] {10});
        g.putGroup("CellData").putDataset("q", new double[] {value});
    }

    @Test
    void blocksBecomeOneRun() {
        for (String type : new String[] {"PartitionedDataSetCollection", "MultiBlockDataSet"}) {
            Dataset d = read(type, g -> {
                // An empty group would be written wrongly by the library.
                g.putGroup("Assembly").putDataset("about", new int[1]);
                tetrahedron(g.putGroup("left"), -2, 7);
                tetrahedron(g.putGroup("right"), 1, 8);
            });
            assertThat(d.mesh().cellCount()).isEqualTo(2);
            assertThat(measure(d.mesh())).isCloseTo(1.0 / 6 + 2.0 / 6, within(1e-14));
            assertThat(values(d, "q")).containsExactlyInAnyOrder(7, 8);
            assertThat(d.fields()).allMatch(f -> f.at() == Field.At.CELL);
            assertThat(d.mesh().shape(0)).isEqualTo(CellShape.TETRAHEDRON);
        }
    }

    private void refused(String told, String type, Consumer<WritableGroup> what) {
        assertThatThrownBy(() -> read(type, what))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("a.vtkhdf")
                .hasMessageContaining(told);
    }

    @Test
    void faultsAreToldInOneSentence() {
        refused("Tree", "Tree", g -> g.putGroup("x"));
        refused("no block", "MultiBlockDataSet", g -> g.putGroup("Assembly"));
        refused("lacks its extent", "ImageData", g -> g.putGroup("PointData"));
        refused("no array for them", "ImageData", g -> g.putAttribute("WholeExtent", new int[] {0, 999, 0, 999, 0, 9}));
        refused("array \"T\" has 12 numbers", "ImageData", g -> {
            g.putAttribute("WholeExtent", new int[] {0, 3, 0, 3, 0, 3});
            g.putGroup("PointData").putDataset("T", scalars(2, 2, 3, 0));
        });
        refused("claims 9 points", "UnstructuredGrid", g -> {
            g.putDataset("NumberOfPoints", new long[] {9});
            g.putDataset("NumberOfCells", new long[] {1});
            g.putDataset("NumberOfConnectivityIds", new long[] {4});
            g.putDataset("Points", new double[4][3]);
            g.putDataset("Connectivity", new long[] {0, 1, 2, 3});
            g.putDataset("Offsets", new long[] {0, 4});
            g.putDataset("Types", new byte[] {10});
        });
        refused("go backwards or too far", "UnstructuredGrid", g -> {
            g.putDataset("NumberOfPoints", new long[] {4});
            g.putDataset("NumberOfCells", new long[] {1});
            g.putDataset("NumberOfConnectivityIds", new long[] {4});
            g.putDataset("Points", new double[4][3]);
            g.putDataset("Connectivity", new long[] {0, 1, 2, 3});
            g.putDataset("Offsets", new long[] {0, 8});
            g.putDataset("Types", new byte[] {10});
        });
        Path file = folder.resolve("b.vtkhdf");
        try (var hdf = HdfFile.write(file)) {
            hdf.putGroup("CGNSLibraryVersion");
        }
        assertThatThrownBy(() -> Both.read(file, Work.QUIET)).hasMessageContaining("name it .cgns");
    }
}
