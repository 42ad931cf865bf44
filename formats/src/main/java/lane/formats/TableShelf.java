package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;
import lane.formats.hash.HashesAhead;
import lane.formats.io.FileStamp;
import lane.formats.table.FirstLook;
import lane.formats.table.KeptTables;
import lane.formats.table.TableReader;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** The tables of a study: each is read once, and again when its file changes. Thread-safe. */
final class TableShelf {
    /** A table as a recipe reads it; without a recipe its kind. */
    private record Read(FileStamp of, @Nullable Recipe recipe) {}

    private final Function<String, Path> resolve;
    private final KeptTables before;
    private final Loaded loaded = new Loaded();
    /** How the files looked whose tables are loaded. */
    private final Map<Path, FileStamp> stamps = new ConcurrentHashMap<>();
    /** Files that are read among so many others that together they are worth keeping. */
    private final Set<Path> among = ConcurrentHashMap.newKeySet();
    /** How many columns are being looked up before their tables are read. */
    private final AtomicInteger looking = new AtomicInteger();

    /**
     * @param resolve where a path of the study points to
     * @param before tables that were read before
     */
    TableShelf(Function<String, Path> resolve, KeptTables before) {
        this.resolve = resolve;
        this.before = before;
    }

    /** @param file as the study names it */
    Table of(String file, List<Recipe> recipes) {
        FileStamp stamp = stamp(file);
        if (recipes.isEmpty()) {
            // Nobody asks then of what kind it is, and what was found holds.
            Recipe found = Recipe.of("");
            return loaded.of(
                    new Read(stamp, found), () -> read(stamp, file, recipes).table());
        }
        List<String> kinds = loaded.of(new Read(stamp, null), () -> {
            TableReader.Read made = read(stamp, file, recipes);
            loaded.of(new Read(stamp, made.recipe()), made::table);
            return made.kinds();
        });
        Recipe recipe = Recipe.among(recipes, stamp.file().getFileName().toString(), kinds);
        return loaded.of(
                new Read(stamp, recipe), () -> read(stamp, file, recipes).table());
    }

    /** Some columns of a long table that is not on the shelf, as far as they can be had before all of it is read. */
    Optional<Table> firstLook(String file, List<Recipe> recipes, Set<String> columns, Work work) {
        FileStamp stamp = stamp(file);
        if (!before.worth(stamp.size()) || loaded.there(new Read(stamp, recipes.isEmpty() ? Recipe.of("") : null))) {
            return Optional.empty();
        }
        Path path = stamp.file();
        looking.incrementAndGet();
        try {
            Optional<Table> kept = before.some(stamp, file, recipes, columns);
            return kept.isPresent()
                    ? kept
                    : FirstLook.of(path, file, kinds -> TableReader.recipe(recipes, path, kinds), columns, work)
                            .filter(t -> !stamp.differs());
        } finally {
            looking.decrementAndGet();
        }
    }

    /** Whoever looks first goes first, for some seconds at most: reading all of a table takes the cores for longer. */
    private void letLook() {
        for (int i = 0; i < 500 && looking.get() > 0; i++) {
            try {
                Thread.sleep(20);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    private TableReader.Read read(FileStamp stamp, String file, List<Recipe> recipes) {
        letLook();
        var ahead = new AtomicBoolean();
        TableReader.Read made = before.of(stamp, file, recipes, among.contains(stamp.file()), () -> {
            Optional<String> found = HashesAhead.SHARED.of(stamp, Work.QUIET);
            ahead.set(found.isPresent());
            return found;
        });
        // What another hashed and what was read here are one only where the file stayed as it was.
        return ahead.get() && stamp.differs() ? before.of(stamp(file), file, recipes, false, Optional::empty) : made;
    }

    private FileStamp stamp(String file) {
        FileStamp stamp = FileStamp.of(resolve.apply(file));
        FileStamp last = stamps.put(stamp.file(), stamp);
        if (last != null && !last.equals(stamp)) {
            loaded.removeIf(k -> k instanceof Read r && r.of.equals(last));
        }
        return stamp;
    }

    /** Whether a file of a reference is no longer as it was read. */
    boolean changed(Source.Reference reference) {
        return reference.files().stream()
                .map(f -> stamps.get(resolve.apply(f)))
                .anyMatch(s -> s != null && s.differs());
    }

    /** How the files of a study's references stand now, to be compared with how they stood when it was computed. */
    Object now(Study study) {
        var out = new HashMap<String, Object>();
        for (Source source : study.sources()) {
            if (source instanceof Source.Reference r) {
                for (String file : r.files()) {
                    try {
                        out.put(file, FileStamp.of(resolve.apply(file)));
                    } catch (LaneException e) {
                        out.put(file, "not there");
                    }
                }
            }
        }
        return out;
    }

    void clear() {
        loaded.clear();
        stamps.clear();
        among.clear();
    }

    private record Wanted(String file, FileStamp stamp) {}

    /** Begins to read tables that are asked for next, on all cores, where there are several; each once. */
    void foresee(List<String> files, List<Recipe> recipes, Work work) {
        List<Wanted> wanted = new ArrayList<>();
        for (String file : files) {
            try {
                FileStamp stamp = stamp(file);
                if (!loaded.has(new Read(stamp, recipes.isEmpty() ? Recipe.of("") : null))) {
                    wanted.add(new Wanted(file, stamp));
                }
            } catch (LaneException e) {
                // It is told when it is asked for.
            }
        }
        if (wanted.size() < 2) {
            return;
        }
        if (before.worth(wanted.stream().mapToLong(w -> w.stamp.size()).sum())) {
            wanted.forEach(w -> among.add(w.stamp.file()));
        }
        List<Path> paths = wanted.stream().map(w -> w.stamp.file()).toList();
        var next = new AtomicInteger();
        // One more than cores, since one or the other waits for a hash.
        for (int t = 0; t < Math.min(wanted.size(), Parallel.threads() + 1); t++) {
            Thread.ofPlatform().daemon().name("tables ahead").start(() -> {
                for (int i = next.getAndIncrement();
                        i < wanted.size() && !work.cancelled();
                        i = next.getAndIncrement()) {
                    Wanted one = wanted.get(i);
                    try {
                        if (!before.has(one.stamp, recipes)) {
                            HashesAhead.SHARED.want(paths.subList(i, paths.size()));
                        }
                        of(one.file, recipes);
                    } catch (RuntimeException e) {
                        // Who asks for it meets the same.
                    }
                }
            });
        }
    }
}
