package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Fits and integrals by the command line alone, against exact numbers. */
class QuickVerbsTest extends VerbCase {
    private String table() throws Exception {
        return Files.writeString(
                        folder.resolve("creep.txt"),
                        "Creep of a belt\ntime\tstrain\tforce\nh\t%\tkN\n0\t1.0\t5\n1\t3.0\t5\n2\t--\t5\n3\t13.0\t5\n4\t21.0\t5\n"
                                + "5\t31.5\t5\n")
                .toString();
    }

    @Test
    void aPolynomialThroughTwoColumnsInTheirUnits() throws Exception {
        // 1 + x + x^2, but for half a percent at the last one, which does not count here.
        JsonNode fit = json("fit", table(), "--x", "time", "--y", "strain", "--degree", "2", "--to", "4", "--json");
        assertThat(fit.path("coefficients").get(0).asDouble()).isCloseTo(1, within(1e-14));
        assertThat(fit.path("coefficients").get(1).asDouble()).isCloseTo(1, within(1e-14));
        assertThat(fit.path("coefficients").get(2).asDouble()).isCloseTo(1, within(1e-14));
        assertThat(fit.path("samples").asInt()).isEqualTo(4);
        assertThat(fit.path("residualDeviation").asDouble()).isZero();
        assertThat(fit.path("r2").asDouble()).isEqualTo(1);
        assertThat(fit.path("unit").toString()).isEqualTo("[\"%\",\"%/h\",\"%/h2\"]");
        assertThat(err).contains("1 row without numbers in both \"time\" and \"strain\" was left out.");
        // A straight line through all five: by hand.
        JsonNode line = json("fit", table(), "--x", "TIME", "--y", "strain", "--json");
        assertThat(line.path("coefficients").get(1).asDouble()).isCloseTo(102.8 / 17.2, within(1e-12));
        assertThat(line.path("standardErrors")).hasSize(2);
        assertThat(run("fit", table(), "--x", "time", "--y", "strain")).isZero();
        assertThat(out)
                .contains("strain over time, degree 1, 5 samples")
                .contains("%/h")
                .contains("R2 0.9");
    }

    @Test
    void whatCannotBeFittedIsTold() throws Exception {
        assertThat(run("fit", table(), "--x", "tme", "--y", "strain")).isEqualTo(3);
        assertThat(err).contains("no column \"tme\" (\"time\" is meant?); its columns are time, strain, force.");
        assertThat(run("fit", table(), "--x", "time", "--y", "strain", "--degree", "3", "--from", "3"))
                .isEqualTo(3);
        assertThat(err).contains("4 coefficients, but the samples have 3 different abscissas");
        assertThat(run("fit", table(), "--x", "time", "--y", "strain", "--from", "9"))
                .isEqualTo(3);
        assertThat(err).contains("in that range");
        assertThat(run("fit", table(), "--x", "time", "--y", "strain", "--from", "3", "--to", "1"))
                .isEqualTo(3);
        JsonNode through = json("fit", table(), "--x", "time", "--y", "strain", "--to", "1", "--json");
        assertThat(through.path("residualDeviation").isNull()).isTrue();
        assertThat(through.path("standardErrors").get(0).isNull()).isTrue();
        assertThat(err).contains("nothing tells how well they are known");
    }

    private String monitor() throws Exception {
        var text = new StringBuilder("# hopper 3, load cell\nsecond;Kraft;Temperatur\ns;kN;degC\n");
        for (int i = 0; i <= 50; i++) {
            // Rises by 0.02 kN a second; half of a second apart; one value is missing.
            text.append(String.format(
                    java.util.Locale.GERMANY,
                    "%.1f;%s;%.1f%n",
                    0.5 * i,
                    i == 47 ? "--" : String.format(java.util.Locale.GERMANY, "%.3f", 8 + 0.01 * i),
                    20.0));
        }
        Path file = folder.resolve("hopper.txt");
        Files.writeString(file, text);
        return file.toString();
    }

