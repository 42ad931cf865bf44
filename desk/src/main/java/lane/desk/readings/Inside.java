package lane.desk.readings;

import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.VBox;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.OfAnother;
import lane.reading.Reading;

/** What a reading that is made of another one shows of that. */
final class Inside {
    private Inside() {}

    /** Another ask in the place of the one of its kind that a reading holds. */
    static Ask changed(Ask before, Ask now) {
        return before instanceof OfAnother o && before.getClass() != now.getClass() ? o.of(changed(o.of(), now)) : now;
    }

    /** The settings of what is held, beneath those of what holds it. */
    static void settings(Session session, Reading reading, VBox box) {
        Ask of = ((OfAnother) reading.ask()).of();
        box.getChildren().add(Ui.label("Of " + name(session, of), "title"));
        AskForm.ALL.of(of).settings(session, reading.asking(of), box);
    }

    static String name(Session session, Ask of) {
        String name = AskForm.ALL.of(of).name(session.study(), of);
        return name.isBlank()
                ? session.study().readings().stream()
                        .filter(r -> r.ask().equals(of))
                        .map(Reading::name)
                        .findFirst()
                        .orElse(of.form() == Ask.Form.CURVE ? "a curve" : "a number")
                : name;
    }

    /** A button of a tool bar that opens settings. */
    static MenuButton menu(String id, String text, VBox content) {
        content.setStyle("-fx-padding: 8; -fx-spacing: 6;");
        content.setMinWidth(330);
        var menu = Named.menuButton(text);
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        var item = new CustomMenuItem(content, false);
        menu.getItems().add(item);
        return menu;
    }
}
