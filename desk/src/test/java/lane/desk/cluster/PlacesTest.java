package lane.desk.cluster;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.stage.Window;
import lane.base.Work;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.field.Field;
import lane.field.Values;
import lane.formats.FileLibrary;
import lane.formats.piece.PieceFolder;
import lane.formats.study.StudyJson;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.Tally;
import lane.study.Evaluator;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A loaf in an oven whose data stand on another disk than its study. */
class PlacesTest extends Windowed {
    @TempDir
    Path folder;

    private Path file;

    @BeforeEach
    void loaf() throws Exception {
        Path data = Files.createDirectories(folder.resolve("disk/bakery"));
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {3, 3, 3}, new double[] {0.3, 0.1, 0.1}, 0, 1);
        double[] crumb = new double[mesh.nodeCount()];
        for (int i = 0; i < crumb.length; i++) {
            crumb[i] = 350 + 100 * mesh.xyz()[3 * i];
        }
        VtkXmlWriter.writeGrid(
                data.resolve("loaf.vtu"),
                mesh,
                List.of(new Field("crumb", Field.At.NODE, 1, Unit.of("K"), Values.of(crumb))),
                VtkXmlWriter.Options.DEFAULT);
        file = Files.createDirectories(folder.resolve("desk")).resolve("loaf.lane.json");
        Files.writeString(file, """
                {"version": 3, "name": "Loaf", "settings": {"units": [{"field": "crumb", "unit": "K", "stated": true}]},
                 "sources": [{"kind": "run", "id": "loaf", "name": "loaf", "file": "../disk/bakery/loaf.vtu"}],
                 "stations": [{"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [{"kind": "tally", "id": "m", "name": "mean", "stations": ["all"],
                               "measure": {"kind": "mean", "quantity": "crumb"}}]}
                """);
    }

    private void item(String id) throws Exception {
        MenuButton menu = node("computing");
        MenuItem found = menu.getItems().stream()
                .filter(i -> id.equals(i.getId()))
                .findFirst()
                .orElseThrow();
        robot.interact(found::fire);
        events();
    }

    private String told(String id) throws Exception {
        return onFx(() -> ((Label) Window.getWindows().getLast().getScene().lookup("#" + id)).getText());
    }

    private void put(String id, String text) throws Exception {
        robot.interact(() -> ((javafx.scene.control.TextField)
                        Window.getWindows().getLast().getScene().lookup("#" + id))
                .setText(text));
    }

    private void push(String id) throws Exception {
        robot.interact(() -> ((javafx.scene.control.Button)
                        Window.getWindows().getLast().getScene().lookup("#" + id))
                .fire());
        events();
    }

    private double mean() {
        return ((Tally) session.results().outcome("m", "loaf")).value();
    }

    @Test
    void filesAreNamedFromTheRootThatTheyLieIn() throws Exception {
        show(() -> Session.open(file));
        settled();
        double before = mean();
        item("computing-places");
        put("root-name-1", "no name");
        put("root-here-1", folder.resolve("disk").toString());
        push("places-apply");
        assertThat(told("places-told")).contains("is no name of a root");
        put("root-name-1", "disk");
        put("root-cluster-1", "/scratch/bakery");
        push("places-apply");
        assertThat(told("places-told")).contains("1 path of the study starts from a root");
        popup("places");
        settled();
        assertThat(((Source.Simulation) session.study().sources().getFirst()).file())
                .isEqualTo("{disk}/bakery/loaf.vtu");
        assertThat(mean()).isEqualTo(before);
        assertThat(session.results()
                        .outcome("m", "loaf")
                        .trail()
                        .inputs()
                        .getFirst()
                        .path())
                .isEqualTo("{disk}/bakery/loaf.vtu");
        robot.interact(() -> session.save());
        Study kept = StudyJson.load(file);
        assertThat(kept).isEqualTo(session.study());
        // It goes elsewhere, and its root stays.
        robot.interact(() -> session.saveAs(folder.resolve("other.lane.json")));
        settled();
        assertThat(((Source.Simulation) session.study().sources().getFirst()).file())
                .isEqualTo("{disk}/bakery/loaf.vtu");
        assertThat(mean()).isEqualTo(before);
    }

    @Test
    void whatWasComputedElsewhereIsShownWithoutItsData() throws Exception {
        Study study = StudyJson.load(file);
        var library = new FileLibrary(file.getParent());
        library.keeping(new PieceFolder(folder.resolve("pieces")), lane -> Optional.empty());
        double there =
                ((Tally) new Evaluator(library).evaluate(study, Work.QUIET).outcome("m", "loaf")).value();
        Files.delete(folder.resolve("disk/bakery/loaf.vtu"));
        show(() -> Session.open(file));
        settled();
        assertThat(session.results().outcome("m", "loaf")).isNotInstanceOf(Tally.class);
        item("computing-places");
        put("places-pieces", folder.resolve("pieces").toString());
        push("places-apply");
        settled();
        assertThat(mean()).isEqualTo(there);
        assertThat(session.results().failures().get("loaf"))
                .contains("loaf.vtu", "What it answers was computed elsewhere, from files that are not here.");
        robot.interact(() -> session.go(4));
        settled();
        look("places-answers");
    }

    @Test
    void aClusterThatIsNotThereIsToldInASentence() throws Exception {
        show(() -> Session.open(file));
        settled();
        item("computing-cluster");
        put("cluster-per-job", "0");
        push("cluster-start");
        assertThat(told("cluster-told")).contains("\"0\" is no whole number from 1");
        put("cluster-per-job", "2");
        put("cluster-folder", folder.resolve("out").toString());
        push("cluster-attach");
        await(() -> told("cluster-told").contains("There is no plan of an evaluation on a cluster in"));
        popup("cluster-form");
        robot.interact(() -> session.edit("Theme", s -> s.withStations(l -> List.of())));
        push("cluster-start");
        assertThat(told("cluster-told")).contains("Save the study first");
    }
}