    @Test
    void aMonitorIsJudged() throws Exception {
        JsonNode made = json("settle", monitor(), "--column", "Kraft", "--over", "second", "--json");
        assertThat(made.path("settled").asBoolean()).isFalse();
        assertThat(made.path("from").asDouble()).isEqualTo(20);
        assertThat(made.path("drift").asDouble()).isCloseTo(0.1, within(1e-9));
        assertThat(made.path("scatter").asDouble()).isCloseTo(0, within(1e-9));
        assertThat(made.path("samples").asInt()).isEqualTo(10);
        assertThat(made.path("unit").asText()).isEqualTo("kN");
        assertThat(made.path("why").asText()).startsWith("It still drifts by 1.2 % of the mean over the window");
        assertThat(err).contains("1 row without a number in \"Kraft\" was left out");
        JsonNode loose =
                json("settle", monitor(), "--column", "kraft", "--tolerance", "0.05", "--window", "0.5", "--json");
        assertThat(loose.path("settled").asBoolean()).isTrue();
        // Rows, counted from 1: half of 51.
        assertThat(loose.path("from").asDouble()).isEqualTo(26);
        assertThat(run("settle", monitor(), "--column", "Kraft", "--over", "second"))
                .isZero();
        assertThat(out).startsWith("Kraft has not settled").contains("20 to 25 s, 10 values");
    }

    @Test
    void whatCannotBeJudgedIsToldInASentence() throws Exception {
        assertThat(run("settle", monitor(), "--column", "Krft", "--over", "second"))
                .isEqualTo(3);
        assertThat(err).contains("\"Kraft\" is meant?");
        assertThat(run("settle", monitor(), "--column", "Kraft", "--window", "0.01"))
                .isEqualTo(3);
        assertThat(err).contains("at least 4 are needed");
        assertThat(run("settle", monitor(), "--column", "Kraft", "--window", "20"))
                .isEqualTo(3);
        assertThat(err).contains("at most 1");
        assertThat(run("settle", monitor(), "--column", "Temperatur")).isZero();
        assertThat(err).contains("depends on where the scale of degC begins").contains("--scale");
        assertThat(run("settle", monitor(), "--column", "Temperatur", "--scale", "15"))
                .isZero();
        assertThat(err).doesNotContain("begins");
    }

