package lane.desk.shell;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/** How far things are scrolled down in a part of the window that is about to be built anew: what was in sight stays in sight. */
final class KeptScroll {
    private final Node part;
    /** Those that are scrolled, by their place among all of the part, and by how much. */
    private final Map<Integer, Double> down = new HashMap<>();

    private final List<ScrollPane> before;

    KeptScroll(Node part) {
        this.part = part;
        before = all();
        for (int i = 0; i < before.size(); i++) {
            ScrollPane pane = before.get(i);
            double at = pane.getVvalue() * room(pane);
            if (at > 0) {
                down.put(i, at);
            }
        }
    }

    /** Whether there is something to be scrolled again, now that the part was built anew. */
    boolean owed() {
        return !down.isEmpty() && !before.equals(all());
    }

    /** Scrolls it again; the part was laid out. */
    void back() {
        List<ScrollPane> now = all();
        if (now.size() != before.size()) {
            return;
        }
        down.forEach((i, at) -> {
            ScrollPane pane = now.get(i);
            if (pane != before.get(i) && room(pane) > 0) {
                pane.setVvalue(Math.min(1, at / room(pane)));
            }
        });
    }

    private List<ScrollPane> all() {
        return KeptEntry.all(part, ScrollPane.class).toList();
    }

    /** By how much it can be scrolled. */
    private static double room(ScrollPane pane) {
        return pane.getContent() == null
                ? 0
                : Math.max(
                        0,
                        pane.getContent().getLayoutBounds().getHeight()
                                - pane.getViewportBounds().getHeight());
    }
}
