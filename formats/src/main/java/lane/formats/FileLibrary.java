package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Partition;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formats.hash.HashesAhead;
import lane.formats.io.FaultLog;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileStamp;
import lane.formats.piece.InputFiles;
import lane.formats.piece.PieceAnswers;
import lane.formats.piece.PieceFolder;
import lane.formats.table.KeptTables;
import lane.formats.table.TableReader;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Answers;
import lane.study.Journal;
import lane.study.Library;
import lane.study.Root;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/**
 * Loads the files of a study, relative to its folder, and keeps what it loaded. A run stays as it was read, also when its
 * files change, until it is reloaded; a table is read again when its file changes, so that a growing log is followed.
 */
public final class FileLibrary implements Library, InputFiles {
    private volatile Path folder;
    private final Loaded loaded = new Loaded();
    /** How files looked when they were hashed. */
    private final Map<Path, FileStamp> proven = new ConcurrentHashMap<>();

    private final java.util.concurrent.atomic.AtomicInteger known = new java.util.concurrent.atomic.AtomicInteger();
    private final Map<Recording.Bundle, Recording> recordings = new ConcurrentHashMap<>();

    private Recording recording(Source.Simulation source) {
        List<Path> files = new ArrayList<>();
        files.add(resolve(source.file()));
        source.partFiles().forEach(p -> files.add(resolve(p)));
        var bundle = new Recording.Bundle(
                List.copyOf(files),
                source.regions(),
                source.treatment().metres(),
                source.treatment().inPieces());
        return recordings.computeIfAbsent(bundle, b -> new Recording(this, b));
    }

    /** Keys of sources whose files are no longer as they were read. */
    public Set<String> changed(Study study) {
        begin(study);
        var out = new LinkedHashSet<String>();
        for (Source source : study.sources()) {
            try {
                boolean other =
                        switch (source) {
                            case Source.Simulation s -> recording(s).changed();
                            case Source.Reference r -> tables.changed(r);
                        };
                if (other) {
                    out.add(source.id());
                }
            } catch (LaneException e) {
                // A path that is none is told when the source is read.
            }
        }
        return out;
    }

    /** How the files of a study's references stand now, to be compared with how they stood when it was computed. */
    public Object tables(Study study) {
        begin(study);
        return tables.now(study);
    }

    /** Forgets runs, so that they are read again when they are next asked for. */
    public void reload(Study study, Set<String> sources) {
        begin(study);
        for (Source source : study.sources()) {
            if (sources.contains(source.id()) && source instanceof Source.Simulation s) {
                recording(s).reload();
            }
        }
    }

    /** Files that stand elsewhere than the study says, by its path. */
    private final Map<String, Path> elsewhere;
    /** Whether numbers of single times that were kept from before may be taken. */
    private final boolean remembers;
    /** Whether files are known by their content, or else by how they look. */
    private final boolean proves;

    private final TableShelf tables;

    /** @param folder that relative paths of the study start from */
    public FileLibrary(Path folder) {
        this(folder, Map.of(), true, true);
    }

    private FileLibrary(Path folder, Map<String, Path> elsewhere, boolean remembers, boolean proves) {
        this.folder = folder.toAbsolutePath().normalize();
        this.elsewhere = Map.copyOf(elsewhere);
        this.remembers = remembers;
        this.proves = proves;
        tables = new TableShelf(this::resolve, remembers && proves ? KeptTables.USER : KeptTables.NONE);
    }

    /**
     * One that reads everything anew, for whoever verifies.
     *
     * @param elsewhere files that stand elsewhere than the study says, by its path
     */
    public static FileLibrary anew(Path folder, Map<String, Path> elsewhere) {
        return new FileLibrary(folder, elsewhere, false, true);
    }

    /**
     * One for numbers that leave without a trail: its files are known by how they look, which takes no time, where their SHA-256
     * takes longer than all else. What it keeps of single times is taken by nobody who tells a trail.
     */
    public static FileLibrary unproven(Path folder) {
        return new FileLibrary(folder, Map.of(), true, false);
    }

    /** The study stands in another folder now, its paths with it; what is asked for is read again under its new paths. */
    public void moveTo(Path other) {
        folder = other.toAbsolutePath().normalize();
        recordings.clear();
        loaded.clear();
        tables.clear();
        proven.clear();
    }

    /** Where the paths of the study start from that begin with a name. */
    private volatile Map<Root, Path> roots = Map.of();

    /** The folder of answers that the study names. */
    private volatile String named = "";

    /** Whether this machine is one of the cluster's. */
    private static final boolean ON_CLUSTER = "cluster".equals(System.getenv("LANE_PLACE"));

