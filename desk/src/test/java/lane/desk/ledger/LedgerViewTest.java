package lane.desk.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ToggleButton;
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
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A ledger written and verified in the window: cheese that ripens on a board of 2 x 0.4 x 0.1 m. */
class LedgerViewTest extends Windowed {
    @TempDir
    Path folder;

    private Path study;

    @BeforeEach
    void cellar() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {5, 2, 1}, new double[] {2, 0.4, 0.1}, 0, 1);
        double[] salt = new double[mesh.nodeCount()];
        for (int i = 0; i < salt.length; i++) {
            salt[i] = 1.5 + 0.25 * mesh.xyz()[3 * i];
        }
        VtkXmlWriter.writeGrid(
                folder.resolve("kaese.vtu"),
                mesh,
                List.of(new Field("salz", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(salt))),
                Options.DEFAULT);
        study = folder.resolve("cheese.lane.json");
        Files.writeString(study, """
                {"version": 3, "name": "Ripening", "settings": {"units": [{"field": "salz", "unit": "g/kg", "stated": true}]},
                 "sources": [{"kind": "run", "id": "board", "name": "board", "file": "kaese.vtu"}],
                 "quantities": [{"id": "salt", "name": "salt", "formula": "salz", "unit": "g/kg"}],
                 "stations": [{"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [{"kind": "tally", "id": "mean", "name": "Mean salt", "stations": ["all"],
                   "measure": {"kind": "mean", "quantity": "salt"}}],
                 "checks": [{"kind": "band", "id": "mild", "reading": "mean", "least": 0, "greatest": 2, "unit": "g/kg"}]}
                """);
        show(() -> Session.open(study));
        settled();
        robot.interact(() -> session.go(6));
        events();
    }

    private void look(String id, String word) throws Exception {
        var button = onFx(() -> node(id).lookupAll(".toggle-button").stream()
                .map(ToggleButton.class::cast)
                .filter(b -> b.getText().equals(word))
                .findFirst()
                .orElseThrow());
        robot.interact(button::fire);
        events();
    }

    private String state() {
        return ((Label) node("verify-state")).getText();
    }

    @Test
    void aLedgerIsWrittenInChosenFormatsAndVerifiedByLine() throws Exception {
        CheckBox md = node("format-md");
        robot.interact(md::fire);
        CheckBox xlsx = node("format-xlsx");
        robot.interact(xlsx::fire);
        look("ledger-numbers");
        look("ledger-look", "tables");
        look("ledger-tables");
        assertThat(onFx(() -> node("ledger-page").lookupAll(".label").stream()
                        .map(n -> ((Label) n).getText())
                        .toList()))
                .contains("Comparison", "Mean salt", "Checks", "within");
        look("ledger-look", "verify");
        robot.clickOn("#verify-run");
        await(() -> state().contains("manifest.json") || state().contains("There is no"));
        robot.clickOn("#write-ledger");
        await(() -> session.message().startsWith("Wrote"));
        assertThat(folder.resolve("ledger/ledger.md")).exists();
        assertThat(folder.resolve("ledger/ledger.xlsx")).exists();
        robot.clickOn("#verify-run");
        await(() -> state().contains("the same to the bit, 0 different, 0 missing"));
        ListView<?> list = node("verify-list");
        assertThat(list.getItems()).isEmpty();

        // Another formula: the numbers that it changes are named, and a click leads to them.
        robot.interact(() -> session.edit(
                "Stronger",
                s -> s.withQuantities(l -> l.stream()
                        .map(q -> new lane.quantity.Quantity(q.id(), q.name(), "1.2 * salz", q.unit(), q.note()))
                        .toList())));
        settled();
        // What is not saved yet is not what is verified, and that is said.
        robot.clickOn("#verify-run");
        see("changes that are not saved");
        assertThat(list.getItems()).isEmpty();
        robot.interact(() -> session.save());
        robot.clickOn("#verify-run");
        await(() -> state().contains("different") && !state().contains(" 0 different"));
        look("ledger-verify");
        assertThat(list.getItems().toString()).contains("1.2 * salz", "Mean salt", "definition changed");
        see("Mean salt");
        robot.clickOn("Mean salt, tally, board");
        assertThat(session.stop()).isEqualTo(4);
        assertThat(session.selected(Chosen.READING)).isEqualTo("mean");
    }
}
