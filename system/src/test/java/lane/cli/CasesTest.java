package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whole tasks of other trades by the command line alone, on files as their programs write them. */
class CasesTest {
    @TempDir
    Path folder;

    private String out = "";

    private int run(String... args) {
        PrintStream before = System.out;
        var bytes = new ByteArrayOutputStream();
        System.setOut(new PrintStream(bytes, true, StandardCharsets.UTF_8));
        try {
            return Lane.run(args);
        } finally {
            System.setOut(before);
            out = bytes.toString(StandardCharsets.UTF_8);
        }
    }

    /** A drying tunnel of 2.4 x 0.6 x 0.5 m in millimetres: the air cools along it by 10 degrees and its humidity rises. */
    private void tunnel() throws Exception {
        int[] n = {12, 6, 5};
        var points = new StringBuilder();
        var air = new StringBuilder();
        var wind = new StringBuilder();
        var cells = new StringBuilder();
        int nodes = 0;
        for (int k = 0; k <= n[2]; k++) {
            for (int j = 0; j <= n[1]; j++) {
                for (int i = 0; i <= n[0]; i++) {
                    points.append(200 * i)
                            .append(' ')
                            .append(100 * j)
                            .append(' ')
                            .append(100 * k)
                            .append('\n');
                    air.append(String.format(Locale.ROOT, "%.6f%n", 60 - 10 * i / 12.0 + 2 * j / 6.0));
                    wind.append(String.format(Locale.ROOT, "%.6f 0 0%n", 1.5 + 0.1 * k));
                    nodes++;
                    if (i < n[0] && j < n[1] && k < n[2]) {
                        int a = i + 13 * (j + 7 * k);
                        int b = a + 91;
                        cells.append("8 " + a + " " + (a + 1) + " " + (a + 14) + " " + (a + 13) + " " + b + " "
                                + (b + 1) + " " + (b + 14) + " " + (b + 13) + "\n");
                    }
                }
            }
        }
        Files.writeString(
                folder.resolve("tunnel.vtk"),
                "# vtk DataFile Version 3.0\ntunnel\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS " + nodes + " double\n"
                        + points
                        + "CELLS 360 3240\n" + cells + "CELL_TYPES 360\n" + "12\n".repeat(360) + "POINT_DATA " + nodes
                        + "\nSCALARS luft_temp double 1\nLOOKUP_TABLE default\n" + air + "VECTORS wind double\n"
                        + wind);
        Files.write(
                folder.resolve("fuehler.csv"),
                ("Trockner 4;;;\n;;;\nWeg;Lufttemperatur;rel. Feuchte;Bemerkung\nmm;°C;%;\n100;60,6;12,9;ok\n700;58,1;--;ok\n"
                                + "1300;-999;22,7;Kabel\n1900;52,6;27,9;Tür offen\nMittel;57,1;21,2;\n")
                        .getBytes(Charset.forName("windows-1252")));
    }

    private void study(String missing) throws Exception {
        Files.writeString(folder.resolve("tunnel.lane.json"), """
                {"version": 2, "name": "Drying tunnel",
                 "settings": {"datum": "sensors", "recipes": [{"file": "fuehler*.csv", "missing": [%s]}],
                  "units": [{"field": "luft_temp", "unit": "degC", "stated": true}, {"field": "wind", "unit": "m/s", "stated": true}]},
                 "sources": [
                  {"kind": "run", "id": "tunnel", "name": "tunnel", "file": "tunnel.vtk", "treatment": {"length": "mm"}},
                  {"kind": "reference", "id": "sensors", "name": "sensors", "drawn": "MEASUREMENT", "files": ["fuehler.csv"],
                   "answers": [{"kind": "columns", "reading": "along", "file": "fuehler.csv", "abscissa": "Weg", "value": "Lufttemperatur"}]}],
                 "quantities": [{"id": "air", "name": "air", "formula": "luft_temp", "unit": "degC"},
                   {"id": "drop", "name": "drop", "formula": "abs(luft_temp - 333.15 \\"K\\")"},
                   {"id": "wind", "name": "wind", "formula": "wind"}],
                 "stations": [
                  {"kind": "line", "id": "mid", "name": "mid", "a": {"x": 0, "y": 0.3, "z": 0.25}, "b": {"x": 2.4, "y": 0.3, "z": 0.25},
                   "sampling": {"kind": "even", "samples": 25}},
                  {"kind": "section", "id": "half", "name": "half way", "point": {"x": 1.25, "y": 0, "z": 0}, "normal": {"x": 1, "y": 0, "z": 0}},
                  {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [
                  {"kind": "profile", "id": "along", "name": "Along the tunnel", "station": "mid", "quantity": "air"},
                  {"kind": "tally", "id": "through", "name": "Air through", "stations": ["half"], "unit": "m3/s",
                   "measure": {"kind": "flow", "vector": "wind", "factor": 1, "factorUnit": "", "carried": "NOTHING"}},
                  {"kind": "tally", "id": "mean", "name": "Mean drop", "stations": ["all"], "measure": {"kind": "mean", "quantity": "drop"}}],
                 "checks": [{"kind": "datum", "id": "c", "reading": "along", "tolerance": 0.6, "norm": "LINF", "scale": "ABSOLUTE"}]}
                """.formatted(missing));
    }

    private JsonNode number(String item, String what) throws Exception {
        JsonNode all = new ObjectMapper()
                .readTree(folder.resolve("out/ledger.json").toFile())
                .path("numbers");
        for (JsonNode n : all) {
            if (n.path("item").asText().equals(item)
                    && n.path("lane").asText().equals("tunnel")
                    && n.path("what").asText().contains(what)) {
                return n;
            }
        }
        throw new AssertionError("no " + what + " of " + item + " in " + all);
    }

    @Test
    void aDryingTunnelAgainstItsSensors() throws Exception {
        tunnel();
        Path table = folder.resolve("fuehler.csv");
        assertThat(run(
                        "describe",
                        table.toString(),
                        folder.resolve("tunnel.vtk").toString()))
                .isZero();
        assertThat(out)
                .contains("header in line 3, units in line 4, data from line 5")
                .contains("column Lufttemperatur [°C], value: 4 numbers")
                .contains("-999 stands once in \"Lufttemperatur\"")
                .contains("line 9 is left out: a sum at the end")
                .contains("360 hexahedron")
                .doesNotContain("area 0");
        String file = folder.resolve("tunnel.lane.json").toString();
        String to = folder.resolve("out").toString();
        // Nobody said that -999 is no temperature: the check is far out, and the table tells why.
        study("");
        assertThat(run("evaluate", file, "--out", to)).isEqualTo(1);
        study("\"-999\"");
        assertThat(run("evaluate", file, "--out", to)).as(out).isZero();
        assertThat(out).contains("Drying tunnel: 2 lanes").contains("3 of 3 samples have a value");
        // At 1.9 m: 61 - 10 * 1.9 / 2.4 against 52.6.
        assertThat(number("Along the tunnel", "Linf of difference")
                        .path("value")
                        .asDouble())
                .isCloseTo(61 - 19 / 2.4 - 52.6, within(1e-6));
        // Wind of 1.5 to 2 m/s over 0.6 x 0.5 m, across the section's normal.
        assertThat(number("Air through", "tally").path("value").asDouble()).isCloseTo(1.75 * 0.3, within(1e-9));
        // |10 x - 2 y| over a unit square, which has a kink inside of cells.
        assertThat(number("Mean drop", "tally").path("value").asDouble()).isCloseTo(4 + 2 / 15.0, within(1e-3));
    }
}
