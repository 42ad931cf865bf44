package lane.formats;

import static lane.formats.Known.measure;
import static lane.formats.Known.values;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.grid.Dataset;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The sections of legacy files, each in text and in binary, with known answers. */
class LegacyTest {
    @TempDir
    Path folder;

    /** Writes the same file as text or in binary. */
    private static final class Form {
        private final boolean binary;
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        private final DataOutputStream out = new DataOutputStream(bytes);

        Form(boolean binary, String dataset) {
            this.binary = binary;
            line("# vtk DataFile Version 3.0");
            line("made up");
            line(binary ? "BINARY" : "ASCII");
            line("DATASET " + dataset);
        }

        Form line(String text) {
            put(text + "\n");
            return this;
        }

        private void put(String text) {
            try {
                out.write(text.getBytes(StandardCharsets.US_ASCII));
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        }

        Form numbers(String type, double... values) {
            try {
                for (double v : values) {
                    if (!binary) {
                        put((type.equals("float") || type.equals("double")
                                        ? String.valueOf(v)
                                        : String.valueOf((long) v))
                                + " ");
                        continue;
                    }
                    switch (type) {
                        case "float" -> out.writeFloat((float) v);
                        case "double" -> out.writeDouble(v);
                        case "char", "unsigned_char" -> out.writeByte((int) v);
                        case "short", "unsigned_short" -> out.writeShort((int) v);
                        case "int", "unsigned_int", "vtkIdType" -> out.writeInt((int) (long) v);
                        default -> out.writeLong((long) v);
                    }
                }
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
            put("\n");
            return this;
        }
    }

    private Dataset read(Form form) throws IOException {
        Path file = folder.resolve("a.vtk");
        Files.write(file, form.bytes.toByteArray());
        return Both.read(file, Work.QUIET);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void rectilinearAndStructuredGrids(boolean binary) throws IOException {
        Dataset d = read(new Form(binary, "RECTILINEAR_GRID")
                .line("DIMENSIONS 3 2 2")
                .line("X_COORDINATES 3 float")
                .numbers("float", 0, 1, 4)
                .line("Y_COORDINATES 2 double")
                .numbers("double", 0, 2)
                .line("Z_COORDINATES 2 float")
                .numbers("float", 1, 2)
                .line("CELL_DATA 2")
                .line("SCALARS p double 1")
                .line("LOOKUP_TABLE default")
                .numbers("double", 10, 20));
        assertThat(measure(d.mesh())).isCloseTo(8, within(1e-13));
        assertThat(values(d, "p")).containsExactly(10, 20);
        Dataset s = read(new Form(binary, "STRUCTURED_GRID")
                .line("DIMENSIONS 2 2 1")
                .line("POINTS 4 float")
                .numbers("float", 0, 0, 0, 2, 0, 0, 0, 1, 0, 2, 1, 0)
                .line("POINT_DATA 4")
                .line("VECTORS u float")
                .numbers("float", 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12));
        assertThat(measure(s.mesh())).isCloseTo(2, within(1e-14));
        assertThat(values(s, "u")).hasSize(12).endsWith(10, 11, 12);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void everyKindOfArray(boolean binary) throws IOException {
        Form f = new Form(binary, "POLYDATA")
                .line("POINTS 3 double")
                .numbers("double", 0, 0, 0, 1, 0, 0, 0, 1, 0)
                .line("POLYGONS 1 4")
                .numbers("int", 3, 0, 1, 2)
                .line("CELL_DATA 1")
                .line("NORMALS n float")
                .numbers("float", 0, 0, 1)
                .line("TENSORS t double")
                .numbers("double", 1, 2, 3, 4, 5, 6, 7, 8, 9)
                .line("TENSORS6 s float")
                .numbers("float", 1, 2, 3, 4, 5, 6)
                .line("POINT_DATA 3")
                .line("SCALARS plain short")
                .line("LOOKUP_TABLE shades")
                .numbers("short", -3, 4, 32000)
                .line("LOOKUP_TABLE shades 1")
                .numbers(binary ? "unsigned_char" : "float", 1, 0, 1, 1)
                .line("SCALARS two float 2")
                .line("LOOKUP_TABLE default")
                .numbers("float", 1, 2, 3, 4, 5, 6)
                .line("TEXTURE_COORDINATES where 2 float")
                .numbers("float", 0, 0, 1, 0, 0, 1)
                .line("COLOR_SCALARS tint 3")
                .numbers(binary ? "unsigned_char" : "float", 0, 1, 0, 1, 0, 1, 0, 0, 1)
                .line("GLOBAL_IDS ids vtkIdType")
                .numbers("vtkIdType", 7, 8, 9)
                .line("FIELD FieldData 2")
                .line("long%20name 1 3 unsigned_char")
                .numbers("unsigned_char", 1, 200, 255)
                .line("wide 1 3 long")
                .numbers("long", 1, 2, 1L << 20);
        Dataset d = read(f);
        assertThat(values(d, "n")).containsExactly(0, 0, 1);
        assertThat(values(d, "t")).containsExactly(1, 2, 3, 4, 5, 6, 7, 8, 9);
        assertThat(values(d, "s")).containsExactly(1, 2, 3, 4, 5, 6);
        assertThat(values(d, "plain")).containsExactly(-3, 4, 32000);
        assertThat(values(d, "two")).containsExactly(1, 2, 3, 4, 5, 6);
        assertThat(values(d, "where")).containsExactly(0, 0, 1, 0, 0, 1);
        assertThat(values(d, "tint")).hasSize(9);
        assertThat(values(d, "ids")).containsExactly(7, 8, 9);
        assertThat(values(d, "long name")).containsExactly(1, 200, 255);
        assertThat(values(d, "wide")).containsExactly(1, 2, 1 << 20);
    }

    @ParameterizedTest
    @CsvSource({
        "char, -5",
        "unsigned_short, 60000",
        "unsigned_int, 3000000000",
        "vtktypeint64, 5",
        "unsigned_long, 6",
        "vtktypeuint64, 7",
    })
    void everyWidthOfNumbersKeepsItsSign(String type, double value) throws IOException {
        for (boolean binary : new boolean[] {false, true}) {
            Dataset d = read(triangle(binary)
                    .line("CELL_DATA 1")
                    .line("SCALARS v " + type)
                    .line("LOOKUP_TABLE default")
                    .numbers(type, value));
            assertThat(values(d, "v")).containsExactly(value);
        }
    }

    private static Form triangle(boolean binary) {
        return new Form(binary, "POLYDATA")
                .line("POINTS 3 float")
                .numbers("float", 0, 0, 0, 1, 0, 0, 0, 1, 0)
                .line("POLYGONS 1 4")
                .numbers("int", 3, 0, 1, 2);
    }

    /** Cell arrays of a surface stand in the order points, curves, polygons, strips, wherever the sections stand. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void pointsCurvesPolygonsAndStripsInOneFile(boolean binary) throws IOException {
        Dataset d = read(new Form(binary, "POLYDATA")
                .line("POINTS 5 float")
                .numbers("float", 0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0, 0.5, 2, 0)
                .line("TRIANGLE_STRIPS 1 5")
                .numbers("int", 4, 0, 1, 2, 3)
                .line("LINES 2 7")
                .numbers("int", 2, 0, 1, 3, 0, 1, 3)
                .line("VERTICES 1 2")
                .numbers("int", 1, 4)
                .line("POLYGONS 2 10")
                .numbers("int", 3, 2, 3, 4, 5, 0, 1, 3, 4, 2)
                .line("CELL_DATA 6")
                .line("SCALARS k int")
                .line("LOOKUP_TABLE default")
                .numbers("int", 1, 2, 3, 4, 5, 6));
        Mesh m = d.mesh();
        int strip = 0;
        for (int c = 0; c < m.cellCount(); c++) {
            double k = values(d, "k")[c];
            switch (m.shape(c)) {
                case VERTEX -> assertThat(k).isEqualTo(1);
                case LINE, POLYLINE -> assertThat(k).isEqualTo(m.size(c) == 2 ? 2 : 3);
                case POLYGON -> assertThat(k).isEqualTo(5);
                case TRIANGLE -> {
                    assertThat(k).isIn(4.0, 6.0);
                    strip += k == 6 ? 1 : 0;
                }
                default -> throw new AssertionError(m.shape(c));
            }
        }
        assertThat(strip).isEqualTo(2);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aPolyhedronBesideATetrahedron(boolean binary) throws IOException {
        Form f = new Form(binary, "UNSTRUCTURED_GRID")
                .line("POINTS 5 double")
                .numbers("double", 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, -2)
                .line("CELLS 2 23")
                .numbers("int", 17, 4, 3, 0, 2, 1, 3, 0, 1, 3, 3, 1, 2, 3, 3, 0, 3, 2, 4, 0, 2, 1, 4)
                .line("CELL_TYPES 2")
                .numbers("int", 42, 10);
        Dataset d = read(f);
        assertThat(d.mesh().shape(0)).isEqualTo(CellShape.POLYHEDRON);
        var cell = new Cell(d.mesh());
        assertThat(cell.load(0).measure()).isCloseTo(1.0 / 6, within(1e-15));
        assertThat(cell.load(1).measure()).isCloseTo(1.0 / 3, within(1e-15));
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aTimeAndTextsOfTheFileAreNoFields(boolean binary) throws IOException {
        Form f = triangle(binary);
        var whole = new Form(binary, "POLYDATA").line("FIELD FieldData 2").line("TIME 1 1 double");
        whole.numbers("double", 2.5).line("notes 1 2 string");
        if (binary) {
            // A short text says its length in one byte, a longer one in two.
            whole.out.writeByte(0xC0 | 5);
            whole.out.writeBytes("a\nb c");
            whole.out.writeShort(0x8000 | 100);
            whole.out.writeBytes("x".repeat(100));
            whole.out.writeBytes("\n");
        } else {
            whole.line("one%20text").line("another");
        }
        byte[] head = new Form(binary, "POLYDATA").bytes.toByteArray();
        whole.out.write(f.bytes.toByteArray(), head.length, f.bytes.size() - head.length);
        Dataset d = read(whole);
        assertThat(d.time()).isEqualTo(2.5);
        assertThat(d.mesh().cellCount()).isEqualTo(1);
        assertThat(d.fields()).isEmpty();
    }

    /** Numbers of a binary file may begin with bytes that look like blanks. */
    @Test
    void numbersThatLookLikeBlanks() throws IOException {
        for (int first : new int[] {' ', '\n', '\r', '\t'}) {
            var f = triangle(true).line("CELL_DATA 1").line("SCALARS v unsigned_char");
            f.line("LOOKUP_TABLE default").numbers("unsigned_char", first);
            assertThat(values(read(f), "v")).containsExactly(first);
            var g = triangle(true).line("CELL_DATA 1").line("NORMALS n float");
            float like = Float.intBitsToFloat(first << 24 | 0x123456);
            g.numbers("float", like, 1, 2);
            assertThat(values(read(g), "n")).containsExactly(like, 1, 2);
        }
    }

    @Test
    void metadataIsPassedOver() throws IOException {
        Dataset d = read(triangle(false)
                .line("METADATA")
                .line("INFORMATION 1")
                .line("NAME a LOCATION b")
                .line("DATA 2 0 1")
                .line("")
                .line("CELL_DATA 1")
                .line("FIELD FieldData 2")
                .line("a 1 1 float")
                .numbers("float", 3)
                .line("METADATA")
                .line("INFORMATION 0")
                .line("")
                .line("b 1 1 float")
                .numbers("float", 4));
        assertThat(values(d, "a")).containsExactly(3);
        assertThat(values(d, "b")).containsExactly(4);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|POLYGONS 1 4|5 0 1 2; sizes of its cells",
                "POINTS 3 float|0 0 0 1 0 0 0 1; file ends before",
                "POINTS 3 quad|0 0 0 1 0 0 0 1 0; quad",
                "POINTS -3 float|0; where a count belongs",
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|SCALARS v float|LOOKUP_TABLE default|1; before POINT_DATA",
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|POLYGONS 1 4|3 0 1 2|CELL_DATA 2|NORMALS n float|1 2 3 4 5 6; 2 entries",
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|POLYGONS 2 4|OFFSETS int|0 3|CONNECTIVITY int|0 1 2 0; do not fit",
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|POLYGONS 3 4|OFFSETS int|0 3 2|CONNECTIVITY int|0 1 2 0; go backwards",
                "POINTS 3 float|0 0 0 1 0 0 0 1 0|POLYGONS 2 3|OFFSETS int|0 3|LIST int|0 1 2; lacks the connectivity",
                "NONSENSE 3; where a section begins",
                "POINTS 3 float|0 0 0 1 0 0 0 x 0; x",
            })
    void faultsAreToldInOneSentence(String lines, String told) {
        Form f = new Form(false, "POLYDATA");
        for (String line : lines.split("\\|")) {
            f.line(line);
        }
        assertThatThrownBy(() -> read(f))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("a.vtk")
                .hasMessageContaining(told);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "UNSTRUCTURED_GRID; POINTS 1 float|0 0 0; lacks its points, cells",
                "STRUCTURED_GRID; DIMENSIONS 2 2 2|POINTS 1 float|0 0 0; do not fit its dimensions",
                "RECTILINEAR_GRID; DIMENSIONS 2 2 2|X_COORDINATES 2 float|0 1; do not fit its dimensions",
                "STRUCTURED_POINTS; SPACING 1 1 1; lacks its dimensions",
                "STRUCTURED_POINTS; DIMENSIONS 900 900 9; more than the file has bytes",
                "TABLE; FIELD f 0; TABLE",
            })
    void gridsThatDoNotFitAreTold(String kind, String lines, String told) {
        Form f = new Form(false, kind);
        for (String line : lines.split("\\|")) {
            f.line(line);
        }
        assertThatThrownBy(() -> read(f)).isInstanceOf(LaneException.class).hasMessageContaining(told);
    }
}
