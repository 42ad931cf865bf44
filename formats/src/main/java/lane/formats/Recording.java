package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import lane.base.BoundedMemo;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.field.Part;
import lane.field.Run;
import lane.field.Shelf;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.io.FileStamp;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/**
 * The files of one run over time, opened once: their times, a run for each time that was asked for, and what these share. The
 * mesh is the same object as long as it does not change, with its locator, boundary and parts; numbers of fields are read when
 * somebody asks for them. A run stays as it was read, also when its files change, until it is reloaded. Thread-safe.
 */
final class Recording {
    /**
     * A run's files and what decides how they become a mesh.
     *
     * @param metres what one unit of the coordinates is; 0 where the file decides
     * @param inPieces whether it is read one piece after the other; null where its size decides
     */
    record Bundle(
            List<Path> files,
            String regions,
            double metres,
            @Nullable Boolean inPieces) {}

    /** A time that was asked for. */
    private static final class Step {
        final Loading<Run> loading;
        /** How the run is understood, for each treatment that was asked for. */
        final Map<Treatment, Run> understood = new ConcurrentHashMap<>();
        /** What its files looked like before they were read. */
        volatile List<FileStamp> stamps = List.of();

        volatile long asked;
        /** Whether it was one of many that are passed by. */
        volatile boolean passing = true;

        Step(Loading<Run> loading) {
            this.loading = loading;
        }
    }

    /** The time that a file of a series says it holds, as it looked then. */
    private record Head(FileStamp stamp, double time) {}

    /**
     * A series as it was found.
     *
     * @param folder how it looked before
     * @param when it was found, in nanoseconds as files are stamped
     */
    private record Listed(Series series, FileStamp folder, long when) {}

    /** Nanoseconds in which a folder may change twice and look the same. */
    private static final long SETTLED = 2_000_000_000L;

    private final Map<Path, Listed> listed = new ConcurrentHashMap<>();
    private final FileLibrary library;
    private final Bundle files;
    private final BoundedMemo grids = BoundedMemo.share(0.125);
    private final Map<TimeSelector, Step> steps = new ConcurrentHashMap<>();
    private final Map<Path, Head> heads = new ConcurrentHashMap<>();
    private final Map<Path, List<Path>> patterns = new ConcurrentHashMap<>();
    /** Files of times that were passed by and let go of, as they were read. */
    private final Map<Path, FileStamp> passed = new ConcurrentHashMap<>();
    /** How often it was read again. */
    private final AtomicLong generation = new AtomicLong();

    private final AtomicLong clock = new AtomicLong();
    /** The series as it was opened last; null where there is none. */
    private volatile @Nullable Series opened;

    /** Which files a collection has for each time; null as long as nobody asked. */
    private volatile @Nullable Map<Double, List<Path>> overTime;

    /** The stored times; null as long as nothing was read. */
    private volatile @Nullable List<Double> times;

    Recording(FileLibrary library, Bundle files) {
        this.library = library;
        this.files = files;
    }

    /** Where what the times share is kept. */
    Memo grids() {
        return grids;
    }

    /** The mesh that equals this one and was there first. */
    Mesh shared(Mesh mesh) {
        return grids.of(List.of("mesh", mesh.key()), () -> mesh);
    }

    /** One time of a file or of a series of files. */
    Dataset open(Path file, TimeSelector moment, Work work) {
        Opening opening = Opening.onDemand(grids);
        return Series.is(file)
                ? series(file, moment).open(moment, opening, work)
                : DatasetReader.open(file, moment, opening, work);
    }

    /** One of the pieces of one time. */
    Dataset open(Path file, TimeSelector moment, int piece, Work work) {
        Opening opening = Opening.onDemand(Memo.NONE).only(piece);
        return Series.is(file)
                ? series(file, moment).open(moment, opening, work)
                : DatasetReader.open(file, moment, opening, work);
    }

    /**
     * The files of a series as they are now. Each is opened at most once to learn its time, and they are looked for again only
     * where their folder, or the one that is wanted, changed: else thousands would be looked at for each of thousands.
     */
    private Series series(Path pattern, TimeSelector moment) {
        Listed before = listed.get(pattern);
        if (before != null && holds(before, moment)) {
            return before.series;
        }
        FileStamp folder =
                FileStamp.of(Objects.requireNonNull(pattern.toAbsolutePath().getParent()));
        long now = System.currentTimeMillis();
        Series found = Series.of(pattern, this::time);
        listed.put(pattern, new Listed(found, folder, TimeUnit.MILLISECONDS.toNanos(now)));
        if (pattern.equals(files.files.getFirst())) {
            opened = found;
        }
        // What was found first counts until the run is read again: a file more stays news.
        patterns.putIfAbsent(pattern, found.files().stream().sorted().toList());
        return found;
    }

