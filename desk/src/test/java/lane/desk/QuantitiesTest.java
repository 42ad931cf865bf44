package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.quantity.Catalogue;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.study.Source;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The sheet of formulas: catalogue, exchange between studies, theories in formulas, many lanes; and two pictures. */
class QuantitiesTest extends InWindow {
    @BeforeEach
    void quantities() throws Exception {
        go(3);
    }

    private void go(int stop) throws Exception {
        onFx(() -> {
            session.go(stop);
            return null;
        });
        settled();
    }

    /** Chooses from a menu by the words shown, from the outermost to the item. */
    private void pick(String button, String... words) throws Exception {
        MenuButton menu = node(button);
        onFx(() -> {
            List<MenuItem> items = menu.getItems();
            for (String word : words) {
                MenuItem found = items.stream()
                        .filter(i -> word.equals(i.getText()))
                        .findFirst()
                        .orElseThrow(() -> new AssertionError("there is no \"" + word + "\" in " + button));
                if (found instanceof Menu m) {
                    items = m.getItems();
                } else {
                    found.fire();
                }
            }
            return null;
        });
        settled();
    }

    private static void clip(String text) throws Exception {
        onFx(() -> {
            var content = new ClipboardContent();
            content.putString(text);
            return Clipboard.getSystemClipboard().setContent(content);
        });
    }

    private List<Quantity> quantitiesNow() {
        return session.study().quantities();
    }

    private Outcome ask(Quantity q, Measure measure, String station, String lane) throws Exception {
        onFx(() -> {
            session.edit(
                    "ask",
                    s -> s.withReadings(l -> {
                        l.removeIf(r -> r.id().equals("asked"));
                        l.add(
                                measure == null
                                        ? new Reading("asked", "asked", "", new ProfileOf(station, q.id()))
                                        : new Reading("asked", "asked", "", new TallyOf(List.of(station), measure)));
                        return l;
                    }));
            return null;
        });
        settled();
        return session.results().outcome("asked", lane);
    }

    @Test
    void everyEntryOfTheCatalogueIsTakenOnceWithTheFieldsThatTheRunsHave() throws Exception {
        for (Catalogue.Entry e : Catalogue.all()) {
            int before = quantitiesNow().size();
            pick("quantity-catalogue", e.name());
            assertThat(quantitiesNow()).as(e.name()).hasSize(before + 1);
            Quantity made = quantitiesNow().getLast();
            assertThat(made.note()).isEqualTo(e.note());
            assertThat(session.selected(Chosen.QUANTITY)).isEqualTo(made.id());
            assertThat(made.formula()).doesNotContain("{");
        }
        // The demo has velocities, pressures and wall shears, by whatever name its files call them.
        Quantity friction = quantitiesNow().stream()
                .filter(q -> q.formula().startsWith("sqrt(norm(wallShear)"))
                .findFirst()
                .orElseThrow();
        assertThat(ask(friction, new Mean(friction.id()), "rotor", "fine")).isInstanceOf(Tally.class);
    }

    @Test
    void quantitiesGoByTheClipboardWithWhatTheyNeedAndComeBackWithoutHarm() throws Exception {
        onFx(() -> {
            session.select(Chosen.QUANTITY, "gap-reynolds");
            return null;
        });
        settled();
        pick("quantity-exchange", "Copy this with what it needs");
        String text = onFx(() -> Clipboard.getSystemClipboard().getString());
        assertThat(lane.formats.study.QuantitiesFile.read(text, "the clipboard"))
                .extracting(Quantity::name)
                .contains("gap Reynolds number", "axial speed", "rho", "mu", "Ri", "Ro")
                .doesNotContain("pressure");
        // Pasted where all of it is already: nothing changes.
        List<Quantity> before = quantitiesNow();
        pick("quantity-exchange", "Paste");
        assertThat(quantitiesNow()).isEqualTo(before);
        // Into a study without them: all come.
        onFx(() -> {
            session.edit("empty", s -> s.withReadings(l -> List.of())
                    .withChecks(l -> List.of())
                    .withQuantities(l -> List.of()));
            return null;
        });
        settled();
        pick("quantity-exchange", "Paste");
        assertThat(quantitiesNow()).extracting(Quantity::name).contains("gap Reynolds number", "axial speed", "rho");
        // Another formula of a name that is there gets a name of its own; lines parted by tabs are read as well.
        clip("name\tformula\tunit\tnote\nrho\t900 \"kg/m3\"\t\twarm\n");
        pick("quantity-exchange", "Paste");
        assertThat(quantitiesNow()).filteredOn(q -> q.name().startsWith("rho")).hasSize(2);
        int many = quantitiesNow().size();
        for (String wrong : List.of("", "[{\"name\": 5}]", "{\"a\": [", "just words")) {
            clip(wrong);
            pick("quantity-exchange", "Paste");
            assertThat(quantitiesNow()).as(wrong).hasSize(many);
            assertThat(session.message()).as(wrong).endsWith(".");
        }
    }

