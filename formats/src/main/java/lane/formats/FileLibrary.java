package lane.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.formats.io.FaultLog;
import lane.formats.io.FileHash;
import lane.formats.table.TableReader;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Library;
import lane.study.Source;
import lane.study.Study;

/**
 * Loads the files of a study, relative to its folder, and keeps what it loaded. A run stays as it was read, also when its
 * files change, until it is reloaded; a table is read again when its file changes, so that a growing log is followed.
 */
public final class FileLibrary implements Library {
    private final Path folder;
    private final Map<Object, FutureTask<Object>> kept = new ConcurrentHashMap<>();
    private final Map<RunKey, Loading<Run>> runs = new ConcurrentHashMap<>();

    private record Stamp(Path file, long size, long changed) {}

    /** A run's files and what decides how they become a mesh. */
    private record Bundle(List<Path> files, String regions, double metres) {}

    private record RunKey(Bundle of, TimeSelector moment) {}

    /** A table as a recipe reads it; without a recipe its kind. */
    private record Read(Stamp of, Recipe recipe) {}

    private record Understood(Run run, Treatment treatment) {}

    /** How many times of one run are kept. */
    private static final int TIMES_KEPT = 4;

    /** What the files of a run looked like when it was read. */
    private final Map<RunKey, List<Stamp>> seen = new ConcurrentHashMap<>();

    /** The stored times of runs that were read once. */
    private final Map<Bundle, List<Double>> times = new ConcurrentHashMap<>();

    /** When a run was last asked for. */
    private final Map<RunKey, Long> asked = new ConcurrentHashMap<>();

    private final AtomicLong clock = new AtomicLong();

    private Bundle files(Source.Simulation source) {
        List<Path> files = new ArrayList<>();
        files.add(resolve(source.file()));
        source.partFiles().forEach(p -> files.add(resolve(p)));
        return new Bundle(
                List.copyOf(files), source.regions(), source.treatment().metres());
    }

    /** Moments that mean the same stored time become one. */
    private RunKey key(Bundle files, TimeSelector moment) {
        List<Double> known = times.get(files);
        if (known == null) {
            return new RunKey(files, moment);
        }
        int at = known.isEmpty() ? 0 : moment.in(known);
        return new RunKey(files, at >= known.size() - 1 ? TimeSelector.LAST : new TimeSelector.At(known.get(at), 0));
    }

    /** Keys of sources whose files are no longer as they were read. */
    public Set<String> changed(Study study) {
        var out = new LinkedHashSet<String>();
        for (Source source : study.sources()) {
            try {
                boolean other =
                        switch (source) {
                            case Source.Simulation s -> {
                                Bundle of = files(s);
                                yield seen.entrySet().stream()
                                        .anyMatch(e -> e.getKey().of.equals(of)
                                                && e.getValue().stream().anyMatch(FileLibrary::differs));
                            }
                            case Source.Reference r ->
                                kept.keySet().stream()
                                        .anyMatch(k -> k instanceof Read t
                                                && r.files().stream().anyMatch(f -> resolve(f)
                                                        .equals(t.of.file))
                                                && differs(t.of));
                        };
                if (other) {
                    out.add(source.id());
                }
            } catch (LaneException e) {
                // A path that is none is told when the source is read.
                continue;
            }
        }
        return out;
    }

    /** How the files of a study's references stand now, to be compared with how they stood when it was computed. */
    public Object tables(Study study) {
        var out = new java.util.HashMap<String, Object>();
        for (Source source : study.sources()) {
            if (source instanceof Source.Reference r) {
                for (String file : r.files()) {
                    try {
                        out.put(file, stamp(file));
                    } catch (LaneException e) {
                        out.put(file, "not there");
                    }
                }
            }
        }
        return out;
    }

    private static boolean differs(Stamp then) {
        try {
            var a = Files.readAttributes(then.file, BasicFileAttributes.class);
            return a.size() != then.size || a.lastModifiedTime().toMillis() != then.changed;
        } catch (IOException e) {
            return true;
        }
    }

