package lane.desk;

import java.nio.file.Path;
import java.util.Objects;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import lane.formats.io.FileNames;
import lane.formats.study.Drafts;

/** Paths of files as the window shows them: short and alike, whole under the pointer and when copied. */
public final class ShownPath {
    private ShownPath() {}

    /** As the study names it where it has a place, else from the home folder. */
    public static String words(Session session, String file) {
        Path whole = session.library().resolve(file);
        return Drafts.holds(session.file())
                ? FileNames.brief(whole)
                : FileNames.brief(
                        Objects.requireNonNull(session.file().toAbsolutePath().getParent()), whole);
    }

    /** The same in so many characters at most: the middle is cut, the name of the file stays. */
    public static String words(Session session, String file, int most) {
        String whole = words(session, file);
        if (whole.length() <= most) {
            return whole;
        }
        int name = whole.length() - Math.max(whole.lastIndexOf('/'), whole.lastIndexOf('\\')) - 1;
        int tail = Math.min(Math.max(name + 1, most / 2), most - 2);
        return whole.substring(0, Math.max(1, most - tail - 1)) + "…" + whole.substring(whole.length() - tail);
    }

    /** A label of it. */
    public static Label of(Session session, String file, double width, String... styles) {
        String whole =
                session.library().resolve(file).toAbsolutePath().normalize().toString();
        Label label = Ui.left(words(session, file), width, styles);
        label.setTextOverrun(OverrunStyle.CENTER_ELLIPSIS);
        Tip.on(label, whole);
        var copy = Named.item("Copy the whole path");
        copy.setOnAction(e -> {
            var content = new ClipboardContent();
            content.putString(whole);
            Clipboard.getSystemClipboard().setContent(content);
        });
        label.setContextMenu(new ContextMenu(copy));
        return label;
    }
}
