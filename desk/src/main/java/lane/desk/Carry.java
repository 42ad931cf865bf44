package lane.desk;

import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.MouseDragEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import lane.mesh.Point;
import lane.study.PictureNote;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/**
 * A number carried by the mouse from where it stands into the picture, where it becomes a note that stays true. Over the
 * name of a stop the window goes there, so that it can be carried from one stop to another.
 */
public final class Carry {
    private final Session session;
    private final Label shown = new Label();
    private String reading = "";

    Carry(Session session) {
        this.session = session;
        shown.getStyleClass().addAll("tooltip-card", "strong");
        shown.setManaged(false);
        shown.setMouseTransparent(true);
        shown.setVisible(false);
        shown.setId("carried");
    }

    /** Lets a reading be carried from a node. */
    public void from(Node node, String id) {
        node.setOnDragDetected(e -> {
            session.study().reading(id).filter(r -> !r.curve()).ifPresent(r -> {
                reading = id;
                shown.setText(r.name());
                node.startFullDrag();
                e.consume();
            });
        });
    }

    /** Whether a number is on its way. */
    public boolean on() {
        return !reading.isBlank();
    }

    /** Lays what is carried over the window, and ends it wherever it is let go. */
    public void over(Pane window) {
        window.getChildren().add(shown);
        window.addEventFilter(MouseDragEvent.MOUSE_DRAG_OVER, e -> {
            if (on()) {
                shown.autosize();
                shown.relocate(e.getX() + 12, e.getY() + 14);
                shown.setVisible(true);
            }
        });
        window.addEventHandler(MouseDragEvent.MOUSE_DRAG_RELEASED, e -> end());
        // Let go outside of the window, or where nothing heard of it.
        window.addEventFilter(MouseEvent.MOUSE_MOVED, e -> end());
    }

    private void end() {
        reading = "";
        shown.setVisible(false);
    }

    /** @param at where it is let go in the picture; null beside what is shown, so that it stands at its station */
    public void drop(@Nullable Point at) {
        if (on()) {
            note(session, "", reading, at);
            end();
        }
    }

    /** Puts words, or the number of a reading, into the picture. */
    public static void note(Session session, String text, String reading, @Nullable Point at) {
        String id = Study.freshId(
                "note", session.study().notes().stream().map(PictureNote::id).toList());
        session.edit(
                "Place note",
                s -> s.withNotes(l -> {
                    l.add(new PictureNote(id, text, reading, at));
                    return l;
                }));
    }
}
