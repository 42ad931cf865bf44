package lane.formats.study;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Consumer;
import lane.base.LaneException;
import lane.formats.io.FileHash;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/**
 * Keeps unsaved work beside the study file. What could not be written is tried again at every turn until it was, or until the
 * study is saved. Thread-safe: edits arrive from one thread, writing is done by another.
 */
public final class Autosave {
    private final Path file;
    private final Consumer<String> say;
    private @Nullable Study pending;
    private boolean differs;
    private String told = "";

    /**
     * @param say told once when it fails
     * @param study the file that it stands beside
     */
    public Autosave(Path study, Consumer<String> say) {
        file = of(study);
        this.say = say;
    }

    /** Where the autosave of a study stands. */
    public static Path of(Path study) {
        String name = String.valueOf(study.getFileName());
        // A name as long as the file system allows has no room for an ending.
        boolean tooLong = name.getBytes(StandardCharsets.UTF_8).length > 240;
        return study.resolveSibling((tooLong ? "." + FileHash.ofText(name).substring(0, 16) : name) + ".autosave");
    }

    /** @param unsaved whether it differs from what was saved; else the autosave goes */
    public synchronized void changed(Study study, boolean unsaved) {
        pending = study;
        differs = unsaved;
    }

    /**
     * Saves the study itself, with no autosave being written meanwhile; then there is nothing to keep.
     *
     * @param save throws where it fails; what is kept stays then
     */
    public synchronized void saving(Runnable save) throws IOException {
        save.run();
        pending = null;
        Files.deleteIfExists(file);
    }

    /**
     * Puts what stands there aside, so that it is not written over.
     *
     * @param ending of its new name
     * @return where it stands then
     */
    public synchronized Path aside(String ending) {
        Path to = file.resolveSibling(file.getFileName() + ending);
        try {
            return Files.move(file, to, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            return file;
        }
    }

    /** Writes what is pending. */
    public synchronized void write() {
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
