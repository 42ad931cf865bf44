package lane.desk.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextArea;
import javafx.scene.control.ToggleButton;
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
import lane.study.TableTemplate;
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
                 "sources": [{"kind": "run", "id": "board", "name": "board", "file": "kaese.vtu"},
                   {"kind": "reference", "id": "lab", "name": "laboratory", "drawn": "MEASUREMENT", "files": [],
                     "answers": [{"kind": "hand", "reading": "mean", "value": 1.8, "unit": "g/kg", "uncertainty": 0.1, "note": "sheet 12"}]}],
                 "quantities": [{"id": "salt", "name": "salt", "formula": "salz", "unit": "g/kg"}],
                 "stations": [{"kind": "line", "id": "middle", "name": "middle",
                   "a": {"x": 0, "y": 0.2, "z": 0.05}, "b": {"x": 2, "y": 0.2, "z": 0.05},
                   "sampling": {"kind": "even", "samples": 9}, "abscissa": "arc"}, {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [{"kind": "tally", "id": "mean", "name": "Mean salt", "stations": ["all"],
                   "measure": {"kind": "mean", "quantity": "salt"}},
                   {"kind": "profile", "id": "along", "name": "Along the board", "station": "middle", "quantity": "salt"}],
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

    private List<String> page() throws Exception {
        return onFx(() -> node("ledger-page").lookupAll(".label").stream()
                .map(n -> ((Label) n).getText())
                .toList());
    }

    private void press(String id) throws Exception {
        robot.interact(() -> ((Button) node(id)).fire());
        events();
    }

    @Test
    void tablesAreSetUpAndStayWithTheStudy() throws Exception {
        look("ledger-look", "tables");
        // What somebody typed stands out.
        assertThat(page()).contains("1.80 †", "† typed by hand, or resting on a number that was");
        press("table-set-up-0");
        look("table-form");
        enter("table-title", "Salt of the week");
        enter("table-units", "mg/kg");
        enter("table-digits", "3");
        settled();
        assertThat(page())
                .contains("Salt of the week", "1750", "mg/kg", "1800 †")
                .doesNotContain("Comparison");
        enter("table-units", "furlong per");
        assertThat(session.message()).contains("furlong");
        press("table-done");
        robot.interact(() -> ((MenuButton) node("table-add"))
                .getItems().stream()
                        .filter(i -> "table-add-PROFILES".equals(i.getId()))
                        .findFirst()
                        .orElseThrow()
                        .fire());
        settled();
        enter("table-rows", "5");
        settled();
        look("table-profile");
        assertThat(page()).contains("Along the board", "0.0", "0.5", "2.0", "1.500", "2.000");
        press("table-done");
        CheckBox tex = node("format-tex");
        robot.interact(tex::fire);
        robot.interact(() -> session.save());
        // Another window on the same file finds tables and formats as they were left.
        robot.interact(() -> session.undo());
        Session other = onFx(() -> Session.open(study));
        assertThat(other.study().pictures().ledger().formats()).containsExactly("tex");
        assertThat(other.study().pictures().ledger().tables())
                .extracting(TableTemplate::name)
                .containsExactly("Salt of the week", "Checks", "Profiles");
        robot.interact(other::close);
        assertThat(((CheckBox) node("format-tex")).isSelected()).isFalse();
    }

    @Test
    void trailPagesSealAndALaterLedgerAreLookedAt() throws Exception {
        look("ledger-look", "trail");
        await(() -> ((ImageView) node("trail-picture")).getImage() != null);
        look("ledger-trail");
        see("N1  Mean salt, tally, board");
        press("trail-on");
        see("N2  Mean salt, tally, laboratory");
        await(() -> ((ImageView) node("trail-picture")).getImage() != null);
        robot.interact(() -> session.toggleTheme());
        await(() -> ((ImageView) node("trail-picture")).getImage() != null);
        look("ledger-trail-typed-dark");
        look("ledger-look", "tables");
        look("ledger-tables-dark");
        look("ledger-look", "trail");
        robot.interact(() -> session.toggleTheme());
        press("trail-back");
        look("ledger-look", "pages");
        await(() -> ((ImageView) node("page-picture")).getImage() != null);
        await(() -> ((Label) node("page-number")).getText().startsWith("page 1 of "));
        look("ledger-page-1");
        press("page-on");
        await(() -> ((Label) node("page-number")).getText().startsWith("page 2 of "));
        look("ledger-page-2");
        robot.clickOn("#write-ledger");
        await(() -> session.message().startsWith("Wrote"));
        look("ledger-look", "verify");
        press("ledger-seal");
        type("seal-name", "  ");
        robot.interact(() -> ((Button) node("seal-go")).fire());
        await(() -> ((Label) node("seal-told")).getText().contains("give a name"));
        type("seal-name", "Ida Käser");
        robot.interact(() -> ((TextArea) node("seal-statement")).setText("ripe"));
        popup("ledger-seal-form");
        robot.interact(() -> ((Button) node("seal-go")).fire());
        await(() -> state().contains("Sealed by Ida Käser") && state().contains("\"ripe\""));
        robot.clickOn("#verify-run");
        await(() -> state().contains("the same to the bit, 0 different, 0 missing"));
        see("It holds");
        // A ledger of other values, line by line and drawn.
        robot.interact(() -> session.edit(
                "Stronger",
                s -> s.withQuantities(l -> l.stream()
                        .map(q -> new lane.quantity.Quantity(q.id(), q.name(), "1.2 * salz", q.unit(), q.note()))
                        .toList())));
        settled();
        Path later = folder.resolve("later");
        robot.interact(() -> LedgerExport.quietly(session, later));
        await(() -> Files.exists(later.resolve("manifest.json"))
                && session.message().startsWith("Wrote"));
        VerifyPane pane =
                onFx(() -> (VerifyPane) node("verify-list").getProperties().get("pane"));
        robot.interact(() -> pane.compare(later));
        await(() -> state().contains("Against") && state().contains(" different"));
        await(() -> ((ImageView) node("verify-moved")).getImage() != null);
        look("ledger-compared");
        ListView<?> list = node("verify-list");
        assertThat(list.getItems().toString()).contains("points", "9 of 9 points differ", "within");
        assertThat(state()).contains(" different");
    }
}
