package lane.desk;

import java.util.Set;
import java.util.function.Consumer;
import lane.formats.FileLibrary;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** Looks whether files of the study changed: tables are followed at once, runs are marked until they are read again. */
final class FileWatch {
    private final FileLibrary library;
    private volatile Study watched = Study.empty("");
    private volatile Set<String> changed = Set.of();

    FileWatch(FileLibrary library) {
        this.library = library;
    }

    /** The study whose files count, as it was computed last. */
    void watch(Study study) {
        watched = study;
    }

    /** Keys of sources whose files are no longer as they were read. */
    Set<String> changed() {
        return changed;
    }

    /**
     * Looks once; called behind the window.
     *
     * @param computedWith how the tables stood when the study was computed; null while that does not count
     * @param tables told when they stand otherwise now
     * @param runs told when other runs are marked, with a call that takes the news over
     */
    void look(@Nullable Object computedWith, Runnable tables, Consumer<Runnable> runs) {
        Set<String> now;
        Object stand;
        try {
            now = library.changed(watched);
            stand = library.tables(watched);
        } catch (RuntimeException e) {
            // Whatever a file system does, the next look comes in a second.
            return;
        }
        // What counts is how a table stood when the study was computed: a view may have read it again since.
        if (computedWith != null && !stand.equals(computedWith)) {
            tables.run();
        }
        if (!now.equals(changed)) {
            runs.accept(() -> changed = now);
        }
    }
}
