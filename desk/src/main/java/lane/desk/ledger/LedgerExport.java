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

/**
 * Writes the ledger of the study as it is now, behind the window, in the formats that it keeps. What is still being computed is
 * waited for: a ledger never holds the numbers of before an edit, nor a part of them.
 */
final class LedgerExport {
    private final Session session;
    private final LongWork work;
    private final Consumer<String> told;
    private final Consumer<Boolean> running;
    private @Nullable Path last;
    /** Whether it begins once the study is computed. */
    private boolean waiting;
    /** How many were asked for: one that was given up is not begun in the place of the next. */
    private int asked;

    /**
     * @param told shows how far it is
     * @param running told whether it is under way
     */
    LedgerExport(Session session, Consumer<String> told, Consumer<Boolean> running) {
        this.session = session;
        this.told = told;
        this.running = running;
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
        if (waiting) {
            waiting = false;
            told.accept("");
            running.accept(false);
        }
    }

    boolean running() {
        return waiting || work.running();
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
        if (running()) {
            return;
        }
        waiting = true;
        int mine = ++asked;
        session.whenComputed(whole -> {
            boolean wanted = waiting && mine == asked;
            waiting &= !wanted;
            if (wanted && whole) {
                write(folder, then);
            } else if (wanted) {
                told.accept("");
                running.accept(false);
                session.say(
                        "No ledger was written: the study is not computed as it is now. Read now at Intake, then write it.");
            }
        });
        if (waiting) {
            running.accept(true);
            told.accept("The study is being computed; its ledger is written then.");
        }
    }

    private void write(Path folder, Consumer<Path> then) {
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
