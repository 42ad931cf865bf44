package lane.desk;

import javafx.scene.Scene;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Control;
import javafx.scene.control.TextInputControl;

/**
 * Fields that are typed into and boxes that are chosen from: what of it was handed over, and what goes on in the next one when a
 * part of the window is built anew meanwhile.
 */
public final class Entry {
    private Entry() {}

    /** Whether the window builds a part anew: a field that is left for that hands over nothing, its text goes on in the next. */
    private static boolean rebuilding;

    /** Builds a part of the window anew. */
    public static void rebuild(Runnable part) {
        rebuilding = true;
        try {
            part.run();
        } finally {
            rebuilding = false;
        }
    }

    public static boolean rebuilding() {
        return rebuilding;
    }

    /**
     * Lets what gets the keys take them at once. A control understands keys once it has its looks, and those come with the
     * next frame: what is typed before that, while the window is busy, would be lost.
     */
    public static void awake(Scene scene) {
        scene.focusOwnerProperty().addListener((o, was, is) -> {
            if (is instanceof Control c && c.getSkin() == null) {
                c.applyCss();
            }
        });
    }

    private static final String UNSAID = "unsaid";

    /** A field whose text is kept when it is built anew before it was handed over. */
    public static <T extends TextInputControl> T of(T field) {
        field.getProperties().put(UNSAID, false);
        field.textProperty().addListener((o, was, is) -> field.getProperties().put(UNSAID, true));
        return field;
    }

    /** A box whose choice is kept when it is built anew before a button hands it over. */
    public static <T> ComboBox<T> of(ComboBox<T> box) {
        said(box);
        box.valueProperty().addListener((o, was, is) -> box.getProperties().put(UNSAID, true));
        return box;
    }

    /** A tick that is kept likewise. */
    public static CheckBox of(CheckBox tick) {
        said(tick);
        tick.selectedProperty().addListener((o, was, is) -> tick.getProperties().put(UNSAID, true));
        return tick;
    }

    /** Whether something was typed or chosen and not handed over. */
    public static boolean unsaid(Control field) {
        return Boolean.TRUE.equals(field.getProperties().get(UNSAID));
    }

    /** Whether it is such a field and all that was typed was handed over: what is taken back then is no letter of it. */
    public static boolean handedOver(TextInputControl field) {
        return Boolean.FALSE.equals(field.getProperties().get(UNSAID));
    }

    /** What stands in a field was handed over, or was proposed to it. */
    public static void said(Control field) {
        field.getProperties().put(UNSAID, false);
    }
}
