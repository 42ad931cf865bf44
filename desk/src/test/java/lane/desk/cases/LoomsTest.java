package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import lane.desk.Chosen;
import lane.desk.LaneColumns;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.reading.Profile;
import lane.study.Source;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The warp tension of seventy-five looms, a log each: what is many is made where it is seen, and read in one go. */
class LoomsTest extends Windowed {
    private static final int LOOMS = 75;
    private static final int ROWS = 3000;

    @TempDir
    Path folder;

    private List<Path> logs() throws Exception {
        List<Path> out = new ArrayList<>();
        for (int k = 0; k < LOOMS; k++) {
            var text = new StringBuilder("Zeit [min];Kettspannung [N]\n");
            for (int i = 0; i < ROWS; i++) {
                text.append(
                        String.format(Locale.GERMAN, "%.1f;%.3f%n", i / 10.0, 50 + 10 * Math.sin(i / 50.0) + 0.01 * k));
            }
            out.add(Files.writeString(folder.resolve(String.format("stuhl_%02d.csv", k)), text));
        }
        return out;
    }

    private String lane(int k) {
        return session.study().sources().get(k).id();
    }

    private boolean there(String id) {
        return robot.lookup("#" + id).tryQuery().isPresent();
    }

    /** What a row of a list says, of which the cell that shows it is looked for. */
    private List<String> row(String list, String name) {
        Node shown = robot.lookup("#" + list).query();
        return shown.lookupAll(".list-cell").stream()
                .map(cell -> cell.lookupAll(".label").stream()
                        .filter(Label.class::isInstance)
                        .map(l -> ((Label) l).getText())
                        .toList())
                .filter(texts -> texts.contains(name))
                .findFirst()
                .orElse(List.of());
    }

    @Test
    void manyLogsAreReadInOneGo() throws Exception {
        List<Path> logs = logs();
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(session, logs));
        await(() -> session.study().sources().size() == LOOMS);
        settled();
        assertThat(session.study().sources()).extracting(Source::name).contains("00", "74");
        // Only what is seen is there, and the keys walk through all of it.
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, lane(0));
        });
        events();
        ListView<Integer> list = node("source-list");
        assertThat(list.getItems()).hasSize(LOOMS);
        assertThat(there("source-" + lane(60))).isFalse();
        robot.interact(() -> node("source-list").requestFocus());
        robot.interact(() -> session.select(Chosen.SOURCE, lane(12)));
        events();
        for (int k = 0; k < 2; k++) {
            press(KeyCode.DOWN);
        }
        await(() -> session.selected(Chosen.SOURCE).equals(lane(14)) && there("source-" + lane(14)));
        enter("source-list-search", "stuhl_6");
        await(() -> list.getItems().size() == 10);
        robot.interact(list::requestFocus);
        press(KeyCode.DOWN);
        await(() -> session.selected(Chosen.SOURCE).equals(lane(60)));
        enter("source-list-search", "");
        // The lane bar has chips where it is looked at.
        assertThat(there("chip-" + lane(0))).isTrue();
        assertThat(there("chip-" + lane(60))).isFalse();
        robot.interact(() -> LaneColumns.move(session, 60 * Ui.PITCH));
        await(() -> there("chip-" + lane(60)) && !there("chip-" + lane(0)));
        // One click makes a history of all of them.
        CheckBox like = node("monitor-like");
        await(() -> like.getText().equals("also 74 other tables of this kind"));
        MenuButton menu = node("monitor-columns");
        robot.interact(() -> menu.getItems().getFirst().fire());
        settled();
        String reading = session.study().readings().getFirst().id();
        assertThat(session.study().readings()).hasSize(1);
        for (int k = 0; k < LOOMS; k++) {
            var curve = (Profile) session.results().outcome(reading, lane(k));
            assertThat(curve.value()[0]).isEqualTo(50 + 0.01 * k);
        }
        // They are compared behind the window; a constant difference of 0.1 N is half a per cent of twenty.
        await(() -> row("lane-norms", "10").contains("+0.10"));
        assertThat(row("lane-norms", "10"))
                .filteredOn(t -> t.matches("0\\.\\d+"))
                .first()
                .satisfies(t -> assertThat(Double.parseDouble(t)).isCloseTo(0.5, within(1e-3)));
        assertThat(row("lane-norms", "00")).contains("datum");
        look("looms");
        // Another datum is searched for in a list, too.
        MenuButton datum = node("study-datum");
        robot.interact(datum::show);
        var box = (Pane) ((CustomMenuItem) datum.getItems().getFirst()).getContent();
        await(() -> !box.getChildren().isEmpty());
        var shown = (ListView<?>) box.getChildren().getLast();
        assertThat(shown.getItems()).hasSize(LOOMS);
        TextField search =
                (TextField) ((Pane) box.getChildren().getFirst()).getChildren().getFirst();
        robot.interact(() -> search.setText("74"));
        await(() -> shown.getItems().size() == 1 && shown.lookup("#study-datum-" + lane(74)) != null);
        CheckBox one = (CheckBox) shown.lookup("#study-datum-" + lane(74));
        robot.interact(one::fire);
        assertThat(session.study().datum()).isEqualTo(lane(74));
        assertThat(datum.isShowing()).isFalse();
        // From the readings it is one click, too.
        robot.interact(() -> {
            while (!session.study().readings().isEmpty()) {
                session.undo();
            }
            session.go(4);
        });
        settled();
        MenuButton add = node("add-reading");
        robot.interact(() -> add.getItems().stream()
                .filter(i -> i.getText().startsWith("Monitor or log"))
                .findFirst()
                .orElseThrow()
                .fire());
        await(() -> session.study().readings().size() == 1);
        settled();
        String again = session.study().readings().getFirst().id();
        for (int k = 0; k < LOOMS; k++) {
            assertThat(session.results().outcome(again, lane(k))).isInstanceOf(Profile.class);
        }
        assertThat(session.message()).contains("74 other tables");
    }
}
