package lane.desk;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.base.LaneException;
import lane.base.Same;
import lane.formats.FileLibrary;
import lane.formats.io.FileStamp;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** Reads tables behind the window, each once for as long as neither the file nor what is said of it changes. */
public final class TableDesk {
    private final FileLibrary library;
    private final Background background;
    private final Map<String, Asked> latest = new HashMap<>();
    /** What was read of a file that has changed since, until that is read. */
    private final Map<String, Background.Made> before = new HashMap<>();

    private final List<Runnable> waiting = new ArrayList<>();

    private final Background counting;
    private @Nullable Kinds last;
    private final List<Runnable> counted = new ArrayList<>();
    private int read;

    /** @param now of which the tables are: another object where they may have changed */
    private record Kinds(List<String> files, List<Recipe> recipes, Same now) {}

    /** What a table has in common with others: the line that tells its kind, and the names of its columns. */
    public record Kind(String line, List<String> headers) {}

    private record Asked(FileStamp stamp, List<Recipe> recipes) {}

    /** @param done told on the interface thread when a table was read, or could not be */
    TableDesk(FileLibrary library, Runnable done) {
        this.library = library;
        background = new Background("tables", () -> {
            read++;
            List<Runnable> now = List.copyOf(waiting);
            waiting.clear();
            now.forEach(Runnable::run);
            done.run();
        });
        counting = new Background("kinds", this::counted);
    }

    TableDesk(FileLibrary library, Background background) {
        this.library = library;
        this.background = background;
        counting = background;
    }

    /**
     * A table; null while it is being read for the first time. One that changed since, as a log that grows, stands as it was read
     * last until it is read again. A change meanwhile waits its turn, so that what changes more often than it is read is read at
     * all.
     *
     * @throws LaneException when it cannot be read, or is not there
     */
    public @Nullable Table of(String file, List<Recipe> recipes) {
        var now = new Asked(library.stamp(file), recipes);
        Asked last = latest.get(file);
        Asked key = now;
        Background.Made was = null;
        if (last != null && !last.equals(now) && last.recipes.equals(recipes)) {
            was = background.kept(last);
            // As long as the one of before is being read, it is the one.
            key = was == null ? last : now;
        }
        latest.put(file, key);
        if (last != null && !last.equals(key)) {
            background.forget(last);
            if (was == null) {
                before.remove(file);
            } else {
                before.put(file, was);
            }
        }
        Background.Made made = background.of(key, w -> library.table(file, recipes));
        if (made == null) {
            made = before.get(file);
        } else {
            before.remove(file);
        }
        if (made == null) {
            return null;
        }
        if (made.thing() == null) {
            throw new LaneException(made.trouble());
        }
        return (Table) Objects.requireNonNull(made.thing());
    }

    /** Once a table was read, or could not be; for what cannot go on before. */
    public void onceRead(Runnable then) {
        waiting.add(then);
    }

    /** What kind each table of a study is of; none where there are fewer than two. As the other one. */
    public @Nullable Map<String, Kind> kinds(Study study, Object now, Runnable then) {
        List<String> all = study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .flatMap(s -> ((Source.Reference) s).files().stream())
                .distinct()
                .toList();
        return all.size() < 2 ? Map.of() : kinds(all, study.recipes(), now, then);
    }

    /**
     * What kind each of several tables is of, by its file, all of which are read for that; those that cannot be read are left out. Null as long
     * as that is being found out.
     *
     * @param now another object where the tables may have changed
     * @param then called once it is found out, where it was not
     */
    @SuppressWarnings("unchecked")
    public @Nullable Map<String, Kind> kinds(List<String> files, List<Recipe> recipes, Object now, Runnable then) {
        var key = new Kinds(files, recipes, Same.as(now));
        if (last != null && !last.equals(key)) {
            counting.forget(last);
            counted.clear();
        }
        last = key;
        Background.Made made = counting.of(key, work -> {
            var out = new HashMap<String, Kind>();
            for (String file : files) {
                work.poll();
                try {
                    Table table = library.table(file, recipes);
                    out.put(file, new Kind(table.layout().kind(), table.headers()));
                } catch (LaneException e) {
                    // Its own sheet tells why.
                }
            }
            return out;
        });
        if (made == null) {
            counted.add(then);
            return null;
        }
        return made.thing() == null ? Map.of() : (Map<String, Kind>) made.thing();
    }

    private void counted() {
        List<Runnable> all = List.copyOf(counted);
        counted.clear();
        all.forEach(Runnable::run);
    }

    /** Whether a table is being read, or what kinds there are is being found out. */
    boolean busy() {
        return background.busy() || counting.busy();
    }

    /** Another number each time that tables were read: what it shows of them may be other then. */
    public int read() {
        return read;
    }

    void stop() {
        background.stop();
        counting.stop();
    }
}
