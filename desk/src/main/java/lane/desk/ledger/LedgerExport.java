package lane.desk.ledger;

import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javafx.application.Platform;
import lane.base.LaneException;
import lane.cli.ReadingFigures;
import lane.cli.Version;
import lane.desk.Session;
import lane.formats.io.FaultLog;
import lane.formats.io.FileNames;
import lane.formats.ledger.LedgerFormat;
import lane.formats.ledger.LedgerWriter;
import lane.formats.study.Drafts;
import lane.study.Results;

/** Writes the ledger of what is shown, behind the window. */
final class LedgerExport {
    private LedgerExport() {}

    /** Beside the study; blank where it has no place yet, which is told. */
    static void beside(Session session, Set<LedgerFormat> formats, Consumer<Path> then) {
        if (Drafts.holds(session.file())) {
            session.saveElsewhere();
            if (Drafts.holds(session.file())) {
                session.say(
                        "A ledger is written beside its study, and this one has no place yet; save it first, or choose a folder for"
                                + " the ledger.");
                return;
            }
        }
        into(session, folder(session), formats, then);
    }

    static Path folder(Session session) {
        return session.file().toAbsolutePath().resolveSibling("ledger");
    }

    static void into(Session session, Path folder, Set<LedgerFormat> formats, Consumer<Path> then) {
        Results results = session.results();
        Path study = session.file();
        Set<LedgerFormat> chosen = formats.isEmpty() ? Set.of() : EnumSet.copyOf(formats);
        session.note("Writing the ledger to " + FileNames.brief(folder) + "…");
        Thread.ofPlatform().name("write ledger").start(() -> {
            try {
                List<Path> files = LedgerWriter.write(
                        results, folder, study, Map.of(), Version.text(), Instant.now(), chosen, new ReadingFigures());
                Platform.runLater(() -> {
                    session.note("Wrote " + files.size() + " files to " + FileNames.brief(folder) + ".");
                    then.accept(folder);
                });
            } catch (LaneException e) {
                Platform.runLater(() -> session.say(e.getMessage()));
            } catch (RuntimeException | Error e) {
                String sentence = FaultLog.note("Writing the ledger", e);
                Platform.runLater(() -> session.say(sentence));
            }
        });
    }
}
