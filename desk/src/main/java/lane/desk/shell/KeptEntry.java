package lane.desk.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import lane.desk.Entry;
import org.jspecify.annotations.Nullable;

/**
 * Where the keys go and what was typed or chosen and not handed over yet, in a part of the window that is about to be built anew: it goes
 * on in the new part as if nothing had happened.
 */
final class KeptEntry {
    private record Typed(Node field, String text, int anchor, int caret) {}

    private final Node part;
    private final @Nullable Node owner;
    /** Which of the part's nodes that take keys it was. */
    private final int place;

    private final Map<String, Typed> typed = new HashMap<>();
    private final Map<String, ComboBox<?>> chosen = new LinkedHashMap<>();
    private final Map<String, CheckBox> ticked = new HashMap<>();
    private final List<Toggled> toggled = new ArrayList<>();

    private final @Nullable OpenForm form;
    private final KeptScroll scroll;

    private record Toggled(String id, ToggleButton button) {}

    /**
     * @param part that will be built anew
     * @param all whether what was typed elsewhere than where the keys go is kept too
     */
    KeptEntry(Node part, boolean all) {
        this.part = part;
        Scene scene = part.getScene();
        Node focused = scene == null ? null : scene.getFocusOwner();
        owner = within(focused, part) ? focused : null;
        place = owner == null ? -1 : takers().indexOf(owner);
        form = OpenForm.in(part, all).orElse(null);
        scroll = new KeptScroll(part);
        walk(part, n -> {
            if (n instanceof TextInputControl t && t.getId() != null && Entry.unsaid(t) && (all || t == owner)) {
                typed.put(t.getId(), new Typed(t, t.getText(), t.getAnchor(), t.getCaretPosition()));
            } else if (all && n instanceof ComboBox<?> c && c.getId() != null && Entry.unsaid(c)) {
                chosen.put(c.getId(), c);
            } else if (all && n instanceof CheckBox c && c.getId() != null && Entry.unsaid(c)) {
                ticked.put(c.getId(), c);
            } else if (all && n instanceof ToggleButton b && b.getId() != null && b.isSelected()) {
                toggled.add(new Toggled(b.getId(), b));
            }
        });
    }

    /**
     * Whether something of the part is open that would be gone.
     *
     * @param forms whether a form beneath a button is such a thing; it can be opened again
     */
    static boolean open(Node part, boolean forms) {
        return all(part, ComboBoxBase.class).anyMatch(ComboBoxBase::isShowing)
                || all(part, MenuButton.class)
                        .filter(MenuButton::isShowing)
                        .anyMatch(m ->
                                forms || !OpenForm.is(m) || OpenForm.contents(m).anyMatch(c -> open(c, true)));
    }

    /** Gives it back, now that the part was built anew. */
    void back() {
        if (scroll.owed()) {
            dressed();
            scroll.back();
        }
        if (form != null) {
            dressed();
            form.reopen(part);
        }
        boolean stayed = owner == null || within(owner, part);
        if (stayed
                && typed.values().stream().allMatch(t -> within(t.field, part))
                && chosen.values().stream().allMatch(c -> within(c, part))
                && ticked.values().stream().allMatch(c -> within(c, part))
                && toggled.stream().allMatch(t -> within(t.button, part))) {
            return;
        }
        // What scrolls has its content, and a field selects all of its text, once they have their looks; lists have
        // rows then.
        dressed();
        // What is chosen decides which fields there are, and what they hold.
        toggled.forEach(t -> all(ToggleButton.class, t.id)
                .filter(b -> b != t.button && !b.isSelected())
                .forEach(ToggleButton::fire));
        chosen.forEach(
                (id, was) -> all(ComboBox.class, id).filter(c -> c != was).forEach(c -> choose(c, was.getValue())));
        ticked.forEach((id, was) -> all(CheckBox.class, id).forEach(c -> c.setSelected(was.isSelected())));
        if (!toggled.isEmpty()) {
            dressed();
        }
        walk(part, n -> {
            if (n instanceof TextInputControl t && n.getId() != null && typed.get(n.getId()) instanceof Typed was) {
                if (!t.getText().equals(was.text)) {
                    t.setText(was.text);
                }
                t.selectRange(was.anchor, was.caret);
            }
        });
        Node next = stayed ? null : next();
        if (next == null) {
            return;
        }
        next.requestFocus();
        if (next instanceof TextInputControl t
                && next.getId() != null
                && typed.get(next.getId()) instanceof Typed was) {
            t.selectRange(was.anchor, was.caret);
        } else if (next instanceof TextInputControl t
                && owner instanceof TextInputControl was
                && t.getText().equals(was.getText())) {
            t.selectRange(was.getAnchor(), was.getCaretPosition());
        }
    }

    private void dressed() {
        part.applyCss();
        if (part instanceof Parent p) {
            p.layout();
        }
    }

    private <N extends Node> Stream<N> all(Class<N> kind, String id) {
        return all(part, kind).filter(n -> id.equals(n.getId()));
    }

    static <N extends Node> Stream<N> all(Node part, Class<N> kind) {
        var out = new ArrayList<N>();
        walk(part, n -> {
            if (kind.isInstance(n)) {
                out.add(kind.cast(n));
            }
        });
        return out.stream();
    }

    @SuppressWarnings("unchecked")
    private static <T> void choose(ComboBox<T> box, @Nullable Object item) {
        if (box.getItems().contains(item)) {
            box.setValue((T) item);
        }
    }

    /** The node of the same name; where there is none the one at the same place, if it is of the same kind. */
    private @Nullable Node next() {
        List<Node> all = takers();
        Node was = owner;
        if (was == null) {
            return null;
        }
        if (was.getId() != null) {
            return all.stream()
                    .filter(n -> was.getId().equals(n.getId()))
                    .findFirst()
                    .orElse(null);
        }
        return place >= 0 && place < all.size() && all.get(place).getClass() == was.getClass() ? all.get(place) : null;
    }

    private List<Node> takers() {
        var out = new ArrayList<Node>();
        walk(part, n -> {
            if (n.isFocusTraversable() && n.isVisible() && !n.isDisabled()) {
                out.add(n);
            }
        });
        return out;
    }

    static void walk(Node from, Consumer<Node> each) {
        each.accept(from);
        if (from instanceof Parent p) {
            p.getChildrenUnmodifiable().forEach(c -> walk(c, each));
        }
    }

    static boolean within(@Nullable Node node, Node part) {
        for (Node n = node; n != null; n = n.getParent()) {
            if (n == part) {
                return true;
            }
        }
        return false;
    }
}
