package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.BeforeEach;

/** Leaves of tea that dry on a tray of 0.9 x 0.6 x 0.04 m in centimetres, and a balance's table; evaluated into a ledger. */
abstract class TeaCase extends VerbCase {
    Path study;
    Path ledger;

    void tray(String name, double more) throws IOException {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {4, 3, 2}, new double[] {90, 60, 4}, 0.1, 5);
        double[] wet = new double[mesh.nodeCount()];
        for (int i = 0; i < wet.length; i++) {
            wet[i] = 12 + more + 0.1 * mesh.xyz()[3 * i];
        }
        VtkXmlWriter.writeGrid(
                folder.resolve("runs").resolve(name),
                mesh,
                List.of(new Field("feuchte", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(wet))),
                Options.DEFAULT);
    }

    static final String STUDY = """
            {"version": 3, "name": "tea", "settings": {"datum": "scale",
               "units": [{"field": "feuchte", "unit": "g/kg", "stated": true}]},
             "sources": [
               {"kind": "run", "id": "tray", "name": "tray", "file": "runs/tray.vtu", "treatment": {"length": "cm"}},
               {"kind": "reference", "id": "scale", "name": "scale", "drawn": "MEASUREMENT", "files": ["waage.csv"],
                "answers": [{"kind": "columns", "reading": "across", "file": "waage.csv",
                  "abscissa": "weg", "value": "feuchte"}]}],
             "quantities": [{"id": "wet", "name": "moisture", "formula": "1.0 * feuchte", "unit": "g/kg"}],
             "stations": [{"kind": "line", "id": "mid", "name": "middle",
                "a": {"x": 0.05, "y": 0.3, "z": 0.02}, "b": {"x": 0.85, "y": 0.3, "z": 0.02},
                "sampling": {"kind": "even", "samples": 9}, "abscissa": "arc"}],
             "readings": [
               {"kind": "profile", "id": "across", "name": "across", "unit": "g/kg", "station": "mid", "quantity": "wet"},
               {"kind": "tally", "id": "mean", "name": "mean", "unit": "g/kg", "stations": ["mid"],
                 "measure": {"kind": "mean", "quantity": "wet"}}],
             "checks": [{"kind": "datum", "id": "near", "reading": "across", "norm": "L2", "scale": "ABSOLUTE",
                "tolerance": 0.5}]}
            """;

    @BeforeEach
    void evaluated() throws IOException {
        Files.createDirectories(folder.resolve("runs"));
        tray("tray.vtu", 0);
        Files.writeString(
                folder.resolve("waage.csv"),
                "weg;feuchte\nm;g/kg\n0,0;12,6\n0,2;14,4\n0,4;16,6\n0,6;18,4\n0,8;20,5\n",
                StandardCharsets.UTF_8);
        study = folder.resolve("tea.lane.json");
        Files.writeString(study, STUDY);
        ledger = folder.resolve("ledger");
        int code = run("evaluate", study.toString(), "--out", ledger.toString());
        assertThat(code).as(out + err).isZero();
    }
}
