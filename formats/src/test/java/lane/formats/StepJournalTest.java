package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Values;
import lane.formats.io.FileHash;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.reading.HistoryOf;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Region;
import lane.station.Station;
import lane.station.Within;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Grain in a bin whose moisture is written at the hours 1 to 6, and read twice. */
class StepJournalTest {
    @TempDir
    Path folder;

    private static final Mesh MESH =
            BoxMesh.of(CellShape.TETRAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 4);

    private void write(int hour, double moisture) {
        double[] v = new double[MESH.nodeCount()];
        java.util.Arrays.fill(v, moisture);
        VtkXmlWriter.writeGrid(
                folder.resolve("bin_" + hour + ".vtu"),
                MESH,
                List.of(new Field("moisture", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(v))),
                VtkXmlWriter.Options.DEFAULT);
    }

    @BeforeEach
    void bin() {
        for (int hour = 1; hour <= 6; hour++) {
            write(hour, 10 * hour);
        }
    }

    private record Read(Profile profile, int known) {}

    private Read read(String formula) {
        return read(formula, List.of());
    }

    private Read read(String formula, List<String> parts) {
        return read(formula, parts, new FileLibrary(folder));
    }

    private static Read read(String formula, List<String> parts, FileLibrary library) {
        return read(formula, parts, library, library);
    }

    private static Read read(String formula, List<String> parts, Library asked, FileLibrary library) {
        var treatment = new Treatment(TimeSelector.LAST, "", null, Map.of(), Map.of(), Map.of(), 1.0, null, List.of());
        Study study = Study.empty("bin")
                .withSources(l -> List.of(new Source.Simulation("bin", "bin", "bin_*.vtu", parts, "", "", treatment)))
                .withQuantities(l -> List.of(new Quantity("m", "m", formula, "", "")))
                .withStations(l -> List.of(new Station("all", "all", new Region(new Within.All()))))
                .withReadings(l -> List.of(new Reading(
                        "r", "r", "", new HistoryOf(new TallyOf(List.of("all"), new Mean("m")), "h", null, null))));
        var made = (Profile) new Evaluator(asked).evaluate(study, Work.QUIET).outcome("r", "bin");
        return new Read(made, library.known());
    }

    private static double[] values(Read read) {
        return java.util.Arrays.stream(read.profile.value()).map(Math::rint).toArray();
    }

    @Test
    void whatWasReadIsNotReadAgainAndIsTheSame() {
        Read first = read("moisture");
        assertThat(first.known).isZero();
        assertThat(values(first)).containsExactly(10, 20, 30, 40, 50, 60);
        Read second = read("moisture");
        assertThat(second.known).isEqualTo(6);
        assertThat(second.profile.value()).containsExactly(first.profile.value());
        assertThat(second.profile.trail()).isEqualTo(first.profile.trail());
        assertThat(second.profile.trail().inputs()).hasSize(6);
    }

    /** Who loads is told what will be opened: times that are wanted and not known, the next first. */
    @Test
    void timesToComeAreForeseen() {
        List<List<Double>> told = new ArrayList<>();
        assertThat(values(foreseen(told))).containsExactly(10, 20, 30, 40, 50, 60);
        assertThat(told.getFirst()).containsExactly(2.0, 3.0, 4.0, 5.0, 6.0);
        assertThat(told).contains(List.of(6.0), List.of());
        told.clear();
        write(2, 22);
        write(5, 55);
        write(6, 66);
        assertThat(values(foreseen(told))).containsExactly(10, 22, 30, 40, 55, 66);
        assertThat(told).containsExactly(List.of(5.0, 6.0), List.of(6.0), List.of());
    }

    private Read foreseen(List<List<Double>> told) {
        var library = new FileLibrary(folder);
        var listening = (Library) Proxy.newProxyInstance(
                Library.class.getClassLoader(), new Class<?>[] {Library.class}, (self, method, args) -> {
                    if (method.getName().equals("foresee")) {
                        told.add(Arrays.stream((double[]) args[1]).boxed().toList());
                    }
                    try {
                        return method.invoke(library, args);
                    } catch (InvocationTargetException e) {
                        throw e.getCause();
                    }
                });
        return read("moisture", List.of(), listening, library);
    }

    @Test
    void aFileThatChangedAndOneMoreAreReadAndNoOther() {
        read("moisture");
        write(3, 77);
        write(7, 70);
        Read now = read("moisture");
        assertThat(now.known).isEqualTo(5);
        assertThat(values(now)).containsExactly(10, 20, 77, 40, 50, 60, 70);
    }

    @Test
    void anotherDefinitionKnowsNothingOfIt() {
        read("moisture");
        VtkXmlWriter.writeSurface(
                folder.resolve("lid.vtp"),
                new lane.field.PartBuilder(MESH).whole("lid").surface(),
                List.of(),
                VtkXmlWriter.Options.DEFAULT);
        // Other surfaces may be other parts of the same names.
        assertThat(read("moisture", List.of("lid.vtp")).known).isZero();
        Read now = read("2 * moisture");
        assertThat(now.known).isZero();
        assertThat(values(now)).containsExactly(20, 40, 60, 80, 100, 120);
    }

    /** What was read without a proof is told by nobody who gives one, and the other way round. */
    @Test
    void numbersWithoutAProofAreKeptApart() throws Exception {
        Read quick = read("moisture", List.of(), FileLibrary.unproven(folder));
        assertThat(values(quick)).containsExactly(10, 20, 30, 40, 50, 60);
        assertThat(read("moisture", List.of(), FileLibrary.unproven(folder)).known)
                .isEqualTo(6);
        Read proven = read("moisture");
        assertThat(proven.known).isZero();
        assertThat(proven.profile.value()).containsExactly(quick.profile.value());
        for (var input : proven.profile.trail().inputs()) {
            assertThat(input.sha256()).isEqualTo(FileHash.sha256(folder.resolve(input.path())));
        }
        write(3, 77);
        Read now = read("moisture", List.of(), FileLibrary.unproven(folder));
        assertThat(now.known).isEqualTo(5);
        assertThat(values(now)).containsExactly(10, 20, 77, 40, 50, 60);
    }

    @Test
    void aLineCutShortIsReadAnew() throws Exception {
        read("moisture");
        Path steps = Path.of(System.getProperty("lane.state")).resolve("steps");
        Path journal;
        try (Stream<Path> all = Files.list(steps)) {
            journal =
                    all.filter(p -> contains(p, folder.toString())).findFirst().orElseThrow();
        }
        String text = Files.readString(journal);
        Files.writeString(journal, text.substring(0, text.length() - 40), StandardOpenOption.TRUNCATE_EXISTING);
        Read now = read("moisture");
        assertThat(now.known).isEqualTo(5);
        assertThat(values(now)).containsExactly(10, 20, 30, 40, 50, 60);
        // What was added after it stands by itself.
        assertThat(read("moisture").known).isEqualTo(6);
    }

    private static boolean contains(Path file, String text) {
        try {
            return Files.readString(file).contains(text);
        } catch (java.io.IOException e) {
            return false;
        }
    }
}
