package lane.desk;

import javafx.scene.Node;

/** A part of the window. It holds no computation: it shows what the session has. */
public interface View {
    Node node();

    /** Called on the interface thread after something changed and this view is showing. */
    void refresh();
}