    @Test
    void aTheoryIsTakenInAFormulaAndFollowedWhenItIsRenamed() throws Exception {
        press("+ Formula");
        String id = session.selected(Chosen.QUANTITY);
        TextInputControl field = node("quantity-formula-" + id);
        robot.interact(() -> {
            field.requestFocus();
            field.clear();
        });
        // What may stand behind "of" is proposed: runs, theories, measurements.
        robot.write("\"swirl speed\" - \"swirl speed\" of theo")
                .type(KeyCode.TAB)
                .type(KeyCode.ENTER);
        settled();
        Quantity made = session.study().quantity(id).orElseThrow();
        assertThat(made.formula()).isEqualTo("\"swirl speed\" - \"swirl speed\" of theory");
        Profile error = (Profile) ask(made, null, "gap-mid", "fine");
        Profile run = (Profile) session.results().outcome("swirl-gap", "fine");
        Profile theory = (Profile) session.results().outcome("swirl-gap", "theory");
        for (int i = 0; i < error.value().length; i++) {
            if (!Double.isNaN(run.value()[i])) {
                assertThat(error.value()[i]).isCloseTo(run.value()[i] - theory.value()[i], within(1e-12));
            }
        }
        onFx(() -> {
            session.edit(
                    "Rename source",
                    s -> s.with(s.source("theory").orElseThrow().named("Couette")));
            return null;
        });
        settled();
        assertThat(session.study().quantity(id).orElseThrow().formula())
                .isEqualTo("\"swirl speed\" - \"swirl speed\" of Couette");
        assertThat(ask(made, null, "gap-mid", "fine")).isInstanceOf(Profile.class);
        onFx(() -> {
            session.undo();
            return null;
        });
        settled();
        assertThat(session.study().quantity(id).orElseThrow().formula()).endsWith("of theory");
    }

    private void press(String button) throws Exception {
        javafx.scene.control.Button found = robot.lookup(n -> n instanceof javafx.scene.control.Button b
                        && b.getText().equals(button))
                .query();
        onFx(() -> {
            found.fire();
            return null;
        });
        settled();
    }

    @Test
    void ofManyRunsThoseThatLackAFieldAreNamed() throws Exception {
        Files.writeString(study.resolveSibling("one.vtu"), """
                <VTKFile type="UnstructuredGrid" version="1.0" byte_order="LittleEndian"><UnstructuredGrid>
                <Piece NumberOfPoints="4" NumberOfCells="1"><PointData>
                <DataArray type="Float64" Name="temperature" format="ascii">300 301 302 303</DataArray></PointData>
                <Points><DataArray type="Float64" NumberOfComponents="3" format="ascii">0 0 0 1 0 0 0 1 0 0 0 1</DataArray></Points>
                <Cells><DataArray type="Int32" Name="connectivity" format="ascii">0 1 2 3</DataArray>
                <DataArray type="Int32" Name="offsets" format="ascii">4</DataArray>
                <DataArray type="UInt8" Name="types" format="ascii">10</DataArray></Cells></Piece></UnstructuredGrid></VTKFile>
                """);
        onFx(() -> {
            session.edit(
                    "many",
                    s -> s.withSources(l -> {
                        var all = new ArrayList<>(l);
                        for (int i = 0; i < 34; i++) {
                            all.add(new Source.Simulation("r" + i, "run " + i, "one.vtu", List.of(), "", ""));
                        }
                        return all;
                    }));
            return null;
        });
        settled();
        await(() -> robot.lookup(n -> n instanceof Label l && l.getText().equals("all 38"))
                .tryQuery()
                .isPresent());
        see("4 of 38");
        see("not in run 0, run 1, run 2");
        look("quantities-40");
    }

    @Test
    void twoLanesAndTheirDifferenceAreLookedAtFromTheSamePlace() throws Exception {
        go(2);
        pick("picture-view", "Beside it", "medium");
        await(() -> robot.lookup("#field-beside").tryQuery().isPresent());
        look("pair-two");
        await(() -> colours(picture()) > 50);
        javafx.scene.image.Image two = picture();
        pick("picture-view", "Beside it", "the difference to medium");
        await(() -> shown("fine less medium"));
        await(() -> differ(picture(), two));
        look("pair-difference");
        javafx.scene.image.Image before = picture();
        // The one picture follows when the other is turned.
        javafx.scene.Node first = robot.lookup("#field").query();
        robot.drag(first).moveBy(60, 15).drop();
        await(() -> differ(picture(), before));
        pick("picture-view", "Beside it", "nothing");
        await(() -> robot.lookup("#field-beside").tryQuery().isEmpty());
    }

    private javafx.scene.image.Image picture() throws Exception {
        java.util.concurrent.Callable<javafx.scene.image.Image> take = () -> {
            javafx.scene.Node beside = robot.lookup("#field-beside").queryAll().stream()
                    .filter(n -> n.getBoundsInParent().getWidth() > 20)
                    .findFirst()
                    .orElseThrow();
            var at = beside.localToScene(beside.getBoundsInLocal());
            javafx.scene.image.Image all = stage.getScene().snapshot(null);
            return new javafx.scene.image.WritableImage(
                    all.getPixelReader(),
                    (int) at.getMinX() + 1,
                    (int) at.getMinY() + 1,
                    (int) at.getWidth() - 2,
                    (int) at.getHeight() - 2);
        };
        return javafx.application.Platform.isFxApplicationThread() ? take.call() : onFx(take);
    }

    private static long colours(javafx.scene.image.Image image) {
        var seen = new java.util.HashSet<Integer>();
        for (int y = 0; y < image.getHeight(); y += 3) {
            for (int x = 0; x < image.getWidth(); x += 3) {
                seen.add(image.getPixelReader().getArgb(x, y));
            }
        }
        return seen.size();
    }

    private static boolean differ(javafx.scene.image.Image a, javafx.scene.image.Image b) {
        if (a.getWidth() != b.getWidth() || a.getHeight() != b.getHeight()) {
            return true;
        }
        int n = 0;
        for (int y = 0; y < a.getHeight(); y += 3) {
            for (int x = 0; x < a.getWidth(); x += 3) {
                n += a.getPixelReader().getArgb(x, y) == b.getPixelReader().getArgb(x, y) ? 0 : 1;
            }
        }
        return n > 200;
    }
}
