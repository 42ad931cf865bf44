package lane.desk.ledger;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import lane.cli.StudyFigures;
import lane.desk.LongWork;
import lane.desk.Session;
import lane.formats.io.FileNames;
import lane.formats.io.Version;
import lane.formats.ledger.LedgerFormat;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.study.Drafts;
import lane.study.Results;
import org.jspecify.annotations.Nullable;

/** Writes the ledger of what is shown, behind the window, in the formats that the study keeps. */
final class LedgerExport {
    private final Session session;
    private final LongWork work;
    private @Nullable Path last;

    /**
     * @param told shows how far it is
     * @param running told whether it is under way
     */
    LedgerExport(Session session, Consumer<String> told, Consumer<Boolean> running) {
        this.session = session;
        work = new LongWork("Writing the ledger", told, session::say, running);
        session.whenClosed(work::cancel);
    }

    /** Writes without a place to tell how far it is. */
    static void quietly(Session session) {
        new LedgerExport(session, session::note, on -> {}).beside(f -> {});
    }

    /** The same into a folder. */
    static void quietly(Session session, Path folder) {
        new LedgerExport(session, session::note, on -> {}).into(folder, f -> {});
    }

    static Path folder(Session session) {
        return session.file().toAbsolutePath().resolveSibling("ledger");
    }

    /** Where a ledger was written last from here; that beside the study where none was. */
    Path last() {
        return last == null ? folder(session) : last;
    }

    void cancel() {
        work.cancel();
    }

    boolean running() {
        return work.running();
    }

    /** Beside the study; where that has no place yet, this is told. */
    void beside(Consumer<Path> then) {
        if (Drafts.holds(session.file())) {
            session.saveElsewhere();
            if (Drafts.holds(session.file())) {
                session.say(
                        "A ledger is written beside its study, and this one has no place yet; save it first, or choose a folder for"
                                + " the ledger.");
                return;
            }
        }
        into(folder(session), then);
    }

    void into(Path folder, Consumer<Path> then) {
        Results results = session.results();
        var to = new LedgerWriter.To(
                folder,
                session.file(),
                Map.of(),
                Made.here(Version.text(), Instant.now()),
                LedgerFormat.of(results.study().pictures().ledger().formats()),
                new StudyFigures());
        work.<List<Path>>start(w -> LedgerWriter.write(results, to, w), files -> {
            last = folder;
            session.note("Wrote " + files.size() + " files to " + FileNames.brief(folder) + ".");
            then.accept(folder);
        });
    }
}