    /** A silo of 2 x 1 x 0.5 m: level = x + 2 y, air = (y, -x, 3), grain in cells. */
    private String silo() {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {4, 3, 2}, new double[] {2, 1, 0.5}, 0.1, 3);
        double[] level = new double[mesh.nodeCount()];
        double[] air = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < level.length; i++) {
            double x = mesh.xyz()[3 * i];
            double y = mesh.xyz()[3 * i + 1];
            level[i] = x + 2 * y;
            air[3 * i] = y;
            air[3 * i + 1] = -x;
            air[3 * i + 2] = 3;
        }
        Path file = folder.resolve("silo.vtu");
        VtkXmlWriter.writeGrid(
                file,
                mesh,
                List.of(
                        new Field("level", Field.At.NODE, 1, Unit.of("Pa"), Values.of(level)),
                        new Field("air [m/s]", Field.At.NODE, 3, Unit.of("m/s"), Values.of(air))),
                Options.DEFAULT);
        VtkXmlWriter.writeSurface(
                folder.resolve("silo-parts/shell.vtp"),
                new PartBuilder(mesh).whole("shell").surface(),
                List.of(),
                Options.DEFAULT);
        return file.toString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "all | level | mean | 2 | 1",
                "all | level * level | integral | 4.666666666666667 | 1",
                "all | x | integral | 1 | 1",
                "section:0,0,0.21 0,0,-2 | \"air [m/s]\" | flow | -6 | 2",
                "section:0,0,0.21 0,0,1 | level | integral | 4 | 2",
                "section:1.3,0,0 1,0,0 | level | mean | 2.3 | 0.5",
                "part:shell | \"air [m/s]\" | flow | 0 | 7",
                "part:shell | normal.z * z | integral | 1 | 7",
                "part:shell | 1 | mean | 1 | 7",
            })
    void overPartsSectionsAndAll(String over, String of, String kind, double value, double size) throws Exception {
        String file = silo();
        JsonNode made = json("integrate", file, "--over", over, "--of", of, "--kind", kind, "--json");
        assertThat(made.path("value").asDouble()).isCloseTo(value, within(1e-12));
        assertThat(made.path("measure").asDouble()).isCloseTo(size, within(1e-12));
        assertThat(made.path("convention").asText())
                .contains("by quadrature")
                .contains("coordinates taken as metres, which the file does not say");
        if (kind.equals("flow")) {
            assertThat(made.path("convention").asText()).contains("positive");
        }
    }

    @Test
    void unitsOfLengthCountAndWrongWordsAreTold() throws Exception {
        String file = silo();
        JsonNode made = json(
                "integrate",
                file,
                "--over",
                "section:0,0,0.21 0,0,1",
                "--of",
                "\"air [m/s]\"",
                "--kind",
                "flow",
                "--length",
                "mm",
                "--json");
        assertThat(made.path("value").asDouble()).isCloseTo(6e-6, within(1e-17));
        assertThat(made.path("unit").asText()).isEqualTo("m3/s");
        assertThat(made.path("convention").asText()).doesNotContain("metres");
        assertThat(run("integrate", file, "--over", "all", "--of", "level", "--kind", "mean"))
                .isZero();
        assertThat(out).startsWith("mean of level over all: 2 ");
        JsonNode size =
                json("integrate", file, "--over", "all", "--of", "level", "--kind", "mean", "--by", "size", "--json");
        assertThat(size.path("value").asDouble()).isCloseTo(2, within(0.05));
        assertThat(size.path("convention").asText())
                .contains("one value a cell, by its size")
                .doesNotContain("quadrature");
        assertThat(run("integrate", file, "--over", "all", "--of", "level", "--kind", "integral", "--by", "nodes"))
                .isEqualTo(3);
        assertThat(err).contains("There is no integral over nodes").contains("size");
        assertThat(run("integrate", file, "--over", "all", "--of", "level", "--kind", "mean", "--by", "corners"))
                .isEqualTo(3);
        assertThat(err).contains("\"corners\"").contains("quadrature, size, cells or nodes");
        assertThat(run("integrate", file, "--over", "part:lid", "--of", "level", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("\"lid\"").contains("shell");
        assertThat(run("integrate", file, "--over", "all", "--of", "\"air [m/s]\"", "--kind", "flow"))
                .isEqualTo(3);
        assertThat(err).contains("passes through a surface");
        assertThat(run("integrate", file, "--over", "somewhere", "--of", "level", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(run("integrate", file, "--over", "section:0,0,0", "--of", "level", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(run("integrate", file, "--over", "section:0,0,9 0,0,1", "--of", "level", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("outside");
        assertThat(run("integrate", file, "--over", "all", "--of", "lvel", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("lvel");
        assertThat(run(
                        "integrate",
                        folder.resolve("none.vtu").toString(),
                        "--over",
                        "all",
                        "--of",
                        "x",
                        "--kind",
                        "mean"))
                .isEqualTo(3);
        assertThat(err).contains("does not exist");
    }

    /** A logger's file of its own ending, with the time of each row and the header's words as they stand there. */
    @Test
    void aLogWithTimesOfTheDayIsJudgedByTheWordsOfItsHeader() throws Exception {
        var text = new StringBuilder("Date\tTime\tload (kN)\tdoor\n");
        for (int i = 0; i <= 50; i++) {
            int s = 86_390 + i;
            text.append(String.format(
                    java.util.Locale.ROOT,
                    "%d/12/2026\t%02d:%02d:%02d.500\t%.3f\t%s%n",
                    24 + s / 86_400,
                    s / 3600 % 24,
                    s / 60 % 60,
                    s % 60,
                    8 + 0.01 * i,
                    i == 7 ? "open" : "shut"));
        }
        Path file = folder.resolve("hopper.d3");
        Files.writeString(file, text);

        JsonNode made = json(
                "settle",
                file.toString(),
                "--column",
                "load (kN)",
                "--over",
                "Time",
                "--window",
                "20%",
                "--tolerance",
                "2 %",
                "--json");

        assertThat(made.path("settled").asBoolean()).isTrue();
        assertThat(made.path("to").asDouble()).isEqualTo(86_440.5);
        assertThat(made.path("drift").asDouble()).isCloseTo(0.1, within(1e-9));
        assertThat(err)
                .contains("\"Time\" holds dates and times, counted from 2026-12-24 00:00, the day before the month.");
        assertThat(run("settle", file.toString(), "--column", "load (N)")).isEqualTo(3);
        JsonNode told = json("describe", file.toString(), "--json");
        assertThat(told.path("kind").asText()).isEqualTo("table");
        assertThat(told.path("columns").get(1).path("unit").asText()).isEqualTo("s");
        assertThat(run("history", file.toString(), "--of", "load", "--over", "all", "--kind", "mean"))
                .isEqualTo(3);
        assertThat(err).contains("is a table and no run");
    }
}
