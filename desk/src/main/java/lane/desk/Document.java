package lane.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import lane.base.LaneException;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.study.Autosave;
import lane.formats.study.Drafts;
import lane.formats.study.StudyClaim;
import lane.formats.study.StudyHistory;
import lane.formats.study.StudyJson;
import lane.study.Renames;
import lane.study.Study;
import lane.study.StudyDiff;
import lane.study.StudyFiles;
import lane.study.UndoStack;
import org.jspecify.annotations.Nullable;

/**
 * The open study with its way back, its file, and what keeps unsaved work. A study that has no place yet is kept in the user's
 * data folder. Edits and saves come from one thread; {@link #keepUnsaved} may come from another.
 */
final class Document {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM HH:mm", java.util.Locale.ENGLISH);

    private final Consumer<String> say;
    private Path file;
    private UndoStack history;
    private Autosave autosave;
    private Optional<StudyClaim> claim;
    private @Nullable Path folder;
    /** Hash of the study file as this session knows it; blank for none. */
    private String known = "";

    private String saved = "";
    private boolean damaged;
    /** The way back that is not kept yet; empty for none. */
    private final AtomicReference<List<UndoStack.State>> way = new AtomicReference<>(List.of());
    /** What was made of a study that is open to read and is not kept yet; empty for nothing. */
    private final AtomicReference<Optional<Study>> copy = new AtomicReference<>(Optional.empty());

    /** @param say told in a sentence when unsaved work cannot be kept, from any thread */
    Document(Study study, Path file, Consumer<String> say) {
        this.file = file;
        this.say = say;
        history = new UndoStack(study);
        autosave = new Autosave(file, say);
        claim = StudyClaim.claim(file);
        known = hash();
        // Where nothing can be kept the study can be worked on all the same.
        try {
            Path made = draft() ? parent(file) : Drafts.folder();
            folder = made;
            Drafts.note(made, file, study.name());
        } catch (LaneException e) {
            say.accept(e.getMessage());
        }
    }

    /** Whether the study has no place of its own yet. */
    boolean draft() {
        return Drafts.holds(file);
    }

    /** Who else has the study open; then it is open here to be read only. */
    Optional<StudyClaim.Holder> holder() {
        return claim.isPresent() ? Optional.empty() : StudyClaim.holder(file);
    }

    /** Takes the study over from whoever has it open. */
    void takeOver() {
        claim = Optional.of(StudyClaim.takeOver(file));
        dropCopy();
        keep();
    }

    /** The study as it is on disk, which is no news from then on. */
    Study theirs() {
        Study found = StudyJson.load(file);
        known = hash();
        return found;
    }

    /**
     * Takes up unsaved work of a session that ended badly.
     *
     * @param later what the user is asked where it is not plain what is wanted
     * @return what is to be told; blank for nothing
     */
    String recover(Consumer<Question> later) {
        if (draft() && folder != null) {
            history = new UndoStack(
                    StudyHistory.load(folder.resolve("history.json")), history.now(), Study.empty("New study"));
            way.set(history.way());
        }
        Path auto = Autosave.of(file);
        if (!Files.exists(auto) || claim.isEmpty()) {
            return "";
        }
        Study kept;
        try {
            kept = StudyJson.load(auto);
        } catch (LaneException e) {
            Path aside = autosave.aside(".damaged");
            return "The autosave beside the study is damaged and was not used; it stands as " + aside.getFileName()
                    + ".";
        }
        if (kept.equals(study())) {
            return "";
        }
        if (auto.toFile().lastModified() < file.toFile().lastModified()) {
            String when = when(auto);
            Path aside = autosave.aside(".older");
            later.accept(new Question(
                    "An autosave of " + when + " is older than the study as it was saved at " + when(file)
                            + ". It has: " + StudyDiff.words(study(), kept) + ".",
                    List.of(
                            Question.leave("Keep the study as saved"),
                            new Question.Answer("Take up the autosave", () -> {
                                edit("Take up the older autosave", s -> kept, false);
                                aside.toFile().delete();
                            }))));
            return "";
        }
        history.edit("Recover unsaved work", kept, false);
        keep();
        return "Unsaved work of the last session, of " + when(auto)
                + ", was taken up again; undo brings back the saved study.";
    }

