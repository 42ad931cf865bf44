package lane.desk.shell;

import javafx.event.EventTarget;
import javafx.scene.Node;
import javafx.scene.input.DragEvent;
import javafx.scene.input.MouseEvent;
import org.jspecify.annotations.Nullable;

/** What a button of the mouse is held down on: while it is drawn or dragged, it must not be built anew. */
final class Held {
    private @Nullable EventTarget pressed;

    Held(Node root) {
        root.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> pressed = e.getTarget());
        root.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> pressed = null);
        // Where things are dragged and dropped no release is told; who moves without dragging holds nothing.
        root.addEventFilter(DragEvent.DRAG_DONE, e -> pressed = null);
        root.addEventFilter(MouseEvent.MOUSE_MOVED, e -> pressed = null);
    }

    /** Whether it is something of this part; what was carried here from another one does not hold this one back. */
    boolean in(Node part) {
        return pressed instanceof Node n && KeptEntry.within(n, part);
    }
}
