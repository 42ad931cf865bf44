package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.study.StudyJson;
import lane.formats.table.TableReader;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Integral;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.Recipe;
import lane.station.OnPart;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Each way in which a file fails has a kind of its own, which reaches the lane's answer; the sentence names the file once. */
class FaultsTest {
    @TempDir
    Path folder;

    private static LaneException of(Runnable read) {
        return catchThrowableOfType(LaneException.class, read::run);
    }

    private LaneException reading(String name, String text) throws IOException {
        Path file = Files.writeString(folder.resolve(name), text);
        LaneException e = of(() -> DatasetReader.read(file, Work.QUIET));
        assertThat(e.getMessage().split(name, -1)).as(e.getMessage()).hasSize(2);
        return e;
    }

    @Test
    void whatIsNotThereIsNotRead() {
        assertThat(of(() -> DatasetReader.read(folder.resolve("none.vtu"), Work.QUIET))
                        .fault())
                .isEqualTo(Fault.NOT_READ);
        assertThat(of(() -> DatasetReader.read(folder, Work.QUIET)).fault()).isEqualTo(Fault.NOT_READ);
        assertThat(of(() -> DatasetReader.read(folder.resolve("t*.vtu"), Work.QUIET))
                        .fault())
                .isEqualTo(Fault.NOT_READ);
        assertThat(of(() -> TableReader.read(folder.resolve("none.csv"), "none.csv", Recipe.of("")))
                        .fault())
                .isEqualTo(Fault.NOT_READ);
    }

    @Test
    void damageAndWhatIsNotSupportedAreToldApart() throws IOException {
        assertThat(reading("a.vtu", "<VTKFile type=\"UnstructuredGrid\"><Unstr").fault())
                .isEqualTo(Fault.DAMAGED);
        assertThat(reading("b.vtu", "<VTKFile type=\"HyperTreeGrid\"></VTKFile>")
                        .fault())
                .isEqualTo(Fault.UNSUPPORTED);
        assertThat(reading("c.vtk", "# vtk DataFile Version 3.0\nx\nASCII\nDATASET FIELDS\n")
                        .fault())
                .isIn(Fault.UNSUPPORTED, Fault.DAMAGED);
        assertThat(reading(
                                "d.xdmf",
                                "<Xdmf><Domain><Grid><Topology TopologyType=\"Octopus\" NumberOfElements=\"1\"><DataItem "
                                        + "Dimensions=\"1\">0</DataItem></Topology><Geometry GeometryType=\"XYZ\"><DataItem "
                                        + "Dimensions=\"3\">0 0 0</DataItem></Geometry></Grid></Domain></Xdmf>")
                        .fault())
                .isEqualTo(Fault.UNSUPPORTED);
        assertThat(reading(
                                "e.vtu",
                                "<VTKFile type=\"ImageData\"><ImageData WholeExtent=\"0 60000 0 60000 0 60000\"><Piece "
                                        + "Extent=\"0 60000 0 60000 0 60000\"></Piece></ImageData></VTKFile>")
                        .fault())
                .isEqualTo(Fault.TOO_LARGE);
        assertThat(of(() -> TableReader.read(write("t.csv", ""), "t.csv", Recipe.of("")))
                        .fault())
                .isEqualTo(Fault.DAMAGED);
        assertThat(of(() -> StudyJson.load(write("s.lane.json", "{\"version\": 2, \"name\"")))
                        .fault())
                .isEqualTo(Fault.DAMAGED);
    }

    private Path write(String name, String text) {
        try {
            return Files.writeString(folder.resolve(name), text);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Test
    void aFileThatAnotherRefersToIsNamedWithTheOneThatRefers() throws IOException {
        Files.writeString(folder.resolve("inner.vtu"), "<VTKFile type=\"UnstructuredGrid\"><Unstr");
        LaneException e = reading(
                "outer.pvd",
                "<VTKFile type=\"Collection\"><Collection><DataSet timestep=\"1\" file=\"inner.vtu\"/></Collection></VTKFile>");
        assertThat(e.fault()).isEqualTo(Fault.DAMAGED);
        assertThat(e).hasMessageContaining("inner.vtu");
    }

    @Test
    void aDamagedFieldCostsWhatIsMadeOfItAndNothingElse() throws IOException {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {8, 8, 8}, new double[] {1, 1, 1}, 0, 1);
        double[] dust = new double[mesh.nodeCount()];
        double[] salt = new double[mesh.nodeCount()];
        Arrays.setAll(dust, i -> Math.sin(i));
        Arrays.fill(salt, 2);
        Path file = folder.resolve("shaft.vtu");
        VtkXmlWriter.writeGrid(
                file,
                mesh,
                List.of(
                        new Field("salt", Field.At.NODE, 1, Unit.ONE, Values.of(salt)),
                        new Field("dust", Field.At.NODE, 1, Unit.ONE, Values.of(dust))),
                VtkXmlWriter.Options.DEFAULT);
        byte[] bytes = Files.readAllBytes(file);
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        int offset = Integer.parseInt(text.replaceAll("(?s).*Name=\"dust\"[^>]*offset=\"(\\d+)\".*", "$1"));
        int at = text.indexOf('_', text.indexOf("<AppendedData")) + 1 + offset;
        // Into the packed numbers, behind the sizes.
        Arrays.fill(bytes, at + 60, at + 90, (byte) 0x55);
        Files.write(file, bytes);
        Study study = Study.empty("s")
                .withSources(l -> List.of(new Source.Simulation("v", "v", "shaft.vtu", List.of(), "", "f")))
                .withQuantities(
                        l -> List.of(new Quantity("s", "s", "salt", "", ""), new Quantity("d", "d", "dust", "", "")))
                .withStations(l -> List.of(new Station("w", "w", new OnPart("boundary"))))
                .withReadings(l -> List.of(
                        new Reading("rs", "rs", "", new TallyOf(List.of("w"), new Integral("s"))),
                        new Reading("rd", "rd", "", new TallyOf(List.of("w"), new Integral("d")))));
        Results results = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
        assertThat(results.outcome("rs", "v").numbers().getFirst().value())
                .isCloseTo(12, org.assertj.core.api.Assertions.within(1e-9));
        Outcome none = results.outcome("rd", "v");
        assertThat(none).isInstanceOf(Outcome.Absent.class);
        assertThat(((Outcome.Absent) none).brief()).isEqualTo("damaged");
        assertThat(((Outcome.Absent) none).reason()).contains("shaft.vtu").contains("dust");
    }
}
