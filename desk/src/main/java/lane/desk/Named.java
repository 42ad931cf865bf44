package lane.desk;

import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import org.jspecify.annotations.Nullable;

/** Controls whose words are shown as they are: by itself the toolkit takes an underscore away, as in a field's name. */
public final class Named {
    private Named() {}

    public static MenuButton menuButton(String text, @Nullable Node... graphic) {
        var made = graphic.length == 0 ? new MenuButton(text) : new MenuButton(text, graphic[0]);
        made.setMnemonicParsing(false);
        return made;
    }

    public static MenuItem item(String text) {
        var made = new MenuItem(text);
        made.setMnemonicParsing(false);
        return made;
    }

    public static CheckMenuItem checkItem(String text) {
        var made = new CheckMenuItem(text);
        made.setMnemonicParsing(false);
        return made;
    }

    public static RadioMenuItem radioItem(String text) {
        var made = new RadioMenuItem(text);
        made.setMnemonicParsing(false);
        return made;
    }

    public static Menu menu(String text) {
        var made = new Menu(text);
        made.setMnemonicParsing(false);
        return made;
    }

    public static CheckBox check(String text) {
        var made = new CheckBox(text);
        made.setMnemonicParsing(false);
        return made;
    }
}