    @Override
    public void begin(Study study) {
        var now = new java.util.LinkedHashMap<Root, Path>();
        study.settings().roots().forEach(r -> now.put(r, place(r)));
        if (!now.equals(roots)) {
            roots = now;
            // The same paths may lead elsewhere now.
            recordings.clear();
            loaded.clear();
            tables.clear();
            proven.clear();
        }
        String folder = study.settings().pieces();
        if (remembers && !folder.equals(named)) {
            // Another folder, or none any more.
            named = folder;
            pieces = null;
            if (!folder.isBlank()) {
                keeping(new PieceFolder(resolve(folder)), lane -> java.util.Optional.empty());
            }
        }
    }

    private Path place(Root root, String rest) {
        return java.util.Objects.requireNonNull(roots.get(root)).resolve(rest);
    }

    /** Where a root is for this machine; where only the other place is there, as on a login node of the cluster, that. */
    private Path place(Root root) {
        Path wanted = folder.resolve(root.place(ON_CLUSTER)).normalize();
        Path other = folder.resolve(root.place(!ON_CLUSTER)).normalize();
        return !java.nio.file.Files.isDirectory(wanted) && java.nio.file.Files.isDirectory(other) ? other : wanted;
    }

    /** Where a path of the study points to. */
    public Path resolve(String path) {
        Path moved = elsewhere.get(path);
        if (moved != null) {
            return moved;
        }
        try {
            return Root.of(roots.keySet(), path)
                    .map(r -> place(r, path.substring(r.begin().length())))
                    .orElseGet(() -> folder.resolve(path))
                    .normalize();
        } catch (java.nio.file.InvalidPathException e) {
            throw new LaneException("\"" + path + "\" is no path on this machine; correct it in the study.", e);
        }
    }

    /** A path as the study writes it. */
    String relative(Path file) {
        Path there = file.toAbsolutePath().normalize();
        for (var e : elsewhere.entrySet()) {
            if (e.getValue().equals(there)) {
                return e.getKey();
            }
        }
        return rooted(there).orElseGet(() -> (there.startsWith(folder) ? folder.relativize(there) : there)
                .toString()
                .replace('\\', '/'));
    }

    /** How a study that stands here names a file: from a root where it lies in one, else from the study's folder. */
    public String named(Path file) {
        return rooted(file.toAbsolutePath().normalize()).orElseGet(() -> FileNames.relative(folder, file));
    }

    private java.util.Optional<String> rooted(Path there) {
        return roots.entrySet().stream()
                .filter(e -> there.startsWith(e.getValue()))
                .findFirst()
                .map(e -> e.getKey().begin()
                        + e.getValue().relativize(there).toString().replace('\\', '/'));
    }

    /** When a file was changed last and how long it is, by which one that stays as it is is known. */
    @Override
    public FileStamp stamp(String path) {
        return FileStamp.of(resolve(path));
    }

    /**
     * A file by content: hashed once as long as it looks the same.
     *
     * @param shown the path as the trail names it
     */
    Provenance.Input input(Path file, String shown, Work work) {
        FileStamp stamp = FileStamp.of(file);
        FileStamp before = proven.get(file);
        if (before != null && !before.equals(stamp)) {
            loaded.remove(new Hashed(before));
        }
        Provenance.Input found = loaded.of(
                new Hashed(stamp),
                () -> proves
                        ? stamp.reading(() -> HashesAhead.SHARED.input(stamp, shown, work))
                        : new Provenance.Input(shown, FileHash.ofText("looks like " + stamp), stamp.size()));
        proven.put(file, stamp);
        return new Provenance.Input(shown, found.sha256(), found.bytes());
    }

    private volatile boolean allTimes;

    /** What is read of it is read at all times: who proves files makes himself ready for that while the first is read. */
    public FileLibrary atAllTimes() {
        allTimes = true;
        return this;
    }

    /** One of the times of a run was read and proved. */
    void began(Recording of, List<Double> times) {
        if (allTimes && proves && times.size() > 1) {
            List<Path> files = of
                    .files(times.stream().mapToDouble(Double::doubleValue).toArray())
                    .stream()
                    .distinct()
                    .toList();
            if (!files.isEmpty()) {
                // The others are likely as large as the first one.
                HashesAhead.SHARED.ready(
                        files.size() * FileStamp.of(files.getFirst()).size());
            }
        }
    }

    /** Files that are going to be asked for by content, the next first. */
    void ahead(List<Path> files) {
        if (proves) {
            HashesAhead.SHARED.want(
                    files.stream().filter(f -> !proven.containsKey(f)).toList());
        }
    }

    @Override
    public void foresee(Source.Simulation source, double[] times) {
        try {
            ahead(recording(source).files(times));
        } catch (LaneException e) {
            // It is told when the times are opened.
        }
    }

    /** Begins to load all runs of a study, each on a thread of its own; what fails is told when the study asks for it. */
    public void prepare(Study study) {
        begin(study);
        for (Source source : study.sources()) {
            if (source instanceof Source.Simulation s) {
                try {
                    recording(s).prepare(s, study.timeOf(s));
                } catch (LaneException e) {
                    // The evaluation asks for it again and shows the reason on the source's row.
                }
            }
        }
    }

