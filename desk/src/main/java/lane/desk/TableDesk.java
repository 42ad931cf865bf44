package lane.desk;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.base.LaneException;
import lane.formats.FileLibrary;
import lane.formats.io.FileStamp;
import lane.reference.Recipe;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;

/** Reads tables behind the window, each once for as long as neither the file nor what is said of it changes. */
public final class TableDesk {
    private final FileLibrary library;
    private final Background background;
    private final Map<String, Asked> latest = new HashMap<>();

    private record Asked(FileStamp stamp, List<Recipe> recipes) {}

    /** @param done told on the interface thread when a table was read, or could not be */
    TableDesk(FileLibrary library, Runnable done) {
        this(library, new Background("tables", done));
    }

    TableDesk(FileLibrary library, Background background) {
        this.library = library;
        this.background = background;
    }

    /**
     * A table; null while it is being read.
     *
     * @throws LaneException when it cannot be read, or is not there
     */
    public @Nullable Table of(String file, List<Recipe> recipes) {
        var key = new Asked(library.stamp(file), recipes);
        Asked before = latest.put(file, key);
        if (before != null && !before.equals(key)) {
            background.forget(before);
        }
        Background.Made made = background.of(key, w -> library.table(file, recipes));
        if (made == null) {
            return null;
        }
        if (made.thing() == null) {
            throw new LaneException(made.trouble());
        }
        return (Table) Objects.requireNonNull(made.thing());
    }

    void stop() {
        background.stop();
    }
}