    /** Forgets runs, so that they are read again when they are next asked for. */
    public void reload(Study study, Set<String> sources) {
        for (Source source : study.sources()) {
            if (sources.contains(source.id()) && source instanceof Source.Simulation s) {
                Bundle of = files(s);
                runs.keySet().removeIf(k -> k.of.equals(of));
                seen.keySet().removeIf(k -> k.of.equals(of));
                times.remove(of);
            }
        }
    }

    /** @param folder that relative paths of the study start from */
    public FileLibrary(Path folder) {
        this.folder = folder.toAbsolutePath().normalize();
    }

    /** Where a path of the study points to. */
    public Path resolve(String path) {
        try {
            return folder.resolve(path).normalize();
        } catch (java.nio.file.InvalidPathException e) {
            throw new LaneException("\"" + path + "\" is no path on this machine; correct it in the study.", e);
        }
    }

    /** A path as the study writes it. */
    String relative(Path file) {
        Path there = file.toAbsolutePath().normalize();
        return (there.startsWith(folder) ? folder.relativize(there) : there)
                .toString()
                .replace('\\', '/');
    }

    private Stamp stamp(String path) {
        Path file = resolve(path);
        try {
            var a = Files.readAttributes(file, BasicFileAttributes.class);
            return new Stamp(file, a.size(), a.lastModifiedTime().toMillis());
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    /** Loads once: who asks while another thread is loading the same waits for it. A failure is not kept. */
    @SuppressWarnings("unchecked")
    private <T> T keep(Object key, Supplier<T> load) {
        var task = new FutureTask<Object>(load::get);
        FutureTask<Object> before = kept.putIfAbsent(key, task);
        FutureTask<Object> mine = before == null ? task : before;
        if (before == null) {
            task.run();
        }
        try {
            return (T) mine.get();
        } catch (ExecutionException e) {
            kept.remove(key, mine);
            if (e.getCause() instanceof CancellationException && before != null) {
                // The other one was cancelled, not we.
                return keep(key, load);
            }
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    /** Begins to load all runs of a study, each on a thread of its own; what fails is told when the study asks for it. */
    public void prepare(Study study) {
        for (Source source : study.sources()) {
            if (source instanceof Source.Simulation s) {
                try {
                    loading(s, key(files(s), study.timeOf(s)));
                } catch (LaneException e) {
                    // The evaluation asks for it again and shows the reason on the source's row.
                    continue;
                }
            }
        }
    }

    @Override
    public Table table(String file, List<Recipe> recipes) {
        Stamp stamp = stamp(file);
        kept.keySet().removeIf(k -> k instanceof Read r && r.of.file.equals(stamp.file) && !r.of.equals(stamp));
        String kind = keep(new Read(stamp, null), () -> TableReader.kind(stamp.file, file));
        Recipe recipe =
                recipes.stream().filter(r -> r.kind().equals(kind)).findFirst().orElse(Recipe.of(kind));
        return keep(new Read(stamp, recipe), () -> TableReader.read(stamp.file, file, recipe));
    }

    /** What a sheet's file said at its stamp. */
    private record Surface(Stamp of) {}

    @Override
    public java.util.Optional<Provenance.Input> sheetInput(String file) {
        Stamp stamp = stamp(file);
        return java.util.Optional.of(keep(new Hashed(stamp), () -> FileHash.of(stamp.file, file)));
    }

    /** A file's hash as long as it does not change. */
    private record Hashed(Stamp of) {}

    @Override
    public lane.mesh.Mesh sheet(String file) {
        Stamp stamp = stamp(file);
        kept.keySet().removeIf(k -> k instanceof Surface s && s.of.file.equals(stamp.file) && !s.of.equals(stamp));
        return keep(new Surface(stamp), () -> {
            lane.mesh.Mesh mesh = DatasetReader.read(stamp.file, Work.QUIET).mesh();
            if (mesh.dimension() != 2) {
                throw new LaneException(
                        "The sheet " + file + " holds no surface; give a file of triangles or polygons, such as STL.");
            }
            return mesh;
        });
    }

    @Override
    public Run run(Source.Simulation source, TimeSelector moment, Work work) {
        Bundle files = files(source);
        RunKey key = key(files, moment);
        Run run = await(source, key, work);
        RunKey same = key(files, moment);
        if (!same.equals(key)) {
            // Now that the times are known, the moment has a name that others share.
            Loading<Run> mine = runs.remove(key);
            if (mine != null) {
                runs.putIfAbsent(same, mine);
            }
            List<Stamp> stamps = seen.remove(key);
            if (stamps != null) {
                seen.putIfAbsent(same, stamps);
            }
            asked.remove(key);
        }
        asked.put(same, clock.incrementAndGet());
        return keep(new Understood(run, source.treatment().at(null)), () -> source.treatment()
                .apply(run));
    }

    /** The load of a run, begun unless it is under way or done. A failure is not kept. */
    private Loading<Run> loading(Source.Simulation source, RunKey key) {
        return runs.compute(key, (k, old) -> {
            if (old != null && !old.lost()) {
                return old;
            }
            var fresh = new Loading<Run>(source.name(), w -> load(source, key, w));
            fresh.start();
            return fresh;
        });
    }

    private Run await(Source.Simulation source, RunKey key, Work work) {
        while (true) {
            Loading<Run> one = loading(source, key);
            try {
                return one.await(work);
            } catch (CancellationException e) {
                // Others gave it up, not we: it is begun again.
                work.poll();
            } catch (RuntimeException | Error e) {
                runs.remove(key, one);
                throw e;
            }
        }
    }

    private Run load(Source.Simulation source, RunKey key, Work work) {
        List<Stamp> stamps = new ArrayList<>();
        for (Path p : key.of.files) {
            if (!Series.is(p)) {
                stamps.add(stamp(p.toString()));
            }
        }
        Run run = new RunLoader(this, source, work).load(key.moment, another(key));
        // Files that the first one refers to are known only now.
        run.inputs().stream()
                .map(Provenance.Input::path)
                .filter(p -> stamps.stream().noneMatch(s -> s.file.equals(resolve(p))))
                .forEach(p -> stamps.add(stamp(p)));
        times.put(key.of, run.times());
        seen.put(key, stamps);
        forget(key);
        return run;
    }

    /** The same files at another time, if they are in memory. */
    private Run another(RunKey key) {
        for (Map.Entry<RunKey, Loading<Run>> e : runs.entrySet()) {
            if (e.getKey().of.equals(key.of) && e.getValue().now() != null) {
                return e.getValue().now();
            }
        }
        return null;
    }

    /** Lets go of times asked for long ago. */
    private void forget(RunKey newest) {
        asked.keySet().stream()
                .filter(k -> k.of.equals(newest.of) && !k.equals(newest))
                .sorted(java.util.Comparator.comparing(asked::get).reversed())
                .skip(TIMES_KEPT - 1)
                .forEach(runs::remove);
        asked.keySet().retainAll(runs.keySet());
    }

    @Override
    public String fault(String doing, Throwable fault) {
        return FaultLog.note(doing, fault);
    }

    @Override
    public void settled(Study study) {
        var wanted = new java.util.HashSet<Bundle>();
        for (Source source : study.sources()) {
            try {
                if (source instanceof Source.Simulation s) {
                    wanted.add(files(s));
                }
            } catch (LaneException e) {
                // A path that is none keeps nothing.
                continue;
            }
        }
        runs.keySet().removeIf(k -> !wanted.contains(k.of));
        seen.keySet().retainAll(runs.keySet());
        var known = java.util.Collections.newSetFromMap(new java.util.IdentityHashMap<Run, Boolean>());
        runs.values().stream()
                .map(Loading::now)
                .filter(java.util.Objects::nonNull)
                .forEach(known::add);
        kept.keySet().removeIf(k -> k instanceof Understood u && !known.contains(u.run));
    }
}
