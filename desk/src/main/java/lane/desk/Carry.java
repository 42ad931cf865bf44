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
    /** Made with the window: a session is opened while the toolkit starts, and a control that is made meanwhile spoils its looks. */
    private @Nullable Label shown;

    private String reading = "";

    Carry(Session session) {
        this.session = session;
    }

    private Label shown() {
        Label there = shown;
        if (there == null) {
            there = new Label();
            there.getStyleClass().addAll("tooltip-card", "strong");
            there.setManaged(false);
            there.setMouseTransparent(true);
            there.setVisible(false);
            there.setId("carried");
            shown = there;
        }
        return there;
    }

    /** Lets a reading be carried from a node. */
    public void from(Node node, String id) {
        node.setOnDragDetected(e -> {
            session.study().reading(id).filter(r -> !r.curve()).ifPresent(r -> {
                reading = id;
                shown().setText(r.name());
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
        Label label = shown();
        window.getChildren().add(label);
        window.addEventFilter(MouseDragEvent.MOUSE_DRAG_OVER, e -> {
            if (on()) {
                label.autosize();
                label.relocate(e.getX() + 12, e.getY() + 14);
                label.setVisible(true);
            }
        });
        window.addEventHandler(MouseDragEvent.MOUSE_DRAG_RELEASED, e -> end());
        // Let go outside of the window, or where nothing heard of it.
        window.addEventFilter(MouseEvent.MOUSE_MOVED, e -> end());
    }

    private void end() {
        reading = "";
        shown().setVisible(false);
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