    private boolean holds(Listed one, TimeSelector moment) {
        if (one.folder.differs() || one.when - one.folder.changed() < SETTLED) {
            return false;
        }
        try {
            Path file = one.series.files().get(moment.in(one.series.times()));
            Head known = heads.get(file);
            return known == null ? one.series.byName() : !known.stamp.differs();
        } catch (LaneException e) {
            return false;
        }
    }

    private double time(Path file) {
        FileStamp now = FileStamp.of(file);
        Head known = heads.get(file);
        if (known == null || !known.stamp.equals(now)) {
            known = new Head(now, Series.stored(file));
            heads.put(file, known);
        }
        return known.time;
    }

    /** Begins to load a time, if it is not there or under way. */
    void prepare(Source.Simulation source, TimeSelector moment) {
        step(source, named(moment));
    }

    /** Files that hold these times and no others; none where the run was not opened yet, or keeps its times otherwise. */
    List<Path> files(double[] wanted) {
        Path first = files.files.getFirst();
        if (Series.is(first)) {
            Series series = opened;
            return series == null ? List.of() : series.at(wanted);
        }
        Map<Double, List<Path>> known = overTime;
        if (known == null) {
            known = DatasetReader.files(first);
            overTime = known;
        }
        Map<Double, List<Path>> found = known;
        return Arrays.stream(wanted)
                .mapToObj(time -> found.getOrDefault(time, List.of()))
                .flatMap(List::stream)
                .toList();
    }

    /** Times that are passed by and held at once. */
    private static final int PASSING = 8;

    /** Cells from which a run that is stored in pieces is read one piece after the other, where nobody states it. */
    static final long MANY = 20_000_000;

    /** Whether the run is read one piece after the other; null as long as nobody asked. */
    private volatile @Nullable Boolean apart;

    private final Map<TimeSelector, RunInPieces> inPieces = new ConcurrentHashMap<>();

    /** The run at a time where it is read one piece after the other; empty where it is held whole. */
    synchronized Optional<RunInPieces> partition(Source.Simulation source, TimeSelector moment, Work work) {
        if (!apart(source, moment, work)) {
            return Optional.empty();
        }
        Treatment how = source.treatment();
        if (!how.parts().isEmpty() || how.turn() != null) {
            throw new LaneException(
                    "The run \"" + source.name() + "\" is read in pieces, where parts are not changed and no"
                            + " full turn is taken; leave these out, or state that it is held whole.");
        }
        TimeSelector name = named(moment);
        RunInPieces there = inPieces.get(name);
        if (there == null) {
            there = new RunInPieces(library, this, source, moment, work);
            times = there.head().times();
            // One is enough: times are passed one after the other.
            inPieces.clear();
            inPieces.put(named(moment), there);
        }
        return Optional.of(there);
    }

    private boolean apart(Source.Simulation source, TimeSelector moment, Work work) {
        Boolean stated = source.treatment().inPieces();
        Boolean known = apart;
        if (known == null) {
            known = stated == null ? large(source, moment, work) : stated;
            apart = known;
        }
        return known;
    }

    /** Files of times that are shorter than this hold no run that is too large. */
    private static final long SHORT = 100_000_000;

    private boolean large(Source.Simulation source, TimeSelector moment, Work work) {
        Path file = library.resolve(source.file());
        if (!DatasetReader.inPieces(file) || StoredSize.bytes(file) < SHORT) {
            return false;
        }
        Dataset first = open(file, moment, 0, work);
        return first.pieces() > 1
                && first.mesh().dimension() == 3
                && (long) first.pieces() * first.mesh().cellCount() >= MANY;
    }

    /** The run at a time that is passed by, understood as the source says. */
    Run passing(Source.Simulation source, TimeSelector moment, Work work) {
        return taken(source, moment, work, true);
    }

    /** The run at a time, understood as the source says. */
    Run run(Source.Simulation source, TimeSelector moment, Work work) {
        return taken(source, moment, work, false);
    }

    private Run taken(Source.Simulation source, TimeSelector moment, Work work, boolean passing) {
        TimeSelector first = named(moment);
        Step step = await(source, first, work);
        TimeSelector same = named(moment);
        if (!same.equals(first)) {
            // Now that the times are known, the moment has a name that others share.
            steps.remove(first, step);
            Step other = steps.putIfAbsent(same, step);
            step = other == null || other.loading.now() == null ? step : other;
        }
        step.asked = clock.incrementAndGet();
        step.passing &= passing;
        Run read = Objects.requireNonNull(step.loading.now());
        return step.understood.computeIfAbsent(source.treatment().at(null), t -> t.apply(read));
    }

    /** Moments that mean the same stored time become one. */
    private TimeSelector named(TimeSelector moment) {
        List<Double> known = times;
        if (known == null) {
            return moment;
        }
        int at = known.isEmpty() ? 0 : moment.in(known);
        return at >= known.size() - 1 ? TimeSelector.LAST : new TimeSelector.At(known.get(at), 0);
    }

