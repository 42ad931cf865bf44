package lane.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import lane.base.LaneException;
import lane.formats.study.StudyJson;
import lane.study.Renames;
import lane.study.Study;
import lane.study.UndoStack;

/** The open study with its way back, its file, and what keeps unsaved work. */
final class Document {
    private final Path file;
    private final UndoStack history;
    private final Autosave autosave;
    private String saved = "";

    /** @param say told in a sentence when the autosave fails, from any thread */
    Document(Study study, Path file, Consumer<String> say) {
        this.file = file;
        history = new UndoStack(study);
        autosave = new Autosave(file, say);
    }

    /**
     * Takes up unsaved work of a session that ended badly.
     *
     * @return what is to be told; blank for nothing
     */
    String recover() {
        Path auto = Autosave.of(file);
        if (!Files.exists(auto)) {
            return "";
        }
        try {
            Study kept = StudyJson.load(auto);
            if (kept.equals(study())) {
                return "";
            }
            history.edit("Recover unsaved work", kept, false);
            return "Unsaved work of the last session was taken up again; undo brings back the saved study.";
        } catch (LaneException e) {
            return "The autosave beside the study is damaged and was not used.";
        }
    }

    Path file() {
        return file;
    }

    Study study() {
        return history.now();
    }

    UndoStack history() {
        return history;
    }

    /**
     * Makes an edit, with what refers to renamed things following.
     *
     * @param joins whether it becomes one with an edit of the same name just before, as the steps of a drag do
     * @throws LaneException when the edit is refused; nothing changed then
     */
    void edit(String name, UnaryOperator<Study> edit, boolean joins) {
        history.edit(name, Renames.follow(study(), edit.apply(study())), joins);
        keep();
    }

    void undo() {
        history.undo();
        keep();
    }

    void redo() {
        history.redo();
        keep();
    }

    private void keep() {
        autosave.changed(history.now(), history.changed());
    }

    /** Writes what the autosave has not written yet. */
    void writeAutosave() {
        autosave.write();
    }

    /** When it was saved last, or that it is not. */
    String saved() {
        return history.changed() ? "not saved" : saved;
    }

    /**
     * @throws LaneException when it could not be saved
     * @throws IOException when the autosave could not be removed
     */
    void save() throws IOException {
        Study study = study();
        StudyJson.save(study, file);
        history.wrote(study);
        autosave.saved();
        saved = "saved " + LocalTime.now(ZoneId.systemDefault()).format(DateTimeFormatter.ofPattern("HH:mm"));
    }
}
