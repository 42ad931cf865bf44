package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Set;
import javafx.event.Event;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListCell;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.Pane;
import lane.measure.Force;
import lane.reading.TallyOf;
import lane.station.Line;
import org.junit.jupiter.api.Test;

/** Who types is not disturbed by what is found out meanwhile: the keys stay where they are, and so does what was typed. */
class TypingTest extends InWindow {
    private String keys() throws Exception {
        return onFx(() -> {
            Node owner = stage.getScene().getFocusOwner();
            return owner == null ? "nowhere" : String.valueOf(owner.getId());
        });
    }

    private String text(String id) {
        return this.<TextInputControl>node(id).getText();
    }

    private void into(String id) throws Exception {
        onFx(() -> {
            TextField field = node(id);
            field.requestFocus();
            field.selectAll();
            return field;
        });
    }

    /** Runs are read again: first nothing is known of them, then all that was. */
    private void readAgain() throws Exception {
        onFx(() -> {
            session.reload(Set.of("fine", "medium"));
            return null;
        });
    }

    private void look(Chosen what, String id, int stop) throws Exception {
        onFx(() -> {
            session.select(what, id);
            session.go(stop);
            return null;
        });
        settled();
    }

    private String name() {
        return session.study().reading("rotor-torque").orElseThrow().name();
    }

    @Test
    void whatIsTypedStaysWhileResultsComeIn() throws Exception {
        for (String id : new String[] {"reading-name", "tally-unit"}) {
            look(Chosen.READING, "rotor-torque", 4);
            var before = session.study();
            into(id);
            robot.write("N");
            readAgain();
            robot.write("m");
            settled();
            readAgain();
            settled();
            assertThat(keys()).isEqualTo(id);
            assertThat(text(id)).isEqualTo("Nm");
            // It was not handed over half written.
            assertThat(session.study()).isSameAs(before);
            robot.write("x");
            assertThat(text(id)).isEqualTo("Nmx");
            press(KeyCode.BACK_SPACE, KeyCode.ENTER);
            settled();
        }
        assertThat(name()).isEqualTo("Nm");
        assertThat(session.study().reading("rotor-torque").orElseThrow().unit()).isEqualTo("Nm");
    }

    /** Keys come faster than frames where the window was busy. */
    @Test
    void aFieldTakesKeysBeforeItIsSeen() throws Exception {
        look(Chosen.SOURCE, "theory", 1);
        String text = onFx(() -> {
            var field = new TextField("m/s");
            Pane sheet = (Pane) robot.lookup("#source-name").query().getParent();
            sheet.getChildren().add(field);
            field.requestFocus();
            for (String key : new String[] {"c", "m"}) {
                Event.fireEvent(
                        field,
                        new KeyEvent(KeyEvent.KEY_TYPED, key, "", KeyCode.UNDEFINED, false, false, false, false));
            }
            String typed = field.getText();
            sheet.getChildren().remove(field);
            return typed;
        });
        assertThat(text).isEqualTo("cm");
    }

    /** Three numbers by the keyboard alone, one after the other, while the first is still being computed. */
    @Test
    void theTabulatorGoesOnFromFieldToField() throws Exception {
        look(Chosen.STATION, "gap-mid", 2);
        into("end-Ax");
        robot.write("61");
        press(KeyCode.TAB);
        assertThat(keys()).isEqualTo("end-Ay");
        settled();
        assertThat(keys()).isEqualTo("end-Ay");
        press(KeyCode.CONTROL, KeyCode.A);
        robot.write("2");
        press(KeyCode.TAB);
        settled();
        assertThat(keys()).isEqualTo("end-Az");
        press(KeyCode.CONTROL, KeyCode.A);
        robot.write("7");
        press(KeyCode.ENTER);
        settled();
        Line line = (Line) session.study().station("gap-mid").orElseThrow().shape();
        assertThat(line.a().x()).isEqualTo(0.061);
        assertThat(line.a().y()).isEqualTo(0.002);
        assertThat(line.a().z()).isEqualTo(0.007);
        assertThat(keys()).isEqualTo("end-Az");
        // In the middle of a word letters are taken back, and after it what it did.
        robot.write("3");
        var before = session.study();
        press(KeyCode.CONTROL, KeyCode.Z);
        assertThat(session.study()).isSameAs(before);
        press(KeyCode.ENTER);
        press(KeyCode.CONTROL, KeyCode.Z);
        press(KeyCode.CONTROL, KeyCode.Z);
        settled();
        line = (Line) session.study().station("gap-mid").orElseThrow().shape();
        assertThat(line.a().x()).isEqualTo(0.061);
        assertThat(line.a().y()).isNotEqualTo(0.002);
        assertThat(keys()).isEqualTo("end-Az");
    }

