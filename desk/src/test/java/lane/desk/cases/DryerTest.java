package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.provenance.Provenance;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A dryer of malt with ninety feelers in one log: many readings are a list that is searched and walked through. */
class DryerTest extends Windowed {
    private static final int FEELERS = 90;

    @TempDir
    Path folder;

    private Path log() throws Exception {
        var text = new StringBuilder("Stunde [h]");
        for (int k = 0; k < FEELERS; k++) {
            text.append("\tFühler ").append(k).append(" [degC]");
        }
        for (int i = 0; i < 200; i++) {
            text.append(String.format(Locale.GERMAN, "%n%.2f", i / 20.0));
            for (int k = 0; k < FEELERS; k++) {
                text.append(String.format(Locale.GERMAN, "\t%.2f", 40 + 0.1 * i + k));
            }
        }
        return Files.writeString(folder.resolve("darre.txt"), text);
    }

    private boolean there(int feeler) {
        return robot.lookup("#item-" + id(feeler)).tryQuery().isPresent();
    }

    private String id(int feeler) {
        return session.study().readings().get(feeler).id();
    }

    private String trail() {
        List<Provenance.Step> steps = session.trail().steps();
        return steps.isEmpty() ? "" : steps.getLast().text();
    }

    private boolean shows(int feeler) {
        return session.selected(Chosen.READING).equals(id(feeler))
                && there(feeler)
                && trail().endsWith("Fühler " + feeler);
    }

    @Test
    void manyReadingsAreSearchedAndWalkedThrough() throws Exception {
        Path log = log();
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(session, List.of(log)));
        await(() -> session.study().sources().size() == 1);
        settled();
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, session.study().sources().getFirst().id());
        });
        MenuButton menu = node("monitor-columns");
        robot.interact(() -> menu.getItems().getFirst().fire());
        settled();
        robot.interact(() -> session.go(4));
        await(() -> session.results().readings().size() == FEELERS && shows(0));
        // The head of the group stands among them and is none of them; far down nothing is made.
        ListView<Integer> list = node("reading-list");
        assertThat(list.getItems()).hasSize(FEELERS + 1);
        assertThat(there(80)).isFalse();
        robot.interact(list::requestFocus);
        press(KeyCode.DOWN);
        await(() -> shows(1));
        // Whatever selects one brings it into sight.
        robot.interact(() -> session.select(Chosen.READING, id(40)));
        await(() -> shows(40));
        assertThat(there(0)).isFalse();
        enter("reading-list-search", "Fühler 7");
        await(() -> list.getItems().size() == 11);
        robot.interact(() -> node("reading-list").requestFocus());
        press(KeyCode.DOWN);
        await(() -> shows(7));
        press(KeyCode.DOWN);
        await(() -> shows(70));
        // A reading without any curve has no trail, and no chart of another one is left.
        var view = (ImageView) ((Pane) node("profile-chart")).getChildren().getFirst();
        await(() -> view.getImage() != null);
        robot.interact(() -> session.edit("Leave out", s -> s.withSources(l -> List.of())));
        settled();
        await(() -> view.getImage() == null && session.trail().steps().isEmpty());
    }
}