    /**
     * A study whose file is damaged, from the autosave beside it.
     *
     * @param why the file cannot be used
     * @throws LaneException when there is no sound autosave either: the reason of the study
     */
    static Study rescued(Path file, LaneException why) {
        Path auto = Autosave.of(file);
        if (!Files.isRegularFile(auto)) {
            throw why;
        }
        try {
            return StudyJson.load(auto);
        } catch (LaneException e) {
            throw why;
        }
    }

    /** Notes that the study came from the autosave, as its own file is damaged. @return what is to be told */
    String standsFor(LaneException why) {
        damaged = true;
        Study now = history.now();
        history = new UndoStack(Study.empty(now.name()));
        history.edit("Take the autosave", now, false);
        keep();
        return "The study file is damaged; its autosave of " + when(Autosave.of(file))
                + " was opened instead. Saving keeps the damaged file beside. (" + why.getMessage() + ")";
    }

    private static String when(Path of) {
        Instant at = Instant.ofEpochMilli(of.toFile().lastModified());
        boolean today = at.isAfter(Instant.now().minusSeconds(12 * 3600));
        return (today ? CLOCK : DAY).format(at.atZone(ZoneId.systemDefault()));
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
        if (draft()) {
            way.set(history.way());
        }
        // Whoever only reads leaves the autosave to whom the study belongs.
        if (claim.isPresent()) {
            autosave.changed(history.now(), history.changed());
        } else {
            copy.set(Optional.of(history.now()));
        }
    }

    /** Whoever only reads has a study of their own, which is offered like a new one if it is not saved elsewhere. */
    private void keepCopy() {
        Path at = folder;
        Optional<Study> now = Objects.requireNonNull(copy.getAndSet(Optional.empty()));
        if (at == null || now.isEmpty()) {
            return;
        }
        Path from = parent(file);
        try {
            Study moved = StudyFiles.moved(now.get(), p -> FileNames.relative(at, from.resolve(p)));
            StudyJson.save(moved, at.resolve(Drafts.STUDY));
            Drafts.note(at, at.resolve(Drafts.STUDY), moved.name());
        } catch (LaneException e) {
            copy.compareAndSet(Optional.empty(), now);
            say.accept(e.getMessage());
        }
    }

    private void dropCopy() {
        copy.set(Optional.empty());
        Path at = folder;
        if (at != null && !draft()) {
            Drafts.note(at, file, study().name());
            at.resolve(Drafts.STUDY).toFile().delete();
        }
    }

    /** Writes what is not kept yet; what could not be written is tried again at the next call. */
    void keepUnsaved() {
        autosave.write();
        keepCopy();
        Path at = folder;
        List<UndoStack.State> now = Objects.requireNonNull(way.get());
        if (at != null && !now.isEmpty() && draft()) {
            try {
                StudyHistory.save(at.resolve("history.json"), now);
                // An edit that came meanwhile is kept the next time.
                way.compareAndSet(now, List.of());
            } catch (LaneException e) {
                say.accept(e.getMessage());
            }
        }
    }

    /** Keeps a picture of the window for whoever has to tell unsaved studies apart. */
    void picture(byte[] png) {
        Path at = folder;
        if (at != null) {
            try {
                Drafts.picture(at, png);
            } catch (LaneException e) {
                // A picture is a comfort.
            }
        }
    }

    /** When it was saved last, or that it is not. */
    String saved() {
        return claim.isEmpty()
                ? "open to read"
                : draft() ? "not saved yet" : history.changed() || damaged ? "not saved" : saved;
    }

    /** Whether there is work that was not saved to the study's own place. */
    boolean unsaved() {
        return history.changed() || damaged;
    }

    /** What somebody else has made of the study file since this session read or wrote it; empty for nothing. */
    Optional<String> changedByOthers() {
        if (damaged || hash().equals(known) || !Files.exists(file)) {
            return Optional.empty();
        }
        try {
            Study theirs = StudyJson.load(file);
            return theirs.equals(study()) ? Optional.empty() : Optional.of(StudyDiff.words(study(), theirs));
        } catch (LaneException e) {
            return Optional.of("it cannot be read any more");
        }
    }

