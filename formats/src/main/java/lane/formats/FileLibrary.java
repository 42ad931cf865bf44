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
import java.util.function.Supplier;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.table.CsvReader;
import lane.reference.Table;
import lane.study.Library;
import lane.study.Source;
import lane.study.Study;
import lane.trail.Trail;

/**
 * Loads the files of a study, relative to its folder, and keeps what it loaded. A run stays as it was read, also when its
 * files change, until it is reloaded; a table is read again when its file changes, so that a growing log is followed.
 */
public final class FileLibrary implements Library {
    private final Path folder;
    private final Map<Object, FutureTask<Object>> kept = new ConcurrentHashMap<>();

    private record Stamp(Path file, long size, long changed) {}

    private record RunKey(List<Path> files, String regions) {}

    /** What the files of a run looked like when it was read. */
    private final Map<RunKey, List<Stamp>> seen = new ConcurrentHashMap<>();

    private RunKey key(Source.Simulation source) {
        List<Path> files = new ArrayList<>();
        files.add(resolve(source.file()));
        source.partFiles().forEach(p -> files.add(resolve(p)));
        return new RunKey(List.copyOf(files), source.regions());
    }

    /** Keys of sources whose files are no longer as they were read. */
    public Set<String> changed(Study study) {
        var out = new LinkedHashSet<String>();
        for (Source source : study.sources()) {
            try {
                boolean other =
                        switch (source) {
                            case Source.Simulation s ->
                                seen.getOrDefault(key(s), List.of()).stream().anyMatch(FileLibrary::differs);
                            case Source.Reference r ->
                                kept.keySet().stream()
                                        .anyMatch(k -> k instanceof Stamp s
                                                && r.files().stream().anyMatch(f -> resolve(f)
                                                        .equals(s.file))
                                                && differs(s));
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
                RunKey key = key(s);
                kept.remove(key);
                seen.remove(key);
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
                Thread.ofPlatform().daemon().name("load " + s.name()).start(() -> prepare(s));
            }
        }
    }

    private void prepare(Source.Simulation source) {
        try {
            run(source, Work.QUIET).locator();
        } catch (LaneException e) {
            // The evaluation asks for it again and shows the reason on the source's row.
            return;
        }
    }

    @Override
    public Table table(String file) {
        Stamp stamp = stamp(file);
        return keep(stamp, () -> {
            kept.keySet().removeIf(k -> k instanceof Stamp s && s.file.equals(stamp.file) && !s.equals(stamp));
            return CsvReader.read(stamp.file, file);
        });
    }

    @Override
    public Run run(Source.Simulation source, Work work) {
        RunKey key = key(source);
        return keep(key, () -> {
            List<Stamp> stamps = new ArrayList<>();
            stamps.add(stamp(source.file()));
            source.partFiles().forEach(p -> stamps.add(stamp(p)));
            Run run = load(source, work);
            // Files that the first one refers to are known only now.
            run.inputs().stream()
                    .map(Trail.Input::path)
                    .filter(p -> stamps.stream().noneMatch(s -> s.file.equals(resolve(p))))
                    .forEach(p -> stamps.add(stamp(p)));
            kept.keySet()
                    .removeIf(k -> k instanceof RunKey r
                            && !r.equals(key)
                            && r.files.getFirst().equals(key.files.getFirst()));
            seen.keySet().retainAll(kept.keySet());
            seen.put(key, stamps);
            return run;
        });
    }

    private Run load(Source.Simulation source, Work work) {
        work.progress("Loading " + source.name(), 0);
        List<Trail.Input> inputs = new ArrayList<>();
        inputs.add(FileHash.of(resolve(source.file()), source.file()));
        Dataset grid = DatasetReader.read(resolve(source.file()), work);
        for (Path other : grid.files()) {
            Path relative = other.startsWith(folder) ? folder.relativize(other) : other;
            inputs.add(FileHash.of(other, relative.toString().replace('\\', '/')));
        }
        work.poll();
        List<String> remarks = new ArrayList<>(grid.remarks());
        List<Part> parts = new ArrayList<>();
        if (grid.mesh().dimension() >= 2) {
            parts(source, grid, parts, inputs, remarks, work);
        }
        return new Run(grid.mesh(), grid.fields(), parts, inputs, remarks);
    }

    private void parts(
            Source.Simulation source,
            Dataset grid,
            List<Part> parts,
            List<Trail.Input> inputs,
            List<String> remarks,
            Work work) {
        var builder = new PartBuilder(grid.mesh());
        for (String path : source.partFiles()) {
            work.poll();
            inputs.add(FileHash.of(resolve(path), path));
            Dataset surface = DatasetReader.read(resolve(path), work);
            Part part = builder.place(stem(path), surface.mesh(), surface.fields());
            parts.add(part);
            if (part.unmatched() > 0) {
                remarks.add("Part " + part.name() + ": " + part.unmatched() + " of "
                        + part.surface().cellCount() + " faces are no boundary faces of the run.");
            }
            if (part.turned() > 0) {
                remarks.add("Part " + part.name() + ": " + part.turned()
                        + " faces were wound inwards and are read turned outwards.");
            }
        }
        for (Dataset.Group group : grid.groups()) {
            parts.add(builder.place(group.name(), group.surface(), group.fields()));
        }
        if (!source.regions().isBlank()) {
            Field region = grid.fields().stream()
                    .filter(f -> f.name().equals(source.regions()))
                    .findFirst()
                    .orElseThrow(() -> new LaneException("The file " + source.file() + " has no array \""
                            + source.regions() + "\" to name its parts by; choose another."));
            if (region.at() != Field.At.CELL || region.components() != 1 || !(region.values() instanceof Values.Ints)) {
                throw new LaneException("The array \"" + source.regions() + "\" of " + source.file()
                        + " cannot name parts: it must hold one whole number a cell.");
            }
            List<Part> faces = builder.byFaceCells(source.regions(), region.values());
            parts.addAll(faces.isEmpty() ? builder.byOwner(source.regions(), region.values()) : faces);
        }
        if (parts.isEmpty() && builder.boundary().size() > 0) {
            parts.add(builder.whole("boundary"));
        }
        if (builder.boundary().shared() > 0) {
            remarks.add(builder.boundary().shared() + " faces belong to more than two cells.");
        }
    }

    /** A file's name without folder and extension. */
    public static String stem(String path) {
        String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) : name;
    }
}
