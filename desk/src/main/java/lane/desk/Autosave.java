package lane.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Consumer;
import lane.base.LaneException;
import lane.formats.study.StudyJson;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/**
 * Keeps unsaved work beside the study file. What could not be written is tried again at every turn until it was, or until the
 * study is saved. Thread-safe: edits arrive from one thread, writing is done by another.
 */
final class Autosave {
    private final Path file;
    private final Consumer<String> say;
    private @Nullable Study pending;
    private boolean differs;
    private String told = "";

    /**
     * @param say told once when it fails
     * @param study the file that it stands beside
     */
    Autosave(Path study, Consumer<String> say) {
        file = of(study);
        this.say = say;
    }

    static Path of(Path study) {
        return study.resolveSibling(study.getFileName() + ".autosave");
    }

    /** @param unsaved whether it differs from what was saved; else the autosave goes */
    synchronized void changed(Study study, boolean unsaved) {
        pending = study;
        differs = unsaved;
    }

    /** After a save there is nothing to keep. */
    synchronized void saved() throws IOException {
        pending = null;
        Files.deleteIfExists(file);
    }

    /** Writes what is pending. */
    synchronized void write() {
        if (pending == null) {
            return;
        }
        try {
            if (differs) {
                StudyJson.save(pending, file);
            } else {
                Files.deleteIfExists(file);
            }
            pending = null;
            told = "";
        } catch (IOException e) {
            tell("The autosave could not be removed: " + e.getMessage() + ".");
        } catch (LaneException e) {
            tell(e.getMessage());
        }
    }

    private void tell(String sentence) {
        if (!sentence.equals(told)) {
            told = sentence;
            say.accept(sentence);
        }
    }
}
