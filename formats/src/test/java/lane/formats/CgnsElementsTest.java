package lane.formats;

import static lane.formats.Known.node;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.formats.grid.Dataset;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Elements of CGNS with the nodes in the order of its standard: corners, then the middles of edges, faces and the cell. Each is
 * bent by a map that keeps volumes, so that a node in a wrong place would show.
 */
class CgnsElementsTest {
    @TempDir
    Path folder;

    private static final double[][] TETRAHEDRON = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    private static final double[][] PYRAMID = {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0.5, 0.5, 1}};
    private static final double[][] PRISM = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {0, 1, 1}};
    private static final double[][] CUBE = {
        {0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {1, 1, 1}, {0, 1, 1}
    };
    /** Corners, counted from one, between which the further nodes stand. */
    private static final int[][] TETRAHEDRON_MIDDLES = {{1, 2}, {2, 3}, {3, 1}, {1, 4}, {2, 4}, {3, 4}};

    private static final int[][] PYRAMID_MIDDLES = {
        {1, 2}, {2, 3}, {3, 4}, {4, 1}, {1, 5}, {2, 5}, {3, 5}, {4, 5}, {1, 2, 3, 4}
    };
    private static final int[][] PRISM_MIDDLES = {
        {1, 2}, {2, 3}, {3, 1}, {1, 4}, {2, 5}, {3, 6}, {4, 5}, {5, 6}, {6, 4}, {1, 2, 5, 4}, {2, 3, 6, 5}, {3, 1, 4, 6}
    };
    private static final int[][] CUBE_MIDDLES = {
        {1, 2},
        {2, 3},
        {3, 4},
        {4, 1},
        {1, 5},
        {2, 6},
        {3, 7},
        {4, 8},
        {5, 6},
        {6, 7},
        {7, 8},
        {8, 5},
        {1, 2, 3, 4},
        {1, 2, 6, 5},
        {2, 3, 7, 6},
        {3, 4, 8, 7},
        {1, 5, 8, 4},
        {5, 6, 7, 8},
        {1, 2, 3, 4, 5, 6, 7, 8}
    };

    private static List<double[]> nodes(double[][] corners, int[][] middles, int count) {
        List<double[]> out = new ArrayList<>(List.of(corners));
        for (int i = 0; out.size() < count; i++) {
            double[] m = new double[3];
            for (int c : middles[i]) {
                for (int d = 0; d < 3; d++) {
                    m[d] += corners[c - 1][d] / middles[i].length;
                }
            }
            out.add(m);
        }
        return out;
    }

    private Path write(List<double[]> nodes, String unit, int[]... sections) {
        Path file = folder.resolve("e.cgns");
        int cells = 0;
        for (int[] s : sections) {
            cells += s[1];
        }
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            var zone = node(base, "zone", "Zone_t", new int[] {nodes.size(), cells, 0});
            node(zone, "ZoneType", "ZoneType_t", "Unstructured");
            var grid = node(zone, "GridCoordinates", "GridCoordinates_t", null);
            for (int d = 0; d < 3; d++) {
                int at = d;
                var array = node(
                        grid,
                        "Coordinate" + "XYZ".charAt(d),
                        "DataArray_t",
                        nodes.stream().mapToDouble(n -> n[at]).toArray());
                if (!unit.isEmpty()) {
                    String five = String.join(
                            "", List.of(pad("Kilogram"), pad(unit), pad("Second"), pad("Kelvin"), pad("Degree")));
                    node(array, "DimensionalUnits", "DimensionalUnits_t", five);
                }
            }
            int first = 1;
            for (int k = 0; k < sections.length; k++) {
                int[] s = sections[k];
                var elements = node(zone, "section " + k, "Elements_t", new int[] {s[0], 0});
                node(elements, "ElementRange", "IndexRange_t", new int[] {first, first + s[1] - 1});
                node(elements, "ElementConnectivity", "DataArray_t", java.util.Arrays.copyOfRange(s, 2, s.length));
                first += s[1];
            }
            var solution = node(zone, "sol", "FlowSolution_t", null);
            node(
                    solution,
                    "Pressure",
                    "DataArray_t",
                    nodes.stream().mapToDouble(n -> n[0]).toArray());
        }
        return file;
    }

    private static String pad(String text) {
        return (text + " ".repeat(32)).substring(0, 32);
    }

    private static int[] section(int type, int nodes) {
        int[] out = new int[2 + nodes];
        out[0] = type;
        out[1] = 1;
        for (int i = 0; i < nodes; i++) {
            out[2 + i] = i + 1;
        }
        return out;
    }

    private static Dataset read(Path file) {
        return Both.read(file, Work.QUIET);
    }

    @ParameterizedTest
    @CsvSource({
        "10, 4, 0.16666666666666666",
        "11, 10, 0.16666666666666666",
        "12, 5, 0.3333333333333333",
        "21, 13, 0.3333333333333333",
        "13, 14, 0.3333333333333333",
        "14, 6, 0.5",
        "15, 15, 0.5",
        "16, 18, 0.5",
        "17, 8, 1",
        "18, 20, 1",
        "19, 27, 1",
    })
    void volumesOfEveryElement(int type, int count, double volume) {
        double[][] corners =
                type < 12 ? TETRAHEDRON : type == 12 || type == 13 || type == 21 ? PYRAMID : type < 17 ? PRISM : CUBE;
        int[][] middles = corners == TETRAHEDRON
                ? TETRAHEDRON_MIDDLES
                : corners == PYRAMID ? PYRAMID_MIDDLES : corners == PRISM ? PRISM_MIDDLES : CUBE_MIDDLES;
        List<double[]> nodes = nodes(corners, middles, count);
        boolean bent = count > 8 && corners != PYRAMID;
        for (double[] n : nodes) {
            // Shear, and for those that can follow it a bend; neither changes a volume.
            n[0] += 0.3 * n[2] + (bent ? 0.2 * n[1] * n[1] : 0);
            n[1] -= 0.1 * n[2] + (bent ? 0.25 * n[2] * n[2] : 0);
        }
        Mesh mesh = read(write(nodes, "", section(type, count))).mesh();
        assertThat(mesh.cellCount()).isEqualTo(1);
        var cell = new Cell(mesh);
        assertThat(cell.load(0).measure()).isCloseTo(volume, within(1e-12));
        // A place told by the middle of the corners is found in it, so the map is the right way round.
        double[] c = new double[3];
        cell.centre(c);
        assertThat(cell.locate(c[0], c[1], c[2])).isLessThan(1e-9);
    }

    @ParameterizedTest
    @CsvSource({"5, 3, 0.5", "6, 6, 0.5", "7, 4, 1", "8, 8, 1", "9, 9, 1"})
    void facesBesideACellAreAGroupOfTheirOwn(int type, int count, double area) {
        int[][] around = {{1, 2}, {2, 3}, {3, 4}, {4, 1}, {1, 2, 3, 4}};
        int[][] three = {{1, 2}, {2, 3}, {3, 1}};
        double[][] square = {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}};
        double[][] triangle = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}};
        List<double[]> nodes = type < 7 ? nodes(triangle, three, count) : nodes(square, around, count);
        List<double[]> all = new ArrayList<>(nodes);
        for (double[] n : TETRAHEDRON) {
            all.add(new double[] {n[0] + 5, n[1], n[2]});
        }
        int[] solid = {10, 1, count + 1, count + 2, count + 3, count + 4};
        Dataset d = read(write(all, "", solid, section(type, count)));
        assertThat(d.mesh().cellCount()).isEqualTo(1);
        assertThat(d.groups()).hasSize(1);
        Mesh faces = d.groups().getFirst().surface();
        assertThat(new Cell(faces).load(0).measure()).isCloseTo(area, within(1e-13));
    }

    @Test
    void mixedSectionsNameEachElement() {
        List<double[]> nodes = new ArrayList<>(nodes(CUBE, CUBE_MIDDLES, 8));
        nodes.add(new double[] {0.5, 0.5, 2});
        int[] mixed = {20, 2, 17, 1, 2, 3, 4, 5, 6, 7, 8, 12, 5, 6, 7, 8, 9};
        Mesh mesh = read(write(nodes, "", mixed)).mesh();
        assertThat(mesh.cellCount()).isEqualTo(2);
        var cell = new Cell(mesh);
        assertThat(cell.load(0).measure()).isCloseTo(1, within(1e-13));
        assertThat(cell.load(1).measure()).isCloseTo(1.0 / 3, within(1e-13));
    }

    @ParameterizedTest
    @CsvSource({"Meter, 1", "Millimeter, 0.001", "Centimeter, 0.01", "Foot, 0.3048", "Inch, 0.0254", "UserDefined, 1"})
    void theLengthOfTheFileIsTaken(String unit, double metres) {
        Dataset d = read(write(nodes(CUBE, CUBE_MIDDLES, 8), unit, section(17, 8)));
        assertThat(new Cell(d.mesh()).load(0).measure()).isCloseTo(Math.pow(metres, 3), within(1e-12 * metres));
        Field p = d.fields().getFirst();
        assertThat(p.name()).isEqualTo("Pressure");
        assertThat(p.values().get(1)).isEqualTo(1);
    }

    @ParameterizedTest
    @ValueSource(ints = {30, 24, 40, 56})
    void elementsOfAHigherOrderAreToldByTheirNumber(int type) {
        assertThatThrownBy(() -> read(write(nodes(CUBE, CUBE_MIDDLES, 8), "", section(type, 8))))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("type " + type)
                .hasMessageContaining("linear or quadratic");
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 9, -3})
    void aNodeThatIsNotThereIsTold(int wrong) {
        int[] s = section(17, 8);
        s[5] = wrong;
        assertThatThrownBy(() -> read(write(nodes(CUBE, CUBE_MIDDLES, 8), "", s)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("e.cgns");
    }
}