    private String hash() {
        try {
            return Files.exists(file) ? FileHash.of(file, "").sha256() : "";
        } catch (LaneException e) {
            return "";
        }
    }

    /** Whether the claim to the study was taken over by somebody else meanwhile. */
    boolean lost() {
        return claim.isPresent() && !claim.get().holds();
    }

    /**
     * @throws LaneException when it could not be saved
     * @throws IOException when the autosave could not be removed
     */
    void save() throws IOException {
        Study study = study();
        if (damaged && Files.exists(file)) {
            Files.copy(file, file.resolveSibling(file.getFileName() + ".damaged"), StandardCopyOption.REPLACE_EXISTING);
        }
        autosave.saving(() -> StudyJson.save(study, file));
        wrote(study);
    }

    private void wrote(Study study) {
        damaged = false;
        known = hash();
        history.wrote(study);
        saved = "saved " + LocalTime.now(ZoneId.systemDefault()).format(CLOCK);
        if (folder != null) {
            Drafts.note(folder, file, study.name());
        }
        dropCopy();
    }

    /**
     * Saves to another place, which the study has from then on. Paths of files are written as seen from there.
     *
     * @throws LaneException when it could not be saved; nothing changed then
     * @throws IOException when the autosave could not be removed
     */
    void saveAs(Path to) throws IOException {
        Path target = to.toAbsolutePath().normalize();
        Optional<StudyClaim> other =
                target.equals(file.toAbsolutePath().normalize()) ? claim : StudyClaim.claim(target);
        if (other.isEmpty()) {
            throw new LaneException(target.getFileName() + " is open by "
                    + StudyClaim.holder(target).map(StudyClaim.Holder::words).orElse("somebody else")
                    + "; save under another name.");
        }
        Path from = parent(file);
        Path here = parent(target);
        Study moved = StudyFiles.moved(study(), p -> FileNames.relative(here, kept(from.resolve(p), here)));
        // Written first: where that fails the study stays where it was.
        try {
            StudyJson.save(moved, target);
        } catch (LaneException e) {
            if (!other.equals(claim)) {
                other.get().close();
            }
            throw e;
        }
        if (!here.equals(from)) {
            history.edit("Save elsewhere", moved, false);
        }
        boolean draft = draft();
        Autosave before = autosave;
        Optional<StudyClaim> had = claim;
        file = target;
        claim = other;
        autosave = new Autosave(target, say);
        wrote(study());
        before.saving(() -> {});
        if (!had.equals(other)) {
            had.ifPresent(StudyClaim::close);
        }
        if (draft && folder != null) {
            Drafts.discard(folder);
            folder = Drafts.folder();
            Drafts.note(folder, file, study().name());
        }
    }

    /** A file of the study; one that only stands with a study without a place, as a pasted table does, goes along to the new one. */
    private Path kept(Path used, Path to) {
        Path at = used.toAbsolutePath().normalize();
        if (folder == null
                || !draft()
                || !at.startsWith(folder.toAbsolutePath().normalize())
                || !Files.isRegularFile(at)) {
            return used;
        }
        String name = String.valueOf(at.getFileName());
        try {
            Path copy = to.resolve(name);
            for (int n = 2; Files.exists(copy) && Files.mismatch(at, copy) >= 0; n++) {
                copy = to.resolve(FileNames.stem(name) + "-" + n
                        + name.substring(FileNames.stem(name).length()));
            }
            if (!Files.exists(copy)) {
                Files.copy(at, copy);
            }
            return copy;
        } catch (IOException e) {
            throw new LaneException(
                    "\"" + name + "\", which belongs to the study, could not be copied to " + to + ": " + e.getMessage()
                            + "; the study stays where it was.",
                    e);
        }
    }

    private static Path parent(Path file) {
        Path absolute = file.toAbsolutePath().normalize();
        return absolute.getParent() == null ? absolute : absolute.getParent();
    }

    /** Ends it: what is not saved is kept for the next session. */
    void close() {
        keepUnsaved();
        claim.ifPresent(StudyClaim::close);
        if (folder != null && !history.changed() && !damaged) {
            Drafts.discard(folder);
        }
    }
}
