package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.demo.DemoFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The command line: what it prints, what it writes, how it exits. */
class LaneTest {
    @TempDir
    Path folder;

    private record Run(int code, String out, String err) {}

    private static Run run(String... args) {
        PrintStream keptOut = System.out;
        PrintStream keptErr = System.err;
        var out = new ByteArrayOutputStream();
        var err = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(out, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(err, true, StandardCharsets.UTF_8));
            int code = Lane.run(args);
            return new Run(code, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(keptOut);
            System.setErr(keptErr);
        }
    }

    @Test
    void aStudyIsEvaluatedIntoALedgerAndATableOfChecks() throws Exception {
        Path study = DemoFiles.make(folder.resolve("demo"), DemoFiles.SMALL);
        Run run =
                run("evaluate", study.toString(), "--out", folder.resolve("out").toString());
        // Its meshes are coarse: checks are out.
        assertThat(run.code()).isEqualTo(1);
        assertThat(run.out())
                .contains("Spindle jacket: 6 lanes")
                .contains("warning: fine: ")
                .containsPattern("Rotor torque \\[.*\\]\n  coarse  +23\\.")
                .containsPattern("Swirl across the gap.*\n  coarse  +\\d+ of \\d+ samples have a value")
                .contains("Swirl across the gap, L2")
                .containsPattern("\nundecided: Temperature at outlet: Difference .*, uncertainty .*, tolerance .*")
                .contains("ledger.csv");
        List<String> ledger = Files.readAllLines(folder.resolve("out/ledger.csv"));
        assertThat(ledger).anyMatch(l -> l.contains("Rotor torque,tally,fine,23.8"));
        assertThat(folder.resolve("out/profile-swirl-gap.csv")).exists();
        var numbers = new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(folder.resolve("out/ledger.json").toFile())
                .path("numbers");
        assertThat(numbers).hasSizeGreaterThan(200).allSatisfy(n -> assertThat(
                        n.path("value").isNumber() || !n.path("reason").asText().isBlank())
                .as(n.toString())
                .isTrue());
        // The same study gives the same numbers again, digit for digit.
        run("evaluate", study.toString(), "--out", folder.resolve("again").toString());
        assertThat(Files.readAllLines(folder.resolve("again/ledger.csv"))).isEqualTo(ledger);
        // A study that lost a file still gives the other numbers, and names the file.
        Files.delete(folder.resolve("demo/medium.vtu"));
        Run poorer = run(
                "evaluate", study.toString(), "--out", folder.resolve("poorer").toString());
        assertThat(poorer.code()).isEqualTo(1);
        assertThat(poorer.out())
                .containsPattern("not read: medium: .*medium.vtu.* does not exist")
                .containsOnlyOnce("Without a number");
        assertThat(Files.readString(folder.resolve("poorer/ledger.csv"))).contains("Rotor torque,tally,fine,23.8");
    }

    @Test
    void whatHasNoNumberIsToldWithItsReason() throws Exception {
        Files.writeString(folder.resolve("quern.csv"), "min;grist [kg]\n0;0\n1;2\n2;4\n");
        Path study = Files.writeString(folder.resolve("quern.lane.json"), """
                {"version": 3, "name": "Quern",
                 "sources": [{"kind": "reference", "id": "q", "name": "quern", "drawn": "MEASUREMENT",
                   "files": ["quern.csv"], "constants": {},
                   "answers": [{"kind": "columns", "reading": "flour", "file": "quern.csv", "abscissa": "min", "value": "flour"},
                     {"kind": "columns", "reading": "grist", "file": "quern.csv", "abscissa": "min", "value": "grist"}]}],
                 "readings": [
                   {"kind": "monitor", "id": "flour", "name": "flour", "what": "flour", "along": "min"},
                   {"kind": "monitor", "id": "grist", "name": "grist", "what": "grist", "along": "min"}]}
                """);
        Run words = run(
                "evaluate", study.toString(), "--out", folder.resolve("words").toString());
        assertThat(words.code()).isEqualTo(2);
        assertThat(words.out()).containsPattern("Without a number\n  .*\"flour\".* \\(flour of quern\\)");
        Run json = run(
                "evaluate",
                study.toString(),
                "--json",
                "--out",
                folder.resolve("json").toString());
        var told = new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(json.out())
                .path("withoutNumber");
        assertThat(told).hasSize(1);
        assertThat(told.get(0).path("why").asText()).contains("\"flour\"");
        assertThat(told.get(0).path("readings")).extracting(n -> n.asText()).containsExactly("flour of quern");
    }

