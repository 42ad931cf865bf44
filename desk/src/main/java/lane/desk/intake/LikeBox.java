package lane.desk.intake;

import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import lane.desk.Entry;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.study.Source;

/** Whether what is made of a table is made of the others of its kind, too: ticked, and not there as long as there are none. */
final class LikeBox {
    private final Session session;
    private final Source.Reference source;
    private final Supplier<String> file;
    private final Supplier<String> reading;
    private final CheckBox box = Named.check("");

    /** @param reading that the others do not answer yet */
    LikeBox(Session session, Source.Reference source, String id, Supplier<String> file, Supplier<String> reading) {
        this.session = session;
        this.source = source;
        this.file = file;
        this.reading = reading;
        box.setId(id);
        box.setSelected(true);
        Entry.of(box);
        count();
    }

    Node node() {
        return box;
    }

    /** Counts them again. */
    void count() {
        List<Source.Reference> like = Kin.like(session, source, file.get(), reading.get(), this::count);
        box.setText(
                like == null
                        ? "also other tables of this kind, which are being counted"
                        : "also " + Ui.count(like.size(), "other table") + " of this kind");
        box.setVisible(like == null || !like.isEmpty());
        box.setManaged(box.isVisible());
    }

    /** The others, if they are wanted. */
    List<Source.Reference> chosen() {
        if (!box.isVisible() || !box.isSelected()) {
            return List.of();
        }
        return Objects.requireNonNullElseGet(
                Kin.like(session, source, file.get(), reading.get(), () -> {}),
                () -> Kin.like(session, source, file.get(), reading.get()));
    }
}
