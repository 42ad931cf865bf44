package lane.formats;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;
import lane.field.Field;
import lane.field.Gather;
import lane.field.Partition;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.io.FileStamp;
import lane.mesh.CellShape;
import lane.mesh.Joints;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/**
 * A run at one time that is stored in pieces, read one after the other. Before the first answer all meshes are passed once, to
 * find where they meet; of them nothing is held but their boundaries.
 */
final class RunInPieces implements Partition {
    private final FileLibrary library;
    private final Recording recording;
    private final Source.Simulation source;
    private final TimeSelector moment;
    private final int size;
    private final List<Provenance.Input> inputs;
    private final List<FileStamp> stamps;
    private final List<Joints> joints;
    private final PieceParts parts;
    private final Object key;
    private final Run head;

    RunInPieces(FileLibrary library, Recording recording, Source.Simulation source, TimeSelector moment, Work work) {
        this.library = library;
        this.recording = recording;
        this.source = source;
        Path file = library.resolve(source.file());
        double metres = source.treatment().metres();
        var pass = new Pass(source.regions());
        TimeSelector same = moment;
        int count = 1;
        Work meshes = work.stretch(0, 0.5);
        for (int k = 0; k < count; k++) {
            work.poll();
            meshes.progress("Where the pieces of " + source.name() + " meet", (double) k / Math.max(2, count));
            Dataset one = recording.open(file, same, k, work);
            count = one.pieces();
            // A series that grows meanwhile must not give pieces of two times.
            same = Double.isNaN(one.time()) ? same : new TimeSelector.At(one.time(), 0);
            pass.add(k, one, metres == 0 ? 1 : metres);
        }
        this.moment = same;
        size = count;
        joints = pass.finder.found();
        parts = pass.parts(source.partFiles().isEmpty());
        var files = new LinkedHashSet<Path>();
        if (!Series.is(file)) {
            files.add(file);
        }
        files.addAll(pass.files);
        source.partFiles().forEach(p -> files.add(library.resolve(p)));
        stamps = files.stream().map(FileStamp::of).toList();
        inputs = hashed(List.copyOf(files), work.stretch(0.5, 1));
        key = List.of(inputs, source.regions(), metres, pass.time, "in pieces", size);
        head = source.treatment().at(null).apply(read(0, work)).piece(Gather.apart(size));
    }

    /** The files by content: several at once, since one core reads faster than it proves. */
    private List<Provenance.Input> hashed(List<Path> files, Work work) {
        var out = new Provenance.Input[files.size()];
        var done = new java.util.concurrent.atomic.AtomicInteger();
        Parallel.forBlocks(files.size(), 1, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                library.ahead(files.subList(i + 1, files.size()));
                Path f = files.get(i);
                String shown = f.equals(library.resolve(source.file())) ? source.file() : library.relative(f);
                out[i] = library.input(f, shown, work);
                work.progress("Proof of the files of " + source.name(), (double) done.incrementAndGet() / out.length);
            }
        });
        return List.of(out);
    }

    /** What is found out by passing all meshes. */
    private static final class Pass {
        final Joints.Finder finder = new Joints.Finder();
        final Set<Path> files = new LinkedHashSet<>();
        private final String regions;
        private final TreeSet<Integer> numbers = new TreeSet<>();
        private final Map<String, List<Field>> groups = new LinkedHashMap<>();
        private final Set<String> remarks = new LinkedHashSet<>();
        private Map<String, List<String>> labels = Map.of();
        private boolean faceCells;
        private boolean told;
        double time = Double.NaN;

        Pass(String regions) {
            this.regions = regions;
        }

        void add(int k, Dataset one, double metres) {
            Mesh mesh = metres == 1 ? one.mesh() : one.mesh().scaled(metres);
            if (mesh.cellCount() > 0 && mesh.dimension() != 3) {
                throw new LaneException("Piece " + (k + 1)
                        + " holds no cells with a volume, so the run is none that can be read in pieces; state that it is"
                        + " held whole.");
            }
            finder.add(mesh);
            time = one.time();
            files.addAll(one.files());
            remarks.addAll(one.remarks());
            labels = labels.isEmpty() ? one.labels() : labels;
            one.groups().forEach(g -> groups.putIfAbsent(g.name(), g.fields()));
            for (int c = 0; c < mesh.cellCount() && !faceCells; c++) {
                CellShape shape = mesh.shape(c);
                faceCells = shape.dimension() == 2;
            }
            one.fields().stream()
                    .filter(f -> f.name().equals(regions) && f.at() == Field.At.CELL && f.components() == 1)
                    .findFirst()
                    .ifPresent(f -> {
                        told = true;
                        if (f.values() instanceof Values.Ints numbered) {
                            for (int n : numbered.array()) {
                                numbers.add(n);
                            }
                        }
                    });
        }

        PieceParts parts(boolean noFiles) {
            Map<String, List<Field>> named = new LinkedHashMap<>(groups);
            List<String> words = told ? RunLoader.names(labels, regions, numbers) : null;
            for (int n : told ? numbers : new TreeSet<Integer>()) {
                named.putIfAbsent(name(words, n), List.of());
            }
            return new PieceParts(numbers, faceCells, named, named.isEmpty() && noFiles, List.copyOf(remarks));
        }

        private String name(@Nullable List<String> words, int n) {
            String word = words == null || n < 0 || n >= words.size() ? "" : words.get(n);
            return word.isBlank() ? regions + " " + n : word;
        }
    }

    @Override
    public int size() {
        return size;
    }

    private Run read(int k, Work work) {
        stamps.forEach(FileStamp::requireSame);
        return new RunLoader(library, recording, source, work)
                .piece(moment, k, parts, joints.get(k), inputs, List.of(key, k));
    }

    @Override
    public Run piece(int k, Work work) {
        return source.treatment().at(null).apply(read(k, work));
    }

    @Override
    public Run head() {
        return head;
    }

    /** Whether a file is no longer as it was read. */
    boolean changed() {
        return stamps.stream().anyMatch(FileStamp::differs);
    }
}