    /** Another reading has a name of its own; what was typed goes to the one it was typed for. */
    @Test
    void whatWasTypedForOneThingNeverGetsToAnother() throws Exception {
        look(Chosen.READING, "rotor-torque", 4);
        into("reading-name");
        robot.write("Drag");
        look(Chosen.READING, "shell-torque", 4);
        await(() -> session.study().reading("shell-torque").orElseThrow().name().equals(text("reading-name")));
        assertThat(name()).isEqualTo("Drag");
        // And by the way to another stop.
        look(Chosen.READING, "rotor-torque", 4);
        into("reading-name");
        robot.write("Pull");
        look(Chosen.STATION, "gap-mid", 2);
        await(() -> name().equals("Pull"));
    }

    /** An entry of several fields, of which none is handed over before its button is pressed. */
    @Test
    void allFieldsOfAnEntryStay() throws Exception {
        look(Chosen.SOURCE, "theory", 1);
        into("constant-name");
        robot.write("Umax");
        into("constant-value");
        robot.write("8");
        readAgain();
        settled();
        await(() -> session.results().runs().keySet().containsAll(Set.of("fine", "medium")));
        robot.write(".5");
        assertThat(text("constant-name")).isEqualTo("Umax");
        assertThat(text("constant-value")).isEqualTo("8.5");
        press(KeyCode.ENTER);
        settled();
        // Handed over, it does not stand there for the next one.
        await(() -> text("constant-name").isEmpty() && text("constant-value").isEmpty());
    }

    @Test
    void aListThatIsOpenStaysOpen() throws Exception {
        look(Chosen.READING, "rotor-torque", 4);
        ComboBox<?> list = node("tally-kind");
        onFx(() -> {
            list.show();
            return null;
        });
        var before = session.results();
        readAgain();
        await(() -> session.results() != before);
        settled();
        assertThat(list.isShowing()).isTrue();
        assertThat(list.getScene()).isNotNull();
        onFx(() -> {
            list.hide();
            return null;
        });
        // What waited for it is shown then.
        await(() -> robot.lookup("#tally-kind").query() != list);
    }

    private ScrollPane panel() {
        return robot.lookup(n -> n instanceof ScrollPane s
                        && s.getContent() != null
                        && s.getContent().getStyleClass().contains("panel"))
                .query();
    }

    /** Settings further down are not scrolled away each time that a log has grown. */
    @Test
    void whatIsScrolledToStaysInSight() throws Exception {
        look(Chosen.READING, "rotor-torque", 4);
        ScrollPane before = panel();
        double room = before.getContent().getLayoutBounds().getHeight()
                - before.getViewportBounds().getHeight();
        assertThat(room).isGreaterThan(50);
        onFx(() -> {
            before.setVvalue(50 / room);
            return null;
        });
        readAgain();
        await(() -> panel() != before);
        settled();
        ScrollPane after = panel();
        assertThat(after.getVvalue()
                        * (after.getContent().getLayoutBounds().getHeight()
                                - after.getViewportBounds().getHeight()))
                .isCloseTo(50, within(1.0));
    }

    /** What is dragged, such as an end of a window in a chart, stays in the hand. */
    @Test
    void whatIsHeldDownIsNotBuiltAnew() throws Exception {
        look(Chosen.READING, "rotor-torque", 4);
        Node held = node("reading-name");
        robot.moveTo(held).press(MouseButton.PRIMARY);
        var before = session.results();
        readAgain();
        await(() -> session.results() != before);
        settled();
        assertThat(held.getScene()).isNotNull();
        robot.release(MouseButton.PRIMARY);
        await(() -> robot.lookup("#reading-name").query() != held);
    }

