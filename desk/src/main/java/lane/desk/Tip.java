package lane.desk;

import javafx.event.EventHandler;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import org.jspecify.annotations.Nullable;

/**
 * What is told under the pointer. Its window is made when the pointer first comes: forms are built anew at every edit, and most
 * of their tips are never looked at.
 */
public final class Tip implements EventHandler<MouseEvent> {
    private String text = "";
    private @Nullable Tooltip shown;

    private Tip() {}

    /**
     * Tells a text for a node, in place of what was told before.
     *
     * @param text blank for none
     */
    public static void on(Node node, String text) {
        Tip tip = (Tip) node.getProperties().get(Tip.class);
        if (tip == null) {
            if (text.isBlank()) {
                return;
            }
            tip = new Tip();
            node.getProperties().put(Tip.class, tip);
            node.addEventHandler(MouseEvent.MOUSE_ENTERED, tip);
        }
        tip.text = text;
        node.setAccessibleHelp(text);
        if (tip.shown != null) {
            Tooltip.uninstall(node, tip.shown);
            tip.shown = null;
        }
    }

    /** What is told for a node; blank for nothing. */
    public static String of(Node node) {
        return node.getProperties().get(Tip.class) instanceof Tip tip ? tip.text : "";
    }

    @Override
    public void handle(MouseEvent event) {
        if (shown == null && !text.isBlank() && event.getSource() instanceof Node node) {
            shown = new Tooltip(text);
            Tooltip.install(node, shown);
        }
    }
}