    /** Evaluates in a process of its own. */
    private String ledger(Path study, String name, int processors) throws Exception {
        Path out = folder.resolve(name);
        String path = System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:ActiveProcessorCount=" + processors,
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        path,
                        "lane.cli.Lane",
                        "evaluate",
                        study.toString(),
                        "--out",
                        out.toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve(name + ".log").toFile())
                .start();
        process.waitFor();
        assertThat(out.resolve("ledger.json"))
                .as(Files.readString(folder.resolve(name + ".log")))
                .exists();
        // When and where it was written stands in the manifest alone, and in the crate whose format asks for it.
        return Files.readString(out.resolve("ledger.csv"))
                + Files.readString(out.resolve("ledger.json"))
                + Files.readString(out.resolve("manifest.json"))
                        .replaceAll("\"(written|processor)\" : \"[^\"]*\"", "")
                        .replaceAll("(?s)\"ro-crate-metadata.json\",.*?}", "");
    }

    @Test
    void twoProcessesWriteTheSameBytesOnAnyNumberOfThreads() throws Exception {
        Path study = DemoFiles.make(folder.resolve("demo"), DemoFiles.SMALL);
        String one = ledger(study, "one", 1);
        assertThat(ledger(study, "four", 4)).isEqualTo(one);
        assertThat(one).contains("\"kind\" : \"line\"").contains("sha256");
    }

    @Test
    void wrongUseIsToldInOneSentence() throws Exception {
        assertThat(run("evaluate", "none.json", "--out", "x")).satisfies(r -> {
            assertThat(r.code()).isEqualTo(3);
            assertThat(r.err()).contains("none.json").contains("does not exist").hasLineCount(1);
        });
        assertThat(run("evaluate").code()).isEqualTo(3);
        assertThat(run("dance")).satisfies(r -> {
            assertThat(r.code()).isEqualTo(3);
            assertThat(r.err()).contains("\"dance\" is not known");
        });
        assertThat(run("evaluate", "x.lane.json", "--uot", "y").err()).contains("--out");
        for (String verb : List.of("evaluate", "describe", "sample", "picture")) {
            assertThat(run(verb, "--help")).satisfies(r -> {
                assertThat(r.code()).isZero();
                assertThat(r.out()).contains(verb);
            });
            assertThat(run(verb, "--version").out()).startsWith("Crosscheck Lane ");
        }
        Files.writeString(
                folder.resolve("bad.json"),
                "{\"version\": 1, \"name\": \"x\", \"stations\": [{\"kind\": \"line\", \"id\": \"a\"}]}");
        assertThat(run("evaluate", folder.resolve("bad.json").toString(), "--out", "x"))
                .satisfies(r -> {
                    assertThat(r.code()).isEqualTo(3);
                    assertThat(r.err()).contains("stations[0]");
                });
        assertThat(run("--help").code()).isZero();
    }

    @Test
    void filesAreDescribedOneLineEachAndABrokenOneDoesNotStopTheOthers() throws Exception {
        Path tetra = Files.writeString(
                folder.resolve("two words ü.vtk"),
                "# vtk DataFile Version 3.0\nx\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS 6 double\n"
                        + "0 0 0 2 0 0 0 2 0 0 0 2 9 9 9 2 2 2\nCELLS 2 10\n4 0 1 2 3\n4 1 2 3 5\nCELL_TYPES 2\n10 10\n"
                        + "POINT_DATA 6\nSCALARS t double\nLOOKUP_TABLE default\n1 2 3 nan 5 5\n");
        Run run = run("describe", "--json", folder.resolve("none.vtu").toString(), tetra.toString());
        assertThat(run.code()).isEqualTo(3);
        List<String> lines = run.out().lines().toList();
        assertThat(lines).hasSize(2);
        assertThat(lines.get(0)).contains("\"error\":").contains("does not exist");
        var d = new com.fasterxml.jackson.databind.ObjectMapper().readTree(lines.get(1));
        assertThat(d.get("file").asText()).isEqualTo(tetra.toString());
        assertThat(d.get("nodes").asInt()).isEqualTo(6);
        assertThat(d.get("cellsByShape").get("tetrahedron").asInt()).isEqualTo(2);
        // One of 8/6, one of 8/3 wound the other way.
        assertThat(d.get("volume").asDouble()).isCloseTo(4, org.assertj.core.data.Offset.offset(1e-12));
        assertThat(d.get("bounds").get(1).asDouble()).isEqualTo(9);
        var field = d.get("fields").get(0);
        assertThat(field.get("at").asText()).isEqualTo("node");
        assertThat(field.get("min").get(0).asDouble()).isEqualTo(1);
        assertThat(field.get("sum").get(0).asDouble()).isEqualTo(16);
        assertThat(field.get("nonFinite").asInt()).isEqualTo(1);
        assertThat(d.get("findings").toString()).contains("belong to no cell").contains("not finite");
        Run words = run("describe", tetra.toString());
        assertThat(words.code()).isZero();
        assertThat(words.out())
                .contains("6 nodes, 2 cells: 2 tetrahedron")
                .contains("field t at nodes, 1 component, 1 to 5")
                .contains("error: 1 value of \"t\" is not finite")
                .contains("note: 1 node belongs to no cell")
                .contains("note: unit of length is not said");
    }

    @Test
    void tablesStudiesAndLedgersAreDescribedToo() throws Exception {
        Path table = Files.writeString(
                folder.resolve("lift.csv"),
                "Lift 2\n\n\"Place; along\";Tension;Who\nm;kN;\n0;31,5;A\n12,5;--;B\n55;29,25;C\nTotal;60,75;\n");
        Run run = run("describe", "--json", table.toString());
        assertThat(run.code()).isZero();
        assertThat(run.out().strip())
                .isEqualTo(
                        "{\"file\":\"" + table + "\",\"kind\":\"table\",\"rows\":3,\"headerLine\":3,\"unitLine\":4,"
                                + "\"firstDataLine\":5,\"separator\":\"semicolon\",\"decimal\":\"comma\",\"encoding\":\"UTF-8\","
                                + "\"columns\":[{\"name\":\"Place; along\",\"unit\":\"m\",\"role\":\"abscissa\",\"numbers\":3,"
                                + "\"missing\":0,\"words\":0,\"min\":0.0,\"max\":55.0,\"first\":0.0,\"last\":55.0},"
                                + "{\"name\":\"Tension\",\"unit\":\"kN\",\"role\":\"value\",\"numbers\":2,\"missing\":1,"
                                + "\"words\":0,\"min\":29.25,\"max\":31.5,\"first\":31.5,\"last\":29.25},"
                                + "{\"name\":\"Who\",\"unit\":\"\",\"role\":\"ignore\",\"numbers\":0,\"missing\":0,"
                                + "\"words\":3,\"min\":null,\"max\":null,\"first\":null,\"last\":null}],"
                                + "\"dropped\":[{\"line\":8,\"why\":\"a sum at the end: \\\"Total 60,75\\\"\"}],\"findings\":[]}");
        assertThat(run("describe", table.toString()).out())
                .contains("table of 3 rows and 3 columns; semicolon between columns, decimal comma")
                .contains("header in line 3, units in line 4, data from line 5")
                .contains("column Tension [kN], value: 2 numbers from 29.25 to 31.5, 1 missing")
                .contains("line 8 is left out");
        Path study = DemoFiles.make(folder.resolve("small"), DemoFiles.SMALL);
        Path out = folder.resolve("out");
        run("evaluate", study.toString(), "--out", out.toString());
        Files.delete(folder.resolve("small/rake.csv"));
        var json = new com.fasterxml.jackson.databind.ObjectMapper();
        var s = json.readTree(run("describe", "--json", study.toString()).out());
        assertThat(s.path("kind").asText()).as(s.toString()).isEqualTo("study");
        assertThat(s.get("sources")).hasSize(6);
        assertThat(s.get("findings").toString()).contains("the file rake.csv of the source");
        var l = json.readTree(
                run("describe", "--json", out.resolve("ledger.json").toString()).out());
        assertThat(l.get("kind").asText()).isEqualTo("ledger");
        assertThat(l.get("lines").asInt()).isGreaterThan(50);
        assertThat(l.get("inputs").toString()).contains("fine.vtu").contains("rake.csv");
        assertThat(l.get("findings")).isEmpty();
        assertThat(run("describe", out.toString()).out()).contains("ledger of the study \"Spindle jacket\"");
        // What this program wrote it reads.
        assertThat(run("describe", out.resolve("ledger.csv").toString()).code()).isZero();
    }

    private Path box() throws Exception {
        var mesh =
                lane.mesh.BoxMesh.of(lane.mesh.CellShape.HEXAHEDRON, new int[] {4, 3, 2}, new double[] {4, 3, 2}, 0, 1);
        double[] t = new double[mesh.nodeCount()];
        double[] u = new double[3 * t.length];
        double[] c = new double[mesh.cellCount()];
        for (int i = 0; i < t.length; i++) {
            t[i] = mesh.xyz()[3 * i] + 10 * mesh.xyz()[3 * i + 1];
            u[3 * i] = mesh.xyz()[3 * i + 2];
            u[3 * i + 2] = -1;
        }
        java.util.Arrays.setAll(c, i -> i);
        Path file = folder.resolve("büchse 1.vtu");
        lane.formats.vtk.VtkXmlWriter.writeGrid(
                file,
                mesh,
                List.of(
                        field("T", lane.field.Field.At.NODE, 1, t),
                        field("u", lane.field.Field.At.NODE, 3, u),
                        field("number", lane.field.Field.At.CELL, 1, c)),
                lane.formats.vtk.VtkXmlWriter.Options.DEFAULT);
        return file;
    }

    private static lane.field.Field field(String name, lane.field.Field.At at, int components, double[] v) {
        return new lane.field.Field(name, at, components, lane.unit.Unit.UNKNOWN, lane.field.Values.of(v));
    }

    @Test
    void fieldsAreSampledAlongALineAndAtPoints() throws Exception {
        Path csv = folder.resolve("out.csv");
        String file = box().toString();
        Run run = run(
                "sample",
                file,
                "--line",
                "-1,0.5,0.5 5,0.5,0.5",
                "--samples",
                "7",
                "--fields",
                "T,u,number",
                "--csv",
                csv.toString());
        assertThat(run.code()).as(run.err()).isZero();
        List<String> lines = Files.readAllLines(csv);
        assertThat(lines.getFirst()).isEqualTo("x,y,z,abscissa,inside,T,u.x,u.y,u.z,number");
        assertThat(lines).hasSize(8);
        assertThat(lines.get(1)).isEqualTo("-1.0,0.5,0.5,0.0,0,,,,,");
        String[] third = lines.get(3).split(",");
        assertThat(Double.parseDouble(third[0])).isCloseTo(1, org.assertj.core.api.Assertions.within(1e-12));
        assertThat(third[4]).isEqualTo("1");
        assertThat(Double.parseDouble(third[5])).isCloseTo(6, org.assertj.core.api.Assertions.within(1e-12));
        assertThat(Double.parseDouble(third[8])).isEqualTo(-1);
        Path points = Files.writeString(folder.resolve("p.csv"), "x,y,z\n1,1,1\n9,9,9\n3.5,2.5,0\n");
        Run at = run("sample", file, "--points", points.toString(), "--fields", "T");
        // What is assumed stands beside the numbers, not among them.
        assertThat(at.err()).isEqualTo("Columns x, y, z of p.csv state no unit and are taken as metres.\n");
        assertThat(at.code()).as(at.err()).isZero();
        assertThat(at.out().lines().toList()).hasSize(4).element(1).isEqualTo("1.0,1.0,1.0,0.0,1,11.0");
        assertThat(at.out().lines().toList().get(2)).startsWith("9.0,9.0,9.0,").endsWith(",0,");
        // What is wrong is one sentence.
        assertThat(run("sample", file, "--line", "0,0 1,1,1").err()).contains("\"0,0\" is no point");
        assertThat(run("sample", file, "--line", "0,0,0 1,1,1", "--fields", "nope")
                        .err())
                .contains("no field \"nope\"")
                .contains("T, u, number");
        assertThat(run("sample", file).code()).isEqualTo(3);
        assertThat(run("sample", folder.resolve("none.vtu").toString(), "--line", "0,0,0 1,1,1")
                        .code())
                .isEqualTo(3);
    }

    @Test
    void aPictureShowsTheSurfaceFromTheSideThatIsAsked() throws Exception {
        Path png = folder.resolve("p.png");
        String file = box().toString();
        Run run = run("picture", file, "--colour", "T", "--from", "-y", "--size", "400x300", "--out", png.toString());
        assertThat(run.code()).as(run.err()).isZero();
        var image = javax.imageio.ImageIO.read(png.toFile());
        assertThat(image.getWidth()).isEqualTo(400);
        assertThat(image.getHeight()).isEqualTo(300);
        // Seen from -y, x runs to the right and T with it: paper on the left, darker on the right.
        int left = image.getRGB(40, 150) & 255;
        int right = image.getRGB(260, 150) & 255;
        assertThat(left).isNotEqualTo(image.getRGB(3, 3) & 255);
        assertThat(left).isGreaterThan(right + 10);
        String bytes = new String(Files.readAllBytes(png), StandardCharsets.ISO_8859_1);
        assertThat(bytes).contains("pHYs").contains("Quantity").contains("0.0 to 34.0");
        for (String colour : List.of("u", "u.z", "number", "")) {
            assertThat(run("picture", file, "--colour", colour, "--from", "+x+y+z", "--out", png.toString())
                            .code())
                    .isZero();
        }
        assertThat(run("picture", file, "--from", "up", "--out", png.toString()).err())
                .contains("\"up\"");
        assertThat(run("picture", file, "--colour", "p", "--out", png.toString())
                        .err())
                .contains("no field \"p\"");
        assertThat(run("picture", file, "--size", "12", "--out", png.toString()).err())
                .contains("1280x800");
    }

    @Test
    void whatComesFromFilesCannotActOnATerminalOrInASpreadsheet() throws Exception {
        Path file = Files.writeString(folder.resolve("odd.vtu"), """
                <VTKFile type="UnstructuredGrid" version="1.0"><UnstructuredGrid>
                <Piece NumberOfPoints="4" NumberOfCells="1">
                <PointData><DataArray type="Float64" Name="=1+2&#x9b;31m,x" format="ascii">1 2 3 4</DataArray></PointData>
                <Points><DataArray type="Float64" NumberOfComponents="3" format="ascii">0 0 0 2 0 0 0 2 0 0 0 2</DataArray></Points>
                <Cells><DataArray type="Int64" Name="connectivity" format="ascii">0 1 2 3</DataArray>
                <DataArray type="Int64" Name="offsets" format="ascii">4</DataArray>
                <DataArray type="UInt8" Name="types" format="ascii">10</DataArray></Cells>
                </Piece></UnstructuredGrid></VTKFile>
                """);
        Run words = run("describe", file.toString());
        assertThat(words.out()).contains("=1+2").doesNotContain("\u009b");
        Run wrong = run("sample", file.toString(), "--line", "0,0,0 1,0,0", "--fields", "no\u001b[2Jne");
        assertThat(wrong.code()).isEqualTo(3);
        assertThat(wrong.err()).doesNotContain("\u001b");
        Run sampled = run("sample", file.toString(), "--line", "0.1,0.1,0.1 1,0.1,0.1");
        Path csv = folder.resolve("out.csv");
        run("sample", file.toString(), "--line", "0.1,0.1,0.1 1,0.1,0.1", "--csv", csv.toString());
        assertThat(sampled.code()).as(sampled.err()).isZero();
        assertThat(sampled.out()).isEqualTo(Files.readString(csv)).contains("\"'=1+2 31m,x\"");
    }

    @Test
    void whatNobodyForesawIsOneSentenceWithTheLogAndWhatCannotBeWrittenIsAnError() {
        assertThat(Lane.sentence(new IllegalStateException("inner")))
                .contains("fault of the program")
                .contains("faults.log");
        assertThat(Lane.sentence(new OutOfMemoryError())).contains("LANE_MEMORY");
        PrintStream kept = System.out;
        PrintStream keptErr = System.err;
        var err = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(new java.io.OutputStream() {
                @Override
                public void write(int b) throws java.io.IOException {
                    throw new java.io.IOException("No space left on device");
                }
            }));
            System.setErr(new PrintStream(err, true, StandardCharsets.UTF_8));
            assertThat(Lane.run("--help")).isEqualTo(3);
        } finally {
            System.setOut(kept);
            System.setErr(keptErr);
        }
        assertThat(err.toString(StandardCharsets.UTF_8))
                .isEqualToIgnoringNewLines("The output could not be written; not all of it has arrived.");
    }
}