    /** Several entries of a form beneath a button, one after the other. */
    @Test
    void aFormBeneathAButtonStaysOpenAfterAnEdit() throws Exception {
        look(Chosen.READING, "swirl-gap", 4);
        MenuButton first = node("chart-axes");
        onFx(() -> {
            first.show();
            return null;
        });
        await(first::isShowing);
        enter("chart-x-from", "0.1");
        settled();
        await(() -> this.<MenuButton>node("chart-axes").isShowing());
        enter("chart-x-title", "gap");
        settled();
        await(() -> session.study().chart("swirl-gap").x().title().equals("gap"));
        assertThat(session.study().chart("swirl-gap").x().from()).isNotNull();
        MenuButton last = node("chart-axes");
        assertThat(last).isNotSameAs(first);
        await(last::isShowing);
        press(KeyCode.ESCAPE);
        await(() -> !this.<MenuButton>node("chart-axes").isShowing());
    }

    private static int nodes(Node of) {
        return of instanceof Parent p
                ? 1
                        + p.getChildrenUnmodifiable().stream()
                                .mapToInt(TypingTest::nodes)
                                .sum()
                : 1;
    }

    private Bounds list() throws Exception {
        return onFx(() -> {
            Node shown = robot.lookup(".combo-box-popup .list-view").query();
            return shown.localToScreen(shown.getBoundsInLocal());
        });
    }

    @Test
    void aListIsMadeWhenItIsOpened() throws Exception {
        look(Chosen.READING, "rotor-torque", 4);
        ComboBox<?> closed = node("tally-kind");
        assertThat(nodes(closed)).isLessThan(8);
        double width = onFx(() -> closed.prefWidth(-1));
        // By the keys.
        onFx(() -> {
            closed.requestFocus();
            return null;
        });
        press(KeyCode.F4);
        await(closed::isShowing);
        Set<Node> cells = robot.lookup(".combo-box-popup .list-cell").queryAll();
        assertThat(cells)
                .hasSizeGreaterThan(3)
                .allMatch(c -> c.getBoundsInLocal().getHeight() > 15);
        Bounds first = list();
        press(KeyCode.ESCAPE);
        await(() -> !closed.isShowing());
        // And by the mouse.
        robot.clickOn(closed);
        await(closed::isShowing);
        // Where it opens hangs on how tall it is, which is known the first time, too.
        assertThat(list().getMinY()).isEqualTo(first.getMinY());
        assertThat(list().getHeight()).isEqualTo(first.getHeight());
        Node other = robot.lookup(".combo-box-popup .list-cell").queryAll().stream()
                .filter(c -> c instanceof ListCell<?> l && "force".equals(l.getText()))
                .findFirst()
                .orElseThrow();
        robot.clickOn(other);
        settled();
        await(() -> session.study().reading("rotor-torque").orElseThrow().ask() instanceof TallyOf t
                && t.measure() instanceof Force);
        // As wide as before, opened or not and whatever is chosen.
        await(() -> Math.abs(this.<ComboBox<?>>node("tally-kind").prefWidth(-1) - width) <= 1);
        assertThat(onFx(() -> closed.prefWidth(-1))).isCloseTo(width, within(1.0));
    }

    /** In rows that are made as they are seen, and in a sheet that is built anew when a run was looked over. */
    @Test
    void theKeysStayOnTheBoardAndAtIntake() throws Exception {
        look(Chosen.SOURCE, "fine", 1);
        into("unit-velocity");
        robot.write("cm");
        readAgain();
        settled();
        robot.write("/s");
        assertThat(keys()).isEqualTo("unit-velocity");
        assertThat(text("unit-velocity")).isEqualTo("cm/s");
        press(KeyCode.ESCAPE);
        look(Chosen.CHECK, "", 5);
        into("tolerance-flow");
        robot.write("6");
        readAgain();
        settled();
        robot.write("0");
        assertThat(keys()).isEqualTo("tolerance-flow");
        press(KeyCode.ENTER);
        settled();
        assertThat(keys()).isEqualTo("tolerance-flow");
        assertThat(text("tolerance-flow")).startsWith("60");
    }
}
