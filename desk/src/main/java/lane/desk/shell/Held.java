package lane.desk.shell;

import javafx.scene.Node;
import javafx.scene.input.DragEvent;
import javafx.scene.input.MouseEvent;

/** Whether a button of the mouse is held down over a part of the window: what is being drawn or dragged must not be built anew. */
final class Held {
    private boolean down;

    Held(Node part) {
        part.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> down = true);
        part.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> down = false);
        // Where things are dragged and dropped no release is told; who moves without dragging holds nothing.
        part.addEventFilter(DragEvent.DRAG_DONE, e -> down = false);
        part.addEventFilter(MouseEvent.MOUSE_MOVED, e -> down = false);
    }

    boolean down() {
        return down;
    }
}
