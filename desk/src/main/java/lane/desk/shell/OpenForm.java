package lane.desk.shell;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import lane.desk.Entry;

/** A form that is open beneath a button of a part that is about to be built anew: one edit in it leaves it open for the next one. */
final class OpenForm {
    private final String button;
    /** Which of its fields has the keys. */
    private final String field;

    private final Map<String, String> typed = new HashMap<>();

    private OpenForm(MenuButton open, boolean all) {
        button = open.getId();
        Node owner = contents(open)
                .flatMap(c -> Stream.ofNullable(c.getScene()))
                .flatMap(s -> Stream.ofNullable(s.getFocusOwner()))
                .findFirst()
                .orElse(null);
        field = owner == null || owner.getId() == null ? "" : owner.getId();
        contents(open)
                .forEach(c -> KeptEntry.walk(c, n -> {
                    if (n instanceof TextInputControl t
                            && t.getId() != null
                            && Entry.unsaid(t)
                            && (all || t == owner)) {
                        typed.put(t.getId(), t.getText());
                    }
                }));
    }

    /**
     * The one that is open in a part, if there is one.
     *
     * @param all whether what was typed elsewhere than where the keys go is kept too
     */
    static Optional<OpenForm> in(Node part, boolean all) {
        return KeptEntry.all(part, MenuButton.class)
                .filter(m -> m.isShowing() && m.getId() != null && is(m))
                .findFirst()
                .map(m -> new OpenForm(m, all));
    }

    /** Whether a button opens a form, and no list of commands. */
    static boolean is(MenuButton button) {
        return contents(button).findAny().isPresent();
    }

    static Stream<Node> contents(MenuButton button) {
        return button.getItems().stream()
                .filter(i -> i instanceof CustomMenuItem c && !c.isHideOnClick())
                .map(i -> ((CustomMenuItem) i).getContent());
    }

    /** Opens it again where the part has another button of that name now. */
    void reopen(Node part) {
        KeptEntry.all(part, MenuButton.class)
                .filter(m -> button.equals(m.getId()) && !m.isShowing() && !m.isDisabled())
                .findFirst()
                .ifPresent(m -> {
                    m.show();
                    contents(m).forEach(c -> KeptEntry.walk(c, this::give));
                });
    }

    private void give(Node node) {
        if (node instanceof TextInputControl t && t.getId() != null && typed.get(t.getId()) instanceof String text) {
            t.setText(text);
        }
        if (!field.isEmpty() && field.equals(node.getId())) {
            // What opens takes the keys for itself.
            Platform.runLater(() -> {
                node.requestFocus();
                if (node instanceof TextInputControl t && typed.containsKey(field)) {
                    t.end();
                }
            });
        }
    }
}
