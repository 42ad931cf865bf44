package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.formats.grid.Dataset;
import lane.formats.study.StudyJson;
import lane.formats.table.TableReader;
import lane.reference.Recipe;
import lane.reference.Table;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Files that are odd on purpose or by accident: each is read as it is meant, or refused before it costs much. */
class HostileFilesTest {
    @TempDir
    Path folder;

    private static final String GRID = """
            <VTKFile type="%s" version="1.0" byte_order="LittleEndian" header_type="UInt32"><%s>
            <Piece NumberOfPoints="11" NumberOfCells="1"><PointData>%s</PointData>
            <Points><DataArray type="Float64" NumberOfComponents="3" format="ascii">
            0 0 0 2 0 0 0 2 0 0 0 2 1 0 0 0 1 0 0 0 1 1 1 0 1 0 1 0 1 1 .5 .5 .5</DataArray></Points>
            <Cells><DataArray type="Int64" Name="connectivity" format="ascii">0 1 2 3</DataArray>
            <DataArray type="Int64" Name="offsets" format="ascii">4</DataArray>
            <DataArray type="UInt8" Name="types" format="ascii">10</DataArray></Cells>
            </Piece></%s>%s</VTKFile>""";

    private Path grid(String fields, String after) throws IOException {
        String text = GRID.formatted("UnstructuredGrid", "UnstructuredGrid", fields, "UnstructuredGrid", after);
        return Files.writeString(folder.resolve("marsh.vtu"), text);
    }

    @Test
    void bitArraysAreReadHoweverTheyAreStored() throws IOException {
        double[] wet = {1, 0, 1, 1, 0, 0, 0, 1, 1, 1, 0};
        // The first value is the highest bit.
        byte[] packed = {2, 0, 0, 0, (byte) 0b10110001, (byte) 0b11000000};
        String base64 = Base64.getEncoder().encodeToString(packed);
        String ascii = "<DataArray type=\"Bit\" Name=\"wet\" format=\"ascii\">1 0 1 1 0 0 0 1 1 1 0</DataArray>";
        String binary = "<DataArray type=\"Bit\" Name=\"wet\" format=\"binary\">" + base64 + "</DataArray>";
        String appended = "<DataArray type=\"Bit\" Name=\"wet\" format=\"appended\" offset=\"0\"/>";
        for (String way : new String[] {ascii, binary, appended}) {
            Path file = grid(
                    way,
                    way.equals(appended) ? "<AppendedData encoding=\"base64\">_" + base64 + "</AppendedData>" : "");
            assertThat(Both.values(Both.read(file, Work.QUIET), "wet")).as(way).containsExactly(wet);
        }
        String shortOne = Base64.getEncoder().encodeToString(new byte[] {1, 0, 0, 0, 7});
        Path file = grid(binary.replace(base64, shortOne), "");
        assertThatThrownBy(() -> Both.values(DatasetReader.read(file, Work.QUIET), "wet"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("\"wet\"");
    }

    @Test
    void anArrayOfAKindThatIsNotReadCostsItselfAndNotTheFile() throws IOException {
        Path file = grid(
                "<DataArray type=\"Complex64\" Name=\"odd\" format=\"ascii\">1 2 3</DataArray>"
                        + "<DataArray type=\"Float32\" Name=\"even\" format=\"ascii\">1 2 3 4 5 6 7 8 9 10 11</DataArray>",
                "");
        Dataset d = Both.read(file, Work.QUIET);
        assertThat(d.fields()).extracting(Field::name).containsExactly("even");
        assertThat(d.remarks())
                .containsExactly("Array \"odd\" is of the kind \"Complex64\", which is not read, and was left out.");
        Files.writeString(file, Files.readString(file).replace("type=\"Float64\"", "type=\"Complex64\""));
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET)).hasMessageContaining("Complex64");
    }

    @Test
    void aTypeThatTheContentDisagreesWithIsRefused() throws IOException {
        Path file = Files.writeString(
                folder.resolve("two.vtu"), GRID.formatted("PolyData", "UnstructuredGrid", "", "UnstructuredGrid", ""));
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .hasMessageContaining("says that it is a PolyData and holds a UnstructuredGrid");
    }