    /** The load of a time, begun unless it is under way or done. A failure is not kept. */
    private Step step(Source.Simulation source, TimeSelector moment) {
        return steps.compute(moment, (m, old) -> {
            if (old != null && !old.loading.lost()) {
                return old;
            }
            var made = new Step[1];
            made[0] = new Step(new Loading<>(source.name(), w -> load(source, m, made[0], w)));
            made[0].asked = clock.incrementAndGet();
            made[0].loading.start();
            return made[0];
        });
    }

    private Step await(Source.Simulation source, TimeSelector moment, Work work) {
        while (true) {
            Step one = step(source, moment);
            try {
                one.loading.await(work);
                return one;
            } catch (CancellationException e) {
                // Others gave it up, not we: it is begun again.
                work.poll();
            } catch (RuntimeException | Error e) {
                steps.remove(moment, one);
                throw e;
            }
        }
    }

    private Run load(Source.Simulation source, TimeSelector moment, Step step, Work work) {
        if (apart(source, moment, work)) {
            throw new LaneException(
                    Fault.TOO_LARGE, "The run \"" + source.name() + "\" is read in pieces, and is not held whole.");
        }
        List<FileStamp> before = new ArrayList<>();
        for (Path p : files.files) {
            if (!Series.is(p)) {
                before.add(FileStamp.of(p));
            }
        }
        Run run = new RunLoader(library, this, source, work).load(moment);
        // Numbers of one file and the hash of the next would make a trail that lies.
        before.forEach(FileStamp::requireSame);
        // Files that the first one refers to, and those of a series, are known only now.
        run.inputs().stream()
                .map(Provenance.Input::path)
                .map(library::resolve)
                .filter(p -> before.stream().noneMatch(s -> s.file().equals(p)))
                .map(FileStamp::of)
                .forEach(before::add);
        step.stamps = List.copyOf(before);
        times = run.times();
        trim(step);
        return run;
    }

    /** What all its times are known by together, until it is read again. */
    Object known() {
        return List.of(files, generation.get());
    }

    /** Whether the files are no longer as they were read, or a series has others. */
    boolean changed() {
        if (passed.values().stream().anyMatch(FileStamp::differs)) {
            return true;
        }
        if (inPieces.values().stream().anyMatch(RunInPieces::changed)) {
            return true;
        }
        if (steps.values().stream().anyMatch(s -> s.stamps.stream().anyMatch(FileStamp::differs))) {
            return true;
        }
        for (Map.Entry<Path, List<Path>> e : patterns.entrySet()) {
            try {
                if (!Series.files(e.getKey()).stream().sorted().toList().equals(e.getValue())) {
                    return true;
                }
            } catch (LaneException gone) {
                return true;
            }
        }
        return false;
    }

    /** Forgets the runs, so that they are read again when they are next asked for; a mesh that did not change stays. */
    void reload() {
        generation.incrementAndGet();
        steps.clear();
        inPieces.clear();
        apart = null;
        passed.clear();
        patterns.clear();
        listed.clear();
        times = null;
        overTime = null;
    }

    /** Runs that are loaded. */
    List<Run> loaded() {
        return steps.values().stream()
                .map(s -> s.loading.now())
                .filter(java.util.Objects::nonNull)
                .toList();
    }

    private static final long MOST = Runtime.getRuntime().maxMemory() / 8;

    /** Lets go of times that were passed by, and of those asked for long ago where their meshes take too much together. */
    private void trim(Step newest) {
        List<Map.Entry<TimeSelector, Step>> oldest = new ArrayList<>(steps.entrySet());
        oldest.sort(Comparator.comparingLong(e -> e.getValue().asked));
        oldest.removeIf(e -> e.getValue() == newest || e.getValue().loading.now() == null);
        List<Map.Entry<TimeSelector, Step>> passing =
                oldest.stream().filter(e -> e.getValue().passing).toList();
        for (int i = 0; i < passing.size() - PASSING; i++) {
            letGo(passing.get(i));
            oldest.remove(passing.get(i));
        }
        for (Map.Entry<TimeSelector, Step> e : oldest) {
            if (bytes() <= MOST) {
                return;
            }
            letGo(e);
        }
    }

    private void letGo(Map.Entry<TimeSelector, Step> one) {
        if (steps.remove(one.getKey(), one.getValue()) && one.getValue().passing) {
            one.getValue().stamps.forEach(s -> passed.put(s.file(), s));
            // Another object stands for it when it is opened again: these numbers would not be found.
            Optional.ofNullable(one.getValue().loading.now()).ifPresent(Shelf::leave);
            one.getValue().understood.values().forEach(Shelf::leave);
        }
    }

    /** Of meshes and surfaces that are held, each counted once; a locator takes about as much as its mesh. */
    private long bytes() {
        var seen = Collections.newSetFromMap(new IdentityHashMap<Mesh, Boolean>());
        for (Run run : loaded()) {
            seen.add(run.mesh());
            run.parts().stream().map(Part::surface).forEach(seen::add);
        }
        return seen.stream().mapToLong(m -> 2 * m.bytes()).sum();
    }
}
