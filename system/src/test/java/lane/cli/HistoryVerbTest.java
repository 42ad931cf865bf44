package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.field.Field;
import lane.field.Treatment;
import lane.field.Values;
import lane.formats.study.StudyJson;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.FeatureOf;
import lane.reading.HistoryOf;
import lane.reading.MonitorOf;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.ColumnUncertainty;
import lane.reference.Curve;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Isolated;

/** Moisture in a drum of 2 x 1 x 0.5 m that dries, file by file: at number n it is n (1 + x). */
@Isolated("it looks at what is printed")
class HistoryVerbTest extends VerbCase {
    private static final int[] NUMBERS = {5, 10, 20, 40};

    @BeforeEach
    void files() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {4, 3, 2}, new double[] {2, 1, 0.5}, 0, 1);
        var list = new StringBuilder("<?xml version=\"1.0\"?>\n<VTKFile type=\"Collection\"><Collection>\n");
        for (int n : NUMBERS) {
            double[] wet = new double[mesh.nodeCount()];
            for (int i = 0; i < wet.length; i++) {
                wet[i] = n * (1 + mesh.xyz()[3 * i]);
            }
            String name = String.format("drum_%03d.vtu", n);
            VtkXmlWriter.writeGrid(
                    folder.resolve(name),
                    mesh,
                    List.of(
                            new Field("moisture", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(wet)),
                            new Field("water kg/m3", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(wet))),
                    VtkXmlWriter.Options.DEFAULT);
            list.append("<DataSet timestep=\"")
                    .append(n / 10.0)
                    .append("\" file=\"")
                    .append(name)
                    .append("\"/>\n");
        }
        Files.writeString(folder.resolve("drum.pvd"), list + "</Collection></VTKFile>\n");
    }

    @Test
    void aFileWithSeveralTimes() throws Exception {
        assertThat(run(
                        "history",
                        file("drum.pvd"),
                        "--of",
                        "moisture",
                        "--over",
                        "all",
                        "--kind",
                        "integral",
                        "--json"))
                .as(err)
                .isZero();
        JsonNode made = new ObjectMapper().readTree(out);
        // Twice the number over a volume of 1 m3.
        assertThat(made.path("times").toString()).isEqualTo("[0.5,1.0,2.0,4.0]");
        for (int i = 0; i < 4; i++) {
            assertThat(made.path("values").get(i).asDouble()).isCloseTo(2.0 * NUMBERS[i], within(1e-12));
        }
        assertThat(made.path("greatest").path("time").asDouble()).isEqualTo(4);
        // It grows along a straight line: 80 at 4, 10 at 0.5.
        assertThat(made.path("mean").asDouble()).isCloseTo(45, within(1e-12));
        assertThat(made.path("convention").asText()).contains("by quadrature").contains("metres");
    }

    @Test
    void filesWithoutTimesGoByTheNumbersInTheirNamesInAnyOrder() throws Exception {
        assertThat(run(
                        "history",
                        file("drum_040.vtu"),
                        file("drum_005.vtu"),
                        file("drum_010.vtu"),
                        "--of",
                        "moisture",
                        "--over",
                        "point:0.5,0.5,0.2",
                        "--kind",
                        "value",
                        "--csv",
                        file("at.csv")))
                .as(err)
                .isZero();
        assertThat(err).contains("the numbers in their names are taken");
        assertThat(Files.readAllLines(folder.resolve("at.csv")).getFirst()).startsWith("time,value");
        assertThat(Files.readAllLines(folder.resolve("at.csv")).stream().skip(1))
                .extracting(
                        l -> Double.parseDouble(l.split(",")[0]),
                        l -> Math.round(1e9 * Double.parseDouble(l.split(",")[1])))
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(5.0, 7_500_000_000L),
                        org.assertj.core.groups.Tuple.tuple(10.0, 15_000_000_000L),
                        org.assertj.core.groups.Tuple.tuple(40.0, 60_000_000_000L));
    }

    @Test
    void aUnitThatIsTakenFromANameIsSaid() throws Exception {
        Files.writeString(
                folder.resolve("slab1.vtk"),
                "# vtk DataFile Version 3.0\nslab\nASCII\nDATASET STRUCTURED_POINTS\nDIMENSIONS 2 2 2\nORIGIN 0 0 0\nSPACING 1 1 1\n"
                        + "POINT_DATA 8\nSCALARS T double 1\nLOOKUP_TABLE default\n70 71 70 71 70 71 70 71\n"
                        + "SCALARS wear double 1\nLOOKUP_TABLE default\n1 1 1 1 1 1 1 1\n");
        for (String verb : List.of("integrate", "history")) {
            JsonNode made = json(verb, file("slab1.vtk"), "--of", "T", "--over", "all", "--kind", "mean", "--json");
            assertThat(made.path("convention").asText()).contains("\"T\" taken in K, as its name is usual for");
        }
        JsonNode plain =
                json("integrate", file("slab1.vtk"), "--of", "wear", "--over", "all", "--kind", "mean", "--json");
        assertThat(plain.path("convention").asText()).doesNotContain("usual");
    }

    /** Whether as a pattern or file by file, a series is one run, and what was read of it is known the next time. */
    @Test
    void whatWasReadIsKnown() throws Exception {
        String[] all = {
            "history",
            file("drum_005.vtu"),
            file("drum_010.vtu"),
            file("drum_020.vtu"),
            file("drum_040.vtu"),
            "--of",
            "moisture",
            "--over",
            "all",
            "--kind",
            "mean",
            "--json"
        };
        JsonNode first = json(all);
        assertThat(err).doesNotContain("read before");
        assertThat(first.path("times").toString()).isEqualTo("[5.0,10.0,20.0,40.0]");
        JsonNode again = json(all);
        assertThat(err).contains("4 times of 4 had been read before");
        assertThat(again).isEqualTo(first);
        assertThat(run("describe", file("drum_*.vtu"))).isZero();
        assertThat(out).contains("times 5, 10, 20, 40\n");
        JsonNode pattern =
                json("history", file("drum_*.vtu"), "--of", "moisture", "--over", "all", "--kind", "mean", "--json");
        assertThat(err).contains("4 times of 4 had been read before");
        assertThat(pattern).isEqualTo(first);
        // Another number of them was never read.
        json("history", file("drum_*.vtu"), "--of", "moisture", "--over", "all", "--kind", "integral", "--json");
        assertThat(err).doesNotContain("read before");
    }

    @Test
    void aPatternInWords() {
        assertThat(run("history", file("drum_*.vtu"), "--of", "moisture", "--over", "all", "--kind", "mean"))
                .as(err)
                .isZero();
        assertThat(out)
                .startsWith("mean of moisture over all, 4 times")
                .contains("greatest 80")
                .contains("at 40");
        assertThat(err).contains("numbers in their names");
    }

    @Test
    void whatHasNoValueOrMakesNoSenseIsTold() {
        assertThat(run("history", file("drum.pvd"), "--of", "moisture", "--over", "point:9,9,9", "--kind", "value"))
                .isEqualTo(3);
        assertThat(err).contains("outside");
        assertThat(run("history", file("drum.pvd"), "--of", "moisture", "--over", "all", "--kind", "value"))
                .isEqualTo(3);
        assertThat(err).contains("A value is that of a point");
        assertThat(run("history", file("drum.pvd"), "--of", "moisture", "--over", "point:1,0,0", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("At a point there is a value and no mean");
        assertThat(run("history", file("drum.pvd"), "--of", "dryness", "--over", "all", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("dryness").contains("at 4 times");
        assertThat(run("history", file("none.pvd"), "--of", "moisture", "--over", "all", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("none.pvd");
    }

    /** Two files as lanes along the drum; the theory of the second. */
    private String study() {
        var line = new Line(new Point(0, 0.5, 0.25), new Point(2, 0.5, 0.25), new Sampling.Even(41), Abscissa.ARC);
        Study made = Study.empty("Drum")
                .withSources(l -> List.of(
                        new Source.Simulation("early", "early", "drum_010.vtu", List.of(), "", "", Treatment.NONE),
                        new Source.Simulation("late", "late", "drum_020.vtu", List.of(), "", "", Treatment.NONE),
                        new Source.Reference(
                                "law",
                                "law",
                                Source.Kind.THEORY,
                                List.of(),
                                java.util.Map.of(),
                                List.of(new Curve.ByFormula("along", "20 * (1 + s)", "kg/m3")))))
                .withQuantities(l -> List.of(new Quantity("wet", "wetness", "moisture", "", "")))
                .withStations(l -> List.of(new Station("middle", "middle", line)))
                .withReadings(l -> List.of(
                        new Reading("along", "Wetness along", "", new ProfileOf("middle", "wet")),
                        new Reading("all", "Mean", "", new TallyOf(List.of("middle"), new Mean("wet")))))
                .withDatum("law");
        Path file = folder.resolve("drum.lane.json");
        StudyJson.save(made, file);
        return file.toString();
    }

    @Test
    void aReadingIsDrawnWithoutAWindow() throws Exception {
        String study = study();
        assertThat(run("chart", study, "Wetness along", "--out", file("along.svg")))
                .as(err)
                .isZero();
        String svg = Files.readString(folder.resolve("along.svg"));
        // The axes, and each lane by name.
        assertThat(svg).contains("wetness", "early", "late", "law").doesNotContain("href=\"http");
        assertThat(run("chart", study, "along", "--out", file("along.png"), "--size", "400x300", "--dark"))
                .as(err)
                .isZero();
        var image = javax.imageio.ImageIO.read(folder.resolve("along.png").toFile());
        assertThat(image.getWidth()).isEqualTo(800);
        assertThat(image.getHeight()).isEqualTo(600);
        assertThat(run("chart", study, "Wetnes along", "--out", file("a.png"))).isEqualTo(3);
        assertThat(err).contains("\"Wetness along\" is meant?");
        // A number is a mark for each lane that has it.
        assertThat(run("chart", study, "Mean", "--out", file("mean.svg")))
                .as(err)
                .isZero();
        assertThat(Files.readString(folder.resolve("mean.svg"))).contains("Mean", "early", "late");
        assertThat(run("chart", study, "along", "--out", file("a.gif"))).isEqualTo(3);
        assertThat(err).contains(".png or .svg");
        assertThat(run("chart", study, "along", "--out", file("a.png"), "--size", "wide"))
                .isEqualTo(3);
        assertThat(err).contains("720x560");
    }

    /** Whether a run is sound is looked at beside its times: the same is told of it as without them. */
    @Test
    void whatIsWrongInARunIsToldWhetherItsTimesAreReadOrNot() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {4, 3, 2}, new double[] {2, 1, 0.5}, 0, 1);
        double[] wet = new double[mesh.nodeCount()];
        java.util.Arrays.fill(wet, 3);
        wet[7] = Double.NaN;
        VtkXmlWriter.writeGrid(
                folder.resolve("drum_040.vtu"),
                mesh,
                List.of(new Field("moisture", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(wet))),
                VtkXmlWriter.Options.DEFAULT);
        var mean = new TallyOf(List.of("middle"), new Mean("wet"));
        List<String> told = new java.util.ArrayList<>();
        for (lane.reading.Ask ask : List.of(mean, new HistoryOf(mean, "s", null, null))) {
            Path study = folder.resolve("sound.lane.json");
            Study made = StudyJson.load(Path.of(study()));
            StudyJson.save(
                    made.withSources(l -> List.of(
                                    new Source.Simulation("d", "d", "drum.pvd", List.of(), "", "", Treatment.NONE)))
                            .withDatum("")
                            .withReadings(l -> List.of(new Reading("m", "m", "", ask))),
                    study);
            run("evaluate", study.toString(), "--out", file("ledger"));
            told.add(out.lines()
                    .filter(l -> l.matches("(error|warning|note): d: .*"))
                    .toList()
                    .toString());
        }
        assertThat(told.getFirst()).contains("moisture");
        assertThat(told.getLast()).isEqualTo(told.getFirst());
    }

    /** A shell takes the quotation marks that a user writes. */
    @Test
    void aFieldWhoseNameIsNoWordIsToldHowToBeTyped() {
        for (String verb : List.of("history", "integrate")) {
            assertThat(run(verb, file("drum_005.vtu"), "--of", "water kg/m3", "--over", "all", "--kind", "mean"))
                    .isNotZero();
            assertThat(err).endsWith("In a shell that is '\"water kg/m3\"'." + System.lineSeparator());
            assertThat(run(verb, file("drum_005.vtu"), "--of", "\"water kg/m3\"", "--over", "all", "--kind", "mean"))
                    .as(err)
                    .isZero();
        }
    }

    /** A log says nothing of numbers of its curve by themselves, and answers them; why it cannot is told. */
    @Test
    void aNumberThatALogCannotGiveIsTold() throws Exception {
        Files.writeString(folder.resolve("mash.csv"), "t [min];T [degC]\n0;60\n10;62\n20;66\n");
        var mash = new MonitorOf("T", "time", "min");
        StudyJson.save(
                Study.empty("mash")
                        .withSources(l -> List.of(new Source.Reference(
                                "log",
                                "log",
                                Source.Kind.MEASUREMENT,
                                List.of("mash.csv"),
                                Map.of(),
                                List.of(new Curve.Columns("t", "mash.csv", "t", "", "T", "", ColumnUncertainty.NONE)))))
                        .withReadings(l -> List.of(
                                new Reading("t", "t", "", mash),
                                new Reading("at64", "at64", "min", passing(mash, 64)),
                                new Reading("at78", "at78", "min", passing(mash, 78)))),
                folder.resolve("mash.lane.json"));
        run("evaluate", file("mash.lane.json"), "--out", file("out"));
        assertThat(out).containsPattern("at64 \\[min\\]\\s+log\\s+15\\b");
        assertThat(out).containsPattern("at78[^\\n]*\\s+log\\s+no number");
        assertThat(out).doesNotContain("not brought");
    }

    private static FeatureOf passing(MonitorOf of, double degrees) {
        return new FeatureOf(of, FeatureOf.What.CROSSING, degrees, 1, "degC", "", null, null);
    }
}
