package lane.desk.checks;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Where two runs of a drying brick differ, in the card of the check that compares them. */
class CheckMapTest extends Windowed {
    @TempDir
    Path folder;

    private void brick(String name, CellShape shape, int n, double bump) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3 * n, n, n}, new double[] {24, 11, 7}, 0, 1);
        double[] t = new double[mesh.nodeCount()];
        for (int i = 0; i < t.length; i++) {
            double x = mesh.xyz()[3 * i] - 24;
            double y = mesh.xyz()[3 * i + 1];
            t[i] = 60 - y + bump * Math.exp(-0.02 * (x * x + y * y));
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name),
                mesh,
                List.of(new Field("warm", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(t))),
                Options.DEFAULT);
    }

    @Test
    void theCardShowsWhereFieldsDiffer() throws Exception {
        brick("alt.vtu", CellShape.HEXAHEDRON, 6, 0);
        brick("neu.vtu", CellShape.TETRAHEDRON, 5, 4);
        Path study = folder.resolve("brick.lane.json");
        Files.writeString(study, """
                {"version": 3, "name": "brick", "settings": {"units": [{"field": "warm", "unit": "degC", "stated": true}]},
                 "sources": [{"kind": "run", "id": "alt", "name": "old", "file": "alt.vtu", "treatment": {"length": "cm"}},
                   {"kind": "run", "id": "neu", "name": "new", "file": "neu.vtu", "treatment": {"length": "cm"}}],
                 "readings": [{"kind": "field-difference", "id": "apart", "name": "Apart", "quantity": "warm", "datum": "alt"}],
                 "checks": [{"kind": "band", "id": "near", "reading": "apart", "least": 0, "greatest": 1, "unit": "K",
                   "judged": ["neu"]}]}
                """);
        show(() -> Session.open(study));
        settled();
        robot.interact(() -> {
            session.go(5);
            session.select(Chosen.CHECK, "near");
        });
        events();
        look("board");
        robot.interact(() -> session.showCheck("near", "neu"));
        events();
        look("card");
        await(() -> node("check-map") instanceof ImageView v && v.getImage() != null);
        look("check-map");
        assertThat(onFx(() -> node("check-map").getParent().lookupAll(".label").stream()
                        .map(n -> ((Label) n).getText())
                        .toList()
                        .toString()))
                .contains("warm of new less that of old, on the surface of old");
    }
}