    private Path workbook(String sheet) throws IOException {
        Path file = folder.resolve("book.xlsx");
        try (var zip = new ZipOutputStream(Files.newOutputStream(file))) {
            Map<String, String> parts = Map.of(
                    "[Content_Types].xml",
                    "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"/>",
                    "_rels/.rels",
                    "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"/>",
                    "xl/workbook.xml",
                    "<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"><sheets><sheet name=\"a\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>",
                    "xl/_rels/workbook.xml.rels",
                    "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"rId1\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>",
                    "xl/worksheets/sheet1.xml",
                    "<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>" + sheet
                            + "</sheetData></worksheet>");
            for (var e : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(e.getKey()));
                zip.write(e.getValue().getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return file;
    }

    private static Table table(Path file) {
        return TableReader.read(
                file,
                file.getFileName().toString(),
                Recipe.of(TableReader.kind(file, file.getFileName().toString())));
    }

    @Test
    void aWorkbookIsReadWithinTheRoomOfASheet() throws IOException {
        String head =
                "<row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>depth [m]</t></is></c><c r=\"B1\" t=\"inlineStr\"><is><t>T [K]</t></is></c></row>";
        Path sound = workbook(head + "<row r=\"2\"><c r=\"A2\"><v>1</v></c><c r=\"B2\"><v>280</v></c></row>");
        assertThat(table(sound).columns()).hasSize(2);
        for (String far : new String[] {
            "<row r=\"2\"><c r=\"ZZZZZZ2\"><v>1</v></c></row>",
            "<row r=\"2\"><c r=\"ZZZ2\"><v>1</v></c></row>",
            "<row r=\"999999999\"><c r=\"A999999999\"><v>1</v></c></row>",
            "<row r=\"2\"><c r=\"-1\"><v>1</v></c></row>"
        }) {
            Path file = workbook(head + far);
            assertThatThrownBy(() -> table(file)).as(far).hasMessageContaining("it has a cell at \"");
        }
    }

    @Test
    void aWorkbookThatUnpacksToMoreThanItSaysIsRefused() throws IOException {
        Path file = workbook("<row r=\"1\"><c r=\"A1\"><v>1</v></c></row>" + " ".repeat(200_000_000));
        // Its directory says that everything in it is small.
        byte[] zip = Files.readAllBytes(file);
        for (int i = 0; i + 46 < zip.length; i++) {
            if (zip[i] == 'P' && zip[i + 1] == 'K' && zip[i + 2] == 1 && zip[i + 3] == 2) {
                zip[i + 24] = 100;
                zip[i + 25] = 0;
                zip[i + 26] = 0;
                zip[i + 27] = 0;
            }
        }
        Files.write(file, zip);
        assertThatThrownBy(() -> table(file)).isInstanceOf(LaneException.class).hasMessageContaining("book.xlsx");
    }

    @ParameterizedTest
    @ValueSource(strings = {"\n", " ", " \t", "#", "\n ", ", "})
    void manyBlanksCostNoMoreThanTheirNumber(String blank) throws IOException {
        // Quadratic work on these would take the better part of a minute each.
        Path file = Files.writeString(
                folder.resolve("gauge.csv"),
                blank.repeat(200_000) + "\nt [s],h [m]\n0,1\n1,2\n" + blank.repeat(200_000));
        try {
            assertThat(table(file).columns()).isNotEmpty();
        } catch (LaneException e) {
            assertThat(e.getMessage()).contains("gauge.csv");
        }
    }

    @Test
    void aPipeIsNoFile() throws Exception {
        Path pipe = folder.resolve("pipe.vtu");
        try {
            Assumptions.assumeTrue(
                    new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor() == 0);
        } catch (IOException e) {
            Assumptions.abort("no mkfifo");
        }
        assertThatThrownBy(() -> DatasetReader.read(pipe, Work.QUIET)).hasMessageContaining("a pipe or a device");
        assertThatThrownBy(() -> StudyJson.load(pipe)).hasMessageContaining("a pipe or a device");
        assertThatThrownBy(() -> table(pipe)).hasMessageContaining("a pipe or a device");
    }

    @Test
    void theOlderContainerOfCgnsIsNamed() throws IOException {
        byte[] head = "@(#)ADF Database Version A02011>".getBytes(StandardCharsets.ISO_8859_1);
        Path file = Files.write(folder.resolve("weir.cgns"), java.util.Arrays.copyOf(head, 4096));
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("weir.cgns")
                .hasMessageContaining("ADF")
                .hasMessageContaining("HDF5");
    }
}