    @Override
    public Table table(String file, List<Recipe> recipes) {
        return tables.of(file, recipes);
    }

    @Override
    public Optional<Table> firstLook(String file, List<Recipe> recipes, Set<String> columns, Work work) {
        return tables.firstLook(file, recipes, columns, work);
    }

    @Override
    public void foreseeTables(List<String> files, List<Recipe> recipes, Work work) {
        tables.foresee(files, recipes, work);
    }

    /** The first rows of a table, as {@link #table} would read it: enough to tell what it is, at once. */
    public Table tableStart(String file, List<Recipe> recipes) {
        Path path = resolve(file);
        return TableReader.start(path, file, kinds -> TableReader.recipe(recipes, path, kinds));
    }

    /** What a sheet's file said at its stamp. */
    private record Surface(FileStamp of) {}

    @Override
    public java.util.Optional<Provenance.Input> sheetInput(String file) {
        return java.util.Optional.of(input(resolve(file), file, Work.QUIET));
    }

    /** A file's hash as long as it does not change. */
    private record Hashed(FileStamp of) {}

    @Override
    public lane.mesh.Mesh sheet(String file) {
        FileStamp stamp = stamp(file);
        loaded.removeIf(k -> k instanceof Surface s && s.of.file().equals(stamp.file()) && !s.of.equals(stamp));
        return loaded.of(new Surface(stamp), () -> {
            lane.mesh.Mesh mesh = DatasetReader.read(stamp.file(), Work.QUIET).mesh();
            if (mesh.dimension() != 2) {
                throw new LaneException(
                        "The sheet " + file + " holds no surface; give a file of triangles or polygons, such as STL.");
            }
            return mesh;
        });
    }

    @Override
    public Run run(Source.Simulation source, TimeSelector moment, Work work) {
        return recording(source).run(source, moment, work);
    }

    @Override
    public java.util.Optional<Partition> partition(Source.Simulation source, TimeSelector moment, Work work) {
        return recording(source).partition(source, moment, work).map(Partition.class::cast);
    }

    @Override
    public Run passing(Source.Simulation source, TimeSelector moment, Work work) {
        return recording(source).passing(source, moment, work);
    }

    @Override
    public void prepare(Source.Simulation source, TimeSelector moment) {
        try {
            recording(source).prepare(source, moment);
        } catch (LaneException e) {
            // It is told when it is asked for.
        }
    }

    @Override
    public Object recorded(Source.Simulation source, Run run) {
        return List.of(recording(source).known(), run.times());
    }

    @Override
    public Journal journal(Source.Simulation source, List<?> definition) {
        if (!remembers) {
            return Journal.NONE;
        }
        List<Object> by = new java.util.ArrayList<>(definition);
        if (!proves) {
            by.add("unproven");
        }
        Journal own = StepJournal.of(this, resolve(source.file()), by);
        return pieces == null ? own : pieces.journal(source, definition, own);
    }

    /** Answers that a folder keeps; null for none. */
    private volatile @Nullable PieceAnswers pieces;

    /**
     * Takes answers from a folder, and puts what is made there.
     *
     * @param awaited why what is missing of a lane is not computed here; empty where it is
     */
    public PieceAnswers keeping(
            PieceFolder folder, java.util.function.Function<Source.Simulation, java.util.Optional<String>> awaited) {
        var kept = new PieceAnswers(this, folder, awaited);
        pieces = kept;
        return kept;
    }

    /** Takes no more answers from a folder: what is missing is computed here. */
    public void alone() {
        pieces = null;
    }

    /** The study's folder. */
    public Path folder() {
        return folder;
    }

    @Override
    public Answers answers() {
        Answers kept = pieces;
        return kept == null ? Answers.NONE : kept;
    }

    @Override
    public FileStamp read(String path) {
        return hashed(path).orElseGet(() -> stamp(path));
    }

    @Override
    public String content(String path) {
        return input(resolve(path), path, Work.QUIET).sha256();
    }

    /** How many single times were known from before and not read again. */
    public int known() {
        return known.get();
    }

    @Override
    public void oneKnown() {
        known.incrementAndGet();
    }

    /** How a file looked when it was hashed; empty where it was not. */
    java.util.Optional<FileStamp> hashed(String path) {
        return java.util.Optional.ofNullable(proven.get(resolve(path)));
    }

    @Override
    public String fault(String doing, Throwable fault) {
        return FaultLog.note(doing, fault);
    }

    @Override
    public void settled(Study study) {
        var wanted = new java.util.HashSet<Recording>();
        for (Source source : study.sources()) {
            try {
                if (source instanceof Source.Simulation s) {
                    wanted.add(recording(s));
                }
            } catch (LaneException e) {
                // A path that is none keeps nothing.
            }
        }
        recordings.values().removeIf(r -> !wanted.contains(r));
    }
}
